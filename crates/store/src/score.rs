//! Coded samples of batches and of trials' doughs, and what judges say of them.

use std::collections::HashMap;

use chrono::{DateTime, Utc};
use diesel::pg::Pg;
use diesel::prelude::*;
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use ironpeel_core::judging::{Characteristic, ScoreMark, ScoredMark, Sheet, Sign};
use serde::Serialize;
use uuid::Uuid;

use crate::batch_state::{BatchSeen, this_write};
use crate::error::{Result, StoreError};
use crate::schema::{batch_state, bench_dough, product, sample, score, score_mark};
use crate::store::{Store, add_once, write_once};
use crate::word::Word;

/// A loaf of a batch, or of a trial's dough, under a code.
#[derive(Debug, Clone, PartialEq, Eq, Queryable, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Sample {
    pub id: Uuid,
    pub batch_id: Option<Uuid>,
    /// None where it is of a batch.
    pub bench_dough_id: Option<Uuid>,
    pub loaf: i16,
    pub code: String,
    pub made_by: String,
    pub made_at: DateTime<Utc>,
    #[serde(skip)]
    pub slug: String,
    #[serde(skip)]
    pub product: String,
}

/// A sample to be set out, of a batch or of a trial's dough.
#[derive(Debug, Clone, PartialEq, Eq, Insertable)]
#[diesel(table_name = sample)]
pub struct NewSample {
    pub id: Uuid,
    pub product_id: Uuid,
    pub batch_id: Option<Uuid>,
    pub bench_dough_id: Option<Uuid>,
    pub loaf: i16,
    pub code: String,
    pub made_by: String,
    pub made_at: DateTime<Utc>,
}

/// What a judge said of a sample.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Score {
    pub id: Uuid,
    pub sample_id: Uuid,
    /// The batch, or the trial's dough.
    pub dough_id: Uuid,
    pub loaf: i16,
    pub code: String,
    /// 2 where the judges disagreed and looked once more.
    pub round: i16,
    pub judge: String,
    pub note: String,
    pub scored_at: DateTime<Utc>,
    pub marks: Vec<ScoredMark>,
}

impl Score {
    /// As judges are put together.
    pub fn sheet(&self) -> Sheet {
        Sheet {
            judge: self.judge.clone(),
            loaf: (self.dough_id, self.loaf),
            sample: self.sample_id,
            marks: self.marks.iter().map(|given| given.mark).collect(),
        }
    }
}

/// A sheet to be recorded.
#[derive(Debug, Clone, PartialEq)]
pub struct NewScore {
    pub id: Uuid,
    pub sample_id: Uuid,
    pub round: i16,
    pub judge: String,
    pub person_id: Option<Uuid>,
    pub note: String,
    pub scored_at: DateTime<Utc>,
    pub marks: Vec<ScoredMark>,
}

type ScoreRow =
    (Uuid, Uuid, (Option<Uuid>, Option<Uuid>), i16, String, i16, String, String, DateTime<Utc>);
type MarkRow = (Uuid, Word<Characteristic>, f64, Option<Word<Sign>>, Option<f64>);

impl Store {
    /// Sets samples out. Sent twice, they are stored once.
    pub async fn add_samples(&self, new: &[NewSample]) -> Result<()> {
        add_once!(self, sample, new, |error| StoreError::or_missing(error, "this batch"))
    }

    /// The samples of a batch, by loaf.
    pub async fn samples(&self, batch_id: Uuid) -> Result<Vec<Sample>> {
        let rows = sample_rows!().filter(sample::batch_id.eq(batch_id));
        let rows = rows.order((sample::loaf, sample::code));
        Ok(rows.load(&mut self.connection().await?).await?)
    }

