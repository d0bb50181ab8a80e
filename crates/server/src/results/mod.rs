//! What batches came to: charts, comparisons, and the numbers they teach.

mod chart;
mod compare;
mod export;
mod faults;
mod learned;
mod quarter;
mod watch;
mod what_if;

use utoipa_axum::router::OpenApiRouter;

use crate::state::App;

pub use watch::watch;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .merge(chart::routes())
        .merge(compare::routes())
        .merge(export::routes())
        .merge(faults::routes())
        .merge(learned::routes())
        .merge(quarter::routes())
        .merge(watch::routes())
        .merge(what_if::routes())
}
