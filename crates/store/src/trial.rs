//! Trial sets: variants made side by side, as they were set out.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, RunQueryDsl};
use serde_json::Value;
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::schema::{product, trial};
use crate::store::{PageKey, Store, add_once, past};

/// A trial set: what was asked for, and the doughs as they were set out.
#[derive(Debug, Clone, PartialEq, Queryable)]
pub struct Trial {
    pub id: Uuid,
    pub slug: String,
    pub product: String,
    pub saved_at: DateTime<Utc>,
    pub saved_by: String,
    pub asked: Value,
    pub issued: Value,
}

/// A trial set as lists show it.
#[derive(Debug, Clone, PartialEq, Eq, Queryable)]
pub struct TrialSummary {
    pub id: Uuid,
    pub product: String,
    pub saved_at: DateTime<Utc>,
    pub saved_by: String,
}

/// A trial set to be recorded.
#[derive(Debug, Clone, PartialEq, Insertable)]
#[diesel(table_name = trial)]
pub struct NewTrial {
    pub id: Uuid,
    pub product_id: Uuid,
    pub saved_by: String,
    pub asked: Value,
    pub issued: Value,
}

impl Store {
    /// Trial sets from newest to oldest.
    pub async fn trials(&self, before: Option<PageKey>, most: i64) -> Result<Vec<TrialSummary>> {
        let mut query = trial::table
            .inner_join(product::table)
            .select((trial::id, product::name, trial::saved_at, trial::saved_by))
            .order((trial::saved_at.desc(), trial::id.desc()))
            .limit(most)
            .into_boxed();
        if let Some(key) = before {
            query = query.filter(past!("trial.saved_at, trial.id", "<", key));
        }
        Ok(query.load(&mut self.connection().await?).await?)
    }

    pub async fn trial(&self, id: Uuid) -> Result<Trial> {
        let found = trial::table
            .inner_join(product::table)
            .filter(trial::id.eq(id))
            .select((
                trial::id,
                product::slug,
                product::name,
                trial::saved_at,
                trial::saved_by,
                trial::asked,
                trial::issued,
            ))
            .first(&mut self.connection().await?)
            .await
            .optional()?;
        found.ok_or(StoreError::NotFound("this trial set"))
    }

    /// Records a trial set. Sent twice, it is stored once.
    pub async fn add_trial(&self, new: &NewTrial) -> Result<()> {
        add_once!(self, trial, new, StoreError::from)
    }
}
