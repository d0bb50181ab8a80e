use serde::{Deserialize, Serialize};

use crate::units::{NumberRange, celsius_of_fahrenheit};

/// What a reading is of.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Quantity {
    DoughC,
    FlourC,
    WaterC,
    RoomC,
    SpongeC,
    Ph,
    HeightMm,
    /// Of the sample jar: its own mass, not the dough's.
    JarRisePct,
    DoughRisePct,
    CoreC,
    MassKg,
    HumidityPct,
    Pieces,
}

impl Quantity {
    /// Everything that is read.
    pub const ALL: [Self; 13] = [
        Self::DoughC,
        Self::FlourC,
        Self::WaterC,
        Self::RoomC,
        Self::SpongeC,
        Self::Ph,
        Self::HeightMm,
        Self::JarRisePct,
        Self::DoughRisePct,
        Self::CoreC,
        Self::MassKg,
        Self::HumidityPct,
        Self::Pieces,
    ];

    /// Its name, unit and what it can be.
    pub fn range(self) -> NumberRange {
        let of = |words, unit, low, high| NumberRange::new("value", words, unit, low, high);
        match self {
            Self::DoughC => of("the dough temperature", "°C", -5.0, 50.0),
            Self::FlourC => of("the flour temperature", "°C", -5.0, 50.0),
            Self::WaterC => of("the water temperature", "°C", 0.0, 100.0),
            Self::RoomC => of("the room temperature", "°C", -30.0, 60.0),
            Self::SpongeC => of("the sponge temperature", "°C", -5.0, 50.0),
            Self::Ph => of("the pH", "", 3.0, 8.0),
            Self::HeightMm => of("the height", "mm", 0.0, 2000.0),
            Self::JarRisePct => of("the rise of the sample jar", "%", -20.0, 1000.0),
            Self::DoughRisePct => of("the rise of the dough", "%", -20.0, 1000.0),
            Self::CoreC => of("the core temperature", "°C", -40.0, 110.0),
            Self::MassKg => of("the mass", "kg", 0.0, 100_000.0),
            Self::HumidityPct => of("the humidity", "%", 0.0, 100.0),
            Self::Pieces => of("the number of pieces", "", 0.0, 1_000_000.0),
        }
    }

    const fn is_temperature(self) -> bool {
        matches!(
            self,
            Self::DoughC | Self::FlourC | Self::WaterC | Self::RoomC | Self::SpongeC | Self::CoreC
        )
    }

    /// What was likely meant by a temperature that cannot be: degrees Fahrenheit typed as Celsius,
    /// or a decimal mark left out.
    ///
    /// ```
    /// use ironpeel_core::batch::Quantity;
    /// assert_eq!(Quantity::DoughC.likely_meant(79.7), Some(26.5));
    /// assert_eq!(Quantity::DoughC.likely_meant(270.0), Some(27.0));
    /// assert_eq!(Quantity::DoughC.likely_meant(4000.0), None);
    /// ```
    pub fn likely_meant(self, given: f64) -> Option<f64> {
        let range = self.range();
        let tenths = |value: f64| (value * 10.0).round() / 10.0;
        let fahrenheit = celsius_of_fahrenheit(given);
        let meant = [fahrenheit, given / 10.0].map(tenths);
        let can_be = |value: &f64| self.is_temperature() && range.holds(*value);
        meant.into_iter().find(can_be)
    }
}
