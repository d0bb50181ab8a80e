use chrono::{DateTime, Utc};
use serde::Serialize;
use thiserror::Error;

use super::cadence::{Cadence, Place, cadence, holds, troughs_for};
use super::find_start::{Shut, find_start, minutes};
use super::flow::Flow;
use super::layout::Laid;
use super::line::{Line, RunRequest, Span};
use super::{FoldSet, ScheduleError};
use crate::method::{Method, Stage, StageKind, StageRole};
use crate::units::{H_PER_DAY, MIN_PER_H, S_PER_MIN};

/// A stage of one dough of a run.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct RunStage {
    /// Its place in the method.
    pub stage: usize,
    pub label: String,
    pub kind: StageKind,
    pub role: StageRole,
    pub place: Option<Place>,
    /// From the divider on, of its last piece.
    pub starts_at: DateTime<Utc>,
    pub ends_at: DateTime<Utc>,
    /// Minutes longer than planned, of the piece that stays longest.
    pub waits_min: f64,
    /// Minutes longer than it may be.
    pub past_min: f64,
    /// Each set of folds in it, with a rest after it.
    pub folds: Vec<FoldSet>,
}

/// One dough of a run.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ScheduledBatch {
    /// Counted from 1.
    pub number: usize,
    pub stages: Vec<RunStage>,
    pub starts_at: DateTime<Utc>,
    /// Its last piece is out of the oven.
    pub out_at: DateTime<Utc>,
}

/// How many troughs are in use from a moment on.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TroughsInUse {
    pub from: DateTime<Utc>,
    pub troughs: u32,
}

/// The most that is in a place at once, and what it holds: troughs, or pieces.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Fullest {
    pub place: Place,
    pub most: u32,
    pub holds: u32,
}

/// What a line cannot give.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum RunCaution {
    /// Minutes a dough is divided and may be, and what a dough may weigh to keep to it.
    DividedTooLong {
        divide_min: f64,
        limit_min: f64,
        most_kg: f64,
    },
    TooFewTroughs {
        wanted: u32,
        there_are: u32,
    },
}

/// A stage that lasts longer than it may.
#[derive(Debug, Clone, PartialEq)]
pub struct WindowOverrun {
    /// By its number.
    pub dough: usize,
    /// Its place in the method.
    pub stage: usize,
    pub label: String,
    pub past_min: f64,
}

/// A run of doughs on the clock.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct RunPlan {
    pub cadence: Cadence,
    pub doughs: Vec<ScheduledBatch>,
    pub starts_at: DateTime<Utc>,
    /// The first piece of the first dough that is out.
    pub first_out_at: DateTime<Utc>,
    pub out_at: DateTime<Utc>,
    /// Later than asked to begin, or earlier than asked to be out, minutes.
    pub moved_min: i64,
    pub troughs: Vec<TroughsInUse>,
    /// Troughs, proofer and oven when they are fullest.
    pub fullest: Vec<Fullest>,
    /// What the line cannot give.
    pub cautions: Vec<RunCaution>,
    /// Stages that last longer than they may.
    pub past: Vec<WindowOverrun>,
}

/// A run that is not planned.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum RunError {
    #[error(transparent)]
    ScheduleError(#[from] ScheduleError),
    #[error(
        "a dough every {minutes:.0} min takes {days:.0} days, and no run is planned beyond \
         {MOST_DAYS}: fewer doughs, or more of the place that is slowest"
    )]
    TooLong { minutes: f64, days: f64 },
    #[error(
        "{pieces:.0} pieces are more than the {MOST_PIECES:.0} a run is planned with: fewer doughs"
    )]
    TooMany { pieces: f64 },
}

/// The longest run.
const MOST_DAYS: f64 = 60.0;
const MINUTES_A_DAY: f64 = H_PER_DAY * MIN_PER_H;
/// The most pieces of a run, each followed by itself.
const MOST_PIECES: f64 = 2_000_000.0;

