//! What drifts from batch to batch before it is a fault.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};

use super::coefficients::{DRIFT_BATCHES, DRIFT_BEYOND, DRIFT_SHARE};
use super::{Feature, knowledge};
use crate::coefficient::Coefficients;

/// On which side of the usual a figure lies.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum DriftSide {
    Above,
    Below,
}

/// A figure that lies beyond half-way from usual to its threshold again and again.
#[derive(Debug, Clone, PartialEq)]
pub struct FigureDrift {
    /// By its key.
    pub feature: String,
    pub side: DriftSide,
    /// Batches that lie beyond, and those that were looked at.
    pub beyond: u16,
    pub of: u16,
    /// The mean of those that lie beyond.
    pub mean: f64,
    pub usual: f64,
    /// From where on it counts.
    pub from: f64,
}

impl FigureDrift {
    /// Whether a batch's figure counts towards it.
    pub fn holds(&self, value: f64) -> bool {
        match self.side {
            DriftSide::Above => value > self.from,
            DriftSide::Below => value < self.from,
        }
    }
}

/// How many of a product's newest batches on a line are looked at.
pub fn watched(coefficients: &Coefficients) -> u16 {
    coefficients.value(&DRIFT_BATCHES) as u16
}

/// What drifts over batches, newest first, each with its features: a figure beyond
/// `usual + ½·(threshold − usual)` on one side in 6 of the last 8. Furthest first. All house judgement.
///
/// Words and taps, which are one of few, do not drift; nor does what the plan itself sets.
///
/// ```
/// use std::collections::BTreeMap;
/// use ironpeel_core::{coefficient::Coefficients, fault::{DriftSide, drifting}};
/// let batch = |c| BTreeMap::from([("dough_c_d".to_owned(), c)]);
/// let warm: Vec<_> = [1.1, 1.4, 0.2, 1.2, 0.9, 1.3, 1.0, 0.1].map(batch).into();
/// let found = drifting(&warm, &Coefficients::default());
/// assert_eq!((found[0].side, found[0].beyond, found[0].of), (DriftSide::Above, 6, 8));
/// ```
pub fn drifting(
    batches: &[BTreeMap<String, f64>],
    coefficients: &Coefficients,
) -> Vec<FigureDrift> {
    let batches = &batches[..batches.len().min(watched(coefficients).into())];
    let share = coefficients.value(&DRIFT_SHARE);
    let least = coefficients.value(&DRIFT_BEYOND) as usize;
    let mut found: Vec<(f64, FigureDrift)> = Vec::new();
    let drifts = |feature: &&Feature| feature.ramp > 0.0 && !feature.set_by_plan;
    for feature in knowledge().features.iter().filter(drifts) {
        let Feature { key, usual: Some(usual), .. } = feature else { continue };
        for side in [DriftSide::Above, DriftSide::Below] {
            let limit = feature.limit(side, coefficients).filter(|limit| limit != usual);
            let Some(limit) = limit else { continue };
            let from = usual + share * (limit - usual);
            let (feature, of) = (key.clone(), batches.len() as u16);
            let drift =
                FigureDrift { feature, side, beyond: 0, of, mean: 0.0, usual: *usual, from };
            let measured = batches.iter().filter_map(|batch| batch.get(key).copied());
            let beyond: Vec<f64> = measured.filter(|value| drift.holds(*value)).collect();
            if beyond.len() >= least {
                let mean = beyond.iter().sum::<f64>() / beyond.len() as f64;
                let far = (mean - usual) / (limit - usual);
                found.push((far, FigureDrift { beyond: beyond.len() as u16, mean, ..drift }));
            }
        }
    }
    found.sort_by(|one, other| other.0.total_cmp(&one.0));
    found.into_iter().map(|(_, drift)| drift).collect()
}
