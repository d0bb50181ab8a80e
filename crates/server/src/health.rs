use axum::extract::State;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::problem::{Problem, Result};
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(healthz)).routes(routes!(readyz))
}

/// The server is up
#[utoipa::path(get, path = "/healthz", security(()), tag = "health", responses((status = 200, body = str)))]
async fn healthz() -> &'static str {
    "up"
}

/// The server is up and reaches its records
#[utoipa::path(get, path = "/readyz", security(()), tag = "health",
    responses((status = 200, body = str), (status = 503, body = Problem, content_type = "application/problem+json")))]
async fn readyz(State(app): State<App>) -> Result<&'static str> {
    app.store.ping().await?;
    Ok("ready")
}
