//! Core temperatures of bakes, as a logger wrote them.

use chrono::{DateTime, Utc};
use diesel::pg::Pg;
use diesel::prelude::*;
use diesel::sql_types::{Double, Nullable};
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use ironpeel_core::oven::LoggerProbe;
use serde::Serialize;
use uuid::Uuid;

use crate::batch_state::this_write;
use crate::error::{Result, StoreError};
use crate::schema::{bake_trace, bake_trace_probe, batch_state, line, product};
use crate::store::{PageKey, Store, past, write_once};
use crate::trace::TraceSource;
use crate::word::Word;

/// A bake trace on record.
#[derive(Debug, Clone, PartialEq)]
pub struct BakeTraceRecord {
    pub id: Uuid,
    pub batch_id: Uuid,
    pub source: TraceSource,
    pub bake_min: f64,
    pub t_min: Vec<f64>,
    pub probes: Vec<LoggerProbe>,
    pub made_by: String,
    pub made_at: DateTime<Utc>,
}

/// A bake trace to be recorded, with what was read off its slowest probe.
#[derive(Debug, Clone, PartialEq)]
pub struct NewBakeTrace {
    pub trace: BakeTraceRecord,
    pub arrival_pct: Option<f64>,
    pub steam_until_min: Option<f64>,
}

/// A bake as lists show it.
#[derive(Debug, Clone, PartialEq, Queryable, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BakeSummary {
    pub id: Uuid,
    pub batch_id: Uuid,
    pub product: String,
    pub slug: String,
    pub line: String,
    pub planned_for: DateTime<Utc>,
    #[cfg_attr(feature = "openapi", schema(value_type = TraceSource))]
    pub source: Word<TraceSource>,
    pub bake_min: f64,
    /// Of the slowest probe, % of the bake; none where it never arrived.
    pub arrival_pct: Option<f64>,
    /// When the slowest core was where steam goes off.
    pub steam_until_min: Option<f64>,
    pub made_by: String,
    pub made_at: DateTime<Utc>,
}

/// When the slowest core arrived: as a person moved it last, else as it was read.
const NEWEST_ARRIVAL: &str = "COALESCE((SELECT moved.arrival_pct FROM bake_trace_mark AS moved
    WHERE moved.trace_id = bake_trace.id ORDER BY moved.made_at DESC, moved.id DESC LIMIT 1),
    bake_trace.arrival_pct)";

type Row = (Uuid, Uuid, Word<TraceSource>, f64, Vec<f64>, String, DateTime<Utc>);

impl Store {
    /// A bake trace with its probes.
    pub async fn bake_trace(&self, id: Uuid) -> Result<BakeTraceRecord> {
        let connection = &mut self.connection().await?;
        let row: Option<Row> = bake_trace::table
            .find(id)
            .select((
                bake_trace::id,
                bake_trace::batch_id,
                bake_trace::source,
                bake_trace::bake_min,
                bake_trace::t_min,
                bake_trace::made_by,
                bake_trace::made_at,
            ))
            .first(connection)
            .await
            .optional()?;
        let (id, batch_id, Word(source), bake_min, t_min, made_by, made_at) =
            row.ok_or(StoreError::NotFound("this bake trace"))?;
        let probes: Vec<(String, Vec<f64>)> = bake_trace_probe::table
            .filter(bake_trace_probe::trace_id.eq(id))
            .order(bake_trace_probe::place)
            .select((bake_trace_probe::name, bake_trace_probe::core_c))
            .load(connection)
            .await?;
        let probes = probes.into_iter().map(|(name, core_c)| LoggerProbe { name, core_c });
        let probes = probes.collect();
        Ok(BakeTraceRecord { id, batch_id, source, bake_min, t_min, probes, made_by, made_at })
    }

    /// Bakes with a trace from the newest planned to the oldest, of a product or of a batch.
    pub async fn bakes(
        &self,
        product: Option<&str>,
        batch_id: Option<Uuid>,
        after: Option<PageKey>,
        most: i64,
    ) -> Result<Vec<BakeSummary>> {
        let mut query = bake_trace::table
            .inner_join(batch_state::table.inner_join(product::table).inner_join(line::table))
            .select((
                bake_trace::id,
                bake_trace::batch_id,
                product::name,
                product::slug,
                line::name,
                batch_state::planned_for,
                bake_trace::source,
                bake_trace::bake_min,
                diesel::dsl::sql::<Nullable<Double>>(NEWEST_ARRIVAL),
                bake_trace::steam_until_min,
                bake_trace::made_by,
                bake_trace::made_at,
            ))
            .order((batch_state::planned_for.desc(), bake_trace::id.desc()))
            .limit(most)
            .into_boxed::<Pg>();
        if let Some(slug) = product {
            query = query.filter(product::slug.eq(slug.to_owned()));
        }
        if let Some(batch_id) = batch_id {
            query = query.filter(bake_trace::batch_id.eq(batch_id));
        }
        if let Some(key) = after {
            query = query.filter(past!("batch_state.planned_for, bake_trace.id", "<", key));
        }
        Ok(query.load(&mut self.connection().await?).await?)
    }

    /// Records a bake trace; the newest is what the batch's arrival is read off. Sent twice, it is
    /// stored once.
    pub async fn add_bake_trace(&self, new: &NewBakeTrace) -> Result<()> {
        write_once!(
            self,
            |connection| {
                insert_trace(connection, new).await?;
                set_arrival(connection, new.trace.batch_id, new.arrival_pct).await? > 0
            },
            |error| StoreError::or_missing(error, "this batch")
        )
    }
}

/// When a batch's slowest core was set, by its newest trace.
pub(crate) async fn set_arrival(
    connection: &mut AsyncPgConnection,
    batch_id: Uuid,
    arrival_pct: Option<f64>,
) -> QueryResult<usize> {
    let set = (batch_state::arrival_pct.eq(arrival_pct), batch_state::changed_in.eq(this_write()));
    diesel::update(batch_state::table.find(batch_id)).set(set).execute(connection).await
}

/// Inserts a trace with its probes.
pub(crate) async fn insert_trace(
    connection: &mut AsyncPgConnection,
    NewBakeTrace { trace: new, arrival_pct, steam_until_min }: &NewBakeTrace,
) -> QueryResult<()> {
    diesel::insert_into(bake_trace::table)
        .values((
            bake_trace::id.eq(new.id),
            bake_trace::batch_id.eq(new.batch_id),
            bake_trace::source.eq(Word(new.source)),
            bake_trace::bake_min.eq(new.bake_min),
            bake_trace::t_min.eq(&new.t_min),
            bake_trace::arrival_pct.eq(arrival_pct),
            bake_trace::steam_until_min.eq(steam_until_min),
            bake_trace::made_by.eq(&new.made_by),
            bake_trace::made_at.eq(new.made_at),
        ))
        .execute(connection)
        .await?;
    let rows: Vec<_> = (0_i16..)
        .zip(&new.probes)
        .map(|(place, probe)| {
            (
                bake_trace_probe::trace_id.eq(new.id),
                bake_trace_probe::place.eq(place),
                bake_trace_probe::name.eq(&probe.name),
                bake_trace_probe::core_c.eq(&probe.core_c),
            )
        })
        .collect();
    diesel::insert_into(bake_trace_probe::table).values(rows).execute(connection).await?;
    Ok(())
}
