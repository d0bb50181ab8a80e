//! The plant's own settings.

use diesel::prelude::*;
use diesel_async::RunQueryDsl;
use ironpeel_core::dough::IngredientPrice;

use crate::error::{Result, StoreError};
use crate::schema::plant;
use crate::store::Store;

/// What the plant pays for the house's ingredients, and its clock.
#[derive(Debug, Clone, PartialEq)]
pub struct Plant {
    pub prices: Vec<IngredientPrice>,
    /// The clock on its wall, by its name in the time zone database.
    pub time_zone: String,
}

impl Store {
    pub async fn plant(&self) -> Result<Plant> {
        let (prices, time_zone): (serde_json::Value, String) = plant::table
            .select((plant::prices, plant::time_zone))
            .first(&mut self.connection().await?)
            .await?;
        let prices =
            serde_json::from_value(prices).map_err(|error| StoreError::Fault(error.into()))?;
        Ok(Plant { prices, time_zone })
    }

    pub async fn set_plant(&self, new: &Plant) -> Result<()> {
        let prices =
            serde_json::to_value(&new.prices).map_err(|error| StoreError::Fault(error.into()))?;
        diesel::update(plant::table)
            .set((plant::prices.eq(prices), plant::time_zone.eq(&new.time_zone)))
            .execute(&mut self.connection().await?)
            .await?;
        Ok(())
    }

    /// Sets the clock on the plant's wall.
    pub async fn set_time_zone(&self, name: &str) -> Result<()> {
        diesel::update(plant::table)
            .set(plant::time_zone.eq(name))
            .execute(&mut self.connection().await?)
            .await?;
        Ok(())
    }
}
