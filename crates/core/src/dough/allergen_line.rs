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
#[serde(into = "super::words::AllergenLineWords")]
pub struct AllergenLine {
    pub allergens: Vec<Allergen>,
    pub may_contain: Vec<Allergen>,
    /// Flours and ingredients of which nothing is stated.
    pub unknown: Vec<String>,
}

impl AllergenLine {
    /// Whether it is made without gluten, perhaps beside wheat.
    pub fn is_without_gluten(&self) -> bool {
        !self.allergens.contains(&Allergen::Gluten)
    }
}

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
    AllergenLine { allergens: contains, may_contain, unknown }
}
