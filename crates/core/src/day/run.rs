use chrono::{DateTime, Duration, Utc};
use serde::Serialize;

use super::cadence::{Cadence, EachDough, Place, cadence, troughs_for};
use super::hours::spans;
use super::plan::minutes;
use super::{Anchor, DayWanted, NoDay};
use crate::method::{Equipment, Method, Stage, StageKind, StageRole};

/// Steps in which a start is sought, and how far from what was asked, minutes.
const STEP_MIN: i64 = 5;
const FARTHEST_MIN: i64 = 48 * 60;

/// A stage of one dough that is begun later or earlier than planned.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Shift {
    /// Counted from 0.
    pub dough: usize,
    pub stage: usize,
    pub by_min: f64,
}

/// The line stands still.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Stop {
    pub from: DateTime<Utc>,
    pub minutes: f64,
    /// What stands still; the whole line if none.
    pub place: Option<Place>,
}

/// A run of doughs of one kind.
#[derive(Debug, Clone, Copy)]
pub struct RunWanted<'a> {
    pub method: &'a Method,
    pub equipment: &'a Equipment,
    pub doughs: usize,
    pub each: EachDough,
    pub day: &'a DayWanted,
    pub shifts: &'a [Shift],
    pub stop: Option<Stop>,
    /// Doughs that are not made after all, counted from 0.
    pub dropped: &'a [usize],
}

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
    pub starts_at: DateTime<Utc>,
    pub ends_at: DateTime<Utc>,
    /// Minutes longer than planned.
    pub waits_min: f64,
    /// Minutes longer than it may be.
    pub past_min: f64,
}

/// One dough of a run.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct RunDough {
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

/// A run of doughs on the clock.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct RunPlan {
    pub cadence: Cadence,
    pub doughs: Vec<RunDough>,
    pub starts_at: DateTime<Utc>,
    /// The first piece of the first dough that is out.
    pub first_out_at: DateTime<Utc>,
    pub out_at: DateTime<Utc>,
    /// Later than asked to begin, or earlier than asked to be out, minutes.
    pub moved_min: i64,
    pub troughs: Vec<TroughsInUse>,
    /// What the line cannot give, in words.
    pub cautions: Vec<String>,
    /// Stages that last longer than they may, in words.
    pub past: Vec<String>,
}

/// Puts a run on the clock: doughs follow one another at the line's cadence; a stage that is
/// shifted, and a line that stands still, push what comes after. Mixer and divider take one dough
/// after another; a dough waits where it is until the next is free.
///
/// Doughs that are not begun when the line stops are begun later, so that they do not wait.
pub fn plan_run(wanted: &RunWanted<'_>) -> Result<RunPlan, NoDay> {
    let method = paced(wanted);
    let cadence = cadence(&method, wanted.equipment, wanted.each);
    let line = Line { wanted, roles: method.roles(), windows: method.windows(), method: &method };
    let undisturbed: Vec<Vec<Lie>> = line.lay(&cadence, None, &[], f64::INFINITY);
    let (start, moved_min) = line.find_start(&undisturbed)?;
    let since = |at: DateTime<Utc>| (at - start).num_seconds() as f64 / 60.0;
    let stop = wanted.stop.map(|stop| {
        let from = since(stop.from);
        (from, from + stop.minutes, stop.place)
    });
    let begun = stop.map_or(f64::INFINITY, |(from, ..)| from);
    let laid = if stop.is_none() && wanted.shifts.is_empty() && wanted.dropped.is_empty() {
        undisturbed
    } else {
        line.lay(&cadence, stop, wanted.shifts, begun)
    };
    Ok(line.told(cadence, &laid, start, moved_min))
}

/// The method with its divider at the line's pace.
fn paced(wanted: &RunWanted<'_>) -> Method {
    let mut method = wanted.method.clone();
    let pace = cadence(&method, wanted.equipment, wanted.each).divide_min;
    let divide = method.stages.iter().position(|stage| stage.kind == StageKind::Divide);
    if let Some(at) = divide.filter(|_| pace > 0.0) {
        method.stages[at].minutes = pace;
        method.stages[at].window = None;
    }
    method
}

/// A stage of a dough in minutes from the run's start.
#[derive(Debug, Clone, Copy)]
struct Lie {
    from: f64,
    to: f64,
}

/// From, until and what of a standstill, in minutes from the run's start.
type Standstill = Option<(f64, f64, Option<Place>)>;

struct Line<'a> {
    wanted: &'a RunWanted<'a>,
    method: &'a Method,
    roles: Vec<StageRole>,
    windows: Vec<crate::method::Window>,
}

