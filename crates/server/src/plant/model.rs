//! What the plant's own lots teach of absorption.

use axum::extract::State;
use chrono::{DateTime, Utc};
use ironpeel_core::flour::{MoistureBasis, Property, Readings, Species};
use ironpeel_core::water::{AbsorptionModel, Composition, Learned};
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
#[utoipa::path(get, path = "/api/v1/absorption-model", tag = "plant",
    responses((status = 200, body = ModelView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn model(State(app): State<App>) -> Result<Json<ModelView>> {
    let plant = app.parameters().await?;
    let in_use = plant.model;
    let (learned, predictions) = learned(&app).await?;
    let squares: f64 =
        predictions.iter().map(|one| (one.measured_pct - one.predicted_pct).powi(2)).sum();
    let count = predictions.len() as f64;
    Ok(Json(ModelView {
        prior: AbsorptionModel::prior(&plant.coefficients).coefficients(),
        learned: learned.coefficients(),
        lots: learned.lots(),
        in_use: in_use.coefficients(),
        in_use_lots: in_use.lots(),
        off_pct: (count > 0.0).then(|| (squares / count).sqrt()),
        predictions,
    }))
}

/// The model after every measured lot of common wheat, oldest first, and what it foretold of each.
pub(super) async fn learn(app: &App) -> Result<AbsorptionModel> {
    Ok(learned(app).await?.0)
}

async fn learned(app: &App) -> Result<(AbsorptionModel, Vec<PredictedAbsorption>)> {
    let wheats: Vec<Uuid> = app
        .store
        .flours()
        .await?
        .into_iter()
        .filter(|flour| flour.species == Species::Wheat)
        .map(|flour| flour.id)
        .collect();
    let lots = app.store.lots(None, None, MOST_LOTS).await?;
    let mut model = AbsorptionModel::prior(&app.parameters().await?.coefficients);
    let mut predictions = Vec::new();
    for lot in lots.into_iter().rev().filter(|lot| wheats.contains(&lot.flour_id)) {
        let Some((composition, measured_pct)) = measured(&lot.current.readings) else { continue };
        let predicted = model.predict(composition);
        model = model.learn(composition, measured_pct);
        predictions.push(PredictedAbsorption {
            lot_id: lot.id,
            code: lot.code,
            flour: lot.flour,
            received_at: lot.received_at,
            measured_pct,
            predicted_pct: predicted.mean_pct,
            sd_pct: predicted.sd_pct,
        });
    }
    Ok((model, predictions))
}

/// What a lot that states all four teaches.
fn measured(readings: &Readings) -> Option<(Composition, f64)> {
    let on = |property, basis| readings.value(property, Some(basis));
    let composition = Composition::of(
        on(Property::Protein, MoistureBasis::Fourteen)?,
        on(Property::DamagedStarch, MoistureBasis::AsIs)?,
        on(Property::Ash, MoistureBasis::DryMatter)?,
    );
    Some((composition, on(Property::Absorption, MoistureBasis::Fourteen)?))
}
