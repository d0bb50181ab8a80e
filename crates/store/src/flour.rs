use std::collections::HashMap;

use diesel::prelude::*;
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use ironpeel_core::dough::AllergenStatement;
use ironpeel_core::flour::{Hardness, IntendedUse, Species, Treatment};
use serde::{Deserialize, Serialize};
use serde_json::Value;
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::revision::{Revision, Signed, is_next, revision_columns, signed_columns};
use crate::schema::{flour, flour_revision, mill};
use crate::store::{Store, WriteError, write_once};
use crate::word::Word;

/// A flour a mill sells, or a blend of the plant's own.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Flour {
    /// Not kept with every revision.
    #[serde(skip)]
    pub id: Uuid,
    pub mill: String,
    pub name: String,
    pub species: Species,
    pub note: String,
    pub hardness: Option<Hardness>,
    /// Flour got from 100 of grain; 100 is whole grain.
    pub extraction_pct: Option<f64>,
    pub treatment: Treatment,
    pub intended_use: IntendedUse,
    /// What a tonne costs.
    pub price_per_t: Option<f64>,
    /// None until somebody stated them.
    pub allergens: Option<AllergenStatement>,
}

/// One state of what a flour is.
#[derive(Debug, Clone, PartialEq)]
pub struct FlourRevision {
    pub revision: Revision,
    pub flour: Flour,
}

impl FlourRevision {
    fn read(revision: Revision, flour_id: Uuid, is_now: Value) -> Result<Self> {
        let flour: Flour = serde_json::from_value(is_now).map_err(fault)?;
        Ok(Self { revision, flour: Flour { id: flour_id, ..flour } })
    }
}

#[derive(Queryable, Selectable)]
#[diesel(table_name = flour)]
pub(crate) struct FlourRow {
    id: Uuid,
    #[diesel(select_expression = mill::name)]
    mill: String,
    name: String,
    species: Word<Species>,
    note: String,
    hardness: Option<Word<Hardness>>,
    extraction_pct: Option<f64>,
    treatment: Word<Treatment>,
    intended_use: Word<IntendedUse>,
    price_per_t: Option<f64>,
    allergens: Option<Value>,
}

impl FlourRow {
    pub(crate) fn flour(self) -> Result<Flour> {
        let allergens = self.allergens.map(serde_json::from_value).transpose().map_err(fault)?;
        Ok(Flour {
            id: self.id,
            mill: self.mill,
            name: self.name,
            species: self.species.0,
            note: self.note,
            hardness: self.hardness.map(|Word(hardness)| hardness),
            extraction_pct: self.extraction_pct,
            treatment: self.treatment.0,
            intended_use: self.intended_use.0,
            price_per_t: self.price_per_t,
            allergens,
        })
    }
}

impl Store {
    /// Every flour, by name.
    pub async fn flours(&self) -> Result<Vec<Flour>> {
        let rows: Vec<FlourRow> = flour::table
            .inner_join(mill::table)
            .select(FlourRow::as_select())
            .order(flour::name)
            .load(&mut self.connection().await?)
            .await?;
        rows.into_iter().map(FlourRow::flour).collect()
    }

    pub async fn flour(&self, id: Uuid) -> Result<Flour> {
        let row: Option<FlourRow> = flour::table
            .inner_join(mill::table)
            .select(FlourRow::as_select())
            .filter(flour::id.eq(id))
            .first(&mut self.connection().await?)
            .await
            .optional()?;
        row.ok_or(StoreError::NotFound("this flour"))?.flour()
    }

    /// Records what a flour is, and its mill if that is new, as the revision after `number − 1`.
    pub async fn add_flour(
        &self,
        new: &Flour,
        revision_id: Uuid,
        number: i32,
        signed: &Signed,
    ) -> Result<()> {
        write_once!(
            self,
            |connection| {
                let (id, name) = (new.id, new.name.as_str());
                is_next!(connection, flour_revision, [flour_id = id], revision_id, number, name);
                record(connection, new, revision_id, number, signed).await?;
                true
            },
            |error| StoreError::or_conflict(error, || format!("{} is already on record", new.name))
        )
    }

    /// Every revision of what a flour is, newest first.
    pub async fn flour_revisions(&self, flour_id: Uuid) -> Result<Vec<FlourRevision>> {
        let rows: Vec<(Revision, Value)> = flour_revision::table
            .filter(flour_revision::flour_id.eq(flour_id))
            .order(flour_revision::number.desc())
            .select((revision_columns!(flour_revision), flour_revision::is_now))
            .load(&mut self.connection().await?)
            .await?;
        rows.into_iter()
            .map(|(revision, is_now)| FlourRevision::read(revision, flour_id, is_now))
            .collect()
    }

