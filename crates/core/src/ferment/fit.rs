use serde::Serialize;

use super::{FermentationCurve, FermentingDough, Phase, ferment};

/// How well a rise is read from a jar or a tub, points of rise (H).
const READ_SD_PCT: f64 = 6.0;
/// How far doughs of one formula differ in speed before anything is read (H).
const PRIOR_SD: f64 = 0.25;
/// Slowest and quickest a dough is believed to be beside the model.
const RATES: (f64, f64) = (0.2, 4.0);
const SECTIONS: usize = 48;

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
/// use ironpeel_core::ferment::{FermentingDough, Phase, JarReading, ferment, fit_rate};
/// let dough = FermentingDough {
///     yeast_idy_pct: 0.8, sour_pct: 0.0, sour_activity: 1.0, salt_pct: 2.0, sugar_pct: 0.0,
///     hydration_pct: 62.0, damaged_starch_pct: 7.5, falling_number_s: 300.0, start_c: 26.0,
///     mass_kg: 0.1, retention: 0.85, rate: 1.0, lag_h: 0.25, rise_limit_pct: None,
/// };
/// let phases = [Phase::rest(4.0, 24.0)];
/// let slow = ferment(&FermentingDough { rate: 0.8, ..dough }, &phases);
/// let read = [0.5, 1.0, 1.5].map(|t_h| JarReading { t_h, rise_pct: slow.rise_at(t_h) });
/// let found = fit_rate(&dough, &phases, &read);
/// assert!((found.rate - 0.8).abs() < 0.03 && found.sd < 0.1);
/// ```
pub fn fit_rate(dough: &FermentingDough, phases: &[Phase], readings: &[JarReading]) -> FittedRate {
    let at =
        |rate: f64| -> FermentationCurve { ferment(&FermentingDough { rate, ..*dough }, phases) };
    let misses = |rate: f64| -> f64 {
        let curve = at(rate);
        let read = readings
            .iter()
            .map(|reading| ((curve.rise_at(reading.t_h) - reading.rise_pct) / READ_SD_PCT).powi(2));
        read.sum::<f64>() + ((rate - dough.rate) / PRIOR_SD).powi(2)
    };
    // Rises grow with the rate, so the sum has one valley: golden sections close in on it.
    let golden = (5.0_f64.sqrt() - 1.0) / 2.0;
    let (mut low, mut high) = RATES;
    for _ in 0..SECTIONS {
        let (one, other) = (high - golden * (high - low), low + golden * (high - low));
        if misses(one) < misses(other) { high = other } else { low = one }
    }
    let rate = f64::midpoint(low, high);
    let step = rate * 0.01;
    let (faster, slower) = (at(rate + step), at(rate - step));
    let told: f64 = readings
        .iter()
        .map(|reading| {
            let slope = (faster.rise_at(reading.t_h) - slower.rise_at(reading.t_h)) / (2.0 * step);
            (slope / READ_SD_PCT).powi(2)
        })
        .sum();
    FittedRate { rate, sd: (told + PRIOR_SD.powi(-2)).sqrt().recip() }
}
