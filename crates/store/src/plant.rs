//! The plant's own settings.

use diesel::prelude::*;
use diesel_async::RunQueryDsl;
use ironpeel_core::dough::IngredientPrice;
use serde::{Deserialize, Serialize};

use crate::error::{Result, StoreError};
use crate::schema::plant;
use crate::store::{Store, act};
use crate::word::Word;

/// The day a week begins with.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum WeekStart {
    Monday,
    Sunday,
    Saturday,
}

/// What temperatures are said in to whoever has not chosen.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum TemperatureUnit {
    Celsius,
    Fahrenheit,
}

/// What masses are said in to whoever has not chosen.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum MassUnit {
    Kilogram,
    Pound,
}

/// What is everybody's at the plant.
#[derive(Debug, Clone, PartialEq, Eq, Queryable, Selectable, AsChangeset, Serialize)]
#[diesel(table_name = plant)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct PlantSettings {
    /// The clock on its wall, by its name in the time zone database, like Europe/London.
    pub time_zone: String,
    /// What prices are in, like EUR; empty where it is not said.
    pub currency: String,
    #[cfg_attr(feature = "openapi", schema(value_type = WeekStart))]
    pub week_starts: Word<WeekStart>,
    #[cfg_attr(feature = "openapi", schema(value_type = TemperatureUnit))]
    pub temperature_unit: Word<TemperatureUnit>,
    #[cfg_attr(feature = "openapi", schema(value_type = MassUnit))]
    pub mass_unit: Word<MassUnit>,
}

/// What the plant pays for the house's ingredients, and its settings.
#[derive(Debug, Clone, PartialEq)]
pub struct Plant {
    pub prices: Vec<IngredientPrice>,
    pub settings: PlantSettings,
}

impl Store {
    pub async fn plant(&self) -> Result<Plant> {
        let (prices, settings): (serde_json::Value, PlantSettings) = plant::table
            .select((plant::prices, PlantSettings::as_select()))
            .first(&mut self.connection().await?)
            .await?;
        let prices =
            serde_json::from_value(prices).map_err(|error| StoreError::Fault(error.into()))?;
        Ok(Plant { prices, settings })
    }

    /// Sets what the plant pays for the house's ingredients.
    pub async fn set_prices(&self, prices: &[IngredientPrice]) -> Result<()> {
        let prices =
            serde_json::to_value(prices).map_err(|error| StoreError::Fault(error.into()))?;
        diesel::update(plant::table)
            .set(plant::prices.eq(prices))
            .execute(&mut self.connection().await?)
            .await?;
        Ok(())
    }

    /// Sets what is everybody's.
    pub async fn set_settings(&self, settings: &PlantSettings) -> Result<()> {
        act!(self, |connection| {
            diesel::update(plant::table).set(settings).execute(connection).await?;
        })
    }
}
