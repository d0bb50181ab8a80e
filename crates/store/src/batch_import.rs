//! Batches as they were run elsewhere or before: whole, with their events, in one transaction.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, RunQueryDsl};
use ironpeel_core::batch::BatchState;
use uuid::Uuid;

use crate::batch::{BatchFlour, NewBatch, NewBatchState};
use crate::batch_event::{NewBatchEvent, insert_events};
use crate::batch_state::{BatchFigures, BatchProjection};
use crate::error::Result;
use crate::schema::{batch, batch_flour, batch_lot, batch_state};
use crate::store::Store;
use crate::word::Word;

/// A batch that was run, with what happened and what that came to.
#[derive(Debug, Clone)]
pub struct RunBatch {
    pub batch: NewBatch,
    pub others: Vec<BatchFlour>,
    pub state: NewBatchState,
    /// When it was planned.
    pub saved_at: DateTime<Utc>,
    pub events: Vec<NewBatchEvent>,
    pub projection: BatchProjection,
}

/// Rows of one statement.
const ROWS: usize = 500;

impl Store {
    /// Which of these batches are on record.
    pub async fn known_batches(&self, ids: &[Uuid]) -> Result<Vec<Uuid>> {
        Ok(batch::table
            .filter(batch::id.eq_any(ids))
            .select(batch::id)
            .load(&mut self.connection().await?)
            .await?)
    }

    /// Puts batches on record that were run: all or nothing.
    pub async fn add_run_batches(&self, run: &[RunBatch]) -> Result<()> {
        let mut connection = self.connection().await?;
        connection
            .transaction::<(), crate::error::StoreError, _>(async |connection| {
                for part in run.chunks(ROWS) {
                    let rows: Vec<_> = part
                        .iter()
                        .map(|one| (&one.batch, batch::saved_at.eq(one.saved_at)))
                        .collect();
                    diesel::insert_into(batch::table).values(rows).execute(connection).await?;
                    let rows: Vec<StateRow> = part.iter().map(StateRow::from).collect();
                    diesel::insert_into(batch_state::table)
                        .values(rows)
                        .execute(connection)
                        .await?;
                    let rows: Vec<_> = part
                        .iter()
                        .flat_map(|one| lot_rows(one.batch.id, &one.state.lots))
                        .collect();
                    diesel::insert_into(batch_lot::table).values(rows).execute(connection).await?;
                    let rows: Vec<_> =
                        part.iter().flat_map(|one| flour_rows(one.batch.id, &one.others)).collect();
                    diesel::insert_into(batch_flour::table)
                        .values(rows)
                        .execute(connection)
                        .await?;
                }
                for one in run {
                    insert_events(connection, one.batch.id, &one.events).await?;
                }
                Ok(())
            })
            .await
    }
}

#[derive(Insertable)]
#[diesel(table_name = batch_state)]
struct StateRow {
    batch_id: Uuid,
    state: Word<BatchState>,
    planned_for: DateTime<Utc>,
    product_id: Uuid,
    line_id: Uuid,
    flour_id: Uuid,
    lot_id: Uuid,
    started_at: Option<DateTime<Utc>>,
    ended_at: Option<DateTime<Utc>>,
    events: i32,
    unplaced: i32,
    standing_pts: f64,
    damaged_starch_caution: bool,
    water_was_set: bool,
    #[diesel(embed)]
    figures: BatchFigures,
}

impl From<&RunBatch> for StateRow {
    fn from(RunBatch { batch, state, projection, .. }: &RunBatch) -> Self {
        Self {
            batch_id: batch.id,
            state: Word(projection.state),
            planned_for: batch.planned_for,
            product_id: batch.product_id,
            line_id: state.line_id,
            flour_id: state.flour_id,
            lot_id: state.lot_id,
            started_at: projection.started_at,
            ended_at: projection.ended_at,
            events: projection.events,
            unplaced: projection.unplaced,
            standing_pts: state.standing_pts,
            damaged_starch_caution: state.damaged_starch_caution,
            water_was_set: state.water_was_set,
            figures: projection.figures.clone(),
        }
    }
}

/// A lot of a batch and how much of it.
#[derive(Insertable)]
#[diesel(table_name = batch_lot)]
pub(crate) struct LotRow {
    batch_id: Uuid,
    lot_id: Uuid,
    kg: Option<f64>,
}

/// The lots of a batch.
pub(crate) fn lot_rows(batch_id: Uuid, lots: &[(Uuid, Option<f64>)]) -> Vec<LotRow> {
    lots.iter().map(|(lot_id, kg)| LotRow { batch_id, lot_id: *lot_id, kg: *kg }).collect()
}

/// The lot of another flour of a batch, in its place.
#[derive(Insertable)]
#[diesel(table_name = batch_flour)]
pub(crate) struct FlourRow {
    batch_id: Uuid,
    position: i16,
    lot_revision_id: Uuid,
    specification_revision_id: Option<Uuid>,
}

/// The lots of a batch's other flours, in their order.
pub(crate) fn flour_rows(batch_id: Uuid, others: &[BatchFlour]) -> Vec<FlourRow> {
    let row = |(position, other): (i16, &BatchFlour)| FlourRow {
        batch_id,
        position,
        lot_revision_id: other.lot_revision_id,
        specification_revision_id: other.specification_revision_id,
    };
    (0..).zip(others).map(row).collect()
}
