//! The fault finder: what can be picked, and what causes a batch's figures point at.

use std::collections::BTreeMap;

use axum::extract::State;
use ironpeel_core::batch::observation;
use ironpeel_core::chain::fault_gates;
use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::fault::{
    BatchEvidence, DiagnoseInput, Diagnosis, Family, FlourEvidence, Gate, SeenEvidence, diagnose,
    features, knowledge,
};
use ironpeel_core::judging::PanelTrait;
use ironpeel_core::units::RawNumber;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::batches::BatchOnFloor;
use crate::judging::{EARLIER_SHEETS, judged, newest_standard};
use crate::oven::bake_evidence;
use crate::planned_batch::PlannedBatch;
use crate::problem::{Problem, Result};
use crate::request::{Json, Path};
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(catalogue)).routes(routes!(of_batch))
}

/// A fault that can be picked.
#[derive(Debug, Serialize, ToSchema)]
struct FaultView {
    key: &'static str,
    /// Where it is seen: dough, proof, oven, loaf, slicing, storage.
    group: &'static str,
    name: &'static str,
    definition: &'static str,
    /// How it is established, and when it counts.
    measure: &'static str,
    /// What its causes are told by.
    features: Vec<&'static str>,
}

/// A figure that is evidence.
#[derive(Debug, Serialize, ToSchema)]
struct FeatureView {
    key: &'static str,
    label: &'static str,
    unit: &'static str,
    family: Family,
    /// Where it comes from.
    how: &'static str,
    /// What can be entered.
    least: f64,
    most: f64,
    /// Where it is one of few: what each stands for, from its least upwards.
    choices: &'static [&'static str],
}

/// What the finder knows, all of it house judgement.
#[derive(Debug, Serialize, ToSchema)]
struct FaultCatalogue {
    faults: Vec<FaultView>,
    features: Vec<FeatureView>,
}

/// A fault picked for a batch, with what somebody answers.
#[derive(Debug, Deserialize, ToSchema)]
struct BatchFaultInput {
    /// By its key.
    fault: String,
    /// What the record does not say of the product: `tin` or `hearth`.
    #[serde(default)]
    gates: Vec<String>,
    /// Figures the record lacks, by the feature's key; they count before it.
    #[serde(default)]
    #[schema(value_type = BTreeMap<String, f64>)]
    answers: BTreeMap<String, RawNumber>,
}

/// The causes of a batch's fault, with the figures they rest on.
#[derive(Debug, Serialize, ToSchema)]
struct BatchDiagnosis {
    gates: Vec<Gate>,
    /// What the batch's record and the answers say.
    features: BTreeMap<String, f64>,
    diagnosis: Diagnosis,
}

/// The faults that can be picked, and what their causes are told by
#[utoipa::path(get, path = "/api/v1/faults", security(("session" = ["read"])), tag = "results",
    responses((status = 200, body = FaultCatalogue), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn catalogue() -> Json<FaultCatalogue> {
    let faults = knowledge().faults.iter().map(|fault| FaultView {
        key: &fault.key,
        group: fault.group,
        name: &fault.name,
        definition: &fault.definition,
        measure: &fault.measure,
        features: fault.features(),
    });
    let features = knowledge().features.iter().filter_map(|feature| {
        let entered = observation(&feature.key)?;
        let (least, most) = entered.range.bounds();
        Some(FeatureView {
            key: &feature.key,
            label: entered.label,
            unit: entered.range.unit(),
            family: feature.family,
            how: &feature.how,
            least,
            most,
            choices: entered.choices,
        })
    });
    Json(FaultCatalogue { faults: faults.collect(), features: features.collect() })
}

/// The causes of a fault of a batch, by what its record and the answers say; nothing is stored
#[utoipa::path(post, path = "/api/v1/batches/{batch_id}/diagnosis", security(("session" = ["read"])), tag = "results", params(("batch_id" = Uuid, Path)), request_body = BatchFaultInput,
    responses((status = 200, body = BatchDiagnosis), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn of_batch(
    State(app): State<App>,
    Path(id): Path<Uuid>,
    Json(BatchFaultInput { fault, gates, answers }): Json<BatchFaultInput>,
) -> Result<Json<BatchDiagnosis>> {
    let asked = DiagnoseInput { fault, gates, features: answers, ..DiagnoseInput::default() };
    let mut asked = asked.check()?;
    let BatchOnFloor { planned, record, report, context, .. } =
        BatchOnFloor::load(&app, id).await?;
    let flours = context.flours();
    let scenario = context.scenario(&flours);
    let seen = seen(&app, &planned, scenario.coefficients()).await?;
    let before = match app.store.lot_before(context.documents.flour.lot.id).await? {
        Some(lot) => Some(app.store.lot(lot).await?),
        None => None,
    };
    let evidence = BatchEvidence {
        plan: &planned.plan,
        record: &record,
        report: &report,
        flour: flours.first().map(|main| FlourEvidence {
            readings: main.readings,
            before: before.as_ref().map(|lot| &lot.current.readings),
            age_days: main.age_days,
        }),
        seen: &seen,
        answers: &asked.features,
        coefficients: scenario.coefficients(),
    };
    asked.features = features(&evidence);
    asked.gates.extend(fault_gates(&scenario));
    let diagnosis = diagnose(&asked, scenario.coefficients());
    Ok(Json(BatchDiagnosis { gates: asked.gates, features: asked.features, diagnosis }))
}

/// What a batch's bake trace and its judges say.
async fn seen(
    app: &App,
    planned: &PlannedBatch,
    coefficients: &Coefficients,
) -> Result<SeenEvidence> {
    let product = app.store.product(&planned.slug).await?;
    let scores = app.store.scores(planned.id).await?;
    let earlier = app.store.earlier_scores(product.id, planned.id, EARLIER_SHEETS).await?;
    let standard = newest_standard(app, product.id).await?;
    let panel = judged(&scores, &earlier, &standard, coefficients);
    Ok(SeenEvidence {
        bake: bake_evidence(app, planned, coefficients).await?,
        marks: panel.iter().flat_map(|panel| &panel.traits).map(PanelTrait::score_mark).collect(),
    })
}
