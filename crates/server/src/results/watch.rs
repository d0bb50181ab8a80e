//! The watch: after each finished batch, what drifts before it is a fault.

use std::collections::BTreeMap;
use std::time::Duration;

use axum::extract::State;
use chrono::{DateTime, TimeDelta, Utc};
use ironpeel_core::batch::{BatchState, observation};
use ironpeel_core::fault::{DriftSide, drifting, knowledge, watched};
use ironpeel_store::{DriftRecord, DriftSeen};
use serde::{Deserialize, Serialize};
use tokio::sync::broadcast::Receiver;
use tokio::sync::broadcast::error::RecvError;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use super::faults::evidence_of;
use crate::batches::BatchOnFloor;
use crate::live::told::Told;
use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Recorded};
use crate::state::App;

/// Batches that are older say nothing of today.
const DAYS: TimeDelta = TimeDelta::days(35);
/// Looked at in one go.
const AT_ONCE: i64 = 20;
/// Looked for at least so often, whatever is heard.
const EVERY: Duration = Duration::from_mins(1);

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(drifts)).routes(routes!(seen))
}

/// A figure that drifts, and in which batches.
#[derive(Debug, Serialize, ToSchema)]
struct DriftingFigure {
    id: Uuid,
    slug: String,
    product: String,
    line: String,
    /// By its key.
    feature: String,
    label: &'static str,
    unit: &'static str,
    side: DriftSide,
    /// In so many of so many batches.
    beyond: i32,
    of: i32,
    mean: f64,
    usual: Option<f64>,
    /// Newest first.
    batches: Vec<Uuid>,
    began_at: DateTime<Utc>,
}

impl DriftingFigure {
    fn of(record: DriftRecord) -> Option<Self> {
        let known = observation(&record.feature)?;
        Some(Self {
            id: record.id,
            slug: record.slug,
            product: record.product,
            line: record.line,
            label: known.label,
            unit: known.range.unit(),
            usual: knowledge().feature(&record.feature)?.usual,
            feature: record.feature,
            side: record.side.0,
            beyond: record.beyond,
            of: record.looked_at,
            mean: record.mean,
            batches: record.batches,
            began_at: record.began_at,
        })
    }
}

/// That a drift was seen; there is nothing more to say.
#[derive(Debug, Deserialize, ToSchema)]
struct SeenInput {}

/// What drifts and was seen by nobody yet
#[utoipa::path(get, path = "/api/v1/drifts", security(("session" = ["read"])), tag = "results",
    responses((status = 200, body = Vec<DriftingFigure>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn drifts(State(app): State<App>) -> Result<Json<Vec<DriftingFigure>>> {
    Ok(Json(app.store.drifts().await?.into_iter().filter_map(DriftingFigure::of).collect()))
}

/// Says that a drift was seen: it is told no more while it lasts; sent twice, it is stored once
#[utoipa::path(put, path = "/api/v1/drifts/{drift_id}/seen/{id}", security(("session" = ["record"])), tag = "results",
    params(("drift_id" = Uuid, Path), ("id" = Uuid, Path)), request_body = SeenInput,
    responses((status = 200, body = Vec<DriftingFigure>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn seen(
    State(app): State<App>,
    Path((drift_id, id)): Path<(Uuid, Uuid)>,
    Recorded { input: SeenInput {}, write }: Recorded<SeenInput>,
) -> Result<Json<Vec<DriftingFigure>>> {
    let seen_by = write.author.name.clone();
    let seen = DriftSeen { id, drift_id, seen_by, seen_at: Utc::now() };
    write.of(&app, id).see_drift(&seen).await?;
    drifts(State(app)).await
}

/// Looks at what batches finish, until the server closes.
pub async fn watch(app: App) {
    let mut closing = app.live.closing.subscribe();
    let mut told = app.live.told.subscribe();
    let looking = async {
        loop {
            match look(&app).await {
                Ok(true) => {}
                Ok(false) => finished(&mut told).await,
                Err(problem) => {
                    tracing::warn!(?problem, "what drifts is not looked for");
                    tokio::time::sleep(EVERY).await;
                }
            }
        }
    };
    tokio::select! {
        () = looking => {}
        _ = closing.wait_for(|closing| *closing) => {}
    }
}

/// Once a batch is finished, or something may have been; or after a while.
async fn finished(told: &mut Receiver<Told>) {
    let heard = async {
        loop {
            match told.recv().await {
                Ok(Told::Batch(change)) if change.state == BatchState::Finished => return,
                Ok(Told::Missed) | Err(RecvError::Lagged(_)) => return,
                Ok(_) => {}
                // Nobody is left to tell: the time passes.
                Err(RecvError::Closed) => std::future::pending().await,
            }
        }
    };
    let _ = tokio::time::timeout(EVERY, heard).await;
}

/// Looks at the batches that wait for it; whether there were any.
async fn look(app: &App) -> Result<bool> {
    let waiting = app.store.batches_to_watch(Utc::now() - DAYS, AT_ONCE).await?;
    let coefficients = app.parameters().await?.coefficients.clone();
    for batch in &waiting {
        // What cannot be read any more says nothing.
        let found = match BatchOnFloor::load(app, batch.0).await {
            Ok(floor) => evidence_of(app, &floor, &BTreeMap::new()).await?,
            Err(problem) => {
                tracing::warn!(?problem, batch = %batch.0, "a batch says nothing");
                BTreeMap::new()
            }
        };
        let most = i64::from(watched(&coefficients));
        app.store
            .watch_batch(*batch, &found, most, |newest| drifting(newest, &coefficients))
            .await?;
    }
    Ok(!waiting.is_empty())
}
