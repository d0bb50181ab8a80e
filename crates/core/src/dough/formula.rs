use serde::{Deserialize, Serialize};

use super::Ingredient;
use crate::units::{Bound, Faults, Given};

/// All flour together, in baker's percent.
pub const FLOUR_PCT: f64 = 100.0;

/// One line of a formula.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Line {
    pub ingredient: Ingredient,
    /// In percent on total flour.
    pub pct: f64,
}

/// A formula in baker's percent: everything but the water, which the flour decides.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct Formula {
    lines: Vec<Line>,
}

/// One line as it was typed.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct LineInput {
    pub ingredient: Ingredient,
    #[serde(default)]
    pub pct: Given,
}

const PCT: Bound = Bound::new("pct", "percent on flour", "%", 0.0, 100.0);

impl Formula {
    /// Checks that the lines make a dough: flour adds to 100, nothing negative, nothing twice, and
    /// water left to the stair.
    ///
    /// ```
    /// use ironpeel_core::dough::{Formula, Ingredient, LineInput};
    /// let line = |ingredient, pct: f64| LineInput { ingredient, pct: pct.into() };
    /// assert!(Formula::new(&[line(Ingredient::Flour, 100.0), line(Ingredient::Salt, 2.0)]).is_ok());
    /// let faults = Formula::new(&[line(Ingredient::Salt, -2.0)]).unwrap_err();
    /// assert_eq!(faults.0[0].field, "lines[0].pct");
    /// ```
    pub fn new(lines: &[LineInput]) -> Result<Self, Faults> {
        let mut faults = Faults::default();
        let mut checked: Vec<Line> = Vec::with_capacity(lines.len());
        for (at, LineInput { ingredient, pct }) in lines.iter().enumerate() {
            let pct = PCT.check(pct, &format!("lines[{at}]."), &mut faults);
            if *ingredient == Ingredient::Water {
                let message = "water comes from the flour's stair; leave the line out";
                faults.push(format!("lines[{at}].ingredient"), message);
            }
            if checked.iter().any(|line| line.ingredient == *ingredient) {
                let message = format!("{} stands twice; keep one line", ingredient.label());
                faults.push(format!("lines[{at}].ingredient"), message);
            }
            checked.push(Line { ingredient: *ingredient, pct });
        }
        let flour = checked.iter().find(|line| line.ingredient == Ingredient::Flour);
        let flour_pct = flour.map_or(0.0, |line| line.pct);
        if faults.0.is_empty() && (flour_pct - FLOUR_PCT).abs() > 1e-6 {
            let message = format!(
                "flour adds to {flour_pct} %; baker's percent is on total flour, so it must be 100: \
                 these percentages make no dough"
            );
            faults.push("lines", message);
        }
        faults.or(Self { lines: checked })
    }

    /// The lines in the order they go in.
    pub fn lines(&self) -> &[Line] {
        &self.lines
    }

    /// Everything but flour, as the stair wants it.
    pub fn additions(&self) -> Vec<(Ingredient, f64)> {
        let others = self.lines.iter().filter(|line| line.ingredient != Ingredient::Flour);
        others.map(|line| (line.ingredient, line.pct)).collect()
    }

    /// Dough made from 100 of flour with so much water weighed, in baker's percent.
    pub fn total_pct(&self, weigh_pct: f64) -> f64 {
        self.lines.iter().map(|line| line.pct).sum::<f64>() + weigh_pct
    }
}
