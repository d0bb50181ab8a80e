use serde::{Deserialize, Serialize};

use crate::heat::WaterSources;
use crate::method::{Equipment, Mixer};
use crate::units::{NumberRange, RawNumber, ValidationErrors};

/// A plant line: its mixer, its scale, what comes after them, and what its room and tap usually are.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ScenarioLine {
    pub mixer: Mixer,
    pub equipment: Equipment,
    pub division_kg: f64,
    pub tap_c: f64,
    pub flour_c: f64,
    pub room_c: f64,
    pub water: WaterSources,
}

/// A line as it was typed; what is left out is as it was.
#[derive(Debug, Clone, Default, PartialEq, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct LineDraft {
    /// What the mixer is called, up to 80 letters.
    #[serde(default)]
    pub mixer_name: Option<String>,
    /// Horizontal, spiral, fork, hand, …, up to 80 letters.
    #[serde(default)]
    pub mixer_kind: Option<String>,
    /// 0.1 to 5000 kg.
    #[serde(default)]
    pub min_kg: RawNumber,
    /// 0.1 to 5000 kg.
    #[serde(default)]
    pub max_kg: RawNumber,
    /// 0 to 20 kJ/kg·min.
    #[serde(default)]
    pub slow_kj_per_kg_min: RawNumber,
    /// 0 to 20 kJ/kg·min.
    #[serde(default)]
    pub fast_kj_per_kg_min: RawNumber,
    /// 0 to 10 kJ/kg·min; 0 where it has none.
    #[serde(default)]
    pub jacket_kj_per_kg_min: RawNumber,
    /// 0 to 120 min.
    #[serde(default)]
    pub turn_min: RawNumber,
    /// 1 to 1000.
    #[serde(default)]
    pub troughs: RawNumber,
    /// 0.1 to 5000 kg.
    #[serde(default)]
    pub trough_kg: RawNumber,
    /// 0.01 to 50 m².
    #[serde(default)]
    pub trough_m2: RawNumber,
    /// 0.1 to 1000 a minute.
    #[serde(default)]
    pub divider_per_min: RawNumber,
    /// 1 to 100 000.
    #[serde(default)]
    pub proofer_pieces: RawNumber,
    /// 1 to 100 000.
    #[serde(default)]
    pub oven_pieces: RawNumber,
    /// Water out of the chiller, 1 to 20 °C; 0 where there is none.
    #[serde(default)]
    pub chilled_c: RawNumber,
    /// The refrigerator, 1 to 12 °C; 0 where there is none.
    #[serde(default)]
    pub refrigerator_c: RawNumber,
    /// Water out of the hot tap, 30 to 95 °C; 0 where there is none.
    #[serde(default)]
    pub hot_c: RawNumber,
    /// Most ice, 0 to 100 % of the water; 0 where there is none.
    #[serde(default)]
    pub max_ice_pct: RawNumber,
}

/// Longest name or kind.
const LONGEST: usize = 80;
const MIN: NumberRange = NumberRange::new("min_kg", "the least it mixes well", "kg", 0.1, 5000.0);
const MAX: NumberRange = NumberRange::new("max_kg", "the most it holds", "kg", 0.1, 5000.0);
const SLOW: NumberRange =
    NumberRange::new("slow_kj_per_kg_min", "power at slow speed", "kJ/kg·min", 0.0, 20.0);
const FAST: NumberRange =
    NumberRange::new("fast_kj_per_kg_min", "power at fast speed", "kJ/kg·min", 0.0, 20.0);
const JACKET: NumberRange =
    NumberRange::new("jacket_kj_per_kg_min", "what the jacket takes away", "kJ/kg·min", 0.0, 10.0);
const TURN: NumberRange = NumberRange::new("turn_min", "batch interval", "min", 0.0, 120.0);
const TROUGHS: NumberRange = NumberRange::new("troughs", "troughs", "", 1.0, 1000.0);
const TROUGH: NumberRange = NumberRange::new("trough_kg", "dough in a trough", "kg", 0.1, 5000.0);
const FLOOR: NumberRange =
    NumberRange::new("trough_m2", "floor a trough stands on", "m²", 0.01, 50.0);
const DIVIDER: NumberRange =
    NumberRange::new("divider_per_min", "divider", "pieces/min", 0.1, 1000.0);
const PROOFER: NumberRange =
    NumberRange::new("proofer_pieces", "proofer", "pieces", 1.0, 100_000.0);
const OVEN: NumberRange = NumberRange::new("oven_pieces", "oven", "pieces", 1.0, 100_000.0);

