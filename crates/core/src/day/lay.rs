//! Doughs of a run laid one after another.

use super::cadence::{Cadence, Place};
use super::run::{Line, Shift};

/// A stage of a dough in minutes from the run's start.
#[derive(Debug, Clone, Copy)]
pub(super) struct Span {
    pub from: f64,
    pub to: f64,
}

/// From, until and what of a standstill, in minutes from the run's start.
pub(super) type Standstill = Option<(f64, f64, Option<Place>)>;

impl Line<'_> {
    /// Every dough's stages. A dough whose turn comes before the line stops is begun when it comes.
    pub fn lay(&self, cadence: &Cadence, stop: Standstill, shifts: &[Shift]) -> Vec<Vec<Span>> {
        let stops = stop.map_or(f64::NEG_INFINITY, |(from, ..)| from);
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
            if turn >= stops {
                for (at, before) in before.iter().enumerate() {
                    if let Some(one) = self.exclusive(at) {
                        turn = turn.max(free[one] - before);
                    }
                }
                turn = past(turn, stop, self.place(0));
            }
            let mut spans: Vec<Span> = Vec::with_capacity(stages.len());
            let mut at = turn;
            for (number, stage) in stages.iter().enumerate() {
                let by: f64 = shifts
                    .iter()
                    .filter(|shift| shift.dough == dough && shift.stage == number)
                    .map(|shift| shift.by_min)
                    .sum();
                at = spans.last().map_or(at + by, |last| (at + by).max(last.from));
                let exclusive = self.exclusive(number);
                if let Some(one) =
                    exclusive.filter(|_| number == 0 || self.exclusive(number - 1) != exclusive)
                {
                    at = at.max(free[one]);
                }
                at = past(at, stop, self.place(number));
                if let Some(last) = spans.last_mut() {
                    last.to = at;
                }
                let to = interrupted(at, at + stage.minutes, stop, self.place(number));
                spans.push(Span { from: at, to });
                at = to;
            }
            for (number, span) in spans.iter().enumerate() {
                if let Some(one) = self.exclusive(number) {
                    let turn = if one == 0 { self.wanted.equipment.turn_min } else { 0.0 };
                    free[one] = free[one].max(span.to + turn);
                }
            }
            all.push(spans);
        }
        all
    }
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
