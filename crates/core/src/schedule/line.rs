//! A run's line: what is wanted of it, its places, and what stands still.

use chrono::{DateTime, Utc};

use super::ScheduleRequest;
use super::cadence::{EachDough, Place};
use super::find_start::minutes;
use crate::coefficient::Coefficients;
use crate::method::{Equipment, Method, StageRole, TimeTolerance};

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

impl Stop {
    /// When it goes again.
    pub fn until(&self) -> DateTime<Utc> {
        self.from + minutes(self.minutes)
    }
}

/// A run of doughs of one kind.
#[derive(Debug, Clone, Copy)]
pub struct RunRequest<'a> {
    pub method: &'a Method,
    pub equipment: &'a Equipment,
    pub doughs: usize,
    pub each: EachDough,
    pub day: &'a ScheduleRequest,
    pub shifts: &'a [Shift],
    pub stop: Option<Stop>,
    /// Doughs that are not made after all, counted from 0.
    pub dropped: &'a [usize],
    pub coefficients: &'a Coefficients,
}

/// A run on a line, its divider at the line's pace.
pub(super) struct Line<'a> {
    pub wanted: &'a RunRequest<'a>,
    pub method: &'a Method,
    pub roles: Vec<StageRole>,
    pub windows: Vec<TimeTolerance>,
}

impl Line<'_> {
    pub fn place(&self, stage: usize) -> Option<Place> {
        self.roles.get(stage).and_then(|role| Place::of(*role))
    }

    /// Mixer and divider, by their place in a list of when they are free. Of several dividing
    /// stages only the first is the divider.
    pub fn exclusive(&self, stage: usize) -> Option<usize> {
        match self.place(stage)? {
            Place::Mixer => Some(0),
            Place::Divider => {
                let first = self.roles.iter().position(|role| *role == StageRole::Dividing);
                (first == Some(stage)).then_some(1)
            }
            _ => None,
        }
    }

    /// What has to be driven for a stage to begin: a sponge is set with a mixer.
    pub fn driven_at(&self, stage: usize) -> Option<Place> {
        match self.roles.get(stage) {
            Some(StageRole::Sponge) => Some(Place::Mixer),
            _ => self.place(stage),
        }
    }

    pub fn last_bake(&self) -> Option<usize> {
        self.roles.iter().rposition(|role| *role == StageRole::Bake)
    }
}

/// A stage of a dough in minutes from the run's start.
#[derive(Debug, Clone, Copy)]
pub(super) struct Span {
    pub from: f64,
    pub to: f64,
    /// What any of its pieces spends in it.
    pub longest: f64,
}

/// From, until and what of a standstill, in minutes from the run's start.
pub(super) type Standstill = Option<(f64, f64, Option<Place>)>;

/// When something that wants a place can begin, the line standing still or not.
pub(super) fn past(at: f64, stop: Standstill, place: Option<Place>) -> f64 {
    match stop {
        Some((from, until, what)) if stands(what, place) && from <= at && at < until => until,
        _ => at,
    }
}

/// When something under way ends: the mixer goes on where it was.
pub(super) fn interrupted(at: f64, to: f64, stop: Standstill, place: Option<Place>) -> f64 {
    match stop {
        Some((from, until, what))
            if stands(what, place) && place == Some(Place::Mixer) && at < from && from < to =>
        {
            to + (until - from)
        }
        _ => to,
    }
}

/// Whether a place stands still. Troughs never do; of the whole line everything driven does.
fn stands(what: Option<Place>, place: Option<Place>) -> bool {
    let driven = !matches!(place, None | Some(Place::Troughs));
    driven && what.is_none_or(|what| Some(what) == place)
}