    /// The samples of a trial's doughs, by loaf.
    pub async fn trial_samples(&self, trial_id: Uuid) -> Result<Vec<Sample>> {
        let doughs = bench_dough::table.filter(bench_dough::trial_id.eq(trial_id));
        let rows = sample_rows!()
            .filter(sample::bench_dough_id.eq_any(doughs.select(bench_dough::id.nullable())));
        let rows = rows.order((sample::bench_dough_id, sample::loaf, sample::code));
        Ok(rows.load(&mut self.connection().await?).await?)
    }

    /// The newest sample under a code.
    pub async fn coded_sample(&self, code: &str) -> Result<Sample> {
        let rows = sample_rows!().filter(sample::code.eq(code)).order(sample::made_at.desc());
        let found = rows.first(&mut self.connection().await?).await.optional()?;
        found.ok_or(StoreError::NotFound("a sample under this code"))
    }

    /// Codes given out since a time.
    pub async fn codes_since(&self, since: DateTime<Utc>) -> Result<Vec<String>> {
        let codes = sample::table.filter(sample::made_at.ge(since)).select(sample::code);
        Ok(codes.load(&mut self.connection().await?).await?)
    }

    /// What judges said of a batch, in order.
    pub async fn scores(&self, batch_id: Uuid) -> Result<Vec<Score>> {
        Ok(scores_of(&mut *self.connection().await?, batch_id).await?)
    }

    /// What judges said of a sample, in order.
    pub async fn scores_of_sample(&self, sample_id: Uuid) -> Result<Vec<Score>> {
        let connection = &mut *self.connection().await?;
        let rows = score_rows!().filter(score::sample_id.eq(sample_id));
        let rows = rows.order((score::scored_at, score::id)).load(connection).await?;
        Ok(with_marks(connection, rows).await?)
    }

    /// What judges said of a trial's doughs, in order.
    pub async fn trial_scores(&self, trial_id: Uuid) -> Result<Vec<Score>> {
        let connection = &mut *self.connection().await?;
        let doughs = bench_dough::table.filter(bench_dough::trial_id.eq(trial_id));
        let rows = score_rows!()
            .filter(sample::bench_dough_id.eq_any(doughs.select(bench_dough::id.nullable())))
            .order((score::scored_at, score::id))
            .load(connection)
            .await?;
        Ok(with_marks(connection, rows).await?)
    }

    /// What judges first said of a product's batches last, newest last, but for one batch.
    pub async fn earlier_scores(
        &self,
        product_id: Uuid,
        but: Option<Uuid>,
        most: i64,
    ) -> Result<Vec<Score>> {
        let connection = &mut *self.connection().await?;
        let mut rows: Vec<ScoreRow> = score_rows!()
            .filter(sample::product_id.eq(product_id))
            .filter(sample::batch_id.is_not_null())
            .filter(sample::batch_id.is_distinct_from(but))
            .filter(score::round.eq(1))
            .order((score::scored_at.desc(), score::id.desc()))
            .limit(most)
            .load(connection)
            .await?;
        rows.reverse();
        Ok(with_marks(connection, rows).await?)
    }

    /// Records a sheet, and what its batch's judges say together with it: all or nothing. Sent twice,
    /// it is stored once.
    pub async fn add_score(
        &self,
        batch_id: Option<Uuid>,
        new: &NewScore,
        seen: impl Fn(&[Score], BatchSeen) -> BatchSeen + Send + Sync,
    ) -> Result<()> {
        write_once!(
            self,
            |connection| {
                let new = std::slice::from_ref(new);
                match batch_id {
                    None => insert_scores(connection, new).await?,
                    Some(batch_id) => {
                        // One after the other, whichever server is asked.
                        let before: BatchSeen = batch_state::table
                            .find(batch_id)
                            .select(BatchSeen::as_select())
                            .for_update()
                            .first(connection)
                            .await?;
                        insert_scores(connection, new).await?;
                        let all = scores_of(connection, batch_id).await?;
                        diesel::update(batch_state::table.find(batch_id))
                            .set((seen(&all, before), batch_state::changed_in.eq(this_write())))
                            .execute(connection)
                            .await?;
                    }
                }
                true
            },
            |error| StoreError::or_conflict(error, || {
                "this judge has marked this sample already; the first marks stay".into()
            })
        )
    }
}

