//! What of a dough decides which causes of a fault can be.

use super::Scenario;
use crate::dough::PreparationKind;
use crate::fault::Gate;
use crate::fault::coefficients::{RYE_DOUGH_PCT, WHOLE_DOUGH_PCT};
use crate::flour::Species;
use crate::method::{Process, StageRole};

/// The gates of a dough; whether it is baked in a tin or on the hearth nobody recorded.
pub fn fault_gates(scenario: &Scenario<'_>) -> Vec<Gate> {
    let (method, coefficients) = (scenario.method, scenario.coefficients());
    let roles = method.roles();
    let share = |is_it: &dyn Fn(Species) -> bool| -> f64 {
        let of_it = scenario.flours.iter().filter(|flour| is_it(flour.species));
        of_it.map(|flour| flour.share_pct).sum()
    };
    let rye_pct = share(&|species| species == Species::Rye);
    let without_gluten =
        share(&|species| matches!(species, Species::GlutenFree | Species::LowStarch)) > 0.0;
    let whole: f64 = scenario
        .flours
        .iter()
        .map(|flour| flour.share_pct * flour.gluten_network(coefficients).whole_grain_pct / 100.0)
        .sum();
    let sponge = roles.contains(&StageRole::Sponge);
    let parts = scenario.formula.formula.parts();
    let sour = parts.iter().any(|part| part.kind == PreparationKind::Starter);
    [
        (Gate::Sponge, sponge),
        (Gate::Straight, !sponge),
        (Gate::Frozen, method.process == Process::Frozen),
        (Gate::Cold, method.process == Process::LongCold || roles.contains(&StageRole::Cold)),
        (Gate::Gf, without_gluten),
        (Gate::Ferment, sponge || sour || method.process != Process::NoTime),
        (Gate::Sour, sour),
        (Gate::Rye, rye_pct >= coefficients.value(&RYE_DOUGH_PCT)),
        (Gate::Whole, whole >= coefficients.value(&WHOLE_DOUGH_PCT)),
        (Gate::Wheat, !without_gluten && 2.0 * rye_pct < 100.0),
    ]
    .into_iter()
    .filter_map(|(gate, holds)| holds.then_some(gate))
    .collect()
}
