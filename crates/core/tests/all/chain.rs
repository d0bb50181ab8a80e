//! The chain as a whole: what moves when the lot changes, and where it stops.

use crate::support::bench::EQUIPMENT;
use ironpeel_core::chain::{
    Link, RunSettings, Scenario, ScenarioFlour, ScenarioFormula, ScenarioLine, chain, changes,
};
use ironpeel_core::dough::{Amount, Formula, Ingredient, LineInput, Losses};
use ironpeel_core::flour::{Readings, Row, Species, read_rows};
use ironpeel_core::heat::WaterSources;
use ironpeel_core::method::{Addition, Method, Mixer, Process, Speed, Stage, StageKind};
use ironpeel_core::plant::PlantParameters;
use proptest::prelude::*;

/// A line with everything.
const SOURCES: WaterSources = WaterSources {
    chilled_c: Some(2.0),
    refrigerator_c: None,
    hot_c: Some(60.0),
    max_ice_pct: 60.0,
};

fn lot(rows: &[(&str, &str, &str, &str)]) -> Readings {
    let rows: Vec<Row> = rows
        .iter()
        .map(|(property, value, unit, basis)| Row {
            property: (*property).into(),
            value: (*value).into(),
            unit: (*unit).into(),
            basis: (*basis).into(),
            method: String::new(),
        })
        .collect();
    let readings = read_rows(&rows, None).into_iter().map(|read| read.expect("good")).collect();
    Readings(readings)
}

fn wheat(readings: &Readings, age_days: Option<f64>) -> ScenarioFlour<'_> {
    ScenarioFlour {
        name: "Tarn Strong",
        species: Species::Wheat,
        extraction_pct: Some(76.0),
        readings,
        limits: &[],
        age_days,
        share_pct: 100.0,
        price_per_kg: Some(0.5),
        allergens: None,
    }
}

/// Everything a hand borrows but its flours.
struct Plant {
    formula: ScenarioFormula,
    method: Method,
    line: ScenarioLine,
    parameters: PlantParameters,
}

fn plant() -> Plant {
    Plant {
        formula: roll(),
        method: method(),
        line: line(),
        parameters: PlantParameters::default(),
    }
}

impl Plant {
    fn scenario<'a>(
        &'a self,
        flours: &'a [ScenarioFlour<'a>],
        run_settings: RunSettings<'static>,
    ) -> Scenario<'a> {
        Scenario {
            flours,
            formula: &self.formula,
            method: &self.method,
            line: &self.line,
            plant: &self.parameters,
            run_settings,
            water_correction: None,
        }
    }
}

fn roll() -> ScenarioFormula {
    let line = |ingredient, pct: f64| LineInput { ingredient, pct: pct.into() };
    let formula = Formula::new(&[
        line(Ingredient::Flour, 100.0),
        line(Ingredient::InstantYeast, 1.6),
        line(Ingredient::Sugar, 4.0),
        line(Ingredient::Fat, 3.0),
        line(Ingredient::Salt, 1.9),
    ])
    .expect("makes a dough");
    ScenarioFormula {
        formula,
        style_points: 0.0,
        piece_kg: 0.060,
        losses: Losses::house(),
        hydration_pct: None,
        batch_kg: None,
    }
}

fn method() -> Method {
    let mix = |label: &str, minutes, speed, adds: &[Ingredient]| Stage {
        speed: Some(speed),
        adds: adds.iter().copied().map(Addition::rest_of).collect(),
        ..Stage::new(StageKind::Mix, label, minutes)
    };
    Method {
        process: Process::NoTime,
        target_c: 27.0,
        sponge_c: None,
        machine_divided: true,
        stages: vec![
            mix("Pick-up", 2.0, Speed::Slow, &[]),
            mix("Development", 5.5, Speed::Fast, &[]),
            mix("Salt in", 2.5, Speed::Fast, &[Ingredient::Salt]),
        ],
    }
}

