use serde::Serialize;

use super::dough::{Constants, State};
use super::{FermentingDough, Kinetics, Phase, ResidualSubstrate, Within};
use crate::units::bisect;

/// A dough at one moment.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FermentationPoint {
    pub t_h: f64,
    /// Over the volume it had, %.
    pub rise_pct: f64,
    pub dough_c: f64,
    /// Left, in percent of the flour.
    pub sugar_pct: f64,
}

/// A dough from its beginning to its end, a point at least every five minutes.
#[derive(Debug, Clone, PartialEq)]
pub struct FermentationCurve {
    pub points: Vec<FermentationPoint>,
    /// How fast it rises at each point, % per hour.
    slopes: Vec<f64>,
    /// What it has given by each point, held or let go, ml per g of flour.
    gas_ml: Vec<f64>,
    /// None where nothing in it sours.
    ph: Vec<Option<f64>>,
    end: State,
    /// When the film first gives way, h; none where it holds.
    pub drop_h: Option<f64>,
}

/// Nearer than this is the same moment, h.
const MOMENT_H: f64 = 1e-9;
/// Between two points, at most.
const EVERY_H: f64 = 1.0 / 12.0;
/// Of the fastest change, in one step of the integration.
const STEP: f64 = 0.5;

/// Follows a dough through its phases by the classical Runge-Kutta method with fixed steps, small
/// enough for the fastest change; its error against steps a tenth as long is tested.
///
/// ```
/// use ironpeel_core::ferment::{FermentingDough, Kinetics, Phase, ferment};
/// let dough = FermentingDough {
///     yeast_idy_pct: 0.8, sour_pct: 0.0, sour_activity: 1.0, salt_pct: 2.0, sugar_pct: 0.0,
///     hydration_pct: 62.0, damaged_starch_pct: 7.5, falling_number_s: 300.0, start_c: 26.0,
///     mass_kg: 20.0, retention: 0.85, rate: 1.0, lag_h: 0.25, rise_limit_pct: None,
///     kinetics: Kinetics::default(),
/// };
/// let curve = ferment(&dough, &[Phase::rest(6.0, 24.0)]);
/// assert!((curve.reaches(50.0).unwrap() - 0.927).abs() < 0.009);
/// ```
pub fn ferment(dough: &FermentingDough, phases: &[Phase]) -> FermentationCurve {
    follow(dough, None, phases, STEP)
}

/// Follows a dough that has a sponge in it: some of its sugar is gone.
pub fn ferment_on(
    dough: &FermentingDough,
    begun: ResidualSubstrate,
    phases: &[Phase],
) -> FermentationCurve {
    follow(dough, Some(begun), phases, STEP)
}

fn follow(
    dough: &FermentingDough,
    begun: Option<ResidualSubstrate>,
    phases: &[Phase],
    step: f64,
) -> FermentationCurve {
    let first = phases.first().copied();
    let mut walk = Walk::begin(dough, begun, first);
    for phase in phases {
        walk.enter(phase);
        let pieces = (phase.hours / EVERY_H).ceil().max(1.0);
        let piece_h = phase.hours / pieces;
        for piece in 0..pieces as usize {
            let piece = piece as f64;
            let steps = (piece_h * walk.constants.stiffness(walk.state.culture) / step).ceil();
            let steps = steps.max(1.0);
            for step in 0..steps as usize {
                // As it is in the middle of the step.
                let middle = f64::midpoint(step as f64, step as f64 + 1.0);
                let share = (piece + middle / steps) / pieces;
                walk.step(piece_h / steps, phase.ambient_at(share));
            }
            walk.note(phase.ambient_at((piece + 1.0) / pieces));
        }
    }
    walk.curve.end = walk.state;
    walk.curve
}

/// A dough on its way through its phases.
struct Walk<'a> {
    dough: &'a FermentingDough,
    mass_kg: f64,
    constants: Constants,
    state: State,
    at_h: f64,
    /// When the yeast was wetted; none before it is in.
    yeast_h: Option<f64>,
    sour_in: f64,
    let_go_ml: f64,
    /// When the film gave way; none while it holds.
    dropped_h: Option<f64>,
    curve: FermentationCurve,
}

