use axum::extract::State;
use ironpeel_store::Beginning;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::problem::{Problem, Result};
use crate::request::Json;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(beginning))
}

/// What a plant has of what its first mixing sheet takes; nothing where it is the demo plant, which
/// has it all
#[utoipa::path(get, path = "/api/v1/plant/beginning", security(("session" = ["read"])), tag = "plant",
    responses((status = 200, body = Option<Beginning>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn beginning(State(app): State<App>) -> Result<Json<Option<Beginning>>> {
    if app.config.demo {
        return Ok(Json(None));
    }
    Ok(Json(Some(app.store.beginning().await?)))
}