/// Puts a run on the clock: doughs follow one another at the line's cadence; a stage that is
/// shifted, and a line that stands still, push what comes after. Mixer and divider take one dough
/// after another, troughs, proofer and oven no more than they hold; a dough, and from the divider on
/// each of its pieces, waits where it is until there is room for it.
///
/// Doughs that are not begun when the line stops are begun later, so that they do not wait. While
/// the mixer stands no sponge is set either.
pub fn plan_run(wanted: &RunRequest<'_>) -> Result<RunPlan, RunError> {
    let method = paced(wanted);
    let cadence = cadence(&method, wanted.equipment, wanted.each, wanted.coefficients);
    let line = Line {
        wanted,
        roles: method.roles(),
        windows: method.windows(wanted.coefficients),
        method: &method,
    };
    let days = cadence.minutes * wanted.doughs as f64 / MINUTES_A_DAY;
    if days > MOST_DAYS {
        return Err(RunError::TooLong { minutes: cadence.minutes, days });
    }
    let pieces = wanted.each.whole_pieces() * wanted.doughs as f64;
    if pieces > MOST_PIECES {
        return Err(RunError::TooMany { pieces });
    }
    let undisturbed = line.lay(&cadence, &[]);
    let (start, moved_min) = line.find_start(&undisturbed.doughs)?;
    let since = |at: DateTime<Utc>| (at - start).num_seconds() as f64 / S_PER_MIN;
    let stop = wanted.stop.map(|stop| {
        let from = since(stop.from);
        (from, from + stop.minutes, stop.place)
    });
    let asked = if wanted.shifts.is_empty() && wanted.dropped.is_empty() {
        undisturbed
    } else {
        line.lay(&cadence, wanted.shifts)
    };
    // What was begun when the line stops was begun as it was planned.
    let laid = match stop {
        None => asked,
        Some(_) => line.layout_from(&cadence, &asked.turns, stop, wanted.shifts),
    };
    Ok(line.told(cadence, &laid, start, moved_min))
}

/// The method with its divider at the line's pace, and its sponge lying until the mixer is free.
fn paced(wanted: &RunRequest<'_>) -> Method {
    let mut method = wanted.method.clone();
    let Cadence { divide_min: pace, sponge_waits_min, .. } =
        cadence(&method, wanted.equipment, wanted.each, wanted.coefficients);
    if let Some(at) = method.sponge_at() {
        method.stages[at].minutes += sponge_waits_min;
    }
    let divide = method.stages.iter().position(|stage| stage.kind == StageKind::Divide);
    if let Some(at) = divide.filter(|_| pace > 0.0) {
        method.stages[at].minutes = pace;
        method.stages[at].tolerance = None;
    }
    method
}

