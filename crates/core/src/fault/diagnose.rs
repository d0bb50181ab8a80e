use std::collections::BTreeMap;

use serde::Serialize;

use super::answer::{answer, would_decide};
use super::coefficients::IN_A_CHAIN;
use super::ranking::{Weighed, priors};
use super::{
    Cause, CauseOfFault, CauseReading, CheckedDiagnosis, DiagnosisAnswer, Family, WouldDecide,
    knowledge,
};
use crate::coefficient::Coefficients;

/// The causes of a fault in order, with what speaks for and against each. All house judgement.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Diagnosis {
    /// By probability; in the order of the catalogue where too little is known.
    pub causes: Vec<CauseFound>,
    pub none_probability: f64,
    pub answer: DiagnosisAnswer,
    pub would_decide: Vec<WouldDecide>,
}

/// A cause with what it rests on.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CauseFound {
    pub cause: String,
    pub name: String,
    /// Before any evidence, with what was confirmed, and its scatter.
    pub prior: f64,
    pub prior_sd: f64,
    /// Natural logarithm of what each kind of evidence says.
    pub families: BTreeMap<Family, f64>,
    /// All of them together, after the cuts.
    pub evidence: f64,
    pub probability: f64,
    /// The cause it leads to or comes from, where both are one road.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub chain: Option<String>,
    /// The fault that this cause is itself.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub opens: Option<String>,
    pub action: String,
    pub cost: String,
    /// Whether the action is a change of the plan that can be opened as a what-if.
    pub in_figures: bool,
    /// The lasting cure, where it is another.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub then: Option<String>,
    pub why: String,
    /// The feature that decides when it is missing.
    pub ask: String,
    pub readings: Vec<CauseReading>,
}

/// Causes that are one road: the head is cured, the tail's action contains it.
const CHAINS: [[&str; 2]; 3] =
    [["ds_trap_water", "bake_short"], ["dough_warm", "dough_old"], ["flour_weak", "proof_long"]];
/// Causes that are faults themselves.
const OPENS: [[&str; 2]; 3] =
    [["dough_warm", "dough_hot"], ["proof_short", "slow_proof"], ["proof_dry", "skin"]];

/// Weighs the causes of a fault against one another and against none of them.
///
/// A reading: `λ = u·ln a + (1 − u)·ln b`. Of one family, largest first:
/// `Λ = clip(Σ λ·2^−(i−1), ± ln 12)`; a cause: `E = clip(Σ Λ, ± ln 50)`. Priors by weight, with what
/// was confirmed: `π' = (12π + n)/(12 + N)`. `P = e^(ln(π/π₀) + E)/(1 + Σ …)`.
///
/// ```
/// use ironpeel_core::{coefficient::Coefficients, fault::{DiagnoseInput, DiagnosisAnswer, diagnose}};
/// let asked: DiagnoseInput = serde_json::from_str(r#"{"fault": "smearing",
///     "gates": ["sponge", "ferment", "tin", "wheat"],
///     "features": {"core_slice_c": 37.6, "blade_h": 22}}"#)?;
/// let found = diagnose(&asked.check()?, &Coefficients::default());
/// assert_eq!(found.answer, DiagnosisAnswer::OneFamily);
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
pub fn diagnose(asked: &CheckedDiagnosis, coefficients: &Coefficients) -> Diagnosis {
    let fault = asked.fault.held(coefficients);
    let (mut causes, none_prior, counted) = priors(asked, &fault, coefficients);
    for cause in &mut causes {
        cause.weigh(asked, coefficients);
    }
    let odds: Vec<f64> =
        causes.iter().map(|one| one.prior / none_prior * one.evidence.exp()).collect();
    let all = 1.0 + odds.iter().sum::<f64>();
    for (cause, odds) in causes.iter_mut().zip(odds) {
        cause.probability = odds / all;
    }
    let catalogue: Vec<&str> = causes.iter().map(|one| &*one.of.cause).collect();
    causes.sort_by(|one, other| other.probability.total_cmp(&one.probability));
    let none_probability = 1.0 / all;
    let said = answer(asked, &causes, none_probability, coefficients);
    let ranked = said != DiagnosisAnswer::TooLittle;
    let would_decide = would_decide(asked, &causes, ranked, coefficients);
    let mut ordered: Vec<CauseFound> =
        causes.iter().map(|one| found(one, &causes, counted, coefficients)).collect();
    if !ranked {
        ordered.sort_by_key(|one| catalogue.iter().position(|key| *key == one.cause));
    }
    Diagnosis { causes: ordered, none_probability, answer: said, would_decide }
}

/// A cause with what it rests on, beside all others.
fn found(
    cause: &Weighed<'_>,
    all: &[Weighed<'_>],
    counted: f64,
    coefficients: &Coefficients,
) -> CauseFound {
    let CauseOfFault { cause: key, ask, why, .. } = cause.of;
    let known = knowledge().cause(key);
    let word = |of: fn(&Cause) -> &String| known.map(of).cloned().unwrap_or_default();
    let least = coefficients.value(&IN_A_CHAIN);
    let chain = CHAINS.iter().find(|chain| chain.contains(&&**key)).and_then(|chain| {
        let holds =
            |end: &&str| all.iter().any(|one| one.of.cause == **end && one.probability >= least);
        let other = chain.iter().find(|end| **end != key.as_str())?;
        chain.iter().all(holds).then(|| (*other).to_owned())
    });
    let opens = OPENS.iter().find(|[cause, _]| cause == key);
    CauseFound {
        cause: key.clone(),
        name: word(|cause| &cause.name),
        prior: cause.prior,
        prior_sd: (cause.prior * (1.0 - cause.prior) / (counted + 1.0)).sqrt(),
        families: cause.families.clone(),
        evidence: cause.evidence,
        probability: cause.probability,
        chain,
        opens: opens.map(|[_, fault]| (*fault).to_owned()),
        action: word(|cause| &cause.action),
        cost: word(|cause| &cause.cost),
        in_figures: known.is_some_and(|cause| !cause.change.is_empty()),
        then: known.and_then(|cause| cause.lasting.clone()),
        why: why.clone(),
        ask: ask.clone(),
        readings: cause.readings.clone(),
    }
}
