use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, RunQueryDsl};
use serde::{Deserialize, Serialize};
use serde_json::Value;
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::schema::{batch, batch_flour, flour, lot, lot_revision, product};
use crate::store::{PageKey, Store, past, write_once};

/// A batch with the revisions it is tied to and the sheet as it was issued.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable)]
#[diesel(table_name = batch)]
pub struct Batch {
    pub id: Uuid,
    pub product_id: Uuid,
    pub lot_revision_id: Uuid,
    /// None where nothing was asked of the flour.
    pub specification_revision_id: Option<Uuid>,
    pub formula_revision_id: Uuid,
    pub method_revision_id: Uuid,
    pub line_revision_id: Uuid,
    /// None where the house's numbers held.
    pub parameters_revision_id: Option<Uuid>,
    pub state: String,
    pub planned_for: DateTime<Utc>,
    pub saved_at: DateTime<Utc>,
    pub saved_by: String,
    pub run_settings: Value,
    pub issued: Value,
}

/// A batch to be planned.
#[derive(Debug, Clone, PartialEq, Insertable)]
#[diesel(table_name = batch)]
pub struct NewBatch {
    pub id: Uuid,
    pub product_id: Uuid,
    pub lot_revision_id: Uuid,
    /// None where nothing was asked of the flour.
    pub specification_revision_id: Option<Uuid>,
    pub formula_revision_id: Uuid,
    pub method_revision_id: Uuid,
    pub line_revision_id: Uuid,
    pub parameters_revision_id: Option<Uuid>,
    pub planned_for: DateTime<Utc>,
    pub saved_by: String,
    pub run_settings: Value,
    pub issued: Value,
}

/// The lot of another flour of a batch's formula, by revision.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Queryable, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BatchFlour {
    pub lot_revision_id: Uuid,
    /// Nothing is asked of the flour if left out.
    #[serde(default)]
    pub specification_revision_id: Option<Uuid>,
}

/// A batch as lists show it.
#[derive(Debug, Clone, PartialEq, Eq, Queryable, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
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
        if let Some(key) = before {
            query = query.filter(past!("batch.saved_at, batch.id", "<", key));
        }
        Ok(query.load(&mut self.connection().await?).await?)
    }

    /// A batch, the slug of its product, and the lots of its formula's other flours.
    pub async fn batch(&self, id: Uuid) -> Result<(Batch, String, Vec<BatchFlour>)> {
        let connection = &mut self.connection().await?;
        let found: Option<(Batch, String)> = batch::table
            .inner_join(product::table)
            .filter(batch::id.eq(id))
            .select((Batch::as_select(), product::slug))
            .first(connection)
            .await
            .optional()?;
        let (batch, slug) = found.ok_or(StoreError::NotFound("this batch"))?;
        let others = batch_flour::table
            .filter(batch_flour::batch_id.eq(id))
            .order(batch_flour::position)
            .select((batch_flour::lot_revision_id, batch_flour::specification_revision_id))
            .load(connection)
            .await?;
        Ok((batch, slug, others))
    }

    /// Records a planned batch with its other flours' lots. Sent twice, it is stored once.
    pub async fn add_batch(&self, new: &NewBatch, others: &[BatchFlour]) -> Result<()> {
        let others: Vec<_> = (0i16..)
            .zip(others)
            .map(|(position, other)| {
                (
                    batch_flour::batch_id.eq(new.id),
                    batch_flour::position.eq(position),
                    batch_flour::lot_revision_id.eq(other.lot_revision_id),
                    batch_flour::specification_revision_id.eq(other.specification_revision_id),
                )
            })
            .collect();
        write_once!(
            self,
            |connection| {
                let added = diesel::insert_into(batch::table)
                    .values(new)
                    .on_conflict(batch::id)
                    .do_nothing()
                    .execute(connection)
                    .await?;
                if added == 1 {
                    diesel::insert_into(batch_flour::table)
                        .values(&others)
                        .execute(connection)
                        .await?;
                }
                added == 1
            },
            StoreError::from
        )
    }
}
