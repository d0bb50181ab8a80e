use serde::{Deserialize, Serialize};

/// How a dough is made, as far as its water goes.
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

    /// The word in tables and on the wire.
    pub const fn key(self) -> &'static str {
        match self {
            Self::NoTime => "no_time",
            Self::StraightBulk => "straight_bulk",
            Self::SpongeDough => "sponge_dough",
            Self::LongCold => "long_cold",
            Self::Frozen => "frozen",
        }
    }

    /// The process of this word.
    pub fn from_key(key: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|process| process.key() == key)
    }

    /// The word on screen.
    pub const fn label(self) -> &'static str {
        match self {
            Self::NoTime => "no-time straight dough",
            Self::StraightBulk => "straight dough with bulk",
            Self::SpongeDough => "sponge and dough",
            Self::LongCold => "long cold or autolysed",
            Self::Frozen => "frozen dough",
        }
    }
}
