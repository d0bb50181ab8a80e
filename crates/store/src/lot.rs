use std::collections::HashMap;

use chrono::{DateTime, NaiveDate, Utc};
use diesel::prelude::*;
use diesel::sql_types::{Array, BigInt};
use diesel_async::RunQueryDsl;
use ironpeel_core::chain::ScenarioFlour;
use ironpeel_core::flour::{Censored, Limit, MoistureBasis, Property, Reading, Readings};
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::flour::{Flour, FlourRow};
use crate::revision::Revision;
use crate::schema::{flour, lot, lot_revision, mill, reading};
use crate::store::{PageKey, Store, past};
use crate::word::Word;

/// The words a certificate stated a reading in.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Stated {
    pub value: String,
    pub unit: String,
}

/// One state of a lot's certificate.
#[derive(Debug, Clone, PartialEq)]
pub struct LotRevision {
    pub revision: Revision,
    pub milled_on: Option<NaiveDate>,
    pub delivered_on: Option<NaiveDate>,
    pub tonnes: Option<f64>,
    pub readings: Readings,
    /// One for each reading, in their order.
    pub stated: Vec<Stated>,
}

/// A lot with one state of its certificate.
#[derive(Debug, Clone, PartialEq)]
pub struct Lot {
    pub id: Uuid,
    pub code: String,
    pub flour: Flour,
    pub current: LotRevision,
}

impl Lot {
    /// The lot as the chain takes it: mixed on a day, as so much of all flour, judged by limits.
    pub fn for_scenario<'a>(
        &'a self,
        mix_on: NaiveDate,
        share_pct: f64,
        limits: &'a [Limit],
    ) -> ScenarioFlour<'a> {
        let days = |milled: NaiveDate| (mix_on - milled).num_days().max(0) as f64;
        ScenarioFlour {
            name: &self.flour.name,
            species: self.flour.species,
            extraction_pct: self.flour.extraction_pct,
            readings: &self.current.readings,
            limits,
            age_days: self.current.milled_on.map(days),
            share_pct,
            price_per_kg: self.flour.price_per_t.map(|price| price / 1000.0),
            allergens: self.flour.allergens.as_ref(),
        }
    }
}

/// A lot as lists show it.
#[derive(Debug, Clone, PartialEq)]
pub struct LotSummary {
    pub id: Uuid,
    pub code: String,
    pub flour_id: Uuid,
    pub flour: String,
    pub mill: String,
    pub received_at: DateTime<Utc>,
    pub current: LotRevision,
}

#[derive(Queryable, Selectable)]
#[diesel(table_name = lot_revision)]
struct RevisionRow {
    id: Uuid,
    lot_id: Uuid,
    number: i32,
    made_at: DateTime<Utc>,
    made_by: String,
    reason: String,
    milled_on: Option<NaiveDate>,
    delivered_on: Option<NaiveDate>,
    tonnes: Option<f64>,
}

#[derive(Queryable, Insertable)]
#[diesel(table_name = reading)]
pub(crate) struct ReadingRow {
    pub(crate) lot_revision_id: Uuid,
    pub(crate) position: i16,
    pub(crate) property: Word<Property>,
    pub(crate) value: f64,
    pub(crate) basis: Option<Word<MoistureBasis>>,
    pub(crate) method: Option<String>,
    pub(crate) stated_value: String,
    pub(crate) stated_unit: String,
    pub(crate) censored: Option<Word<Censored>>,
}

#[derive(QueryableByName)]
struct LotOfFlour {
    #[diesel(sql_type = diesel::sql_types::Uuid)]
    id: Uuid,
    #[diesel(sql_type = diesel::sql_types::Uuid)]
    flour_id: Uuid,
}

/// Id, code, flour's id, flour, mill, and when it came.
type SummaryRow = (Uuid, String, Uuid, String, String, DateTime<Utc>);

impl ReadingRow {
    fn reading(self) -> (Reading, Stated) {
        let reading = Reading {
            property: self.property.0,
            value: self.value,
            basis: self.basis.map(|Word(basis)| basis),
            method: self.method,
            censored: self.censored.map(|Word(side)| side),
        };
        (reading, Stated { value: self.stated_value, unit: self.stated_unit })
    }
}

impl RevisionRow {
    fn with(self, rows: Vec<(Reading, Stated)>) -> LotRevision {
        let (readings, stated) = rows.into_iter().unzip();
        let readings = Readings(readings);
        let Self { id, number, made_at, made_by, reason, milled_on, delivered_on, tonnes, .. } =
            self;
        let revision = Revision { id, number, made_at, made_by, reason };
        LotRevision { revision, milled_on, delivered_on, tonnes, readings, stated }
    }
}

