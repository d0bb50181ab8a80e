use serde::{Deserialize, Serialize};

/// What somebody is here for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum PersonRole {
    /// Everything of the job.
    Technologist,
    /// Sees plans and sheets; records on batches, stock and readings.
    Floor,
    /// Reads.
    Visitor,
    /// People, settings, backup.
    Administrator,
}