impl Line<'_> {
    /// The start nearest to what was asked at which nobody is needed in closed hours.
    fn find_start(&self, laid: &[Vec<Span>]) -> Result<(DateTime<Utc>, i64), ScheduleError> {
        let out = laid.iter().filter_map(|spans| self.out(spans)).fold(0.0, f64::max);
        let ends = laid.iter().flatten().map(|span| span.to).fold(0.0, f64::max);
        let busy: Vec<(f64, f64, usize)> = laid
            .iter()
            .flat_map(|spans| spans.iter().enumerate())
            .flat_map(|(number, span)| {
                let needed = self.method.stages[number].handled(span.to - span.from);
                needed
                    .into_iter()
                    .map(move |one| (span.from + one.from_min, span.from + one.to_min, number))
            })
            .collect();
        let in_the_way = |start: DateTime<Utc>, shut: &Shut| {
            let since = |at: &DateTime<Utc>| (*at - start).num_seconds() as f64 / S_PER_MIN;
            let shut: Vec<(f64, f64)> =
                shut.iter().map(|(from, to)| (since(from), since(to))).collect();
            let meets = |(from, to, _): &&(f64, f64, usize)| {
                shut.iter().any(|(shut, open)| from < open && to > shut)
            };
            busy.iter().find(meets).map(|(.., number)| *number)
        };
        find_start(self.wanted.day, out, ends, in_the_way).map_err(|number| {
            let stage = number.map(|number| self.method.stages[number].label.clone());
            ScheduleError { stage: stage.unwrap_or_else(|| "its beginning".into()) }
        })
    }

    /// When a dough is out of the oven; at its end where it is never baked.
    fn out(&self, spans: &[Span]) -> Option<f64> {
        spans.get(self.last_bake().unwrap_or(spans.len().saturating_sub(1))).map(|span| span.to)
    }

    fn told(&self, cadence: Cadence, laid: &Laid, start: DateTime<Utc>, moved_min: i64) -> RunPlan {
        let at = |since: f64| start + minutes(since);
        let doughs: Vec<ScheduledBatch> = (0..)
            .zip(&laid.doughs)
            .filter(|(_, spans)| !spans.is_empty())
            .map(|(dough, spans): (usize, _)| ScheduledBatch {
                number: dough + 1,
                stages: (0..)
                    .zip(spans)
                    .map(|(number, span)| self.stage(number, *span, start))
                    .collect(),
                starts_at: at(spans.first().map_or(0.0, |span| span.from)),
                out_at: at(self.out(spans).unwrap_or(0.0)),
            })
            .collect();
        let first = doughs.first().map_or(start, |dough| dough.starts_at);
        let out_at = doughs.iter().map(|dough| dough.out_at).max().unwrap_or(start);
        let first_out_at = laid.flow.first_out().map_or(out_at, at);
        let troughs = self.troughs(&laid.doughs, start);
        let fullest = self.fullest(&laid.flow, &troughs);
        let cautions = self.cautions(&cadence, &troughs);
        let past = past_windows(&doughs);
        RunPlan {
            cadence,
            doughs,
            starts_at: first,
            first_out_at,
            out_at,
            moved_min,
            troughs,
            fullest,
            cautions,
            past,
        }
    }

    fn stage(&self, number: usize, span: Span, start: DateTime<Utc>) -> RunStage {
        let stage = &self.method.stages[number];
        let Stage { label, kind, minutes: planned, .. } = stage;
        let starts_at = start + minutes(span.from);
        // A minute over is the clock's, not the dough's.
        let over = |than: f64| Some(span.longest - than).filter(|over| *over >= 1.0).unwrap_or(0.0);
        RunStage {
            stage: number,
            label: label.clone(),
            kind: *kind,
            role: self.roles[number],
            place: self.place(number),
            starts_at,
            ends_at: start + minutes(span.to),
            folds: FoldSet::of(stage, starts_at, planned.min(span.to - span.from)),
            waits_min: over(*planned),
            past_min: over(self.windows[number].high_min),
        }
    }

    /// Troughs in use over the run, at each moment that changes them.
    fn troughs(&self, laid: &[Vec<Span>], start: DateTime<Utc>) -> Vec<TroughsInUse> {
        let mut changes: Vec<(f64, i64)> = laid
            .iter()
            .flat_map(|spans| spans.iter().enumerate())
            .filter(|(number, _)| self.place(*number) == Some(Place::Troughs))
            .flat_map(|(number, span)| {
                let RunRequest { each, equipment, .. } = *self.wanted;
                let taken = i64::from(troughs_for(self.roles[number], each, equipment));
                [(span.from, taken), (span.to, -taken)]
            })
            .collect();
        changes.sort_by(|one, other| one.0.total_cmp(&other.0).then(one.1.cmp(&other.1)));
        let mut used = 0;
        let mut found: Vec<TroughsInUse> = Vec::new();
        for (since, change) in changes {
            used += change;
            let now = TroughsInUse { from: start + minutes(since), troughs: used.max(0) as u32 };
            match found.last_mut() {
                Some(last) if last.from == now.from => *last = now,
                _ => found.push(now),
            }
        }
        found
    }

    fn fullest(&self, flow: &Flow, troughs: &[TroughsInUse]) -> Vec<Fullest> {
        let equipment = self.wanted.equipment;
        let troughs = Fullest {
            place: Place::Troughs,
            most: troughs.iter().map(|use_| use_.troughs).max().unwrap_or(0),
            holds: equipment.troughs,
        };
        let pieces = [Place::Proofer, Place::Oven].map(|place| Fullest {
            place,
            most: u32::try_from(flow.most_in(place)).unwrap_or(u32::MAX),
            holds: holds(place, equipment) as u32,
        });
        [troughs].into_iter().chain(pieces).filter(|one| one.most > 0).collect()
    }

    fn cautions(&self, cadence: &Cadence, troughs: &[TroughsInUse]) -> Vec<RunCaution> {
        let mut cautions = Vec::new();
        if let (Some(limit_min), Some(most_kg)) = (cadence.divide_limit_min, cadence.most_kg)
            && cadence.divide_min > limit_min
        {
            let divide_min = cadence.divide_min;
            cautions.push(RunCaution::DividedTooLong { divide_min, limit_min, most_kg });
        }
        let wanted = troughs.iter().map(|use_| use_.troughs).max().unwrap_or(0);
        let there_are = self.wanted.equipment.troughs;
        if wanted > there_are {
            cautions.push(RunCaution::TooFewTroughs { wanted, there_are });
        }
        cautions
    }
}

/// Every stage that lasts longer than it may.
fn past_windows(doughs: &[ScheduledBatch]) -> Vec<WindowOverrun> {
    doughs
        .iter()
        .flat_map(|dough| dough.stages.iter().map(move |stage| (dough.number, stage)))
        .filter(|(_, stage)| stage.past_min > 0.0)
        .map(|(dough, stage)| WindowOverrun {
            dough,
            stage: stage.stage,
            label: stage.label.clone(),
            past_min: stage.past_min,
        })
        .collect()
}
