use serde::Serialize;

use super::{Allergen, Formula, Ingredient, Library};
use crate::water::Species;

/// What a dough must declare, from its own ingredients alone.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AllergenLine {
    pub allergens: Vec<Allergen>,
    /// The line for a label or a sheet.
    pub says: String,
    /// What to mind where bread without gluten is made beside wheat.
    pub caution: Option<&'static str>,
}

const CROSS_CONTACT: &str = "Made without gluten is not gluten-free: flour dust, tins, brushes, \
    mixers and hands carry wheat over. Keep it apart, clean wet, test, and follow your local law \
    before anyone is told it is gluten-free.";

/// The allergen line of a dough: each ingredient's and its flours' own. Whether anything else in
/// the bakery reaches the dough is not known here.
pub fn allergen_line(formula: &Formula, species: &[Species], library: &Library) -> AllergenLine {
    let cereal = species.iter().any(|species| species.has_gluten());
    let lines = formula.additions().filter(|line| line.pct > 0.0);
    let mut allergens: Vec<Allergen> = lines
        .filter(|line| line.ingredient != Ingredient::Flour)
        .flat_map(|line| library.facts(line.ingredient).allergens.iter().copied())
        .collect();
    if cereal {
        allergens.push(Allergen::Gluten);
    }
    allergens.sort_unstable();
    allergens.dedup();
    let words: Vec<&str> = allergens.iter().map(|allergen| allergen.label()).collect();
    let says = if words.is_empty() {
        "No allergen among its own ingredients.".into()
    } else {
        format!("Contains: {}.", words.join(", "))
    };
    AllergenLine { allergens, says, caution: (!cereal).then_some(CROSS_CONTACT) }
}
