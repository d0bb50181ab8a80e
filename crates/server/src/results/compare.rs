//! Two to four batches side by side, or one with its plan.

use axum::extract::State;
use chrono::{DateTime, Utc};
use ironpeel_core::batch::{BatchState, ComparedBatch, ComparisonRow, compare};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::problem::{Problem, Result};
use crate::request::{Json, Query};
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(comparison))
}

/// Most batches that are compared.
const MOST: usize = 4;

#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
struct CompareQuery {
    /// One to four ids, with commas between; one is compared with its plan.
    batches: String,
}

/// A batch at the head of its column.
#[derive(Debug, Serialize, ToSchema)]
struct ComparedHead {
    id: Uuid,
    product: String,
    line: String,
    lot: String,
    state: BatchState,
    planned_for: DateTime<Utc>,
}

/// Batches side by side, in the order of the chain.
#[derive(Debug, Serialize, ToSchema)]
struct BatchComparison {
    batches: Vec<ComparedHead>,
    rows: Vec<ComparisonRow>,
}

/// Batches side by side, or one with its plan
#[utoipa::path(get, path = "/api/v1/batch-comparison", security(("session" = ["read"])), tag = "results", params(CompareQuery),
    responses((status = 200, body = BatchComparison), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn comparison(
    State(app): State<App>,
    Query(asked): Query<CompareQuery>,
) -> Result<Json<BatchComparison>> {
    let ids: Vec<Uuid> = asked
        .batches
        .split(',')
        .map(|id| id.trim().parse())
        .collect::<std::result::Result<_, _>>()
        .map_err(|_| Problem::field("batches", "ids of batches, with commas between"))?;
    if !(1..=MOST).contains(&ids.len()) {
        return Err(Problem::field("batches", format!("one to {MOST} batches")));
    }
    let mut events = app.store.events_of(&ids).await?;
    let now = Utc::now();
    let mut followed = Vec::with_capacity(ids.len());
    let mut batches = Vec::with_capacity(ids.len());
    for id in &ids {
        let batch = app.revisions.batch(*id).await?;
        let own = events.remove(id).unwrap_or_default();
        let (record, report) = batch.followed(&own, now);
        batches.push(ComparedHead {
            id: batch.id,
            product: batch.product.clone(),
            line: batch.line.clone(),
            lot: batch.lot.clone(),
            state: record.state,
            planned_for: batch.plan.planned_for,
        });
        followed.push((record, report));
    }
    let compared: Vec<_> =
        followed.iter().map(|(record, report)| ComparedBatch { report, record }).collect();
    let rows = compare(&compared);
    Ok(Json(BatchComparison { batches, rows }))
}
