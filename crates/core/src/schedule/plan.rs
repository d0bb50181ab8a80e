use chrono::{DateTime, Duration, Utc};
use serde::Serialize;
use thiserror::Error;

use super::ScheduleRequest;
use super::coefficients::{BULK_MIN, RETARD_C};
use super::find_start::{Shut, find_start, minutes};
use crate::coefficient::Coefficients;
use crate::method::{Method, Stage, StageKind, StageRole, TimeTolerance};
use crate::units::{MIN_PER_H, S_PER_MIN};

/// A stretched night is a whole number of these, minutes.
const STEP_MIN: f64 = 5.0;
/// A night in the cold may be so much shorter or longer (H), within what its stage allows.
const COLD_STRETCH: [f64; 6] = [0.85, 1.2, 0.7, 1.4, 1.7, 2.0];
/// Nights in the cold that are tried where a method has none, hours (H: 8 to 24).
const RETARD_H: [f64; 13] =
    [8.0, 9.0, 10.0, 11.0, 12.0, 13.0, 14.0, 15.0, 16.0, 18.0, 20.0, 22.0, 24.0];

/// A stage with its hours.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct PlannedStage {
    pub label: String,
    pub kind: StageKind,
    pub starts_at: DateTime<Utc>,
    pub ends_at: DateTime<Utc>,
    pub ambient_c: Option<f64>,
    pub ends_when: String,
    /// Somebody works at it all the while, not only at its beginning.
    pub hands: bool,
    /// Minutes more or less than the method says.
    pub stretched_min: f64,
    /// The method has no such stage: it was put in to get over the closed hours.
    pub added: bool,
    /// Its place in the method; none where it was put in.
    pub of: Option<usize>,
    /// Each set of folds in it, with a rest after it.
    pub folds: Vec<FoldSet>,
}

/// A set of folds on the clock.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FoldSet {
    pub starts_at: DateTime<Utc>,
    pub ends_at: DateTime<Utc>,
}

impl FoldSet {
    /// The sets of a stage that begins at a moment and lasts so long.
    pub(super) fn of(stage: &Stage, starts_at: DateTime<Utc>, lasts_min: f64) -> Vec<Self> {
        let at = |since: f64| starts_at + minutes(since);
        let sets = stage.folds(lasts_min).into_iter();
        sets.map(|set| Self { starts_at: at(set.from_min), ends_at: at(set.to_min) }).collect()
    }
}

/// A dough on the clock.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SchedulePlan {
    pub stages: Vec<PlannedStage>,
    pub starts_at: DateTime<Utc>,
    /// When the bread is out of the oven.
    pub out_at: DateTime<Utc>,
    /// Later than asked to begin, or earlier than asked to be out, minutes.
    pub moved_min: i64,
    /// What was done to fit; none where nothing was.
    pub message: Option<ScheduleChange>,
}

/// What was done to a method to get over closed hours.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum ScheduleChange {
    /// Its night in the cold is longer, or shorter where negative.
    ColdStretched {
        minutes: f64,
    },
    NightAdded {
        hours: f64,
        at: NightPlace,
    },
}

/// Where a night in the cold can be put in.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum NightPlace {
    BeforeProof,
    AfterBulk,
    HalfwayThroughBulk,
}

/// No hour fits.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
#[error(
    "no start that is left fits: {stage} falls into the closed hours, or into the past. Take fewer \
     hours out, a later time, or another method"
)]
pub struct ScheduleError {
    pub stage: String,
}

/// One way to run the method: its stages, and what was done to them.
struct Way {
    /// Each with the minutes it is stretched, and its place in the method if it has one.
    stages: Vec<(Stage, f64, Option<usize>)>,
    message: Option<ScheduleChange>,
}

