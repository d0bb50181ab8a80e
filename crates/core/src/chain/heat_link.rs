//! The heat balance of the selected product's final dough.

use super::incoming::{ingredient_c, surroundings};
use super::links::{DoughLink, HeatLink, IngredientAt};
use super::mixing_rest::settle;
use super::preparation_heat::preparations;
use super::{Chain, Scenario};
use crate::dough::coefficients::{DOUGH_SPECIFIC_HEAT, WATER_SPECIFIC_HEAT};
use crate::dough::{FLOUR_PCT, Ingredient, PreparationKind, Vessel};
use crate::flour::Moisture;
use crate::heat::{
    Balance, HeatCaution, HeatPart, HeatSource, WantedWater, YEAST_WATER_C, flour_specific_heat,
};
use crate::method::{BY_HAND, Method};

/// The heat balance of the final dough, with what it loses at rest between two mixings.
pub(super) fn balance(
    scenario: &Scenario<'_>,
    moisture: Moisture,
    dough: &DoughLink,
    energy: f64,
) -> Balance {
    let mut balance = without_rests(scenario, moisture, dough, energy);
    settle(scenario, &mut balance);
    balance
}

/// The heat balance of what goes in and is mixed; its parts it meets at temperatures of their own.
fn without_rests(
    scenario: &Scenario<'_>,
    moisture: Moisture,
    dough: &DoughLink,
    energy: f64,
) -> Balance {
    let tap_c = scenario.tap_c();
    let formula = &scenario.formula.formula;
    let early_flour_pct: f64 = formula.parts().iter().map(|part| part.flour_pct).sum();
    let final_flour_kg = dough.flour_kg * (FLOUR_PCT - early_flour_pct) / FLOUR_PCT;
    let library = &scenario.plant.library;
    let mut parts = vec![HeatPart {
        name: "flour".into(),
        kg: final_flour_kg,
        temperature_c: scenario.flour_c(),
        specific_heat: flour_specific_heat(moisture),
        is: HeatSource::Flour,
    }];
    parts.extend(formula.additions().map(|line| {
        let properties = library.properties(line.ingredient);
        let (usual_c, is) = ingredient_c(scenario, line.ingredient);
        let (share, stated_c) = mixed_in(scenario.method, line.ingredient, usual_c);
        HeatPart {
            name: properties.label.clone(),
            kg: dough.flour_kg * formula.in_final(line) / FLOUR_PCT * share,
            temperature_c: stated_c,
            specific_heat: properties.specific_heat,
            is,
        }
    }));
    let (waters, water_share) = stated_waters(scenario.method);
    parts.extend(waters.into_iter().map(|(share, temperature_c)| HeatPart {
        name: "water at a temperature of its own".into(),
        kg: dough.final_water_kg * share,
        temperature_c,
        specific_heat: WATER_SPECIFIC_HEAT.value,
        is: HeatSource::Other,
    }));
    parts.extend(preparations(scenario, moisture, dough).into_iter().map(|part| HeatPart {
        name: part.name.into(),
        kg: part.kg,
        temperature_c: part.meets_c,
        specific_heat: DOUGH_SPECIFIC_HEAT.value,
        is: HeatSource::Preferment,
    }));
    let mixing_min = scenario.method.mixing_min();
    let jacket = scenario.line.mixer.jacket_kj_per_kg_min.map(|each| each * mixing_min);
    let taken =
        jacket.filter(|_| scenario.run_settings.jacket).map_or(0.0, |jacket| jacket.min(energy));
    Balance {
        parts,
        water_kg: dough.final_water_kg * water_share,
        tap_c,
        target_c: scenario.run_settings.target_c.unwrap_or(scenario.method.target_c),
        mixing_kj_per_kg: energy - taken,
        jacket_kj_per_kg: jacket.filter(|_| !scenario.run_settings.jacket),
        mixing_min: Some(mixing_min),
        flour_wetted_kg: final_flour_kg,
        rested_kj: 0.0,
        chilled_min_c: scenario.line.water.coldest_c(tap_c),
        hottest_c: scenario.line.water.hottest_c(tap_c),
        ice_c: 0.0,
        max_ice_pct: scenario.line.water.max_ice_pct,
        surroundings: (scenario.line.mixer.kind == BY_HAND)
            .then(|| surroundings(scenario, Vessel::Bowl, dough.scaled.dough_kg, mixing_min))
            .flatten(),
    }
}

