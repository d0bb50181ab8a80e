use serde::{Deserialize, Serialize};

use super::MoistureBasis;
use super::coefficients::{
    REPEATS_ABSORPTION, REPEATS_ASH, REPEATS_DAMAGED_STARCH, REPEATS_FALLING_NUMBER,
    REPEATS_MOISTURE, REPEATS_PROTEIN, REPEATS_W, REPEATS_WET_GLUTEN,
};
use crate::coefficient::Coefficients;

/// A property a laboratory measures on flour.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Property {
    Moisture,
    Protein,
    Ash,
    WetGluten,
    GlutenIndex,
    FallingNumber,
    DamagedStarch,
    Absorption,
    Development,
    Stability,
    Softening,
    P,
    L,
    W,
    POverL,
    Ie,
    ParticleSize,
    /// Days from milling to delivery: from the lot's dates, not from a laboratory.
    Age,
}

/// How a property moves when the moisture it is stated at changes.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum BasisConversion {
    /// It does not.
    None,
    /// As a share of the flour: see [`super::at_moisture`].
    BlendShare,
    /// As added water: see [`super::absorption_at_moisture`].
    AddedWater,
}

/// Within how much two measurements of one sample agree.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Repeatability {
    /// Not on record: at least the step a certificate states the property to, never nothing.
    AtLeast(f64),
    Absolute(f64),
    PercentOfValue(f64),
}

impl Repeatability {
    /// In the property's own unit, at this value.
    pub fn at(self, value: f64) -> f64 {
        match self {
            Self::AtLeast(points) | Self::Absolute(points) => points,
            Self::PercentOfValue(percent) => value * percent / 100.0,
        }
    }
}

impl Property {
    /// Every property, in the order a certificate lists them.
    pub const ALL: [Self; 18] = [
        Self::Moisture,
        Self::Protein,
        Self::Ash,
        Self::WetGluten,
        Self::GlutenIndex,
        Self::FallingNumber,
        Self::DamagedStarch,
        Self::Absorption,
        Self::Development,
        Self::Stability,
        Self::Softening,
        Self::P,
        Self::L,
        Self::W,
        Self::POverL,
        Self::Ie,
        Self::ParticleSize,
        Self::Age,
    ];