/// Puts a dough on the clock: as the method is, where that fits around the closed hours by moving
/// its start; else with its night in the cold shorter or longer; else with a night in the cold put
/// in before the last proof, after the bulk or halfway through it.
///
/// A stage that hands work at must lie outside the closed hours whole, of folds each set; of any
/// other only its beginning, for somebody has to bring it there.
pub fn plan_schedule(
    method: &Method,
    wanted: &ScheduleRequest,
    coefficients: &Coefficients,
) -> Result<SchedulePlan, ScheduleError> {
    let mut blocked = None;
    for way in ways(method, coefficients) {
        match fit(&way, wanted) {
            Ok(plan) => return Ok(plan),
            Err(stage) => blocked = blocked.or(Some(stage)),
        }
    }
    Err(ScheduleError { stage: blocked.unwrap_or_default() })
}

/// From the least change to the greatest.
fn ways(method: &Method, coefficients: &Coefficients) -> Vec<Way> {
    let plain = |(at, stage): (usize, &Stage)| (stage.clone(), 0.0, Some(at));
    let cold = method.stages.iter().position(Stage::is_cold);
    if let Some(cold) = cold {
        let planned = method.stages[cold].minutes;
        let TimeTolerance { low_min, high_min } = method.windows(coefficients)[cold];
        let mut lasts = vec![planned];
        for factor in COLD_STRETCH {
            let minutes = planned + ((factor - 1.0) * planned / STEP_MIN).round() * STEP_MIN;
            let minutes = minutes.max(low_min).min(high_min);
            if !lasts.contains(&minutes) {
                lasts.push(minutes);
            }
        }
        return lasts
            .into_iter()
            .map(|minutes| {
                let mut stages: Vec<_> = method.stages.iter().enumerate().map(plain).collect();
                let more = minutes - planned;
                stages[cold].0.minutes = minutes;
                stages[cold].1 = more;
                let message =
                    (more != 0.0).then_some(ScheduleChange::ColdStretched { minutes: more });
                Way { stages, message }
            })
            .collect();
    }
    let retard_c = coefficients.value(&RETARD_C);
    let mut all =
        vec![Way { stages: method.stages.iter().enumerate().map(plain).collect(), message: None }];
    all.extend(nights(method, coefficients.value(&BULK_MIN)).into_iter().flat_map(
        |(stage_at, at)| {
            RETARD_H.into_iter().map(move |hours| {
                let mut stages: Vec<_> = method.stages.iter().enumerate().map(plain).collect();
                let night = Stage {
                    temperature_c: Some(retard_c),
                    ends_when: "somebody is there; look whether it still has strength".into(),
                    ..Stage::new(StageKind::Rest, "In the cold", hours * MIN_PER_H)
                };
                let night = (night, hours * MIN_PER_H, None);
                if at == NightPlace::HalfwayThroughBulk {
                    let (stage, ..) = &mut stages[stage_at];
                    stage.minutes /= 2.0;
                    let rest = (stage.clone(), 0.0, Some(stage_at));
                    stages.splice(stage_at + 1..=stage_at, [night, rest]);
                } else {
                    stages.insert(stage_at, night);
                }
                Way { stages, message: Some(ScheduleChange::NightAdded { hours, at }) }
            })
        },
    ));
    all
}

/// Where a night in the cold could be put in: before the last proof, before the dough is divided,
/// or halfway through its bulk, the least change first.
fn nights(method: &Method, bulk_min: f64) -> Vec<(usize, NightPlace)> {
    let mut found = Vec::new();
    if let Some(proof) = method.stages.iter().rposition(|stage| stage.kind == StageKind::Proof) {
        found.push((proof, NightPlace::BeforeProof));
    }
    let roles = method.roles();
    let bulk = (0..roles.len())
        .filter(|at| roles[*at] == StageRole::Floor)
        .max_by(|one, other| method.stages[*one].minutes.total_cmp(&method.stages[*other].minutes));
    // A dough that hardly lies has nothing to be slowed down.
    if let Some(bulk) = bulk.filter(|at| method.stages[*at].minutes >= bulk_min) {
        found.push((bulk + 1, NightPlace::AfterBulk));
        found.push((bulk, NightPlace::HalfwayThroughBulk));
    }
    found
}

