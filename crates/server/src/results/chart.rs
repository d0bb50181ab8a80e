//! A figure over batches, with its limits and runs.

use axum::extract::State;
use chrono::{DateTime, Utc};
use ironpeel_core::flour::{Drift, drift};
use ironpeel_store::{BatchFigures, BatchSeen, ChartBatch};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::problem::{Problem, Result};
use crate::request::{Json, Query};
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(chart))
}

/// Batches on a chart.
const MOST: i64 = 200;

/// A figure that is charted.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BatchFigure {
    DoughTemperature,
    WaterAdded,
    MixingEnergy,
    ProofTime,
    BakeTime,
    Loss,
    Rejected,
    Arrival,
    Score,
}

impl BatchFigure {
    const fn label(self) -> &'static str {
        match self {
            Self::DoughTemperature => "Dough temperature",
            Self::WaterAdded => "Water over plan",
            Self::MixingEnergy => "Mixing energy",
            Self::ProofTime => "Proof time",
            Self::BakeTime => "Bake time",
            Self::Loss => "Loss",
            Self::Rejected => "Pieces rejected",
            Self::Arrival => "Arrival of the slowest core",
            Self::Score => "Score",
        }
    }

    const fn unit(self) -> &'static str {
        match self {
            Self::DoughTemperature => "°C",
            Self::WaterAdded => "points",
            Self::MixingEnergy => "kJ/kg",
            Self::ProofTime | Self::BakeTime => "min",
            Self::Loss | Self::Rejected => "%",
            Self::Arrival => "% of the bake",
            Self::Score => "",
        }
    }

    fn of(self, figures: &BatchFigures, seen: &BatchSeen) -> Option<f64> {
        match self {
            Self::DoughTemperature => figures.dough_c,
            Self::WaterAdded => figures.water_pts,
            Self::MixingEnergy => figures.mixing_kj_per_kg,
            Self::ProofTime => figures.proof_min,
            Self::BakeTime => figures.bake_min,
            Self::Loss => figures.loss_pct,
            Self::Rejected => {
                let (good, rejected) = (figures.pieces_good?, figures.pieces_rejected?);
                let all = good + rejected;
                (all > 0.0).then_some(100.0 * rejected / all)
            }
            Self::Arrival => seen.arrival_pct,
            Self::Score => seen.score,
        }
    }
}

#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
struct ChartQuery {
    #[param(inline)]
    figure: BatchFigure,
    /// By its word in addresses; every product if left out.
    product: Option<String>,
    /// Every line if left out.
    line: Option<Uuid>,
}

/// A batch on a chart.
#[derive(Debug, Serialize, ToSchema)]
struct ChartedBatch {
    id: Uuid,
    planned_for: DateTime<Utc>,
    lot: String,
    /// Its lot is another than the batch's before.
    new_lot: bool,
}

/// A figure over the last batches, oldest first.
#[derive(Debug, Serialize, ToSchema)]
struct BatchChart {
    figure: BatchFigure,
    label: &'static str,
    unit: &'static str,
    batches: Vec<ChartedBatch>,
    /// None of fewer than three batches.
    drift: Option<Drift>,
}

/// A figure over the last 200 batches, with its limits, runs and where the lot changed
#[utoipa::path(get, path = "/api/v1/batch-chart", security(("session" = ["read"])), tag = "results", params(ChartQuery),
    responses((status = 200, body = BatchChart), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn chart(
    State(app): State<App>,
    Query(ChartQuery { figure, product, line }): Query<ChartQuery>,
) -> Result<Json<BatchChart>> {
    let product = match product {
        Some(slug) => Some(app.store.product(&slug).await?.id),
        None => None,
    };
    let found = app.store.chart_batches(product, line, None, MOST).await?;
    let mut values = Vec::new();
    let mut batches: Vec<ChartedBatch> = Vec::new();
    for ChartBatch { id, planned_for, lot, figures, seen, .. } in found {
        if let Some(value) = figure.of(&figures, &seen) {
            values.push(value);
            let new_lot = batches.last().is_some_and(|before| before.lot != lot);
            batches.push(ChartedBatch { id, planned_for, lot, new_lot });
        }
    }
    let (label, unit) = (figure.label(), figure.unit());
    Ok(Json(BatchChart { figure, label, unit, batches, drift: drift(&values) }))
}
