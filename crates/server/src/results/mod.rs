//! What batches came to: charts, comparisons, and the numbers they teach.

mod chart;
mod compare;
mod export;
mod faults;
mod learned;
mod quarter;

use utoipa_axum::router::OpenApiRouter;

use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .merge(chart::routes())
        .merge(compare::routes())
        .merge(export::routes())
        .merge(faults::routes())
        .merge(learned::routes())
        .merge(quarter::routes())
}
