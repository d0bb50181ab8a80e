use serde::{Deserialize, Serialize};

use crate::dough::Ingredient;
use crate::units::{NumberRange, RawNumber, ValidationErrors};

/// Something of the final dough that goes in at a stage.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(from = "Written<Option<f64>>")]
pub struct Addition {
    pub ingredient: Ingredient,
    /// Of what the final dough takes of it; what no other stage takes where none is stated.
    pub share_pct: Option<f64>,
    /// How warm it goes in; as it comes where none is stated.
    pub temperature_c: Option<f64>,
}

impl Addition {
    /// All of an ingredient that no other stage takes, as it comes.
    pub const fn rest_of(ingredient: Ingredient) -> Self {
        Self { ingredient, share_pct: None, temperature_c: None }
    }
}

/// An addition as it was typed; the ingredient's word alone is all of it.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(from = "Written<RawNumber>")]
pub struct AdditionInput {
    pub ingredient: Ingredient,
    /// More than 0, up to 100 % of it; what no other stage takes if left out.
    #[cfg_attr(feature = "openapi", schema(required = false))]
    pub share_pct: RawNumber,
    /// −20 to 100 °C; as it comes if left out.
    #[cfg_attr(feature = "openapi", schema(required = false))]
    pub temperature_c: RawNumber,
}

/// How an addition is written: earlier methods have the ingredient's word alone.
#[derive(Deserialize)]
#[serde(untagged, bound(deserialize = "N: Deserialize<'de> + Default"))]
enum Written<N> {
    Word(Ingredient),
    Whole {
        ingredient: Ingredient,
        #[serde(default)]
        share_pct: N,
        #[serde(default)]
        temperature_c: N,
    },
}

impl<N: Default> Written<N> {
    fn parts(self) -> (Ingredient, N, N) {
        match self {
            Self::Word(ingredient) => (ingredient, N::default(), N::default()),
            Self::Whole { ingredient, share_pct, temperature_c } => {
                (ingredient, share_pct, temperature_c)
            }
        }
    }
}

impl From<Written<Option<f64>>> for Addition {
    fn from(written: Written<Option<f64>>) -> Self {
        let (ingredient, share_pct, temperature_c) = written.parts();
        Self { ingredient, share_pct, temperature_c }
    }
}

impl From<Written<RawNumber>> for AdditionInput {
    fn from(written: Written<RawNumber>) -> Self {
        let (ingredient, share_pct, temperature_c) = written.parts();
        Self { ingredient, share_pct, temperature_c }
    }
}

const SHARE: NumberRange =
    NumberRange::new("share_pct", "share of the ingredient", "%", 0.1, 100.0);
const TEMPERATURE: NumberRange =
    NumberRange::new("temperature_c", "what goes in", "°C", -20.0, 100.0);

impl AdditionInput {
    pub(super) fn check(&self, at: &str, faults: &mut ValidationErrors) -> Addition {
        let share_pct = SHARE.check_opt(&self.share_pct, at, faults);
        if self.ingredient == Ingredient::Flour && share_pct.is_some() {
            let message =
                "flour goes in whole; a part of it that is wetted before is a preparation";
            faults.push(format!("{at}share_pct"), message);
        }
        Addition {
            ingredient: self.ingredient,
            share_pct,
            temperature_c: TEMPERATURE.check_opt(&self.temperature_c, at, faults),
        }
    }
}

/// A share of an ingredient and the stage it goes in at.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Portion {
    /// The place of the stage in the method.
    pub at: usize,
    /// Of what the final dough takes of it, 0 to 1.
    pub share: f64,
    pub temperature_c: Option<f64>,
}
