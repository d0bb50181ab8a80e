//! Lines as they are typed, and what their figures do to a run.

use crate::support::bench::{bench, plain};
use crate::support::near;
use ironpeel_core::chain::{LineDraft, ScenarioLine};
use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::method::{Method, Process, Stage, StageKind};
use ironpeel_core::schedule::{EachDough, Place, cadence};
use ironpeel_core::units::ValidationErrors;
use proptest::prelude::*;
use serde_json::{Value, json};

fn line() -> ScenarioLine {
    bench(plain(), Process::NoTime).line
}

fn over(draft: Value) -> (ScenarioLine, Vec<String>) {
    let draft: LineDraft = serde_json::from_value(draft).expect("the shape of the contract");
    let mut faults = ValidationErrors::default();
    let line = draft.over(Some(&line()), "", &mut faults);
    (
        line,
        faults.0.into_iter().map(|fault| format!("{}: {}", fault.field, fault.message)).collect(),
    )
}

#[test]
fn what_is_left_out_of_a_line_is_as_it_was() {
    let (same, faults) = over(json!({}));
    assert_eq!((same, faults), (line(), vec![]));
    let (changed, faults) = over(json!({"oven_pieces": 64, "troughs": 3.4}));
    assert_eq!(faults, Vec::<String>::new());
    assert_eq!((changed.equipment.oven_pieces, changed.equipment.troughs), (64.0, 3));
    assert_eq!(changed.mixer, line().mixer);
    let (named, _) = over(json!({"mixer_kind": " fork "}));
    assert_eq!((&*named.mixer.kind, &named.mixer.name), ("fork", &line().mixer.name));
}

#[test]
fn a_jacket_of_nothing_is_none() {
    let (with, _) = over(json!({"jacket_kj_per_kg_min": 0.8}));
    assert_eq!(with.mixer.jacket_kj_per_kg_min, Some(0.8));
    let draft: LineDraft =
        serde_json::from_value(json!({"jacket_kj_per_kg_min": 0})).expect("a line");
    let without = draft.over(Some(&with), "", &mut ValidationErrors::default());
    assert_eq!(without.mixer.jacket_kj_per_kg_min, None);
}

#[test]
fn what_no_line_has_is_refused_in_words() {
    for (draft, message) in [
        (
            json!({"oven_pieces": 0}),
            "oven_pieces: oven must be from 1 to 100000 pieces; 0 was given",
        ),
        (
            json!({"divider_per_min": "fast"}),
            "divider_per_min: divider must be a number from 0.1 to 1000 pieces/min; “fast” was given",
        ),
        (json!({"troughs": -1}), "troughs: troughs must be from 1 to 1000; -1 was given"),
        (json!({"mixer_name": "  "}), "mixer_name: a word for it, up to 80 letters"),
        (
            json!({"min_kg": 40, "max_kg": 30}),
            "max_kg: a mixer cannot hold less (30 kg) than it needs",
        ),
    ] {
        let (_, faults) = over(draft);
        assert_eq!(faults, [message]);
    }
}

fn no_time() -> Method {
    Method {
        process: Process::NoTime,
        target_c: 27.0,
        sponge_c: None,
        machine_divided: true,
        stages: vec![
            Stage::new(StageKind::Mix, "Mix", 12.0),
            Stage::new(StageKind::Divide, "Divide", 10.0),
            Stage::new(StageKind::Proof, "Proof", 55.0),
            Stage::new(StageKind::Bake, "Bake", 11.0),
        ],
    }
}

#[test]
fn what_a_line_has_its_water_from_is_said_and_nothing_is_none() {
    let (with, faults) = over(json!({"chilled_c": 3, "hot_c": 0, "max_ice_pct": 0}));
    assert!(faults.is_empty(), "{faults:?}");
    assert_eq!(
        (with.water.chilled_c, with.water.hot_c, with.water.max_ice_pct),
        (Some(3.0), None, 0.0)
    );
    assert_eq!(with.water.refrigerator_c, line().water.refrigerator_c, "left out: as it was");
    let (_, faults) = over(json!({"hot_c": 12}));
    assert!(faults.iter().any(|fault| fault.contains("hot_c")), "{faults:?}");
}

#[test]
fn a_no_time_dough_has_less_time_at_the_divider_and_needs_no_trough() {
    let each = EachDough { kg: 20.0, sponge_kg: 0.0, pieces: 80.0, piece_kg: 0.25 };
    let found = cadence(&no_time(), &line().equipment, each, &Coefficients::default());
    assert_eq!(found.divide_limit_min, Some(15.0));
    assert_eq!((found.troughs, found.floor_m2), (0, 0.0));
    // 80 pieces at four a minute; the proofer holds 80 for 55 minutes.
    assert_eq!((found.bottleneck, found.minutes), (Place::Proofer, 55.0));
    near(found.divide_min, 55.0, 1e-9);
    near(found.most_kg.expect("machine-divided"), 80.0 / 55.0 * 0.25 * 15.0, 1e-9);
    let by_hand = cadence(
        &Method { machine_divided: false, ..no_time() },
        &line().equipment,
        each,
        &Coefficients::default(),
    );
    assert_eq!((by_hand.divide_limit_min, by_hand.most_kg), (None, None));
}

#[test]
fn a_method_that_divides_nothing_has_no_pace_there() {
    let method = Method { stages: vec![Stage::new(StageKind::Mix, "Mix", 7.5)], ..no_time() };
    let each = EachDough { kg: 20.0, sponge_kg: 0.0, pieces: 80.0, piece_kg: 0.25 };
    let found = cadence(&method, &line().equipment, each, &Coefficients::default());
    assert_eq!((found.bottleneck, found.minutes), (Place::Mixer, 11.0), "7.5 and 3, to the minute");
    assert_eq!((found.divide_min, found.divider_per_min), (0.0, 0.0));
}

proptest! {
    #[test]
    fn more_of_a_place_is_never_slower(
        pieces in 10.0..2000.0f64, proofer in 10.0..5000.0f64, oven in 10.0..3000.0f64,
        divider in 1.0..200.0f64, more in 1.0..4.0f64,
    ) {
        let each = EachDough { kg: pieces * 0.25, sponge_kg: 0.0, pieces, piece_kg: 0.25 };
        let mut equipment = line().equipment;
        equipment.proofer_pieces = proofer;
        equipment.oven_pieces = oven;
        equipment.divider_per_min = divider;
        let before = cadence(&no_time(), &equipment, each, &Coefficients::default());
        for place in [Place::Divider, Place::Proofer, Place::Oven] {
            let mut wider = equipment;
            match place {
                Place::Divider => wider.divider_per_min *= more,
                Place::Proofer => wider.proofer_pieces *= more,
                _ => wider.oven_pieces *= more,
            }
            let after = cadence(&no_time(), &wider, each, &Coefficients::default());
            prop_assert!(after.minutes <= before.minutes);
            prop_assert!(after.divide_min <= before.divide_min + 1e-9);
        }
        let slowest = before.paces.iter().map(|pace| pace.minutes).fold(0.0, f64::max);
        prop_assert!((before.minutes - slowest.ceil().max(1.0)).abs() < 1e-9);
    }
}
