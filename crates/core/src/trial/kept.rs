//! A variant that is kept: what the product's formula and method become.

use super::Intervention;
use super::dough::TrialDough;
use crate::chain::{Scenario, ScenarioFormula};
use crate::dough::Formula;
use crate::method::Method;
use crate::units::ValidationErrors;

/// What a product's documents become with a variant's changes.
#[derive(Debug, Clone, PartialEq)]
pub struct KeptVariant {
    /// None where the formula stays as it is.
    pub formula: Option<ScenarioFormula>,
    /// None where the method stays as it is.
    pub method: Option<Method>,
}

/// Applies a variant's changes to the product's own formula and method.
///
/// # Errors
///
/// Where a change is of a flour and not of the formula, which keeps no flour's make; or where no dough
/// comes of it.
pub fn kept_variant(
    scenario: &Scenario<'_>,
    interventions: &[Intervention],
) -> Result<KeptVariant, ValidationErrors> {
    let mut faults = ValidationErrors::default();
    for (at, _) in interventions.iter().enumerate().filter(|(_, one)| one.is_of_flour()) {
        let message = "it makes another flour: record that flour, choose it in the formula, and try once more";
        faults.push(format!("interventions[{at}]"), message);
    }
    faults.or(())?;
    // What was tried on the bench scale is kept of the product as it is made.
    let mut dough = TrialDough::of(scenario, 1.0);
    for intervention in interventions {
        dough.apply(*intervention);
    }
    let was = scenario.formula;
    let mut formula = ScenarioFormula { formula: Formula::check(dough.draft())?, ..was.clone() };
    let water = formula.hydration_pct.as_mut().unwrap_or(&mut formula.style_points);
    *water += dough.points_wetter();
    let method = dough.method(scenario);
    Ok(KeptVariant {
        formula: (formula != *was).then_some(formula),
        method: (method != *scenario.method).then_some(method),
    })
}
