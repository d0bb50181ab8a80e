use diesel::prelude::*;
use diesel_async::{AsyncConnection, RunQueryDsl};
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::revision::{Revision, Signed};
use crate::schema::{blend_part, blend_revision, flour, lot, lot_part};
use crate::store::Store;

/// A flour's share of a blend.
#[derive(Debug, Clone, PartialEq, Queryable)]
pub struct BlendPart {
    pub flour_id: Uuid,
    pub flour: String,
    pub share_pct: f64,
}

/// One state of what a blended flour is made of.
#[derive(Debug, Clone, PartialEq)]
pub struct BlendRevision {
    pub revision: Revision,
    pub parts: Vec<BlendPart>,
}

/// A lot's share of a blended lot.
#[derive(Debug, Clone, PartialEq, Queryable)]
pub struct LotPart {
    pub lot_id: Uuid,
    pub code: String,
    pub flour: String,
    pub share_pct: f64,
}

impl Store {
    /// What a flour is blended of now; none where it is no blend.
    pub async fn current_blend(&self, flour_id: Uuid) -> Result<Option<BlendRevision>> {
        let connection = &mut self.connection().await?;
        let revision: Option<Revision> = blend_revision::table
            .filter(blend_revision::flour_id.eq(flour_id))
            .order(blend_revision::number.desc())
            .select((
                blend_revision::id,
                blend_revision::number,
                blend_revision::made_at,
                blend_revision::made_by,
                blend_revision::reason,
            ))
            .first(connection)
            .await
            .optional()?;
        let Some(revision) = revision else { return Ok(None) };
        let parts = blend_part::table
            .inner_join(flour::table.on(flour::id.eq(blend_part::flour_id)))
            .filter(blend_part::revision_id.eq(revision.id))
            .order(blend_part::position)
            .select((flour::id, flour::name, blend_part::share_pct))
            .load(connection)
            .await?;
        Ok(Some(BlendRevision { revision, parts }))
    }

    /// Records the revision after `number − 1` of a blend. Sent twice, it is stored once.
    pub async fn add_blend(
        &self,
        flour_id: Uuid,
        revision_id: Uuid,
        number: i32,
        parts: &[(Uuid, f64)],
        signed: &Signed,
    ) -> Result<()> {
        let rows: Vec<_> = (0i16..)
            .zip(parts)
            .map(|(position, (part, share))| {
                (
                    blend_part::revision_id.eq(revision_id),
                    blend_part::position.eq(position),
                    blend_part::flour_id.eq(*part),
                    blend_part::share_pct.eq(*share),
                )
            })
            .collect();
        let mut connection = self.connection().await?;
        connection
            .transaction(async |connection| {
                let added = diesel::insert_into(blend_revision::table)
                    .values((
                        blend_revision::id.eq(revision_id),
                        blend_revision::flour_id.eq(flour_id),
                        blend_revision::number.eq(number),
                        blend_revision::made_by.eq(&signed.by),
                        blend_revision::reason.eq(&signed.reason),
                    ))
                    .on_conflict(blend_revision::id)
                    .do_nothing()
                    .execute(connection)
                    .await?;
                if added == 1 {
                    diesel::insert_into(blend_part::table).values(rows).execute(connection).await?;
                }
                Ok(())
            })
            .await
            .map_err(|error| {
                StoreError::or_conflict(error, || {
                    "this blend was changed by somebody else meanwhile; look at theirs first".into()
                })
            })
    }

    /// The lots a blended lot was made of.
    pub async fn lot_parts(&self, lot_id: Uuid) -> Result<Vec<LotPart>> {
        Ok(lot_part::table
            .inner_join(lot::table.on(lot::id.eq(lot_part::part_lot_id)))
            .inner_join(flour::table.on(flour::id.eq(lot::flour_id)))
            .filter(lot_part::lot_id.eq(lot_id))
            .order(lot_part::position)
            .select((lot::id, lot::code, flour::name, lot_part::share_pct))
            .load(&mut self.connection().await?)
            .await?)
    }

    /// Records which lots a blended lot was made of. Sent twice, it is stored once.
    pub async fn add_lot_parts(&self, lot_id: Uuid, parts: &[(Uuid, f64)]) -> Result<()> {
        let rows: Vec<_> = (0i16..)
            .zip(parts)
            .map(|(position, (part, share))| {
                (
                    lot_part::lot_id.eq(lot_id),
                    lot_part::position.eq(position),
                    lot_part::part_lot_id.eq(*part),
                    lot_part::share_pct.eq(*share),
                )
            })
            .collect();
        diesel::insert_into(lot_part::table)
            .values(rows)
            .on_conflict_do_nothing()
            .execute(&mut self.connection().await?)
            .await
            .map(drop)
            .map_err(|error| StoreError::or_missing(error, "this lot"))
    }
}
