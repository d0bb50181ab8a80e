//! The audit trail: who did what, when, from where. Appended to, never changed.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::RunQueryDsl;
use serde::Serialize;
use serde_json::Value;
use uuid::Uuid;

use crate::author::{AuditedAct, Author, append};
use crate::error::Result;
use crate::schema::audit_entry;
use crate::store::{PageKey, Store, past};

/// One entry of the audit trail.
#[derive(Debug, Clone, PartialEq, Queryable, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AuditEntry {
    pub id: Uuid,
    pub at: DateTime<Utc>,
    pub person_id: Option<Uuid>,
    pub api_key_id: Option<Uuid>,
    /// As they were called then.
    pub who: String,
    /// Where from.
    pub address: String,
    /// What was done, as the API's document names it.
    pub action: String,
    /// The address it was done at.
    pub subject: String,
    /// What was recorded.
    pub record_id: Option<Uuid>,
    pub revision_before: Option<i32>,
    pub revision_after: Option<i32>,
    #[cfg_attr(feature = "openapi", schema(value_type = Option<Object>))]
    pub details: Option<Value>,
    /// The tablet of the floor it was done at.
    pub station_id: Option<Uuid>,
    /// Whether its author showed that it was them.
    pub verified: bool,
}

/// Which entries are wanted; all where nothing is set.
#[derive(Debug, Clone, Default)]
pub struct AuditFilter {
    pub person_id: Option<Uuid>,
    /// Part of the action or of its address.
    pub text: Option<String>,
    pub from: Option<DateTime<Utc>>,
    pub to: Option<DateTime<Utc>>,
}

impl Store {
    /// Appends an entry of its own.
    pub async fn audit(&self, author: &Author, act: &AuditedAct) -> Result<()> {
        Ok(append(&mut *self.connection().await?, author, act).await?)
    }

    /// Entries, newest first.
    pub async fn audit_entries(
        &self,
        filter: &AuditFilter,
        after: Option<PageKey>,
        most: i64,
    ) -> Result<Vec<AuditEntry>> {
        let mut entries =
            audit_entry::table.order((audit_entry::at.desc(), audit_entry::id.desc())).into_boxed();
        if let Some(person_id) = filter.person_id {
            entries = entries.filter(audit_entry::person_id.eq(person_id));
        }
        if let Some(text) = &filter.text {
            let escaped = text.replace('\\', "\\\\").replace('%', "\\%").replace('_', "\\_");
            let like = format!("%{escaped}%");
            let fits = audit_entry::action
                .ilike(like.clone())
                .or(audit_entry::subject.ilike(like.clone()));
            entries = entries.filter(fits.or(audit_entry::who.ilike(like)));
        }
        if let Some(from) = filter.from {
            entries = entries.filter(audit_entry::at.ge(from));
        }
        if let Some(to) = filter.to {
            entries = entries.filter(audit_entry::at.lt(to));
        }
        if let Some(key) = after {
            entries = entries.filter(past!("audit_entry.at, audit_entry.id", "<", key));
        }
        Ok(entries.limit(most).load(&mut self.connection().await?).await?)
    }
}
