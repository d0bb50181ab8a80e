//! One product and lot both ways: as sponge and dough, and straight.

use serde::Serialize;

use super::{
    Chain, RiseError, Scenario, ScenarioFormula, chain, flour_strength, maturity_at_oven, rise,
    yeast_wanted,
};
use crate::coefficient::{Coefficient, Coefficients};
use crate::dough::coefficients::{SPONGE_FLOUR, SPONGE_WATER};
use crate::dough::{FLOUR_PCT, Formula, LineInput, Preparation, PreparationInput, PreparationKind};
use crate::ferment::Maturity;
use crate::flour::{MoistureBasis, Property};
use crate::method::coefficients::{
    SPONGE_ASKS_FALLING_NUMBER, SPONGE_ASKS_PROTEIN, STRAIGHT_ASKS_STABILITY, STRAIGHT_ASKS_W,
};
use crate::method::{Conditioning, Method, MixingClass, Process, StageKind, conditioning};
use crate::schedule::{EachDough, cadence};
use crate::units::{Estimate, MIN_PER_H, RawNumber};

/// Yeast counts as the same from here on, and this many looks are enough.
const CLOSE: f64 = 1e-3;
const LOOKS: usize = 6;
/// Pieces that costs are compared for.
const THOUSAND: f64 = 1000.0;

/// One way of making it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ProcessOutcome {
    pub process: Process,
    pub label: &'static str,
    pub dough_absorption_pct: f64,
    /// Dough from 100 kg of flour.
    pub dough_yield: f64,
    /// Pieces from 100 kg of flour.
    pub pieces: f64,
    pub mixing_min: f64,
    pub mixing_kj_per_kg: f64,
    pub mixing_class: MixingClass,
    pub water_c: f64,
    pub ice_kg: f64,
    pub reachable: bool,
    pub dough_c: f64,
    /// In instant yeast, % of all flour: for the same rise at the oven.
    pub yeast_idy_pct: Option<f64>,
    /// How ripe the dough is where it meets the oven; none where nothing makes gas.
    pub maturity: Option<Maturity>,
    pub conditioning: [Conditioning; 2],
    /// From the first water to out of the oven.
    pub hours: f64,
    /// In use at once in a steady run, and the floor they take.
    pub troughs: u32,
    pub floor_m2: f64,
    pub labour_steps: usize,
    /// From batch to batch, minutes.
    pub cadence_min: f64,
    pub cost_per_thousand: f64,
    pub flavour: &'static str,
    pub keeping: &'static str,
    pub tolerance: &'static str,
}

/// What a way asks of a flour, and what this lot has.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FlourRequirement {
    pub property: Property,
    /// None where the certificate does not state it.
    pub has: Option<f64>,
    /// At least so much, house judgement with its band.
    pub wants: Estimate,
    pub met: Option<bool>,
    pub message: String,
}

/// One product and lot both ways.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ProcessComparison {
    pub own: ProcessOutcome,
    pub other: ProcessOutcome,
    /// What the other way asks of the flour.
    pub asks: Vec<FlourRequirement>,
    /// The other way's stages.
    pub other_method: Method,
}

/// The selected product both ways, the other with the yeast for the same rise at the oven.
pub fn process_comparison(
    scenario: &Scenario<'_>,
    own: &Chain,
) -> Result<ProcessComparison, RiseError> {
    let coefficients = scenario.coefficients();
    let risen = rise(scenario, own)?;
    let wanted = risen.stages.last().map_or(0.0, |stage| stage.rise_pct);
    let method = scenario.method.other_process(scenario.coefficients());
    let sponge = method.process == Process::SpongeDough;
    let mut formula = scenario.formula.clone();
    formula.formula = converted(&formula.formula, sponge, 1.0, coefficients);
    let mut yeast = None;
    for _ in 0..LOOKS {
        let other = Scenario { method: &method, formula: &formula, ..*scenario };
        let made = chain(&other);
        let Ok(found) = yeast_wanted(&other, &made, wanted)? else { break };
        let now = rise(&other, &made)?.yeast_idy_pct;
        if now <= 0.0 {
            break;
        }
        yeast = Some(found);
        if (found / now - 1.0).abs() < CLOSE {
            break;
        }
        formula.formula = converted(&formula.formula, sponge, found / now, coefficients);
    }
    let other = Scenario { method: &method, formula: &formula, ..*scenario };
    Ok(ProcessComparison {
        own: way(scenario, own, Some(risen.yeast_idy_pct)).ok_or(RiseError::NoDough)?,
        other: way(&other, &chain(&other), yeast).ok_or(RiseError::NoDough)?,
        asks: asks(scenario, method.process),
        other_method: method,
    })
}

/// The formula with or without a sponge, and so many times its yeast.
fn converted(formula: &Formula, sponge: bool, yeast: f64, coefficients: &Coefficients) -> Formula {
    let scaled = |line: &LineInput| match line.pct {
        RawNumber::Number(pct) if line.ingredient.is_yeast() => {
            LineInput { pct: (pct * yeast).into(), ..line.clone() }
        }
        _ => line.clone(),
    };
    let mut draft = formula.draft();
    draft.lines = draft.lines.iter().map(scaled).collect();
    draft.parts.retain(|part| {
        part.kind != PreparationKind::Sponge && part.kind != PreparationKind::Autolyse
    });
    if sponge {
        let early: f64 = formula
            .parts()
            .iter()
            .filter(|part| {
                !matches!(part.kind, PreparationKind::Sponge | PreparationKind::Autolyse)
            })
            .map(|part| part.flour_pct)
            .sum();
        draft.parts.push(PreparationInput {
            flour_pct: coefficients.value(&SPONGE_FLOUR).min(FLOUR_PCT - early).into(),
            water_pct: coefficients.value(&SPONGE_WATER).into(),
            lines: draft.lines.iter().filter(|line| line.ingredient.is_yeast()).cloned().collect(),
            ..PreparationInput::of(PreparationKind::Sponge)
        });
    }
    Formula::check(&draft).unwrap_or_else(|_| formula.clone())
}

