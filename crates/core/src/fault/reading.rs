use serde::Serialize;

use super::weigh::{Ratios, holds};
use super::{Evidence, Family, Feature};
use crate::coefficient::Coefficients;

/// What one reading of a batch says of one cause.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CauseReading {
    pub feature: String,
    pub family: Family,
    pub value: f64,
    pub threshold: f64,
    /// How far what is asked holds, 0 to 1.
    pub holds: f64,
    /// Natural logarithm of how often it is so with this cause over how often it is ordinarily;
    /// negative where it speaks against it.
    pub log_ratio: f64,
    /// Share of the batches with this cause in which it is true, and of ordinary ones, %; none where
    /// the ratios do not say.
    pub true_pct: Option<f64>,
    pub ordinary_pct: Option<f64>,
}

impl CauseReading {
    pub(super) fn of(
        value: f64,
        evidence: &Evidence,
        feature: &Feature,
        coefficients: &Coefficients,
    ) -> Self {
        let Ratios { ln_true, ln_false } = Ratios::of(evidence, coefficients);
        let holds = holds(value, evidence, feature);
        let ordinary = ordinary_share(evidence);
        Self {
            feature: feature.key.clone(),
            family: feature.family,
            value,
            threshold: evidence.threshold,
            holds,
            log_ratio: holds * ln_true + (1.0 - holds) * ln_false,
            true_pct: ordinary.map(|share| 100.0 * share * evidence.ratio_true),
            ordinary_pct: ordinary.map(|share| 100.0 * share),
        }
    }
}

/// Share of ordinary batches in which it is true: `q = (1 − b)/(a − b)`.
fn ordinary_share(evidence: &Evidence) -> Option<f64> {
    let Evidence { ratio_true, ratio_false, .. } = evidence;
    let share = (1.0 - ratio_false) / (ratio_true - ratio_false);
    (share > 0.0 && share * ratio_true <= 1.0).then_some(share)
}