    /// The word in files, tables and addresses.
    pub const fn key(self) -> &'static str {
        match self {
            Self::Moisture => "moisture",
            Self::Protein => "protein",
            Self::Ash => "ash",
            Self::WetGluten => "wet_gluten",
            Self::GlutenIndex => "gluten_index",
            Self::FallingNumber => "falling_number",
            Self::DamagedStarch => "damaged_starch",
            Self::Absorption => "absorption",
            Self::Development => "development",
            Self::Stability => "stability",
            Self::Softening => "softening",
            Self::P => "p",
            Self::L => "l",
            Self::W => "w",
            Self::POverL => "p_over_l",
            Self::Ie => "ie",
            Self::ParticleSize => "particle_size",
            Self::Age => "age",
        }
    }

    /// The word on screen and in certificates.
    pub const fn label(self) -> &'static str {
        match self {
            Self::Moisture => "moisture",
            Self::Protein => "protein",
            Self::Ash => "ash",
            Self::WetGluten => "wet gluten",
            Self::GlutenIndex => "gluten index",
            Self::FallingNumber => "falling number",
            Self::DamagedStarch => "damaged starch",
            Self::Absorption => "absorption",
            Self::Development => "development",
            Self::Stability => "stability",
            Self::Softening => "softening",
            Self::P => "P",
            Self::L => "L",
            Self::W => "W",
            Self::POverL => "P/L",
            Self::Ie => "Ie",
            Self::ParticleSize => "particle size",
            Self::Age => "days since milling",
        }
    }

    /// The unit it is kept in; empty for a bare ratio.
    pub const fn unit(self) -> &'static str {
        match self {
            Self::Moisture
            | Self::Protein
            | Self::Ash
            | Self::WetGluten
            | Self::DamagedStarch
            | Self::Absorption
            | Self::Ie => "%",
            Self::GlutenIndex | Self::POverL => "",
            Self::FallingNumber => "s",
            Self::Development | Self::Stability => "min",
            Self::Softening => "FU",
            Self::P => "mmH2O",
            Self::L => "mm",
            Self::W => "10-4 J",
            Self::ParticleSize => "µm",
            Self::Age => "days",
        }
    }

    /// What a laboratory can have measured; outside it is a slip of the pen.
    pub const fn range(self) -> (f64, f64) {
        match self {
            Self::Moisture => (0.0, 30.0),
            Self::Ash => (0.0, 8.0),
            Self::WetGluten => (0.0, 80.0),
            Self::GlutenIndex | Self::Ie => (0.0, 100.0),
            Self::FallingNumber => (60.0, 900.0),
            Self::Protein | Self::DamagedStarch => (0.0, 40.0),
            Self::Absorption => (30.0, 140.0),
            Self::Development | Self::Stability => (0.0, 60.0),
            Self::Softening => (0.0, 500.0),
            Self::P | Self::L => (5.0, 300.0),
            Self::W => (10.0, 900.0),
            Self::POverL => (0.05, 10.0),
            Self::ParticleSize => (1.0, 2000.0),
            Self::Age => (0.0, 3650.0),
        }
    }

    /// How it moves with moisture.
    pub const fn basis_conversion(self) -> BasisConversion {
        match self {
            Self::Protein | Self::Ash | Self::WetGluten | Self::DamagedStarch => {
                BasisConversion::BlendShare
            }
            Self::Absorption => BasisConversion::AddedWater,
            _ => BasisConversion::None,
        }
    }

    /// The bases it can be stated on: water absorbed has no dry matter to be a share of.
    ///
    /// ```
    /// use ironpeel_core::flour::{MoistureBasis, Property};
    /// assert!(!Property::Absorption.bases().contains(&MoistureBasis::DryMatter));
    /// assert!(Property::W.bases().is_empty());
    /// ```
    pub const fn bases(self) -> &'static [MoistureBasis] {
        use MoistureBasis::{AsIs, DryMatter, Fourteen};
        match self.basis_conversion() {
            BasisConversion::None => &[],
            BasisConversion::BlendShare => &[AsIs, Fourteen, DryMatter],
            BasisConversion::AddedWater => &[AsIs, Fourteen],
        }
    }

    /// The fringe in which a reading is borderline; where none is on record, the step a certificate
    /// states the property to.
    pub fn repeatability(self, coefficients: &Coefficients) -> Repeatability {
        let here = |coefficient| coefficients.value(coefficient);
        match self {
            Self::Moisture => Repeatability::Absolute(here(&REPEATS_MOISTURE)),
            Self::Protein => Repeatability::Absolute(here(&REPEATS_PROTEIN)),
            Self::Ash => Repeatability::Absolute(here(&REPEATS_ASH)),
            Self::Absorption => Repeatability::Absolute(here(&REPEATS_ABSORPTION)),
            Self::DamagedStarch => Repeatability::Absolute(here(&REPEATS_DAMAGED_STARCH)),
            Self::WetGluten => Repeatability::Absolute(here(&REPEATS_WET_GLUTEN)),
            Self::W => Repeatability::PercentOfValue(here(&REPEATS_W)),
            Self::FallingNumber => Repeatability::PercentOfValue(here(&REPEATS_FALLING_NUMBER)),
            // Days are counted, not measured.
            Self::Age => Repeatability::Absolute(0.0),
            _ => Repeatability::AtLeast(self.resolution()),
        }
    }

    /// The step a certificate states it to.
    pub(super) const fn resolution(self) -> f64 {
        match self {
            Self::Ash | Self::POverL => 0.01,
            Self::FallingNumber
            | Self::W
            | Self::P
            | Self::L
            | Self::Softening
            | Self::GlutenIndex
            | Self::ParticleSize
            | Self::Age => 1.0,
            _ => 0.1,
        }
    }

    /// The property a certificate's word means, however it is spaced or capitalised.
    ///
    /// ```
    /// use ironpeel_core::flour::Property;
    /// assert_eq!(Property::named("Falling number"), Some(Property::FallingNumber));
    /// assert_eq!(Property::named("loaf joy"), None);
    /// ```
    pub fn named(text: &str) -> Option<Self> {
        let wanted = folded(text);
        Self::ALL.into_iter().find(|property| {
            folded(property.label()) == wanted
                || folded(property.key()) == wanted
                || property.other_names().contains(&wanted.as_str())
        })
    }

    /// Other words for it, folded: lower case, letters and digits only.
    const fn other_names(self) -> &'static [&'static str] {
        match self {
            Self::Moisture => &["watercontent"],
            Self::Ash => &["mineralcontent"],
            Self::WetGluten => &["gluten"],
            Self::GlutenIndex => &["gi"],
            Self::FallingNumber => &["fn", "hagberg"],
            Self::DamagedStarch => &["starchdamage", "ds"],
            Self::Absorption => &["waterabsorption", "wa"],
            Self::Development => &["developmenttime"],
            Self::Softening => &["degreeofsoftening"],
            Self::Ie => &["elasticityindex"],
            Self::ParticleSize => &["d50", "medianparticlesize"],
            _ => &[],
        }
    }

    /// The factor from a certificate's unit to the one the property is kept in, if it is one.
    pub(super) fn factor_from(self, unit: &str) -> Option<f64> {
        let unit = unit.trim();
        let word = if unit == "%" { "%".to_owned() } else { folded(unit) };
        match (self.unit(), word.as_str()) {
            ("%", "%" | "g100g")
            | ("", "")
            | ("s", "s" | "sec" | "seconds")
            | ("min", "min" | "minutes")
            | ("FU", "fu" | "bu")
            | ("mmH2O", "mmh2o" | "mmh₂o")
            | ("mm", "mm")
            | ("µm", "µm" | "μm" | "um" | "micron" | "microns")
            | ("days", "d" | "day" | "days")
            | ("10-4 J", "104j" | "10⁴j" | "10e4j" | "1e4j") => Some(1.0),
            ("", "%") if self == Self::GlutenIndex => Some(1.0),
            ("%", "gkg") => Some(0.1),
            ("min", "s" | "sec" | "seconds") => Some(1.0 / 60.0),
            _ => None,
        }
    }
}

/// Lower case, letters and digits only, so that spacing and marks do not matter.
pub(super) fn folded(text: &str) -> String {
    text.chars().filter(|c| c.is_alphanumeric()).flat_map(char::to_lowercase).collect()
}

/// The basis a property is judged and compared on.
pub const fn usual_basis(property: Property) -> Option<MoistureBasis> {
    match (property, property.basis_conversion()) {
        (Property::Ash, _) => Some(MoistureBasis::DryMatter),
        (Property::DamagedStarch, _) => Some(MoistureBasis::AsIs),
        (_, BasisConversion::None) => None,
        _ => Some(MoistureBasis::Fourteen),
    }
}
