use serde::Deserialize;

use super::{FlourType, MoistureBasis, Property, Reading, Readings, Species, flour_types};
use crate::units::{NumberRange, RawNumber, ValidationErrors, quoted};

/// A flour as its bag states it; what is left out is taken as usual where it is used.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BagInput {
    #[serde(default)]
    pub name: String,
    /// Who milled or sells it; may be left out.
    #[serde(default)]
    pub mill: String,
    pub species: Species,
    /// The system and the class of its type number, as `DE 550`; empty if there is none.
    #[serde(default)]
    pub flour_type: String,
    #[serde(default)]
    pub whole_grain: bool,
    /// 5 to 25 g in 100 g, as the nutrition table states it.
    #[serde(default)]
    pub protein_pct: RawNumber,
    /// 30 to 600 (10⁻⁴ J).
    #[serde(default)]
    pub w: RawNumber,
    /// 5 to 18 %.
    #[serde(default)]
    pub moisture_pct: RawNumber,
}

/// A flour as its bag states it, checked.
#[derive(Debug, Clone, PartialEq)]
pub struct Bag {
    pub name: String,
    pub mill: String,
    pub whole_grain: bool,
    /// Only what is stated, and the ash that is usual of its type, which says so.
    pub readings: Readings,
}

const NAME_MAX: usize = 80;
/// The mill of a bag that names none.
const NOT_STATED: &str = "not stated";
const PROTEIN: NumberRange =
    NumberRange::new("protein_pct", "protein on the bag", "g in 100 g", 5.0, 25.0);
const W: NumberRange = NumberRange::new("w", "W", "10⁻⁴ J", 30.0, 600.0);
const MOISTURE: NumberRange = NumberRange::new("moisture_pct", "moisture", "%", 5.0, 18.0);

impl BagInput {
    /// The flour and its readings, or what is wrong with them.
    ///
    /// ```
    /// use ironpeel_core::flour::{BagInput, Property};
    /// use ironpeel_core::units::ValidationErrors;
    /// let bag: BagInput = serde_json::from_str(
    ///     r#"{"name": "Bag white", "species": "wheat", "flour_type": "DE 550", "protein_pct": 11}"#)?;
    /// let mut faults = ValidationErrors::default();
    /// let readings = bag.check(&mut faults).readings;
    /// assert_eq!(readings.get(Property::Ash).unwrap().method.as_deref(), Some("usual of DE 550"));
    /// assert_eq!(readings.moisture(), None, "the bag does not state it");
    /// # Ok::<(), serde_json::Error>(())
    /// ```
    pub fn check(&self, faults: &mut ValidationErrors) -> Bag {
        let name = self.name.trim();
        if name.is_empty() || name.chars().count() > NAME_MAX {
            faults.push("name", format!("what is the flour called? up to {NAME_MAX} letters"));
        }
        let mill = self.mill.trim();
        if mill.chars().count() > NAME_MAX {
            faults.push("mill", format!("up to {NAME_MAX} letters"));
        }
        let flour_type = self.flour_type(faults);
        let stated = |property, value: Option<f64>, basis| {
            let method = Some("stated on the bag".to_owned());
            value.map(|value| Reading { property, value, basis, method, censored: None })
        };
        let as_is = Some(MoistureBasis::AsIs);
        let readings = [
            stated(Property::Moisture, MOISTURE.check_opt(&self.moisture_pct, "", faults), None),
            stated(Property::Protein, PROTEIN.check_opt(&self.protein_pct, "", faults), as_is),
            flour_type.as_ref().map(FlourType::ash),
            stated(Property::W, W.check_opt(&self.w, "", faults), None),
        ];
        Bag {
            name: name.into(),
            mill: if mill.is_empty() { NOT_STATED } else { mill }.into(),
            whole_grain: self.whole_grain || flour_type.is_some_and(|one| one.whole_grain),
            readings: Readings(readings.into_iter().flatten().collect()),
        }
    }

    fn flour_type(&self, faults: &mut ValidationErrors) -> Option<FlourType> {
        let key = self.flour_type.trim();
        if key.is_empty() {
            return None;
        }
        let (own, others): (Vec<FlourType>, Vec<FlourType>) = flour_types()
            .into_iter()
            .filter(|one| one.key == key)
            .partition(|one| one.species == self.species);
        if own.is_empty() {
            faults.push(
                "flour_type",
                match others.first() {
                    Some(other) => format!("{key} is a class of {}", other.species.label()),
                    None => format!(
                        "“{}” is no class known here; a class is its system and its number: DE 550",
                        quoted(key)
                    ),
                },
            );
        }
        own.into_iter().next()
    }
}
