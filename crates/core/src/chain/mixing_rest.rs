//! The heat of a dough that rests between two mixings, an autolyse: how warm it is when it is left, what
//! the room takes of it, and how warm it is when the mixer turns again.

use super::Scenario;
use super::links::MixingRest;
use crate::dough::Ingredient;
use crate::dough::coefficients::{COOLS_AS_DOUGH, WATER_SPECIFIC_HEAT};
use crate::ferment::cooling_h;
use crate::heat::{Balance, HeatPart};
use crate::units::MIN_PER_H;

/// Twice as near each time or better; this often is to the last digit.
const ROUNDS: usize = 40;
/// What no longer matters, kJ.
const SETTLED_KJ: f64 = 1e-6;

/// Closes a balance with what the room takes in the rests between its mixings, which depends on the
/// water the balance asks for: from nothing lost on until neither moves.
pub(super) fn settle(scenario: &Scenario<'_>, balance: &mut Balance) -> Vec<MixingRest> {
    let method = scenario.method;
    let between = method.first_mix()..method.last_mix();
    if method.stages[between].iter().all(|stage| stage.mixes_dough() || stage.makes.is_some()) {
        return Vec::new();
    }
    let coming = coming(scenario, balance);
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

impl Coming {
    /// A share of a part of the balance.
    fn of(part: &HeatPart, at: usize, share: f64) -> Self {
        let kg = part.kg * share;
        Self { at, kg, kj_per_k: kg * part.specific_heat, celsius: Some(part.temperature_c) }
    }
}

/// Everything that goes in while it is mixed, at its stage: the balance has it in this order.
fn coming(scenario: &Scenario<'_>, balance: &Balance) -> Vec<Coming> {
    let (method, last) = (scenario.method, scenario.method.last_mix());
    let portions = |ingredient| {
        method.portions(ingredient).into_iter().filter(move |portion| portion.at <= last)
    };
    let shares = |ingredient| portions(ingredient).map(|portion| portion.share).sum::<f64>();
    let mut parts = balance.parts.iter();
    let flour = parts.by_ref().take(1).map(|part| Coming::of(part, method.first_mix(), 1.0));
    let mut coming: Vec<Coming> = flour.collect();
    for (line, part) in scenario.formula.formula.additions().zip(parts.by_ref()) {
        let all = shares(line.ingredient);
        coming.extend(
            portions(line.ingredient)
                .map(|portion| Coming::of(part, portion.at, portion.share / all)),
        );
    }
    let (stated, open): (Vec<_>, Vec<_>) =
        portions(Ingredient::Water).partition(|portion| portion.temperature_c.is_some());
    for (portion, part) in stated.iter().zip(parts.by_ref()) {
        coming.push(Coming::of(part, portion.at, 1.0));
    }
    let all: f64 = open.iter().map(|portion| portion.share).sum();
    coming.extend(open.iter().map(|portion| {
        let kg = balance.water_kg * portion.share / all;
        Coming { at: portion.at, kg, kj_per_k: kg * WATER_SPECIFIC_HEAT.value, celsius: None }
    }));
    coming.extend(parts.map(|part| Coming::of(part, method.parts_join_at(), 1.0)));
    coming
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
