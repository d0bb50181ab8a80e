//! Stand-ins for a floor without instruments: a scale, a probe in the dough, a camera at the jar.

use axum::extract::State;
use chrono::Utc;
use ironpeel_core::batch::Quantity;
use ironpeel_instruments::{run_jar_camera, run_probe, run_scale};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use super::fermentation::rise_now;
use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Query};
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(read))
}

/// A simulated instrument of the floor.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
enum FloorInstrument {
    Scale,
    DoughProbe,
    JarCamera,
}

#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
struct StandInQuery {
    #[param(inline)]
    instrument: FloorInstrument,
    /// Of a scale: the line that is weighed, as its readings name it, and its stage.
    of: Option<String>,
    stage: Option<Uuid>,
}

/// What a simulated instrument shows; nothing is recorded by it.
#[derive(Debug, Serialize, ToSchema)]
struct InstrumentReading {
    quantity: Quantity,
    value: f64,
}

/// What a simulated instrument of the floor shows for a batch now
#[utoipa::path(get, path = "/api/v1/batches/{batch_id}/instrument", security(("session" = ["read"])), tag = "batch",
    params(("batch_id" = Uuid, Path), StandInQuery),
    responses((status = 200, body = InstrumentReading), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn read(
    State(app): State<App>,
    Path(id): Path<Uuid>,
    Query(asked): Query<StandInQuery>,
) -> Result<Json<InstrumentReading>> {
    let batch = app.revisions.batch(id).await?;
    // Another moment, another reading.
    let seed = Utc::now().timestamp_micros().unsigned_abs();
    let (quantity, value) = match asked.instrument {
        FloorInstrument::Scale => {
            let mut lines = batch.plan.lines.iter();
            let line = lines
                .find(|line| Some(&line.of) == asked.of.as_ref() && line.stage == asked.stage)
                .ok_or_else(|| Problem::field("of", "the sheet has no such line"))?;
            (Quantity::MassKg, run_scale(line.kg, line.division_kg, seed))
        }
        FloorInstrument::DoughProbe => {
            let target_c = batch.plan.figures.target_c;
            let trace = run_probe(|_| target_c, 1, 1.0, seed);
            (Quantity::DoughC, trace.core_c.first().copied().unwrap_or(target_c))
        }
        FloorInstrument::JarCamera => {
            let rise_pct = rise_now(&app, id).await?;
            let rise_pct = rise_pct.ok_or_else(|| Problem::unusable("nothing rises in it yet"))?;
            (Quantity::JarRisePct, run_jar_camera(rise_pct, seed))
        }
    };
    Ok(Json(InstrumentReading { quantity, value }))
}
