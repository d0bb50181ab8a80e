//! Causes of faults that a person confirmed or rejected.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, RunQueryDsl};
use ironpeel_core::batch::BatchState;
use ironpeel_core::fault::{CaseVerdict, FaultCase};
use ironpeel_core::method::Process;
use serde::Serialize;
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::schema::{batch, batch_state, fault_case, method_revision};
use crate::store::{Store, add_once};
use crate::word::Word;

/// What a person found of a proposed cause.
#[derive(Debug, Clone, PartialEq, Queryable, Insertable, Serialize)]
#[diesel(table_name = fault_case)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FaultCaseRecord {
    pub id: Uuid,
    pub batch_id: Uuid,
    pub fault: String,
    /// None of the listed ones where it is none.
    pub cause: Option<String>,
    #[cfg_attr(feature = "openapi", schema(value_type = CaseVerdict))]
    pub verdict: Word<CaseVerdict>,
    /// By a change that was tried, not by judgement alone.
    pub by_change: bool,
    pub note: String,
    pub made_by: String,
    pub made_at: DateTime<Utc>,
}

type CaseRow = (Uuid, Uuid, Option<String>, Word<CaseVerdict>, bool, DateTime<Utc>);

impl Store {
    /// What was found of a fault of a batch, oldest first.
    pub async fn fault_cases(&self, batch_id: Uuid, fault: &str) -> Result<Vec<FaultCaseRecord>> {
        Ok(fault_case::table
            .filter(fault_case::batch_id.eq(batch_id))
            .filter(fault_case::fault.eq(fault))
            .order((fault_case::made_at, fault_case::id))
            .load(&mut self.connection().await?)
            .await?)
    }

    /// What was found of a fault in every batch made by a process, oldest first.
    pub async fn cases_of_process(&self, fault: &str, process: Process) -> Result<Vec<FaultCase>> {
        let rows: Vec<CaseRow> = fault_case::table
            .inner_join(
                batch_state::table.inner_join(batch::table.inner_join(method_revision::table)),
            )
            .filter(fault_case::fault.eq(fault))
            .filter(method_revision::process.eq(Word(process)))
            .order((fault_case::made_at, fault_case::id))
            .select((
                fault_case::batch_id,
                batch_state::line_id,
                fault_case::cause,
                fault_case::verdict,
                fault_case::by_change,
                fault_case::made_at,
            ))
            .load(&mut self.connection().await?)
            .await?;
        Ok(rows
            .into_iter()
            .map(|(batch, line, cause, Word(verdict), by_change, at)| FaultCase {
                batch,
                line,
                cause,
                verdict,
                by_change,
                at,
            })
            .collect())
    }

    /// How many batches of the same product were finished after a batch was planned for.
    pub async fn finished_after(&self, batch_id: Uuid) -> Result<i64> {
        let connection = &mut self.connection().await?;
        let found: Option<(Uuid, DateTime<Utc>)> = batch_state::table
            .find(batch_id)
            .select((batch_state::product_id, batch_state::planned_for))
            .first(connection)
            .await
            .optional()?;
        let (product_id, planned_for) = found.ok_or(StoreError::NotFound("this batch"))?;
        Ok(batch_state::table
            .filter(batch_state::product_id.eq(product_id))
            .filter(batch_state::planned_for.gt(planned_for))
            .filter(batch_state::state.eq(Word(BatchState::Finished)))
            .count()
            .get_result(connection)
            .await?)
    }

    /// Records what was found of a cause. Sent twice, it is stored once.
    pub async fn add_fault_case(&self, new: &FaultCaseRecord) -> Result<()> {
        add_once!(self, fault_case, new, |error| StoreError::or_missing(error, "this batch"))
    }
}
