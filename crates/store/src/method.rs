use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use ironpeel_core::dough::Ingredient;
use ironpeel_core::method::{Method, Speed, Stage, StageKind};
use ironpeel_core::water::Process;
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::revision::{Revision, Signed, newest_revision};
use crate::schema::{method, method_revision, method_stage};
use crate::store::Store;

/// One state of a method.
#[derive(Debug, Clone, PartialEq)]
pub struct MethodRevision {
    pub revision: Revision,
    pub method: Method,
}

#[derive(Queryable, Selectable)]
#[diesel(table_name = method_revision)]
struct Row {
    id: Uuid,
    number: i32,
    made_at: DateTime<Utc>,
    made_by: String,
    reason: String,
    process: String,
    target_c: f64,
    machine_divided: bool,
}

#[derive(Queryable, Insertable)]
#[diesel(table_name = method_stage)]
struct StageRow {
    revision_id: Uuid,
    position: i16,
    kind: String,
    label: String,
    minutes: f64,
    speed: Option<String>,
    temperature_c: Option<f64>,
    humidity_pct: Option<f64>,
    ends_when: String,
    adds: Vec<String>,
}

impl StageRow {
    fn stage(self) -> Result<Stage> {
        let unknown = StoreError::unknown_word;
        let speed = self
            .speed
            .as_deref()
            .map(|word| Speed::from_key(word).ok_or_else(|| unknown("speed", word)));
        let adds = self
            .adds
            .iter()
            .map(|word| Ingredient::from_key(word).ok_or_else(|| unknown("adds", word)));
        Ok(Stage {
            kind: StageKind::from_key(&self.kind).ok_or_else(|| unknown("kind", &self.kind))?,
            speed: speed.transpose()?,
            adds: adds.collect::<Result<_>>()?,
            label: self.label,
            minutes: self.minutes,
            temperature_c: self.temperature_c,
            humidity_pct: self.humidity_pct,
            ends_when: self.ends_when,
        })
    }

    fn new(revision_id: Uuid, position: i16, stage: &Stage) -> Self {
        Self {
            revision_id,
            position,
            kind: stage.kind.key().into(),
            label: stage.label.clone(),
            minutes: stage.minutes,
            speed: stage.speed.map(|speed| speed.key().into()),
            temperature_c: stage.temperature_c,
            humidity_pct: stage.humidity_pct,
            ends_when: stage.ends_when.clone(),
            adds: stage.adds.iter().map(|ingredient| ingredient.key().into()).collect(),
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
        let row: Option<Row> = method_revision::table
            .find(revision_id)
            .select(Row::as_select())
            .first(connection)
            .await
            .optional()?;
        let row = row.ok_or(StoreError::NotFound("this revision of a method"))?;
        let stages: Vec<StageRow> = method_stage::table
            .filter(method_stage::revision_id.eq(revision_id))
            .order(method_stage::position)
            .load(connection)
            .await?;
        let Row { id, number, made_at, made_by, reason, process, target_c, machine_divided } = row;
        Ok(MethodRevision {
            revision: Revision { id, number, made_at, made_by, reason },
            method: Method {
                process: Process::from_key(&process)
                    .ok_or_else(|| StoreError::unknown_word("process", &process))?,
                target_c,
                machine_divided,
                stages: stages.into_iter().map(StageRow::stage).collect::<Result<_>>()?,
            },
        })
    }

    /// Records a method's first state.
    pub async fn add_method(
        &self,
        id: Uuid,
        name: &str,
        new: &Method,
        signed: &Signed,
    ) -> Result<()> {
        let mut connection = self.connection().await?;
        connection
            .transaction(async |connection| record(connection, id, name, new, signed).await)
            .await
            .map_err(|error| {
                StoreError::or_conflict(error, || format!("{name} is already on record"))
            })
    }
}

/// Records a method's first state inside a transaction.
pub(crate) async fn record(
    connection: &mut AsyncPgConnection,
    id: Uuid,
    name: &str,
    new: &Method,
    signed: &Signed,
) -> diesel::QueryResult<()> {
    let revision_id = Uuid::now_v7();
    let stages: Vec<StageRow> = (0i16..)
        .zip(&new.stages)
        .map(|(position, stage)| StageRow::new(revision_id, position, stage))
        .collect();
    diesel::insert_into(method::table)
        .values((method::id.eq(id), method::name.eq(name)))
        .execute(connection)
        .await?;
    diesel::insert_into(method_revision::table)
        .values((
            method_revision::id.eq(revision_id),
            method_revision::method_id.eq(id),
            method_revision::number.eq(1),
            method_revision::made_by.eq(&signed.by),
            method_revision::reason.eq(&signed.reason),
            method_revision::process.eq(new.process.key()),
            method_revision::target_c.eq(new.target_c),
            method_revision::machine_divided.eq(new.machine_divided),
        ))
        .execute(connection)
        .await?;
    diesel::insert_into(method_stage::table).values(stages).execute(connection).await?;
    Ok(())
}
