//! The plant's own numbers: one document, revised.

use diesel::prelude::*;
use diesel_async::{AsyncConnection, RunQueryDsl};
use ironpeel_core::plant::{OwnNumbers, PlantNumbers};
use serde_json::Value;
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::revision::{Revision, Signed, next_after, revision_columns};
use crate::schema::plant_numbers_revision;
use crate::store::{Store, write_once};

/// One state of the plant's own numbers.
#[derive(Debug, Clone, PartialEq)]
pub struct NumbersRevision {
    pub revision: Revision,
    pub own: OwnNumbers,
    /// The same over the house's, as computations take them.
    pub numbers: PlantNumbers,
}

impl Store {
    /// The newest state; none where the plant has only the house's.
    pub async fn current_numbers(&self) -> Result<Option<NumbersRevision>> {
        let newest: Option<(Revision, Value)> = plant_numbers_revision::table
            .order(plant_numbers_revision::number.desc())
            .select((revision_columns!(plant_numbers_revision), plant_numbers_revision::numbers))
            .first(&mut self.connection().await?)
            .await
            .optional()?;
        newest.map(read).transpose()
    }

    pub async fn numbers(&self, revision_id: Uuid) -> Result<NumbersRevision> {
        let found: Option<(Revision, Value)> = plant_numbers_revision::table
            .find(revision_id)
            .select((revision_columns!(plant_numbers_revision), plant_numbers_revision::numbers))
            .first(&mut self.connection().await?)
            .await
            .optional()?;
        read(found.ok_or(StoreError::NotFound("this revision of the plant's numbers"))?)
    }

    /// Every revision, newest first.
    pub async fn numbers_revisions(&self) -> Result<Vec<Revision>> {
        Ok(plant_numbers_revision::table
            .order(plant_numbers_revision::number.desc())
            .select(revision_columns!(plant_numbers_revision))
            .load(&mut self.connection().await?)
            .await?)
    }

    /// Records the revision after `number − 1`. Sent twice, it is stored once.
    pub async fn add_numbers(
        &self,
        id: Uuid,
        number: i32,
        own: &OwnNumbers,
        signed: &Signed,
    ) -> Result<()> {
        let numbers = serde_json::to_value(own).map_err(|error| StoreError::Fault(error.into()))?;
        write_once!(
            self,
            |connection| {
                let added = diesel::insert_into(plant_numbers_revision::table)
                    .values((
                        plant_numbers_revision::id.eq(id),
                        plant_numbers_revision::number.eq(number),
                        plant_numbers_revision::made_by.eq(&signed.by),
                        plant_numbers_revision::reason.eq(&signed.reason),
                        plant_numbers_revision::numbers.eq(&numbers),
                    ))
                    .on_conflict(plant_numbers_revision::id)
                    .do_nothing()
                    .execute(connection)
                    .await?;
                if added == 1 {
                    let newest: Option<i32> = plant_numbers_revision::table
                        .filter(plant_numbers_revision::id.ne(id))
                        .select(diesel::dsl::max(plant_numbers_revision::number))
                        .first(connection)
                        .await?;
                    next_after(newest, number, "the plant's own numbers")?;
                }
                added == 1
            },
            |error| StoreError::or_overtaken(error, "the plant's own numbers")
        )
    }
}

fn read((revision, numbers): (Revision, Value)) -> Result<NumbersRevision> {
    let own: OwnNumbers =
        serde_json::from_value(numbers).map_err(|error| StoreError::Fault(error.into()))?;
    Ok(NumbersRevision { revision, numbers: own.clone().into(), own })
}
