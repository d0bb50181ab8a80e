use diesel::prelude::*;
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use ironpeel_core::dough::AllergenStatement;
use ironpeel_core::flour::{Hardness, IntendedUse, Treatment};
use ironpeel_core::water::Species;
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::revision::{Revision, Signed, all_revisions};
use crate::schema::{flour, flour_revision, mill};
use crate::store::{Store, WriteError, write_once};

/// A flour a mill sells, or a blend of the plant's own.
#[derive(Debug, Clone, PartialEq)]
pub struct Flour {
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

#[derive(Queryable, Selectable)]
#[diesel(table_name = flour)]
struct FlourRow {
    id: Uuid,
    #[diesel(select_expression = mill::name)]
    mill: String,
    name: String,
    species: String,
    note: String,
    hardness: Option<String>,
    extraction_pct: Option<f64>,
    treatment: String,
    intended_use: String,
    price_per_t: Option<f64>,
    allergens: Option<serde_json::Value>,
}

impl FlourRow {
    fn flour(self) -> Result<Flour> {
        let species = Species::from_key(&self.species)
            .ok_or_else(|| StoreError::unknown_word("species", &self.species))?;
        let hardness = self
            .hardness
            .map(|word| {
                Hardness::from_key(&word).ok_or_else(|| StoreError::unknown_word("hardness", &word))
            })
            .transpose()?;
        let treatment = Treatment::from_key(&self.treatment)
            .ok_or_else(|| StoreError::unknown_word("treatment", &self.treatment))?;
        let intended_use = IntendedUse::from_key(&self.intended_use)
            .ok_or_else(|| StoreError::unknown_word("intended_use", &self.intended_use))?;
        let allergens = self
            .allergens
            .map(serde_json::from_value)
            .transpose()
            .map_err(|error| StoreError::Fault(error.into()))?;
        let Self { id, mill, name, note, extraction_pct, price_per_t, .. } = self;
        Ok(Flour {
            id,
            mill,
            name,
            species,
            note,
            hardness,
            extraction_pct,
            treatment,
            intended_use,
            price_per_t,
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

    /// Records what a flour is, and its mill if that is new, as its next revision; where nothing
    /// differs, nothing is recorded.
    pub async fn put_flour(&self, new: &Flour, signed: &Signed) -> Result<()> {
        write_once!(
            self,
            |connection| {
                put(connection, new, signed).await?;
                true
            },
            |error| StoreError::or_conflict(error, || format!("{} is already on record", new.name))
        )
    }

    /// Every revision of what a flour is, newest first.
    pub async fn flour_revisions(&self, flour_id: Uuid) -> Result<Vec<Revision>> {
        Ok(all_revisions!(self, flour_revision, flour_id = flour_id)?)
    }
}

/// Records what a flour is inside a transaction.
pub(crate) async fn put(
    connection: &mut AsyncPgConnection,
    new: &Flour,
    signed: &Signed,
) -> std::result::Result<(), WriteError> {
    let json = |value: serde_json::Result<serde_json::Value>| {
        value.map_err(|error| StoreError::Fault(error.into()))
    };
    let allergens = new.allergens.as_ref().map(serde_json::to_value).map(json).transpose()?;
    diesel::insert_into(mill::table)
        .values((mill::id.eq(Uuid::now_v7()), mill::name.eq(&new.mill)))
        .on_conflict(mill::name)
        .do_nothing()
        .execute(connection)
        .await?;
    let mill_id: Uuid =
        mill::table.filter(mill::name.eq(&new.mill)).select(mill::id).first(connection).await?;
    let is = (
        flour::mill_id.eq(mill_id),
        flour::name.eq(&new.name),
        flour::species.eq(new.species.key()),
        flour::note.eq(&new.note),
        flour::hardness.eq(new.hardness.map(Hardness::key)),
        flour::extraction_pct.eq(new.extraction_pct),
        flour::treatment.eq(new.treatment.key()),
        flour::intended_use.eq(new.intended_use.key()),
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
    let is_now = serde_json::json!({
        "mill": new.mill,
        "name": new.name,
        "species": new.species,
        "note": new.note,
        "hardness": new.hardness,
        "extraction_pct": new.extraction_pct,
        "treatment": new.treatment,
        "intended_use": new.intended_use,
        "price_per_t": new.price_per_t,
        "allergens": allergens,
    });
    let newest: Option<(i32, serde_json::Value)> = flour_revision::table
        .filter(flour_revision::flour_id.eq(new.id))
        .order(flour_revision::number.desc())
        .select((flour_revision::number, flour_revision::is_now))
        .first(connection)
        .await
        .optional()?;
    if newest.as_ref().is_some_and(|(_, was)| *was == is_now) {
        return Ok(());
    }
    diesel::insert_into(flour_revision::table)
        .values((
            flour_revision::id.eq(Uuid::now_v7()),
            flour_revision::flour_id.eq(new.id),
            flour_revision::number.eq(newest.map_or(0, |(number, _)| number) + 1),
            flour_revision::made_by.eq(&signed.by),
            flour_revision::reason.eq(&signed.reason),
            flour_revision::is_now.eq(is_now),
        ))
        .execute(connection)
        .await?;
    Ok(())
}
