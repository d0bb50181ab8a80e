use super::Composition;
use crate::flour::{Moisture, Species};

/// What the build-up needs to know of a flour.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Flour {
    pub moisture: Moisture,
    /// Where no moisture is stated and a usual one was taken, the driest and dampest it may be, %.
    pub usual_moisture: Option<[f64; 2]>,
    /// Farinograph absorption on 14 %; of a blend without gluten, the water its own sheet states.
    pub absorption_14_pct: Option<f64>,
    /// What the absorption is estimated from where no curve came with the lot.
    pub composition: Composition,
    pub species: Species,
    /// Share of the flour that is whole grain, %.
    pub whole_grain_pct: f64,
    pub age_days: Option<f64>,
    pub w: Option<f64>,
}

impl Flour {
    /// A common white wheat flour with its measured absorption, of which nothing more is known.
    pub const fn measured(moisture: Moisture, absorption_14_pct: f64) -> Self {
        Self {
            moisture,
            usual_moisture: None,
            absorption_14_pct: Some(absorption_14_pct),
            composition: Composition {
                protein_14_pct: None,
                damaged_starch_pct: None,
                ash_dm_pct: None,
            },
            species: Species::Wheat,
            whole_grain_pct: 0.0,
            age_days: None,
            w: None,
        }
    }
}

/// A flour and its share of all flour, in percent.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FlourPart<'a> {
    pub name: &'a str,
    pub flour: Flour,
    pub share_pct: f64,
}
