use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, RunQueryDsl};
use ironpeel_core::chain::LineInHand;
use ironpeel_core::method::Mixer;
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::revision::{Revision, Signed, newest_revision};
use crate::schema::{line, line_revision};
use crate::store::Store;

/// One state of a line's settings.
#[derive(Debug, Clone, PartialEq)]
pub struct LineRevision {
    pub revision: Revision,
    pub name: String,
    pub line: LineInHand,
}

#[derive(Queryable, Selectable, Insertable)]
#[diesel(table_name = line_revision)]
struct Row {
    id: Uuid,
    line_id: Uuid,
    number: i32,
    #[diesel(skip_insertion)]
    made_at: DateTime<Utc>,
    made_by: String,
    reason: String,
    mixer_name: String,
    mixer_kind: String,
    mixer_min_kg: f64,
    mixer_max_kg: f64,
    slow_kj_per_kg_min: f64,
    fast_kj_per_kg_min: f64,
    division_kg: f64,
    tap_c: f64,
    flour_c: f64,
    room_c: f64,
    chilled_min_c: f64,
    max_ice_pct: f64,
}

impl Row {
    fn named(self, name: String) -> LineRevision {
        let revision = Revision {
            id: self.id,
            number: self.number,
            made_at: self.made_at,
            made_by: self.made_by,
            reason: self.reason,
        };
        let mixer = Mixer {
            name: self.mixer_name,
            kind: self.mixer_kind,
            min_kg: self.mixer_min_kg,
            max_kg: self.mixer_max_kg,
            slow_kj_per_kg_min: self.slow_kj_per_kg_min,
            fast_kj_per_kg_min: self.fast_kj_per_kg_min,
        };
        let line = LineInHand {
            mixer,
            division_kg: self.division_kg,
            tap_c: self.tap_c,
            flour_c: self.flour_c,
            room_c: self.room_c,
            chilled_min_c: self.chilled_min_c,
            max_ice_pct: self.max_ice_pct,
        };
        LineRevision { revision, name, line }
    }
}

impl Store {
    /// The newest settings of a line.
    pub async fn current_line(&self, line_id: Uuid) -> Result<LineRevision> {
        let id = newest_revision!(self, line_revision, line_id = line_id, "this line")?;
        self.line(id).await
    }

    pub async fn line(&self, revision_id: Uuid) -> Result<LineRevision> {
        let found: Option<(Row, String)> = line_revision::table
            .inner_join(line::table)
            .filter(line_revision::id.eq(revision_id))
            .select((Row::as_select(), line::name))
            .first(&mut self.connection().await?)
            .await
            .optional()?;
        let (row, name) = found.ok_or(StoreError::NotFound("this revision of a line"))?;
        Ok(row.named(name))
    }

    /// Records a line's first settings.
    pub async fn add_line(
        &self,
        id: Uuid,
        name: &str,
        new: &LineInHand,
        signed: &Signed,
    ) -> Result<()> {
        let row = Row {
            id: Uuid::now_v7(),
            line_id: id,
            number: 1,
            made_at: DateTime::UNIX_EPOCH,
            made_by: signed.by.clone(),
            reason: signed.reason.clone(),
            mixer_name: new.mixer.name.clone(),
            mixer_kind: new.mixer.kind.clone(),
            mixer_min_kg: new.mixer.min_kg,
            mixer_max_kg: new.mixer.max_kg,
            slow_kj_per_kg_min: new.mixer.slow_kj_per_kg_min,
            fast_kj_per_kg_min: new.mixer.fast_kj_per_kg_min,
            division_kg: new.division_kg,
            tap_c: new.tap_c,
            flour_c: new.flour_c,
            room_c: new.room_c,
            chilled_min_c: new.chilled_min_c,
            max_ice_pct: new.max_ice_pct,
        };
        let mut connection = self.connection().await?;
        connection
            .transaction(async |connection| {
                diesel::insert_into(line::table)
                    .values((line::id.eq(id), line::name.eq(name)))
                    .execute(connection)
                    .await?;
                diesel::insert_into(line_revision::table).values(row).execute(connection).await
            })
            .await
            .map(drop)
            .map_err(|error| {
                StoreError::or_conflict(error, || format!("{name} is already on record"))
            })
    }
}

impl Store {
    /// Every line's id and name, by name.
    pub async fn lines(&self) -> Result<Vec<(Uuid, String)>> {
        Ok(line::table
            .order(line::name)
            .select((line::id, line::name))
            .load(&mut self.connection().await?)
            .await?)
    }

    pub async fn line_name(&self, id: Uuid) -> Result<String> {
        let name: Option<String> = line::table
            .find(id)
            .select(line::name)
            .first(&mut self.connection().await?)
            .await
            .optional()?;
        name.ok_or(StoreError::NotFound("this line"))
    }
}
