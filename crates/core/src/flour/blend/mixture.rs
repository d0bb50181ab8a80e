use serde::{Deserialize, Serialize};

use crate::flour::{falling_number, liquefaction};
use crate::units::NumberRange;

/// A property that is known of a blend from its parts.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub enum BlendProperty {
    #[serde(rename = "moisture_pct")]
    Moisture,
    #[serde(rename = "protein_14_pct")]
    Protein,
    #[serde(rename = "ash_dm_pct")]
    Ash,
    #[serde(rename = "damaged_starch_pct")]
    DamagedStarch,
    #[serde(rename = "w")]
    W,
    #[serde(rename = "falling_number_s")]
    FallingNumber,
}

impl BlendProperty {
    /// Every property a blend is computed for.
    pub const ALL: [Self; 6] = [
        Self::Moisture,
        Self::Protein,
        Self::Ash,
        Self::DamagedStarch,
        Self::W,
        Self::FallingNumber,
    ];

    /// Its field in requests and answers.
    pub const fn key(self) -> &'static str {
        match self {
            Self::Moisture => "moisture_pct",
            Self::Protein => "protein_14_pct",
            Self::Ash => "ash_dm_pct",
            Self::DamagedStarch => "damaged_starch_pct",
            Self::W => "w",
            Self::FallingNumber => "falling_number_s",
        }
    }

    /// The property of this field, or of its bare name (`protein`).
    pub fn named(text: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|property| {
            let key = property.key();
            key == text
                || (!text.is_empty()
                    && key.strip_prefix(text).is_some_and(|rest| rest.starts_with('_')))
        })
    }

    const fn words(self) -> (&'static str, &'static str, f64, f64) {
        match self {
            Self::Moisture => ("moisture", "%", 0.0, 30.0),
            Self::Protein => ("protein on 14 %", "%", 0.0, 40.0),
            Self::Ash => ("ash on dry matter", "%", 0.0, 8.0),
            Self::DamagedStarch => ("damaged starch", "%", 0.0, 40.0),
            Self::W => ("W", "10-4 J", 0.0, 900.0),
            Self::FallingNumber => ("falling number", "s", 60.0, 900.0),
        }
    }

    /// The word on screen.
    pub const fn label(self) -> &'static str {
        self.words().0
    }

    /// Its unit.
    pub const fn unit(self) -> &'static str {
        self.words().1
    }

    pub(super) const fn bound(self) -> NumberRange {
        let (words, unit, min, max) = self.words();
        NumberRange::new(self.key(), words, unit, min, max)
    }

    pub(super) const fn side_bound(self, side: &'static str) -> NumberRange {
        let (words, unit, min, max) = self.words();
        NumberRange::new(side, words, unit, min, max)
    }

    /// The value that mixes, of a value of the property: itself, or its liquefaction number.
    pub(super) fn to_mixing(self, value: f64) -> f64 {
        if self == Self::FallingNumber { liquefaction(value) } else { value }
    }

    pub(super) fn mixed_back(self, mixing: f64) -> f64 {
        if self == Self::FallingNumber { falling_number(mixing) } else { mixing }
    }

    /// Whether a higher value of the property is a lower value of what mixes.
    pub(super) const fn turns(self) -> bool {
        matches!(self, Self::FallingNumber)
    }
}

/// What a flour, or a blend of them, has.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Mixture {
    pub moisture_pct: f64,
    pub protein_14_pct: f64,
    pub ash_dm_pct: f64,
    pub damaged_starch_pct: f64,
    /// 10⁻⁴ J; of a blend only roughly known.
    pub w: f64,
    pub falling_number_s: f64,
}

/// A flour that may go into a blend.
#[derive(Debug, Clone, PartialEq)]
pub struct BlendFlour {
    pub name: String,
    pub price_per_t: f64,
    pub properties: Mixture,
    pub min_share_pct: f64,
    pub max_share_pct: f64,
}

impl Mixture {
    /// One property of it.
    pub const fn get(&self, property: BlendProperty) -> f64 {
        match property {
            BlendProperty::Moisture => self.moisture_pct,
            BlendProperty::Protein => self.protein_14_pct,
            BlendProperty::Ash => self.ash_dm_pct,
            BlendProperty::DamagedStarch => self.damaged_starch_pct,
            BlendProperty::W => self.w,
            BlendProperty::FallingNumber => self.falling_number_s,
        }
    }

    /// What weighs in a mixture of this property, for a kilo of as-is flour: the flour itself for
    /// its moisture, its dry matter for everything else.
    pub(super) fn weight(&self, property: BlendProperty) -> f64 {
        if property == BlendProperty::Moisture { 1.0 } else { 1.0 - self.moisture_pct / 100.0 }
    }

    /// The blend of parts with these as-is masses, in any unit.
    ///
    /// ```
    /// use ironpeel_core::flour::Mixture;
    /// let flour = |falling_number_s| Mixture {
    ///     moisture_pct: 14.0, protein_14_pct: 12.0, ash_dm_pct: 0.6, damaged_starch_pct: 8.0,
    ///     w: 250.0, falling_number_s,
    /// };
    /// let blend = Mixture::of([(flour(250.0), 60.0), (flour(400.0), 40.0)]);
    /// assert!((blend.falling_number_s - 291.0).abs() < 0.5);
    /// ```
    pub fn of(parts: impl IntoIterator<Item = (Self, f64)>) -> Self {
        let parts: Vec<(Self, f64)> = parts.into_iter().collect();
        let mean = |property: BlendProperty| {
            let (sum, weight) = parts.iter().fold((0.0, 0.0), |(sum, weight), (part, mass)| {
                let w = part.weight(property) * mass;
                (sum + w * property.to_mixing(part.get(property)), weight + w)
            });
            property.mixed_back(sum / weight)
        };
        Self {
            moisture_pct: mean(BlendProperty::Moisture),
            protein_14_pct: mean(BlendProperty::Protein),
            ash_dm_pct: mean(BlendProperty::Ash),
            damaged_starch_pct: mean(BlendProperty::DamagedStarch),
            w: mean(BlendProperty::W),
            falling_number_s: mean(BlendProperty::FallingNumber),
        }
    }
}
