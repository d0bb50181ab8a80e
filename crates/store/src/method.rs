use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use ironpeel_core::dough::PreparationKind;
use ironpeel_core::method::{
    EndPoint, Method, OptionalStep, Process, Speed, Stage, StageKind, TimeTolerance,
};
use serde::de::DeserializeOwned;
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::revision::{
    Revision, Signed, add_revision, all_revisions, newest_revision, signed_columns,
};
use crate::schema::{method, method_revision, method_stage};
use crate::store::{Store, WriteError, write_once};
use crate::word::Word;

/// One state of a method.
#[derive(Debug, Clone, PartialEq)]
pub struct MethodRevision {
    pub revision: Revision,
    pub method_id: Uuid,
    pub name: String,
    pub method: Method,
}

/// A method's state to be recorded.
#[derive(Debug, Clone, PartialEq)]
pub struct NewMethod {
    pub method_id: Uuid,
    pub name: String,
    pub revision_id: Uuid,
    /// The number after the revision it was made from.
    pub number: i32,
    pub method: Method,
    pub signed: Signed,
}

#[derive(Queryable, Selectable)]
#[diesel(table_name = method_revision)]
struct Row {
    id: Uuid,
    method_id: Uuid,
    number: i32,
    made_at: DateTime<Utc>,
    made_by: String,
    reason: String,
    process: Word<Process>,
    target_c: f64,
    sponge_c: Option<f64>,
    machine_divided: bool,
}

#[derive(Queryable, Insertable)]
#[diesel(table_name = method_stage)]
struct StageRow {
    revision_id: Uuid,
    position: i16,
    kind: Word<StageKind>,
    label: String,
    minutes: f64,
    speed: Option<Word<Speed>>,
    temperature_c: Option<f64>,
    humidity_pct: Option<f64>,
    ends_when: String,
    adds: serde_json::Value,
    end_point: Word<EndPoint>,
    reason: String,
    low_min: Option<f64>,
    high_min: Option<f64>,
    fold_sets: Option<i16>,
    stage_id: Uuid,
    optional_step: Option<Word<OptionalStep>>,
    ends_at: Option<f64>,
    ends_after: Option<Uuid>,
    ambient_curve: serde_json::Value,
    makes: Option<Word<PreparationKind>>,
    programme: serde_json::Value,
    begins_at_mm: Option<f64>,
}

/// A list that a column holds.
fn from_json<T: DeserializeOwned>(value: serde_json::Value) -> Result<Vec<T>> {
    serde_json::from_value(value).map_err(|error| StoreError::Fault(error.into()))
}

impl StageRow {
    fn stage(self) -> Result<Stage> {
        Ok(Stage {
            id: Some(self.stage_id),
            optional_step: self.optional_step.map(|Word(step)| step),
            fold_sets: self.fold_sets.and_then(|sets| sets.try_into().ok()),
            kind: self.kind.0,
            speed: self.speed.map(|Word(speed)| speed),
            adds: from_json(self.adds)?,
            label: self.label,
            minutes: self.minutes,
            temperature_c: self.temperature_c,
            humidity_pct: self.humidity_pct,
            ends_when: self.ends_when,
            ends_at: self.ends_at,
            begins_at_mm: self.begins_at_mm,
            ends_after: self.ends_after,
            ambient_curve: from_json(self.ambient_curve)?,
            makes: self.makes.map(|Word(kind)| kind),
            programme: from_json(self.programme)?,
            end_point: self.end_point.0,
            reason: self.reason,
            tolerance: self
                .low_min
                .zip(self.high_min)
                .map(|(low_min, high_min)| TimeTolerance { low_min, high_min }),
        })
    }

