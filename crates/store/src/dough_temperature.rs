//! The temperatures of doughs as they were measured: append-only.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::RunQueryDsl;
use ironpeel_core::heat::Temperatures;
use uuid::Uuid;

use crate::error::Result;
use crate::schema::dough_temperature;
use crate::store::Store;

/// The temperatures of one dough, °C.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable, Insertable)]
#[diesel(table_name = dough_temperature)]
pub struct DoughTemperature {
    pub id: Uuid,
    pub method_id: Uuid,
    pub line_id: Uuid,
    pub taken_at: DateTime<Utc>,
    pub taken_by: String,
    pub flour_c: f64,
    pub room_c: f64,
    pub water_c: f64,
    pub preferment_c: Option<f64>,
    pub dough_c: f64,
}

impl DoughTemperature {
    /// As friction is learned from them.
    pub const fn temperatures(&self) -> Temperatures {
        let Self { flour_c, room_c, water_c, preferment_c, dough_c, .. } = *self;
        Temperatures { flour_c, room_c, water_c, preferment_c, dough_c }
    }
}

impl Store {
    /// The newest of a method on a line, newest first.
    pub async fn dough_temperatures(
        &self,
        method_id: Uuid,
        line_id: Uuid,
        most: i64,
    ) -> Result<Vec<DoughTemperature>> {
        Ok(dough_temperature::table
            .filter(dough_temperature::method_id.eq(method_id))
            .filter(dough_temperature::line_id.eq(line_id))
            .order((dough_temperature::taken_at.desc(), dough_temperature::id.desc()))
            .limit(most)
            .select(DoughTemperature::as_select())
            .load(&mut self.connection().await?)
            .await?)
    }

    /// Records what was measured. Sent twice, it is stored once.
    pub async fn add_dough_temperatures(&self, new: &[DoughTemperature]) -> Result<()> {
        diesel::insert_into(dough_temperature::table)
            .values(new)
            .on_conflict(dough_temperature::id)
            .do_nothing()
            .execute(&mut self.connection().await?)
            .await?;
        Ok(())
    }
}
