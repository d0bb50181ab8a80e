//! The plant's clock and own numbers, and what its lots teach.

mod clock;
mod model;
mod numbers;

use utoipa_axum::router::OpenApiRouter;

use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().merge(clock::routes()).merge(numbers::routes()).merge(model::routes())
}
