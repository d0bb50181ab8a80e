use serde::{Deserialize, Serialize};

use super::Moisture;

/// The moisture a value is stated at.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum MoistureBasis {
    /// At the flour's own moisture.
    AsIs,
    /// On 14 % moisture.
    Fourteen,
    /// On dry matter.
    DryMatter,
}

impl MoistureBasis {
    /// The basis as written on certificates and screens.
    pub const fn label(self) -> &'static str {
        match self {
            Self::AsIs => "as is",
            Self::Fourteen => "14 %",
            Self::DryMatter => "dry matter",
        }
    }

    /// The word in tables.
    pub const fn key(self) -> &'static str {
        match self {
            Self::AsIs => "as_is",
            Self::Fourteen => "fourteen",
            Self::DryMatter => "dry_matter",
        }
    }

    /// The basis written like this on certificates and screens.
    pub fn from_label(label: &str) -> Option<Self> {
        [Self::AsIs, Self::Fourteen, Self::DryMatter]
            .into_iter()
            .find(|basis| basis.label() == label)
    }

    /// The moisture it means for a flour of `own` moisture; none where that is not known.
    pub(super) fn moisture(self, own: Option<Moisture>) -> Option<Moisture> {
        match self {
            Self::AsIs => own,
            Self::Fourteen => Some(Moisture::FOURTEEN),
            Self::DryMatter => Some(Moisture::DRY),
        }
    }
}
