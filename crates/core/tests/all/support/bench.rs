//! A small bench with flours and doughs to put on it.

use ironpeel_core::chain::{RunSettings, Scenario, ScenarioFlour, ScenarioFormula, ScenarioLine};
use ironpeel_core::dough::{Amount, Losses};
use ironpeel_core::flour::{MoistureBasis, Property, Reading, Readings, Species};
use ironpeel_core::heat::WaterSources;
use ironpeel_core::method::{Equipment, Method, Mixer, Process, Speed, Stage, StageKind};
use ironpeel_core::plant::PlantParameters;
use serde_json::{Value, json};

use super::formula;

/// A line with everything.
const SOURCES: WaterSources = WaterSources {
    chilled_c: Some(2.0),
    refrigerator_c: None,
    hot_c: Some(60.0),
    max_ice_pct: 60.0,
};

pub fn readings(figures: &[(Property, f64)]) -> Readings {
    let reading = |(property, value): &(Property, f64)| {
        let basis = match property {
            Property::Ash => Some(MoistureBasis::DryMatter),
            Property::Protein | Property::Absorption => Some(MoistureBasis::Fourteen),
            Property::DamagedStarch => Some(MoistureBasis::AsIs),
            _ => None,
        };
        Reading { property: *property, value: *value, basis, method: None, censored: None }
    };
    Readings(figures.iter().map(reading).collect())
}

pub fn strong() -> Readings {
    readings(&[
        (Property::Moisture, 14.1),
        (Property::Protein, 12.9),
        (Property::DamagedStarch, 8.2),
        (Property::Ash, 0.6),
        (Property::Absorption, 62.0),
        (Property::W, 310.0),
    ])
}

pub fn whole() -> Readings {
    readings(&[
        (Property::Moisture, 13.4),
        (Property::Protein, 13.6),
        (Property::DamagedStarch, 7.2),
        (Property::Ash, 1.6),
        (Property::W, 190.0),
    ])
}

pub fn flour<'a>(
    name: &'a str,
    species: Species,
    extraction: f64,
    share: f64,
    readings: &'a Readings,
) -> ScenarioFlour<'a> {
    ScenarioFlour {
        name,
        species,
        extraction_pct: Some(extraction),
        readings,
        limits: &[],
        age_days: Some(6.0),
        share_pct: share,
        price_per_kg: Some(0.6),
        allergens: None,
    }
}

/// What a bench has besides its mixer.
pub const EQUIPMENT: Equipment = Equipment {
    turn_min: 3.0,
    troughs: 4,
    trough_kg: 20.0,
    trough_m2: 0.2,
    divider_per_min: 4.0,
    proofer_pieces: 80.0,
    oven_pieces: 40.0,
};

#[derive(Clone)]
pub struct Bench {
    pub formula: ScenarioFormula,
    pub method: Method,
    pub line: ScenarioLine,
    pub plant: PlantParameters,
}

pub fn stage(kind: StageKind, minutes: f64) -> Stage {
    Stage { speed: Some(Speed::Slow), ..Stage::new(kind, format!("{kind:?}"), minutes) }
}

pub fn bench(draft: Value, process: Process) -> Bench {
    Bench {
        formula: ScenarioFormula {
            formula: formula(draft),
            style_points: 0.0,
            piece_kg: 0.5,
            losses: Losses::house(),
            hydration_pct: None,
            batch_kg: None,
        },
        method: Method {
            process,
            target_c: 25.0,
            sponge_c: None,
            machine_divided: false,
            stages: vec![
                stage(StageKind::Mix, 8.0),
                stage(StageKind::Rest, 120.0),
                stage(StageKind::Proof, 60.0),
                stage(StageKind::Bake, 30.0),
            ],
        },
        line: ScenarioLine {
            mixer: Mixer {
                name: "bench".into(),
                kind: "spiral".into(),
                min_kg: 1.0,
                max_kg: 20.0,
                slow_kj_per_kg_min: 0.9,
                fast_kj_per_kg_min: 2.0,
                jacket_kj_per_kg_min: None,
            },
            equipment: EQUIPMENT,
            division_kg: 0.001,
            tap_c: 14.0,
            flour_c: 21.0,
            room_c: 22.0,
            water: SOURCES,
        },
        plant: PlantParameters::default(),
    }
}

impl Bench {
    pub fn scenario<'a>(&'a self, flours: &'a [ScenarioFlour<'a>]) -> Scenario<'a> {
        Scenario {
            flours,
            formula: &self.formula,
            method: &self.method,
            line: &self.line,
            plant: &self.plant,
            run_settings: RunSettings {
                amount: Some(Amount::Dough { kg: 5.0 }),
                division_kg: None,
                hydration_pct: None,
                target_c: None,
                flour_c: None,
                room_c: None,
                tap_c: None,
                jacket: false,
                ingredients_c: &[],
                rate: None,
            },
            water_correction: None,
        }
    }
}

pub fn plain() -> Value {
    json!({"lines": [{"ingredient": "flour", "pct": 100}, {"ingredient": "instant_yeast", "pct": 0.8},
        {"ingredient": "salt", "pct": 2}]})
}

pub fn spelt_sour() -> Value {
    json!({
        "lines": [{"ingredient": "flour", "pct": 100}, {"ingredient": "salt", "pct": 2}],
        "flours": [{"name": "Rigg Spelt", "share_pct": 70}, {"name": "Tarn Strong", "share_pct": 30}],
        "parts": [{"kind": "starter", "flour": "Rigg Spelt", "flour_pct": 15, "water_pct": 15}]})
}

/// A tin loaf with nearly two thirds of its flour in a sponge.
pub fn sponge_dough() -> Value {
    json!({
        "lines": [{"ingredient": "flour", "pct": 100}, {"ingredient": "instant_yeast", "pct": 1.1},
            {"ingredient": "sugar", "pct": 4}, {"ingredient": "salt", "pct": 1.9}],
        "parts": [{"kind": "sponge", "flour_pct": 65, "water_pct": 39,
            "lines": [{"ingredient": "instant_yeast", "pct": 1.1}]}]})
}

/// It by its method: three and a half hours of sponge before the mixer.
pub fn sponge_bench() -> Bench {
    let at = |kind, minutes, temperature_c| Stage {
        temperature_c: Some(temperature_c),
        ..stage(kind, minutes)
    };
    let mut bench = bench(sponge_dough(), Process::SpongeDough);
    bench.method.stages = vec![
        at(StageKind::Rest, 210.0, 27.0),
        stage(StageKind::Mix, 9.0),
        at(StageKind::Rest, 15.0, 27.0),
        stage(StageKind::Divide, 12.0),
        at(StageKind::Proof, 60.0, 36.0),
        stage(StageKind::Bake, 24.0),
    ];
    bench
}
