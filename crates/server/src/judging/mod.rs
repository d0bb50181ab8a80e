//! Judging: coded samples, sheets, judges together, and what a product is held to.

mod panel;
mod photograph;
mod samples;
mod scores;
mod standard;
mod trial;

use utoipa_axum::router::OpenApiRouter;

use crate::state::App;

pub use panel::{EARLIER_SHEETS, JudgedBy, seen_by_judges};
pub use photograph::taken;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .merge(samples::routes())
        .merge(photograph::routes())
        .merge(scores::routes())
        .merge(standard::routes())
        .merge(trial::routes())
}
