//! Recording a lot's certificate, or a correction of it.

use chrono::{DateTime, NaiveDate, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use ironpeel_core::flour::{Reading, Readings};
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::lot::{ReadingRow, Stated};
use crate::revision::{Signed, add_revision, signed_columns};
use crate::schema::{lot, lot_revision, reading};
use crate::store::{Store, WriteError, write_once};
use crate::word::Word;

/// A lot, or a correction of one, to be recorded.
#[derive(Debug, Clone, PartialEq)]
pub struct NewLotRevision {
    pub lot_id: Uuid,
    pub flour_id: Uuid,
    pub code: String,
    pub revision_id: Uuid,
    /// 1 for a new lot; for a correction the number after the one that was looked at.
    pub number: i32,
    pub milled_on: Option<NaiveDate>,
    pub delivered_on: Option<NaiveDate>,
    pub tonnes: Option<f64>,
    pub readings: Readings,
    /// One for each reading, in their order.
    pub stated: Vec<Stated>,
    pub signed: Signed,
}

impl Store {
    /// Records a lot or a correction of one. Sent twice, it is stored once.
    pub async fn add_lot_revision(&self, new: &NewLotRevision) -> Result<()> {
        let rows = new.rows();
        write_once!(
            self,
            |connection| { add_lot_revision(connection, new, &rows).await? },
            |error| StoreError::or_conflict(error, || new.taken())
        )
    }
}

/// Records a lot or a correction of one inside a transaction; false where it was there before.
pub(crate) async fn add_lot_revision(
    connection: &mut AsyncPgConnection,
    new: &NewLotRevision,
    rows: &[ReadingRow],
) -> std::result::Result<bool, WriteError> {
    let known: i64 =
        lot_revision::table.find(new.revision_id).count().get_result(connection).await?;
    if known > 0 {
        return Ok(false);
    }
    // Only a revision that is new moves the lot in its list.
    let received_at = new.received_at();
    diesel::insert_into(lot::table)
        .values((
            lot::id.eq(new.lot_id),
            lot::flour_id.eq(new.flour_id),
            lot::code.eq(&new.code),
            lot::received_at.eq(received_at),
        ))
        .on_conflict(lot::id)
        .do_update()
        .set(lot::received_at.eq(received_at))
        .execute(connection)
        .await?;
    let (flour_id, code): (Uuid, String) =
        lot::table.find(new.lot_id).select((lot::flour_id, lot::code)).first(connection).await?;
    if (flour_id, code.as_str()) != (new.flour_id, new.code.as_str()) {
        let message = format!("this lot is {code}; a correction keeps its flour and its code");
        return Err(StoreError::Conflict(message).into());
    }
    let row = (
        signed_columns!(lot_revision, new.revision_id, new.number, new.signed),
        lot_revision::lot_id.eq(new.lot_id),
        lot_revision::milled_on.eq(new.milled_on),
        lot_revision::delivered_on.eq(new.delivered_on),
        lot_revision::tonnes.eq(new.tonnes),
    );
    let name = format!("lot {}", new.code);
    Ok(add_revision!(
        connection,
        lot_revision,
        [lot_id = new.lot_id],
        new.revision_id,
        new.number,
        &name,
        row,
        {
            diesel::insert_into(reading::table).values(rows).execute(connection).await?;
        }
    ))
}

impl NewLotRevision {
    /// When the flour came: delivered, else milled, else now.
    pub fn received_at(&self) -> DateTime<Utc> {
        let day = self.delivered_on.or(self.milled_on);
        day.and_then(|day| day.and_hms_opt(0, 0, 0)).map_or_else(Utc::now, |at| at.and_utc())
    }

    pub(crate) fn rows(&self) -> Vec<ReadingRow> {
        let readings = self.readings.0.iter().zip(&self.stated);
        (0..).zip(readings).map(|(at, (reading, stated))| self.row(at, reading, stated)).collect()
    }

    fn row(&self, position: i16, reading: &Reading, stated: &Stated) -> ReadingRow {
        ReadingRow {
            lot_revision_id: self.revision_id,
            position,
            property: Word(reading.property),
            value: reading.value,
            basis: reading.basis.map(Word),
            method: reading.method.clone(),
            stated_value: stated.value.clone(),
            stated_unit: stated.unit.clone(),
            censored: reading.censored.map(Word),
        }
    }

    pub(crate) fn taken(&self) -> String {
        if self.number == 1 {
            format!("lot {} of this flour is already on record; open it to correct it", self.code)
        } else {
            format!(
                "lot {} was corrected by somebody else meanwhile; look at theirs first",
                self.code
            )
        }
    }
}
