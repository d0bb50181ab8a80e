//! What somebody may do, by their roles.

use ironpeel_store::PersonRole;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What somebody may do.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Access {
    /// Look, and ask what stores nothing.
    Read,
    /// Record on batches, stock and readings.
    Record,
    /// Change specifications, formulas, methods, coefficients and all else of the job.
    Change,
    /// People, keys and settings.
    Administer,
}

impl Access {
    pub const ALL: [Self; 4] = [Self::Read, Self::Record, Self::Change, Self::Administer];

    pub const fn word(self) -> &'static str {
        match self {
            Self::Read => "read",
            Self::Record => "record",
            Self::Change => "change",
            Self::Administer => "administer",
        }
    }

    /// Whose it is, in words.
    pub const fn whose(self) -> &'static str {
        match self {
            Self::Read => "everybody's with an account",
            Self::Record => "the floor's and a technologist's",
            Self::Change => "a technologist's",
            Self::Administer => "an administrator's",
        }
    }

    /// Whether one of these roles has it.
    pub fn is_of(self, roles: &[PersonRole]) -> bool {
        roles.iter().any(|role| match role {
            PersonRole::Technologist => self != Self::Administer,
            PersonRole::Floor => matches!(self, Self::Read | Self::Record),
            PersonRole::Visitor => self == Self::Read,
            PersonRole::Administrator => matches!(self, Self::Read | Self::Administer),
        })
    }

    /// All that these roles have.
    pub fn of(roles: &[PersonRole]) -> Vec<Self> {
        Self::ALL.into_iter().filter(|access| access.is_of(roles)).collect()
    }
}
