//! The dough in hand as sponge and dough and as a straight dough.

use axum::Json;
use axum::extract::State;
use ironpeel_core::chain::{TwoWays, chain, two_ways};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::chain::{HandInput, Held};
use crate::problem::{Problem, Result};
use crate::request::Body;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(both))
}

/// The dough in hand both ways, straight and as sponge and dough
#[utoipa::path(post, path = "/api/v1/chain/two-ways", tag = "chain", request_body = HandInput,
    responses((status = 200, body = TwoWays), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn both(State(app): State<App>, Body(asked): Body<HandInput>) -> Result<Json<TwoWays>> {
    let held = Held::load(&app, &asked, "").await?;
    let flours = held.flours();
    let hand = held.hand(&flours);
    let found = two_ways(&hand, &chain(&hand));
    Ok(Json(found.map_err(|error| Problem::field("hand", error.to_string()))?))
}
