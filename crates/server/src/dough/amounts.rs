//! A dough by amounts, and one number of a dough changed.

use axum::extract::State;
use ironpeel_core::chain::figures;
use ironpeel_core::dough::{
    AmountsRead, ByAmount, Ingredient, KeptConstant, Masses, StarterConvention, StarterShares,
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
    OpenApiRouter::new()
        .routes(routes!(amounts))
        .routes(routes!(change))
        .routes(routes!(starter_shares))
}

/// A dough written down by amounts, understood as baker's percent with its doubt
#[utoipa::path(post, path = "/api/v1/formula-amounts", tag = "formula", request_body = ByAmount,
    responses((status = 200, body = AmountsRead), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn amounts(State(app): State<App>, Json(by): Json<ByAmount>) -> Result<Json<AmountsRead>> {
    let plant = app.parameters().await?;
    Ok(Json(by.read(&plant.library, &plant.coefficients)?))
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

/// The dough with that number changed.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct Changed {
    /// The whole dough's lines, to go on with as a draft.
    lines: Vec<ChangedLine>,
    /// All the water the dough has then, on flour: set by hand.
    hydration_pct: f64,
    /// All the dough of the run.
    dough_kg: f64,
}

#[derive(Debug, Clone, Serialize, ToSchema)]
struct ChangedLine {
    ingredient: Ingredient,
    pct: f64,
}

const KG: NumberRange = NumberRange::new("kg", "its mass", "kg", 0.0, 100_000.0);

/// Changes one mass of the selected product and keeps flour, dough or water as it is
#[utoipa::path(post, path = "/api/v1/chain/weight-adjustment", tag = "formula", request_body = OneNumber,
    responses((status = 200, body = Changed), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn change(State(app): State<App>, Json(asked): Json<OneNumber>) -> Result<Json<Changed>> {
    let mut faults = ValidationErrors::default();
    let kg = KG.check(&asked.kg, "", &mut faults);
    faults.or(())?;
    let context = ScenarioContext::load(&app, &asked.scenario, "scenario.").await?;
    let flours = context.flours();
    let scenario = context.scenario(&flours);
    let found = figures(&scenario);
    let Some(dough) = found.dough else {
        let message = found.error.map_or_else(String::new, |error| error.message);
        return Err(Problem::field("scenario", message));
    };
    let formula = &scenario.formula.formula;
    let mass = |pct: f64| dough.flour_kg * pct / 100.0;
    let mut masses = vec![(Ingredient::Flour, dough.flour_kg), (Ingredient::Water, dough.water_kg)];
    masses.extend(formula.additions().map(|line| (line.ingredient, mass(line.pct))));
    let changed = Masses(masses)
        .with(asked.ingredient, kg, asked.keep)
        .map_err(|refused| Problem::field("kg", refused.to_string()))?;
    let on_flour = changed.on_flour();
    let added_water_pct =
        on_flour.iter().find(|(one, _)| *one == Ingredient::Water).map_or(0.0, |one| one.1);
    let lines: Vec<ChangedLine> = std::iter::once((Ingredient::Flour, 100.0))
        .chain(on_flour.into_iter().filter(|(one, _)| *one != Ingredient::Water))
        .map(|(ingredient, pct)| ChangedLine { ingredient, pct })
        .collect();
    let library = &scenario.plant.library;
    let brought: f64 = lines
        .iter()
        .map(|line| line.pct * library.properties(line.ingredient).water_pct / 100.0)
        .sum();
    Ok(Json(Changed {
        hydration_pct: added_water_pct + brought,
        dough_kg: changed.total_kg() * f64::from(dough.scaled.doughs),
        lines,
    }))
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
    /// Dough that 100 of flour make; 175 if left out.
    #[serde(default)]
    dough_pct: RawNumber,
}

const PCT: NumberRange = NumberRange::new("pct", "the starter's share", "%", 0.0, 500.0);
const HYDRATION: NumberRange =
    NumberRange::new("hydration_pct", "hydration of the starter", "%", 0.0, 500.0);
const DOUGH: NumberRange =
    NumberRange::new("dough_pct", "dough from 100 of flour", "%", 100.0, 400.0);

/// A starter's share in every convention
#[utoipa::path(post, path = "/api/v1/starter-shares", tag = "formula", request_body = StarterStated,
    responses((status = 200, body = StarterShares), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn starter_shares(Json(asked): Json<StarterStated>) -> Result<Json<StarterShares>> {
    let mut faults = ValidationErrors::default();
    let pct = PCT.check(&asked.pct, "", &mut faults);
    let hydration = HYDRATION.check_or(&asked.hydration_pct, 100.0, "", &mut faults);
    let dough = DOUGH.check_or(&asked.dough_pct, 175.0, "", &mut faults);
    faults.or(())?;
    StarterShares::of(asked.convention, pct, hydration, dough).map(Json).ok_or_else(|| {
        Problem::field("pct", "no dough has so much starter: its flour would be all of the flour")
    })
}
