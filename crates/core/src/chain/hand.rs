use serde::Serialize;

use crate::dough::{Amount, Formula, Ingredient, Losses};
use crate::flour::{Limit, Readings};
use crate::method::{Method, Mixer};
use crate::water::Species;

/// A lot as its certificate states it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LotInHand<'a> {
    pub species: Species,
    pub readings: &'a Readings,
}

/// A formula with what scaling it needs.
#[derive(Debug, Clone, PartialEq)]
pub struct FormulaInHand {
    pub formula: Formula,
    pub style_points: f64,
    pub piece_kg: f64,
    pub losses: Losses,
    additions: Vec<(Ingredient, f64)>,
}

impl FormulaInHand {
    /// A checked formula with its scaling; its additions are laid out once for the stair.
    pub fn new(formula: Formula, style_points: f64, piece_kg: f64, losses: Losses) -> Self {
        let additions = formula.additions();
        Self { formula, style_points, piece_kg, losses, additions }
    }

    pub(super) fn additions(&self) -> &[(Ingredient, f64)] {
        &self.additions
    }
}

/// A plant line: its mixer, its scale and what its room and tap usually are.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct LineInHand {
    pub mixer: Mixer,
    pub division_kg: f64,
    pub tap_c: f64,
    pub flour_c: f64,
    pub room_c: f64,
    pub chilled_min_c: f64,
    pub max_ice_pct: f64,
}

/// What is set for tonight; what is left out comes from the line or the method.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Knobs {
    pub amount: Amount,
    pub division_kg: Option<f64>,
    /// The floor water set by hand, instead of where the stair ends.
    pub hydration_pct: Option<f64>,
    pub target_c: Option<f64>,
    pub flour_c: Option<f64>,
    pub room_c: Option<f64>,
    pub tap_c: Option<f64>,
}

/// The dough in hand: a product's formula, method and line, a lot, and what is set for tonight.
#[derive(Debug, Clone, Copy)]
pub struct Hand<'a> {
    pub lot: LotInHand<'a>,
    pub limits: &'a [Limit],
    pub formula: &'a FormulaInHand,
    pub method: &'a Method,
    pub line: &'a LineInHand,
    /// Days from milling to mixing.
    pub age_days: Option<f64>,
    pub knobs: Knobs,
}

impl Hand<'_> {
    pub(super) fn division_kg(&self) -> f64 {
        self.knobs.division_kg.unwrap_or(self.line.division_kg)
    }
}
