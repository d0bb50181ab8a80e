//! A dough by amounts, and one number of a dough changed.

use axum::extract::State;
use ironpeel_core::chain::{AdjustmentError, WeightAdjustment, adjust_weight};
use ironpeel_core::dough::{
    AmountsRead, ByAmount, CupFlour, Ingredient, KeptConstant, PieceFormAnswer, PieceFormInput,
    StarterConvention, StarterShare, StarterShares,
};
use ironpeel_core::units::{NumberRange, RawNumber, ValidationErrors};
use serde::Deserialize;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::chain::{ScenarioContext, ScenarioInput};
use crate::problem::{Problem, Result};
use crate::request::Json;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(amounts))
        .routes(routes!(piece_form))
        .routes(routes!(change))
        .routes(routes!(starter_shares))
}

/// A dough written down by amounts, understood as baker's percent with its doubt
#[utoipa::path(post, path = "/api/v1/formula-amounts", security(("session" = ["read"])), tag = "formula", request_body = ByAmount,
    responses((status = 200, body = AmountsRead), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn amounts(State(app): State<App>, Json(by): Json<ByAmount>) -> Result<Json<AmountsRead>> {
    let plant = app.parameters().await?;
    let flours = app.store.flours().await?;
    let flour_of = |name: &str| {
        let flour = flours.iter().find(|flour| flour.name == name.trim())?;
        Some(CupFlour::of(flour.species, flour.extraction_pct))
    };
    Ok(Json(by.read(&plant.library, &plant.coefficients, &flour_of)?))
}

/// The piece that fills a tin or a disc, or the form that a piece fills
#[utoipa::path(post, path = "/api/v1/piece-form", security(("session" = ["read"])), tag = "formula", request_body = PieceFormInput,
    responses((status = 200, body = PieceFormAnswer), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn piece_form(
    State(app): State<App>,
    Json(asked): Json<PieceFormInput>,
) -> Result<Json<PieceFormAnswer>> {
    Ok(Json(asked.compute(&app.parameters().await?.coefficients)?))
}

/// One mass of the selected product, to be changed while something else stays.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct OneNumber {
    scenario: ScenarioInput,
    /// What is changed: an ingredient, flour or water.
    ingredient: Ingredient,
    /// Its new mass in one dough, 0 to 100 000 kg.
    #[serde(default)]
    kg: RawNumber,
    keep: KeptConstant,
}

const KG: NumberRange = NumberRange::new("kg", "its mass", "kg", 0.0, 100_000.0);

/// Changes one mass of the selected product and keeps flour, dough or water as it is
#[utoipa::path(post, path = "/api/v1/chain/weight-adjustment", security(("session" = ["read"])), tag = "formula", request_body = OneNumber,
    responses((status = 200, body = WeightAdjustment), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn change(
    State(app): State<App>,
    Json(asked): Json<OneNumber>,
) -> Result<Json<WeightAdjustment>> {
    let mut faults = ValidationErrors::default();
    let kg = KG.check(&asked.kg, "", &mut faults);
    faults.or(())?;
    let context = ScenarioContext::load(&app, &asked.scenario, "scenario.").await?;
    let flours = context.flours();
    let scenario = context.scenario(&flours);
    adjust_weight(&scenario, asked.ingredient, kg, asked.keep).map(Json).map_err(|refused| {
        let field = if matches!(refused, AdjustmentError::NoChain(_)) { "scenario" } else { "kg" };
        Problem::field(field, refused.to_string())
    })
}

/// A starter's share stated in one convention.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct StarterStated {
    convention: StarterConvention,
    /// 0 to 500 %.
    #[serde(default)]
    pct: RawNumber,
    /// Water over flour in it, 0 to 500 %; 100 if left out.
    #[serde(default)]
    hydration_pct: RawNumber,
    /// Its water instead, 0 to 500 % on all flour, where the share is of its flour.
    #[serde(default)]
    water_pct: RawNumber,
    /// Dough that 100 of flour make; 175 if left out.
    #[serde(default)]
    dough_pct: RawNumber,
}

const PCT: NumberRange = NumberRange::new("pct", "the starter's share", "%", 0.0, 500.0);
const HYDRATION: NumberRange =
    NumberRange::new("hydration_pct", "hydration of the starter", "%", 0.0, 500.0);
const WATER: NumberRange = NumberRange::new("water_pct", "water of the starter", "%", 0.0, 500.0);
const DOUGH: NumberRange =
    NumberRange::new("dough_pct", "dough from 100 of flour", "%", 100.0, 400.0);

/// A starter's share in every convention
#[utoipa::path(post, path = "/api/v1/starter-shares", security(("session" = ["read"])), tag = "formula", request_body = StarterStated,
    responses((status = 200, body = StarterShares), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn starter_shares(Json(asked): Json<StarterStated>) -> Result<Json<StarterShares>> {
    let mut faults = ValidationErrors::default();
    let pct = PCT.check(&asked.pct, "", &mut faults);
    let water = WATER.check_opt(&asked.water_pct, "", &mut faults);
    let hydration = match water.filter(|_| pct > 0.0) {
        Some(water) => 100.0 * water / pct,
        None => HYDRATION.check_or(&asked.hydration_pct, 100.0, "", &mut faults),
    };
    let dough = DOUGH.check_or(&asked.dough_pct, 175.0, "", &mut faults);
    faults.or(())?;
    StarterShare { convention: asked.convention, pct, hydration_pct: hydration, dough_pct: dough }
        .shares()
        .map(Json)
        .ok_or_else(|| {
            Problem::field(
                "pct",
                "no dough has so much starter: its flour would be all of the flour",
            )
        })
}
