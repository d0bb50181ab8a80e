//! Bulk import.

use std::collections::HashMap;

use chrono::{DateTime, NaiveDate, Utc};
use diesel::prelude::*;
use diesel::sql_types::{
    Array, Date, Double, Nullable, SmallInt, Text, Timestamptz, Uuid as SqlUuid,
};
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use ironpeel_core::flour::{MoistureBasis, Property};
use uuid::Uuid;

use crate::error::Result;
use crate::lot::{LotRevision, LotSummary, ReadingRow};
use crate::lot_record::NewLotRevision;
use crate::schema::{lot, lot_revision, reading};
use crate::store::{PageKey, Store};
use crate::word::Word;

/// What became of a lot that was sent.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Imported {
    Added,
    /// On record already, with the same certificate.
    Same,
    /// On record already, with another certificate; nothing was changed.
    Differs,
}

/// A kind of reading that lots have: a column of their table.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct ReadingColumn {
    pub property: Property,
    pub unit: String,
    pub basis: Option<MoistureBasis>,
    pub method: String,
}

#[derive(QueryableByName)]
struct Known {
    #[diesel(sql_type = SqlUuid)]
    flour_id: Uuid,
    #[diesel(sql_type = Text)]
    code: String,
    #[diesel(sql_type = SqlUuid)]
    id: Uuid,
}

/// Property, unit as stated, basis and method.
type ColumnRow = (Word<Property>, String, Option<Word<MoistureBasis>>, Option<String>);

impl Store {
    /// Records new lots, all or none of those that are new. A lot is known by flour and code:
    /// sent twice, it is stored once.
    pub async fn import_lots(&self, lots: &[NewLotRevision]) -> Result<Vec<Imported>> {
        let mut tries = 0;
        loop {
            tries += 1;
            let (outcome, fresh) = self.sorted(lots).await?;
            if fresh.is_empty() {
                return Ok(outcome);
            }
            let mut connection = self.connection().await?;
            let done =
                connection.transaction(async |connection| insert(connection, &fresh).await).await;
            match done {
                Ok(()) => return Ok(outcome),
                // Somebody else has recorded one of them meanwhile: look again.
                Err(error) if is_taken(&error) && tries < TRIES => {}
                Err(error) => return Err(error.into()),
            }
        }
    }

    /// What becomes of each lot, and those that are new.
    async fn sorted<'a>(
        &self,
        lots: &'a [NewLotRevision],
    ) -> Result<(Vec<Imported>, Vec<&'a NewLotRevision>)> {
        let known = self.known(lots).await?;
        let mut first: HashMap<(Uuid, &str), &NewLotRevision> = HashMap::new();
        let mut fresh = Vec::with_capacity(lots.len());
        let outcome = lots
            .iter()
            .map(|lot| {
                let name = (lot.flour_id, lot.code.as_str());
                if let Some(on_record) = known.get(&(lot.flour_id, lot.code.clone())) {
                    return same_or_differs(lot.same_as(on_record));
                }
                if let Some(earlier) = first.get(&name) {
                    return same_or_differs(lot.same(earlier));
                }
                first.insert(name, lot);
                fresh.push(lot);
                Imported::Added
            })
            .collect();
        Ok((outcome, fresh))
    }

    /// Those of the lots that are on record, by flour and code.
    async fn known(&self, lots: &[NewLotRevision]) -> Result<HashMap<(Uuid, String), LotRevision>> {
        let flours: Vec<Uuid> = lots.iter().map(|lot| lot.flour_id).collect();
        let codes: Vec<&str> = lots.iter().map(|lot| lot.code.as_str()).collect();
        let found: Vec<Known> = diesel::sql_query(
            "SELECT lot.flour_id, lot.code, lot.id FROM lot \
             JOIN unnest($1, $2) AS sent (flour_id, code) USING (flour_id, code)",
        )
        .bind::<Array<SqlUuid>, _>(flours)
        .bind::<Array<Text>, _>(codes)
        .load(&mut self.connection().await?)
        .await?;
        let name_of: HashMap<Uuid, (Uuid, String)> =
            found.into_iter().map(|known| (known.id, (known.flour_id, known.code))).collect();
        let ids: Vec<Uuid> = name_of.keys().copied().collect();
        let current = self.current_revisions(&ids).await?;
        let named = current
            .into_iter()
            .filter_map(|(id, revision)| Some((name_of.get(&id)?.clone(), revision)));
        Ok(named.collect())
    }

    /// The kinds of reading that lots have, in the order of a certificate.
    pub async fn reading_columns(&self, of_flour: Option<Uuid>) -> Result<Vec<ReadingColumn>> {
        let mut query = reading::table
            .inner_join(lot_revision::table.inner_join(lot::table))
            .select((reading::property, reading::stated_unit, reading::basis, reading::method))
            .distinct()
            .into_boxed();
        if let Some(flour_id) = of_flour {
            query = query.filter(lot::flour_id.eq(flour_id));
        }

        let found: Vec<ColumnRow> = query.load(&mut self.connection().await?).await?;
        let mut columns = found
            .into_iter()
            .map(|(Word(property), unit, basis, method)| ReadingColumn {
                property,
                unit,
                basis: basis.map(|Word(basis)| basis),
                method: method.unwrap_or_default(),
            })
            .collect::<Vec<_>>();
        columns.sort_by(|a, b| {
            (a.property, &a.unit, &a.method).cmp(&(b.property, &b.unit, &b.method))
        });
        Ok(columns)
    }

    /// Lots with their newest certificates, from oldest to newest, after a place.
    pub async fn lots_onward(
        &self,
        of_flour: Option<Uuid>,
        after: Option<PageKey>,
        most: i64,
    ) -> Result<Vec<LotSummary>> {
        self.page_of_lots(of_flour, after, most, true).await
    }
}

