//! The plant's clock and own numbers, and what its lots teach.

mod clock;
mod model;
mod parameters;

use utoipa_axum::router::OpenApiRouter;

use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().merge(clock::routes()).merge(parameters::routes()).merge(model::routes())
}
