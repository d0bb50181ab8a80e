//! The plant's own numbers, and what its lots teach.

mod model;
mod numbers;

use utoipa_axum::router::OpenApiRouter;

use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().merge(numbers::routes()).merge(model::routes())
}