macro_rules! sample_rows {
    () => {
        sample::table.inner_join(product::table).select((
            sample::id,
            sample::batch_id,
            sample::bench_dough_id,
            sample::loaf,
            sample::code,
            sample::made_by,
            sample::made_at,
            product::slug,
            product::name,
        ))
    };
}
macro_rules! score_rows {
    () => {
        score::table
            .inner_join(sample::table)
            .select((
                score::id,
                score::sample_id,
                (sample::batch_id, sample::bench_dough_id),
                sample::loaf,
                sample::code,
                score::round,
                score::judge,
                score::note,
                score::scored_at,
            ))
            .into_boxed::<Pg>()
    };
}
use {sample_rows, score_rows};

async fn scores_of(connection: &mut AsyncPgConnection, batch_id: Uuid) -> QueryResult<Vec<Score>> {
    let rows = score_rows!()
        .filter(sample::batch_id.eq(batch_id))
        .order((score::scored_at, score::id))
        .load(connection)
        .await?;
    with_marks(connection, rows).await
}

async fn with_marks(
    connection: &mut AsyncPgConnection,
    rows: Vec<ScoreRow>,
) -> QueryResult<Vec<Score>> {
    let ids: Vec<Uuid> = rows.iter().map(|row| row.0).collect();
    let found: Vec<MarkRow> =
        score_mark::table.filter(score_mark::score_id.eq_any(ids)).load(connection).await?;
    let mut marks: HashMap<Uuid, Vec<ScoredMark>> = HashMap::new();
    for (id, Word(of), mark, sign, measured) in found {
        let mark = ScoreMark { of, mark, sign: sign.map(|Word(sign)| sign) };
        marks.entry(id).or_default().push(ScoredMark { mark, measured });
    }
    let score = |(id, sample_id, of, loaf, code, round, judge, note, scored_at): ScoreRow| {
        let mut marks = marks.remove(&id).unwrap_or_default();
        marks.sort_by_key(|one| one.mark.of);
        let dough_id = of.0.or(of.1).unwrap_or_default();
        Score { id, sample_id, dough_id, loaf, code, round, judge, note, scored_at, marks }
    };
    Ok(rows.into_iter().map(score).collect())
}

/// Inserts samples.
pub(crate) async fn insert_samples(
    connection: &mut AsyncPgConnection,
    new: &[NewSample],
) -> QueryResult<()> {
    diesel::insert_into(sample::table).values(new).execute(connection).await?;
    Ok(())
}

/// Inserts sheets with their marks.
pub(crate) async fn insert_scores(
    connection: &mut AsyncPgConnection,
    new: &[NewScore],
) -> QueryResult<()> {
    let rows: Vec<_> = new
        .iter()
        .map(|one| {
            (
                score::id.eq(one.id),
                score::sample_id.eq(one.sample_id),
                score::round.eq(one.round),
                score::judge.eq(&one.judge),
                score::person_id.eq(one.person_id),
                score::note.eq(&one.note),
                score::scored_at.eq(one.scored_at),
            )
        })
        .collect();
    diesel::insert_into(score::table).values(rows).execute(connection).await?;
    let rows: Vec<_> = new
        .iter()
        .flat_map(|one| {
            one.marks.iter().map(|given| {
                (
                    score_mark::score_id.eq(one.id),
                    score_mark::characteristic.eq(Word(given.mark.of)),
                    score_mark::mark.eq(given.mark.mark),
                    score_mark::sign.eq(given.mark.sign.map(Word)),
                    score_mark::measured.eq(given.measured),
                )
            })
        })
        .collect();
    diesel::insert_into(score_mark::table).values(rows).execute(connection).await?;
    Ok(())
}
