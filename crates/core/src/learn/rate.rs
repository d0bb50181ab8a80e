/// What a batch's own fit of its rate tells beyond what was believed before it: a fit holds its prior
/// already. `v = 1/(1/sd² − 1/prior_sd²)`, the value `v·(rate/sd² − rate₀/prior_sd²)`, its scatter
/// `√v`; none where `v` is over 1, for then nothing was told.
///
/// ```
/// use ironpeel_core::learn::rate_observation;
/// // A fit that moved half way says more than it shows.
/// let (value, sd) = rate_observation((0.9, 0.15), (1.0, 0.25)).unwrap();
/// assert!(value < 0.9 && sd > 0.15);
/// assert!(rate_observation((1.0, 0.249), (1.0, 0.25)).is_none());
/// ```
pub fn rate_observation(fit: (f64, f64), prior: (f64, f64)) -> Option<(f64, f64)> {
    let ((rate, sd), (rate_before, prior_sd)) = (fit, prior);
    let told = sd.powi(-2) - prior_sd.powi(-2);
    let variance = told.recip();
    let is_told = told > 0.0 && variance <= 1.0;
    let value = variance * (rate * sd.powi(-2) - rate_before * prior_sd.powi(-2));
    is_told.then_some((value, variance.sqrt()))
}
