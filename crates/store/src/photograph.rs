//! Photographs of samples, each once by its content.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use ironpeel_core::judging::PhotographView;
use serde::Serialize;
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::schema::{photograph, photograph_content, sample_photograph};
use crate::store::{Store, write_once};
use crate::word::Word;

/// What a photograph shows of a sample, and under which hash its content lies.
#[derive(Debug, Clone, PartialEq, Eq, Queryable, Insertable, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[diesel(table_name = sample_photograph)]
pub struct SamplePhotograph {
    pub id: Uuid,
    pub sample_id: Uuid,
    /// SHA-256 of the content, in hexadecimal.
    pub hash: String,
    #[cfg_attr(feature = "openapi", schema(value_type = PhotographView))]
    pub shows: Word<PhotographView>,
    pub taken_by: String,
    pub taken_at: DateTime<Utc>,
}

/// A photograph as it was sent.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Photograph {
    /// SHA-256 of the content, in hexadecimal.
    pub hash: String,
    /// Of the kinds that browsers show.
    pub media_type: String,
    pub width: i32,
    pub height: i32,
    pub content: Vec<u8>,
}

impl Store {
    /// Puts a photograph with a sample. Sent twice, it is stored once; its content is, whoever sent it.
    pub async fn add_photograph(&self, of: &SamplePhotograph, taken: &Photograph) -> Result<()> {
        write_once!(
            self,
            |connection| { insert_photograph(connection, of, taken).await? > 0 },
            |error| StoreError::or_missing(error, "this sample")
        )
    }

    /// The newest photograph of each view of samples.
    pub async fn photographs(&self, samples: &[Uuid]) -> Result<Vec<SamplePhotograph>> {
        let newest = sample_photograph::table
            .filter(sample_photograph::sample_id.eq_any(samples))
            .distinct_on((sample_photograph::sample_id, sample_photograph::shows))
            .order((
                sample_photograph::sample_id,
                sample_photograph::shows,
                sample_photograph::taken_at.desc(),
                sample_photograph::id.desc(),
            ));
        Ok(newest.load(&mut self.connection().await?).await?)
    }

    /// A photograph's kind and content.
    pub async fn photograph_content(&self, hash: &str) -> Result<(String, Vec<u8>)> {
        let found = photograph::table
            .inner_join(photograph_content::table)
            .filter(photograph::hash.eq(hash))
            .select((photograph::media_type, photograph_content::content))
            .first(&mut self.connection().await?)
            .await
            .optional()?;
        found.ok_or(StoreError::NotFound("this photograph"))
    }
}

/// Inserts a photograph of a sample, and its content where that is new.
pub(crate) async fn insert_photograph(
    connection: &mut AsyncPgConnection,
    of: &SamplePhotograph,
    taken: &Photograph,
) -> QueryResult<usize> {
    let row = (
        photograph::hash.eq(&taken.hash),
        photograph::media_type.eq(&taken.media_type),
        photograph::width.eq(taken.width),
        photograph::height.eq(taken.height),
    );
    let added = diesel::insert_into(photograph::table).values(row).on_conflict_do_nothing();
    if added.execute(connection).await? > 0 {
        let content = (
            photograph_content::hash.eq(&taken.hash),
            photograph_content::content.eq(&taken.content),
        );
        diesel::insert_into(photograph_content::table).values(content).execute(connection).await?;
    }
    diesel::insert_into(sample_photograph::table)
        .values(of)
        .on_conflict(sample_photograph::id)
        .do_nothing()
        .execute(connection)
        .await
}
