//! From a lot all batches it went into, from a batch all lots behind it.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::RunQueryDsl;
use ironpeel_core::batch::BatchState;
use serde::Serialize;
use uuid::Uuid;

use crate::error::Result;
use crate::schema::{batch_lot, batch_state, flour, line, lot, product};
use crate::store::{PageKey, Store, past};
use crate::word::Word;

/// A batch that a lot went into.
#[derive(Debug, Clone, PartialEq, Queryable, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct LotUse {
    pub batch_id: Uuid,
    pub product: String,
    pub line: String,
    #[cfg_attr(feature = "openapi", schema(value_type = BatchState))]
    pub state: Word<BatchState>,
    pub planned_for: DateTime<Utc>,
    pub ended_at: Option<DateTime<Utc>>,
    pub pieces_good: Option<f64>,
    pub kg: Option<f64>,
}

/// A lot behind a batch.
#[derive(Debug, Clone, PartialEq, Queryable, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct LotOfBatch {
    pub lot_id: Uuid,
    pub lot: String,
    pub flour: String,
    pub kg: Option<f64>,
}

impl Store {
    /// The batches a lot went into, newest first.
    pub async fn uses_of_lot(
        &self,
        lot_id: Uuid,
        after: Option<PageKey>,
        most: i64,
    ) -> Result<Vec<LotUse>> {
        let mut query = batch_lot::table
            .inner_join(batch_state::table.inner_join(product::table).inner_join(line::table))
            .filter(batch_lot::lot_id.eq(lot_id))
            .order((batch_state::planned_for.desc(), batch_state::batch_id.desc()))
            .select((
                batch_lot::batch_id,
                product::name,
                line::name,
                batch_state::state,
                batch_state::planned_for,
                batch_state::ended_at,
                batch_state::pieces_good,
                batch_lot::kg,
            ))
            .limit(most)
            .into_boxed();
        if let Some(key) = after {
            query = query.filter(past!("batch_state.planned_for, batch_state.batch_id", "<", key));
        }
        Ok(query.load(&mut self.connection().await?).await?)
    }

    /// The lots behind a batch, by flour.
    pub async fn lots_of_batch(&self, batch_id: Uuid) -> Result<Vec<LotOfBatch>> {
        Ok(batch_lot::table
            .inner_join(lot::table.inner_join(flour::table))
            .filter(batch_lot::batch_id.eq(batch_id))
            .order((flour::name, lot::code))
            .select((batch_lot::lot_id, lot::code, flour::name, batch_lot::kg))
            .load(&mut self.connection().await?)
            .await?)
    }

    /// What batches that were begun since a time took of a lot, kg.
    pub async fn drawn_from_lot(&self, lot_id: Uuid, since: DateTime<Utc>) -> Result<f64> {
        let drawn: Option<f64> = batch_lot::table
            .inner_join(batch_state::table)
            .filter(batch_lot::lot_id.eq(lot_id))
            .filter(batch_state::started_at.ge(since))
            .select(diesel::dsl::sum(batch_lot::kg))
            .first(&mut self.connection().await?)
            .await?;
        Ok(drawn.unwrap_or(0.0))
    }
}
