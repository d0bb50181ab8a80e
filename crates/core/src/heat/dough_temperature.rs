use serde::Deserialize;

use super::coefficients::MOST_ICE;
use super::{Balance, HOTTEST_WATER_C, HeatPart, HeatSolution, HeatSource};
use crate::units::{NumberRange, RawNumber, ValidationErrors};

/// Most parts in one balance.
const MOST_PARTS: usize = 200;

const KG: NumberRange = NumberRange::new("kg", "mass", "kg", 0.0, 100_000.0);
const TEMPERATURE: NumberRange =
    NumberRange::new("temperature_c", "temperature", "°C", -40.0, 150.0);
const HEAT: NumberRange = NumberRange::new("specific_heat", "specific heat", "kJ/kg·K", 0.1, 10.0);
const WATER: NumberRange = NumberRange::new("water_kg", "water", "kg", 0.0, 100_000.0);
const TAP: NumberRange = NumberRange::new("tap_c", "tap water", "°C", 0.0, 100.0);
const TARGET: NumberRange =
    NumberRange::new("target_c", "target dough temperature", "°C", 0.0, 100.0);
const MIXING: NumberRange =
    NumberRange::new("mixing_kj_per_kg", "mixing energy", "kJ/kg", 0.0, 500.0);
const MINUTES: NumberRange = NumberRange::new("mixing_min", "mixing time", "min", 0.1, 600.0);
const WETTED: NumberRange =
    NumberRange::new("flour_wetted_kg", "flour wetted", "kg", 0.0, 100_000.0);
const CHILLED: NumberRange =
    NumberRange::new("chilled_min_c", "coldest chilled water", "°C", 0.0, 40.0);
const ICE: NumberRange = NumberRange::new("ice_c", "ice", "°C", -60.0, 0.0);
const MAX_ICE: NumberRange =
    NumberRange::new("max_ice_pct", "most ice", "% of the water", 0.0, 100.0);

/// Something that goes into the mixer besides water.
#[derive(Debug, Clone, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct HeatPartInput {
    #[serde(default)]
    pub name: String,
    /// 0 to 100 000 kg.
    #[serde(default)]
    pub kg: RawNumber,
    /// −40 to 150 °C.
    #[serde(default)]
    pub temperature_c: RawNumber,
    /// 0.1 to 10 kJ/kg·K.
    #[serde(default)]
    pub specific_heat: RawNumber,
}

/// What the `dough-temperature` calculator is asked.
#[derive(Debug, Clone, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct DoughTemperatureInput {
    /// Up to 200. A part with “flour” in its name is the one the flour lever cools.
    #[serde(default)]
    pub parts: Option<Vec<HeatPartInput>>,
    /// All the water, ice included, kg.
    #[serde(default)]
    pub water_kg: RawNumber,
    /// 0 to 100 °C.
    #[serde(default)]
    pub tap_c: RawNumber,
    /// 0 to 100 °C.
    #[serde(default)]
    pub target_c: RawNumber,
    /// Of whole dough, 0 to 500 kJ/kg.
    #[serde(default)]
    pub mixing_kj_per_kg: RawNumber,
    /// Optional: turns the mixing lever into minutes.
    #[serde(default)]
    pub mixing_min: RawNumber,
    /// As-is flour meeting water for the first time, kg.
    #[serde(default)]
    pub flour_wetted_kg: RawNumber,
    /// Coldest water without ice; 2 °C if left out.
    #[serde(default)]
    pub chilled_min_c: RawNumber,
    /// 0 or below; 0 °C if left out.
    #[serde(default)]
    pub ice_c: RawNumber,
    /// Most ice, in percent of the water; 60 if left out.
    #[serde(default)]
    pub max_ice_pct: RawNumber,
}

impl DoughTemperatureInput {
    /// Checks every field, then closes the balance.
    ///
    /// ```
    /// use ironpeel_core::heat::DoughTemperatureInput;
    /// let input: DoughTemperatureInput = serde_json::from_str(r#"{
    ///     "parts": [
    ///         {"name": "flour", "kg": 100, "temperature_c": 24, "specific_heat": 1.83304},
    ///         {"name": "salt and sugar", "kg": 4, "temperature_c": 22, "specific_heat": 1.3}],
    ///     "water_kg": 61, "tap_c": 18, "target_c": 26, "mixing_kj_per_kg": 12,
    ///     "flour_wetted_kg": 100}"#)?;
    /// let answer = input.compute()?;
    /// assert!((answer.water_c - 13.85).abs() < 0.005 && answer.ice_kg == 0.0);
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    pub fn compute(&self) -> Result<HeatSolution, ValidationErrors> {
        self.check().map(|balance| balance.solve())
    }

    fn check(&self) -> Result<Balance, ValidationErrors> {
        let faults = &mut ValidationErrors::default();
        let parts = self.parts.as_deref().unwrap_or_else(|| {
            faults.push("parts", "the parts are missing; a list of what goes in besides water");
            &[]
        });
        if parts.len() > MOST_PARTS {
            let message = format!("up to {MOST_PARTS} parts; {} were given", parts.len());
            faults.push("parts", message);
        }
        let parts: Vec<HeatPart> = parts
            .iter()
            .take(MOST_PARTS)
            .enumerate()
            .map(|(at, part)| part.check(&format!("parts[{at}]."), faults))
            .collect();
        let balance = Balance {
            water_kg: WATER.check(&self.water_kg, "", faults),
            tap_c: TAP.check(&self.tap_c, "", faults),
            target_c: TARGET.check(&self.target_c, "", faults),
            mixing_kj_per_kg: MIXING.check(&self.mixing_kj_per_kg, "", faults),
            jacket_kj_per_kg: None,
            mixing_min: MINUTES.check_opt(&self.mixing_min, "", faults),
            flour_wetted_kg: WETTED.check(&self.flour_wetted_kg, "", faults),
            rested_kj: 0.0,
            chilled_min_c: CHILLED.check_or(&self.chilled_min_c, 2.0, "", faults),
            hottest_c: HOTTEST_WATER_C,
            ice_c: ICE.check_or(&self.ice_c, 0.0, "", faults),
            max_ice_pct: MAX_ICE.check_or(&self.max_ice_pct, MOST_ICE.value, "", faults),
            surroundings: None,
            parts,
        };
        if faults.0.is_empty()
            && balance.water_kg + balance.parts.iter().map(|part| part.kg).sum::<f64>() <= 0.0
        {
            faults.push("parts", "there is nothing in the mixer: every mass is 0 kg");
        }
        std::mem::take(faults).or(balance)
    }
}

impl HeatPartInput {
    fn check(&self, at: &str, faults: &mut ValidationErrors) -> HeatPart {
        HeatPart {
            is: if self.name.to_lowercase().contains("flour") {
                HeatSource::Flour
            } else {
                HeatSource::Other
            },
            name: self.name.clone().into(),
            kg: KG.check(&self.kg, at, faults),
            temperature_c: TEMPERATURE.check(&self.temperature_c, at, faults),
            specific_heat: HEAT.check(&self.specific_heat, at, faults),
        }
    }
}
