use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, RunQueryDsl};
use serde::{Deserialize, Serialize};
use serde_json::Value;
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::schema::{batch, batch_flour, batch_lot, batch_state, product};
use crate::store::{Store, write_once};

/// A batch with the revisions it is tied to and the sheet as it was issued.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable)]
#[diesel(table_name = batch)]
pub struct Batch {
    pub id: Uuid,
    pub product_id: Uuid,
    pub lot_revision_id: Uuid,
    /// None where nothing was asked of the flour.
    pub specification_revision_id: Option<Uuid>,
    pub formula_revision_id: Uuid,
    pub method_revision_id: Uuid,
    pub line_revision_id: Uuid,
    /// None where the house's numbers held.
    pub parameters_revision_id: Option<Uuid>,
    /// None where no water correction was taken over.
    pub water_correction_id: Option<Uuid>,
    pub planned_for: DateTime<Utc>,
    pub saved_at: DateTime<Utc>,
    pub saved_by: String,
    pub run_settings: Value,
    pub issued: Value,
}

/// A batch to be planned.
#[derive(Debug, Clone, PartialEq, Insertable)]
#[diesel(table_name = batch)]
pub struct NewBatch {
    pub id: Uuid,
    pub product_id: Uuid,
    pub lot_revision_id: Uuid,
    /// None where nothing was asked of the flour.
    pub specification_revision_id: Option<Uuid>,
    pub formula_revision_id: Uuid,
    pub method_revision_id: Uuid,
    pub line_revision_id: Uuid,
    pub parameters_revision_id: Option<Uuid>,
    /// None where no water correction was taken over.
    pub water_correction_id: Option<Uuid>,
    pub planned_for: DateTime<Utc>,
    pub saved_by: String,
    pub run_settings: Value,
    pub issued: Value,
}

/// The lot of another flour of a batch's formula, by revision.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Queryable, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BatchFlour {
    pub lot_revision_id: Uuid,
    /// Nothing is asked of the flour if left out.
    #[serde(default)]
    pub specification_revision_id: Option<Uuid>,
}

/// What a batch is made of and where, and what is known of it before it begins.
#[derive(Debug, Clone, PartialEq)]
pub struct NewBatchState {
    pub line_id: Uuid,
    pub flour_id: Uuid,
    pub lot_id: Uuid,
    /// Every lot with how much of it goes in, kg.
    pub lots: Vec<(Uuid, Option<f64>)>,
    /// Of the water that is planned, what a learned number put in, points.
    pub standing_pts: f64,
    pub damaged_starch_caution: bool,
    /// Whether the water is somebody's choice, and teaches nothing.
    pub water_was_set: bool,
}

/// A lot of a batch and how much of it.
#[derive(Insertable)]
#[diesel(table_name = batch_lot)]
pub(crate) struct LotRow {
    batch_id: Uuid,
    lot_id: Uuid,
    kg: Option<f64>,
}

/// The lots of a batch.
pub(crate) fn lot_rows(batch_id: Uuid, lots: &[(Uuid, Option<f64>)]) -> Vec<LotRow> {
    lots.iter().map(|(lot_id, kg)| LotRow { batch_id, lot_id: *lot_id, kg: *kg }).collect()
}

/// The lot of another flour of a batch, in its place.
#[derive(Insertable)]
#[diesel(table_name = batch_flour)]
pub(crate) struct FlourRow {
    batch_id: Uuid,
    position: i16,
    lot_revision_id: Uuid,
    specification_revision_id: Option<Uuid>,
}

/// The lots of a batch's other flours, in their order.
pub(crate) fn flour_rows(batch_id: Uuid, others: &[BatchFlour]) -> Vec<FlourRow> {
    let row = |(position, other): (i16, &BatchFlour)| FlourRow {
        batch_id,
        position,
        lot_revision_id: other.lot_revision_id,
        specification_revision_id: other.specification_revision_id,
    };
    (0..).zip(others).map(row).collect()
}

impl Store {
    /// A batch, the slug of its product, and the lots of its formula's other flours.
    pub async fn batch(&self, id: Uuid) -> Result<(Batch, String, Vec<BatchFlour>)> {
        let connection = &mut self.connection().await?;
        let found: Option<(Batch, String)> = batch::table
            .inner_join(product::table)
            .filter(batch::id.eq(id))
            .select((Batch::as_select(), product::slug))
            .first(connection)
            .await
            .optional()?;
        let (batch, slug) = found.ok_or(StoreError::NotFound("this batch"))?;
        let others = batch_flour::table
            .filter(batch_flour::batch_id.eq(id))
            .order(batch_flour::position)
            .select((batch_flour::lot_revision_id, batch_flour::specification_revision_id))
            .load(connection)
            .await?;
        Ok((batch, slug, others))
    }

    /// Records a planned batch with its other flours' lots. Sent twice, it is stored once.
    pub async fn add_batch(
        &self,
        new: &NewBatch,
        others: &[BatchFlour],
        state: &NewBatchState,
    ) -> Result<()> {
        let others = flour_rows(new.id, others);
        let lots = lot_rows(new.id, &state.lots);
        write_once!(
            self,
            |connection| {
                let added = diesel::insert_into(batch::table)
                    .values(new)
                    .on_conflict(batch::id)
                    .do_nothing()
                    .execute(connection)
                    .await?;
                if added == 1 {
                    diesel::insert_into(batch_flour::table)
                        .values(&others)
                        .execute(connection)
                        .await?;
                    diesel::insert_into(batch_lot::table).values(&lots).execute(connection).await?;
                    diesel::insert_into(batch_state::table)
                        .values((
                            batch_state::batch_id.eq(new.id),
                            batch_state::planned_for.eq(new.planned_for),
                            batch_state::product_id.eq(new.product_id),
                            batch_state::line_id.eq(state.line_id),
                            batch_state::flour_id.eq(state.flour_id),
                            batch_state::lot_id.eq(state.lot_id),
                            batch_state::standing_pts.eq(state.standing_pts),
                            batch_state::damaged_starch_caution.eq(state.damaged_starch_caution),
                            batch_state::water_was_set.eq(state.water_was_set),
                        ))
                        .execute(connection)
                        .await?;
                }
                added == 1
            },
            StoreError::from
        )
    }
}