impl Line<'_> {
    /// Every dough's stages. Doughs whose turn comes before `begun` are begun when it comes.
    fn lay(
        &self,
        cadence: &Cadence,
        stop: Standstill,
        shifts: &[Shift],
        begun: f64,
    ) -> Vec<Vec<Lie>> {
        let stages = &self.method.stages;
        let before: Vec<f64> = stages
            .iter()
            .scan(0.0, |sum, stage| {
                let at = *sum;
                *sum += stage.minutes;
                Some(at)
            })
            .collect();
        // When each place is free again; only mixer and divider take one dough after another.
        let mut free = [0.0_f64; 2];
        let mut all = Vec::with_capacity(self.wanted.doughs);
        for dough in 0..self.wanted.doughs {
            let mut turn = dough as f64 * cadence.minutes;
            if self.wanted.dropped.contains(&dough) {
                all.push(Vec::new());
                continue;
            }
            if stop.is_none() || turn >= begun {
                for (at, before) in before.iter().enumerate() {
                    if let Some(one) = self.exclusive(at) {
                        turn = turn.max(free[one] - before);
                    }
                }
                turn = past(turn, stop, self.place(0));
            }
            let mut lies: Vec<Lie> = Vec::with_capacity(stages.len());
            let mut at = turn;
            for (number, stage) in stages.iter().enumerate() {
                let by: f64 = shifts
                    .iter()
                    .filter(|shift| shift.dough == dough && shift.stage == number)
                    .map(|shift| shift.by_min)
                    .sum();
                at = lies.last().map_or(at + by, |last| (at + by).max(last.from));
                let exclusive = self.exclusive(number);
                if let Some(one) =
                    exclusive.filter(|_| number == 0 || self.exclusive(number - 1) != exclusive)
                {
                    at = at.max(free[one]);
                }
                at = past(at, stop, self.place(number));
                if let Some(last) = lies.last_mut() {
                    last.to = at;
                }
                let to = interrupted(at, at + stage.minutes, stop, self.place(number));
                lies.push(Lie { from: at, to });
                at = to;
            }
            for (number, lie) in lies.iter().enumerate() {
                if let Some(one) = self.exclusive(number) {
                    let turn = if one == 0 { self.wanted.equipment.turn_min } else { 0.0 };
                    free[one] = free[one].max(lie.to + turn);
                }
            }
            all.push(lies);
        }
        all
    }

    fn place(&self, stage: usize) -> Option<Place> {
        self.roles.get(stage).and_then(|role| Place::of(*role))
    }

    /// Mixer and divider, by their place in a list of when they are free. Of several dividing
    /// stages only the first is the divider.
    fn exclusive(&self, stage: usize) -> Option<usize> {
        match self.place(stage)? {
            Place::Mixer => Some(0),
            Place::Divider => {
                let first = self.roles.iter().position(|role| *role == StageRole::Dividing);
                (first == Some(stage)).then_some(1)
            }
            _ => None,
        }
    }

    /// The start nearest to what was asked at which nobody is needed in refused hours.
    fn find_start(&self, laid: &[Vec<Lie>]) -> Result<(DateTime<Utc>, i64), NoDay> {
        let DayWanted { anchor, refused, zone, not_before } = self.wanted.day;
        let out = laid.iter().filter_map(|lies| self.out(lies)).fold(0.0, f64::max);
        let first = match *anchor {
            Anchor::From(start) => not_before.map_or(start, |now| start.max(now)),
            Anchor::OutBy(by) => by - minutes(out),
        };
        let ends = laid.iter().flatten().map(|lie| lie.to).fold(0.0, f64::max);
        let far = Duration::minutes(FARTHEST_MIN);
        let refused = spans(refused, first - far, first + far + minutes(ends), *zone);
        let busy: Vec<(f64, f64, usize)> = laid
            .iter()
            .flat_map(|lies| lies.iter().enumerate())
            .map(|(number, lie)| {
                let hands = self.method.stages[number].needs_hands();
                (lie.from, if hands { lie.to } else { lie.from + 1.0 }, number)
            })
            .collect();
        let mut in_the_way = None;
        for moved_min in (0..=FARTHEST_MIN).step_by(STEP_MIN as usize) {
            let start = match anchor {
                Anchor::From(_) => first + Duration::minutes(moved_min),
                Anchor::OutBy(_) => first - Duration::minutes(moved_min),
            };
            if not_before.is_some_and(|now| start < now) {
                break;
            }
            let shut: Vec<(f64, f64)> = refused
                .iter()
                .map(|(from, to)| {
                    let since = |at: &DateTime<Utc>| (*at - start).num_seconds() as f64 / 60.0;
                    (since(from), since(to))
                })
                .collect();
            let blocked = busy
                .iter()
                .find(|(from, to, _)| shut.iter().any(|(shut, open)| from < open && to > shut));
            match blocked {
                None => return Ok((start, moved_min)),
                Some((.., number)) => in_the_way = in_the_way.or(Some(*number)),
            }
        }
        let stage = in_the_way.map(|number| self.method.stages[number].label.clone());
        Err(NoDay { stage: stage.unwrap_or_else(|| "its beginning".into()) })
    }

    /// When a dough is out of the oven; at its end where it is never baked.
    fn out(&self, lies: &[Lie]) -> Option<f64> {
        let oven = self.roles.iter().rposition(|role| *role == StageRole::Bake);
        lies.get(oven.unwrap_or(lies.len().saturating_sub(1))).map(|lie| lie.to)
    }

    fn told(
        &self,
        cadence: Cadence,
        laid: &[Vec<Lie>],
        start: DateTime<Utc>,
        moved_min: i64,
    ) -> RunPlan {
        let at = |since: f64| start + minutes(since);
        let doughs: Vec<RunDough> = laid
            .iter()
            .enumerate()
            .filter(|(_, lies)| !lies.is_empty())
            .map(|(dough, lies)| RunDough {
                number: dough + 1,
                stages: (0..)
                    .zip(lies)
                    .map(|(number, lie)| self.stage(number, *lie, start))
                    .collect(),
                starts_at: at(lies.first().map_or(0.0, |lie| lie.from)),
                out_at: at(self.out(lies).unwrap_or(0.0)),
            })
            .collect();
        let first = doughs.first().map_or(start, |dough| dough.starts_at);
        let out_at = doughs.iter().map(|dough| dough.out_at).max().unwrap_or(start);
        let first_out_at = doughs.iter().map(|dough| dough.out_at).min().unwrap_or(start)
            - minutes(cadence.divide_min);
        let troughs = self.troughs(laid, start);
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
            cautions,
            past,
        }
    }

    fn stage(&self, number: usize, lie: Lie, start: DateTime<Utc>) -> RunStage {
        let Stage { label, kind, minutes: planned, .. } = &self.method.stages[number];
        let lasts = lie.to - lie.from;
        // A minute over is the clock's, not the dough's.
        let over = |than: f64| Some(lasts - than).filter(|over| *over >= 1.0).unwrap_or(0.0);
        RunStage {
            stage: number,
            label: label.clone(),
            kind: *kind,
            role: self.roles[number],
            place: self.place(number),
            starts_at: start + minutes(lie.from),
            ends_at: start + minutes(lie.to),
            waits_min: over(*planned),
            past_min: over(self.windows[number].high_min),
        }
    }

    /// Troughs in use over the run, at each moment that changes them.
    fn troughs(&self, laid: &[Vec<Lie>], start: DateTime<Utc>) -> Vec<TroughsInUse> {
        let mut changes: Vec<(f64, i64)> = laid
            .iter()
            .flat_map(|lies| lies.iter().enumerate())
            .filter(|(number, _)| self.place(*number) == Some(Place::Troughs))
            .flat_map(|(number, lie)| {
                let RunWanted { each, equipment, .. } = *self.wanted;
                let taken = i64::from(troughs_for(self.roles[number], each, equipment));
                [(lie.from, taken), (lie.to, -taken)]
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

    fn cautions(&self, cadence: &Cadence, troughs: &[TroughsInUse]) -> Vec<String> {
        let mut cautions = Vec::new();
        if let (Some(limit), Some(most)) = (cadence.divide_limit_min, cadence.most_kg)
            && cadence.divide_min > limit
        {
            cautions.push(format!(
                "A dough is divided in {:.0} min, and after {limit:.0} it is too old: make doughs of \
                 {most:.0} kg at most, or feed the oven faster.",
                cadence.divide_min
            ));
        }
        let most = troughs.iter().map(|use_| use_.troughs).max().unwrap_or(0);
        if most > self.wanted.equipment.troughs {
            cautions.push(format!(
                "{most} troughs are wanted at once and there are {}.",
                self.wanted.equipment.troughs
            ));
        }
        cautions
    }
}

/// Every stage that lasts longer than it may.
fn past_windows(doughs: &[RunDough]) -> Vec<String> {
    doughs
        .iter()
        .flat_map(|dough| dough.stages.iter().map(move |stage| (dough.number, stage)))
        .filter(|(_, stage)| stage.past_min > 0.0)
        .map(|(number, stage)| {
            let RunStage { label, past_min, .. } = stage;
            format!("Dough {number}: {label} goes {past_min:.0} min past what it may be.")
        })
        .collect()
}

/// When something that wants a place can begin, the line standing still or not.
fn past(at: f64, stop: Standstill, place: Option<Place>) -> f64 {
    match stop {
        Some((from, until, what)) if stands(what, place) && from <= at && at < until => until,
        _ => at,
    }
}

/// When something under way ends: the mixer and the divider go on where they were; what is in the
/// oven is baked.
fn interrupted(at: f64, to: f64, stop: Standstill, place: Option<Place>) -> f64 {
    match stop {
        Some((from, until, what))
            if stands(what, place)
                && matches!(place, Some(Place::Mixer | Place::Divider))
                && at < from
                && from < to =>
        {
            to + (until - from)
        }
        _ => to,
    }
}

/// Whether a place stands still. Troughs never do; of the whole line everything driven does.
fn stands(what: Option<Place>, place: Option<Place>) -> bool {
    let driven = matches!(place, Some(Place::Mixer | Place::Divider | Place::Oven));
    driven && what.is_none_or(|what| Some(what) == place)
}
