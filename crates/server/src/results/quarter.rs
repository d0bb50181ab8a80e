//! What it brought: the last quarter of a year against the one before.

use axum::extract::State;
use chrono::{DateTime, TimeDelta, Utc};
use ironpeel_store::BatchPeriod;
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::problem::{Problem, Result};
use crate::request::{Json, Query};
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(quarters))
}

/// A quarter of a year.
const QUARTER: TimeDelta = TimeDelta::days(91);

#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
struct QuarterQuery {
    /// By its word in addresses; every product if left out.
    product: Option<String>,
}

/// The last quarter of a year, and the one before it.
#[derive(Debug, Serialize, ToSchema)]
struct Quarters {
    /// When the last one began.
    since: DateTime<Utc>,
    last: BatchPeriod,
    before: BatchPeriod,
}

/// The last quarter of a year against the one before
#[utoipa::path(get, path = "/api/v1/batch-quarters", security(("session" = ["read"])), tag = "results", params(QuarterQuery),
    responses((status = 200, body = Quarters), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn quarters(
    State(app): State<App>,
    Query(QuarterQuery { product }): Query<QuarterQuery>,
) -> Result<Json<Quarters>> {
    let product = match product {
        Some(slug) => Some(app.store.product(&slug).await?.id),
        None => None,
    };
    let now = Utc::now();
    let since = now - QUARTER;
    Ok(Json(Quarters {
        since,
        last: app.store.batch_period(since, now, product).await?,
        before: app.store.batch_period(since - QUARTER, since, product).await?,
    }))
}
