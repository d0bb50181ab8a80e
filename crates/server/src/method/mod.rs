//! Methods with their revisions, and everything a method says of the dough in hand: its stages, its
//! sponge, its rise, and its hours.

mod calendar;
mod day;
mod document;
mod guide;
mod line;
mod rise;
mod run;
mod sponge;
mod temperature;
mod two_ways;

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
        .merge(two_ways::routes())
        .merge(rise::routes())
        .merge(day::routes())
        .merge(run::routes())
}