fn line() -> ScenarioLine {
    ScenarioLine {
        mixer: Mixer {
            name: "mixer 2".into(),
            kind: "spiral".into(),
            min_kg: 20.0,
            max_kg: 150.0,
            slow_kj_per_kg_min: 1.0,
            fast_kj_per_kg_min: 2.5,
            jacket_kj_per_kg_min: None,
        },
        equipment: EQUIPMENT,
        division_kg: 0.01,
        tap_c: 14.0,
        flour_c: 22.0,
        room_c: 24.0,
        water: SOURCES,
    }
}

const KNOBS: RunSettings = RunSettings {
    amount: Some(Amount::Pieces { pieces: 4000.0 }),
    division_kg: None,
    hydration_pct: None,
    target_c: None,
    flour_c: None,
    room_c: None,
    tap_c: None,
    jacket: false,
    ingredients_c: &[],
    rate: None,
};

const THIRSTY: [(&str, &str, &str, &str); 3] = [
    ("moisture", "13.2", "%", ""),
    ("absorption", "64.0", "%", "14 %"),
    ("W", "300", "10-4 J", ""),
];
const USUAL: [(&str, &str, &str, &str); 3] = [
    ("moisture", "14.1", "%", ""),
    ("absorption", "62.3", "%", "14 %"),
    ("W", "300", "10-4 J", ""),
];

#[test]
fn another_lot_moves_every_link_and_says_why() {
    let (usual, thirsty, plant) = (lot(&USUAL), lot(&THIRSTY), plant());
    let (usual, thirsty) = ([wheat(&usual, Some(6.0))], [wheat(&thirsty, Some(6.0))]);
    let scenario = plant.scenario(&usual, KNOBS);
    let other = Scenario { flours: &thirsty, ..scenario };
    let (before, after) = (chain(&scenario), chain(&other));
    let moved = changes((&scenario, &before), (&other, &after));

    let floor = moved.iter().find(|moved| moved.figure == "floor_pct").expect("water moved");
    assert_eq!(floor.link, Link::Water);
    let labels: Vec<_> = floor.because.iter().map(|because| because.reason.to_string()).collect();
    assert_eq!(labels, ["farinograph absorption on 14 %", "the lot's own moisture, 13.2 %"]);
    for figure in moved.iter().filter(|figure| figure.adds_up) {
        let told: f64 = figure.because.iter().map(|because| because.delta).sum();
        assert!((told - figure.delta).abs() < 0.03, "{figure:?}");
    }
    assert!(moved.iter().any(|moved| moved.figure == "flour_kg" && moved.delta < 0.0));
    assert!(changes((&scenario, &before), (&scenario, &before)).is_empty());
}

#[test]
fn the_sheet_holds_the_salt_back_and_still_sums_to_the_dough() {
    let (lot, plant) = (lot(&USUAL), plant());
    let flours = [wheat(&lot, None)];
    let scenario =
        plant.scenario(&flours, RunSettings { flour_c: Some(32.0), tap_c: Some(24.0), ..KNOBS });
    let chain = chain(&scenario);
    let sheet = chain.sheet.expect("a dough");
    let salt_step = sheet
        .steps
        .iter()
        .find(|step| step.takes.iter().any(|item| item.ingredient == Ingredient::Salt))
        .expect("salt goes in");
    assert_eq!(salt_step.label, "Salt in");
    assert_eq!(salt_step.mixing_done_pct, Some(75.0));
    let names: Vec<_> = sheet.steps[0].takes.iter().map(|item| &*item.name).collect();
    assert_eq!(names, ["water", "ice", "flour", "instant yeast", "sugar", "fat"]);
    let sum: f64 = sheet.steps.iter().flat_map(|step| &step.takes).map(|item| item.kg).sum();
    let wanted = chain.dough.expect("a dough").scaled.dough_kg;
    assert!((sum - sheet.dough_kg).abs() < 1e-9 && (sum - wanted).abs() <= 0.005);
}

