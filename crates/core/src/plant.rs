//! A plant's own numbers: what it has in place of the house's, with the reasons on record.

use serde::{Deserialize, Serialize};

use crate::coefficient::{Coefficient, Coefficients, Override};
use crate::dough::{IngredientProperties, Library};
use crate::water::AbsorptionModel;
use crate::{dough, fault, ferment, flour, heat, judging, learn, method, oven, schedule, water};

/// A plant's parameters, as every computation uses them.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct PlantParameters {
    pub coefficients: Coefficients,
    pub library: Library,
    pub model: AbsorptionModel,
}

/// What of them differs from the house's: what is put on record.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
pub struct OwnParameters {
    #[serde(default, alias = "correction_factors")]
    pub coefficients: Vec<Override>,
    #[serde(default)]
    pub ingredients: Vec<IngredientProperties>,
    /// What was learned of absorption; what is believed before any lot where nothing was.
    #[serde(default)]
    pub model: Option<AbsorptionModel>,
}

impl From<OwnParameters> for PlantParameters {
    fn from(own: OwnParameters) -> Self {
        let coefficients = Coefficients(own.coefficients);
        Self {
            library: Library::with(own.ingredients),
            model: own.model.unwrap_or_else(|| AbsorptionModel::prior(&coefficients)),
            coefficients,
        }
    }
}

/// Every coefficient by its subject, lowest first.
pub static COEFFICIENTS: [(&str, &[&Coefficient]); 11] = [
    ("flour", flour::coefficients::ALL),
    ("dough", dough::coefficients::ALL),
    ("water", water::coefficients::ALL),
    ("heat", heat::coefficients::ALL),
    ("ferment", ferment::coefficients::ALL),
    ("method", method::coefficients::ALL),
    ("schedule", schedule::coefficients::ALL),
    ("learn", learn::coefficients::ALL),
    ("oven", oven::coefficients::ALL),
    ("judging", judging::coefficients::ALL),
    ("fault", fault::coefficients::ALL),
];

/// The coefficient of a key.
///
/// ```
/// use ironpeel_core::plant::coefficient;
/// assert_eq!(coefficient("rye_offset").map(|found| found.value), Some(8.0));
/// assert!(coefficient("oat_offset").is_none());
/// ```
pub fn coefficient(key: &str) -> Option<&'static Coefficient> {
    let mut all = COEFFICIENTS.iter().flat_map(|(_, of)| of.iter());
    all.find(|one| one.key == key).copied().or_else(|| fault::fault_coefficient(key))
}
