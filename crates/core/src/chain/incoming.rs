//! How warm what goes in comes, and what vessel and room take of it.

use super::Scenario;
use crate::dough::{Ingredient, Storage, Vessel};
use crate::heat::{HeatSource, Surroundings};

/// What a vessel with so much in it and the room around it take in so many minutes.
pub(super) fn surroundings(
    scenario: &Scenario<'_>,
    vessel: Vessel,
    kg: f64,
    minutes: f64,
) -> Option<Surroundings> {
    let kj_per_k = vessel.takes_kj_per_k(kg, minutes, scenario.coefficients());
    (kj_per_k > 0.0).then(|| Surroundings { kj_per_k, temperature_c: scenario.room_c() })
}

/// How warm an ingredient comes: as was typed, as it is kept, or as the room is.
pub(super) fn ingredient_c(scenario: &Scenario<'_>, ingredient: Ingredient) -> (f64, HeatSource) {
    let properties = scenario.plant.library.properties(ingredient);
    let kept =
        properties.kept.celsius(scenario.coefficients()).map(|usual| match properties.kept {
            Storage::Refrigerator => scenario.line.water.refrigerator_c.unwrap_or(usual),
            Storage::Room | Storage::Freezer => usual,
        });
    match scenario.run_settings.ingredient_c(ingredient).or(kept) {
        Some(cold_c) => (cold_c, HeatSource::Kept),
        None => (scenario.room_c(), HeatSource::Other),
    }
}
