//! Doughs of a run laid one after another: whole as far as the divider, then piece by piece.

use std::ops::Range;

use super::cadence::{Cadence, Lying, Place, lying};
use super::flow::Flow;
use super::line::{Line, RunRequest, Shift, Span, Standstill, interrupted, past};
use crate::units::{H_PER_DAY, MIN_PER_H};

/// Every dough's stages, and the pieces of them all.
pub(super) struct Laid {
    pub doughs: Vec<Vec<Span>>,
    /// When each has its turn.
    pub turns: Vec<f64>,
    pub flow: Flow,
}

/// Doughs in the troughs of one stay at most, and when each left them.
struct Troughs {
    lying: Lying,
    at_once: usize,
    left: Vec<f64>,
}

/// What the doughs laid so far leave free.
struct Laying<'a> {
    line: &'a Line<'a>,
    stop: Standstill,
    flow: Flow,
    /// When doughs laid so far have the mixer, each time with the turn after it.
    mixing: Vec<Range<f64>>,
    troughs: Vec<Troughs>,
    /// There are too few troughs for one dough to be set while another lies.
    one_by_one: bool,
}

/// A dough that is begun after a stop is begun so late that it waits nowhere: sought in so many
/// steps, to so many minutes.
const TRIES: usize = 60;
const CLOSE_MIN: f64 = 0.01;
/// What rounding may tear apart.
const SLACK: f64 = 1e-6;

impl Line<'_> {
    /// Every dough's stages, each begun so that it waits nowhere.
    pub fn lay(&self, cadence: &Cadence, shifts: &[Shift]) -> Laid {
        let turns: Vec<f64> =
            (0..self.wanted.doughs).map(|dough| dough as f64 * cadence.minutes).collect();
        self.layout_from(cadence, &turns, None, shifts)
    }

    /// Every dough's stages. A dough whose turn comes before the line stops is begun when it comes;
    /// one whose turn comes later is begun so that it waits nowhere.
    pub fn layout_from(
        &self,
        cadence: &Cadence,
        turns: &[f64],
        stop: Standstill,
        shifts: &[Shift],
    ) -> Laid {
        let stops = stop.map_or(f64::NEG_INFINITY, |(from, ..)| from);
        let (troughs, one_by_one) = self.troughs_at_once(cadence);
        let mut laying = Laying {
            line: self,
            stop,
            flow: Flow::of(self, self.wanted.each.whole_pieces() as usize),
            mixing: Vec::new(),
            troughs,
            one_by_one,
        };
        let mut doughs = Vec::with_capacity(turns.len());
        let mut had = Vec::with_capacity(turns.len());
        for (dough, turn) in turns.iter().copied().enumerate() {
            if self.wanted.dropped.contains(&dough) {
                doughs.push(Vec::new());
                had.push(turn);
                continue;
            }
            let mut by = vec![0.0; self.method.stages.len()];
            for shift in shifts.iter().filter(|shift| shift.dough == dough) {
                if let Some(by) = by.get_mut(shift.stage) {
                    *by += shift.by_min;
                }
            }
            let (turn, spans) = laying.dough(turn, &by, turn >= stops);
            had.push(turn);
            doughs.push(spans);
        }
        Laid { doughs, turns: had, flow: laying.flow }
    }

    /// How many doughs may lie in the troughs of each stay at once: as many as a steady run has
    /// there, the last stay all the troughs that are left.
    fn troughs_at_once(&self, cadence: &Cadence) -> (Vec<Troughs>, bool) {
        let RunRequest { each, equipment, .. } = *self.wanted;
        let all = lying(self.method, each, equipment);
        let one_by_one = all.iter().map(|one| one.troughs).sum::<u32>() > equipment.troughs;
        let mut troughs: Vec<Troughs> = all
            .into_iter()
            .map(|lying| {
                let at_once = lying.doughs_at(cadence.minutes).max(1) as usize;
                Troughs { lying, at_once, left: Vec::new() }
            })
            .collect();
        let used = |one: &Troughs| one.at_once * one.lying.troughs as usize;
        let spare = (equipment.troughs as usize).saturating_sub(troughs.iter().map(used).sum());
        if let Some(last) = troughs.last_mut() {
            last.at_once += spare / last.lying.troughs as usize;
        }
        if one_by_one {
            for one in &mut troughs {
                one.at_once = 1;
            }
        }
        (troughs, one_by_one)
    }
}

