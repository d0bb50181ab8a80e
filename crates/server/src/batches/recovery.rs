//! What to do with a batch that is held, or that lies longer than planned.

use axum::extract::State;
use ironpeel_core::chain::{BatchDelay, DelayedBatch, batch_delay, chain};
use serde::Serialize;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use super::on_floor::BatchOnFloor;
use crate::problem::{Problem, Result};
use crate::request::{Json, Path};
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(recovery))
}

/// The ways out of a batch that waits.
#[derive(Debug, Serialize, ToSchema)]
struct BatchRecovery {
    /// None while it is within the time that was planned for it.
    delayed: Option<DelayedBatch>,
}

/// What to do with a batch that waits, with its amounts
#[utoipa::path(get, path = "/api/v1/batches/{batch_id}/recovery", security(("session" = ["read"])), tag = "batch", params(("batch_id" = Uuid, Path)),
    responses((status = 200, body = BatchRecovery), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn recovery(State(app): State<App>, Path(id): Path<Uuid>) -> Result<Json<BatchRecovery>> {
    let BatchOnFloor { planned, report, now, context, .. } = BatchOnFloor::load(&app, id).await?;
    let flours = context.flours();
    let scenario = context.scenario(&flours);
    let batch = BatchDelay { stages: &planned.plan.stages, report: &report, now };
    Ok(Json(BatchRecovery { delayed: batch_delay(&scenario, &chain(&scenario), batch) }))
}
