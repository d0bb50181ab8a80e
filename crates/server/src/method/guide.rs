//! What a method says of the selected product: what is usual, what may wait, what the flour needs, and
//! the floor's rule beside the heat balance.

use axum::extract::State;
use ironpeel_core::chain::{
    FrictionFactor, Measured, StageEnd, chain, flour_strength, friction_factor, stage_ends,
};
use ironpeel_core::method::{
    COLD_C, Conditioning, Development, EndFigure, MIXER_KINDS, MixerKind, MixingClass, Optional,
    Stage, StageCaution, TimeTolerance, TypicalRange, cautions_of, conditioning, developments,
};
use ironpeel_store::DoughTemperature;
use serde::Serialize;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use super::temperature::{LEARNED_FROM, TemperatureView};
use crate::chain::{ScenarioContext, ScenarioInput};
use crate::problem::{Problem, Result};
use crate::request::Json;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(guide))
}

/// What a method says of the selected product.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct MethodGuide {
    /// Stage by stage.
    usual: Vec<TypicalRange>,
    windows: Vec<TimeTolerance>,
    waits_min: Vec<f64>,
    /// From one set of folds to the next, min; none where there is no next.
    folds_every_min: Vec<Option<f64>>,
    /// At or below this a stage is a refrigerator's, °C.
    cold_c: f64,
    cautions: Vec<Vec<StageCaution>>,
    /// What the number each stage ends at is of; none where its sign is only seen.
    end_figures: Vec<Option<EndFigure>>,
    /// Of the stages that end at what the model says something of.
    ends: Vec<StageEnd>,
    optional: Vec<Optional>,
    conditioning: [Conditioning; 2],
    developments: Vec<Development>,
    mixing_class: MixingClass,
    mixer_kinds: &'static [MixerKind],
    /// None where the chain stops before the mixer.
    friction_factor: Option<FrictionFactor>,
    /// The doughs measured, newest first.
    measured: Vec<TemperatureView>,
}

/// What the method says of the selected product
#[utoipa::path(post, path = "/api/v1/chain/method", security(("session" = ["read"])), tag = "chain", request_body = ScenarioInput,
    responses((status = 200, body = MethodGuide), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn guide(
    State(app): State<App>,
    Json(asked): Json<ScenarioInput>,
) -> Result<Json<MethodGuide>> {
    let context = ScenarioContext::load(&app, &asked, "").await?;
    let method_id = context.documents.method.method_id;
    let line_id = context.documents.line.line_id;
    let measured = app.store.dough_temperatures(method_id, line_id, LEARNED_FROM).await?;
    let flours = context.flours();
    let scenario = context.scenario(&flours);
    let chain = chain(&scenario);
    let doughs: Vec<Measured> = measured.iter().rev().map(DoughTemperature::measured).collect();
    Ok(Json(MethodGuide {
        usual: scenario.method.usual(scenario.coefficients()),
        windows: scenario.method.windows(scenario.coefficients()),
        waits_min: scenario.method.waits(scenario.coefficients()),
        folds_every_min: scenario.method.stages.iter().map(Stage::folds_every_min).collect(),
        cold_c: COLD_C,
        cautions: cautions_of(scenario.method),
        end_figures: scenario.method.stages.iter().map(Stage::end_figure).collect(),
        ends: stage_ends(&scenario, &chain),
        optional: scenario.method.optional(),
        conditioning: conditioning(
            flour_strength(&scenario),
            scenario.method.process,
            scenario.coefficients(),
        ),
        developments: developments(scenario.method, &scenario.line.mixer, scenario.coefficients()),
        mixer_kinds: &MIXER_KINDS,
        mixing_class: MixingClass::of(chain.method.mixing_kj_per_kg, scenario.coefficients()),
        friction_factor: friction_factor(&scenario, &chain, &doughs),
        measured: measured.into_iter().map(Into::into).collect(),
    }))
}
