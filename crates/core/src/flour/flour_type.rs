use serde::Serialize;

use super::names::{Class, DE_RYE, DE_SPELT, DE_WHEAT, FR_WHEAT, IT_WHEAT, US_WHEAT};
use super::{MoistureBasis, Property, Reading, Species};

/// A national class, as a bag's type number says it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FlourType {
    /// The system and the class: `DE 550`.
    pub key: String,
    pub species: Species,
    /// What is usual of its ash, % on `ash_basis`.
    pub ash_pct: f64,
    pub ash_basis: MoistureBasis,
    pub whole_grain: bool,
}

impl FlourType {
    /// Its ash as a reading that says where it comes from.
    pub fn ash(&self) -> Reading {
        Reading {
            property: Property::Ash,
            value: self.ash_pct,
            basis: Some(self.ash_basis),
            method: Some(format!("usual of {}", self.key)),
            censored: None,
        }
    }
}

/// Every class whose ash is known, each with the middle of its range; the whitest with its most, what
/// is open above with its least.
///
/// ```
/// use ironpeel_core::flour::{Species, flour_types};
/// let types = flour_types();
/// let found = types.iter().find(|one| one.key == "DE 550").unwrap();
/// assert!((found.ash_pct - 0.57).abs() < 1e-9);
/// assert!(types.iter().any(|one| one.species == Species::Rye));
/// ```
pub fn flour_types() -> Vec<FlourType> {
    let (dry, on_14) = (MoistureBasis::DryMatter, MoistureBasis::Fourteen);
    let systems: [(&str, Species, &[Class], MoistureBasis); 6] = [
        ("FR", Species::Wheat, &FR_WHEAT, dry),
        ("DE", Species::Wheat, &DE_WHEAT, dry),
        ("DE", Species::Rye, &DE_RYE, dry),
        ("DE", Species::Spelt, &DE_SPELT, dry),
        ("IT", Species::Wheat, &IT_WHEAT, dry),
        ("US", Species::Wheat, &US_WHEAT, on_14),
    ];
    let of_system = |(system, species, classes, ash_basis): (&str, Species, &[Class], _)| {
        let last = classes.len().saturating_sub(1);
        let of_class = |(at, &(class, low, high)): (usize, &Class)| FlourType {
            key: format!("{system} {class}"),
            species,
            ash_pct: match (low, high) {
                (_, high) if high.is_infinite() => low,
                (0.0, high) => high,
                (low, high) => f64::midpoint(low, high),
            },
            ash_basis,
            // Of a system's classes the last of wheat is the whole grain, where it is open or named so.
            whole_grain: at == last && (high.is_infinite() || class == "integrale"),
        };
        classes.iter().enumerate().map(of_class).collect::<Vec<_>>()
    };
    systems.into_iter().flat_map(of_system).collect()
}
