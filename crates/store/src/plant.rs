//! The plant's own settings.

use diesel::prelude::*;
use diesel_async::RunQueryDsl;
use ironpeel_core::dough::IngredientPrice;

use crate::error::{Result, StoreError};
use crate::schema::plant;
use crate::store::Store;

/// What the plant pays for the house's ingredients.
#[derive(Debug, Clone, PartialEq)]
pub struct Plant {
    pub prices: Vec<IngredientPrice>,
}

impl Store {
    pub async fn plant(&self) -> Result<Plant> {
        let prices: serde_json::Value =
            plant::table.select(plant::prices).first(&mut self.connection().await?).await?;
        let prices =
            serde_json::from_value(prices).map_err(|error| StoreError::Fault(error.into()))?;
        Ok(Plant { prices })
    }

    pub async fn set_plant(&self, new: &Plant) -> Result<()> {
        let prices =
            serde_json::to_value(&new.prices).map_err(|error| StoreError::Fault(error.into()))?;
        diesel::update(plant::table)
            .set(plant::prices.eq(prices))
            .execute(&mut self.connection().await?)
            .await?;
        Ok(())
    }
}