impl Store {
    /// Lots from newest to oldest, with the newest state of each.
    pub async fn lots(
        &self,
        of_flour: Option<Uuid>,
        before: Option<PageKey>,
        most: i64,
    ) -> Result<Vec<LotSummary>> {
        self.page_of_lots(of_flour, before, most, false).await
    }

    /// A page of lots on from a place, onward in time or back.
    pub(crate) async fn page_of_lots(
        &self,
        of_flour: Option<Uuid>,
        from: Option<PageKey>,
        most: i64,
        onward: bool,
    ) -> Result<Vec<LotSummary>> {
        let mut query = lot::table
            .inner_join(flour::table.inner_join(mill::table))
            .select((lot::id, lot::code, flour::id, flour::name, mill::name, lot::received_at))
            .limit(most)
            .into_boxed();
        if let Some(flour_id) = of_flour {
            query = query.filter(lot::flour_id.eq(flour_id));
        }
        query = if onward {
            query.order((lot::received_at, lot::id))
        } else {
            query.order((lot::received_at.desc(), lot::id.desc()))
        };
        if let Some(key) = from {
            query = if onward {
                query.filter(past!("lot.received_at, lot.id", ">", key))
            } else {
                query.filter(past!("lot.received_at, lot.id", "<", key))
            };
        }
        let rows: Vec<SummaryRow> = query.load(&mut self.connection().await?).await?;
        let ids: Vec<Uuid> = rows.iter().map(|row| row.0).collect();
        let mut of_lot = self.current_revisions(&ids).await?;
        let summaries =
            rows.into_iter().filter_map(|(id, code, flour_id, flour, mill, received_at)| {
                let current = of_lot.remove(&id)?;
                Some(LotSummary { id, code, flour_id, flour, mill, received_at, current })
            });
        Ok(summaries.collect())
    }

    /// The newest state of each of these lots.
    pub(crate) async fn current_revisions(
        &self,
        lot_ids: &[Uuid],
    ) -> Result<HashMap<Uuid, LotRevision>> {
        let connection = &mut self.connection().await?;
        let revisions: Vec<RevisionRow> = lot_revision::table
            .filter(lot_revision::lot_id.eq_any(lot_ids))
            .distinct_on(lot_revision::lot_id)
            .order((lot_revision::lot_id, lot_revision::number.desc()))
            .select(RevisionRow::as_select())
            .load(connection)
            .await?;
        let revision_ids: Vec<Uuid> = revisions.iter().map(|row| row.id).collect();
        let readings: Vec<ReadingRow> = reading::table
            .filter(reading::lot_revision_id.eq_any(&revision_ids))
            .order((reading::lot_revision_id, reading::position))
            .load(connection)
            .await?;
        let mut of_revision: HashMap<Uuid, Vec<(Reading, Stated)>> = HashMap::new();
        for row in readings {
            of_revision.entry(row.lot_revision_id).or_default().push(row.reading());
        }
        let with_readings = revisions.into_iter().map(|row| {
            let readings = of_revision.remove(&row.id).unwrap_or_default();
            (row.lot_id, row.with(readings))
        });
        Ok(with_readings.collect())
    }

    /// A lot in its newest state.
    pub async fn lot(&self, id: Uuid) -> Result<Lot> {
        let revision_id: Option<Uuid> = lot_revision::table
            .filter(lot_revision::lot_id.eq(id))
            .order(lot_revision::number.desc())
            .select(lot_revision::id)
            .first(&mut self.connection().await?)
            .await
            .optional()?;
        self.lot_at(revision_id.ok_or(StoreError::NotFound("this lot"))?).await
    }

    /// A lot in the state of one revision.
    pub async fn lot_at(&self, revision_id: Uuid) -> Result<Lot> {
        let mut connection = self.connection().await?;
        let found: Option<(RevisionRow, String, Uuid)> = lot_revision::table
            .inner_join(lot::table)
            .filter(lot_revision::id.eq(revision_id))
            .select((RevisionRow::as_select(), lot::code, lot::flour_id))
            .first(&mut connection)
            .await
            .optional()?;
        let (row, code, flour_id) = found.ok_or(StoreError::NotFound("this revision of a lot"))?;
        let readings: Vec<ReadingRow> = reading::table
            .filter(reading::lot_revision_id.eq(revision_id))
            .order(reading::position)
            .load(&mut connection)
            .await?;
        let readings = readings.into_iter().map(ReadingRow::reading).collect();
        // Given back before another is asked for: requests that each held one while waiting for a
        // second would wait for each other.
        drop(connection);
        let flour = self.flour(flour_id).await?;
        Ok(Lot { id: row.lot_id, code, flour, current: row.with(readings) })
    }

