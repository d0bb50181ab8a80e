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
}
