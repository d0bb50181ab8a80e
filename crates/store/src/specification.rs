use std::collections::HashMap;

use diesel::prelude::*;
use diesel_async::{AsyncConnection, RunQueryDsl};
use ironpeel_core::flour::{Limit, MoistureBasis, Property};
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::revision::{
    Revision, Signed, add_revision, all_revisions, newest_revision, revision_columns,
    signed_columns,
};
use crate::schema::{specification_limit, specification_revision};
use crate::store::{Store, write_once};
use crate::word::Word;

/// One state of what the plant wants of a flour.
#[derive(Debug, Clone, PartialEq)]
pub struct SpecificationRevision {
    pub revision: Revision,
    pub flour_id: Uuid,
    pub limits: Vec<Limit>,
}

#[derive(Queryable, Insertable)]
#[diesel(table_name = specification_limit)]
struct LimitRow {
    revision_id: Uuid,
    position: i16,
    property: Word<Property>,
    basis: Option<Word<MoistureBasis>>,
    min: Option<f64>,
    target: Option<f64>,
    max: Option<f64>,
    must: bool,
    method: Option<String>,
}

impl LimitRow {
    fn limit(self) -> Limit {
        let Self { property: Word(property), basis, min, target, max, must, method, .. } = self;
        Limit { property, basis: basis.map(|Word(basis)| basis), min, target, max, must, method }
    }
}

/// The newest limits of a flour, and which revision they are.
#[derive(Debug, Clone, PartialEq)]
pub struct CurrentLimits {
    pub revision_id: Uuid,
    pub limits: Vec<Limit>,
}

impl Store {
    /// The newest specification of a flour.
    pub async fn current_specification(&self, flour_id: Uuid) -> Result<SpecificationRevision> {
        let id = newest_revision!(
            self,
            specification_revision,
            flour_id = flour_id,
            "a specification of this flour"
        )?;
        self.specification(id).await
    }

    /// Every revision of a flour's specification, newest first.
    pub async fn specification_revisions(&self, flour_id: Uuid) -> Result<Vec<Revision>> {
        Ok(all_revisions!(self, specification_revision, flour_id = flour_id)?)
    }

    /// The newest limits of every flour that has any.
    pub async fn current_specifications(&self) -> Result<HashMap<Uuid, CurrentLimits>> {
        let connection = &mut self.connection().await?;
        let newest: Vec<(Uuid, Uuid)> = specification_revision::table
            .distinct_on(specification_revision::flour_id)
            .order((specification_revision::flour_id, specification_revision::number.desc()))
            .select((specification_revision::id, specification_revision::flour_id))
            .load(connection)
            .await?;
        let flour_of: HashMap<Uuid, Uuid> = newest.into_iter().collect();
        let rows: Vec<LimitRow> = specification_limit::table
            .filter(specification_limit::revision_id.eq_any(flour_of.keys()))
            .order((specification_limit::revision_id, specification_limit::position))
            .load(connection)
            .await?;
        let mut current: HashMap<Uuid, CurrentLimits> = HashMap::new();
        for row in rows {
            let flour_id = flour_of[&row.revision_id];
            let revision_id = row.revision_id;
            let of = current
                .entry(flour_id)
                .or_insert_with(|| CurrentLimits { revision_id, limits: Vec::new() });
            of.limits.push(row.limit());
        }
        Ok(current)
    }

    pub async fn specification(&self, revision_id: Uuid) -> Result<SpecificationRevision> {
        let connection = &mut self.connection().await?;
        let found: Option<(Revision, Uuid)> = specification_revision::table
            .find(revision_id)
            .select((revision_columns!(specification_revision), specification_revision::flour_id))
            .first(connection)
            .await
            .optional()?;
        let (revision, flour_id) =
            found.ok_or(StoreError::NotFound("this revision of a specification"))?;
        let rows: Vec<LimitRow> = specification_limit::table
            .filter(specification_limit::revision_id.eq(revision_id))
            .order(specification_limit::position)
            .load(connection)
            .await?;
        let limits = rows.into_iter().map(LimitRow::limit).collect();
        Ok(SpecificationRevision { revision, flour_id, limits })
    }

    /// Records the revision after `number − 1` of a flour's specification.
    pub async fn add_specification(
        &self,
        flour_id: Uuid,
        revision_id: Uuid,
        number: i32,
        limits: &[Limit],
        signed: &Signed,
    ) -> Result<()> {
        let rows: Vec<LimitRow> = (0..)
            .zip(limits)
            .map(|(position, limit)| LimitRow {
                revision_id,
                position,
                property: Word(limit.property),
                basis: limit.basis.map(Word),
                min: limit.min,
                target: limit.target,
                max: limit.max,
                must: limit.must,
                method: limit.method.clone(),
            })
            .collect();
        write_once!(
            self,
            |connection| {
                let row = (
                    signed_columns!(specification_revision, revision_id, number, signed),
                    specification_revision::flour_id.eq(flour_id),
                );
                add_revision!(
                    connection,
                    specification_revision,
                    [flour_id = flour_id],
                    revision_id,
                    number,
                    "this specification",
                    row,
                    {
                        diesel::insert_into(specification_limit::table)
                            .values(&rows)
                            .execute(connection)
                            .await?;
                    }
                )
            },
            |error| {
                StoreError::or_conflict(error, || {
                    format!(
                        "revision {number} of this specification exists already; look at it first"
                    )
                })
            }
        )
    }
}
