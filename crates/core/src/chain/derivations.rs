use serde::Serialize;

use super::way::Way;
use super::{Chain, Scenario, ScenarioFormula, balance};
use crate::coefficient::{Derivation, DerivationInput};
use crate::dough::{Scaled, coefficients as c};
use crate::ferment::coefficients::SPONGE_SET_C;

/// The answers to “why?” for the chain's figures; the build-up's steps carry their own.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Derivations {
    pub dough: Option<Derivation>,
    pub heat: Option<Derivation>,
    /// What is made before the dough.
    pub preparations: Derivation,
    pub method: Derivation,
    /// Of the final dough; none where it makes no gas.
    pub rise: Option<Derivation>,
    /// Of its sponge; none where it has none.
    pub sponge: Option<Derivation>,
}

/// What the figures of a chain rest on. Apart from the chain, because it is looked at seldom and
/// the chain is computed at every move of a slider.
pub fn derivations(scenario: &Scenario<'_>, chain: &Chain) -> Derivations {
    let links = chain.dough.as_ref().zip(chain.water.as_ref());
    let heat = chain.dough.as_ref().zip(scenario.moisture()).map(|(dough, moisture)| {
        balance(scenario, moisture, dough, chain.method.mixing_kj_per_kg).why()
    });
    let way = Way::of(scenario, chain).ok();
    Derivations {
        dough: links
            .map(|(dough, water)| dough_why(scenario, &dough.scaled, water.added_water_pct)),
        heat,
        preparations: preparations_why(scenario, chain),
        method: method_why(scenario, chain),
        rise: way.as_ref().map(|way| way.dough.why(scenario.coefficients())),
        sponge: way
            .and_then(|way| way.sponge)
            .map(|sponge| sponge.dough.why(scenario.coefficients())),
    }
}

fn dough_why(scenario: &Scenario<'_>, scaled: &Scaled, added_water_pct: f64) -> Derivation {
    let ScenarioFormula { formula, losses, .. } = scenario.formula;
    Derivation {
        formula: "dough = pieces · piece / (1 − scaling loss), split into the fewest equal doughs the \
                  mixer holds; flour = dough / (formula + water) · 100",
        inputs: vec![
            DerivationInput::new("total dough", scaled.total_kg, "kg"),
            DerivationInput::new("pieces", scaled.pieces.into(), ""),
            DerivationInput::new("piece at the divider", scaled.piece_kg, "kg"),
            DerivationInput::new("piece when cool", scaled.cooled_piece_kg, "kg"),
            DerivationInput::new("mixer holds", scenario.line.mixer.max_kg, "kg"),
            DerivationInput::new(
                "formula with its water",
                formula.total_pct(added_water_pct),
                "% on flour",
            ),
        ],
        coefficients: vec![
            c::SCALING_LOSS.valued(losses.scaling_pct),
            c::FERMENTATION_LOSS.valued(losses.fermentation_pct),
            c::BAKE_LOSS.valued(losses.bake_pct),
            c::COOLING_LOSS.valued(losses.cooling_pct),
        ],
    }
}

fn preparations_why(scenario: &Scenario<'_>, chain: &Chain) -> Derivation {
    let made = chain.preparations.iter();
    Derivation {
        formula: "its own heat balance, then T = around + (made − around) · e^(−t/τ), τ = slowness · \
                  kg^⅔ h; vessel and room = (heat + loss · minutes) · kg^⅔",
        inputs: made.map(|one| DerivationInput::new(one.kind.key(), one.kg, "kg")).collect(),
        coefficients: [
            &c::BOWL_HEAT,
            &c::TUB_HEAT,
            &c::POT_HEAT,
            &c::TROUGH_HEAT,
            &c::ROOM_TAKES,
            &c::BOILING_MEETS,
            &c::COOLS_AS_DOUGH,
            &c::COOL_ENOUGH,
            &c::PREPARATION_MIN,
            &c::STIRRED,
            &c::STARTER_SET,
            &c::SCALD_WATER_C,
            &SPONGE_SET_C,
        ]
        .map(|coefficient| scenario.coefficients().effective(coefficient))
        .into(),
    }
}

fn method_why(scenario: &Scenario<'_>, chain: &Chain) -> Derivation {
    let mixer = &scenario.line.mixer;
    Derivation {
        formula: "mixing energy = Σ minutes at a speed · power per kilo at that speed",
        inputs: vec![
            DerivationInput::new("mixing", chain.method.mixing_min, "min"),
            DerivationInput::new("first water to the end", chain.method.total_min, "min"),
            DerivationInput::new("power at slow speed", mixer.slow_kj_per_kg_min, "kJ/kg·min"),
            DerivationInput::new("power at fast speed", mixer.fast_kj_per_kg_min, "kJ/kg·min"),
        ],
        coefficients: Vec::new(),
    }
}
