//! A lot against others: what changed, and drift over many.

use axum::extract::State;
use chrono::{DateTime, Utc};
use ironpeel_core::flour::{
    Drift, Limit, MoistureBasis, Property, Readings, drift, targets, usual_basis,
};
use ironpeel_core::lot::{LotComparison, compare_lots};
use ironpeel_core::units::timestamp;
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Query};
use crate::state::App;

/// Lots on a drift chart.
const MOST: i64 = 200;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(what_changed)).routes(routes!(drifting))
}

/// The lot to compare with.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
struct Against {
    /// The one before it of the same flour if left out.
    against: Option<Uuid>,
    /// Against the targets of the specification instead.
    #[serde(default)]
    #[param(required = false)]
    target: bool,
}

/// A lot against another.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct ChangeView {
    pub lot_id: Uuid,
    pub code: String,
    /// None for the first lot of a flour.
    pub against: Option<Compared>,
}

/// The other lot, or the specification's targets, and what changed from it.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct Compared {
    /// None for the targets.
    pub lot_id: Option<Uuid>,
    pub code: String,
    pub comparison: LotComparison,
}

/// What changed from one lot to another, why it drinks differently, and what that does
#[utoipa::path(get, path = "/api/v1/lots/{lot_id}/comparison", security(("session" = ["read"])), tag = "flour", params(("lot_id" = Uuid, Path), Against),
    responses((status = 200, body = ChangeView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn what_changed(
    State(app): State<App>,
    Path(lot_id): Path<Uuid>,
    Query(asked): Query<Against>,
) -> Result<Json<ChangeView>> {
    let lot = app.store.lot(lot_id).await?;
    let plant = app.parameters().await?;
    let told = |lot_id, code, other: &Readings| Compared {
        lot_id,
        code,
        comparison: compare_lots(other, &lot.current.readings, &plant),
    };
    let against = if asked.target {
        let specification = app.store.current_specification(lot.flour.id).await?;
        let code = format!("the targets of revision {}", specification.revision.number);
        Some(told(None, code, &targets(&specification.limits)))
    } else {
        let other = match asked.against {
            Some(id) => Some(id),
            None => app.store.lot_before(lot_id).await?,
        };
        match other {
            None => None,
            Some(id) => {
                let other = app.store.lot(id).await?;
                Some(told(Some(id), other.code, &other.current.readings))
            }
        }
    };
    Ok(Json(ChangeView { lot_id, code: lot.code, against }))
}

/// What is to be charted.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
struct Charted {
    property: Property,
    /// Only lots that came from then on.
    #[serde(default, deserialize_with = "timestamp::maybe")]
    from: Option<DateTime<Utc>>,
    /// Only lots that came before.
    #[serde(default, deserialize_with = "timestamp::maybe")]
    to: Option<DateTime<Utc>>,
}

/// A property over the lots of a flour, oldest first.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct DriftView {
    pub property: Property,
    pub label: &'static str,
    pub unit: &'static str,
    pub basis: Option<MoistureBasis>,
    /// The limit in force, where there is one on this basis.
    pub limit: Option<Limit>,
    /// The lots the chart's points are of.
    pub lots: Vec<DriftLot>,
    /// None of fewer than three lots.
    pub drift: Option<Drift>,
}

/// A lot on a drift chart.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct DriftLot {
    pub id: Uuid,
    pub code: String,
    pub mill: String,
    pub received_at: DateTime<Utc>,
}

/// A property over the lots of a flour, with centre, moving average, limits and runs
#[utoipa::path(get, path = "/api/v1/flours/{flour_id}/control-chart", security(("session" = ["read"])), tag = "flour", params(("flour_id" = Uuid, Path), Charted),
    responses((status = 200, body = DriftView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn drifting(
    State(app): State<App>,
    Path(flour_id): Path<Uuid>,
    Query(asked): Query<Charted>,
) -> Result<Json<DriftView>> {
    app.store.flour(flour_id).await?;
    let property = asked.property;
    let before = asked.to.map(|to| (to, Uuid::nil()));
    let mut found = app.store.lots(Some(flour_id), before, MOST).await?;
    found.retain(|lot| asked.from.is_none_or(|from| lot.received_at >= from));
    found.reverse();
    let specification = app.specification_of(flour_id).await?;
    let limits = specification.map_or_else(Vec::new, |specification| specification.limits);
    let limit = limits.into_iter().find(|limit| limit.property == property);
    let basis = limit.as_ref().map_or_else(|| usual_basis(property), |limit| limit.basis);
    let mut lots = Vec::with_capacity(found.len());
    let mut values = Vec::with_capacity(found.len());
    for lot in found {
        if let Some(value) = lot.current.judged().value(property, basis) {
            values.push(value);
            lots.push(DriftLot {
                id: lot.id,
                code: lot.code,
                mill: lot.mill,
                received_at: lot.received_at,
            });
        }
    }
    Ok(Json(DriftView {
        property,
        label: property.label(),
        unit: property.unit(),
        basis,
        limit,
        lots,
        drift: drift(&values),
    }))
}
