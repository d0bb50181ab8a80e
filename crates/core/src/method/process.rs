use serde::{Deserialize, Serialize};

use crate::coefficient::Coefficient;
use crate::water::coefficients;

/// How a dough is made.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Process {
    NoTime,
    StraightBulk,
    SpongeDough,
    LongCold,
    Frozen,
}

impl Process {
    /// Every process.
    pub const ALL: [Self; 5] =
        [Self::NoTime, Self::StraightBulk, Self::SpongeDough, Self::LongCold, Self::Frozen];

    /// What it does to the water a dough wants.
    pub const fn water_step(self) -> &'static Coefficient {
        match self {
            Self::NoTime => &coefficients::NO_TIME,
            Self::StraightBulk => &coefficients::STRAIGHT_BULK,
            Self::SpongeDough => &coefficients::SPONGE_DOUGH,
            Self::LongCold => &coefficients::LONG_COLD,
            Self::Frozen => &coefficients::FROZEN,
        }
    }

    /// The word on screen.
    pub const fn label(self) -> &'static str {
        self.water_step().name
    }
}
