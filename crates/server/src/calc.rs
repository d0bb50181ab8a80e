//! The calculators: stateless, nothing stored.

use axum::Json;
use axum::extract::DefaultBodyLimit;
use ironpeel_core::flour::{MoistureBasisAnswer, MoistureBasisInput};
use ironpeel_core::heat::{Answer, DoughTemperatureInput};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::problem::{Problem, Result};
use crate::request::Body;
use crate::state::App;

const MOST_BYTES: usize = 16 * 1024 * 1024;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(moisture_basis))
        .routes(routes!(dough_temperature))
        .layer(DefaultBodyLimit::max(MOST_BYTES))
}

/// A share of the flour moved from one moisture to another
#[utoipa::path(post, path = "/api/v1/calc/moisture-basis", tag = "calculators",
    request_body = MoistureBasisInput,
    responses((status = 200, body = MoistureBasisAnswer), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn moisture_basis(
    Body(input): Body<MoistureBasisInput>,
) -> Result<Json<MoistureBasisAnswer>> {
    Ok(Json(input.compute()?))
}

/// Water temperature, or ice, by heat balance
#[utoipa::path(post, path = "/api/v1/calc/dough-temperature", tag = "calculators",
    request_body = DoughTemperatureInput,
    responses((status = 200, body = Answer), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn dough_temperature(Body(input): Body<DoughTemperatureInput>) -> Result<Json<Answer>> {
    Ok(Json(input.compute()?))
}
