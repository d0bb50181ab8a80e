use serde::{Deserialize, Serialize};

/// What was done to a flour after milling.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Treatment {
    None,
    Malted,
    AscorbicAcid,
    Bleached,
    Other,
}

impl Treatment {
    /// Every treatment.
    pub const ALL: [Self; 5] =
        [Self::None, Self::Malted, Self::AscorbicAcid, Self::Bleached, Self::Other];

    /// The word in tables and on the wire.
    pub const fn key(self) -> &'static str {
        match self {
            Self::None => "none",
            Self::Malted => "malted",
            Self::AscorbicAcid => "ascorbic_acid",
            Self::Bleached => "bleached",
            Self::Other => "other",
        }
    }

    /// The treatment of this word.
    pub fn from_key(key: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|treatment| treatment.key() == key)
    }
}
