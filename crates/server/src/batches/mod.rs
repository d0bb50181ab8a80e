//! Batches: planned, run on the floor, and what they came to.

mod board;
mod events;
mod fermentation;
mod issue;
mod issued;
mod list;
mod on_floor;
mod recall;
mod recovery;
mod run;
mod stand_in;
mod view;

pub use fermentation::rate_by_jar;
pub use issue::{BatchInput, plan};
pub use list::BatchQuery;
pub use on_floor::BatchOnFloor;
pub use view::batch_view;

use utoipa_axum::router::OpenApiRouter;

use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .merge(list::routes())
        .merge(issue::routes())
        .merge(events::routes())
        .merge(fermentation::routes())
        .merge(run::routes())
        .merge(board::routes())
        .merge(recall::routes())
        .merge(recovery::routes())
        .merge(stand_in::routes())
}