const CHILLED: NumberRange =
    NumberRange::new("chilled_c", "water out of the chiller", "°C", 0.0, 20.0);
const REFRIGERATOR: NumberRange =
    NumberRange::new("refrigerator_c", "the refrigerator", "°C", 0.0, 12.0);
const HOT: NumberRange = NumberRange::new("hot_c", "water out of the hot tap", "°C", 0.0, 95.0);
const MAX_ICE: NumberRange =
    NumberRange::new("max_ice_pct", "most ice", "% of the water", 0.0, 100.0);
/// A hot tap gives no less, °C.
const HOT_AT_LEAST_C: f64 = 30.0;

impl LineDraft {
    /// The line with what was typed, or what is wrong with it under `at`.
    pub fn over(
        &self,
        was: &ScenarioLine,
        at: &str,
        faults: &mut ValidationErrors,
    ) -> ScenarioLine {
        let Mixer { jacket_kj_per_kg_min: jacket, .. } = was.mixer;
        let jacket = JACKET.check_or(&self.jacket_kj_per_kg_min, jacket.unwrap_or(0.0), at, faults);
        let mixer = Mixer {
            name: text("mixer_name", self.mixer_name.as_ref(), &was.mixer.name, at, faults),
            kind: text("mixer_kind", self.mixer_kind.as_ref(), &was.mixer.kind, at, faults),
            min_kg: MIN.check_or(&self.min_kg, was.mixer.min_kg, at, faults),
            max_kg: MAX.check_or(&self.max_kg, was.mixer.max_kg, at, faults),
            slow_kj_per_kg_min: SLOW.check_or(
                &self.slow_kj_per_kg_min,
                was.mixer.slow_kj_per_kg_min,
                at,
                faults,
            ),
            fast_kj_per_kg_min: FAST.check_or(
                &self.fast_kj_per_kg_min,
                was.mixer.fast_kj_per_kg_min,
                at,
                faults,
            ),
            jacket_kj_per_kg_min: (jacket > 0.0).then_some(jacket),
        };
        let had = was.equipment;
        let equipment = Equipment {
            turn_min: TURN.check_or(&self.turn_min, had.turn_min, at, faults),
            troughs: TROUGHS.check_or(&self.troughs, had.troughs.into(), at, faults).round() as u32,
            trough_kg: TROUGH.check_or(&self.trough_kg, had.trough_kg, at, faults),
            trough_m2: FLOOR.check_or(&self.trough_m2, had.trough_m2, at, faults),
            divider_per_min: DIVIDER.check_or(
                &self.divider_per_min,
                had.divider_per_min,
                at,
                faults,
            ),
            proofer_pieces: PROOFER.check_or(&self.proofer_pieces, had.proofer_pieces, at, faults),
            oven_pieces: OVEN.check_or(&self.oven_pieces, had.oven_pieces, at, faults),
        };
        if mixer.min_kg > mixer.max_kg {
            let message = format!("a mixer cannot hold less ({} kg) than it needs", mixer.max_kg);
            faults.push(format!("{at}max_kg"), message);
        }
        let had = was.water;
        let source = |bound: NumberRange,
                      given: &RawNumber,
                      was: Option<f64>,
                      faults: &mut ValidationErrors| {
            let celsius = bound.check_or(given, was.unwrap_or(0.0), at, faults);
            (celsius > 0.0).then_some(celsius)
        };
        let water = WaterSources {
            chilled_c: source(CHILLED, &self.chilled_c, had.chilled_c, faults),
            refrigerator_c: source(REFRIGERATOR, &self.refrigerator_c, had.refrigerator_c, faults),
            hot_c: source(HOT, &self.hot_c, had.hot_c, faults),
            max_ice_pct: MAX_ICE.check_or(&self.max_ice_pct, had.max_ice_pct, at, faults),
        };
        if water.hot_c.is_some_and(|celsius| celsius < HOT_AT_LEAST_C) {
            let message =
                format!("a hot tap gives {HOT_AT_LEAST_C:.0} °C or more; 0 if there is none");
            faults.push(format!("{at}hot_c"), message);
        }
        ScenarioLine { mixer, equipment, water, ..was.clone() }
    }
}

/// A text as it was typed, or as it was.
fn text(
    field: &str,
    given: Option<&String>,
    was: &str,
    at: &str,
    faults: &mut ValidationErrors,
) -> String {
    let text = given.map_or(was, |text| text.trim());
    if text.is_empty() || text.chars().count() > LONGEST {
        faults.push(format!("{at}{field}"), format!("a word for it, up to {LONGEST} letters"));
    }
    text.into()
}
