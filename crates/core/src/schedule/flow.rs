//! Pieces of doughs that pass from the divider to the end of the oven one after another.

use std::ops::Range;

use super::cadence::{Place, holds};
use super::line::{Line, Span, Standstill, past};

/// One stay of every piece: in a place that holds only so many, or where it waits for nothing.
struct Stay {
    /// By their place in the method.
    stages: Range<usize>,
    place: Option<Place>,
    holds: usize,
    /// When each piece came and went, piece after piece.
    came: Vec<f64>,
    went: Vec<f64>,
}

/// Every piece of a run, dough after dough, each where the one before it was.
///
/// A piece comes into a place when there is room for it, and until then stays where it is: an oven
/// that stands fills the proofer, and a full proofer stops the divider.
pub(super) struct Flow {
    /// From the divider to the end of the oven, by their place in the method.
    pub stages: Range<usize>,
    pieces: usize,
    divides: bool,
    stays: Vec<Stay>,
    /// Pieces of doughs that are laid for good, and when the last of them left the divider.
    passed: usize,
    left: f64,
    /// When the last piece passed left it, kept or not.
    would_leave: f64,
}

/// The pieces of one dough through their stages.
pub(super) struct Passed {
    /// Of its last piece, and the longest of any piece.
    pub spans: Vec<Span>,
    /// The longest that a piece was kept from a place, min.
    pub kept_min: f64,
}

impl Flow {
    pub fn of(line: &Line<'_>, pieces: usize) -> Self {
        let all = line.method.stages.len();
        let place = |stage: usize| line.place(stage).filter(|place| place.holds_pieces());
        let cut_at = (0..all).find(|stage| line.exclusive(*stage) == Some(1));
        let from = cut_at.or_else(|| (0..all).find(|stage| place(*stage).is_some()));
        let from = from.unwrap_or(all);
        let to = line.last_bake().map_or(all, |oven| oven + 1).max(from);
        let mut stays: Vec<Stay> = Vec::new();
        for stage in from + usize::from(cut_at.is_some())..to {
            match stays.last_mut().filter(|stay| stay.place == place(stage)) {
                Some(stay) => stay.stages.end += 1,
                None => stays.push(Stay {
                    stages: stage..stage + 1,
                    place: place(stage),
                    holds: usize::MAX,
                    came: Vec::new(),
                    went: Vec::new(),
                }),
            }
        }
        for at in 0..stays.len() {
            let minutes = |stay: &Stay| -> f64 {
                line.method.stages[stay.stages.clone()].iter().map(|stage| stage.minutes).sum()
            };
            let Some(place) = stays[at].place else { continue };
            // A place that is passed twice is shared by the time spent there.
            let same = stays.iter().filter(|stay| stay.place == Some(place));
            let share = minutes(&stays[at]) / same.map(minutes).sum::<f64>().max(1e-9);
            let there = holds(place, line.wanted.equipment);
            stays[at].holds = ((there * share + 1e-9) as usize).max(1);
        }
        let divides = cut_at.is_some();
        let left = f64::NEG_INFINITY;
        Self { stages: from..to, pieces, divides, stays, passed: 0, left, would_leave: left }
    }

    /// When the next dough may come to the divider.
    pub fn opens(&self) -> f64 {
        if self.divides { self.left } else { f64::NEG_INFINITY }
    }

    /// Takes the pieces of a dough through their stages from a moment on, each begun so much later
    /// or earlier as its stage is moved by. It counts only once it is kept.
    pub fn pass(&mut self, line: &Line<'_>, ready: f64, stop: Standstill, by: &[f64]) -> Passed {
        for stay in &mut self.stays {
            stay.came.truncate(self.passed);
            stay.went.truncate(self.passed);
        }
        let first = self.stages.start;
        let minutes = |stage: usize| line.method.stages[stage].minutes;
        let each = if self.divides { minutes(first) / self.pieces as f64 } else { 0.0 };
        let mut spans = vec![Span { from: ready, to: ready, longest: 0.0 }; self.stages.len()];
        // When a piece comes to each stage, and when it is out of the last.
        let mut comes = vec![ready; self.stages.len() + 1];
        let (mut left, mut kept_min) = (ready, 0.0_f64);
        for _ in 0..self.pieces {
            if self.divides {
                comes[0] = past(left, stop, Some(Place::Divider));
            }
            let mut at = comes[0] + each;
            let mut residual: Option<usize> = None;
            for number in 0..self.stays.len() {
                let stages = self.stays[number].stages.clone();
                for stage in stages.clone() {
                    let before = (stage > first).then(|| comes[stage - first - 1]);
                    let wanted = (at + by[stage]).max(before.unwrap_or(ready));
                    at = wanted;
                    if stage == stages.start {
                        if residual
                            .is_some_and(|last| self.stays[last].place == Some(Place::Proofer))
                        {
                            at = past(at, stop, Some(Place::Proofer));
                        }
                        at = self.stays[number].opens(at, stop);
                        kept_min = kept_min.max(at - wanted);
                        if let Some(last) = residual.replace(number) {
                            self.stays[last].went.push(at);
                        }
                        self.stays[number].came.push(at);
                    }
                    comes[stage - first] = at;
                    at += minutes(stage);
                }
            }
            if let Some(last) = residual {
                self.stays[last].went.push(at);
            }
            comes[self.stages.len()] = at;
            for (span, pair) in spans.iter_mut().zip(comes.windows(2)) {
                let longest = span.longest.max(pair[1] - pair[0]);
                *span = Span { from: pair[0], to: pair[1], longest };
            }
            left = comes[1];
        }
        if self.divides {
            spans[0] = Span { from: ready, to: left, longest: left - ready };
        }
        self.would_leave = left;
        Passed { spans, kept_min }
    }

    /// Lays the pieces passed last for good.
    pub fn keep(&mut self) {
        self.passed += self.pieces;
        self.left = self.would_leave;
    }

    /// When the first piece of the run is out.
    pub fn first_out(&self) -> Option<f64> {
        self.stays.last().and_then(|stay| stay.went.first().copied())
    }

    /// The most pieces that are in a place at once.
    pub fn most_in(&self, place: Place) -> usize {
        let here = || self.stays.iter().filter(move |stay| stay.place == Some(place));
        let sorted = |of: fn(&Stay) -> &Vec<f64>| {
            let mut all: Vec<f64> = here().flat_map(|stay| of(stay).iter().copied()).collect();
            all.sort_by(f64::total_cmp);
            all
        };
        let (came, went) = (sorted(|stay| &stay.came), sorted(|stay| &stay.went));
        let mut gone = 0;
        let inside = came.iter().enumerate().map(|(at, comes)| {
            while went.get(gone).is_some_and(|goes| goes <= comes) {
                gone += 1;
            }
            at + 1 - gone
        });
        inside.max().unwrap_or(0)
    }
}

impl Stay {
    /// When a piece that wants to come can.
    fn opens(&self, at: f64, stop: Standstill) -> f64 {
        let full = self.came.len().checked_sub(self.holds).map(|one| self.went[one]);
        past(full.map_or(at, |room| at.max(room)), stop, self.place)
    }
}
