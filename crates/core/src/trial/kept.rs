//! A variant that is kept: what the product's formula and method become.

use super::Intervention;
use super::dough::TrialDough;
use crate::chain::{Scenario, ScenarioFormula};
use crate::method::Method;
use crate::units::ValidationErrors;

/// What a product's documents become with a variant's changes: the dough as it was judged, so that
/// water and temperature that were set in hand for it are theirs.
///
/// # Errors
///
/// Where a change makes another flour, which no formula keeps; or where no dough comes of it.
pub fn kept_variant(
    scenario: &Scenario<'_>,
    interventions: &[Intervention],
) -> Result<(ScenarioFormula, Method), ValidationErrors> {
    let mut faults = ValidationErrors::default();
    for (at, _) in interventions.iter().enumerate().filter(|(_, one)| one.is_of_flour()) {
        let message = "it makes another flour: record that flour, choose it in the formula, and try \
                       once more";
        faults.push(format!("interventions[{at}]"), message);
    }
    faults.or(())?;
    // How much was tried is not kept.
    let mut dough = TrialDough::of(scenario, 1.0);
    for intervention in interventions {
        dough.apply(*intervention);
    }
    dough.documents()
}
