use serde::{Deserialize, Serialize};

use super::Ingredient;
use crate::units::{NumberRange, RawNumber, ValidationErrors};

const PCT: NumberRange = NumberRange::new("pct", "percent on flour", "%", 0.0, 100.0);

/// One line of a formula.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Line {
    pub ingredient: Ingredient,
    /// In percent on total flour.
    pub pct: f64,
}

/// One line as it was typed.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct LineInput {
    pub ingredient: Ingredient,
    #[serde(default, skip_serializing_if = "RawNumber::is_missing")]
    pub pct: RawNumber,
}

pub(super) fn check_lines(
    lines: &[LineInput],
    at: &str,
    faults: &mut ValidationErrors,
) -> Vec<Line> {
    let mut checked: Vec<Line> = Vec::with_capacity(lines.len());
    for (number, LineInput { ingredient, pct }) in lines.iter().enumerate() {
        let field = format!("{at}lines[{number}].");
        let pct = PCT.check(pct, &field, faults);
        if *ingredient == Ingredient::Water {
            let message = "water is computed from the flour's absorption; leave the line out";
            faults.push(format!("{field}ingredient"), message);
        }
        if checked.iter().any(|line| line.ingredient == *ingredient) {
            let message = format!("{ingredient} stands twice; keep one line");
            faults.push(format!("{field}ingredient"), message);
        }
        checked.push(Line { ingredient: *ingredient, pct });
    }
    checked
}
