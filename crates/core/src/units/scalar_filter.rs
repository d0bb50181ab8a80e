use serde::Serialize;

/// A scalar Kalman filter: one number that wanders slowly, told by observations that scatter.
///
/// Between observations the variance grows by `walk²`. An observation farther than
/// `gate·√(variance + sd²)` from the mean is rejected and changes nothing but the time. One that is
/// taken moves the mean by `variance/(variance + sd²)` of its distance (Kalman 1960).
///
/// ```
/// use ironpeel_core::units::{Estimated, ScalarFilter};
/// let filter = ScalarFilter { walk_sd: 0.15, gate_sigma: 3.0 };
/// let mut water = Estimated { mean: 0.0, sd: 1.5 };
/// for (at, value) in [0.8, 1.1, 0.4, 1.2].into_iter().enumerate() {
///     if at > 0 {
///         filter.walk(&mut water);
///     }
///     assert!(filter.learn(&mut water, value, 0.5));
/// }
/// assert!((water.mean - 0.8717).abs() < 5e-5 && (water.sd - 0.2807).abs() < 5e-5);
/// ```
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ScalarFilter {
    pub walk_sd: f64,
    /// 0 takes every observation.
    pub gate_sigma: f64,
}

/// What a number is believed to be, 1 σ.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Estimated {
    pub mean: f64,
    pub sd: f64,
}

impl ScalarFilter {
    /// The time between two observations: less is known after it.
    pub fn walk(&self, believed: &mut Estimated) {
        believed.sd = believed.sd.hypot(self.walk_sd);
    }

    /// After one more observation of scatter `sd`; whether it was taken.
    pub fn learn(&self, believed: &mut Estimated, value: f64, sd: f64) -> bool {
        let variance = believed.sd.powi(2);
        let spread = variance + sd.powi(2);
        let off = value - believed.mean;
        let taken = self.gate_sigma == 0.0 || off.abs() <= self.gate_sigma * spread.sqrt();
        let gain = if taken { variance / spread } else { 0.0 };
        believed.mean += gain * off;
        believed.sd = ((1.0 - gain) * variance).sqrt();
        taken
    }
}
