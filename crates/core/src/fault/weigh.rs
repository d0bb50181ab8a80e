//! What one reading says of one cause.

use super::coefficients::RATIO_CUT;
use super::{Comparison, Evidence, Feature};
use crate::coefficient::Coefficients;

/// The logarithms of the ratios of one piece of evidence, after the cut.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Ratios {
    pub ln_true: f64,
    pub ln_false: f64,
}

impl Ratios {
    pub(super) fn of(evidence: &Evidence, coefficients: &Coefficients) -> Self {
        let most = coefficients.value(&RATIO_CUT).ln();
        let cut = |ratio: f64| ratio.ln().clamp(-most, most);
        Self { ln_true: cut(evidence.ratio_true), ln_false: cut(evidence.ratio_false) }
    }

    /// How much the reading could move it.
    pub(super) fn span(self) -> f64 {
        (self.ln_true - self.ln_false).abs()
    }
}

/// How far what is asked holds, 0 to 1: a ramp about the threshold, or a step.
///
/// `u = clip(½ + (x − θ)/(2s), 0, 1)` upwards, `(θ − x)` downwards.
pub(super) fn holds(value: f64, evidence: &Evidence, feature: &Feature) -> f64 {
    let (threshold, ramp) = (evidence.threshold, feature.ramp);
    let above = match evidence.comparison {
        Comparison::Eq => return f64::from(u8::from(value == threshold)),
        Comparison::Gt | Comparison::Ge => value - threshold,
        Comparison::Lt | Comparison::Le => threshold - value,
    };
    if ramp > 0.0 {
        return (1.0 / 2.0 + above / (2.0 * ramp)).clamp(0.0, 1.0);
    }
    let reached = matches!(evidence.comparison, Comparison::Ge | Comparison::Le) && above == 0.0;
    f64::from(u8::from(above > 0.0 || reached))
}
