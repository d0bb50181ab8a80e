use chrono::{DateTime, Utc};
use diesel::prelude::*;
use serde::Serialize;
use uuid::Uuid;

/// Who changed a document and why.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Signed {
    pub by: String,
    pub reason: String,
}

/// One state of a document, with who, when and why.
#[derive(Debug, Clone, PartialEq, Eq, Queryable, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
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

/// The columns every revision has, to be inserted.
macro_rules! signed_columns {
    ($table:ident, $id:expr, $number:expr, $signed:expr) => {
        (
            $table::id.eq($id),
            $table::number.eq($number),
            $table::made_by.eq(&$signed.by),
            $table::reason.eq(&$signed.reason),
        )
    };
}

/// Adds a revision with what belongs to it, and says whether it was added: one that stands already
/// is left as it is, and one that is not the next after the newest is refused.
macro_rules! add_revision {
    ($connection:expr, $table:ident, [$($owner:ident = $owner_id:expr)?], $id:expr, $number:expr, $name:expr, $row:expr, $details:block) => {{
        let added = diesel::insert_into($table::table)
            .values($row)
            .on_conflict($table::id)
            .do_nothing()
            .execute($connection)
            .await?;
        if added == 1 {
            $details
            crate::revision::is_next!(
                $connection, $table, [$($owner = $owner_id)?], $id, $number, $name
            );
        }
        added == 1
    }};
}

/// Refuses a revision that is not the one after the newest.
macro_rules! is_next {
    ($connection:expr, $table:ident, [$($owner:ident = $owner_id:expr)?], $id:expr, $number:expr, $name:expr) => {{
        let newest: Option<i32> = $table::table
            $(.filter($table::$owner.eq($owner_id)))?
            .filter($table::id.ne($id))
            .select(diesel::dsl::max($table::number))
            .first($connection)
            .await?;
        crate::revision::next_after(newest, $number, $name)?;
    }};
}

/// Whether a revision's number is the one after the newest.
pub(crate) fn next_after(newest: Option<i32>, number: i32, name: &str) -> crate::error::Result<()> {
    let next = i64::from(newest.unwrap_or(0)) + 1;
    if i64::from(number) == next {
        return Ok(());
    }
    let stands =
        newest.map_or("has no revision yet".into(), |newest| format!("is at revision {newest}"));
    Err(crate::error::StoreError::Conflict(format!(
        "{name} {stands}: the next one is {next}, and {number} was sent. Look at the newest first"
    )))
}

pub(crate) use {
    add_revision, all_revisions, is_next, newest_revision, revision_columns, signed_columns,
};
