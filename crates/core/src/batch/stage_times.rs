use chrono::{DateTime, TimeDelta, Utc};
use serde::Serialize;
use uuid::Uuid;

use super::fold::minutes;
use super::{BatchRecord, EndedBy, EventKind, Placed};
use crate::ferment::coefficients::DROPS_AT;
use crate::method::{EndFigure, EndPoint, Method, Mixer, Speed, StageKind, StageRole};
use crate::units::{RawNumber, S_PER_MIN};

/// The step of the pull and tap test at which a sponge drops.
const DROPS: f64 = 2.0;

/// A stage as it is planned.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct StagePlan {
    pub stage: Uuid,
    pub kind: StageKind,
    pub role: StageRole,
    pub label: String,
    /// From the first stage's beginning.
    pub at_min: f64,
    pub minutes: f64,
    /// The shortest and the longest it may last, minutes.
    pub low_min: f64,
    pub high_min: f64,
    pub speed: Option<Speed>,
    pub temperature_c: Option<f64>,
    pub ends_when: String,
    pub end_point: EndPoint,
    /// The sign that its end point is stamped by.
    pub ended_by: EndedBy,
    pub ends_at: Option<f64>,
    /// Share of a sponge's time at which it drops.
    pub drops_at: f64,
    /// What the mixer puts in a minute, kJ/kg; 0 where it does not mix the dough.
    pub kj_per_kg_min: f64,
    /// Its sets of folds, minutes from its beginning.
    pub folds_at_min: Vec<f64>,
}

impl StagePlan {
    /// The core temperature it ends at, where that is what ends it.
    pub fn core_c(&self) -> Option<f64> {
        let is_core = self.end_point.figure(false) == Some(EndFigure::CoreTemperature);
        self.ends_at.filter(|_| is_core)
    }

    /// The stages of a method that is on record, one after another.
    pub fn of(
        method: &Method,
        mixer: &Mixer,
        coefficients: &crate::coefficient::Coefficients,
    ) -> Vec<Self> {
        let mut at_min = 0.0;
        let limits = method.windows(coefficients);
        let stages = method.stages.iter().zip(method.roles()).zip(limits);
        let planned = stages.filter_map(|((stage, role), tolerance)| {
            let begins = at_min;
            at_min += stage.minutes;
            Some(Self {
                stage: stage.id?,
                kind: stage.kind,
                role,
                label: stage.label.clone(),
                at_min: begins,
                minutes: stage.minutes,
                low_min: tolerance.low_min,
                high_min: tolerance.high_min,
                speed: stage.speed,
                temperature_c: stage.temperature_c,
                ends_when: stage.ends_when.clone(),
                end_point: stage.end_point,
                ended_by: stage.end_point.into(),
                ends_at: stage.ends_at,
                drops_at: coefficients.value(&DROPS_AT),
                kj_per_kg_min: if stage.mixes_dough() {
                    mixer.kj_per_kg_min(stage.speed)
                } else {
                    0.0
                },
                folds_at_min: stage.folds(stage.minutes).iter().map(|set| set.from_min).collect(),
            })
        });
        planned.collect()
    }
}

/// A stage as it was planned, as it was, and as it is expected.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct StageTimes {
    pub stage: Uuid,
    pub planned_begin: DateTime<Utc>,
    pub planned_end: DateTime<Utc>,
    /// As it was stamped, or as the one before it ended; none where it has not begun.
    pub begun_at: Option<DateTime<Utc>>,
    pub ended_at: Option<DateTime<Utc>>,
    /// From what happened before it; as it was, where it was.
    pub expected_begin: DateTime<Utc>,
    pub expected_end: DateTime<Utc>,
    /// When it is to end, whatever the time is.
    pub due_at: DateTime<Utc>,
    /// When it passes its longest.
    pub limit_at: DateTime<Utc>,
    /// How long it lasted, or lasts by now, min; none where it has not begun.
    pub lasted_min: Option<f64>,
    /// Whether it lasted longer, or lies longer by now, than it may.
    pub beyond_limit: bool,
}

/// A method as it was timed: what is over lasted as it did, what is open as `open` says of its planned
/// minutes and those so far.
pub fn as_timed(method: &Method, times: &[StageTimes], open: impl Fn(f64, f64) -> f64) -> Method {
    let mut method = method.clone();
    for (stage, times) in method.stages.iter_mut().zip(times) {
        if let Some(lasted) = times.lasted_min {
            let over = times.ended_at.is_some();
            stage.minutes = if over { lasted } else { open(stage.minutes, lasted) };
        }
    }
    method
}

/// A set of folds that is to be done next.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct NextFold {
    /// Counted from 1.
    pub set: usize,
    pub sets: usize,
    pub due_at: DateTime<Utc>,
}

/// What is to be stamped next.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct NextStage {
    /// None before the start and once every stage is over.
    pub stage: Option<Uuid>,
    pub due_at: DateTime<Utc>,
    /// How late it is by now, min; negative while there is time.
    pub late_min: f64,
    /// The next set of folds of the stage that is open.
    pub fold: Option<NextFold>,
}

/// What a note that stands for a set of folds is of.
pub const FOLDS: &str = "folds";

