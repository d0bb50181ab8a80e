//! Methods with their revisions, and everything a method says of the selected product: its stages, its
//! sponge, its rise, and its hours.

mod calendar;
mod document;
mod guide;
mod line;
mod portions;
mod process_comparison;
mod rise;
mod run;
mod schedule;
mod sponge;
mod temperature;

use utoipa_axum::router::OpenApiRouter;

pub use document::MethodView;
pub use line::LineView;

use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .merge(document::routes())
        .merge(line::routes())
        .merge(guide::routes())
        .merge(temperature::routes())
        .merge(sponge::routes())
        .merge(process_comparison::routes())
        .merge(rise::routes())
        .merge(schedule::routes())
        .merge(run::routes())
        .merge(portions::routes())
}