    /// Names flours had before that none has now, each with what its flour is called now; a name
    /// that several flours had is no flour's.
    pub async fn earlier_flour_names(&self) -> Result<HashMap<String, String>> {
        let names: Vec<(String, String)> = flour_revision::table
            .inner_join(flour::table)
            .select((flour_revision::is_now.retrieve_as_text("name"), flour::name))
            .distinct()
            .load(&mut self.connection().await?)
            .await?;
        let mut earlier: HashMap<String, Option<String>> = HashMap::new();
        for (was, is) in &names {
            if names.iter().all(|(_, is)| is != was) {
                let one = earlier.entry(was.clone());
                one.and_modify(|one| *one = None).or_insert_with(|| Some(is.clone()));
            }
        }
        Ok(earlier.into_iter().filter_map(|(was, is)| Some((was, is?))).collect())
    }

    pub async fn flour_revision(&self, id: Uuid) -> Result<FlourRevision> {
        let found: Option<(Revision, Uuid, Value)> = flour_revision::table
            .find(id)
            .select((
                revision_columns!(flour_revision),
                flour_revision::flour_id,
                flour_revision::is_now,
            ))
            .first(&mut self.connection().await?)
            .await
            .optional()?;
        let (revision, flour_id, is_now) =
            found.ok_or(StoreError::NotFound("this revision of a flour"))?;
        FlourRevision::read(revision, flour_id, is_now)
    }
}

fn fault(error: serde_json::Error) -> StoreError {
    StoreError::Fault(error.into())
}

/// Records what a flour is inside a transaction as its next revision; where nothing differs,
/// nothing is recorded.
pub(crate) async fn put(
    connection: &mut AsyncPgConnection,
    new: &Flour,
    signed: &Signed,
) -> std::result::Result<(), WriteError> {
    let newest: Option<(i32, Value)> = flour_revision::table
        .filter(flour_revision::flour_id.eq(new.id))
        .order(flour_revision::number.desc())
        .select((flour_revision::number, flour_revision::is_now))
        .first(connection)
        .await
        .optional()?;
    let was = newest.as_ref().map(|(_, was)| Flour::deserialize(was)).transpose().map_err(fault)?;
    if was.is_some_and(|was| Flour { id: new.id, ..was } == *new) {
        return Ok(());
    }
    let number = newest.map_or(0, |(number, _)| number) + 1;
    record(connection, new, Uuid::now_v7(), number, signed).await
}

async fn record(
    connection: &mut AsyncPgConnection,
    new: &Flour,
    revision_id: Uuid,
    number: i32,
    signed: &Signed,
) -> std::result::Result<(), WriteError> {
    diesel::insert_into(mill::table)
        .values((mill::id.eq(Uuid::now_v7()), mill::name.eq(&new.mill)))
        .on_conflict(mill::name)
        .do_nothing()
        .execute(connection)
        .await?;
    let mill_id: Uuid =
        mill::table.filter(mill::name.eq(&new.mill)).select(mill::id).first(connection).await?;
    let allergens = new.allergens.as_ref().map(serde_json::to_value).transpose().map_err(fault)?;
    let is = (
        flour::mill_id.eq(mill_id),
        flour::name.eq(&new.name),
        flour::species.eq(Word(new.species)),
        flour::note.eq(&new.note),
        flour::hardness.eq(new.hardness.map(Word)),
        flour::extraction_pct.eq(new.extraction_pct),
        flour::treatment.eq(Word(new.treatment)),
        flour::intended_use.eq(Word(new.intended_use)),
        flour::price_per_t.eq(new.price_per_t),
        flour::allergens.eq(&allergens),
    );
    diesel::insert_into(flour::table)
        .values((flour::id.eq(new.id), is))
        .on_conflict(flour::id)
        .do_update()
        .set(is)
        .execute(connection)
        .await?;
    diesel::insert_into(flour_revision::table)
        .values((
            signed_columns!(flour_revision, revision_id, number, signed),
            flour_revision::flour_id.eq(new.id),
            flour_revision::is_now.eq(serde_json::to_value(new).map_err(fault)?),
        ))
        .execute(connection)
        .await?;
    Ok(())
}
