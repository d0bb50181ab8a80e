use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::RunQueryDsl;
use serde_json::Value;
use uuid::Uuid;

use crate::error::Result;
use crate::schema::mill_mapping;
use crate::store::Store;

/// How a mill's own table is read, as a person corrected it. Append-only.
#[derive(Debug, Clone, PartialEq, Queryable, Insertable)]
#[diesel(table_name = mill_mapping)]
pub struct MillMapping {
    pub id: Uuid,
    pub mill: String,
    pub headers: Vec<String>,
    pub mapping: Value,
    pub made_by: String,
    pub made_at: DateTime<Utc>,
}

impl Store {
    /// The newest way a table with these headers was read.
    pub async fn mapping_for(&self, headers: &[String]) -> Result<Option<MillMapping>> {
        Ok(mill_mapping::table
            .filter(mill_mapping::headers.eq(headers))
            .order(mill_mapping::made_at.desc())
            .first(&mut self.connection().await?)
            .await
            .optional()?)
    }

    /// Remembers how a table is read. Sent twice, it is stored once.
    pub async fn add_mapping(&self, new: &MillMapping) -> Result<()> {
        diesel::insert_into(mill_mapping::table)
            .values(new)
            .on_conflict(mill_mapping::id)
            .do_nothing()
            .execute(&mut self.connection().await?)
            .await?;
        Ok(())
    }
}