/// Of an ingredient the share that is in by the end of mixing, and how warm that is.
fn mixed_in(method: &Method, ingredient: Ingredient, usual_c: f64) -> (f64, f64) {
    let last = method.last_mix();
    let portions = method.portions(ingredient).into_iter().filter(|one| one.at <= last);
    let (share, warmth) = portions.fold((0.0, 0.0), |(share, warmth), one| {
        (share + one.share, warmth + one.share * one.temperature_c.unwrap_or(usual_c))
    });
    if share > 0.0 { (share, warmth / share) } else { (0.0, usual_c) }
}

/// The shares of the water that go in at a temperature that is stated, and the share whose
/// temperature is left to the balance; what goes in after mixing is neither.
fn stated_waters(method: &Method) -> (Vec<(f64, f64)>, f64) {
    let last = method.last_mix();
    let portions = method.portions(Ingredient::Water).into_iter().filter(|one| one.at <= last);
    portions.fold((Vec::new(), 0.0), |(mut stated, open), one| match one.temperature_c {
        Some(celsius) => {
            stated.push((one.share, celsius));
            (stated, open)
        }
        None => (stated, open + one.share),
    })
}

pub(super) fn heat(
    scenario: &Scenario<'_>,
    moisture: Moisture,
    dough: &DoughLink,
    energy: f64,
) -> HeatLink {
    heat_of(scenario, without_rests(scenario, moisture, dough, energy))
}

/// The dough stage's heat with its sponge so warm; none where the chain stops before the mixer.
pub(crate) fn heat_with_sponge(
    scenario: &Scenario<'_>,
    chain: &Chain,
    sponge_c: f64,
) -> Option<HeatLink> {
    let dough = chain.dough.as_ref()?;
    let energy = chain.method.mixing_kj_per_kg;
    let mut balance = without_rests(scenario, scenario.moisture()?, dough, energy);
    let sponges = scenario.formula.formula.parts().iter().rev();
    // Parts made before come last in the balance, in the formula's order.
    for (part, heated) in sponges.zip(balance.parts.iter_mut().rev()) {
        if part.kind == PreparationKind::Sponge {
            heated.temperature_c = sponge_c;
        }
    }
    Some(heat_of(scenario, balance))
}

/// The lines of the balance: they come after the flour, in the formula's order.
fn ingredients_at(scenario: &Scenario<'_>, balance: &Balance) -> Vec<IngredientAt> {
    let lines = scenario.formula.formula.additions().zip(balance.parts.iter().skip(1));
    lines
        .filter(|(_, part)| part.kg > 0.0)
        .map(|(line, part)| IngredientAt {
            ingredient: line.ingredient,
            label: part.name.to_string(),
            kg: part.kg,
            kept: scenario.plant.library.properties(line.ingredient).kept,
            temperature_c: part.temperature_c,
        })
        .collect()
}

fn heat_of(scenario: &Scenario<'_>, mut balance: Balance) -> HeatLink {
    let rests = settle(scenario, &mut balance);
    let mut answer = balance.solve();
    answer.sensitivities.extend(balance.available_measures());
    let has_yeast = scenario
        .formula
        .formula
        .lines()
        .iter()
        .any(|line| line.ingredient.is_yeast() && line.pct > 0.0);
    let mut cautions = Vec::new();
    if has_yeast && answer.water_c > YEAST_WATER_C {
        cautions.push(HeatCaution::HotForYeast { limit_c: YEAST_WATER_C });
    }
    if answer.ice_kg > 0.0 {
        cautions.push(HeatCaution::FlakeIce);
    }
    HeatLink {
        target_c: balance.target_c,
        flour_c: scenario.flour_c(),
        room_c: scenario.room_c(),
        tap_c: balance.tap_c,
        water_from: scenario.line.water.mixed(WantedWater {
            kg: answer.water_kg,
            temperature_c: answer.water_c,
            tap_c: balance.tap_c,
        }),
        ingredients: ingredients_at(scenario, &balance),
        cautions,
        rests,
        answer,
    }
}
