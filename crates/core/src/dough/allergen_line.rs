use serde::Serialize;

use super::{Allergen, AllergenStatement, Formula, Ingredient, Library};
use crate::flour::Species;

/// A flour of a dough as far as its allergens go.
#[derive(Debug, Clone, Copy)]
pub struct AllergenFlour<'a> {
    pub name: &'a str,
    pub species: Species,
    pub stated: Option<&'a AllergenStatement>,
}

/// What a dough must declare, from its own ingredients alone.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AllergenLine {
    pub allergens: Vec<Allergen>,
    pub may_contain: Vec<Allergen>,
    /// Flours and ingredients of which nothing is stated.
    pub unknown: Vec<String>,
    /// The line for a label or a sheet.
    pub message: String,
    /// What to mind where bread without gluten is made beside wheat.
    pub caution: Option<&'static str>,
}

const CROSS_CONTACT: &str = "Made without gluten is not gluten-free: flour dust, tins, brushes, \
    mixers and hands carry wheat over. Keep it apart, clean wet, test, and follow your local law \
    before anyone is told it is gluten-free.";

/// The cereals a flour is of by its grain, whatever is stated.
const fn of_grain(species: Species) -> &'static [Allergen] {
    match species {
        Species::Wheat
        | Species::Durum
        | Species::Spelt
        | Species::Emmer
        | Species::Einkorn
        | Species::Khorasan => &[Allergen::Gluten, Allergen::Wheat],
        Species::Rye => &[Allergen::Gluten],
        Species::GlutenFree | Species::LowStarch => &[],
    }
}

/// The allergen line of a dough: what is stated of each ingredient and flour. One of which nothing
/// is stated is named, and then nothing is claimed to be absent. Whether anything else in the bakery
/// reaches the dough is not known here.
pub fn allergen_line(
    formula: &Formula,
    flours: &[AllergenFlour<'_>],
    library: &Library,
) -> AllergenLine {
    let mut all = AllergenStatement::default();
    let mut unknown: Vec<String> = Vec::new();
    let mut take = |name: &str, stated: Option<&AllergenStatement>| match stated {
        Some(stated) => {
            all.contains.extend(&stated.contains);
            all.may_contain.extend(&stated.may_contain);
        }
        None => unknown.push(name.to_owned()),
    };
    for flour in flours {
        take(flour.name, flour.stated);
    }
    let lines = formula.additions().filter(|line| line.pct > 0.0);
    for line in lines.filter(|line| line.ingredient != Ingredient::Flour) {
        let properties = library.properties(line.ingredient);
        take(&properties.label, properties.allergens.as_ref());
    }
    all.contains.extend(flours.iter().flat_map(|flour| of_grain(flour.species)));
    let AllergenStatement { contains, may_contain } = all.tidy();
    let list = |of: &[Allergen]| of.iter().map(|one| one.label()).collect::<Vec<_>>().join(", ");
    let mut message: Vec<String> = Vec::new();
    if !contains.is_empty() {
        message.push(format!("Contains: {}.", list(&contains)));
    }
    if !may_contain.is_empty() {
        message.push(format!("May contain: {}.", list(&may_contain)));
    }
    if !unknown.is_empty() {
        let names = unknown.join(", ");
        message
            .push(format!("Not stated for {names}: ask the supplier before anything is claimed."));
    }
    if message.is_empty() {
        message.push("None of the listed allergens by the statements of its ingredients.".into());
    }
    let caution = (!contains.contains(&Allergen::Gluten)).then_some(CROSS_CONTACT);
    AllergenLine { allergens: contains, may_contain, unknown, message: message.join(" "), caution }
}
