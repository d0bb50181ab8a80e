use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::RunQueryDsl;
use serde_json::Value;
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::schema::{batch, flour, lot, lot_revision, product};
use crate::store::{PageKey, Store};

/// A batch with the revisions it is tied to and the sheet as it was issued.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable)]
#[diesel(table_name = batch)]
pub struct Batch {
    pub id: Uuid,
    pub product_id: Uuid,
    pub lot_revision_id: Uuid,
    pub specification_revision_id: Uuid,
    pub formula_revision_id: Uuid,
    pub method_revision_id: Uuid,
    pub line_revision_id: Uuid,
    pub state: String,
    pub planned_for: DateTime<Utc>,
    pub saved_at: DateTime<Utc>,
    pub saved_by: String,
    pub knobs: Value,
    pub issued: Value,
}

/// A batch to be planned.
#[derive(Debug, Clone, PartialEq, Insertable)]
#[diesel(table_name = batch)]
pub struct NewBatch {
    pub id: Uuid,
    pub product_id: Uuid,
    pub lot_revision_id: Uuid,
    pub specification_revision_id: Uuid,
    pub formula_revision_id: Uuid,
    pub method_revision_id: Uuid,
    pub line_revision_id: Uuid,
    pub planned_for: DateTime<Utc>,
    pub saved_by: String,
    pub knobs: Value,
    pub issued: Value,
}

/// A batch as lists show it.
#[derive(Debug, Clone, PartialEq, Eq, Queryable)]
pub struct BatchSummary {
    pub id: Uuid,
    pub state: String,
    pub product: String,
    pub lot: String,
    pub flour: String,
    pub planned_for: DateTime<Utc>,
    pub saved_at: DateTime<Utc>,
    pub saved_by: String,
}

impl Store {
    /// Batches from newest to oldest.
    pub async fn batches(&self, before: Option<PageKey>, most: i64) -> Result<Vec<BatchSummary>> {
        let mut query = batch::table
            .inner_join(product::table)
            .inner_join(lot_revision::table.inner_join(lot::table.inner_join(flour::table)))
            .select((
                batch::id,
                batch::state,
                product::name,
                lot::code,
                flour::name,
                batch::planned_for,
                batch::saved_at,
                batch::saved_by,
            ))
            .order((batch::saved_at.desc(), batch::id.desc()))
            .limit(most)
            .into_boxed();
        if let Some((at, id)) = before {
            query = query
                .filter(batch::saved_at.lt(at).or(batch::saved_at.eq(at).and(batch::id.lt(id))));
        }
        Ok(query.load(&mut self.connection().await?).await?)
    }

    /// A batch and the slug of its product.
    pub async fn batch(&self, id: Uuid) -> Result<(Batch, String)> {
        let found = batch::table
            .inner_join(product::table)
            .filter(batch::id.eq(id))
            .select((Batch::as_select(), product::slug))
            .first(&mut self.connection().await?)
            .await
            .optional()?;
        found.ok_or(StoreError::NotFound("this batch"))
    }

    /// Records a planned batch. Sent twice, it is stored once.
    pub async fn add_batch(&self, new: &NewBatch) -> Result<()> {
        diesel::insert_into(batch::table)
            .values(new)
            .on_conflict(batch::id)
            .do_nothing()
            .execute(&mut self.connection().await?)
            .await?;
        Ok(())
    }
}
