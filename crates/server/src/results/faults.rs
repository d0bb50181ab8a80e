//! The fault finder: what can be picked, and what causes a batch's figures point at.

use std::collections::BTreeMap;

use axum::extract::State;
use chrono::Utc;
use ironpeel_core::batch::observation;
use ironpeel_core::chain::{RunSettings, Scenario, chain, fault_gates, plan_evidence};
use ironpeel_core::coefficient::{Coefficient, Coefficients};
use ironpeel_core::fault::{
    BatchEvidence, CaseVerdict, ConfirmedCases, DiagnoseInput, Diagnosis, Family, Fault, FaultCase,
    FlourEvidence, Gate, LearnedRatios, SeenEvidence, confirmed_cases, diagnose,
    fault_coefficients, features, knowledge,
};
use ironpeel_core::judging::PanelTrait;
use ironpeel_core::method::Process;
use ironpeel_core::units::{RawNumber, ValidationErrors};
use ironpeel_store::{FaultCaseRecord, Word};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::batches::{BatchOnFloor, rate_by_jar};
use crate::judging::JudgedBy;
use crate::oven::bake_evidence;
use crate::planned_batch::PlannedBatch;
use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Recorded};
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(catalogue))
        .routes(routes!(of_batch))
        .routes(routes!(decide))
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
    /// The plant's own weights, thresholds and ratios among those it rests on.
    own: Vec<Coefficient>,
    /// What people confirmed of this fault so far; it moves the priors.
    confirmed: ConfirmedCases,
    /// What was found of it in this batch, oldest first.
    cases: Vec<FaultCaseRecord>,
}

/// What a person found of a proposed cause.
#[derive(Debug, Deserialize, ToSchema)]
struct FaultCaseInput {
    /// By its key.
    fault: String,
    /// By its key; none of the listed ones if left out.
    #[serde(default)]
    cause: Option<String>,
    verdict: CaseVerdict,
    /// By a change that was tried: two batches after it were without the fault.
    #[serde(default)]
    by_change: bool,
    #[serde(default)]
    note: String,
}

/// So many batches after a change decide.
const BATCHES_DECIDE: i64 = 2;
const MOST_NOTE: usize = 400;
/// Ordinary batches that a ratio is held against.
const ORDINARY: i64 = 200;

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
    let floor = BatchOnFloor::load(&app, id).await?;
    asked.features = evidence_of(&app, &floor, &asked.features).await?;
    let BatchOnFloor { context, .. } = &floor;
    let flours = context.flours();
    let scenario = context.scenario(&flours);
    asked.gates.extend(fault_gates(&scenario));
    let process = context.documents.method.method.process;
    let fault = &*asked.fault.key;
    let cases = app.store.cases_of_process(fault, process).await?;
    let line_id = context.documents.line.line_id;
    // What is found today rests on today's judgement, whatever the batch was planned with.
    let coefficients = &app.parameters().await?.coefficients;
    let confirmed = ConfirmedCases::of(&cases, line_id, Utc::now(), coefficients);
    asked.learned = learned_ratios(&app, asked.fault, &cases, process, coefficients).await?;
    asked.confirmed.clone_from(&confirmed.by_cause);
    asked.confirmed_none = confirmed.none;
    let diagnosis = diagnose(&asked, coefficients);
    let own = fault_coefficients(fault).filter(|one| coefficients.own(one).is_some());
    let own = own.map(|one| coefficients.effective(one)).collect();
    let cases = app.store.fault_cases(id, fault).await?;
    let (gates, features) = (asked.gates, asked.features);
    Ok(Json(BatchDiagnosis { gates, features, diagnosis, own, confirmed, cases }))
}

