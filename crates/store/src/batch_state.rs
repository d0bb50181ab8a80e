//! What a batch's events come to, as lists, boards and charts read it.

use chrono::{DateTime, Utc};
use diesel::expression::SqlLiteral;
use diesel::prelude::*;
use diesel::sql_types::BigInt;
use diesel_async::RunQueryDsl;
use ironpeel_core::batch::BatchState;
use serde::Serialize;
use uuid::Uuid;

use crate::error::Result;
use crate::schema::batch_state;
use crate::store::Store;
use crate::word::Word;

/// What a batch came to.
#[derive(
    Debug, Clone, PartialEq, Default, Queryable, Selectable, AsChangeset, Insertable, Serialize,
)]
#[diesel(table_name = batch_state, treat_none_as_null = true)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BatchFigures {
    pub dough_c: Option<f64>,
    /// Against its target.
    pub dough_c_d: Option<f64>,
    /// Water over plan, points on flour.
    pub water_pts: Option<f64>,
    /// Of it, added by feel.
    pub by_feel_pts: Option<f64>,
    /// Whether every line of water was ticked.
    pub water_complete: bool,
    /// From −2 much too slack to +2 much too stiff.
    pub consistency: Option<f64>,
    pub mixing_kj_per_kg: Option<f64>,
    pub proof_min: Option<f64>,
    pub bake_min: Option<f64>,
    pub loss_pct: Option<f64>,
    pub pieces_good: Option<f64>,
    pub pieces_rejected: Option<f64>,
    pub friction_c: Option<f64>,
}

/// What bake traces and judges say of a batch.
#[derive(
    Debug,
    Clone,
    Copy,
    PartialEq,
    Default,
    Queryable,
    Selectable,
    AsChangeset,
    Insertable,
    Serialize,
)]
#[diesel(table_name = batch_state, treat_none_as_null = true)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BatchSeen {
    /// When the slowest core was set, % of the bake, by the newest trace.
    pub arrival_pct: Option<f64>,
    /// 0 to 100, the judges together.
    pub score: Option<f64>,
    /// Whether the crumb was judged below what the plant learns from.
    pub crumb_is_low: bool,
}

/// A batch's events put together.
#[derive(Debug, Clone, PartialEq)]
pub struct BatchProjection {
    pub state: BatchState,
    pub started_at: Option<DateTime<Utc>>,
    pub ended_at: Option<DateTime<Utc>>,
    pub events: i32,
    pub unplaced: i32,
    pub figures: BatchFigures,
}

/// The transaction that writes a batch: whoever missed it asks for what was written since.
pub(crate) fn this_write() -> SqlLiteral<BigInt> {
    diesel::dsl::sql("(pg_current_xact_id()::text)::bigint")
}

impl Store {
    /// Where a batch stands.
    pub async fn batch_state(&self, id: Uuid) -> Result<Option<BatchState>> {
        let state: Option<Word<BatchState>> = batch_state::table
            .find(id)
            .select(batch_state::state)
            .first(&mut self.connection().await?)
            .await
            .optional()?;
        Ok(state.map(|Word(state)| state))
    }

    /// Batches that were written in or after a transaction, and where they stand.
    pub async fn batches_changed_since(
        &self,
        transaction: i64,
        most: i64,
    ) -> Result<Vec<(Uuid, Word<BatchState>)>> {
        Ok(batch_state::table
            .filter(batch_state::changed_in.ge(transaction))
            .order(batch_state::changed_in)
            .limit(most)
            .select((batch_state::batch_id, batch_state::state))
            .load(&mut self.connection().await?)
            .await?)
    }

    /// The oldest transaction that may still be writing, and one that is yet to come.
    pub async fn transactions(&self) -> Result<(i64, i64)> {
        #[derive(QueryableByName)]
        struct Snapshot {
            #[diesel(sql_type = BigInt)]
            oldest: i64,
            #[diesel(sql_type = BigInt)]
            next: i64,
        }
        let query = "SELECT pg_snapshot_xmin(pg_current_snapshot())::text::bigint AS oldest,
            pg_snapshot_xmax(pg_current_snapshot())::text::bigint AS next";
        let Snapshot { oldest, next } =
            diesel::sql_query(query).get_result(&mut self.connection().await?).await?;
        Ok((oldest, next))
    }
}
