use thiserror::Error;

use super::AbsorptionModel;
use crate::coefficient::{Coefficient, Coefficients};
use crate::dough::IngredientProperties;
use crate::units::Estimate;

/// An ingredient and how much of it, in percent on flour.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Addition<'a> {
    pub properties: &'a IngredientProperties,
    pub pct: f64,
}

/// What is wanted of the dough, as far as its water goes.
#[derive(Debug, Clone, PartialEq)]
pub struct AbsorptionRequest<'a> {
    /// What its process does to the water.
    pub process: &'static Coefficient,
    /// Everything but flour and water.
    pub lines: &'a [Addition<'a>],
    /// Points asked for by style, wetter or drier.
    pub style_points: f64,
    /// What batches taught of this flour and product on its line, points.
    pub learned: Option<Estimate>,
    /// The dough absorption set by hand, instead of where the build-up ends.
    pub override_pct: Option<f64>,
    pub machine_divided: bool,
    pub coefficients: &'a Coefficients,
    pub model: &'a AbsorptionModel,
}

/// Nothing to start the build-up from.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub enum AbsorptionUnknown {
    #[error(
        "{0} has no gluten, so its water is not computed: type in the water its own sheet states, \
         as absorption, or override the water"
    )]
    NeedsItsSheet(String),
    #[error("no flour to begin with")]
    NoFlour,
}