fn way(
    scenario: &Scenario<'_>,
    chain: &Chain,
    yeast_idy_pct: Option<f64>,
) -> Option<ProcessOutcome> {
    let coefficients = scenario.coefficients();
    let (water, dough, heat) = (chain.water.as_ref()?, chain.dough.as_ref()?, chain.heat.as_ref()?);
    let ScenarioFormula { losses, .. } = scenario.formula;
    let scaled = &dough.scaled;
    let each = each_dough(scenario, chain)?;
    let steady = cadence(scenario.method, &scenario.line.equipment, each, coefficients);
    let oven = scenario.method.stages.iter().rposition(|stage| stage.kind == StageKind::Bake);
    let to_oven = oven.map_or(scenario.method.stages.len(), |oven| oven + 1);
    let sponge = scenario.method.process == Process::SpongeDough;
    let dough_yield = dough.cost.dough_yield;
    let scaled_off = 1.0 - losses.scaling_pct / 100.0;
    Some(ProcessOutcome {
        process: scenario.method.process,
        label: scenario.method.process.label(),
        dough_absorption_pct: water.dough_absorption_pct,
        dough_yield,
        pieces: dough_yield * scaled_off / scaled.piece_kg,
        mixing_min: chain.method.mixing_min,
        mixing_kj_per_kg: chain.method.mixing_kj_per_kg,
        mixing_class: MixingClass::of(chain.method.mixing_kj_per_kg, coefficients),
        water_c: heat.answer.water_c,
        ice_kg: heat.answer.ice_kg,
        reachable: heat.answer.reachable,
        dough_c: heat.answer.dough_c,
        yeast_idy_pct,
        maturity: maturity_at_oven(scenario, chain),
        conditioning: conditioning(flour_strength(scenario), scenario.method.process, coefficients),
        hours: scenario.method.stages[..to_oven].iter().map(|stage| stage.minutes).sum::<f64>()
            / MIN_PER_H,
        troughs: steady.troughs,
        floor_m2: steady.floor_m2,
        labour_steps: scenario.method.labour_steps(),
        cadence_min: steady.minutes,
        cost_per_thousand: dough.cost.per_piece * THOUSAND,
        flavour: if sponge {
            "fuller: hours of fermentation before the mixer"
        } else {
            "plainer: yeast and flour, little fermentation"
        },
        keeping: if sponge {
            "softer for longer: more water, riper dough"
        } else {
            "firms a day sooner"
        },
        tolerance: if sponge {
            "forgives late doughs and a flour that varies"
        } else {
            "little: temperature and minutes must be kept"
        },
    })
}

/// One dough of the run in hand.
pub fn each_dough(scenario: &Scenario<'_>, chain: &Chain) -> Option<EachDough> {
    let dough = chain.dough.as_ref()?;
    let scaled = &dough.scaled;
    let parts = scenario.formula.formula.parts().iter();
    let sponge_pct: f64 =
        parts.filter(|part| part.kind == PreparationKind::Sponge).map(Preparation::total_pct).sum();
    Some(EachDough {
        kg: scaled.dough_kg,
        sponge_kg: dough.flour_kg * sponge_pct / FLOUR_PCT,
        pieces: f64::from(scaled.pieces) / f64::from(scaled.doughs.max(1)),
        piece_kg: scaled.piece_kg,
    })
}

/// What a process asks of the flour at least (H).
fn asks(scenario: &Scenario<'_>, process: Process) -> Vec<FlourRequirement> {
    let fourteen = Some(MoistureBasis::Fourteen);
    let wanted: [(Property, Option<MoistureBasis>, &Coefficient); 2] =
        if process == Process::SpongeDough {
            [
                (Property::Protein, fourteen, &SPONGE_ASKS_PROTEIN),
                (Property::FallingNumber, None, &SPONGE_ASKS_FALLING_NUMBER),
            ]
        } else {
            [
                (Property::W, None, &STRAIGHT_ASKS_W),
                (Property::Stability, None, &STRAIGHT_ASKS_STABILITY),
            ]
        };
    wanted
        .into_iter()
        .map(|(property, basis, asks)| {
            let asks = scenario.coefficients().effective(asks);
            let has = scenario.flours.first().and_then(|main| main.readings.value(property, basis));
            FlourRequirement {
                property,
                has,
                wants: asks.band(),
                met: has.map(|has| has >= asks.value),
                message: asks.source.into_owned(),
            }
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::dough::Ingredient;

    #[test]
    fn a_formula_there_and_back_is_the_same() {
        let house = Coefficients::default();
        let line = |ingredient, pct: f64| LineInput { ingredient, pct: pct.into() };
        let straight = Formula::new(&[
            line(Ingredient::Flour, 100.0),
            line(Ingredient::InstantYeast, 1.0),
            line(Ingredient::Salt, 2.0),
        ])
        .expect("makes a dough");
        let sponge = converted(&straight, true, 1.0, &house);
        assert_eq!(sponge.parts().len(), 1);
        assert_eq!(sponge.parts()[0].lines[0].ingredient, Ingredient::InstantYeast);
        assert_eq!(converted(&sponge, false, 1.0, &house), straight);
        assert!(
            (converted(&straight, false, 1.5, &house).pct_of(Ingredient::InstantYeast) - 1.5).abs()
                < 1e-12
        );
    }
}
