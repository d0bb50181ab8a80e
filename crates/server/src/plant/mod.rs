//! The plant's settings and own numbers, and what its lots teach.

mod beginning;
mod model;
mod parameters;
mod settings;

use utoipa_axum::router::OpenApiRouter;

use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .merge(beginning::routes())
        .merge(settings::routes())
        .merge(parameters::routes())
        .merge(model::routes())
}