    fn new(revision_id: Uuid, position: i16, stage: &Stage) -> Self {
        Self {
            revision_id,
            position,
            kind: Word(stage.kind),
            label: stage.label.clone(),
            minutes: stage.minutes,
            speed: stage.speed.map(Word),
            temperature_c: stage.temperature_c,
            humidity_pct: stage.humidity_pct,
            ends_when: stage.ends_when.clone(),
            adds: serde_json::json!(stage.adds),
            end_point: Word(stage.end_point),
            reason: stage.reason.clone(),
            low_min: stage.tolerance.map(|tolerance| tolerance.low_min),
            high_min: stage.tolerance.map(|tolerance| tolerance.high_min),
            fold_sets: stage.fold_sets.map(i16::from),
            stage_id: stage.id.unwrap_or_else(Uuid::now_v7),
            optional_step: stage.optional_step.map(Word),
            ends_at: stage.ends_at,
            ends_after: stage.ends_after,
            ambient_curve: serde_json::json!(stage.ambient_curve),
            makes: stage.makes.map(Word),
            programme: serde_json::json!(stage.programme),
            begins_at_mm: stage.begins_at_mm,
        }
    }
}

impl Store {
    /// The newest state of a method.
    pub async fn current_method(&self, method_id: Uuid) -> Result<MethodRevision> {
        let id = newest_revision!(self, method_revision, method_id = method_id, "this method")?;
        self.method(id).await
    }

    pub async fn method(&self, revision_id: Uuid) -> Result<MethodRevision> {
        let connection = &mut self.connection().await?;
        let row: Option<(Row, String)> = method_revision::table
            .inner_join(method::table)
            .filter(method_revision::id.eq(revision_id))
            .select((Row::as_select(), method::name))
            .first(connection)
            .await
            .optional()?;
        let (row, name) = row.ok_or(StoreError::NotFound("this revision of a method"))?;
        let stages: Vec<StageRow> = method_stage::table
            .filter(method_stage::revision_id.eq(revision_id))
            .order(method_stage::position)
            .load(connection)
            .await?;
        let Row {
            id,
            method_id,
            number,
            made_at,
            made_by,
            reason,
            process,
            target_c,
            sponge_c,
            machine_divided,
        } = row;
        Ok(MethodRevision {
            revision: Revision { id, number, made_at, made_by, reason },
            method_id,
            name,
            method: Method {
                process: process.0,
                target_c,
                sponge_c,
                machine_divided,
                stages: stages.into_iter().map(StageRow::stage).collect::<Result<_>>()?,
            },
        })
    }

    /// Every revision of a method, newest first.
    pub async fn method_revisions(&self, method_id: Uuid) -> Result<Vec<Revision>> {
        Ok(all_revisions!(self, method_revision, method_id = method_id)?)
    }

    /// Records a method or its next state. Sent twice, it is stored once.
    pub async fn add_method(&self, new: &NewMethod) -> Result<()> {
        write_once!(self, |connection| { record(connection, new).await? }, |error| {
            StoreError::or_overtaken(error, &new.name)
        })
    }
}

/// Records a method's state inside a transaction.
pub(crate) async fn record(
    connection: &mut AsyncPgConnection,
    new: &NewMethod,
) -> std::result::Result<bool, WriteError> {
    let NewMethod { method_id, revision_id, method: made, .. } = new;
    diesel::insert_into(method::table)
        .values((method::id.eq(method_id), method::name.eq(&new.name)))
        .on_conflict(method::id)
        .do_nothing()
        .execute(connection)
        .await?;
    let (id, owner) = (*revision_id, *method_id);
    let stages: Vec<StageRow> = (0i16..)
        .zip(&made.stages)
        .map(|(position, stage)| StageRow::new(id, position, stage))
        .collect();
    let row = (
        signed_columns!(method_revision, id, new.number, new.signed),
        method_revision::method_id.eq(owner),
        method_revision::process.eq(Word(made.process)),
        method_revision::target_c.eq(made.target_c),
        method_revision::sponge_c.eq(made.sponge_c),
        method_revision::machine_divided.eq(made.machine_divided),
    );
    Ok(add_revision!(
        connection,
        method_revision,
        [method_id = owner],
        id,
        new.number,
        &new.name,
        row,
        {
            diesel::insert_into(method_stage::table).values(stages).execute(connection).await?;
        }
    ))
}
