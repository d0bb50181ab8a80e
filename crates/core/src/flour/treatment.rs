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
}