impl<'a> Walk<'a> {
    fn begin(
        dough: &'a FermentingDough,
        begun: Option<ResidualSubstrate>,
        first: Option<Phase>,
    ) -> Self {
        let mut state = dough.start();
        if let Some(ResidualSubstrate { sugar_g, damaged_g }) = begun {
            state = State { sugar_g, damaged_g, ..state };
        }
        let within = first.map_or(Within::ALL, |phase| phase.within);
        state.culture *= within.sour;
        let curve = FermentationCurve {
            points: Vec::new(),
            slopes: Vec::new(),
            gas_ml: Vec::new(),
            ph: Vec::new(),
            end: state,
            drop_h: None,
        };
        let mut walk = Self {
            dough,
            mass_kg: dough.mass_kg,
            constants: with(dough, within, dough.mass_kg),
            state,
            at_h: 0.0,
            yeast_h: (within.yeast > 0.0).then_some(0.0),
            sour_in: within.sour,
            let_go_ml: 0.0,
            dropped_h: None,
            curve,
        };
        walk.note(first.map_or(dough.start_c, |phase| phase.ambient_c));
        walk
    }

    fn enter(&mut self, phase: &Phase) {
        self.mass_kg = phase.mass_kg.unwrap_or(self.mass_kg);
        self.constants = with(self.dough, phase.within, self.mass_kg);
        if phase.within.yeast > 0.0 {
            self.yeast_h = self.yeast_h.or(Some(self.at_h));
        }
        if phase.within.sour > self.sour_in {
            let more = self.dough.culture() * (phase.within.sour - self.sour_in);
            self.state.culture = (self.state.culture + more).min(1.0);
            self.sour_in = phase.within.sour;
        }
        if phase.let_go_pct > 0.0 {
            self.let_go_ml += (self.state.gas_ml - self.let_go_ml) * phase.let_go_pct / 100.0;
            // What is let go is worked into a film that holds again.
            self.dropped_h = None;
            self.note(phase.ambient_c);
        }
    }

    fn slope(&self, at_h: f64, state: &State, ambient_c: f64) -> State {
        self.constants.slope(self.yeast_h.map_or(0.0, |wet| at_h - wet), state, ambient_c)
    }

    fn moved(&self, hours: f64, ambient_c: f64) -> State {
        let slope = |at_h: f64, state: &State| self.slope(at_h, state, ambient_c);
        runge_kutta(slope, self.at_h, self.state, hours)
    }

    fn risen(&self, state: &State) -> f64 {
        self.constants.rise * (state.gas_ml - self.let_go_ml)
    }

    fn step(&mut self, hours: f64, ambient_c: f64) {
        let next = self.moved(hours, ambient_c);
        let limit = self.dough.rise_limit_pct.filter(|_| self.dropped_h.is_none());
        if limit.is_some_and(|limit| self.risen(&next) >= limit) {
            let limit = limit.unwrap_or_default();
            let to = bisect(0.0, hours, |some| self.risen(&self.moved(some, ambient_c)) < limit);
            let from = (self.state, self.at_h);
            (self.state, self.at_h) = (self.moved(to, ambient_c), self.at_h + to);
            // Twice: as it rose there, and as it falls from there.
            self.note(ambient_c);
            self.dropped_h = Some(self.at_h);
            self.curve.drop_h = self.curve.drop_h.or(self.dropped_h);
            self.note(ambient_c);
            (self.state, self.at_h) = from;
        }
        self.state = next;
        self.at_h += hours;
    }

    /// A point where it is now.
    fn note(&mut self, ambient_c: f64) {
        let (rise_pct, slope) =
            if let (Some(dropped), Some(limit)) = (self.dropped_h, self.dough.rise_limit_pct) {
                let Kinetics { film_keeps, film_falls_h, .. } = self.dough.kinetics;
                let fallen = (-(self.at_h - dropped) / film_falls_h).exp() * (1.0 - film_keeps);
                (limit * (film_keeps + fallen), -limit * fallen / film_falls_h)
            } else {
                let slope = self.slope(self.at_h, &self.state, ambient_c);
                (self.risen(&self.state), self.constants.rise * slope.gas_ml)
            };
        let point = FermentationPoint {
            t_h: self.at_h,
            rise_pct,
            dough_c: self.state.dough_c,
            sugar_pct: 100.0 * self.state.sugar_g.max(0.0),
        };
        self.curve.points.push(point);
        self.curve.slopes.push(slope);
        self.curve.gas_ml.push(self.state.gas_ml);
        self.curve.ph.push(self.dough.kinetics.ph(self.state.culture));
    }
}

