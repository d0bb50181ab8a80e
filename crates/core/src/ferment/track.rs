use serde::Serialize;

use super::FermentingDough;
use super::dough::State;
use crate::units::halved;

/// A stretch of time somewhere.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Phase {
    pub hours: f64,
    pub ambient_c: f64,
    /// The mass that keeps its heat together from here on; the dough's where nothing is said.
    pub mass_kg: Option<f64>,
    /// Of the gas held, so much is let go as it begins, %: a fold, a divider.
    pub let_go_pct: f64,
}

impl Phase {
    /// The dough left alone somewhere.
    pub const fn rest(hours: f64, ambient_c: f64) -> Self {
        Self { hours, ambient_c, mass_kg: None, let_go_pct: 0.0 }
    }
}

/// What a dough brings along from a part that fermented before it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Begun {
    /// Sugar and damaged starch, g per g of all flour.
    pub sugar_g: f64,
    pub damaged_g: f64,
}

/// A dough at one moment.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema), schema(as = FermentationPoint))]
pub struct Point {
    pub t_h: f64,
    /// Over the volume it had, %.
    pub rise_pct: f64,
    pub dough_c: f64,
    /// Left, in percent of the flour.
    pub sugar_pct: f64,
}

/// A dough from its beginning to its end, a point at least every five minutes.
#[derive(Debug, Clone, PartialEq)]
pub struct Track {
    pub points: Vec<Point>,
    /// How fast it rises at each point, % per hour.
    slopes: Vec<f64>,
    end: State,
}

/// Between two points, at most.
const EVERY_H: f64 = 1.0 / 12.0;
/// Of the fastest change, in one step of the integration.
const STEP: f64 = 0.5;
/// After so long in water no yeast is asleep any more.
const AWAKE_H: f64 = 10.0;

/// Follows a dough through its phases by the classical Runge-Kutta method with fixed steps, small
/// enough for the fastest change; its error against steps a tenth as long is tested.
///
/// ```
/// use ironpeel_core::ferment::{FermentingDough, Phase, ferment};
/// let dough = FermentingDough {
///     yeast_idy_pct: 0.8, sour_pct: 0.0, sour_activity: 1.0, salt_pct: 2.0, sugar_pct: 0.0,
///     hydration_pct: 62.0, damaged_starch_pct: 7.5, falling_number_s: 300.0, start_c: 26.0,
///     mass_kg: 20.0, retention: 0.85, rate: 1.0,
/// };
/// let track = ferment(&dough, &[Phase::rest(6.0, 24.0)]);
/// assert!((track.reaches(50.0).unwrap() - 0.927).abs() < 0.009);
/// ```
pub fn ferment(dough: &FermentingDough, phases: &[Phase]) -> Track {
    follow(dough, None, phases, STEP)
}

/// Follows a dough that has a sponge in it: its yeast is awake, and some of its sugar is gone.
pub fn ferment_on(dough: &FermentingDough, begun: Begun, phases: &[Phase]) -> Track {
    follow(dough, Some(begun), phases, STEP)
}

fn follow(dough: &FermentingDough, begun: Option<Begun>, phases: &[Phase], step: f64) -> Track {
    let mut constants = dough.constants();
    let mut state = dough.start();
    let mut at_h = 0.0;
    // An awake yeast is one that has been in water for long.
    let awake_h = begun.map_or(0.0, |_| AWAKE_H);
    if let Some(Begun { sugar_g, damaged_g }) = begun {
        state = State { sugar_g, damaged_g, ..state };
    }
    let mut let_go_ml = 0.0;
    let ambient = phases.first().map_or(dough.start_c, |phase| phase.ambient_c);
    let mut track = Track { points: Vec::new(), slopes: Vec::new(), end: state };
    track.push(constants.rise, at_h, 0.0, &state, constants.slope(awake_h, &state, ambient));
    for phase in phases {
        if let Some(mass_kg) = phase.mass_kg {
            constants = FermentingDough { mass_kg, ..*dough }.constants();
        }
        let slope =
            |at_h: f64, state: &State| constants.slope(awake_h + at_h, state, phase.ambient_c);
        if phase.let_go_pct > 0.0 {
            let_go_ml += (state.gas_ml - let_go_ml) * phase.let_go_pct / 100.0;
            track.push(constants.rise, at_h, let_go_ml, &state, slope(at_h, &state));
        }
        let pieces = (phase.hours / EVERY_H).ceil().max(1.0);
        let piece_h = phase.hours / pieces;
        for _ in 0..pieces as usize {
            let steps = (piece_h * constants.stiffness(state.culture) / step).ceil().max(1.0);
            let step_h = piece_h / steps;
            for _ in 0..steps as usize {
                state = runge_kutta(slope, at_h, state, step_h);
                at_h += step_h;
            }
            track.push(constants.rise, at_h, let_go_ml, &state, slope(at_h, &state));
        }
    }
    track.end = state;
    track
}

fn runge_kutta(slope: impl Fn(f64, &State) -> State, at_h: f64, now: State, h: f64) -> State {
    let first = slope(at_h, &now);
    let second = slope(at_h + h / 2.0, &now.plus(first, h / 2.0));
    let third = slope(at_h + h / 2.0, &now.plus(second, h / 2.0));
    let fourth = slope(at_h + h, &now.plus(third, h));
    now.plus(first, h / 6.0).plus(second, h / 3.0).plus(third, h / 3.0).plus(fourth, h / 6.0)
}

impl Track {
    fn push(&mut self, rise: f64, t_h: f64, let_go_ml: f64, state: &State, slope: State) {
        self.points.push(Point {
            t_h,
            rise_pct: rise * (state.gas_ml - let_go_ml),
            dough_c: state.dough_c,
            sugar_pct: 100.0 * state.sugar_g.max(0.0),
        });
        self.slopes.push(rise * slope.gas_ml);
    }

    /// What it leaves to a dough of which it is so much of the flour, beside that dough's own.
    pub fn leaves(&self) -> Begun {
        Begun { sugar_g: self.end.sugar_g.max(0.0), damaged_g: self.end.damaged_g }
    }

    /// The last moment.
    pub fn last(&self) -> Option<&Point> {
        self.points.last()
    }

    /// When it has risen so far, in hours; none if it never does.
    pub fn reaches(&self, rise_pct: f64) -> Option<f64> {
        let after = self.points.iter().position(|point| point.rise_pct >= rise_pct)?;
        let Some(before) = after.checked_sub(1) else { return Some(0.0) };
        let share = halved(0.0, 1.0, |share| self.between(before, share) < rise_pct);
        let (start, end) = (self.points[before].t_h, self.points[after].t_h);
        Some(start + share * (end - start))
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
