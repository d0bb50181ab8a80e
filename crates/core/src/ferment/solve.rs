use thiserror::Error;

use crate::units::bisect;

/// A rise that no dose of yeast brings about.
#[derive(Debug, Clone, Copy, PartialEq, Error)]
pub enum NotReachable {
    #[error("even {most} % does not bring it there: it would have risen {rise_pct:.0} % by then")]
    TooSlow { most: f64, rise_pct: f64 },
    #[error(
        "even {least} % brings it there too early: it would have risen {rise_pct:.0} % by then"
    )]
    TooFast { least: f64, rise_pct: f64 },
    #[error("the film of this dough gives way at +{limit_pct:.0} %: no yeast raises it further")]
    BeyondFilm { limit_pct: f64 },
}

/// Least and most instant yeast a bakery would dose, % of flour.
const YEAST: (f64, f64) = (0.005, 4.0);

/// Instant yeast, % of flour, that raises a dough so far, `rise` telling how far a dose raises it:
/// more never less.
///
/// ```
/// use ironpeel_core::ferment::{FermentingDough, Kinetics, Phase, ferment, yeast_for};
/// let dough = FermentingDough {
///     yeast_idy_pct: 0.0, sour_pct: 0.0, sour_activity: 1.0, salt_pct: 2.0, sugar_pct: 0.0,
///     hydration_pct: 68.0, damaged_starch_pct: 7.5, falling_number_s: 300.0, start_c: 22.0,
///     mass_kg: 5.0, retention: 0.85, rate: 1.0, lag_h: 0.25, rise_limit_pct: None,
///     kinetics: Kinetics::default(),
/// };
/// let rise = |yeast_idy_pct| {
///     let night = [Phase::rest(9.0, 18.0)];
///     ferment(&FermentingDough { yeast_idy_pct, ..dough }, &night).rise_at(9.0)
/// };
/// let yeast = yeast_for(100.0, rise)?;
/// assert!((rise(yeast) - 100.0).abs() < 0.01);
/// # Ok::<(), ironpeel_core::ferment::NotReachable>(())
/// ```
pub fn yeast_for(rise_pct: f64, rise: impl Fn(f64) -> f64) -> Result<f64, NotReachable> {
    let (low, high) = YEAST;
    let (least, most) = (rise(low), rise(high));
    if least > rise_pct {
        return Err(NotReachable::TooFast { least: low, rise_pct: least });
    }
    if most < rise_pct {
        return Err(NotReachable::TooSlow { most: high, rise_pct: most });
    }
    Ok(bisect(low, high, |yeast| rise(yeast) < rise_pct))
}
