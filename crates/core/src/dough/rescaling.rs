use serde::{Deserialize, Serialize};
use thiserror::Error;

use super::Ingredient;

/// What stays as it is when one number of a dough is changed.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum KeptConstant {
    /// The flour: the dough grows or shrinks.
    Flour,
    /// The mass of the dough: everything else shares the difference in its own proportions.
    Dough,
    /// The water: the dough gets stiffer or softer.
    Water,
}

/// The masses of a dough, in kilos: flour, water and the rest.
#[derive(Debug, Clone, PartialEq)]
pub struct Masses(pub Vec<(Ingredient, f64)>);

/// A change that leaves no dough.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Error)]
pub enum RescalingError {
    #[error("this is no ingredient of the dough")]
    NotInIt,
    #[error("a mass cannot be negative, and a dough needs flour")]
    NoDough,
    #[error(
        "nothing else is left to take up the difference: the dough would be heavier than it is"
    )]
    TooMuch,
    #[error("that is what is to stay as it is: change something else, or keep another number")]
    IsKept,
}

impl Masses {
    /// The mass of an ingredient; 0 where it is not in the dough.
    pub fn of(&self, ingredient: Ingredient) -> f64 {
        self.0.iter().find(|(one, _)| *one == ingredient).map_or(0.0, |(_, kg)| *kg)
    }

    /// The whole dough.
    pub fn total_kg(&self) -> f64 {
        self.0.iter().map(|(_, kg)| kg).sum()
    }

    /// The dough with one mass changed and another number kept.
    ///
    /// *Flour* and *water* kept: nothing but the changed mass moves, unless flour itself is
    /// changed; then what is not water keeps its percentage, and with flour kept there is nothing
    /// to change. *Dough* kept: all others are scaled by `(M − new)/(M − old)`.
    ///
    /// ```
    /// use ironpeel_core::dough::{Ingredient::{Flour, Salt, Water}, KeptConstant, Masses};
    /// let dough = Masses(vec![(Flour, 100.0), (Water, 60.0), (Salt, 2.0)]);
    /// let wetter = dough.with(Water, 70.0, KeptConstant::Dough)?;
    /// assert!((wetter.total_kg() - 162.0).abs() < 1e-9);
    /// assert!((wetter.of(Salt) / wetter.of(Flour) - 0.02).abs() < 1e-9);
    /// # Ok::<(), ironpeel_core::dough::RescalingError>(())
    /// ```
    pub fn with(
        &self,
        changed: Ingredient,
        kg: f64,
        keep: KeptConstant,
    ) -> Result<Self, RescalingError> {
        if !self.0.iter().any(|(one, _)| *one == changed) {
            return Err(RescalingError::NotInIt);
        }
        if !kg.is_finite() || kg < 0.0 || (changed == Ingredient::Flour && kg <= 0.0) {
            return Err(RescalingError::NoDough);
        }
        let old = self.of(changed);
        let factor = match (keep, changed) {
            (KeptConstant::Flour, Ingredient::Flour) | (KeptConstant::Water, Ingredient::Water) => {
                return Err(RescalingError::IsKept);
            }
            (KeptConstant::Dough, _) => {
                let total = self.total_kg();
                if kg >= total {
                    return Err(RescalingError::TooMuch);
                }
                (total - kg) / (total - old)
            }
            (KeptConstant::Water, Ingredient::Flour) => kg / old,
            _ => 1.0,
        };
        let stays = |one: Ingredient| keep == KeptConstant::Water && one == Ingredient::Water;
        let masses = self.0.iter().map(|(one, was)| {
            let now = if *one == changed {
                kg
            } else if stays(*one) {
                *was
            } else {
                was * factor
            };
            (*one, now)
        });
        Ok(Self(masses.collect()))
    }

    /// Each ingredient but flour in percent on flour.
    pub fn on_flour(&self) -> Vec<(Ingredient, f64)> {
        let flour = self.of(Ingredient::Flour);
        let others = self.0.iter().filter(|(one, _)| *one != Ingredient::Flour);
        others.map(|(one, kg)| (*one, 100.0 * kg / flour)).collect()
    }
}
