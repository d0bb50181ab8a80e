use serde::{Deserialize, Deserializer, Serialize};

use super::{Formula, Ingredient, Library};
use crate::flour::Species;

/// What must be declared: all that EU regulation 1169/2011, annex II, and the list of the United
/// States name.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Allergen {
    /// Wheat, spelt, rye, barley, oats: cereals that contain gluten.
    Gluten,
    /// Of those, wheat and its kin, named by itself in the United States.
    Wheat,
    Crustaceans,
    Egg,
    Fish,
    Peanut,
    Soy,
    Milk,
    Nuts,
    Celery,
    Mustard,
    Sesame,
    Sulphite,
    Lupin,
    Molluscs,
}

impl Allergen {
    /// Every one.
    pub const ALL: [Self; 15] = [
        Self::Gluten,
        Self::Wheat,
        Self::Crustaceans,
        Self::Egg,
        Self::Fish,
        Self::Peanut,
        Self::Soy,
        Self::Milk,
        Self::Nuts,
        Self::Celery,
        Self::Mustard,
        Self::Sesame,
        Self::Sulphite,
        Self::Lupin,
        Self::Molluscs,
    ];

    /// The word on a label.
    pub const fn label(self) -> &'static str {
        match self {
            Self::Gluten => "cereals containing gluten",
            Self::Wheat => "wheat",
            Self::Crustaceans => "crustaceans",
            Self::Egg => "egg",
            Self::Fish => "fish",
            Self::Peanut => "peanut",
            Self::Soy => "soy",
            Self::Milk => "milk",
            Self::Nuts => "tree nuts",
            Self::Celery => "celery",
            Self::Mustard => "mustard",
            Self::Sesame => "sesame",
            Self::Sulphite => "sulphite",
            Self::Lupin => "lupin",
            Self::Molluscs => "molluscs",
        }
    }
}

/// What a supplier states of one flour or ingredient. Nothing is known until it is stated.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AllergenStatement {
    pub contains: Vec<Allergen>,
    pub may_contain: Vec<Allergen>,
}

impl AllergenStatement {
    /// By what the thing itself is.
    pub fn by_nature(contains: &[Allergen]) -> Self {
        Self { contains: contains.to_vec(), may_contain: Vec::new() }
    }

    /// Each allergen once, in order, and none that it contains among what it may contain.
    #[must_use]
    pub fn tidy(mut self) -> Self {
        self.contains.sort_unstable();
        self.contains.dedup();
        self.may_contain.sort_unstable();
        self.may_contain.dedup();
        self.may_contain.retain(|one| !self.contains.contains(one));
        self
    }
}

impl<'de> Deserialize<'de> for AllergenStatement {
    /// As stated, or a list of what it contains, as earlier records have it.
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        #[derive(Deserialize)]
        #[serde(untagged)]
        enum Written {
            Contains(Vec<Allergen>),
            Stated {
                #[serde(default)]
                contains: Vec<Allergen>,
                #[serde(default)]
                may_contain: Vec<Allergen>,
            },
        }
        Ok(match Written::deserialize(deserializer)? {
            Written::Contains(contains) => Self { contains, may_contain: Vec::new() },
            Written::Stated { contains, may_contain } => Self { contains, may_contain },
        })
    }
}

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
