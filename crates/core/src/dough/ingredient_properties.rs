use std::borrow::Cow;

use serde::{Deserialize, Serialize};

use super::coefficients as c;
use super::{AllergenStatement, Ingredient};
use crate::coefficient::{Coefficients, Origin};
use crate::units::Estimate;

/// What an ingredient is there for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Role {
    Flour,
    Liquid,
    Yeast,
    Salt,
    Sweet,
    Fat,
    Protein,
    Fibre,
    Acid,
    Improver,
    Other,
}

/// Where an ingredient is kept, and so how cold it comes to the mixer.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Storage {
    #[default]
    Room,
    Refrigerator,
    Freezer,
}

impl Storage {
    /// How cold it is there, °C; none where it is the room's own temperature.
    pub fn celsius(self, coefficients: &Coefficients) -> Option<f64> {
        match self {
            Self::Room => None,
            Self::Refrigerator => Some(coefficients.value(&c::REFRIGERATOR_C)),
            Self::Freezer => Some(coefficients.value(&c::FREEZER_C)),
        }
    }
}

/// Points of water on flour for each 1 % of an ingredient.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Effect {
    pub points: Estimate,
    pub reason: Cow<'static, str>,
}

/// All that is known of one ingredient.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct IngredientProperties {
    pub ingredient: Ingredient,
    pub label: Cow<'static, str>,
    pub role: Role,
    /// Water it brings, in percent of itself.
    pub water_pct: f64,
    /// kJ/kg·K.
    pub specific_heat: f64,
    /// What 1 % of it does to the water; none where nothing is to be said, or it is switched off.
    pub effect: Option<Effect>,
    /// Mass of a litre of it as a cup or spoon takes it up, kg.
    pub kg_per_l: Option<Estimate>,
    /// None until somebody states them.
    #[serde(default)]
    pub allergens: Option<AllergenStatement>,
    #[serde(default)]
    pub kept: Storage,
    pub price_per_kg: Option<f64>,
    /// House default, or the plant's own.
    pub origin: Origin,
}

/// Specific heat of a dry ingredient, kJ/kg·K.
pub(super) const DRY: f64 = 1.3;

/// The specific heat of something that is so much water and the rest dry.
pub(super) fn wet_heat(water_pct: f64) -> f64 {
    let (dry, water) = (c::DRY_SPECIFIC_HEAT.value, c::WATER_SPECIFIC_HEAT.value);
    if water_pct > 0.0 { (dry * (100.0 - water_pct) + water * water_pct) / 100.0 } else { DRY }
}