/// How often an import looks again at what others recorded meanwhile.
const TRIES: u32 = 5;

fn is_taken(error: &diesel::result::Error) -> bool {
    use diesel::result::{DatabaseErrorKind, Error};
    matches!(error, Error::DatabaseError(DatabaseErrorKind::UniqueViolation, _))
}

const fn same_or_differs(same: bool) -> Imported {
    if same { Imported::Same } else { Imported::Differs }
}

impl NewLotRevision {
    fn same(&self, other: &Self) -> bool {
        self.readings == other.readings
            && self.stated == other.stated
            && (self.milled_on, self.delivered_on) == (other.milled_on, other.delivered_on)
            && self.tonnes == other.tonnes
    }

    fn same_as(&self, other: &LotRevision) -> bool {
        self.readings == other.readings
            && self.stated == other.stated
            && (self.milled_on, self.delivered_on) == (other.milled_on, other.delivered_on)
            && self.tonnes == other.tonnes
    }
}

/// Columns as arrays: three statements, whatever the number of rows.
async fn insert(connection: &mut AsyncPgConnection, lots: &[&NewLotRevision]) -> QueryResult<()> {
    let column =
        |of: fn(&NewLotRevision) -> Uuid| lots.iter().map(|lot| of(lot)).collect::<Vec<_>>();
    let came: Vec<DateTime<Utc>> = lots.iter().map(|lot| lot.received_at()).collect();
    let codes: Vec<&str> = lots.iter().map(|lot| lot.code.as_str()).collect();
    diesel::sql_query(
        "INSERT INTO lot (id, flour_id, code, received_at) SELECT * FROM unnest($1, $2, $3, $4)",
    )
    .bind::<Array<SqlUuid>, _>(column(|lot| lot.lot_id))
    .bind::<Array<SqlUuid>, _>(column(|lot| lot.flour_id))
    .bind::<Array<Text>, _>(codes)
    .bind::<Array<Timestamptz>, _>(came)
    .execute(connection)
    .await?;

    let by: Vec<&str> = lots.iter().map(|lot| lot.signed.by.as_str()).collect();
    let reasons: Vec<&str> = lots.iter().map(|lot| lot.signed.reason.as_str()).collect();
    let milled: Vec<Option<NaiveDate>> = lots.iter().map(|lot| lot.milled_on).collect();
    let delivered: Vec<Option<NaiveDate>> = lots.iter().map(|lot| lot.delivered_on).collect();
    let tonnes: Vec<Option<f64>> = lots.iter().map(|lot| lot.tonnes).collect();
    diesel::sql_query(
        "INSERT INTO lot_revision (id, lot_id, number, made_by, reason, milled_on, delivered_on, tonnes) \
         SELECT id, lot_id, 1, made_by, reason, milled_on, delivered_on, tonnes \
         FROM unnest($1, $2, $3, $4, $5, $6, $7) \
         AS sent (id, lot_id, made_by, reason, milled_on, delivered_on, tonnes)",
    )
    .bind::<Array<SqlUuid>, _>(column(|lot| lot.revision_id))
    .bind::<Array<SqlUuid>, _>(column(|lot| lot.lot_id))
    .bind::<Array<Text>, _>(by)
    .bind::<Array<Text>, _>(reasons)
    .bind::<Array<Nullable<Date>>, _>(milled)
    .bind::<Array<Nullable<Date>>, _>(delivered)
    .bind::<Array<Nullable<Double>>, _>(tonnes)
    .execute(connection)
    .await?;

    let rows: Vec<ReadingRow> = lots.iter().flat_map(|lot| lot.rows()).collect();
    diesel::sql_query(
        "INSERT INTO reading (lot_revision_id, position, property, value, basis, method, \
         stated_value, stated_unit, censored) \
         SELECT * FROM unnest($1, $2, $3, $4, $5, $6, $7, $8, $9)",
    )
    .bind::<Array<SqlUuid>, _>(rows.iter().map(|row| row.lot_revision_id).collect::<Vec<_>>())
    .bind::<Array<SmallInt>, _>(rows.iter().map(|row| row.position).collect::<Vec<_>>())
    .bind::<Array<Text>, _>(rows.iter().map(|row| row.property).collect::<Vec<_>>())
    .bind::<Array<Double>, _>(rows.iter().map(|row| row.value).collect::<Vec<_>>())
    .bind::<Array<Nullable<Text>>, _>(rows.iter().map(|row| row.basis).collect::<Vec<_>>())
    .bind::<Array<Nullable<Text>>, _>(
        rows.iter().map(|row| row.method.as_deref()).collect::<Vec<_>>(),
    )
    .bind::<Array<Text>, _>(rows.iter().map(|row| row.stated_value.as_str()).collect::<Vec<_>>())
    .bind::<Array<Text>, _>(rows.iter().map(|row| row.stated_unit.as_str()).collect::<Vec<_>>())
    .bind::<Array<Nullable<Text>>, _>(rows.iter().map(|row| row.censored).collect::<Vec<_>>())
    .execute(connection)
    .await
    .map(drop)
}
