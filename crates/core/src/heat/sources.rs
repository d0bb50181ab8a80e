use serde::{Deserialize, Serialize};

use super::HOTTEST_WATER_C;

/// Less than this is nothing, kg.
const NOTHING_KG: f64 = 1e-9;

/// What a line or a bench has its water from, besides its cold tap.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct WaterSources {
    /// Water out of a chiller, °C; none where there is no chiller.
    pub chilled_c: Option<f64>,
    /// A refrigerator in which water and ingredients stand, °C; none where there is none.
    pub refrigerator_c: Option<f64>,
    /// Water out of the hot tap, °C; none where there is none.
    pub hot_c: Option<f64>,
    /// Most ice, % of the water; 0 where there is no ice.
    pub max_ice_pct: f64,
}

/// Where some of the water comes from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum WaterSource {
    ColdTap,
    HotTap,
    Chiller,
    Refrigerator,
}

/// So much of the water from one place.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct WaterFrom {
    pub source: WaterSource,
    pub kg: f64,
    pub temperature_c: f64,
}

/// So much water of a temperature, where the cold tap runs at another.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct WantedWater {
    pub kg: f64,
    pub temperature_c: f64,
    pub tap_c: f64,
}

impl WaterSources {
    /// The coldest water without ice: the chiller's or the refrigerator's, else the tap's own.
    pub fn coldest_c(&self, tap_c: f64) -> f64 {
        self.cold().map_or(tap_c, |(_, celsius)| celsius.min(tap_c))
    }

    /// The hottest water: the hot tap's, but never above 60 °C, else the cold tap's own.
    pub fn hottest_c(&self, tap_c: f64) -> f64 {
        self.hot_c.map_or(tap_c, |hot| hot.max(tap_c)).min(HOTTEST_WATER_C.max(tap_c))
    }

    fn cold(&self) -> Option<(WaterSource, f64)> {
        let chiller = self.chilled_c.map(|celsius| (WaterSource::Chiller, celsius));
        let refrigerator = self.refrigerator_c.map(|celsius| (WaterSource::Refrigerator, celsius));
        chiller.into_iter().chain(refrigerator).min_by(|one, other| one.1.total_cmp(&other.1))
    }

    /// The water wanted out of what there is: cold tap water with what is hotter or
    /// colder, by mass: `share = (wanted − tap)/(other − tap)`.
    ///
    /// ```
    /// use ironpeel_core::heat::{WantedWater, WaterSource, WaterSources};
    /// let bench = WaterSources {
    ///     chilled_c: None, refrigerator_c: Some(4.0), hot_c: Some(50.0), max_ice_pct: 60.0,
    /// };
    /// let mixed = bench.mixed(WantedWater { kg: 10.0, temperature_c: 25.0, tap_c: 15.0 });
    /// assert_eq!((mixed[0].source, mixed[1].source), (WaterSource::ColdTap, WaterSource::HotTap));
    /// assert!((mixed[1].kg - 10.0 * 10.0 / 35.0).abs() < 1e-9);
    /// ```
    pub fn mixed(&self, wanted: WantedWater) -> Vec<WaterFrom> {
        let WantedWater { kg, temperature_c: wanted_c, tap_c } = wanted;
        let other = if wanted_c > tap_c {
            self.hot_c.map(|celsius| (WaterSource::HotTap, celsius))
        } else {
            self.cold()
        };
        let share = other.map_or(0.0, |(_, celsius)| {
            let apart = celsius - tap_c;
            if apart == 0.0 { 0.0 } else { ((wanted_c - tap_c) / apart).clamp(0.0, 1.0) }
        });
        let tap = WaterFrom {
            source: WaterSource::ColdTap,
            kg: kg * (1.0 - share),
            temperature_c: tap_c,
        };
        let (source, temperature_c) = other.unwrap_or((WaterSource::ColdTap, tap_c));
        let other = WaterFrom { source, kg: kg * share, temperature_c };
        [tap, other].into_iter().filter(|from| from.kg > NOTHING_KG).collect()
    }
}
