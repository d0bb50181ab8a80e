//! The quick finder.

use axum::extract::State;
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::problem::{Problem, Result};
use crate::request::{Json, Query};
use crate::state::App;

const MOST: i64 = 8;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(find))
}

#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
struct FindQuery {
    /// What a lot's code begins with.
    #[serde(default)]
    #[param(required = false)]
    q: String,
}

/// A lot that was found.
#[derive(Debug, Serialize, ToSchema)]
pub struct FoundLot {
    pub id: Uuid,
    pub code: String,
    pub flour: String,
}

/// Lots whose code begins with what was typed, newest first
#[utoipa::path(get, path = "/api/v1/find", security(("session" = ["read"])), tag = "find", params(FindQuery),
    responses((status = 200, body = Vec<FoundLot>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn find(
    State(app): State<App>,
    Query(wanted): Query<FindQuery>,
) -> Result<Json<Vec<FoundLot>>> {
    let text: String = wanted.q.trim().chars().take(60).collect();
    let found = app.store.find_lots(&text, MOST).await?;
    let lot = |(id, code, flour)| FoundLot { id, code, flour };
    Ok(Json(found.into_iter().map(lot).collect()))
}