    /// Lots in their newest state, in this order.
    pub async fn lots_by_id(&self, ids: &[Uuid]) -> Result<Vec<Lot>> {
        let rows: Vec<(Uuid, String, FlourRow)> = lot::table
            .inner_join(flour::table.inner_join(mill::table))
            .filter(lot::id.eq_any(ids))
            .select((lot::id, lot::code, FlourRow::as_select()))
            .load(&mut self.connection().await?)
            .await?;
        let mut of_lot = self.current_revisions(ids).await?;
        let mut lots: HashMap<Uuid, Lot> = HashMap::new();
        for (id, code, flour) in rows {
            if let Some(current) = of_lot.remove(&id) {
                lots.insert(id, Lot { id, code, flour: flour.flour()?, current });
            }
        }
        let of = |id| lots.get(id).cloned().ok_or(StoreError::NotFound("this lot"));
        ids.iter().map(of).collect()
    }

    /// What the newest lots of each of these flours read, in no order.
    pub async fn newest_readings(
        &self,
        flours: &[Uuid],
        most: i64,
    ) -> Result<HashMap<Uuid, Vec<Readings>>> {
        // A place in the index for each flour, however many lots it has.
        let newest: Vec<LotOfFlour> = diesel::sql_query(
            "SELECT newest.id, newest.flour_id FROM (SELECT DISTINCT unnest($1) AS id) AS wanted \
             CROSS JOIN LATERAL (SELECT lot.id, lot.flour_id FROM lot \
             WHERE lot.flour_id = wanted.id \
             ORDER BY lot.received_at DESC, lot.id DESC LIMIT $2) AS newest",
        )
        .bind::<Array<diesel::sql_types::Uuid>, _>(flours)
        .bind::<BigInt, _>(most)
        .load(&mut self.connection().await?)
        .await?;
        let ids: Vec<Uuid> = newest.iter().map(|one| one.id).collect();
        let mut of_lot = self.current_revisions(&ids).await?;
        let mut readings: HashMap<Uuid, Vec<Readings>> = HashMap::new();
        for LotOfFlour { id, flour_id } in newest {
            let current = of_lot.remove(&id).map(|current| current.readings);
            readings.entry(flour_id).or_default().extend(current);
        }
        Ok(readings)
    }

    /// The lot of the same flour that came before this one.
    pub async fn lot_before(&self, id: Uuid) -> Result<Option<Uuid>> {
        let connection = &mut self.connection().await?;
        let found: Option<(Uuid, DateTime<Utc>)> = lot::table
            .find(id)
            .select((lot::flour_id, lot::received_at))
            .first(connection)
            .await
            .optional()?;
        let (flour_id, received_at) = found.ok_or(StoreError::NotFound("this lot"))?;
        Ok(lot::table
            .filter(lot::flour_id.eq(flour_id))
            .filter(past!("lot.received_at, lot.id", "<", (received_at, id)))
            .order((lot::received_at.desc(), lot::id.desc()))
            .select(lot::id)
            .first(connection)
            .await
            .optional()?)
    }

    /// Lots whose code begins with `text`, newest first.
    pub async fn find_lots(&self, text: &str, most: i64) -> Result<Vec<(Uuid, String, String)>> {
        let start = format!("{}%", escaped(&text.to_lowercase()));
        let found = lot::table
            .inner_join(flour::table)
            .filter(lower(lot::code).like(start))
            .order((lot::received_at.desc(), lot::id.desc()))
            .limit(most)
            .select((lot::id, lot::code, flour::name))
            .load(&mut self.connection().await?)
            .await?;
        Ok(found)
    }
}

impl LotRevision {
    /// Days from milling to delivery, where both are known.
    pub fn age_days(&self) -> Option<f64> {
        Some((self.delivered_on? - self.milled_on?).num_days() as f64)
    }

    /// The readings a specification is held against: the certificate's, and the lot's age.
    pub fn judged(&self) -> Readings {
        self.readings.clone().with_age(self.age_days())
    }
}

diesel::define_sql_function! {
    /// Lower case, as the index on lot codes has it.
    fn lower(text: diesel::sql_types::Text) -> diesel::sql_types::Text;
}

/// Marks that `LIKE` would read as wild cards, taken literally.
fn escaped(text: &str) -> String {
    text.replace('\\', "\\\\").replace('%', "\\%").replace('_', "\\_")
}
