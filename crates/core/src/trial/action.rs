//! A cause's action made of a plan, so that it can be looked at as a what-if.

use super::dough::pct;
use crate::chain::ScenarioFormula;
use crate::dough::{Formula, LineInput};
use crate::fault::PlanChange;
use crate::method::{Method, StageRole};
use crate::units::ValidationErrors;

/// What a batch was planned with, where its product's documents do not say.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PlannedBefore {
    /// Floor water, % on flour.
    pub hydration_pct: f64,
    pub dough_c: f64,
    /// Where no sponge temperature is stated, the house's.
    pub sponge_c: f64,
    /// When its slowest core was set and when it should have been, % of the bake.
    pub arrival_pct: Option<(f64, f64)>,
}

/// A product's documents with a cause's action, and what is set for the dough beside them.
#[derive(Debug, Clone, PartialEq)]
pub struct ChangedPlan {
    pub formula: ScenarioFormula,
    pub method: Method,
    /// Floor water set in hand, % on flour.
    pub hydration_pct: Option<f64>,
    /// Dough off the mixer set in hand, °C.
    pub dough_c: Option<f64>,
}

/// Makes a cause's changes, one after the other.
///
/// # Errors
///
/// Where the formula that comes of it cannot be made.
pub fn changed(
    changes: &[PlanChange],
    formula: &ScenarioFormula,
    method: &Method,
    before: &PlannedBefore,
) -> Result<ChangedPlan, ValidationErrors> {
    let mut draft = formula.formula.draft();
    let mut method = method.clone();
    let (mut hydration_pct, mut dough_c) = (None, None);
    for change in changes {
        match *change {
            PlanChange::Water { points } => hydration_pct = Some(before.hydration_pct + points),
            PlanChange::DoughTemperature { by_c } => dough_c = Some(before.dough_c + by_c),
            PlanChange::SpongeTemperature { by_c } => {
                method.sponge_c = Some(method.sponge_c.unwrap_or(before.sponge_c) + by_c);
            }
            PlanChange::Ingredient { ingredient, points } => {
                match draft.lines.iter_mut().find(|line| line.ingredient == ingredient) {
                    Some(line) => line.pct = (pct(line) + points).max(0.0).into(),
                    None if points > 0.0 => {
                        draft.lines.push(LineInput { ingredient, pct: points.into() });
                    }
                    None => {}
                }
            }
            PlanChange::Yeast { pct: by } => {
                let parts = draft.parts.iter_mut().flat_map(|part| &mut part.lines);
                let lines = draft.lines.iter_mut().chain(parts);
                for line in lines.filter(|line| line.ingredient.is_yeast()) {
                    line.pct = (pct(line) * (1.0 + by / 100.0)).into();
                }
            }
            PlanChange::Minutes { stage, by } => last(&mut method, stage, |minutes| minutes + by),
            PlanChange::Time { stage, pct } => {
                last(&mut method, stage, |minutes| minutes * (1.0 + pct / 100.0));
            }
            PlanChange::Around { stage, by_c } => {
                let found = longest(&method, stage);
                let around = found.and_then(|at| method.stages[at].temperature_c.as_mut());
                if let Some(around) = around {
                    *around += by_c;
                }
            }
            PlanChange::BakeToArrival => {
                if let Some((arrived, wanted)) = before.arrival_pct {
                    last(&mut method, StageRole::Bake, |minutes| minutes * arrived / wanted);
                }
            }
        }
    }
    let formula = ScenarioFormula { formula: Formula::check(&draft)?, ..formula.clone() };
    Ok(ChangedPlan { formula, method, hydration_pct, dough_c })
}

/// The longest stage for something.
fn longest(method: &Method, wanted: StageRole) -> Option<usize> {
    let roles = method.roles();
    let stages = method.stages.iter().enumerate().filter(|(at, _)| roles[*at] == wanted);
    stages.max_by(|(_, one), (_, other)| one.minutes.total_cmp(&other.minutes)).map(|(at, _)| at)
}

/// Lets the longest stage for something last otherwise, in whole minutes; of a bake its phases too.
fn last(method: &mut Method, role: StageRole, so: impl Fn(f64) -> f64) {
    let Some(at) = longest(method, role) else { return };
    let stage = &mut method.stages[at];
    let minutes = so(stage.minutes).round().max(1.0);
    let longer = minutes / stage.minutes;
    for phase in &mut stage.programme {
        phase.minutes *= longer;
    }
    stage.minutes = minutes;
    stage.tolerance = None;
}
