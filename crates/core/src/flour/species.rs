use serde::{Deserialize, Serialize};

/// The grain a flour is milled from. Hardness is a matter of its own.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Species {
    Wheat,
    Durum,
    Spelt,
    Emmer,
    Einkorn,
    Khorasan,
    Rye,
    /// A blend of starches and flours without gluten.
    GlutenFree,
    /// A mix of proteins and fibres with little starch.
    LowStarch,
}

impl Species {
    /// Every grain.
    pub const ALL: [Self; 9] = [
        Self::Wheat,
        Self::Durum,
        Self::Spelt,
        Self::Emmer,
        Self::Einkorn,
        Self::Khorasan,
        Self::Rye,
        Self::GlutenFree,
        Self::LowStarch,
    ];

    /// The word in tables and on the wire.
    pub const fn key(self) -> &'static str {
        match self {
            Self::Wheat => "wheat",
            Self::Durum => "durum",
            Self::Spelt => "spelt",
            Self::Emmer => "emmer",
            Self::Einkorn => "einkorn",
            Self::Khorasan => "khorasan",
            Self::Rye => "rye",
            Self::GlutenFree => "gluten_free",
            Self::LowStarch => "low_starch",
        }
    }

    /// The word on screen.
    pub const fn label(self) -> &'static str {
        match self {
            Self::Wheat => "common wheat",
            Self::GlutenFree => "gluten-free blend",
            Self::LowStarch => "low-starch mix",
            other => other.key(),
        }
    }

    /// Whether a gluten film carries the dough, so that rules about gluten speak of it.
    pub const fn has_gluten(self) -> bool {
        !matches!(self, Self::GlutenFree | Self::LowStarch)
    }

    /// The grain of this word.
    pub fn from_key(key: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|species| species.key() == key)
    }
}
