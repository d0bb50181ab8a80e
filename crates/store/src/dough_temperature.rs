//! The temperatures of doughs as they were measured: append-only.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, RunQueryDsl};
use ironpeel_core::chain::Measured;
use ironpeel_core::heat::Temperatures;
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::schema::dough_temperature;
use crate::store::{Store, add_once};

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
    pub ice_share_pct: f64,
    pub ice_c: f64,
    /// Its own masses and jacket, where they were kept.
    pub mixed: Option<serde_json::Value>,
}

impl DoughTemperature {
    /// As friction is learned from them.
    pub const fn temperatures(&self) -> Temperatures {
        let Self { flour_c, room_c, water_c, preferment_c, dough_c, ice_share_pct, ice_c, .. } =
            *self;
        Temperatures { flour_c, room_c, water_c, preferment_c, dough_c, ice_share_pct, ice_c }
    }

    /// As it was measured, with its own masses where they can be read.
    pub fn measured(&self) -> Measured {
        let mixed = self.mixed.clone().and_then(|mixed| serde_json::from_value(mixed).ok());
        Measured { temperatures: self.temperatures(), mixed }
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

    /// The temperatures of one dough.
    pub async fn dough_temperature(&self, id: Uuid) -> Result<DoughTemperature> {
        let found = dough_temperature::table
            .find(id)
            .select(DoughTemperature::as_select())
            .first(&mut self.connection().await?)
            .await;
        found.optional()?.ok_or(StoreError::NotFound("this measured dough"))
    }

    /// Records what was measured. Sent twice, it is stored once.
    pub async fn add_dough_temperatures(&self, new: &[DoughTemperature]) -> Result<()> {
        add_once!(self, dough_temperature, new, StoreError::from)
    }
}
