//! Who holds the water, and how the grains of the selected product behave.

use axum::extract::State;
use ironpeel_core::chain::figures;
use ironpeel_core::units::{NumberRange, RawNumber, ValidationErrors};
use ironpeel_core::water::coefficients::CRITICAL_DAMAGED_STARCH;
use ironpeel_core::water::{
    ExcessWater, MixOfGrains, UsualComposition, WaterDistribution, WaterShares, excess_water,
    mix_of_grains,
};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::chain::{ScenarioContext, ScenarioInput};
use crate::problem::{Problem, Result};
use crate::request::Json;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(water_distribution))
}

/// The selected product, a lot to hold it beside, and what was added by feel.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct WaterDistributionInput {
    scenario: ScenarioInput,
    /// A lot of the main flour to show beside it.
    reference_revision_id: Option<Uuid>,
    /// 0 to 20 points of water added on the floor beyond the plan; 0 if left out.
    #[serde(default)]
    added_points: RawNumber,
}

/// How the water is distributed in a dough.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct OperatorWater {
    of_flour: WaterDistribution,
    shares: WaterShares,
}

/// Who holds the water, what extra water does to it, and how the grains behave.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct WaterDistributionView {
    /// None without gluten: nothing is computed of such a blend.
    lot: Option<OperatorWater>,
    reference: Option<OperatorWater>,
    reference_code: Option<String>,
    by_feel: Option<ExcessWater>,
    /// What a certificate does not state and was taken as usual.
    assumed: Vec<UsualComposition>,
    /// None where the plant switched it off.
    critical_damaged_pct: Option<f64>,
    grains: MixOfGrains,
}

const ADDED: NumberRange =
    NumberRange::new("added_points", "extra water by the operator", "points of water", 0.0, 20.0);

/// How the water is distributed in the selected product, beside a reference lot and with extra water by the operator
#[utoipa::path(post, path = "/api/v1/chain/water-distribution", security(("session" = ["read"])), tag = "chain", request_body = WaterDistributionInput,
    responses((status = 200, body = WaterDistributionView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn water_distribution(
    State(app): State<App>,
    Json(asked): Json<WaterDistributionInput>,
) -> Result<Json<WaterDistributionView>> {
    let mut faults = ValidationErrors::default();
    let added = ADDED.check_or(&asked.added_points, 0.0, "", &mut faults);
    faults.or(())?;
    let context = ScenarioContext::load(&app, &asked.scenario, "scenario.").await?;
    let flours = context.flours();
    let scenario = context.scenario(&flours);
    let parts = scenario.parts();
    let coefficients = scenario.coefficients();
    let planned = figures(&scenario).water.map_or(0.0, |water| water.dough_absorption_pct);
    let of = |water_distribution: WaterDistribution| OperatorWater {
        shares: water_distribution.shares(planned, 0.0),
        of_flour: water_distribution,
    };
    let reference = match asked.reference_revision_id {
        Some(id) => Some(app.revisions.lot(id).await?),
        None => None,
    };
    let beside = reference.as_ref().and_then(|reference| {
        let mut others = flours.clone();
        if let Some(main) = others.first_mut() {
            main.readings = &reference.current.readings;
        }
        let parts: Vec<_> = others.iter().map(|flour| flour.part(coefficients)).collect();
        WaterDistribution::of(&parts, coefficients)
    });
    let lot = WaterDistribution::of(&parts, coefficients);
    let critical_damaged_pct = coefficients.active(&CRITICAL_DAMAGED_STARCH);
    Ok(Json(WaterDistributionView {
        by_feel: lot.map(|lot| excess_water(&lot, planned, added, coefficients)),
        lot: lot.map(of),
        reference: beside.map(of),
        reference_code: reference.map(|reference| reference.code.clone()),
        assumed: if lot.is_some() {
            WaterDistribution::assumed(&parts, coefficients)
        } else {
            Vec::new()
        },
        critical_damaged_pct,
        grains: mix_of_grains(&parts, coefficients),
    }))
}