/// What stays the same while so much of the dough's yeast and salt is in it.
fn with(dough: &FermentingDough, within: Within, mass_kg: f64) -> Constants {
    let yeast_idy_pct = dough.yeast_idy_pct * within.yeast;
    let salt_pct = dough.salt_pct * within.salt;
    FermentingDough { yeast_idy_pct, salt_pct, mass_kg, ..*dough }.constants()
}

fn runge_kutta(slope: impl Fn(f64, &State) -> State, at_h: f64, now: State, h: f64) -> State {
    let first = slope(at_h, &now);
    let second = slope(at_h + h / 2.0, &now.plus(first, h / 2.0));
    let third = slope(at_h + h / 2.0, &now.plus(second, h / 2.0));
    let fourth = slope(at_h + h, &now.plus(third, h));
    now.plus(first, h / 6.0).plus(second, h / 3.0).plus(third, h / 3.0).plus(fourth, h / 6.0)
}

impl FermentationCurve {
    /// What it leaves to a dough of which it is so much of the flour, beside that dough's own.
    pub fn residual(&self) -> ResidualSubstrate {
        ResidualSubstrate { sugar_g: self.end.sugar_g.max(0.0), damaged_g: self.end.damaged_g }
    }

    /// The gas given by a moment, held or let go, ml per g of flour.
    pub fn gas_at(&self, t_h: f64) -> f64 {
        self.at(t_h, |place| self.gas_ml[place])
    }

    /// The temperature over the time up to a moment, h·°C.
    pub fn warmth_until(&self, t_h: f64) -> f64 {
        let upto = self.points.partition_point(|point| point.t_h <= t_h);
        let known = &self.points[..upto];
        let span = |one: f64, other: f64, hours: f64| hours * f64::midpoint(one, other);
        let whole: f64 = known
            .windows(2)
            .map(|two| span(two[0].dough_c, two[1].dough_c, two[1].t_h - two[0].t_h))
            .sum();
        let rest = known.last().map_or(0.0, |last| {
            span(last.dough_c, self.at(t_h, |place| self.points[place].dough_c), t_h - last.t_h)
        });
        whole + rest
    }

    /// What is known at each point, at a moment between them; before the first and after the last as
    /// it is there.
    fn at(&self, t_h: f64, of: impl Fn(usize) -> f64) -> f64 {
        let after = self.points.partition_point(|point| point.t_h < t_h);
        let Some(end) = self.points.get(after) else {
            return self.points.len().checked_sub(1).map_or(0.0, of);
        };
        let Some(before) = after.checked_sub(1) else { return of(after) };
        let start = self.points[before].t_h;
        let share = (t_h - start) / (end.t_h - start);
        of(before) + share * (of(after) - of(before))
    }

    /// The last moment.
    pub fn last(&self) -> Option<&FermentationPoint> {
        self.points.last()
    }

    /// When it has risen so far, in hours; none if it never does.
    pub fn reaches(&self, rise_pct: f64) -> Option<f64> {
        self.reaches_from(0.0, rise_pct)
    }

    /// When it has risen so far at a moment or after it.
    pub fn reaches_from(&self, from_h: f64, rise_pct: f64) -> Option<f64> {
        let start = self.place_at(from_h);
        let later =
            self.points.get(start..)?.iter().position(|point| point.rise_pct >= rise_pct)?;
        if later == 0 {
            return Some(self.points[start].t_h);
        }
        let (before, after) = (start + later - 1, start + later);
        let share = bisect(0.0, 1.0, |share| self.between(before, share) < rise_pct);
        let (start, end) = (self.points[before].t_h, self.points[after].t_h);
        Some(start + share * (end - start))
    }

    /// When it is so warm at a moment or after it, having been warmer or colder; none if it never is.
    pub fn is_at(&self, from_h: f64, dough_c: f64) -> Option<f64> {
        let off = |place: usize| self.points[place].dough_c - dough_c;
        let side = off(self.place_at(from_h)).signum();
        self.falls_away(from_h, |place| Some(side * off(place)))
    }

