//! Ratios of evidence as this plant's own batches have them.

use std::collections::BTreeMap;

use super::coefficients::{ORDINARY_COUNT, RATIO_CASES, RATIO_COUNTS};
use super::weigh::holds;
use super::{Evidence, Fault, knowledge};
use crate::coefficient::Coefficients;

/// A batch's figures as evidence, by the feature's key.
type Features = BTreeMap<String, f64>;

/// A ratio learned of a piece of evidence.
#[derive(Debug, Clone, PartialEq)]
pub struct LearnedRatio {
    /// The evidence, with its ratios as they were learned.
    pub evidence: Evidence,
    /// Confirmed cases in which it was measured.
    pub cases: usize,
}

/// What batches say of the evidence of a fault's causes, beside the house's judgement.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct LearnedRatios(BTreeMap<String, Vec<Option<LearnedRatio>>>);

impl LearnedRatios {
    /// Counts in how many confirmed cases of a cause, and in how many ordinary batches, each reading is
    /// true.
    ///
    /// `q = (1 − b)/(a − b)`, `p = a·q`; from k of n cases and k₀ of n₀ ordinary batches
    /// `p' = (10p + k)/(10 + n)`, `q' = (10q + k₀m)/(10 + n₀m)` with `m = min(1, 50/n₀)`; then
    /// `a' = p'/q'`, `b' = (1 − p')/(1 − q')`. Used from five cases on.
    ///
    /// ```
    /// use std::collections::BTreeMap;
    /// use ironpeel_core::{coefficient::Coefficients, fault::{LearnedRatios, knowledge}};
    /// let fault = knowledge().fault("smearing").unwrap();
    /// let late = BTreeMap::from([("arrival_d_pts".to_owned(), 9.0)]);
    /// let cases = vec![("bake_short", &late); 5];
    /// let found = LearnedRatios::of(fault, &cases, &[], &Coefficients::default());
    /// assert_eq!(found.of_cause("bake_short", 0).map(|one| one.cases), Some(5));
    /// assert!(found.of_cause("slice_warm", 0).is_none());
    /// ```
    pub fn of(
        fault: &Fault,
        cases: &[(&str, &Features)],
        ordinary: &[&Features],
        coefficients: &Coefficients,
    ) -> Self {
        let learned = |cause: &str, evidence: &Evidence| {
            let own = cases.iter().filter(|(of, _)| *of == cause).map(|(_, features)| *features);
            let (of_cases, cases) = counted(own, evidence)?;
            if (cases as f64) < coefficients.value(&RATIO_CASES) {
                return None;
            }
            let usually = evidence.ordinary_share()?;
            let counts = coefficients.value(&RATIO_COUNTS);
            let (of_ordinary, all) = counted(ordinary.iter().copied(), evidence)?;
            let most = coefficients.value(&ORDINARY_COUNT);
            let part = if all == 0 { 1.0 } else { (most / all as f64).min(1.0) };
            let with = (counts * usually * evidence.ratio_true + of_cases as f64)
                / (counts + cases as f64);
            let without =
                (counts * usually + of_ordinary as f64 * part) / (counts + all as f64 * part);
            let (ratio_true, ratio_false) = (with / without, (1.0 - with) / (1.0 - without));
            let holds = ratio_true.is_finite() && ratio_false.is_finite();
            let evidence = Evidence { ratio_true, ratio_false, ..evidence.clone() };
            holds.then_some(LearnedRatio { evidence, cases })
        };
        let fault = fault.held(coefficients);
        let all = fault.causes.iter().map(|cause| {
            let own = cause.evidence.iter().map(|evidence| learned(&cause.cause, evidence));
            (cause.cause.clone(), own.collect())
        });
        Self(all.collect())
    }

    /// What was learned of a cause's evidence, by its place among it.
    pub fn of_cause(&self, cause: &str, place: usize) -> Option<&LearnedRatio> {
        self.0.get(cause)?.get(place)?.as_ref()
    }
}

/// In how many batches a reading is true, and in how many it was measured.
fn counted<'a>(
    batches: impl Iterator<Item = &'a Features>,
    evidence: &Evidence,
) -> Option<(usize, usize)> {
    let feature = knowledge().feature(&evidence.feature)?;
    let measured = batches.filter_map(|batch| batch.get(&evidence.feature).copied());
    Some(measured.fold((0, 0), |(so, all), value| {
        (so + usize::from(holds(value, evidence, feature) >= MORE_TRUE), all + 1)
    }))
}

/// A reading on its ramp is true from here on.
const MORE_TRUE: f64 = 1.0 / 2.0;
