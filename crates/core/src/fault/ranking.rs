//! Causes that compete, each with its prior and what its evidence comes to.

use std::collections::BTreeMap;

use super::coefficients as c;
use super::{CauseOfFault, CauseReading, CheckedDiagnosis, Family, Fault, knowledge};
use crate::coefficient::Coefficients;

/// A cause as it was weighed.
pub(super) struct Weighed<'a> {
    pub of: &'a CauseOfFault,
    pub prior: f64,
    pub families: BTreeMap<Family, f64>,
    pub evidence: f64,
    pub probability: f64,
    pub readings: Vec<CauseReading>,
}

/// The causes that can be, each with its prior; that of none of them, and all cases counted.
pub(super) fn priors<'a>(
    asked: &CheckedDiagnosis,
    fault: &'a Fault,
    coefficients: &Coefficients,
) -> (Vec<Weighed<'a>>, f64, f64) {
    let can_be = |cause: &&CauseOfFault| {
        let gate = knowledge().cause(&cause.cause).and_then(|cause| cause.gate);
        gate.is_none_or(|gate| asked.gates.contains(&gate))
    };
    let causes: Vec<&CauseOfFault> = fault.causes.iter().filter(can_be).collect();
    let confirmed =
        |cause: &CauseOfFault| asked.confirmed.get(&cause.cause).copied().unwrap_or(0.0);
    let none = coefficients.value(&c::NONE_OF_THESE);
    let weights: f64 = causes.iter().map(|cause| cause.weight).sum();
    let counts = coefficients.value(&c::PRIOR_COUNTS);
    let counted: f64 =
        counts + asked.confirmed_none + causes.iter().map(|cause| confirmed(cause)).sum::<f64>();
    let weighed = causes.into_iter().map(|of| {
        let house = (1.0 - none) * of.weight / weights;
        Weighed {
            of,
            prior: (counts * house + confirmed(of)) / counted,
            families: BTreeMap::new(),
            evidence: 0.0,
            probability: 0.0,
            readings: Vec::new(),
        }
    });
    (weighed.collect(), (counts * none + asked.confirmed_none) / counted, counted)
}

impl Weighed<'_> {
    pub(super) fn weigh(&mut self, asked: &CheckedDiagnosis, coefficients: &Coefficients) {
        let measured = self.of.evidence.iter().enumerate().filter_map(|(place, evidence)| {
            let value = asked.features.get(&evidence.feature)?;
            let feature = knowledge().feature(&evidence.feature)?;
            let own = asked.learned.of_cause(&self.of.cause, place);
            Some(CauseReading::of(*value, (evidence, own), feature, coefficients))
        });
        self.readings = measured.collect();
        self.readings.sort_by(|one, other| other.log_ratio.abs().total_cmp(&one.log_ratio.abs()));
        let mut damped: BTreeMap<Family, (f64, f64)> = BTreeMap::new();
        for reading in &self.readings {
            let (sum, share) = damped.entry(reading.family).or_insert((0.0, 1.0));
            *sum += reading.log_ratio * *share;
            *share /= 2.0;
        }
        let most = coefficients.value(&c::FAMILY_CUT).ln();
        self.families =
            damped.into_iter().map(|(family, (sum, _))| (family, sum.clamp(-most, most))).collect();
        let most = coefficients.value(&c::EVIDENCE_CUT).ln();
        self.evidence = self.families.values().sum::<f64>().clamp(-most, most);
    }
}
