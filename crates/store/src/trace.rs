use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, RunQueryDsl};
use serde::{Deserialize, Serialize};
use serde_json::Value;
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::schema::{trace, trace_mark};
use crate::store::{Store, add_once};
use crate::word::Word;

/// The instrument a curve is from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum TraceKind {
    Farinograph,
    Alveograph,
}

/// How a curve came.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum TraceSource {
    Imported,
    Instrument,
}

/// A curve, with what reading it needs.
#[derive(Debug, Clone, PartialEq, Queryable, Insertable)]
#[diesel(table_name = trace)]
pub struct Trace {
    pub id: Uuid,
    pub lot_id: Uuid,
    pub kind: Word<TraceKind>,
    pub source: Word<TraceSource>,
    /// What the calculator of its instrument is asked.
    pub input: Value,
    pub made_by: String,
    pub made_at: DateTime<Utc>,
}

/// A curve as lists show it.
#[derive(Debug, Clone, PartialEq, Eq, Queryable, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TraceSummary {
    pub id: Uuid,
    #[cfg_attr(feature = "openapi", schema(value_type = TraceKind))]
    pub kind: Word<TraceKind>,
    #[cfg_attr(feature = "openapi", schema(value_type = TraceSource))]
    pub source: Word<TraceSource>,
    pub made_by: String,
    pub made_at: DateTime<Utc>,
}

/// A mark that a person moved; without a minute it was put back.
#[derive(Debug, Clone, PartialEq, Queryable, Insertable)]
#[diesel(table_name = trace_mark)]
pub struct TraceMark {
    pub id: Uuid,
    pub trace_id: Uuid,
    pub mark: String,
    pub minute: Option<f64>,
    pub made_by: String,
    pub made_at: DateTime<Utc>,
}

impl Store {
    /// The curves of a lot, newest first.
    pub async fn traces(&self, lot_id: Uuid) -> Result<Vec<TraceSummary>> {
        Ok(trace::table
            .filter(trace::lot_id.eq(lot_id))
            .order((trace::made_at.desc(), trace::id.desc()))
            .select((trace::id, trace::kind, trace::source, trace::made_by, trace::made_at))
            .load(&mut self.connection().await?)
            .await?)
    }

    /// A curve with every move of its marks, oldest first.
    pub async fn trace(&self, id: Uuid) -> Result<(Trace, Vec<TraceMark>)> {
        let connection = &mut self.connection().await?;
        let found: Option<Trace> = trace::table.find(id).first(connection).await.optional()?;
        let marks = trace_mark::table
            .filter(trace_mark::trace_id.eq(id))
            .order((trace_mark::made_at, trace_mark::id))
            .load(connection)
            .await?;
        Ok((found.ok_or(StoreError::NotFound("this curve"))?, marks))
    }

    /// Records a curve. Sent twice, it is stored once.
    pub async fn add_trace(&self, new: &Trace) -> Result<()> {
        add_once!(self, trace, new, |error| StoreError::or_missing(error, "this lot"))
    }

    /// Records that a mark was moved. Sent twice, it is stored once.
    pub async fn add_mark(&self, new: &TraceMark) -> Result<()> {
        add_once!(self, trace_mark, new, |error| StoreError::or_missing(error, "this curve"))
    }
}
