use std::collections::BTreeMap;

use serde::Deserialize;

use super::{Fault, Gate, LearnedRatios, knowledge};
use crate::units::{NumberRange, RawNumber, ValidationErrors, quoted};

/// A fault with what a batch says, to find its cause.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct DiagnoseInput {
    /// By its key, such as `smearing`.
    #[serde(default)]
    pub fault: String,
    /// What the process, the flour and the product are: sponge, straight, frozen, cold, gf, ferment,
    /// sour, rye, whole, wheat, tin, hearth.
    #[serde(default)]
    pub gates: Vec<String>,
    /// What was measured, by its key; what was not is left out.
    #[serde(default)]
    #[cfg_attr(feature = "openapi", schema(value_type = std::collections::BTreeMap<String, f64>))]
    pub features: BTreeMap<String, RawNumber>,
    /// Confirmed cases of this fault, by cause, 0 to 1 000 000 each.
    #[serde(default)]
    #[cfg_attr(feature = "openapi", schema(value_type = std::collections::BTreeMap<String, f64>))]
    pub confirmed: BTreeMap<String, RawNumber>,
    /// Confirmed cases that were none of the causes.
    #[serde(default)]
    pub confirmed_none: RawNumber,
}

/// A fault with what is measured, checked.
#[derive(Debug, Clone, PartialEq)]
pub struct CheckedDiagnosis {
    pub fault: &'static Fault,
    pub gates: Vec<Gate>,
    pub features: BTreeMap<String, f64>,
    pub confirmed: BTreeMap<String, f64>,
    pub confirmed_none: f64,
    /// The plant's own ratios; the house's hold where there are none.
    pub learned: LearnedRatios,
}

const MOST: f64 = 1e6;
const FINITE: NumberRange = NumberRange::new("", "a reading", "", f64::MIN, f64::MAX);
const CONFIRMED: NumberRange = NumberRange::new("", "confirmed cases", "", 0.0, MOST);
const CONFIRMED_NONE: NumberRange =
    NumberRange::new("confirmed_none", "confirmed cases of none of them", "", 0.0, MOST);

impl DiagnoseInput {
    /// Every word is one that is known, and every value finite.
    pub fn check(&self) -> Result<CheckedDiagnosis, ValidationErrors> {
        let mut faults = ValidationErrors::default();
        let fault = knowledge().fault(self.fault.trim());
        if fault.is_none() {
            let known: Vec<&str> = knowledge().faults.iter().map(|one| &*one.key).collect();
            let given = quoted(&self.fault);
            let known = known.join(", ");
            faults.push("fault", format!("“{given}” is no fault here; there are {known}"));
        }
        let gates = self.gates.iter().enumerate().filter_map(|(at, word)| {
            let gate = gate(word.trim());
            if gate.is_none() {
                let known = Gate::ALL.map(Gate::word).join(", ");
                let message = format!("“{}” is no gate; there are {known}", quoted(word));
                faults.push(format!("gates[{at}]"), message);
            }
            gate
        });
        let gates = gates.collect();
        let known = |key: &str| knowledge().feature(key).is_some();
        let features = numbers("features", &self.features, FINITE, known, &mut faults);
        let known = |key: &str| knowledge().cause(key).is_some();
        let confirmed = numbers("confirmed", &self.confirmed, CONFIRMED, known, &mut faults);
        let confirmed_none = CONFIRMED_NONE.check_or(&self.confirmed_none, 0.0, "", &mut faults);
        let Some(fault) = fault else { return Err(faults) };
        let learned = LearnedRatios::default();
        faults.or(CheckedDiagnosis { fault, gates, features, confirmed, confirmed_none, learned })
    }
}

fn numbers(
    field: &str,
    given: &BTreeMap<String, RawNumber>,
    range: NumberRange,
    known: impl Fn(&str) -> bool,
    faults: &mut ValidationErrors,
) -> BTreeMap<String, f64> {
    let mut found = BTreeMap::new();
    for (key, value) in given {
        let at = format!("{field}.{}", quoted(key));
        if known(key) {
            found.insert(key.clone(), range.check(value, &at, faults));
        } else {
            let what = if field == "features" { "feature" } else { "cause" };
            faults.push(at, format!("“{}” is no {what} that is known here", quoted(key)));
        }
    }
    found
}

fn gate(word: &str) -> Option<Gate> {
    Gate::ALL.into_iter().find(|gate| gate.word() == word)
}
