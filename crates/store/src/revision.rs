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

/// The columns of a document's revisions, as [`Revision`] takes them.
macro_rules! revision_columns {
    ($table:ident) => {
        ($table::id, $table::number, $table::made_at, $table::made_by, $table::reason)
    };
}

/// The id of a document's newest revision.
macro_rules! newest_revision {
    ($store:expr, $table:ident, $owner:ident = $id:expr, $what:literal) => {{
        let id: Option<Uuid> = $table::table
            .filter($table::$owner.eq($id))
            .order($table::number.desc())
            .select($table::id)
            .first(&mut $store.connection().await?)
            .await
            .optional()?;
        id.ok_or(StoreError::NotFound($what))
    }};
}

/// Every revision of a document, newest first.
macro_rules! all_revisions {
    ($store:expr, $table:ident, $owner:ident = $id:expr) => {
        $table::table
            .filter($table::$owner.eq($id))
            .order($table::number.desc())
            .select(crate::revision::revision_columns!($table))
            .load(&mut $store.connection().await?)
            .await
    };
}

pub(crate) use {all_revisions, newest_revision, revision_columns};
