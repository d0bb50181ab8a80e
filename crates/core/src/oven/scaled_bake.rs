use super::coefficients::BAKE_MASS_POWER;
use crate::coefficient::Coefficients;
use crate::units::Estimate;

/// Minutes a piece of another mass bakes, its shape and the oven the same (H):
/// `t₂ = t₁·(m₂/m₁)^(2/3)`, its band that of the power.
///
/// ```
/// use ironpeel_core::{coefficient::Coefficients, oven::scaled_bake_min};
/// let minutes = scaled_bake_min(20.0, 0.46, 0.92, &Coefficients::default());
/// assert!((minutes.typical - 31.7).abs() < 0.05);
/// assert!(minutes.low < minutes.typical && minutes.typical < minutes.high);
/// ```
pub fn scaled_bake_min(
    minutes: f64,
    from_kg: f64,
    to_kg: f64,
    coefficients: &Coefficients,
) -> Estimate {
    let power = coefficients.band(&BAKE_MASS_POWER);
    let by = |power| minutes * (to_kg / from_kg).powf(power);
    let (one, other) = (by(power.low), by(power.high));
    Estimate { typical: by(power.typical), low: one.min(other), high: one.max(other) }
}
