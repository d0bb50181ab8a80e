//! From a lot all batches it went into, and from a batch all lots behind it.

use axum::extract::State;
use chrono::{DateTime, Utc};
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

const KG_PER_TONNE: f64 = 1000.0;

/// Batches a lot went into, newest first.
#[derive(Debug, Serialize, ToSchema)]
struct LotUsePage {
    batches: Vec<LotUse>,
    next: Option<Cursor>,
    /// What batches took of it since its stock was stated; none where it never was.
    drawn: Option<LotDrawn>,
}

/// What batches took of a lot since somebody stated its stock.
#[derive(Debug, Serialize, ToSchema)]
struct LotDrawn {
    since: DateTime<Utc>,
    kg: f64,
    tonnes_left: f64,
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
    let stock = app.store.dispositions(&[id]).await?.remove(&id).and_then(|one| one.stock);
    let drawn = match stock {
        Some(stock) => {
            let kg = app.store.drawn_from_lot(id, stock.made_at).await?;
            let tonnes_left = (stock.tonnes_left - kg / KG_PER_TONNE).max(0.0);
            Some(LotDrawn { since: stock.made_at, kg, tonnes_left })
        }
        None => None,
    };
    Ok(Json(LotUsePage { batches: found, next, drawn }))
}
