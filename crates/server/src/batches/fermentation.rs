//! A batch's fermentation by its sample jar, or by the dough itself.

use axum::extract::State;
use chrono::{DateTime, Utc};
use chrono_tz::Tz;
use ironpeel_core::batch::{BatchRecord, BatchState, Quantity, as_timed};
use ironpeel_core::chain::{
    BatchFermentation, BatchFollowed, ReadOf, RiseBand, Scenario, batch_fermentation, batch_rate,
    chain, starter_feed,
};
use ironpeel_core::ferment::JarReading;
use ironpeel_core::method::{EndFigure, StageKind, StageRole};
use ironpeel_core::schedule::{Anchor, FeedAt, ScheduleRequest};
use serde::Serialize;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use super::on_floor::BatchOnFloor;
use crate::problem::{Problem, Result};
use crate::request::{Json, Path};
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(fermentation))
}

/// A rise as it was read.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
struct RiseRead {
    t_h: f64,
    rise_pct: f64,
}

/// A batch's fermentation, by hours from its first mixing.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct BatchFermentationView {
    /// When its first mixing began.
    began_at: DateTime<Utc>,
    now_h: f64,
    /// What was read; the jar and the dough differ in mass, and are not mixed up.
    of: ReadOf,
    readings: Vec<RiseRead>,
    /// None where nothing in it makes gas, or nothing is left to rise.
    fermentation: Option<BatchFermentation>,
    /// Why there is none.
    message: Option<String>,
    /// Before it begins: when its starter is fed, and how.
    feed: Option<FeedAt>,
}

const SECONDS_PER_HOUR: f64 = 3600.0;

fn hours(from: DateTime<Utc>, to: DateTime<Utc>) -> f64 {
    (to - from).as_seconds_f64() / SECONDS_PER_HOUR
}

/// Readings of a quantity from a moment on.
fn readings(record: &BatchRecord, quantity: Quantity, from: DateTime<Utc>) -> Vec<JarReading> {
    let read = record.readings(quantity).filter(|(at, ..)| *at > from);
    read.map(|(at, rise_pct, _)| JarReading { t_h: hours(from, at), rise_pct }).collect()
}

/// Where it was put, and when: a reading of what is around it.
const AROUND: &str = "around the dough";

/// How a batch rises, by its sample jar or by itself, and what the cold would buy
#[utoipa::path(get, path = "/api/v1/batches/{batch_id}/fermentation", security(("session" = ["read"])), tag = "batch", params(("batch_id" = Uuid, Path)),
    responses((status = 200, body = BatchFermentationView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn fermentation(
    State(app): State<App>,
    Path(id): Path<Uuid>,
) -> Result<Json<BatchFermentationView>> {
    Ok(Json(followed(&app, id).await?))
}

/// How far it has risen by now.
pub async fn rise_now(app: &App, id: Uuid) -> Result<Option<f64>> {
    let view = followed(app, id).await?;
    let Some(fermentation) = view.fermentation else { return Ok(None) };
    let near = |point: &&RiseBand| (point.t_h - view.now_h).abs();
    let nearest = fermentation.series.iter().min_by(|one, other| near(one).total_cmp(&near(other)));
    Ok(nearest.map(|point| point.rise_pct.typical))
}

/// How fast it goes by its own readings, beside what its product was planned with; none without one.
pub fn rate_by_jar(floor: &BatchOnFloor) -> Option<f64> {
    let read = RiseReadings::of(floor);
    if read.found.is_empty() {
        return None;
    }
    let flours = floor.context.flours();
    let as_planned = floor.context.scenario(&flours);
    let method = as_timed(as_planned.method, &floor.report.times, f64::max);
    let scenario = Scenario { method: &method, ..as_planned };
    let own = batch_rate(&scenario, &chain(&scenario), &read.followed(0.0, None)).ok()?;
    Some(own.rate / scenario.run_settings.rate.unwrap_or(1.0))
}

/// What was read of a batch's rise, by hours from its first mixing, and where it was put.
struct RiseReadings {
    began_at: DateTime<Utc>,
    of: ReadOf,
    found: Vec<JarReading>,
    moved: Vec<(f64, f64)>,
}

impl RiseReadings {
    fn of(BatchOnFloor { planned, record, report, .. }: &BatchOnFloor) -> Self {
        let first_mix = planned.plan.stages.iter().position(|one| one.role == StageRole::Mixing);
        let times = first_mix.and_then(|at| report.times.get(at));
        let began_at = times.map_or(planned.plan.planned_for, |times| {
            times.begun_at.unwrap_or(times.expected_begin)
        });
        let jar = readings(record, Quantity::JarRisePct, began_at);
        let dough = readings(record, Quantity::DoughRisePct, began_at);
        let (of, found) = if jar.is_empty() && !dough.is_empty() {
            (ReadOf::Bulk, dough)
        } else {
            (ReadOf::Jar, jar)
        };
        let moved = record
            .readings(Quantity::RoomC)
            .filter(|(at, _, said)| *at > began_at && said.of.as_deref() == Some(AROUND))
            .map(|(at, celsius, _)| (hours(began_at, at), celsius));
        Self { began_at, of, found, moved: moved.collect() }
    }

    fn followed(&self, now_h: f64, wanted_pct: Option<f64>) -> BatchFollowed<'_> {
        let Self { of, found, moved, .. } = self;
        BatchFollowed { of: *of, readings: found, now_h, wanted_pct, moved }
    }
}

/// A batch as its readings say by now.
async fn followed(app: &App, id: Uuid) -> Result<BatchFermentationView> {
    let floor = BatchOnFloor::load(app, id).await?;
    let read = RiseReadings::of(&floor);
    let BatchOnFloor { planned, record, report, now, context } = &floor;
    let flours = context.flours();
    let as_planned = context.scenario(&flours);
    // What is open lasts as planned, or so far where that is longer.
    let method = as_timed(as_planned.method, &report.times, f64::max);
    let scenario = Scenario { method: &method, ..as_planned };
    let chain = chain(&scenario);
    let began_at = read.began_at;
    let now_h = hours(began_at, *now).max(0.0);
    let open = report.next.and_then(|next| next.stage);
    let open = planned.plan.stages.iter().find(|one| Some(one.stage) == open);
    let rises = |kind| matches!(kind, StageKind::Rest | StageKind::Fold | StageKind::Proof);
    let wanted_pct = open
        .filter(|one| one.end_point.figure(rises(one.kind)) == Some(EndFigure::Rise))
        .and_then(|one| one.ends_at);
    let followed = read.followed(now_h, wanted_pct);
    let (fermentation, message) = match batch_fermentation(&scenario, &chain, followed) {
        Ok(fermentation) => (Some(fermentation), None),
        Err(why) => (None, Some(why.to_string())),
    };
    let wanted = ScheduleRequest {
        anchor: Anchor::From(began_at),
        closed_hours: Vec::new(),
        zone: Tz::UTC,
        not_before: None,
    };
    let feed = (record.state == BatchState::Planned)
        .then(|| starter_feed(&scenario, &chain, began_at, &wanted))
        .flatten();
    let readings = read.found.iter().map(|one| RiseRead { t_h: one.t_h, rise_pct: one.rise_pct });
    Ok(BatchFermentationView {
        began_at,
        now_h,
        of: read.of,
        readings: readings.collect(),
        fermentation,
        message,
        feed,
    })
}
