use serde::{Deserialize, Serialize};

use super::coefficients as c;
use crate::coefficient::{Coefficient, Coefficients};

/// What a dough or a preparation is made in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Vessel {
    /// The mixer's own, whose share of the heat is in the mixer's learned power.
    MixerBowl,
    Trough,
    Bowl,
    Tub,
    Pot,
}

impl Vessel {
    /// Every vessel, the mixer's first.
    pub const ALL: [Self; 5] = [Self::MixerBowl, Self::Trough, Self::Bowl, Self::Tub, Self::Pot];

    /// The word in tables and on the wire.
    pub const fn key(self) -> &'static str {
        match self {
            Self::MixerBowl => "mixer_bowl",
            Self::Trough => "trough",
            Self::Bowl => "bowl",
            Self::Tub => "tub",
            Self::Pot => "pot",
        }
    }

    /// The vessel of this word.
    pub fn from_key(key: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|vessel| vessel.key() == key)
    }

    /// Heat that warms it by 1 K where it holds 1 kg, kJ/K.
    const fn heat(self) -> Option<&'static Coefficient> {
        match self {
            Self::MixerBowl => None,
            Self::Trough => Some(&c::TROUGH_HEAT),
            Self::Bowl => Some(&c::BOWL_HEAT),
            Self::Tub => Some(&c::TUB_HEAT),
            Self::Pot => Some(&c::POT_HEAT),
        }
    }

    /// What vessel and room take from so much in it for so many minutes, for each degree that it is
    /// warmer than they are, kJ/K: `(heat + loss · minutes) · kg^⅔`, for walls grow as the surface.
    /// Nothing of a mixer's bowl.
    ///
    /// ```
    /// use ironpeel_core::coefficient::Coefficients;
    /// use ironpeel_core::dough::Vessel;
    /// let house = Coefficients::default();
    /// let bowl = Vessel::Bowl.takes_kj_per_k(0.5, 10.0, &house);
    /// assert!((bowl - 0.47).abs() < 0.01, "{bowl}");
    /// assert_eq!(Vessel::MixerBowl.takes_kj_per_k(0.5, 10.0, &house), 0.0);
    /// ```
    pub fn takes_kj_per_k(self, kg: f64, minutes: f64, coefficients: &Coefficients) -> f64 {
        self.heat().map_or(0.0, |heat| {
            let each = coefficients.value(heat) + coefficients.value(&c::ROOM_TAKES) * minutes;
            each * kg.cbrt().powi(2)
        })
    }
}
