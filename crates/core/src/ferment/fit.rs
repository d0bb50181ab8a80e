use serde::Serialize;

use super::coefficients::{RATE_SD, RISE_READ_SD};
use super::{FermentationCurve, FermentingDough, Phase, ferment};
use crate::coefficient::Coefficients;

/// Slowest and quickest a dough is believed to be beside the model.
const RATES: (f64, f64) = (0.2, 4.0);
const SECTIONS: usize = 48;
/// The golden section.
const GOLDEN: f64 = 0.618_033_988_749_894_8;
/// Rates at which a stray reading is looked for.
const LOOKS: u16 = 120;
/// With fewer readings than this none is a stray.
const LEAST_READ: usize = 3;
/// Share of the rate over which the slope is taken.
const STEP: f64 = 0.01;

/// A rise as it was read.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct JarReading {
    /// From the first mixing.
    pub t_h: f64,
    pub rise_pct: f64,
}

/// How fast a dough goes beside what the model expects, from readings.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FittedRate {
    pub rate: f64,
    pub sd: f64,
}

/// The rate that least squares prefers, readings believed to 6 points of rise and the rate to a
/// quarter before any (H).
///
/// ```
/// use ironpeel_core::coefficient::Coefficients;
/// use ironpeel_core::ferment::{FermentingDough, JarReading, Kinetics, Phase, ferment, fit_rate};
/// let dough = FermentingDough {
///     yeast_idy_pct: 0.8, sour_pct: 0.0, sour_activity: 1.0, salt_pct: 2.0, sugar_pct: 0.0,
///     hydration_pct: 62.0, damaged_starch_pct: 7.5, falling_number_s: 300.0, start_c: 26.0,
///     mass_kg: 0.1, retention: 0.85, rate: 1.0, lag_h: 0.25, rise_limit_pct: None,
///     kinetics: Kinetics::default(),
/// };
/// let phases = [Phase::rest(4.0, 24.0)];
/// let slow = ferment(&FermentingDough { rate: 0.8, ..dough }, &phases);
/// let read = [0.5, 1.0, 1.5].map(|t_h| JarReading { t_h, rise_pct: slow.rise_at(t_h) });
/// let found = fit_rate(&dough, &phases, &read, &Coefficients::default());
/// assert!((found.rate - 0.8).abs() < 0.03 && found.sd < 0.1);
/// ```
pub fn fit_rate(
    dough: &FermentingDough,
    phases: &[Phase],
    readings: &[JarReading],
    coefficients: &Coefficients,
) -> FittedRate {
    let (sd_pct, prior_sd) = (coefficients.value(&RISE_READ_SD), coefficients.value(&RATE_SD));
    let believed = |JarReading { t_h, rise_pct }: &JarReading| BelievedReading {
        t_h: *t_h,
        rise_pct: *rise_pct,
        sd_pct,
    };
    let readings: Vec<BelievedReading> = readings.iter().map(believed).collect();
    fit(dough, phases, &readings, prior_sd)
}

/// A rise as it was read, and how far that is believed, 1 σ.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct BelievedReading {
    pub t_h: f64,
    pub rise_pct: f64,
    pub sd_pct: f64,
}

impl BelievedReading {
    /// How many of its own σ it is off a rise.
    fn off(&self, rise_pct: f64) -> f64 {
        (rise_pct - self.rise_pct) / self.sd_pct
    }
}

/// The rate that least squares prefers, the dough's own believed to `prior_sd`.
pub(super) fn fit(
    dough: &FermentingDough,
    phases: &[Phase],
    readings: &[BelievedReading],
    prior_sd: f64,
) -> FittedRate {
    let at =
        |rate: f64| -> FermentationCurve { ferment(&FermentingDough { rate, ..*dough }, phases) };
    let misses = |rate: f64| -> f64 {
        let curve = at(rate);
        let read = readings.iter().map(|one| one.off(curve.rise_at(one.t_h)).powi(2));
        read.sum::<f64>() + ((rate - dough.rate) / prior_sd).powi(2)
    };
    // Rises grow with the rate, so the sum has one valley: golden sections close in on it.
    let (mut low, mut high) = RATES;
    for _ in 0..SECTIONS {
        let (one, other) = (high - GOLDEN * (high - low), low + GOLDEN * (high - low));
        if misses(one) < misses(other) { high = other } else { low = one }
    }
    let rate = f64::midpoint(low, high);
    let step = rate * STEP;
    let (faster, slower) = (at(rate + step), at(rate - step));
    let told: f64 = readings
        .iter()
        .map(|one| {
            let slope = (faster.rise_at(one.t_h) - slower.rise_at(one.t_h)) / (2.0 * step);
            (slope / one.sd_pct).powi(2)
        })
        .sum();
    FittedRate { rate, sd: (told + prior_sd.powi(-2)).sqrt().recip() }
}

/// The readings that are more than `limit` of their σ off the fit of the others, the farthest first
/// and each judged without those before it; never so that fewer than three would be judged by.
pub(super) fn strays(
    dough: &FermentingDough,
    phases: &[Phase],
    readings: &[BelievedReading],
    prior_sd: f64,
    limit: f64,
) -> Vec<usize> {
    let rates: Vec<f64> = (0..=LOOKS)
        .map(|at| RATES.0 * (RATES.1 / RATES.0).powf(f64::from(at) / f64::from(LOOKS)))
        .collect();
    // Off by so many σ, for each rate that is looked at.
    let off: Vec<Vec<f64>> = rates
        .iter()
        .map(|rate| {
            let curve = ferment(&FermentingDough { rate: *rate, ..*dough }, phases);
            readings.iter().map(|one| one.off(curve.rise_at(one.t_h))).collect()
        })
        .collect();
    let prior = |rate: f64| ((rate - dough.rate) / prior_sd).powi(2);
    let mut kept: Vec<usize> = (0..readings.len()).collect();
    let mut strays = Vec::new();
    while kept.len() >= LEAST_READ {
        let whole: Vec<f64> = rates
            .iter()
            .zip(&off)
            .map(|(rate, off)| kept.iter().map(|at| off[*at].powi(2)).sum::<f64>() + prior(*rate))
            .collect();
        let farthest = kept.iter().map(|one| {
            let without = (0..rates.len()).min_by(|a, b| {
                let misses = |at: usize| whole[at] - off[at][*one].powi(2);
                misses(*a).total_cmp(&misses(*b))
            });
            (*one, without.map_or(0.0, |at| off[at][*one].abs()))
        });
        match farthest.max_by(|a, b| a.1.total_cmp(&b.1)) {
            Some((one, by)) if by > limit => {
                kept.retain(|at| *at != one);
                strays.push(one);
            }
            _ => break,
        }
    }
    strays.sort_unstable();
    strays
}
