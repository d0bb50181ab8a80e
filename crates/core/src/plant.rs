//! A plant's own numbers: what it has in place of the house's, with the reasons on record.

use serde::{Deserialize, Serialize};

use crate::dough::{IngredientProperties, Library};
use crate::water::{AbsorptionModel, CorrectionFactors, Override};

/// A plant's own numbers, as every computation uses them.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct PlantNumbers {
    pub correction_factors: CorrectionFactors,
    pub library: Library,
    pub model: AbsorptionModel,
}

/// What of them differs from the house's: what is put on record.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
pub struct OwnNumbers {
    #[serde(default)]
    pub correction_factors: Vec<Override>,
    #[serde(default)]
    pub ingredients: Vec<IngredientProperties>,
    /// What was learned of absorption; the house's belief where nothing was.
    #[serde(default)]
    pub model: Option<AbsorptionModel>,
}

impl From<OwnNumbers> for PlantNumbers {
    fn from(own: OwnNumbers) -> Self {
        Self {
            correction_factors: CorrectionFactors(own.correction_factors),
            library: Library::with(own.ingredients),
            model: own.model.unwrap_or_default(),
        }
    }
}
