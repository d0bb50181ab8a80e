use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};

use super::{Characteristic, ScoreMark, measured_mark};
use crate::coefficient::Coefficients;
use crate::units::{NumberRange, RawNumber, ValidationErrors};

/// What a product is held to when it is judged: its weights, its targets, and what its best is.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(default)]
pub struct ProductStandard {
    /// All twelve, together 100; the house's where none is stated.
    pub weights: BTreeMap<Characteristic, f64>,
    pub targets: BTreeMap<Characteristic, MeasuredTarget>,
    /// What a 5 is, in the product's own words.
    pub anchors: BTreeMap<Characteristic, String>,
}

/// A figure a loaf is to have, and how far off is the worst mark.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct MeasuredTarget {
    pub target: f64,
    pub range: f64,
}

/// A product's standard as it is sent.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct StandardInput {
    /// 0 to 100 each; all twelve together 100, or none.
    #[serde(default)]
    #[cfg_attr(feature = "openapi", schema(value_type = BTreeMap<Characteristic, f64>))]
    pub weights: BTreeMap<Characteristic, RawNumber>,
    #[serde(default)]
    pub targets: BTreeMap<Characteristic, TargetInput>,
    /// Up to 200 letters each.
    #[serde(default)]
    pub anchors: BTreeMap<Characteristic, String>,
}

/// A target as it is sent.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TargetInput {
    /// In the measure's unit, 0 to 10 000.
    #[serde(default)]
    pub target: RawNumber,
    /// Above 0; the house's if left out.
    #[serde(default)]
    pub range: RawNumber,
}

const WEIGHT: NumberRange = NumberRange::new("", "a weight", "of 100", 0.0, 100.0);
const TARGET: NumberRange = NumberRange::new("target", "the target", "", 0.0, 10_000.0);
const RANGE: NumberRange = NumberRange::new("range", "the range", "", 0.001, 100_000.0);
/// Weights add up to 100 within so much.
const SUM: f64 = 0.1;
const MOST_ANCHOR: usize = 200;

impl StandardInput {
    /// Checks every field.
    pub fn check(&self, coefficients: &Coefficients) -> Result<ProductStandard, ValidationErrors> {
        let mut faults = ValidationErrors::default();
        let mut standard = ProductStandard::default();
        for (of, weight) in &self.weights {
            let at = format!("weights.{}", of.key());
            standard.weights.insert(*of, WEIGHT.check(weight, &at, &mut faults));
        }
        let sum: f64 = standard.weights.values().sum();
        let all = standard.weights.len() == Characteristic::ALL.len();
        if !standard.weights.is_empty() && (!all || (sum - 100.0).abs() > SUM) {
            let message = format!("all twelve weights add up to 100; these come to {sum:.1}");
            faults.push("weights", message);
        }
        for (of, TargetInput { target, range }) in &self.targets {
            let at = format!("targets.{}.", of.key());
            let Some(measure) = of.measure(coefficients) else {
                faults.push(format!("{at}target"), "nothing is measured of it; it is marked");
                continue;
            };
            let target = TARGET.check(target, &at, &mut faults);
            let range = RANGE.check_opt(range, &at, &mut faults);
            let range = range.unwrap_or_else(|| measure.range(target));
            if range <= 0.0 {
                faults.push(format!("{at}range"), "a target of nothing needs a range of its own");
            }
            standard.targets.insert(*of, MeasuredTarget { target, range });
        }
        for (of, anchor) in &self.anchors {
            if anchor.chars().count() > MOST_ANCHOR {
                let message = format!("up to {MOST_ANCHOR} letters");
                faults.push(format!("anchors.{}", of.key()), message);
            }
            if !anchor.trim().is_empty() {
                standard.anchors.insert(*of, anchor.trim().into());
            }
        }
        faults.or(standard)
    }
}

impl ProductStandard {
    /// What a characteristic weighs.
    pub fn weight(&self, of: Characteristic, coefficients: &Coefficients) -> f64 {
        self.weights.get(&of).copied().unwrap_or_else(|| of.weight(coefficients))
    }

    /// What a characteristic is to measure; none where that is the product's own and it states none.
    pub fn target(
        &self,
        of: Characteristic,
        coefficients: &Coefficients,
    ) -> Option<MeasuredTarget> {
        if let Some(own) = self.targets.get(&of) {
            return Some(*own);
        }
        let measure = of.measure(coefficients)?;
        let target = measure.target?;
        Some(MeasuredTarget { target, range: measure.range(target) })
    }

    /// The mark a measurement stands for; a side that the figure cannot say is as it was seen.
    pub fn mark(
        &self,
        of: Characteristic,
        measured: f64,
        seen: Option<super::Sign>,
        coefficients: &Coefficients,
    ) -> Option<ScoreMark> {
        let MeasuredTarget { target, range } = self.target(of, coefficients)?;
        let measure = of.measure(coefficients)?;
        let mut mark = measured_mark(of, measured, target, range);
        if !measure.says_side {
            mark.sign = mark.sign.and(seen);
        } else if measure.is_inverse {
            mark.sign = mark.sign.map(super::Sign::other);
        }
        Some(mark)
    }
}
