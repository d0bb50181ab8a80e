//! The heat of a dough that rests between two mixings, an autolyse: how warm it is when it is left, what
//! the room takes of it, and how warm it is when the mixer turns again.

use super::Scenario;
use super::incoming::ingredient_c;
use super::links::{DoughLink, MixingRest};
use super::preparation_heat::preparations;
use crate::dough::coefficients::{COOLS_AS_DOUGH, DOUGH_SPECIFIC_HEAT, WATER_SPECIFIC_HEAT};
use crate::dough::{FLOUR_PCT, Ingredient};
use crate::ferment::cooling_h;
use crate::flour::Moisture;
use crate::heat::{Balance, flour_specific_heat};
use crate::units::MIN_PER_H;

/// Twice as near each time or better; this often is to the last digit.
const ROUNDS: usize = 40;
/// What no longer matters, kJ.
const SETTLED_KJ: f64 = 1e-6;

/// Closes a balance with what the room takes in the rests between its mixings, which depends on the
/// water the balance asks for: from nothing lost on until neither moves.
pub(super) fn settle(
    scenario: &Scenario<'_>,
    moisture: Moisture,
    dough: &DoughLink,
    balance: &mut Balance,
) -> Vec<MixingRest> {
    let method = scenario.method;
    let between = method.first_mix()..method.last_mix();
    if method.stages[between].iter().all(|stage| stage.mixes_dough() || stage.makes.is_some()) {
        return Vec::new();
    }
    let coming = coming(scenario, moisture, dough, balance);
    let mut rests = Vec::new();
    for _ in 0..ROUNDS {
        rests = follow(scenario, balance, &coming);
        let lost_kj = rests.iter().map(|rest| rest.lost_kj).sum();
        let moved = f64::abs(balance.rested_kj - lost_kj);
        balance.rested_kj = lost_kj;
        if moved < SETTLED_KJ {
            break;
        }
    }
    rests
}

/// What goes in at a stage.
struct Coming {
    at: usize,
    kg: f64,
    kj_per_k: f64,
    /// None of the water that the balance sets.
    celsius: Option<f64>,
}

/// Everything that goes in while it is mixed.
fn coming(
    scenario: &Scenario<'_>,
    moisture: Moisture,
    dough: &DoughLink,
    balance: &Balance,
) -> Vec<Coming> {
    let (method, formula) = (scenario.method, &scenario.formula.formula);
    let of = |at, kg: f64, specific_heat: f64, celsius| Coming {
        at,
        kg,
        kj_per_k: kg * specific_heat,
        celsius,
    };
    let flour = of(
        method.first_mix(),
        balance.flour_wetted_kg,
        flour_specific_heat(moisture),
        Some(scenario.flour_c()),
    );
    let water = method.portions(Ingredient::Water).into_iter().map(|one| {
        let kg = dough.final_water_kg * one.share;
        of(one.at, kg, WATER_SPECIFIC_HEAT.value, one.temperature_c)
    });
    let lines = formula.additions().flat_map(|line| {
        let kg = dough.flour_kg * formula.in_final(line) / FLOUR_PCT;
        let specific_heat = scenario.plant.library.properties(line.ingredient).specific_heat;
        let usual_c = ingredient_c(scenario, line.ingredient).0;
        method.portions(line.ingredient).into_iter().map(move |one| {
            let celsius = Some(one.temperature_c.unwrap_or(usual_c));
            of(one.at, kg * one.share, specific_heat, celsius)
        })
    });
    let parts = preparations(scenario, moisture, dough).into_iter().map(|part| {
        of(method.parts_join_at(), part.kg, DOUGH_SPECIFIC_HEAT.value, Some(part.meets_c))
    });
    std::iter::once(flour).chain(water).chain(lines).chain(parts).collect()
}

/// The dough from its first mixing to its last, with the water the balance now asks for.
fn follow(scenario: &Scenario<'_>, balance: &Balance, coming: &[Coming]) -> Vec<MixingRest> {
    let method = scenario.method;
    let mixer = &scenario.line.mixer;
    let slowness = scenario.coefficients().value(&COOLS_AS_DOUGH) * MIN_PER_H;
    let water_c = balance.water_acts_as_c();
    let (mut kg, mut kj_per_k, mut kj) = (0.0, 0.0, balance.wetting_kj());
    let mut rests = Vec::new();
    let mixings = method.first_mix()..=method.last_mix();
    for (at, stage) in method.stages.iter().enumerate().filter(|(at, _)| mixings.contains(at)) {
        for one in coming.iter().filter(|one| one.at == at) {
            kg += one.kg;
            kj_per_k += one.kj_per_k;
            kj += one.kj_per_k * one.celsius.unwrap_or(water_c);
        }
        if stage.mixes_dough() {
            kj += stage.minutes * mixer.kj_per_kg_min(stage.speed) * kg;
        } else if stage.makes.is_none() && kj_per_k > 0.0 {
            let around_c = stage.temperature_c.unwrap_or_else(|| scenario.room_c());
            let left_c = kj / kj_per_k;
            let keeps = (-stage.minutes / (slowness * cooling_h(kg))).exp();
            let rested_c = around_c + (left_c - around_c) * keeps;
            let lost_kj = kj_per_k * (left_c - rested_c);
            kj -= lost_kj;
            let minutes = stage.minutes;
            rests.push(MixingRest { stage: at, kg, left_c, rested_c, minutes, around_c, lost_kj });
        }
    }
    rests
}
