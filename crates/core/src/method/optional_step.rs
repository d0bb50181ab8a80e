use serde::{Deserialize, Serialize};

/// A step on which there are two schools.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum OptionalStep {
    /// Yeast given a head start in a little lukewarm water.
    YeastProofed,
    /// Flour and water resting before the rest.
    Autolyse,
    /// Salt held back to three quarters of mixing.
    SaltLate,
}

impl OptionalStep {
    /// Every one.
    pub const ALL: [Self; 3] = [Self::YeastProofed, Self::Autolyse, Self::SaltLate];

    /// The word in tables and on the wire.
    pub const fn key(self) -> &'static str {
        match self {
            Self::YeastProofed => "yeast_proofed",
            Self::Autolyse => "autolyse",
            Self::SaltLate => "salt_late",
        }
    }

    /// The step of this word.
    pub fn from_key(key: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|step| step.key() == key)
    }
}