#[test]
fn without_gluten_and_its_sheet_the_chain_stops_at_water_until_it_is_set_by_hand() {
    let (lot, plant) = (lot(&[("moisture", "14.1", "%", "")]), plant());
    let flours = [ScenarioFlour { species: Species::GlutenFree, ..wheat(&lot, None) }];
    let mut scenario = plant.scenario(&flours, KNOBS);
    let stopped = chain(&scenario);
    assert_eq!(stopped.error.expect("no base").link(), Link::Water);
    assert!(stopped.sheet.is_none());
    scenario.run_settings.hydration_pct = Some(61.0);
    let going = chain(&scenario);
    assert!(going.error.is_none());
    assert_eq!(going.water.expect("set by hand").dough_absorption_pct, 61.0);
}

#[test]
fn more_water_than_the_strength_carries_is_cautioned_not_refused() {
    let (lot, plant) = (lot(&USUAL), plant());
    let flours = [wheat(&lot, Some(1.0))];
    let scenario = plant.scenario(&flours, RunSettings { hydration_pct: Some(84.0), ..KNOBS });
    let water = chain(&scenario).water.expect("still a dough");
    let keys: Vec<_> = water.cautions.iter().map(ironpeel_core::water::Caution::key).collect();
    assert_eq!(keys, ["strength", "green"]);
    assert_eq!(water.ceiling_pct, Some(50.0 + 0.13 * 300.0 - 8.0));
}

fn run_settings() -> impl Strategy<Value = RunSettings<'static>> {
    let degrees = || prop::option::of(0.0..45.0);
    (
        0.05..2000.0,
        prop::option::of(prop::sample::select(vec![0.001, 0.01, 0.05, 0.5])),
        prop::option::of(30.0..110.0),
        prop::option::of(0.0..50.0),
        degrees(),
        degrees(),
        degrees(),
    )
        .prop_map(|(kg, division_kg, hydration_pct, target_c, flour_c, room_c, tap_c)| {
            RunSettings {
                jacket: false,
                ingredients_c: &[],
                rate: None,
                amount: Some(Amount::Dough { kg }),
                division_kg,
                hydration_pct,
                target_c,
                flour_c,
                room_c,
                tap_c,
            }
        })
}

proptest! {
    #[test]
    fn whatever_is_set_the_chain_holds_together(
        a in run_settings(), b in run_settings(), moisture in 8.0..16.0f64, absorption in 50.0..75.0f64,
    ) {
        let (moisture, absorption) = (format!("{moisture:.1}"), format!("{absorption:.1}"));
        let other = lot(&[
            ("moisture", &moisture, "%", ""),
            ("absorption", &absorption, "%", "14 %"),
        ]);
        let (usual, plant) = (lot(&USUAL), plant());
        let (usual, other) = ([wheat(&usual, Some(6.0))], [wheat(&other, Some(6.0))]);
        let before = plant.scenario(&usual, a);
        let after = Scenario { flours: &other, run_settings: b, ..before };
        let (was, is) = (chain(&before), chain(&after));

        for chain in [&was, &is] {
            let sheet = chain.sheet.as_ref().expect("a dough");
            let dough = chain.dough.as_ref().expect("a dough");
            let heat = chain.heat.as_ref().expect("a dough");
            let weighed: f64 = sheet.steps.iter().flat_map(|step| &step.takes).map(|item| item.kg).sum();
            prop_assert!((weighed - dough.scaled.dough_kg).abs() <= sheet.division_kg / 2.0 + 1e-6);
            prop_assert!((heat.answer.water_kg + heat.answer.ice_kg - dough.water_kg).abs() < 1e-6);
            prop_assert!(dough.scaled.dough_kg <= plant.line.mixer.max_kg * (1.0 + 1e-6));
            let goes_in = sheet.steps.iter().flat_map(|step| &step.takes).filter(|item| item.name != "ice");
            prop_assert_eq!(goes_in.count(), 6, "every ingredient goes in once");
        }
        for figure in changes((&before, &was), (&after, &is)) {
            prop_assert!((figure.after - figure.before - figure.delta).abs() < 1e-9);
            if figure.adds_up {
                let told: f64 = figure.because.iter().map(|because| because.delta).sum();
                prop_assert!((told - figure.delta).abs() < 0.05, "{:?}", figure);
            }
        }
    }
}
