//! Learned numbers that somebody took over, put back, or lets be learned anew.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, RunQueryDsl};
use ironpeel_core::learn::LearnedSubject;
use serde::Serialize;
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::schema::learned_number;
use crate::store::{Store, write_once};
use crate::word::Word;

/// What a learned number is of.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct LearnedKey {
    pub subject: LearnedSubject,
    pub product_id: Uuid,
    pub line_id: Uuid,
    pub flour_id: Uuid,
}

/// A learned number as it was taken over.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable, Serialize)]
#[diesel(table_name = learned_number)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct LearnedRevision {
    pub id: Uuid,
    #[cfg_attr(feature = "openapi", schema(value_type = LearnedSubject))]
    pub subject: Word<LearnedSubject>,
    pub product_id: Uuid,
    pub line_id: Uuid,
    pub flour_id: Uuid,
    pub number: i32,
    /// None where it was put back.
    pub value: Option<f64>,
    pub sd: Option<f64>,
    pub batches: i32,
    /// It is learned from batches after this alone.
    pub begins_at: Option<DateTime<Utc>>,
    pub saved_at: DateTime<Utc>,
    pub saved_by: String,
    pub reason: String,
}

/// A learned number to be taken over, or put back.
#[derive(Debug, Clone, PartialEq)]
pub struct NewLearned {
    pub id: Uuid,
    pub key: LearnedKey,
    pub number: i32,
    pub value: Option<f64>,
    pub sd: Option<f64>,
    pub batches: i32,
    pub begins_at: Option<DateTime<Utc>>,
    pub saved_by: String,
    pub reason: String,
}

impl Store {
    /// The revisions of a learned number, newest first.
    pub async fn learned(&self, key: LearnedKey) -> Result<Vec<LearnedRevision>> {
        Ok(learned_number::table
            .filter(learned_number::subject.eq(Word(key.subject)))
            .filter(learned_number::product_id.eq(key.product_id))
            .filter(learned_number::line_id.eq(key.line_id))
            .filter(learned_number::flour_id.eq(key.flour_id))
            .order(learned_number::number.desc())
            .select(LearnedRevision::as_select())
            .load(&mut self.connection().await?)
            .await?)
    }

    /// A revision of a learned number.
    pub async fn learned_revision(&self, id: Uuid) -> Result<LearnedRevision> {
        learned_number::table
            .find(id)
            .select(LearnedRevision::as_select())
            .first(&mut self.connection().await?)
            .await
            .optional()?
            .ok_or(StoreError::NotFound("this learned number"))
    }

    /// A learned number as it stands now, where somebody took it over and nobody put it back.
    pub async fn current_learned(&self, key: LearnedKey) -> Result<Option<LearnedRevision>> {
        let newest = self.learned(key).await?.into_iter().next();
        Ok(newest.filter(|one| one.value.is_some()))
    }

    /// Takes a learned number over, or puts it back, as its next revision.
    pub async fn take_over(&self, new: &NewLearned) -> Result<()> {
        write_once!(
            self,
            |connection| {
                let added = diesel::insert_into(learned_number::table)
                    .values((
                        learned_number::id.eq(new.id),
                        learned_number::subject.eq(Word(new.key.subject)),
                        learned_number::product_id.eq(new.key.product_id),
                        learned_number::line_id.eq(new.key.line_id),
                        learned_number::flour_id.eq(new.key.flour_id),
                        learned_number::number.eq(new.number),
                        learned_number::value.eq(new.value),
                        learned_number::sd.eq(new.sd),
                        learned_number::batches.eq(new.batches),
                        learned_number::begins_at.eq(new.begins_at),
                        learned_number::saved_by.eq(&new.saved_by),
                        learned_number::reason.eq(&new.reason),
                    ))
                    .on_conflict(learned_number::id)
                    .do_nothing()
                    .execute(connection)
                    .await?;
                added == 1
            },
            |error| StoreError::or_overtaken(error, "this learned number")
        )
    }
}
