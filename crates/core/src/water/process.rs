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

    /// Points of water on flour: typical, low, high.
    pub(super) const fn points(self) -> (f64, f64, f64) {
        match self {
            Self::NoTime => (-1.0, -2.0, 0.0),
            Self::StraightBulk => (0.0, 0.0, 0.0),
            Self::SpongeDough => (3.0, 2.0, 4.0),
            Self::LongCold => (1.0, 0.0, 2.0),
            Self::Frozen => (-3.0, -4.0, -2.0),
        }
    }

    /// Why the process moves the water.
    pub(super) const fn reason(self) -> &'static str {
        match self {
            Self::NoTime => "no hours to hydrate: what is not taken up at the mixer stays sticky",
            Self::StraightBulk => "the flour's own figure holds for a dough with bulk time",
            Self::SpongeDough => "the sponge's hours hydrate flour that a mixer cannot",
            Self::LongCold => "a long rest takes up more water",
            Self::Frozen => "free water makes ice that tears the film",
        }
    }
}
