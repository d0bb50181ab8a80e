use super::coefficients::BAKE_MASS_POWER;
use crate::coefficient::Coefficients;

/// Minutes a piece of another mass bakes, its shape and the oven the same (H):
/// `t₂ = t₁·(m₂/m₁)^(2/3)`.
///
/// ```
/// use ironpeel_core::{coefficient::Coefficients, oven::scaled_bake_min};
/// let minutes = scaled_bake_min(20.0, 0.46, 0.92, &Coefficients::default());
/// assert!((minutes - 31.7).abs() < 0.05);
/// ```
pub fn scaled_bake_min(minutes: f64, from_kg: f64, to_kg: f64, coefficients: &Coefficients) -> f64 {
    minutes * (to_kg / from_kg).powf(coefficients.value(&BAKE_MASS_POWER))
}
