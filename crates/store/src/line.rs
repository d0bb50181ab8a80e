use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, RunQueryDsl};
use ironpeel_core::chain::ScenarioLine;
use ironpeel_core::heat::WaterSources;
use ironpeel_core::method::{Equipment, Mixer};
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::revision::{Revision, Signed, add_revision, all_revisions, newest_revision};
use crate::schema::{line, line_revision};
use crate::store::{Store, write_once};

/// One state of a line's settings.
#[derive(Debug, Clone, PartialEq)]
pub struct LineRevision {
    pub revision: Revision,
    pub line_id: Uuid,
    pub name: String,
    pub line: ScenarioLine,
}

/// A line's settings to be recorded.
#[derive(Debug, Clone, PartialEq)]
pub struct NewLine {
    pub line_id: Uuid,
    pub name: String,
    pub revision_id: Uuid,
    /// The number after the revision it was made from.
    pub number: i32,
    pub line: ScenarioLine,
    pub signed: Signed,
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
    chilled_c: Option<f64>,
    max_ice_pct: f64,
    jacket_kj_per_kg_min: Option<f64>,
    turn_min: f64,
    troughs: i32,
    trough_kg: f64,
    trough_m2: f64,
    divider_per_min: f64,
    proofer_pieces: f64,
    oven_pieces: f64,
    hot_c: Option<f64>,
    refrigerator_c: Option<f64>,
}

impl Row {
    fn of(new: &NewLine) -> Self {
        let ScenarioLine { mixer, equipment, .. } = &new.line;
        Self {
            id: new.revision_id,
            line_id: new.line_id,
            number: new.number,
            made_at: DateTime::UNIX_EPOCH,
            made_by: new.signed.by.clone(),
            reason: new.signed.reason.clone(),
            mixer_name: mixer.name.clone(),
            mixer_kind: mixer.kind.clone(),
            mixer_min_kg: mixer.min_kg,
            mixer_max_kg: mixer.max_kg,
            slow_kj_per_kg_min: mixer.slow_kj_per_kg_min,
            fast_kj_per_kg_min: mixer.fast_kj_per_kg_min,
            division_kg: new.line.division_kg,
            tap_c: new.line.tap_c,
            flour_c: new.line.flour_c,
            room_c: new.line.room_c,
            chilled_c: new.line.water.chilled_c,
            max_ice_pct: new.line.water.max_ice_pct,
            hot_c: new.line.water.hot_c,
            refrigerator_c: new.line.water.refrigerator_c,
            jacket_kj_per_kg_min: mixer.jacket_kj_per_kg_min,
            turn_min: equipment.turn_min,
            troughs: equipment.troughs.try_into().unwrap_or(i32::MAX),
            trough_kg: equipment.trough_kg,
            trough_m2: equipment.trough_m2,
            divider_per_min: equipment.divider_per_min,
            proofer_pieces: equipment.proofer_pieces,
            oven_pieces: equipment.oven_pieces,
        }
    }

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
            jacket_kj_per_kg_min: self.jacket_kj_per_kg_min,
        };
        let equipment = Equipment {
            turn_min: self.turn_min,
            troughs: self.troughs.unsigned_abs(),
            trough_kg: self.trough_kg,
            trough_m2: self.trough_m2,
            divider_per_min: self.divider_per_min,
            proofer_pieces: self.proofer_pieces,
            oven_pieces: self.oven_pieces,
        };
        let line = ScenarioLine {
            mixer,
            equipment,
            division_kg: self.division_kg,
            tap_c: self.tap_c,
            flour_c: self.flour_c,
            room_c: self.room_c,
            water: WaterSources {
                chilled_c: self.chilled_c,
                refrigerator_c: self.refrigerator_c,
                hot_c: self.hot_c,
                max_ice_pct: self.max_ice_pct,
            },
        };
        LineRevision { revision, line_id: self.line_id, name, line }
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

    /// Records a line's settings or their next state. Sent twice, they are stored once.
    pub async fn add_line(&self, new: &NewLine) -> Result<()> {
        let row = Row::of(new);
        write_once!(
            self,
            |connection| {
                diesel::insert_into(line::table)
                    .values((line::id.eq(new.line_id), line::name.eq(&new.name)))
                    .on_conflict(line::id)
                    .do_nothing()
                    .execute(connection)
                    .await?;
                let (id, owner) = (new.revision_id, new.line_id);
                add_revision!(
                    connection,
                    line_revision,
                    [line_id = owner],
                    id,
                    new.number,
                    &new.name,
                    &row,
                    {}
                )
            },
            |error| StoreError::or_overtaken(error, &new.name)
        )
    }

    /// The newest settings of every line, by name.
    pub async fn lines(&self) -> Result<Vec<LineRevision>> {
        let newest: Vec<(Row, String)> = line_revision::table
            .inner_join(line::table)
            .distinct_on(line_revision::line_id)
            .order((line_revision::line_id, line_revision::number.desc()))
            .select((Row::as_select(), line::name))
            .load(&mut self.connection().await?)
            .await?;
        let mut lines: Vec<_> = newest.into_iter().map(|(row, name)| row.named(name)).collect();
        lines.sort_by(|one, other| one.name.cmp(&other.name));
        Ok(lines)
    }

    /// Every revision of a line, newest first.
    pub async fn line_revisions(&self, line_id: Uuid) -> Result<Vec<Revision>> {
        Ok(all_revisions!(self, line_revision, line_id = line_id)?)
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
