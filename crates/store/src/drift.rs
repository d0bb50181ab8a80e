//! What finished batches say as evidence, and what drifts from one to the next.

use std::collections::{BTreeMap, HashMap};

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel::sql_types::{Bool, Jsonb};
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use ironpeel_core::batch::BatchState;
use ironpeel_core::fault::{DriftSide, FigureDrift};
use ironpeel_core::method::Process;
use serde_json::{Value, json};
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::schema::{
    batch, batch_evidence, batch_state, drift, drift_seen, fault_case, line, method_revision,
    product,
};
use crate::store::{Store, add_once};
use crate::word::Word;

/// A drift as it is told.
#[derive(Debug, Clone, PartialEq, Queryable)]
pub struct DriftRecord {
    pub id: Uuid,
    pub slug: String,
    pub product: String,
    pub line: String,
    pub feature: String,
    pub side: Word<DriftSide>,
    pub beyond: i32,
    pub looked_at: i32,
    pub mean: f64,
    pub batches: Vec<Uuid>,
    pub began_at: DateTime<Utc>,
}

/// Who has seen a drift.
#[derive(Debug, Clone, PartialEq, Eq, Insertable)]
#[diesel(table_name = drift_seen)]
pub struct DriftSeen {
    pub id: Uuid,
    pub drift_id: Uuid,
    pub seen_by: String,
    pub seen_at: DateTime<Utc>,
}

/// A batch's figures as evidence, by the feature's key.
pub type Features = BTreeMap<String, f64>;

impl Store {
    /// Batches finished since a time whose evidence was not found, or has changed since; each with the
    /// write it stands at.
    pub async fn batches_to_watch(
        &self,
        since: DateTime<Utc>,
        most: i64,
    ) -> Result<Vec<(Uuid, i64)>> {
        Ok(batch_state::table
            .left_join(batch_evidence::table)
            .filter(batch_state::state.eq(Word(BatchState::Finished)))
            .filter(batch_state::planned_for.ge(since))
            .filter(diesel::dsl::sql::<Bool>(
                "batch_evidence.changed_in IS DISTINCT FROM batch_state.changed_in",
            ))
            .order((batch_state::planned_for, batch_state::batch_id))
            .limit(most)
            .select((batch_state::batch_id, batch_state::changed_in))
            .load(&mut self.connection().await?)
            .await?)
    }

    /// Keeps a batch's evidence as it was found at a write of it, and what by now drifts over the
    /// newest batches of its product on its line: what began, what goes on, what is over.
    pub async fn watch_batch(
        &self,
        (batch_id, changed_in): (Uuid, i64),
        features: &Features,
        most: i64,
        drifting: impl Fn(&[Features]) -> Vec<FigureDrift> + Send + Sync,
    ) -> Result<()> {
        let mut connection = self.connection().await?;
        connection
            .transaction::<(), StoreError, _>(async |connection| {
                let (product_id, line_id): (Uuid, Uuid) = batch_state::table
                    .find(batch_id)
                    .select((batch_state::product_id, batch_state::line_id))
                    .first(connection)
                    .await?;
                // One after the other, whichever server looks.
                diesel::sql_query("SELECT pg_advisory_xact_lock(hashtext('drift ' || $1::text))")
                    .bind::<diesel::sql_types::Uuid, _>(product_id)
                    .execute(connection)
                    .await?;
                let found = (
                    batch_evidence::features.eq(json!(features)),
                    batch_evidence::changed_in.eq(changed_in),
                );
                diesel::insert_into(batch_evidence::table)
                    .values((batch_evidence::batch_id.eq(batch_id), found.clone()))
                    .on_conflict(batch_evidence::batch_id)
                    .do_update()
                    .set(found)
                    .execute(connection)
                    .await?;
                let newest = newest(connection, product_id, line_id, most).await?;
                let figures: Vec<Features> = newest.iter().map(|one| one.2.clone()).collect();
                stand(connection, (product_id, line_id), &newest, &drifting(&figures)).await?;
                Ok(())
            })
            .await
    }

    /// Keeps what of a batch is evidence, as it stands now.
    pub async fn keep_evidence(&self, batch_id: Uuid, features: &Features) -> Result<()> {
        let changed_in = batch_state::table.find(batch_id).select((
            batch_state::batch_id,
            json!(features).into_sql::<Jsonb>(),
            batch_state::changed_in,
        ));
        diesel::insert_into(batch_evidence::table)
            .values(changed_in)
            .into_columns((
                batch_evidence::batch_id,
                batch_evidence::features,
                batch_evidence::changed_in,
            ))
            .on_conflict(batch_evidence::batch_id)
            .do_update()
            .set(batch_evidence::features.eq(json!(features)))
            .execute(&mut self.connection().await?)
            .await?;
        Ok(())
    }

