//! A batch as it is run: what was planned, what happened, what is next.

use axum::extract::State;
use chrono::{DateTime, Utc};
use ironpeel_core::batch::{
    BatchRecord, BatchReport, BatchState, OBSERVATIONS, PlannedFigures, StagePlan,
};
use ironpeel_store::{BatchEvent, LotOfBatch};
use serde::Serialize;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::planned_batch::PlannedBatch;
use crate::problem::{Problem, Result};
use crate::request::{Json, Path};
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(run)).routes(routes!(observations))
}

/// A stage of a batch, with what it asks attention for.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct BatchStage {
    #[serde(flatten)]
    pub planned: StagePlan,
    pub cautions: Vec<String>,
}

/// Who recorded an event, and when.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct EventRecord {
    pub event: Uuid,
    pub who: String,
    pub recorded_at: DateTime<Utc>,
    /// Whether they showed that it was them.
    pub verified: bool,
}

/// A batch on the floor.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct BatchRun {
    pub id: Uuid,
    pub slug: String,
    pub product: String,
    pub line: String,
    pub lot: String,
    pub flour: String,
    pub state: BatchState,
    pub planned_for: DateTime<Utc>,
    pub planned: PlannedFigures,
    pub stages: Vec<BatchStage>,
    pub record: BatchRecord,
    pub report: BatchReport,
    pub recorded: Vec<EventRecord>,
    /// The lots it is made of.
    pub lots: Vec<LotOfBatch>,
    /// Where damaged starch is over what is critical: what to think of before water is added.
    pub damaged_starch: Option<String>,
    /// When this was computed.
    pub now: DateTime<Utc>,
}

impl BatchRun {
    pub fn of(
        batch: &PlannedBatch,
        events: &[BatchEvent],
        lots: Vec<LotOfBatch>,
        now: DateTime<Utc>,
    ) -> Self {
        let (record, report) = batch.followed(events, now);
        let cautions = batch.cautions.iter().cloned().chain(std::iter::repeat(Vec::new()));
        let stages = batch.plan.stages.iter().cloned().zip(cautions);
        Self {
            id: batch.id,
            slug: batch.slug.clone(),
            product: batch.product.clone(),
            line: batch.line.clone(),
            lot: batch.lot.clone(),
            flour: batch.flour.clone(),
            state: record.state,
            planned_for: batch.plan.planned_for,
            planned: batch.plan.figures,
            stages: stages.map(|(planned, cautions)| BatchStage { planned, cautions }).collect(),
            report,
            record,
            recorded: events
                .iter()
                .map(|event| EventRecord {
                    event: event.id,
                    who: event.who.clone(),
                    recorded_at: event.recorded_at,
                    verified: event.verified,
                })
                .collect(),
            lots,
            damaged_starch: batch.damaged_starch.clone(),
            now,
        }
    }
}

/// A batch on the floor: planned, actual and expected
#[utoipa::path(get, path = "/api/v1/batches/{batch_id}/run", security(("session" = ["read"])), tag = "batch", params(("batch_id" = Uuid, Path)),
    responses((status = 200, body = BatchRun), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn run(State(app): State<App>, Path(id): Path<Uuid>) -> Result<Json<BatchRun>> {
    let batch = app.revisions.batch(id).await?;
    let events = app.store.events_of(&[id]).await?.remove(&id).unwrap_or_default();
    let lots = app.store.lots_of_batch(id).await?;
    Ok(Json(BatchRun::of(&batch, &events, lots, Utc::now())))
}

/// Something that can be observed.
#[derive(Debug, Serialize, ToSchema)]
struct ObservationView {
    name: &'static str,
    label: &'static str,
    unit: &'static str,
    low: f64,
    high: f64,
    /// Where it is one of few: what each stands for, from its least upwards.
    choices: &'static [&'static str],
}

/// What can be observed of a batch
#[utoipa::path(get, path = "/api/v1/observations", security(("session" = ["read"])), tag = "batch",
    responses((status = 200, body = Vec<ObservationView>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn observations() -> Json<Vec<ObservationView>> {
    let all = OBSERVATIONS.iter().map(|one| {
        let (low, high) = one.range.bounds();
        ObservationView {
            name: one.key,
            label: one.label,
            unit: one.range.unit(),
            low,
            high,
            choices: one.choices,
        }
    });
    Json(all.collect())
}
