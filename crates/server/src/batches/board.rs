//! The board: what is planned, running, held and finished, line by line.

use std::collections::BTreeMap;

use axum::extract::State;
use chrono::{DateTime, TimeDelta, Utc};
use ironpeel_core::batch::{BatchState, NextStage, StagePlan, StageTimes};
use ironpeel_store::{BatchFilter, BatchSummary};
use serde::Serialize;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::problem::{Problem, Result};
use crate::request::Json;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(board))
}

/// What was planned so long ago and never begun is history.
const BACK: TimeDelta = TimeDelta::hours(18);
/// What is planned so far ahead is another day's.
const AHEAD: TimeDelta = TimeDelta::hours(24);
/// What ended so long ago still stands there.
const ENDED: TimeDelta = TimeDelta::hours(12);
/// A board shows no more batches than this of each state.
const MOST: i64 = 100;

/// A line's batches.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct BoardLine {
    pub line_id: Uuid,
    pub line: String,
    pub batches: Vec<BoardBatch>,
}

/// A batch on the board.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct BoardBatch {
    pub id: Uuid,
    pub product: String,
    pub lot: String,
    pub state: BatchState,
    pub planned_for: DateTime<Utc>,
    pub started_at: Option<DateTime<Utc>>,
    pub ended_at: Option<DateTime<Utc>>,
    pub held_since: Option<DateTime<Utc>>,
    pub held_reason: Option<String>,
    pub stages: Vec<StagePlan>,
    pub times: Vec<StageTimes>,
    pub next: Option<NextStage>,
    /// Events that found no place.
    pub unplaced: usize,
}

/// Every line with its batches of today.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct Board {
    pub now: DateTime<Utc>,
    pub lines: Vec<BoardLine>,
}

/// What is planned, running, held and finished today
#[utoipa::path(get, path = "/api/v1/board", security(("session" = ["read"])), tag = "batch",
    responses((status = 200, body = Board), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn board(State(app): State<App>) -> Result<Json<Board>> {
    let now = Utc::now();
    let open = [BatchState::Running, BatchState::Held];
    let mut found: Vec<BatchSummary> = Vec::new();
    for (states, from, to) in [
        (&open[..], None, None),
        (&[BatchState::Planned][..], Some(now - BACK), Some(now + AHEAD)),
        (&[BatchState::Finished, BatchState::Scrapped][..], Some(now - AHEAD), None),
    ] {
        let filter = BatchFilter { states: states.to_vec(), from, to, ..BatchFilter::default() };
        found.extend(app.store.batches(&filter, None, MOST).await?);
    }
    found.retain(|batch| batch.ended_at.is_none_or(|ended| ended > now - ENDED));
    found.sort_by_key(|batch| (batch.planned_for, batch.id));
    let ids: Vec<Uuid> = found.iter().map(|batch| batch.id).collect();
    let mut events = app.store.events_of(&ids).await?;
    let mut lines: BTreeMap<(String, Uuid), Vec<BoardBatch>> = BTreeMap::new();
    for summary in found {
        let batch = app.revisions.batch(summary.id).await?;
        let own = events.remove(&summary.id).unwrap_or_default();
        let (record, report) = batch.followed(&own, now);
        let line = lines.entry((summary.line, summary.line_id)).or_default();
        line.push(BoardBatch {
            id: batch.id,
            product: batch.product.clone(),
            lot: batch.lot.clone(),
            state: record.state,
            planned_for: batch.plan.planned_for,
            started_at: record.started_at,
            ended_at: record.ended_at,
            held_since: record.held_since,
            held_reason: record.held_reason,
            stages: batch.plan.stages.clone(),
            times: report.times,
            next: report.next,
            unplaced: record.unplaced.len(),
        });
    }
    let lines = lines
        .into_iter()
        .map(|((line, line_id), batches)| BoardLine { line_id, line, batches })
        .collect();
    Ok(Json(Board { now, lines }))
}
