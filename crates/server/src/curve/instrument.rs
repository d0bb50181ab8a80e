//! The simulated farinograph and alveograph: run a lot's sample, drawn live.

use std::convert::Infallible;
use std::time::Duration;

use axum::extract::State;
use axum::response::sse::{Event, KeepAlive, Sse};
use futures_util::Stream;
use ironpeel_instruments::{Sample, run_alveograph, run_farinograph};
use ironpeel_store::{Lot, TraceKind, TraceSource, Word};
use serde::Deserialize;
use serde_json::{Value, json};
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use super::read::ReadCurve;
use super::{curve, new_trace};
use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Query, Recorded};
use crate::state::App;

/// How often a stretch of the curve is sent.
const TICK: Duration = Duration::from_millis(100);
/// Millimetres an alveograph draws in a second.
const MM_PER_S: f64 = 5.0;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(run, keep))
}

#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
struct Run {
    /// Times real speed, 1 to 10 000; 60 if left out.
    speed: Option<f64>,
}

/// A run to be kept.
#[derive(Debug, Deserialize, ToSchema)]
pub struct RunInput {}

/// Shows a lot's sample on a simulated instrument, as server-sent events: `points` as they are
/// drawn, then `done` with the curve's id. The same id draws the same; nothing is recorded
#[utoipa::path(get, path = "/api/v1/lots/{lot_id}/instruments/{kind}/{curve_id}", security(("session" = ["read"])), tag = "curve",
    params(("lot_id" = Uuid, Path), ("kind" = String, Path), ("curve_id" = Uuid, Path), Run),
    responses((status = 200, body = String, content_type = "text/event-stream"), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn run(
    State(app): State<App>,
    Path((lot_id, kind, id)): Path<(Uuid, String, Uuid)>,
    Query(asked): Query<Run>,
) -> Result<Sse<impl Stream<Item = std::result::Result<Event, Infallible>>>> {
    let kind = kind_of(&kind)?;
    let speed = asked.speed.unwrap_or(60.0);
    if !(1.0..=10_000.0).contains(&speed) {
        return Err(Problem::field("speed", "from 1 to 10000 times real speed"));
    }
    let lot = app.store.lot(lot_id).await?;
    let (_, parts) = measure(kind, &lot, id, speed * TICK.as_secs_f64());
    let stream = async_stream::stream! {
        for part in parts {
            yield Ok(Event::default().event("points").data(part.to_string()));
            tokio::time::sleep(TICK).await;
        }
        yield Ok(Event::default().event("done").data(id.to_string()));
    };
    Ok(Sse::new(stream).keep_alive(KeepAlive::default()))
}

/// Records what a simulated instrument draws under this id; sent twice, it is stored once
#[utoipa::path(put, path = "/api/v1/lots/{lot_id}/instruments/{kind}/{curve_id}", security(("session" = ["change"])), tag = "curve",
    params(("lot_id" = Uuid, Path), ("kind" = String, Path), ("curve_id" = Uuid, Path)), request_body = RunInput,
    responses((status = 200, body = ReadCurve), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn keep(
    State(app): State<App>,
    Path((lot_id, kind, id)): Path<(Uuid, String, Uuid)>,
    Recorded { write, .. }: Recorded<RunInput>,
) -> Result<Json<ReadCurve>> {
    let kind = kind_of(&kind)?;
    let lot = app.store.lot(lot_id).await?;
    let (drawn, _) = measure(kind, &lot, id, TICK.as_secs_f64());
    let trace =
        new_trace(id, lot_id, kind, TraceSource::Instrument, drawn, write.author.name.clone());
    write.of(&app, id).add_trace(&trace).await?;
    curve(State(app), Path(id)).await
}

fn kind_of(kind: &str) -> Result<TraceKind> {
    Word::<TraceKind>::named(kind)
        .ok_or_else(|| Problem::not_found("there is a farinograph and an alveograph"))
}

/// The curve, and the stretches it is drawn in.
fn measure(kind: TraceKind, lot: &Lot, id: Uuid, seconds_a_tick: f64) -> (Value, Vec<Value>) {
    // A lot of the same code is the same flour, in whatever database.
    let named = Uuid::new_v5(&Uuid::NAMESPACE_OID, lot.code.as_bytes());
    let sample = Sample::behind(&lot.current.readings, seed(named));
    match kind {
        TraceKind::Farinograph => {
            let titration = run_farinograph(&sample, 0.0, seed(id));
            let step = (seconds_a_tick.round() as usize).max(1);
            let parts = (0..titration.t_s.len())
                .step_by(step)
                .map(|from| {
                    let to = (from + step).min(titration.t_s.len());
                    json!({
                        "t_s": titration.t_s[from..to], "fu": titration.fu[from..to],
                        "band_fu": titration.band_fu[from..to],
                    })
                })
                .collect();
            let input = json!({
                "mixer_g": titration.mixer_g, "flour_moisture_pct": titration.flour_moisture_pct,
                "flour_g": titration.flour_g, "water_ml": titration.water_ml,
                "t_s": titration.t_s, "fu": titration.fu, "band_fu": titration.band_fu,
            });
            (input, parts)
        }
        TraceKind::Alveograph => {
            let bubbles = run_alveograph(&sample, seed(id)).0;
            let step = ((seconds_a_tick * MM_PER_S * 2.0).round() as usize).max(1);
            let parts = bubbles.iter().enumerate().flat_map(|(curve, (l, p))| {
                (0..l.len()).step_by(step).map(move |from| {
                    let to = (from + step).min(l.len());
                    json!({"curve": curve, "l_mm": l[from..to], "p_mmh2o": p[from..to]})
                })
            });
            let parts = parts.collect();
            let curve = |(l, p): &(Vec<f64>, Vec<f64>)| json!({"l_mm": l, "p_mmh2o": p});
            (json!({"curves": bubbles.iter().map(curve).collect::<Vec<_>>()}), parts)
        }
    }
}

/// The same for the same record, always.
fn seed(id: Uuid) -> u64 {
    let (high, low) = id.as_u64_pair();
    high ^ low.rotate_left(17)
}
