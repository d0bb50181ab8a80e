//! From a lot all batches it went into, and from a batch all lots behind it.

use axum::extract::State;
use ironpeel_store::LotUse;
use serde::Serialize;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::page::{Cursor, PAGE, PageQuery, paginate};
use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Query};
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(uses))
}

/// Batches a lot went into, newest first.
#[derive(Debug, Serialize, ToSchema)]
struct LotUsePage {
    batches: Vec<LotUse>,
    next: Option<Cursor>,
}

/// The batches a lot went into
#[utoipa::path(get, path = "/api/v1/lots/{lot_id}/batches", security(("session" = ["read"])), tag = "batch",
    params(("lot_id" = Uuid, Path), PageQuery),
    responses((status = 200, body = LotUsePage), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn uses(
    State(app): State<App>,
    Path(id): Path<Uuid>,
    Query(page): Query<PageQuery>,
) -> Result<Json<LotUsePage>> {
    let mut found = app.store.uses_of_lot(id, page.key(), PAGE + 1).await?;
    let next = paginate(&mut found, |one| (one.planned_for, one.batch_id));
    Ok(Json(LotUsePage { batches: found, next }))
}