fn after(at: DateTime<Utc>, min: f64) -> DateTime<Utc> {
    #[expect(clippy::cast_possible_truncation, reason = "stages last days at most")]
    let seconds = (min * S_PER_MIN).round() as i64;
    at + TimeDelta::seconds(seconds)
}

/// Each stage planned, actual and expected, and what is next: what comes is moved by what happened.
///
/// A stage nobody stamped as begun began as the one before it ended; one before a stamped stage is
/// over even if nobody said so.
pub fn stage_times(
    planned: &[StagePlan],
    planned_for: DateTime<Utc>,
    record: &BatchRecord,
    now: DateTime<Utc>,
) -> (Vec<StageTimes>, Option<NextStage>) {
    let stamped = |stage: Uuid| record.stages.iter().find(|one| one.stage == stage);
    let start = record.started_at.unwrap_or(planned_for.max(now));
    let current = current(planned, record);
    let mut before = start;
    let mut times = Vec::with_capacity(planned.len());
    for (at, stage) in planned.iter().enumerate() {
        let stamps = stamped(stage.stage);
        let begins = stamps.and_then(|one| one.begun_at).unwrap_or(before);
        let drop_min = dropped(stage, record).map(|at| minutes(begins, at));
        let drop_min = drop_min.filter(|after| *after > 0.0);
        let lasts = drop_min.map_or(stage.minutes, |after| after / stage.drops_at);
        let due = after(begins, lasts);
        let ended_at = stamps.and_then(|one| one.ended_at);
        let over = at < current || ended_at.is_some();
        // What is over at the latest when the next one was seen to begin or end.
        let later = planned[at + 1..].iter().filter_map(|later| stamped(later.stage));
        let latest = later.filter_map(|one| one.begun_at.or(one.ended_at)).min();
        let open = at == current && record.started_at.is_some() && !record.state.is_over();
        let expected_end = match (ended_at, latest) {
            (Some(ended), _) => ended,
            (None, Some(latest)) if over => due.min(latest).max(begins),
            _ if open => due.max(now),
            _ => due,
        };
        let begun = over || open;
        let until = if open { now } else { expected_end };
        let lasted_min = begun.then(|| minutes(begins, until));
        times.push(StageTimes {
            stage: stage.stage,
            planned_begin: after(planned_for, stage.at_min),
            planned_end: after(planned_for, stage.at_min + stage.minutes),
            begun_at: begun.then_some(begins),
            ended_at,
            expected_begin: begins,
            expected_end,
            due_at: due,
            limit_at: after(begins, stage.high_min),
            lasted_min,
            beyond_limit: lasted_min.is_some_and(|lasted| lasted > stage.high_min),
        });
        before = expected_end;
    }
    let next = next(planned, &times, current, planned_for, record, now);
    (times, next)
}

/// When somebody saw a sponge drop: the tap and pull test that says so.
fn dropped(stage: &StagePlan, record: &BatchRecord) -> Option<DateTime<Utc>> {
    let drops = |one: &&Placed| {
        one.kind == EventKind::Observation
            && one.details.name.as_deref() == Some("sponge_tap")
            && matches!(one.details.value, RawNumber::Number(value) if value >= DROPS)
    };
    let is_sponge = stage.role == StageRole::Sponge;
    record.placed.iter().find(drops).map(|one| one.happened_at).filter(|_| is_sponge)
}

/// The stage that is open, or the first that is to come: after the last that anybody stamped.
fn current(planned: &[StagePlan], record: &BatchRecord) -> usize {
    let stamped = |stage: Uuid| record.stages.iter().find(|one| one.stage == stage);
    let last = planned.iter().rposition(|one| stamped(one.stage).is_some());
    last.map_or(0, |at| {
        let over = stamped(planned[at].stage).is_some_and(|one| one.ended_at.is_some());
        at + usize::from(over)
    })
}

fn next(
    planned: &[StagePlan],
    times: &[StageTimes],
    current: usize,
    planned_for: DateTime<Utc>,
    record: &BatchRecord,
    now: DateTime<Utc>,
) -> Option<NextStage> {
    if record.state.is_over() {
        return None;
    }
    let open = planned.get(current).zip(times.get(current));
    let (stage, due_at) = match open {
        _ if record.started_at.is_none() => (None, planned_for),
        Some((stage, times)) => (Some(stage.stage), times.due_at),
        None => (None, times.last().map_or(now, |last| last.expected_end)),
    };
    let fold = open
        .filter(|_| record.started_at.is_some())
        .and_then(|(stage, times)| next_fold(stage, times.expected_begin, record));
    Some(NextStage { stage, due_at, late_min: minutes(due_at, now), fold })
}

/// The set of folds after those that were stamped.
fn next_fold(stage: &StagePlan, begun: DateTime<Utc>, record: &BatchRecord) -> Option<NextFold> {
    let is_set = |one: &&Placed| {
        one.kind == EventKind::Note
            && one.details.stage == Some(stage.stage)
            && one.details.of.as_deref() == Some(FOLDS)
    };
    let done = record.placed.iter().filter(is_set).count();
    let at_min = *stage.folds_at_min.get(done)?;
    Some(NextFold { set: done + 1, sets: stage.folds_at_min.len(), due_at: after(begun, at_min) })
}