    /// Whether something in it sours, so that its pH is known.
    pub fn sours(&self) -> bool {
        self.ph.iter().any(Option::is_some)
    }

    /// When it is as sour as this pH at a moment or after it; none if it never is.
    pub fn sours_to(&self, from_h: f64, ph: f64) -> Option<f64> {
        self.falls_away(from_h, |place| self.ph[place].map(|now| now - ph))
    }

    /// When what is so far off at each point, where that is known, is no more, at a moment or after it.
    fn falls_away(&self, from_h: f64, off: impl Fn(usize) -> Option<f64>) -> Option<f64> {
        let mut before: Option<(f64, f64)> = None;
        for (place, point) in self.points.iter().enumerate().skip(self.place_at(from_h)) {
            let Some(now) = off(place) else { continue };
            if now <= 0.0 {
                return Some(
                    before.map_or(point.t_h, |(t_h, was)| {
                        t_h + was / (was - now) * (point.t_h - t_h)
                    }),
                );
            }
            before = Some((point.t_h, now));
        }
        None
    }

    /// The last point at a moment, which must be that of a point.
    fn place_at(&self, t_h: f64) -> usize {
        self.points.partition_point(|point| point.t_h <= t_h + MOMENT_H).saturating_sub(1)
    }

    /// The rise at a moment, %; before the beginning nothing, after the end what it was then.
    pub fn rise_at(&self, t_h: f64) -> f64 {
        let after = self.points.partition_point(|point| point.t_h < t_h);
        if after == 0 {
            return 0.0;
        }
        let Some(point) = self.points.get(after) else {
            return self.points.last().map_or(0.0, |point| point.rise_pct);
        };
        let start = self.points[after - 1].t_h;
        self.between(after - 1, (t_h - start) / (point.t_h - start))
    }

    /// The rise a share of the way from a point to the next: the cubic through both with their
    /// slopes.
    fn between(&self, before: usize, share: f64) -> f64 {
        let (one, other) = (self.points[before], self.points[before + 1]);
        let hours = other.t_h - one.t_h;
        let (square, cube) = (share * share, share * share * share);
        (2.0 * cube - 3.0 * square + 1.0) * one.rise_pct
            + (cube - 2.0 * square + share) * hours * self.slopes[before]
            + (3.0 * square - 2.0 * cube) * other.rise_pct
            + (cube - square) * hours * self.slopes[before + 1]
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    fn any_dough() -> impl Strategy<Value = FermentingDough> {
        (
            (0.0..5.0, 0.0..40.0, 0.0..4.0, 0.0..20.0, 45.0..110.0),
            (0.0..15.0, 70.0..500.0, 0.0..40.0, 0.05..500.0),
        )
            .prop_map(
                |((yeast, sour, salt, sugar, hydration), (ds, fn_s, start, mass))| {
                    FermentingDough {
                        yeast_idy_pct: yeast,
                        sour_pct: sour,
                        sour_activity: 1.0,
                        salt_pct: salt,
                        sugar_pct: sugar,
                        hydration_pct: hydration,
                        damaged_starch_pct: ds,
                        falling_number_s: fn_s,
                        start_c: start,
                        mass_kg: mass,
                        retention: 0.85,
                        rate: 1.0,
                        lag_h: 0.25,
                        rise_limit_pct: None,
                        kinetics: Kinetics::default(),
                    }
                },
            )
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(64))]

        #[test]
        fn steps_a_tenth_as_long_change_nothing_that_matters(
            dough in any_dough(), warm in 0.0..40.0, cold in -5.0..15.0,
        ) {
            let phases = [
                Phase::rest(3.0, warm),
                Phase { let_go_pct: 60.0, mass_kg: Some(0.4), ..Phase::rest(14.0, cold) },
                Phase::rest(2.5, warm),
            ];
            let (coarse, fine) = (follow(&dough, None, &phases, STEP), follow(&dough, None, &phases, STEP / 10.0));
            for (one, other) in coarse.points.iter().zip(&fine.points) {
                prop_assert!((one.rise_pct - other.rise_pct).abs() < 0.05 + other.rise_pct * 1e-3);
                prop_assert!((one.dough_c - other.dough_c).abs() < 0.02);
            }
        }
    }
}
