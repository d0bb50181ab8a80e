use thiserror::Error;

use super::{FermentingDough, Phase, ferment};

/// A rise that cannot be had at the hour wanted.
#[derive(Debug, Clone, Copy, PartialEq, Error)]
pub enum NotReachable {
    #[error("even {most} does not bring it there: it would have risen {rise_pct:.0} % by then")]
    TooSlow { most: f64, rise_pct: f64 },
    #[error("even {least} brings it there too early: it would have risen {rise_pct:.0} % by then")]
    TooFast { least: f64, rise_pct: f64 },
}

/// Halvings of the range.
const HALVINGS: usize = 48;
/// Least and most instant yeast a bakery would dose, % of flour.
const YEAST: (f64, f64) = (0.005, 4.0);
/// Coldest and warmest a dough is set, °C.
const START_C: (f64, f64) = (4.0, 32.0);

/// Instant yeast that brings a dough to a rise at the end of its phases.
///
/// ```
/// use ironpeel_core::ferment::{FermentingDough, Phase, ferment, yeast_for};
/// let dough = FermentingDough {
///     yeast_idy_pct: 0.0, sour_pct: 0.0, sour_activity: 1.0, salt_pct: 2.0, sugar_pct: 0.0,
///     hydration_pct: 68.0, damaged_starch_pct: 7.5, falling_number_s: 300.0, start_c: 22.0,
///     mass_kg: 5.0, retention: 0.85, rate: 1.0,
/// };
/// let night = [Phase::rest(9.0, 18.0)];
/// let yeast_idy_pct = yeast_for(&dough, &night, 100.0)?;
/// let risen = ferment(&FermentingDough { yeast_idy_pct, ..dough }, &night).rise_at(9.0);
/// assert!((risen - 100.0).abs() < 0.01);
/// # Ok::<(), ironpeel_core::ferment::NotReachable>(())
/// ```
pub fn yeast_for(
    dough: &FermentingDough,
    phases: &[Phase],
    rise_pct: f64,
) -> Result<f64, NotReachable> {
    solve_yeast(rise_pct, |yeast_idy_pct| {
        end_rise(&FermentingDough { yeast_idy_pct, ..*dough }, phases)
    })
}

/// Instant yeast at which what it raises is so much.
pub(crate) fn solve_yeast(rise_pct: f64, rise: impl Fn(f64) -> f64) -> Result<f64, NotReachable> {
    bisect(YEAST, rise_pct, rise)
}

/// Dough temperature that brings a dough to a rise at the end of its phases.
pub fn start_temperature_for(
    dough: &FermentingDough,
    phases: &[Phase],
    rise_pct: f64,
) -> Result<f64, NotReachable> {
    bisect(START_C, rise_pct, |start_c| end_rise(&FermentingDough { start_c, ..*dough }, phases))
}

fn end_rise(dough: &FermentingDough, phases: &[Phase]) -> f64 {
    ferment(dough, phases).points.last().map_or(0.0, |point| point.rise_pct)
}

/// More of it raises more, within these bounds.
fn bisect(
    (mut low, mut high): (f64, f64),
    wanted: f64,
    rise: impl Fn(f64) -> f64,
) -> Result<f64, NotReachable> {
    let (least, most) = (rise(low), rise(high));
    if least > wanted {
        return Err(NotReachable::TooFast { least: low, rise_pct: least });
    }
    if most < wanted {
        return Err(NotReachable::TooSlow { most: high, rise_pct: most });
    }
    for _ in 0..HALVINGS {
        let middle = f64::midpoint(low, high);
        if rise(middle) < wanted { low = middle } else { high = middle }
    }
    Ok(f64::midpoint(low, high))
}
