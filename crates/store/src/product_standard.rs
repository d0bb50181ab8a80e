//! What products are held to when they are judged.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, RunQueryDsl};
use ironpeel_core::judging::ProductStandard;
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::revision::{Revision, Signed, add_revision, signed_columns};
use crate::schema::product_standard;
use crate::store::{Store, write_once};

/// One state of a product's standard.
#[derive(Debug, Clone, PartialEq)]
pub struct StandardRevision {
    pub revision: Revision,
    pub standard: ProductStandard,
}

/// A product's standard to be recorded.
#[derive(Debug, Clone, PartialEq)]
pub struct NewStandard {
    pub id: Uuid,
    pub product_id: Uuid,
    /// The number after the revision it was made from.
    pub number: i32,
    pub standard: ProductStandard,
    pub signed: Signed,
}

type Row = (Uuid, i32, DateTime<Utc>, String, String, serde_json::Value);

impl Store {
    /// Every state of a product's standard, newest first; none where the house's alone counts.
    pub async fn standards(&self, product_id: Uuid) -> Result<Vec<StandardRevision>> {
        let rows: Vec<Row> = product_standard::table
            .filter(product_standard::product_id.eq(product_id))
            .order(product_standard::number.desc())
            .select((
                product_standard::id,
                product_standard::number,
                product_standard::made_at,
                product_standard::made_by,
                product_standard::reason,
                product_standard::standard,
            ))
            .load(&mut self.connection().await?)
            .await?;
        rows.into_iter()
            .map(|(id, number, made_at, made_by, reason, standard)| {
                Ok(StandardRevision {
                    revision: Revision { id, number, made_at, made_by, reason },
                    standard: serde_json::from_value(standard)
                        .map_err(|error| StoreError::Fault(error.into()))?,
                })
            })
            .collect()
    }

    /// Records the next state of a product's standard. Sent twice, it is stored once.
    pub async fn add_standard(&self, new: &NewStandard) -> Result<()> {
        let standard =
            serde_json::to_value(&new.standard).map_err(|error| StoreError::Fault(error.into()))?;
        write_once!(
            self,
            |connection| {
                let row = (
                    signed_columns!(product_standard, new.id, new.number, new.signed),
                    product_standard::product_id.eq(new.product_id),
                    product_standard::standard.eq(&standard),
                );
                add_revision!(
                    connection,
                    product_standard,
                    [product_id = new.product_id],
                    new.id,
                    new.number,
                    "this product's standard",
                    row,
                    {}
                )
            },
            |error| StoreError::or_overtaken(error, "this product's standard")
        )
    }
}
