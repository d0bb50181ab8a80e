//! What the plant's own lots teach of absorption.

use axum::extract::State;
use chrono::{DateTime, Utc};
use ironpeel_core::flour::Species;
use ironpeel_core::water::{AbsorptionModel, Learned, LookingBack, measured_absorption};
use serde::Serialize;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::problem::{Problem, Result};
use crate::request::Json;
use crate::state::App;

/// Lots looked back over.
const MOST_LOTS: i64 = 5000;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(model))
}

/// A measured lot beside what would have been predicted before it was measured.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct PredictedAbsorption {
    lot_id: Uuid,
    code: String,
    flour: String,
    received_at: DateTime<Utc>,
    measured_pct: f64,
    /// From the lots before it alone.
    predicted_pct: f64,
    sd_pct: f64,
}

/// The absorption model before and after the plant's lots.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct ModelView {
    prior: Vec<Learned>,
    /// After every measured lot of common wheat.
    learned: Vec<Learned>,
    lots: u32,
    /// What doughs are computed with; the prior where nothing was taken over.
    in_use: Vec<Learned>,
    in_use_lots: u32,
    /// Oldest first.
    predictions: Vec<PredictedAbsorption>,
    /// How far predictions were off, root of the mean square, in points; none without lots.
    off_pct: Option<f64>,
}

/// What the absorption model believed and believes, and what it would have predicted for each lot
#[utoipa::path(get, path = "/api/v1/absorption-model", security(("session" = ["read"])), tag = "plant",
    responses((status = 200, body = ModelView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn model(State(app): State<App>) -> Result<Json<ModelView>> {
    let plant = app.parameters().await?;
    let in_use = plant.model;
    let (found, predictions) = learned(&app).await?;
    Ok(Json(ModelView {
        prior: AbsorptionModel::prior(&plant.coefficients).coefficients(),
        learned: found.model.coefficients(),
        lots: found.model.lots(),
        in_use: in_use.coefficients(),
        in_use_lots: in_use.lots(),
        off_pct: found.off_pct(),
        predictions,
    }))
}

/// The model after every measured lot of common wheat, oldest first, and what it foretold of each.
pub(super) async fn learn(app: &App) -> Result<AbsorptionModel> {
    Ok(learned(app).await?.0.model)
}

async fn learned(app: &App) -> Result<(LookingBack, Vec<PredictedAbsorption>)> {
    let wheats: Vec<Uuid> = app
        .store
        .flours()
        .await?
        .into_iter()
        .filter(|flour| flour.species == Species::Wheat)
        .map(|flour| flour.id)
        .collect();
    let lots = app.store.lots(None, None, MOST_LOTS).await?;
    let prior = AbsorptionModel::prior(&app.parameters().await?.coefficients);
    let taught: Vec<_> = lots
        .into_iter()
        .rev()
        .filter(|lot| wheats.contains(&lot.flour_id))
        .filter_map(|lot| measured_absorption(&lot.current.readings).map(|one| (lot, one)))
        .collect();
    let found = LookingBack::over(prior, taught.iter().map(|(_, measured)| *measured));
    let predictions = taught.into_iter().zip(&found.foretold);
    let predictions = predictions
        .map(|((lot, _), (predicted, measured_pct))| PredictedAbsorption {
            lot_id: lot.id,
            code: lot.code,
            flour: lot.flour,
            received_at: lot.received_at,
            measured_pct: *measured_pct,
            predicted_pct: predicted.mean_pct,
            sd_pct: predicted.sd_pct,
        })
        .collect();
    Ok((found, predictions))
}
