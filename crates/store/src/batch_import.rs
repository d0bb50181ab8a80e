//! Batches as they were run elsewhere or before: whole, with their events, in one transaction.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use ironpeel_core::batch::BatchState;
use uuid::Uuid;

use crate::bake_trace::{NewBakeTrace, insert_trace};
use crate::batch::{BatchFlour, NewBatch, NewBatchState, flour_rows, lot_rows};
use crate::batch_event::{NewBatchEvent, insert_events};
use crate::batch_state::{BatchFigures, BatchProjection, BatchSeen};
use crate::error::Result;
use crate::photograph::{Photograph, SamplePhotograph, insert_photograph};
use crate::schema::{batch, batch_flour, batch_lot, batch_state};
use crate::score::{NewSample, NewScore, insert_samples, insert_scores};
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
    pub trace: Option<NewBakeTrace>,
    pub samples: Vec<NewSample>,
    pub scores: Vec<NewScore>,
    pub photographs: Vec<(SamplePhotograph, Photograph)>,
    pub seen: BatchSeen,
}

/// Rows of one statement.
const ROWS: usize = 500;

impl Store {
    /// Which of these batches are on record.
    pub async fn known_batches(&self, ids: &[Uuid]) -> Result<Vec<Uuid>> {
        Ok(known(&mut *self.connection().await?, ids).await?)
    }

    /// Puts batches on record that were run, but for those that are: all or nothing.
    pub async fn add_run_batches(&self, run: &[RunBatch]) -> Result<()> {
        let mut connection = self.connection().await?;
        connection
            .transaction::<(), crate::error::StoreError, _>(async |connection| {
                // One after the other, whichever server begins.
                diesel::sql_query("SELECT pg_advisory_xact_lock(hashtext('run batches'))")
                    .execute(connection)
                    .await?;
                let ids: Vec<Uuid> = run.iter().map(|one| one.batch.id).collect();
                let known = known(connection, &ids).await?;
                let new: Vec<&RunBatch> =
                    run.iter().filter(|one| !known.contains(&one.batch.id)).collect();
                for part in new.chunks(ROWS) {
                    let rows: Vec<_> = part
                        .iter()
                        .map(|one| (&one.batch, batch::saved_at.eq(one.saved_at)))
                        .collect();
                    diesel::insert_into(batch::table).values(rows).execute(connection).await?;
                    let rows: Vec<StateRow> = part.iter().map(|one| StateRow::from(*one)).collect();
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
                for one in new {
                    insert_events(connection, one.batch.id, &one.events).await?;
                    if let Some(trace) = &one.trace {
                        insert_trace(connection, trace).await?;
                    }
                    insert_samples(connection, &one.samples).await?;
                    insert_scores(connection, &one.scores).await?;
                    for (of, taken) in &one.photographs {
                        insert_photograph(connection, of, taken).await?;
                    }
                }
                Ok(())
            })
            .await
    }
}

async fn known(connection: &mut AsyncPgConnection, ids: &[Uuid]) -> QueryResult<Vec<Uuid>> {
    let of_them = batch::table.filter(batch::id.eq_any(ids)).select(batch::id);
    of_them.load(connection).await
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
    #[diesel(embed)]
    seen: BatchSeen,
}

impl From<&RunBatch> for StateRow {
    fn from(RunBatch { batch, state, projection, seen, .. }: &RunBatch) -> Self {
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
            seen: *seen,
        }
    }
}
