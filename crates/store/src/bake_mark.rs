//! Where people moved the crossings of a bake trace.

use std::collections::HashSet;

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, RunQueryDsl};
use ironpeel_core::oven::Crossing;
use serde::Serialize;
use uuid::Uuid;

use crate::bake_trace::set_arrival;
use crate::error::{Result, StoreError};
use crate::schema::{bake_trace, bake_trace_mark};
use crate::store::{Store, write_once};
use crate::word::Word;

/// A crossing that was moved, or put back.
#[derive(Debug, Clone, PartialEq, Queryable, Insertable, Serialize)]
#[diesel(table_name = bake_trace_mark)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BakeMark {
    pub id: Uuid,
    #[serde(skip)]
    pub trace_id: Uuid,
    pub probe: String,
    #[cfg_attr(feature = "openapi", schema(value_type = Crossing))]
    pub crossing: Word<Crossing>,
    /// From oven entry; put back where it is none.
    pub minute: Option<f64>,
    /// What the slowest core arrives at with it, % of the bake.
    #[serde(skip)]
    pub arrival_pct: Option<f64>,
    pub made_by: String,
    pub made_at: DateTime<Utc>,
}

impl Store {
    /// The crossings of a trace that stand where a person moved them, newest first.
    pub async fn bake_marks(&self, trace_id: Uuid) -> Result<Vec<BakeMark>> {
        let all: Vec<BakeMark> = bake_trace_mark::table
            .filter(bake_trace_mark::trace_id.eq(trace_id))
            .order((bake_trace_mark::made_at.desc(), bake_trace_mark::id.desc()))
            .load(&mut self.connection().await?)
            .await?;
        let mut seen = HashSet::new();
        let newest = all.into_iter().filter(|one| seen.insert((one.probe.clone(), one.crossing.0)));
        Ok(newest.filter(|one| one.minute.is_some()).collect())
    }

    /// Records that a crossing was moved; the batch's arrival is that of its newest trace. Sent twice,
    /// it is stored once.
    pub async fn add_bake_mark(&self, new: &BakeMark) -> Result<()> {
        write_once!(
            self,
            |connection| {
                diesel::insert_into(bake_trace_mark::table).values(new).execute(connection).await?;
                let of_batch: Uuid = bake_trace::table
                    .find(new.trace_id)
                    .select(bake_trace::batch_id)
                    .first(connection)
                    .await?;
                let newest: Uuid = bake_trace::table
                    .filter(bake_trace::batch_id.eq(of_batch))
                    .order((bake_trace::made_at.desc(), bake_trace::id.desc()))
                    .select(bake_trace::id)
                    .first(connection)
                    .await?;
                if newest == new.trace_id {
                    set_arrival(connection, of_batch, new.arrival_pct).await?;
                }
                true
            },
            |error| StoreError::or_missing(error, "this bake trace")
        )
    }
}
