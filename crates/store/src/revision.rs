use chrono::{DateTime, Utc};
use diesel::prelude::*;
use uuid::Uuid;

/// Who changed a document and why.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Signed {
    pub by: String,
    pub reason: String,
}

/// One state of a document, with who, when and why.
#[derive(Debug, Clone, PartialEq, Eq, Queryable)]
pub struct Revision {
    pub id: Uuid,
    pub number: i32,
    pub made_at: DateTime<Utc>,
    pub made_by: String,
    pub reason: String,
}
