use serde::Serialize;

use super::{Scenario, figures};
use crate::dough::{FLOUR_PCT, Ingredient, KeptConstant, Line, Masses, RescalingError};

/// The dough with one of its masses changed.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct WeightAdjustment {
    /// The whole dough's lines, to go on with as a draft.
    pub lines: Vec<Line>,
    /// All the water the dough has then, on flour: set by hand.
    pub hydration_pct: f64,
    /// All the dough of the run.
    pub dough_kg: f64,
}

/// Why a mass cannot be changed.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
pub enum AdjustmentError {
    #[error("{0}")]
    NoChain(String),
    #[error(transparent)]
    Rescaling(#[from] RescalingError),
}

/// One mass of one dough of the selected product changed, flour, dough or water kept as it is.
pub fn adjust_weight(
    scenario: &Scenario<'_>,
    ingredient: Ingredient,
    kg: f64,
    keep: KeptConstant,
) -> Result<WeightAdjustment, AdjustmentError> {
    let found = figures(scenario);
    let Some(dough) = found.dough else {
        let why = found.error.map_or_else(String::new, |error| error.to_string());
        return Err(AdjustmentError::NoChain(why));
    };
    let mass = |pct: f64| dough.flour_kg * pct / FLOUR_PCT;
    let additions = scenario.formula.formula.additions();
    let masses = [(Ingredient::Flour, dough.flour_kg), (Ingredient::Water, dough.water_kg)]
        .into_iter()
        .chain(additions.map(|line| (line.ingredient, mass(line.pct))));
    let changed = Masses(masses.collect()).with(ingredient, kg, keep)?;
    let mut added_water_pct = 0.0;
    let mut lines = vec![Line { ingredient: Ingredient::Flour, pct: FLOUR_PCT }];
    for (ingredient, pct) in changed.on_flour() {
        if ingredient == Ingredient::Water {
            added_water_pct = pct;
        } else {
            lines.push(Line { ingredient, pct });
        }
    }
    let library = &scenario.plant.library;
    let brought = |line: &Line| line.pct * library.properties(line.ingredient).water_pct / 100.0;
    Ok(WeightAdjustment {
        hydration_pct: added_water_pct + lines.iter().map(brought).sum::<f64>(),
        dough_kg: changed.total_kg() * f64::from(dough.scaled.doughs),
        lines,
    })
}
