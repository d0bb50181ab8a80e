//! The subject's verdicts in words.

use std::fmt::{self, Display, Formatter};

use serde::Serialize;

use super::{Allergen, AllergenLine};

/// A dough's allergens as they travel.
#[derive(Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub(super) struct AllergenLineWords {
    allergens: Vec<Allergen>,
    may_contain: Vec<Allergen>,
    /// Flours and ingredients of which nothing is stated.
    unknown: Vec<String>,
    /// The line for a label or a sheet.
    message: String,
    /// What to mind where bread without gluten is made beside wheat.
    caution: Option<&'static str>,
}

crate::units::words::describe!(AllergenLine as AllergenLineWords);

impl From<AllergenLine> for AllergenLineWords {
    fn from(line: AllergenLine) -> Self {
        let (message, caution) = (line.to_string(), line.caution());
        let AllergenLine { allergens, may_contain, unknown } = line;
        Self { allergens, may_contain, unknown, message, caution }
    }
}

impl AllergenLine {
    /// What to mind where it is made without gluten.
    pub fn caution(&self) -> Option<&'static str> {
        self.is_without_gluten().then_some(
            "Made without gluten is not gluten-free: flour dust, tins, brushes, mixers and hands \
             carry wheat over. Keep it apart, clean wet, test, and follow your local law before \
             anyone is told it is gluten-free.",
        )
    }
}

/// The line for a label or a sheet.
impl Display for AllergenLine {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        let list =
            |of: &[Allergen]| of.iter().map(|one| one.label()).collect::<Vec<_>>().join(", ");
        let mut sentences = Vec::new();
        if !self.allergens.is_empty() {
            sentences.push(format!("Contains: {}.", list(&self.allergens)));
        }
        if !self.may_contain.is_empty() {
            sentences.push(format!("May contain: {}.", list(&self.may_contain)));
        }
        if !self.unknown.is_empty() {
            sentences.push(format!(
                "Not stated for {}: ask the supplier before anything is claimed.",
                self.unknown.join(", ")
            ));
        }
        if sentences.is_empty() {
            sentences
                .push("None of the listed allergens by the statements of its ingredients.".into());
        }
        f.write_str(&sentences.join(" "))
    }
}
