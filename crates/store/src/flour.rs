use diesel::prelude::*;
use diesel_async::{AsyncConnection, RunQueryDsl};
use ironpeel_core::flour::{Hardness, IntendedUse, Treatment};
use ironpeel_core::water::Species;
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::schema::{flour, mill};
use crate::store::Store;

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

    /// Records what a flour is, and its mill if that is new. Sent twice, it is stored once; sent
    /// with other words, they replace the ones before.
    pub async fn put_flour(&self, new: &Flour) -> Result<()> {
        let mut connection = self.connection().await?;
        connection
            .transaction(async |connection| {
                diesel::insert_into(mill::table)
                    .values((mill::id.eq(Uuid::now_v7()), mill::name.eq(&new.mill)))
                    .on_conflict(mill::name)
                    .do_nothing()
                    .execute(connection)
                    .await?;
                let mill_id: Uuid = mill::table
                    .filter(mill::name.eq(&new.mill))
                    .select(mill::id)
                    .first(connection)
                    .await?;
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
                );
                diesel::insert_into(flour::table)
                    .values((flour::id.eq(new.id), is))
                    .on_conflict(flour::id)
                    .do_update()
                    .set(is)
                    .execute(connection)
                    .await?;
                Ok(())
            })
            .await
            .map_err(|error| {
                StoreError::or_conflict(error, || format!("{} is already on record", new.name))
            })
    }
}
