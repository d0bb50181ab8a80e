use serde::Serialize;

use super::weigh::{Ratios, holds};
use super::{Evidence, Family, Feature, LearnedRatio};
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
    /// Where the shares are the plant's own: what the house takes them for.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub house: Option<HouseShares>,
}

/// The house's shares beside a plant's own, %.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct HouseShares {
    pub true_pct: f64,
    pub ordinary_pct: f64,
    /// Confirmed cases that the plant's own rest on.
    pub cases: usize,
}

impl CauseReading {
    pub(super) fn of(
        value: f64,
        (house, own): (&Evidence, Option<&LearnedRatio>),
        feature: &Feature,
        coefficients: &Coefficients,
    ) -> Self {
        let evidence = own.map_or(house, |own| &own.evidence);
        let Ratios { ln_true, ln_false } = Ratios::of(evidence, coefficients);
        let holds = holds(value, evidence, feature);
        let ordinary = evidence.ordinary_share();
        Self {
            feature: feature.key.clone(),
            family: feature.family,
            value,
            threshold: evidence.threshold,
            holds,
            log_ratio: holds * ln_true + (1.0 - holds) * ln_false,
            true_pct: ordinary.map(|share| 100.0 * share * evidence.ratio_true),
            ordinary_pct: ordinary.map(|share| 100.0 * share),
            house: own.zip(house.ordinary_share()).map(|(own, share)| HouseShares {
                true_pct: 100.0 * share * house.ratio_true,
                ordinary_pct: 100.0 * share,
                cases: own.cases,
            }),
        }
    }
}

impl Evidence {
    /// Share of ordinary batches in which it is true: `q = (1 − b)/(a − b)`.
    pub(super) fn ordinary_share(&self) -> Option<f64> {
        let Self { ratio_true, ratio_false, .. } = self;
        let share = (1.0 - ratio_false) / (ratio_true - ratio_false);
        (share > 0.0 && share * ratio_true <= 1.0).then_some(share)
    }
}
