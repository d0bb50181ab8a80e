use crate::lot_record::NewLotRevision;
use diesel::prelude::*;
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use serde::Serialize;
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::flour::Flour;
use crate::revision::{Revision, Signed, add_revision, signed_columns};
use crate::schema::{blend_part, blend_revision, flour, lot, lot_part};
use crate::store::{Store, WriteError, write_once};

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
#[derive(Debug, Clone, PartialEq, Queryable, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
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

    /// Records a blend as a flour of its own with a lot of it, all or nothing. A flour that a mill
    /// sells is never written over.
    pub async fn make_blend(&self, new: &NewBlend<'_>) -> Result<()> {
        write_once!(
            self,
            |connection| {
                let known: i64 =
                    flour::table.find(new.flour.id).count().get_result(connection).await?;
                let blended: i64 = blend_revision::table
                    .filter(blend_revision::flour_id.eq(new.flour.id))
                    .count()
                    .get_result(connection)
                    .await?;
                if known > 0 && blended == 0 {
                    let message = format!(
                        "{} is a flour that is bought, not a blend: give the blend a name of its own",
                        new.flour.name
                    );
                    return Err(StoreError::Conflict(message).into());
                }
                crate::flour::put(connection, new.flour, new.signed).await?;
                new.record(connection).await?
            },
            |error| {
                StoreError::or_conflict(error, || {
                    format!("{} is already on record", new.flour.name)
                })
            }
        )
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
}

/// A blend to be recorded: the flour it makes, the lots it is made of, and the lot that comes of it.
#[derive(Debug)]
pub struct NewBlend<'a> {
    pub flour: &'a Flour,
    pub revision_id: Uuid,
    /// The number after the blend's newest.
    pub number: i32,
    /// Each lot with its flour and its share.
    pub parts: &'a [(Uuid, Uuid, f64)],
    pub lot: &'a NewLotRevision,
    pub signed: &'a Signed,
}

impl NewBlend<'_> {
    async fn record(
        &self,
        connection: &mut AsyncPgConnection,
    ) -> std::result::Result<bool, WriteError> {
        let (id, flour_id, number) = (self.revision_id, self.flour.id, self.number);
        let row = (
            signed_columns!(blend_revision, id, number, self.signed),
            blend_revision::flour_id.eq(flour_id),
        );
        let name = "this blend";
        Ok(add_revision!(
            connection,
            blend_revision,
            [flour_id = flour_id],
            id,
            number,
            name,
            row,
            {
                let parts = || (0i16..).zip(self.parts);
                let of_flours: Vec<_> = parts()
                    .map(|(position, (_, flour, share))| {
                        (
                            blend_part::revision_id.eq(id),
                            blend_part::position.eq(position),
                            blend_part::flour_id.eq(*flour),
                            blend_part::share_pct.eq(*share),
                        )
                    })
                    .collect();
                diesel::insert_into(blend_part::table)
                    .values(of_flours)
                    .execute(connection)
                    .await?;
                if !crate::lot_record::add_lot_revision(connection, self.lot, &self.lot.rows())
                    .await?
                {
                    return Err(StoreError::Conflict(self.lot.taken()).into());
                }
                let of_lots: Vec<_> = parts()
                    .map(|(position, (lot, _, share))| {
                        (
                            lot_part::lot_id.eq(self.lot.lot_id),
                            lot_part::position.eq(position),
                            lot_part::part_lot_id.eq(*lot),
                            lot_part::share_pct.eq(*share),
                        )
                    })
                    .collect();
                diesel::insert_into(lot_part::table).values(of_lots).execute(connection).await?;
            }
        ))
    }
}