/// Confirms or rejects a cause of a batch's fault; sent twice, it is stored once
#[utoipa::path(put, path = "/api/v1/batches/{batch_id}/fault-cases/{case_id}", security(("session" = ["change"])), tag = "results",
    params(("batch_id" = Uuid, Path), ("case_id" = Uuid, Path)), request_body = FaultCaseInput,
    responses((status = 200, body = Vec<FaultCaseRecord>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn decide(
    State(app): State<App>,
    Path((batch_id, id)): Path<(Uuid, Uuid)>,
    Recorded { input, write }: Recorded<FaultCaseInput>,
) -> Result<Json<Vec<FaultCaseRecord>>> {
    let records = write.of(&app, id);
    if !records.was_written().await? {
        let mut faults = ValidationErrors::default();
        let fault = knowledge().fault(&input.fault);
        if fault.is_none() {
            faults.push("fault", "there is no such fault");
        }
        if let (Some(fault), Some(cause)) = (fault, &input.cause)
            && !fault.causes.iter().any(|one| one.cause == *cause)
        {
            faults.push("cause", format!("it is no cause of {}", fault.name.to_lowercase()));
        }
        if input.note.chars().count() > MOST_NOTE {
            faults.push("note", format!("a note: up to {MOST_NOTE} letters"));
        }
        if input.by_change {
            let since = app.store.finished_after(batch_id).await?;
            if since < BATCHES_DECIDE {
                let message = format!(
                    "the next {BATCHES_DECIDE} batches decide whether a change was the cure; finished \
                     since: {since}. Till then it is by judgement"
                );
                faults.push("by_change", message);
            }
        }
        faults.or(())?;
        let new = FaultCaseRecord {
            id,
            batch_id,
            fault: input.fault.clone(),
            cause: input.cause,
            verdict: Word(input.verdict),
            by_change: input.by_change,
            note: input.note.trim().into(),
            made_by: write.author.name.clone(),
            made_at: Utc::now(),
        };
        // What the batch said teaches the ratios, however old it is.
        let floor = BatchOnFloor::load(&app, batch_id).await?;
        let said = evidence_of(&app, &floor, &BTreeMap::new()).await?;
        app.store.keep_evidence(batch_id, &said).await?;
        records.add_fault_case(&new).await?;
    }
    Ok(Json(app.store.fault_cases(batch_id, &input.fault).await?))
}

/// What of a batch is evidence: its record, its bake trace and its judges, and what somebody answers.
pub async fn evidence_of(
    app: &App,
    floor: &BatchOnFloor,
    answers: &BTreeMap<String, f64>,
) -> Result<BTreeMap<String, f64>> {
    let BatchOnFloor { planned, record, report, context, .. } = floor;
    let flours = context.flours();
    let as_run = context.scenario(&flours);
    let coefficients = as_run.coefficients();
    let seen = seen(app, planned, coefficients).await?;
    let target_c = Some(planned.plan.figures.target_c);
    let run_settings = RunSettings { target_c, ..as_run.run_settings };
    let as_planned = Scenario { run_settings, ..as_run };
    let mut planned_evidence = plan_evidence(&as_planned, &chain(&as_planned));
    if let Some(rate) = rate_by_jar(floor) {
        planned_evidence.figures.insert("ferm_rate_rel", rate);
    }
    let before = match app.store.lot_before(context.documents.flour.lot.id).await? {
        Some(lot) => Some(app.store.lot(lot).await?),
        None => None,
    };
    Ok(features(&BatchEvidence {
        plan: &planned.plan,
        record,
        report,
        flour: flours.first().map(|main| FlourEvidence {
            readings: main.readings,
            before: before.as_ref().map(|lot| &lot.current.readings),
            age_days: main.age_days,
        }),
        planned: &planned_evidence,
        seen: &seen,
        answers,
        coefficients,
    }))
}

/// The ratios that this plant's confirmed cases and its ordinary batches taught.
async fn learned_ratios(
    app: &App,
    fault: &'static Fault,
    cases: &[FaultCase],
    process: Process,
    coefficients: &Coefficients,
) -> Result<LearnedRatios> {
    let confirmed = confirmed_cases(cases).into_iter();
    let confirmed: Vec<_> = confirmed.map(|case| (case.batch, case.cause.clone())).collect();
    if confirmed.is_empty() {
        return Ok(LearnedRatios::default());
    }
    let store = &app.store;
    let found = store.evidence_of_fault(&fault.key, &confirmed, process, ORDINARY).await?;
    let cases =
        found.cases.iter().filter_map(|(cause, features)| Some((cause.as_deref()?, features)));
    let ordinary: Vec<_> = found.ordinary.iter().collect();
    Ok(LearnedRatios::of(fault, &cases.collect::<Vec<_>>(), &ordinary, coefficients))
}

/// What a batch's bake trace and its judges say.
async fn seen(
    app: &App,
    planned: &PlannedBatch,
    coefficients: &Coefficients,
) -> Result<SeenEvidence> {
    let product = app.store.product(&planned.slug).await?;
    let scores = app.store.scores(planned.id).await?;
    let panel = JudgedBy::load(app, product.id, Some(planned.id)).await?.panel(&scores);
    Ok(SeenEvidence {
        bake: bake_evidence(app, planned, coefficients).await?,
        marks: panel.iter().flat_map(|panel| &panel.traits).map(PanelTrait::score_mark).collect(),
    })
}
