//! The sponge of the selected product, its numbers solved from one another.

use axum::extract::State;
use ironpeel_core::chain::{
    SpongeAcceleration, SpongeFound, SpongeView, chain, sponge_acceleration, sponge_for,
};
use ironpeel_core::units::{NumberRange, RawNumber, ValidationErrors};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::chain::{ScenarioContext, ScenarioInput};
use crate::problem::{Problem, Result};
use crate::request::Json;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(sponge))
}

/// A sponge to be looked at, and what is wanted of it.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct SpongeAsked {
    scenario: ScenarioInput,
    /// The end temperature that is wanted, 15 to 40 °C.
    #[serde(default)]
    end_c: RawNumber,
    /// Ripe so much sooner, 5 to 240 min.
    #[serde(default)]
    sooner_min: RawNumber,
}

/// The sponge, and what was wanted of it.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct SpongeAnswer {
    /// None where the dough has no sponge.
    sponge: Option<SpongeView>,
    /// Each number that alone brings it to the end temperature.
    found: Vec<SpongeFound>,
    acceleration: Option<SpongeAcceleration>,
}

const END: NumberRange = NumberRange::new("end_c", "end of the sponge", "°C", 15.0, 40.0);
const SOONER: NumberRange = NumberRange::new("sooner_min", "ripe sooner by", "min", 5.0, 240.0);

/// The sponge of the selected product, its numbers solved from one another
#[utoipa::path(post, path = "/api/v1/chain/sponge", security(("session" = ["read"])), tag = "chain", request_body = SpongeAsked,
    responses((status = 200, body = SpongeAnswer), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn sponge(
    State(app): State<App>,
    Json(asked): Json<SpongeAsked>,
) -> Result<Json<SpongeAnswer>> {
    let mut faults = ValidationErrors::default();
    let end_c = END.check_opt(&asked.end_c, "", &mut faults);
    let sooner_min = SOONER.check_opt(&asked.sooner_min, "", &mut faults);
    faults.or(())?;
    let context = ScenarioContext::load(&app, &asked.scenario, "scenario.").await?;
    let flours = context.flours();
    let scenario = context.scenario(&flours);
    let chain = chain(&scenario);
    Ok(Json(SpongeAnswer {
        sponge: SpongeView::of(&scenario, &chain),
        found: end_c.and_then(|end_c| sponge_for(&scenario, &chain, end_c)).unwrap_or_default(),
        acceleration: sooner_min.and_then(|by_min| sponge_acceleration(&scenario, &chain, by_min)),
    }))
}