    /// What batches made by a process say of a fault: those whose causes are confirmed, and at most so
    /// many ordinary ones.
    pub async fn evidence_of_fault(
        &self,
        fault: &str,
        cases: &[(Uuid, Option<String>)],
        process: Process,
        most: i64,
    ) -> Result<EvidenceOfFault> {
        let connection = &mut *self.connection().await?;
        let ids: Vec<Uuid> = cases.iter().map(|case| case.0).collect();
        let found: Vec<(Uuid, Value)> = batch_evidence::table
            .filter(batch_evidence::batch_id.eq_any(ids))
            .select((batch_evidence::batch_id, batch_evidence::features))
            .load(connection)
            .await?;
        let found: HashMap<Uuid, Features> =
            found.into_iter().map(|(id, features)| (id, read(features))).collect();
        let with = fault_case::table
            .filter(fault_case::batch_id.eq(batch_state::batch_id))
            .filter(fault_case::fault.eq(fault));
        let ordinary: Vec<Value> = batch_evidence::table
            .inner_join(
                batch_state::table.inner_join(batch::table.inner_join(method_revision::table)),
            )
            .filter(method_revision::process.eq(Word(process)))
            .filter(diesel::dsl::not(diesel::dsl::exists(with)))
            .order(batch_state::planned_for.desc())
            .limit(most)
            .select(batch_evidence::features)
            .load(connection)
            .await?;
        let cases = cases.iter().filter_map(|(id, cause)| {
            found.get(id).map(|features| (cause.clone(), features.clone()))
        });
        Ok(EvidenceOfFault {
            cases: cases.collect(),
            ordinary: ordinary.into_iter().map(read).collect(),
        })
    }

    /// What drifts by now and was seen by nobody, newest first.
    pub async fn drifts(&self) -> Result<Vec<DriftRecord>> {
        let seen = drift_seen::table.filter(drift_seen::drift_id.eq(drift::id));
        Ok(drift::table
            .inner_join(product::table)
            .inner_join(line::table)
            .filter(drift::ended_at.is_null())
            .filter(diesel::dsl::not(diesel::dsl::exists(seen)))
            .order((drift::began_at.desc(), drift::id))
            .select((
                drift::id,
                product::slug,
                product::name,
                line::name,
                drift::feature,
                drift::side,
                drift::beyond,
                drift::looked_at,
                drift::mean,
                drift::batches,
                drift::began_at,
            ))
            .load(&mut self.connection().await?)
            .await?)
    }

    /// Somebody has seen a drift: it is told no more while it lasts. Sent twice, it is stored once.
    pub async fn see_drift(&self, seen: &DriftSeen) -> Result<()> {
        add_once!(self, drift_seen, seen, |error| StoreError::or_missing(error, "this drift"))
    }
}

/// What batches with a fault's confirmed causes say, and what ordinary ones do.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct EvidenceOfFault {
    /// Each with its cause; a batch with two is there twice.
    pub cases: Vec<(Option<String>, Features)>,
    /// The newest without any case of the fault.
    pub ordinary: Vec<Features>,
}

type Newest = (Uuid, DateTime<Utc>, Features);

/// The newest finished batches of a product on a line, each with its evidence where it was found.
async fn newest(
    connection: &mut AsyncPgConnection,
    product_id: Uuid,
    line_id: Uuid,
    most: i64,
) -> QueryResult<Vec<Newest>> {
    let rows: Vec<(Uuid, DateTime<Utc>, Value)> = batch_state::table
        .inner_join(batch_evidence::table)
        .filter(batch_state::product_id.eq(product_id))
        .filter(batch_state::line_id.eq(line_id))
        .filter(batch_state::state.eq(Word(BatchState::Finished)))
        .order((batch_state::planned_for.desc(), batch_state::batch_id.desc()))
        .limit(most)
        .select((batch_state::batch_id, batch_state::planned_for, batch_evidence::features))
        .load(connection)
        .await?;
    Ok(rows.into_iter().map(|(id, at, features)| (id, at, read(features))).collect())
}

/// What an earlier version found otherwise says nothing.
fn read(features: Value) -> Features {
    serde_json::from_value(features).unwrap_or_default()
}

/// What drifts is open, and nothing else is.
async fn stand(
    connection: &mut AsyncPgConnection,
    (product_id, line_id): (Uuid, Uuid),
    newest: &[Newest],
    drifts: &[FigureDrift],
) -> QueryResult<()> {
    let open: Vec<(Uuid, String, Word<DriftSide>)> = drift::table
        .filter(drift::product_id.eq(product_id))
        .filter(drift::line_id.eq(line_id))
        .filter(drift::ended_at.is_null())
        .select((drift::id, drift::feature, drift::side))
        .load(connection)
        .await?;
    let same = |one: &FigureDrift, open: &(Uuid, String, Word<DriftSide>)| {
        one.feature == open.1 && one.side == open.2.0
    };
    let over = open.iter().filter(|open| !drifts.iter().any(|one| same(one, open)));
    let over: Vec<Uuid> = over.map(|open| open.0).collect();
    diesel::update(drift::table.filter(drift::id.eq_any(over)))
        .set(drift::ended_at.eq(Utc::now()))
        .execute(connection)
        .await?;
    for one in drifts {
        let beyond = newest
            .iter()
            .filter(|batch| batch.2.get(&one.feature).is_some_and(|value| one.holds(*value)));
        let beyond: Vec<&Newest> = beyond.collect();
        let says = (
            drift::beyond.eq(i32::from(one.beyond)),
            drift::looked_at.eq(i32::from(one.of)),
            drift::mean.eq(one.mean),
            drift::batches.eq(beyond.iter().map(|batch| batch.0).collect::<Vec<_>>()),
        );
        if let Some(open) = open.iter().find(|open| same(one, open)) {
            diesel::update(drift::table.find(open.0)).set(says).execute(connection).await?;
            continue;
        }
        let new = (
            drift::id.eq(Uuid::new_v4()),
            drift::product_id.eq(product_id),
            drift::line_id.eq(line_id),
            drift::feature.eq(&one.feature),
            drift::side.eq(Word(one.side)),
            drift::began_at.eq(beyond.last().map_or_else(Utc::now, |batch| batch.1)),
            says,
        );
        diesel::insert_into(drift::table).values(new).execute(connection).await?;
    }
    Ok(())
}
