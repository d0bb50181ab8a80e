use std::collections::{BTreeMap, BTreeSet};

use serde::Serialize;

use super::coefficients as c;
use super::ranking::Weighed;
use super::weigh::Ratios;
use super::{CheckedDiagnosis, Family, knowledge};
use crate::coefficient::Coefficients;

/// How sure the finder is, or why it does not answer.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum DiagnosisAnswer {
    /// Fewer than two readings say anything: no ranking.
    TooLittle,
    /// All that speaks is of one kind: the order, without figures.
    OneFamily,
    /// None of the listed causes fits what was measured.
    NoneFits,
    /// No single cause stands out.
    NoSingle,
    Leading,
    Likely,
    VeryLikely,
}

/// A measurement that would decide, with how it is made.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct WouldDecide {
    pub feature: String,
    /// How much it could move the causes, for its effort.
    pub weight: f64,
    pub how: String,
}

/// What is shown of what would decide.
const SHOWN: usize = 3;
/// Readings it takes for a ranking.
const LEAST_READINGS: usize = 2;

/// What a composite feature is made of, where not of itself.
const COMPOSITES: [(&str, &[&str]); 1] =
    [("ds_trap", &["damaged_starch_pct", "water_over_plan_pts", "water_late_pts"])];

/// The word for what was found; causes come best first.
pub(super) fn answer(
    asked: &CheckedDiagnosis,
    causes: &[Weighed<'_>],
    none: f64,
    coefficients: &Coefficients,
) -> DiagnosisAnswer {
    let of = |coefficient| coefficients.value(coefficient);
    let speaking: BTreeSet<(&str, Family)> = causes
        .iter()
        .flat_map(|cause| &cause.readings)
        .filter(|reading| reading.log_ratio.abs() >= of(&c::SPEAKS))
        .map(|reading| (&*reading.feature, reading.family))
        .collect();
    if speaking.len() < LEAST_READINGS {
        return DiagnosisAnswer::TooLittle;
    }
    let families: BTreeSet<Family> = speaking.iter().map(|(_, family)| *family).collect();
    if families.len() == 1 {
        return DiagnosisAnswer::OneFamily;
    }
    let Some(best) = causes.first().filter(|best| best.probability >= none) else {
        return DiagnosisAnswer::NoneFits;
    };
    let second = causes.get(1).map_or(0.0, |second| second.probability);
    if best.probability < of(&c::LEADING) || best.probability < of(&c::AHEAD) * second {
        return DiagnosisAnswer::NoSingle;
    }
    let asked_for = asked.features.contains_key(&best.of.ask);
    if asked_for && best.probability >= of(&c::VERY_LIKELY) {
        DiagnosisAnswer::VeryLikely
    } else if asked_for && best.probability >= of(&c::LIKELY) {
        DiagnosisAnswer::Likely
    } else {
        DiagnosisAnswer::Leading
    }
}

/// What a missing feature takes to be measured: of a composite, what the figure it lacks takes.
fn effort(feature: &str, asked: &CheckedDiagnosis) -> f64 {
    let own = |key: &str| knowledge().feature(key).map_or(1.0, |feature| feature.effort);
    let made_of = COMPOSITES.iter().find(|(key, _)| *key == feature);
    let lacks = made_of.into_iter().flat_map(|(_, parts)| *parts);
    let lacks = lacks.filter(|part| !asked.features.contains_key(**part));
    lacks.map(|part| own(part)).reduce(f64::max).unwrap_or_else(|| own(feature))
}

/// The three measurements that would decide most; what the leading cause asks for comes first.
///
/// `D = Σ P(1 − P)·|ln a − ln b| / effort`.
pub(super) fn would_decide(
    asked: &CheckedDiagnosis,
    causes: &[Weighed<'_>],
    ranked: bool,
    coefficients: &Coefficients,
) -> Vec<WouldDecide> {
    let mut weights: BTreeMap<&str, f64> = BTreeMap::new();
    for cause in causes {
        let open = cause.probability * (1.0 - cause.probability);
        let missing = |key: &str| !asked.features.contains_key(key);
        let evidence = cause.of.evidence.iter().enumerate();
        for (place, evidence) in evidence.filter(|(_, one)| missing(&one.feature)) {
            let own = asked.learned.of_cause(&cause.of.cause, place);
            let ratios = own.map_or(evidence, |own| &own.evidence);
            let weight = open * Ratios::of(ratios, coefficients).span();
            *weights.entry(&evidence.feature).or_default() +=
                weight / effort(&evidence.feature, asked);
        }
    }
    let ask = causes.first().filter(|_| ranked).map(|best| &*best.of.ask);
    let ask = ask.filter(|ask| !asked.features.contains_key(*ask));
    if let Some(ask) = ask {
        weights.entry(ask).or_default();
    }
    let mut found: Vec<(&str, f64)> = weights.into_iter().collect();
    found.sort_by(|one, other| {
        let first = |key: &str| ask == Some(key);
        first(other.0).cmp(&first(one.0)).then(other.1.total_cmp(&one.1))
    });
    found
        .into_iter()
        .take(SHOWN)
        .map(|(feature, weight)| WouldDecide {
            feature: feature.into(),
            weight,
            how: knowledge().feature(feature).map(|one| one.how.clone()).unwrap_or_default(),
        })
        .collect()
}