/// The way at the nearest start that keeps clear of the closed hours; else the stage in the way
/// at the start that was asked for.
fn fit(way: &Way, wanted: &ScheduleRequest) -> Result<SchedulePlan, String> {
    let lasts = |stages: &[(Stage, f64, Option<usize>)]| -> f64 {
        stages.iter().map(|(stage, ..)| stage.minutes).sum()
    };
    let oven = way.stages.iter().rposition(|(stage, ..)| stage.kind == StageKind::Bake);
    let to_out = lasts(&way.stages[..oven.map_or(way.stages.len(), |oven| oven + 1)]);
    let blocked = |start, shut: &Shut| blocked(way, start, shut);
    let (start, moved_min) = find_start(wanted, to_out, lasts(&way.stages), blocked)
        .map_err(|stage| stage.unwrap_or_else(|| "its beginning".into()))?;
    Ok(SchedulePlan {
        stages: laid_out(way, start),
        starts_at: start,
        out_at: start + minutes(to_out),
        moved_min,
        message: way.message,
    })
}

/// The first stage that falls into hours when nobody is there.
fn blocked(way: &Way, start: DateTime<Utc>, shut: &Shut) -> Option<String> {
    let mut at = start;
    for (stage, ..) in &way.stages {
        let shuts_out = |since: f64, until: f64| {
            let (since, until) = (at + minutes(since), at + minutes(until));
            let until = until.max(since + Duration::minutes(1));
            shut.iter().any(|(from, to)| since < *to && until > *from)
        };
        let mut needed = stage.handled(stage.minutes).into_iter();
        if needed.any(|one| shuts_out(one.from_min, one.to_min)) {
            return Some(stage.label.clone());
        }
        at += minutes(stage.minutes);
    }
    None
}

fn laid_out(way: &Way, start: DateTime<Utc>) -> Vec<PlannedStage> {
    let mut at = start;
    way.stages
        .iter()
        .map(|(stage, stretched_min, of)| {
            let starts_at = at;
            at += minutes(stage.minutes);
            PlannedStage {
                label: stage.label.clone(),
                kind: stage.kind,
                starts_at,
                ends_at: at,
                ambient_c: stage.temperature_c,
                ends_when: stage.ends_when.clone(),
                hands: stage.needs_hands(),
                stretched_min: *stretched_min,
                added: of.is_none(),
                of: *of,
                folds: FoldSet::of(stage, starts_at, stage.minutes),
            }
        })
        .collect()
}

impl SchedulePlan {
    /// Hours from its start to the first mixing of its method.
    pub fn mixes_h(&self, method: &Method) -> f64 {
        (self.mixes_at(method) - self.starts_at).num_seconds() as f64 / (S_PER_MIN * MIN_PER_H)
    }

    /// When the first mixing of its method begins.
    pub fn mixes_at(&self, method: &Method) -> DateTime<Utc> {
        self.stages.get(method.first_mix()).map_or(self.starts_at, |mix| mix.starts_at)
    }

    /// The method as it is planned: with what was stretched and put in.
    pub fn method(&self, method: &Method) -> Method {
        let stages = self
            .stages
            .iter()
            .map(|planned| {
                let minutes =
                    (planned.ends_at - planned.starts_at).num_seconds() as f64 / S_PER_MIN;
                planned.of.and_then(|at| method.stages.get(at)).map_or_else(
                    || Stage {
                        temperature_c: planned.ambient_c,
                        ends_when: planned.ends_when.clone(),
                        ..Stage::new(planned.kind, planned.label.clone(), minutes)
                    },
                    |stage| Stage { minutes, ..stage.clone() },
                )
            })
            .collect();
        Method { stages, ..method.clone() }
    }
}
