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
    /// The scale's division, 0.0001 to 5 kg.
    #[serde(default)]
    pub division_kg: RawNumber,
    /// Usual of its tap, 0 to 40 °C.
    #[serde(default)]
    pub tap_c: RawNumber,
    /// Usual of its flour, −10 to 50 °C.
    #[serde(default)]
    pub flour_c: RawNumber,
    /// Usual of its room, 0 to 50 °C.
    #[serde(default)]
    pub room_c: RawNumber,
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
const DIVISION: NumberRange =
    NumberRange::new("division_kg", "division of the scale", "kg", 0.0001, 5.0);
const TAP: NumberRange = NumberRange::new("tap_c", "tap water, usually", "°C", 0.0, 40.0);
const FLOUR_C: NumberRange = NumberRange::new("flour_c", "flour, usually", "°C", -10.0, 50.0);
const ROOM: NumberRange = NumberRange::new("room_c", "room, usually", "°C", 0.0, 50.0);
/// A hot tap gives no less, °C.
const HOT_AT_LEAST_C: f64 = 30.0;

impl LineDraft {
    /// The line with what was typed over what it was, or what is wrong with it under `at`. Of a line
    /// that is made from nothing everything is asked but what a line may be without.
    pub fn over(
        &self,
        was: Option<&ScenarioLine>,
        at: &str,
        faults: &mut ValidationErrors,
    ) -> ScenarioLine {
        let mixer = self.mixer(was.map(|was| &was.mixer), at, faults);
        let equipment = self.equipment(was.map(|was| was.equipment), at, faults);
        let water = self.water(was.map(|was| was.water).unwrap_or_default(), at, faults);
        let mut usual = |range: NumberRange, given, was| number(range, given, was, at, faults);
        ScenarioLine {
            mixer,
            equipment,
            water,
            division_kg: usual(DIVISION, &self.division_kg, was.map(|was| was.division_kg)),
            tap_c: usual(TAP, &self.tap_c, was.map(|was| was.tap_c)),
            flour_c: usual(FLOUR_C, &self.flour_c, was.map(|was| was.flour_c)),
            room_c: usual(ROOM, &self.room_c, was.map(|was| was.room_c)),
        }
    }

    fn mixer(&self, was: Option<&Mixer>, at: &str, faults: &mut ValidationErrors) -> Mixer {
        let jacket = was.and_then(|was| was.jacket_kj_per_kg_min).unwrap_or(0.0);
        let jacket = JACKET.check_or(&self.jacket_kj_per_kg_min, jacket, at, faults);
        let name = was.map(|was| &*was.name);
        let kind = was.map(|was| &*was.kind);
        let name = text("mixer_name", self.mixer_name.as_ref(), name, at, faults);
        let kind = text("mixer_kind", self.mixer_kind.as_ref(), kind, at, faults);
        let mut of =
            |range, given, had: fn(&Mixer) -> f64| number(range, given, was.map(had), at, faults);
        let mixer = Mixer {
            name,
            kind,
            min_kg: of(MIN, &self.min_kg, |was| was.min_kg),
            max_kg: of(MAX, &self.max_kg, |was| was.max_kg),
            slow_kj_per_kg_min: of(SLOW, &self.slow_kj_per_kg_min, |was| was.slow_kj_per_kg_min),
            fast_kj_per_kg_min: of(FAST, &self.fast_kj_per_kg_min, |was| was.fast_kj_per_kg_min),
            jacket_kj_per_kg_min: (jacket > 0.0).then_some(jacket),
        };
        if mixer.min_kg > mixer.max_kg {
            let message = format!("a mixer cannot hold less ({} kg) than it needs", mixer.max_kg);
            faults.push(format!("{at}max_kg"), message);
        }
        mixer
    }

    fn equipment(
        &self,
        was: Option<Equipment>,
        at: &str,
        faults: &mut ValidationErrors,
    ) -> Equipment {
        let mut of = |range, given, had: fn(Equipment) -> f64| {
            number(range, given, was.map(had), at, faults)
        };
        Equipment {
            turn_min: of(TURN, &self.turn_min, |was| was.turn_min),
            troughs: of(TROUGHS, &self.troughs, |was| was.troughs.into()).round() as u32,
            trough_kg: of(TROUGH, &self.trough_kg, |was| was.trough_kg),
            trough_m2: of(FLOOR, &self.trough_m2, |was| was.trough_m2),
            divider_per_min: of(DIVIDER, &self.divider_per_min, |was| was.divider_per_min),
            proofer_pieces: of(PROOFER, &self.proofer_pieces, |was| was.proofer_pieces),
            oven_pieces: of(OVEN, &self.oven_pieces, |was| was.oven_pieces),
        }
    }

    fn water(&self, had: WaterSources, at: &str, faults: &mut ValidationErrors) -> WaterSources {
        let mut source = |range: NumberRange, given: &RawNumber, was: Option<f64>| {
            let celsius = range.check_or(given, was.unwrap_or(0.0), at, faults);
            (celsius > 0.0).then_some(celsius)
        };
        let water = WaterSources {
            chilled_c: source(CHILLED, &self.chilled_c, had.chilled_c),
            refrigerator_c: source(REFRIGERATOR, &self.refrigerator_c, had.refrigerator_c),
            hot_c: source(HOT, &self.hot_c, had.hot_c),
            max_ice_pct: MAX_ICE.check_or(&self.max_ice_pct, had.max_ice_pct, at, faults),
        };
        if water.hot_c.is_some_and(|celsius| celsius < HOT_AT_LEAST_C) {
            let message =
                format!("a hot tap gives {HOT_AT_LEAST_C:.0} °C or more; 0 if there is none");
            faults.push(format!("{at}hot_c"), message);
        }
        water
    }
}

/// A number as it was typed, or as it was; missing where it never was.
fn number(
    range: NumberRange,
    given: &RawNumber,
    was: Option<f64>,
    at: &str,
    faults: &mut ValidationErrors,
) -> f64 {
    match was {
        Some(was) => range.check_or(given, was, at, faults),
        None => range.check(given, at, faults),
    }
}

/// A text as it was typed, or as it was.
fn text(
    field: &str,
    given: Option<&String>,
    was: Option<&str>,
    at: &str,
    faults: &mut ValidationErrors,
) -> String {
    let text = given.map(|text| text.trim()).or(was).unwrap_or_default();
    if text.is_empty() || text.chars().count() > LONGEST {
        faults.push(format!("{at}{field}"), format!("a word for it, up to {LONGEST} letters"));
    }
    text.into()
}
