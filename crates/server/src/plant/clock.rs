//! The clock on the plant's wall: every hour and day shown or planned is its.

use axum::extract::State;
use ironpeel_core::schedule::time_zone;
use ironpeel_core::units::ValidationErrors;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::problem::{Problem, Result};
use crate::request::Json;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(clock, set_clock))
}

/// The clock on the plant's wall.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
struct PlantClock {
    /// By its name in the time zone database, like Europe/London.
    #[serde(default)]
    #[schema(required = true)]
    time_zone: String,
}

/// The clock on the plant's wall
#[utoipa::path(get, path = "/api/v1/plant/clock", tag = "plant",
    responses((status = 200, body = PlantClock), (status = "5XX", body = Problem, content_type = "application/problem+json")))]
async fn clock(State(app): State<App>) -> Result<Json<PlantClock>> {
    let time_zone = app.revisions.plant().await?.time_zone.clone();
    Ok(Json(PlantClock { time_zone }))
}

/// Sets the clock on the plant's wall; moments on record stay what they are and are shown by it
#[utoipa::path(put, path = "/api/v1/plant/clock", tag = "plant", request_body = PlantClock,
    responses((status = 200, body = PlantClock), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn set_clock(
    State(app): State<App>,
    Json(PlantClock { time_zone: name }): Json<PlantClock>,
) -> Result<Json<PlantClock>> {
    let mut faults = ValidationErrors::default();
    let zone = time_zone(&name, "time_zone", "", &mut faults);
    let time_zone = faults.or(zone)?.map_or(name, |zone| zone.name().to_owned());
    app.store.set_time_zone(&time_zone).await?;
    app.revisions.forget_plant().await;
    Ok(Json(PlantClock { time_zone }))
}
