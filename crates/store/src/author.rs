//! Who writes and what they do, appended to the audit trail with what is written.

use diesel::prelude::*;
use diesel_async::{AsyncPgConnection, RunQueryDsl};
use serde_json::{Value, json};
use uuid::Uuid;

use crate::schema::audit_entry;

/// Who writes, from where.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Author {
    pub person_id: Option<Uuid>,
    pub api_key_id: Option<Uuid>,
    /// The tablet of the floor it is written at.
    pub station_id: Option<Uuid>,
    /// Whether they showed that it is them; what was written at a station without a connection is
    /// in somebody's name only.
    pub verified: bool,
    /// Who sent it in their name, where somebody else did.
    pub sent_by: Option<String>,
    /// As they are called now.
    pub name: String,
    pub address: String,
}

impl Author {
    /// Somebody known by name alone.
    pub fn called(name: impl Into<String>, address: impl Into<String>) -> Self {
        Self {
            person_id: None,
            api_key_id: None,
            station_id: None,
            verified: true,
            sent_by: None,
            name: name.into(),
            address: address.into(),
        }
    }
}

/// What is done.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct AuditedAct {
    /// As the API's document names it.
    pub action: String,
    /// The address it is done at.
    pub subject: String,
    /// What is recorded by it.
    pub record_id: Option<Uuid>,
    pub revision_before: Option<i32>,
    pub revision_after: Option<i32>,
    /// What it was before and is after, where that has no revisions.
    pub details: Option<Value>,
}

impl AuditedAct {
    pub fn new(action: impl Into<String>, subject: impl Into<String>) -> Self {
        Self { action: action.into(), subject: subject.into(), ..Self::default() }
    }
}

/// Appends an entry with whatever else is written by this connection.
pub(crate) async fn append(
    connection: &mut AsyncPgConnection,
    author: &Author,
    act: &AuditedAct,
) -> QueryResult<()> {
    let mut details = act.details.clone();
    if let Some(sent_by) = &author.sent_by {
        details.get_or_insert_with(|| json!({}))["sent_by"] = json!(sent_by);
    }
    diesel::insert_into(audit_entry::table)
        .values((
            audit_entry::id.eq(Uuid::now_v7()),
            audit_entry::person_id.eq(author.person_id),
            audit_entry::api_key_id.eq(author.api_key_id),
            audit_entry::who.eq(&author.name),
            audit_entry::address.eq(&author.address),
            audit_entry::action.eq(&act.action),
            audit_entry::subject.eq(&act.subject),
            audit_entry::record_id.eq(act.record_id),
            audit_entry::revision_before.eq(act.revision_before),
            audit_entry::revision_after.eq(act.revision_after),
            audit_entry::details.eq(details),
            audit_entry::station_id.eq(author.station_id),
            audit_entry::verified.eq(author.verified),
        ))
        .execute(connection)
        .await
        .map(drop)
}
