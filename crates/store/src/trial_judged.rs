//! What became of a trial: its doughs as they were baked, and the variant that was kept.

use std::collections::HashMap;

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, RunQueryDsl};
use serde::Serialize;
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::formula::{self, NewFormula};
use crate::method::{self, NewMethod};
use crate::schema::{bench_dough, sample, trial_kept};
use crate::score::NewSample;
use crate::store::{Store, write_once};

/// A dough of a trial as it was baked; variants of one bake were baked side by side.
#[derive(Debug, Clone, PartialEq, Eq, Queryable, Insertable, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[diesel(table_name = bench_dough)]
pub struct BenchDough {
    pub id: Uuid,
    #[serde(skip)]
    pub trial_id: Uuid,
    pub bake: i16,
    /// Its place in the trial.
    pub variant: i16,
}

/// A variant that was kept.
#[derive(Debug, Clone, PartialEq, Eq, Queryable, Insertable, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[diesel(table_name = trial_kept)]
pub struct TrialKept {
    pub id: Uuid,
    #[serde(skip)]
    pub trial_id: Uuid,
    pub variant: i16,
    pub reason: String,
    /// What the formula became; none where it stays as it is.
    pub formula_revision_id: Option<Uuid>,
    /// What the method became.
    pub method_revision_id: Option<Uuid>,
    pub kept_by: String,
    pub kept_at: DateTime<Utc>,
}

impl Store {
    /// The doughs of a trial that were baked, by bake and variant.
    pub async fn bench_doughs(&self, trial_id: Uuid) -> Result<Vec<BenchDough>> {
        let doughs = bench_dough::table.filter(bench_dough::trial_id.eq(trial_id));
        let doughs = doughs.order((bench_dough::bake, bench_dough::variant));
        Ok(doughs.load(&mut self.connection().await?).await?)
    }

    /// Records a bake of a trial with its samples: all or nothing. Sent twice, it is stored once.
    pub async fn add_bench_bake(&self, doughs: &[BenchDough], samples: &[NewSample]) -> Result<()> {
        write_once!(
            self,
            |connection| {
                diesel::insert_into(bench_dough::table).values(doughs).execute(connection).await?;
                diesel::insert_into(sample::table).values(samples).execute(connection).await? > 0
            },
            |error| StoreError::or_conflict(error, || {
                "somebody set another bake of this trial out at the same moment: look again".into()
            })
        )
    }

    /// What was kept of a trial, newest first.
    pub async fn kept_of_trial(&self, trial_id: Uuid) -> Result<Vec<TrialKept>> {
        let kept = trial_kept::table.filter(trial_kept::trial_id.eq(trial_id));
        let kept = kept.order((trial_kept::kept_at.desc(), trial_kept::id.desc()));
        Ok(kept.load(&mut self.connection().await?).await?)
    }

    /// Keeps a variant with the revisions it becomes: all or nothing. Sent twice, it is stored once.
    pub async fn keep_variant(
        &self,
        kept: &TrialKept,
        new_formula: Option<&NewFormula>,
        new_method: Option<&NewMethod>,
    ) -> Result<()> {
        let flours = match new_formula {
            Some(new) => {
                formula::flour_ids(&mut *self.connection().await?, &new.formula.formula).await?
            }
            None => HashMap::new(),
        };
        write_once!(
            self,
            |connection| {
                if let Some(new) = new_formula {
                    formula::record(connection, new, &flours).await?;
                }
                if let Some(new) = new_method {
                    method::record(connection, new).await?;
                }
                diesel::insert_into(trial_kept::table).values(kept).execute(connection).await? > 0
            },
            |error| StoreError::or_overtaken(error, "the formula or the method")
        )
    }
}