impl Laying<'_> {
    /// When a dough is begun, and its stages.
    fn dough(&mut self, mut turn: f64, by: &[f64], may_wait_to_begin: bool) -> (f64, Vec<Span>) {
        let (mut spans, mut kept_min) = self.tried(turn, by);
        for _ in 0..TRIES {
            if !may_wait_to_begin || kept_min < CLOSE_MIN {
                break;
            }
            let was = kept_min;
            turn += was;
            (spans, kept_min) = self.tried(turn, by);
            // What stands in its own way does so whenever it is begun.
            if (kept_min - was).abs() < CLOSE_MIN {
                turn -= was;
                (spans, _) = self.tried(turn, by);
                break;
            }
        }
        // Doughs are begun in turn, and none is moved by a day: what ended then is in nobody's way.
        self.mixing.retain(|taken| taken.end > turn - H_PER_DAY * MIN_PER_H);
        let mixed = self.mixed(&spans).into_iter().map(|(_, mixed)| mixed);
        self.mixing.extend(mixed);
        for one in &mut self.troughs {
            one.left.push(spans[one.lying.stages.end - 1].to);
        }
        self.flow.keep();
        (turn, spans)
    }

    /// A dough's stages if it is begun at a moment, and the longest it is kept from any of them. One
    /// that would be kept in the mixer until another's turn is mixed after that one.
    fn tried(&mut self, turn: f64, by: &[f64]) -> (Vec<Span>, f64) {
        let mut not_before = vec![f64::NEG_INFINITY; by.len()];
        loop {
            let (spans, kept_min) = self.passed(turn, by, &not_before);
            let in_the_way = self.mixed(&spans).into_iter().find_map(|(number, mixed)| {
                let taken = self.mixing.iter().filter(|taken| meet(&mixed, taken));
                Some((number, taken.map(|taken| taken.end).reduce(f64::max)?))
            });
            let Some((number, free)) = in_the_way else { break (spans, kept_min) };
            not_before[number] = free;
        }
    }

    /// The same, with no stage begun before a moment of its own.
    fn passed(&mut self, turn: f64, by: &[f64], not_before: &[f64]) -> (Vec<Span>, f64) {
        let stages = &self.line.method.stages;
        let pieces = self.flow.stages.clone();
        let mut spans: Vec<Span> = Vec::with_capacity(stages.len());
        let (mut at, mut kept_min) = (turn, 0.0_f64);
        while let Some(stage) = stages.get(spans.len()) {
            let number = spans.len();
            let moved = at + by[number];
            let wanted = spans.last().map_or(moved, |last| moved.max(last.from));
            let opens = self.opens(number, wanted.max(not_before[number]));
            at = past(opens, self.stop, self.line.driven_at(number));
            kept_min = kept_min.max(at - wanted);
            if let Some(last) = spans.last_mut() {
                *last = Span { to: at, longest: last.longest.max(at - last.from), ..*last };
            }
            if pieces.start == number && !pieces.is_empty() {
                let passed = self.flow.pass(self.line, at, self.stop, by);
                kept_min = kept_min.max(passed.kept_min);
                spans.extend(passed.spans);
                at = spans.last().map_or(at, |last| last.to);
            } else {
                let to = interrupted(at, at + stage.minutes, self.stop, self.line.place(number));
                spans.push(Span { from: at, to, longest: to - at });
                at = to;
            }
        }
        (spans, kept_min)
    }

    /// When a dough has the mixer, each time from which stage on and with the turn after it.
    fn mixed(&self, spans: &[Span]) -> Vec<(usize, Range<f64>)> {
        let turn_min = self.line.wanted.equipment.turn_min;
        let mut found: Vec<(usize, Range<f64>)> = Vec::new();
        for (number, span) in spans.iter().enumerate() {
            if self.line.exclusive(number) != Some(0) {
                continue;
            }
            match found.last_mut().filter(|_| !self.begins_mixing(number)) {
                Some((_, one)) => one.end = span.to + turn_min,
                None => found.push((number, span.from..span.to + turn_min)),
            }
        }
        found
    }

    fn begins_mixing(&self, number: usize) -> bool {
        let is_mixed = |number| self.line.exclusive(number) == Some(0);
        is_mixed(number) && (number == 0 || !is_mixed(number - 1))
    }

    /// When the mixer is free from a moment on for all the mixing that begins with a stage.
    fn mixer_opens(&self, number: usize, wanted: f64) -> f64 {
        let stages = &self.line.method.stages;
        let stay = (number..stages.len()).take_while(|one| self.line.exclusive(*one) == Some(0));
        let minutes: f64 = stay.map(|one| stages[one].minutes).sum();
        let turn_min = self.line.wanted.equipment.turn_min;
        let mut at = wanted;
        let in_the_way = |at: f64| {
            let to = interrupted(at, at + minutes, self.stop, Some(Place::Mixer)) + turn_min;
            let taken = self.mixing.iter().filter(|taken| meet(&(at..to), taken));
            taken.map(|taken| taken.end).reduce(f64::max)
        };
        loop {
            at = past(at, self.stop, Some(Place::Mixer));
            let Some(free) = in_the_way(at) else { break at };
            at = free;
        }
    }

    /// When the next dough may begin a stage it would begin at a moment.
    fn opens(&self, number: usize, wanted: f64) -> f64 {
        let mut opens = wanted;
        if self.begins_mixing(number) {
            opens = self.mixer_opens(number, wanted);
        }
        if number == self.flow.stages.start {
            opens = opens.max(self.flow.opens());
        }
        for (at, one) in self.troughs.iter().enumerate() {
            if one.lying.stages.start == number {
                let full = one.left.len().checked_sub(one.at_once);
                opens = full.map_or(opens, |dough| opens.max(one.left[dough]));
                let last = self.troughs.last().and_then(|last| last.left.last());
                if let Some(left) = last.filter(|_| self.one_by_one && at == 0) {
                    opens = opens.max(*left);
                }
            }
        }
        opens
    }
}

/// Whether two have the mixer at once.
fn meet(one: &Range<f64>, other: &Range<f64>) -> bool {
    one.start + SLACK < other.end && other.start + SLACK < one.end
}
