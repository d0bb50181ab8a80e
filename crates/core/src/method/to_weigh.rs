use serde::Serialize;

use super::{Method, Mixer};
use crate::coefficient::Coefficients;
use crate::dough::{Formula, Ingredient, Library, PreparationKind, Scaled};
use crate::heat::HeatSolution;
use crate::units::Estimate;
use crate::water::HoldBack;

/// One thing to weigh for a dough.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ToWeigh {
    /// The word on the sheet: an ingredient, a flour, or water, or ice.
    pub name: String,
    pub ingredient: Ingredient,
    /// In percent on flour.
    pub pct: f64,
    pub exact_kg: f64,
    /// As the scale shows it.
    pub kg: f64,
    /// The scale's division, or the finer one this needs.
    pub division_kg: f64,
    /// How far the scale's division takes it from its percentage, in percent of itself.
    pub off_pct: f64,
    /// Water that is ice.
    pub is_ice: bool,
    /// How warm it goes in, where that is known.
    pub temperature_c: Option<f64>,
}

/// What is made before the final dough, for one dough.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SheetPart {
    pub kind: PreparationKind,
    pub name: String,
    pub kg: f64,
    pub takes: Vec<ToWeigh>,
    /// How warm it is when it is made, °C.
    pub made_c: f64,
    /// When it is cool enough for yeast, and how cool that is; none where it is made so.
    pub cool_after_min: Option<Estimate>,
    pub cool_c: f64,
    pub caution: Option<&'static str>,
}

/// What a preparation's heat comes to, for one dough.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PreparationMade {
    pub water_c: f64,
    /// Of its water.
    pub ice_kg: f64,
    pub made_c: f64,
    pub cool_c: f64,
    pub cool_after_min: Option<Estimate>,
}

/// What a sheet is made from.
#[derive(Debug, Clone, Copy)]
pub struct Plan<'a> {
    pub formula: &'a Formula,
    pub library: &'a Library,
    pub coefficients: &'a Coefficients,
    pub method: &'a Method,
    pub mixer: &'a Mixer,
    pub scaled: &'a Scaled,
    /// Water to weigh, ice included, in percent on flour.
    pub added_water_pct: f64,
    pub hold_back: Option<&'a HoldBack>,
    pub heat: &'a HeatSolution,
    /// Of each preparation, in the formula's order.
    pub preparations: &'a [PreparationMade],
    pub target_c: f64,
    pub division_kg: f64,
}
