//! The selected product as sponge and dough and as a straight dough.

use axum::extract::State;
use ironpeel_core::chain::{ProcessComparison, chain, process_comparison};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::chain::{ScenarioContext, ScenarioInput};
use crate::problem::{Problem, Result};
use crate::request::Json;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(both))
}

/// The selected product both ways, straight and as sponge and dough
#[utoipa::path(post, path = "/api/v1/chain/process-comparison", security(("session" = ["read"])), tag = "chain", request_body = ScenarioInput,
    responses((status = 200, body = ProcessComparison), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn both(
    State(app): State<App>,
    Json(asked): Json<ScenarioInput>,
) -> Result<Json<ProcessComparison>> {
    let context = ScenarioContext::load(&app, &asked, "").await?;
    let flours = context.flours();
    let scenario = context.scenario(&flours);
    let found = process_comparison(&scenario, &chain(&scenario));
    Ok(Json(found.map_err(|error| Problem::field("scenario", error.to_string()))?))
}
