//! Tonight's dough by its readings, and a starter's upkeep.

use crate::support::bench::{bench, flour, plain, strong};
use crate::support::near;
use ironpeel_core::chain::{ReadOf, chain, fermentation_tracking, rise};
use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::ferment::{JarReading, Kinetics, RefreshmentInput};
use ironpeel_core::flour::Species;
use ironpeel_core::method::Process;
use proptest::prelude::*;
use serde_json::{Value, json};

fn feed(input: Value) -> ironpeel_core::ferment::Refreshment {
    let input: RefreshmentInput = serde_json::from_value(input).expect("the shape of the contract");
    input.compute(&Coefficients::default()).expect("inside its ranges")
}

#[test]
fn readings_move_the_estimate_and_narrow_it() {
    let flours = strong();
    let flours = [flour("Tarn Strong", Species::Wheat, 76.0, 100.0, &flours)];
    let bench = bench(plain(), Process::StraightBulk);
    let scenario = bench.scenario(&flours);
    let chain = chain(&scenario);
    let planned = rise(&scenario, &chain).expect("it has yeast");
    let jar: Vec<(f64, f64)> =
        planned.jar.iter().filter_map(|mark| Some((mark.at_h?, mark.rise_pct))).collect();
    let read = |slower: f64| -> Vec<JarReading> {
        jar.iter().map(|(at, pct)| JarReading { t_h: at * slower, rise_pct: *pct }).collect()
    };
    let by = |readings: &[JarReading]| {
        fermentation_tracking(&scenario, &chain, ReadOf::Jar, readings).expect("it has yeast")
    };
    let nothing = by(&[]);
    near(nothing.rate.rate, 1.0, 1e-3);
    near(nothing.rate.sd, 0.25, 1e-6);
    let as_planned = by(&read(1.0));
    near(as_planned.rate.rate, 1.0, 0.01);
    assert!(as_planned.rate.sd < nothing.rate.sd / 2.0);
    let slow = by(&read(1.2));
    assert!(slow.rate.rate < 0.95, "{}", slow.rate.rate);
    assert!(slow.end_rise_pct < as_planned.end_rise_pct);
    let mark = slow.marks[0];
    assert!(mark.early_h < mark.at_h && mark.at_h < mark.late_h);
    let bulk =
        fermentation_tracking(&scenario, &chain, ReadOf::Bulk, &read(1.0)).expect("it has yeast");
    assert!((bulk.rate.rate - as_planned.rate.rate).abs() > 1e-3, "a jar is not the bulk");
}

#[test]
fn a_starter_is_found_for_its_hour() {
    for hours in [6.0, 8.0, 10.0, 12.0, 14.0] {
        let fed = feed(json!({"ambient_c": 22, "grams": 300, "ripe_in_h": hours}));
        assert!(fed.reachable, "{hours} {fed:?}");
        near(fed.ripe_h.expect("ripe"), hours, 0.01);
        near(fed.starter_g + fed.flour_g + fed.water_g, 300.0, 1e-9);
        near(fed.hydration_pct, 100.0, 1e-9);
        assert!(fed.tired_h > fed.ripe_h);
    }
    let late = feed(json!({"ambient_c": 30, "grams": 300, "ripe_in_h": 48}));
    assert!(!late.reachable, "no feed lasts two days that warm");
    let stiff = feed(json!({"ambient_c": 22, "grams": 300, "flour_parts": 2, "water_parts": 1}));
    near(stiff.hydration_pct, 100.0 * 1.5 / 2.5, 1e-9);
    let asked = json!({"ambient_c": 22, "grams": 300, "flour_parts": 2, "feed_hydration_pct": 50});
    assert_eq!(feed(asked), stiff);
}

#[test]
fn a_feed_out_of_range_is_refused_in_words() {
    let input = json!({"ambient_c": 90, "grams": 1, "ripe_in_h": 0, "activity": "very"});
    let input: RefreshmentInput = serde_json::from_value(input).expect("the shape of the contract");
    let faults = input.compute(&Coefficients::default()).expect_err("out of range");
    let fields: Vec<&str> = faults.0.iter().map(|fault| fault.field.as_str()).collect();
    assert_eq!(fields, ["ambient_c", "activity", "grams", "ripe_in_h"]);
    assert!(faults.0[0].message.contains("where it stands must be from 0 to 40 °C"));
    let twice = json!({"ambient_c": 22, "grams": 300, "water_parts": 1, "feed_hydration_pct": 50});
    let twice: RefreshmentInput = serde_json::from_value(twice).expect("the shape of the contract");
    let faults = twice.compute(&Coefficients::default()).expect_err("water is given twice");
    assert_eq!(faults.0[0].field, "water_parts");
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(32))]

    #[test]
    fn more_flour_and_a_cooler_place_are_later(
        parts in 0.5..8.0f64, more in 1.1..2.0f64, warm in 18.0..28.0f64, cooler in 1.0..6.0f64,
    ) {
        let at = |parts: f64, c: f64| {
            feed(json!({"ambient_c": c, "grams": 200, "flour_parts": parts})).ripe_h.expect("ripe")
        };
        prop_assert!(at(parts * more, warm) > at(parts, warm));
        prop_assert!(at(parts, warm - cooler) > at(parts, warm));
    }
}

#[test]
fn any_speed_is_found_from_enough_readings() {
    use ironpeel_core::ferment::{FermentingDough, Phase, ferment, fit_rate};
    let dough = FermentingDough {
        yeast_idy_pct: 0.9,
        sour_pct: 0.0,
        sour_activity: 1.0,
        salt_pct: 2.0,
        sugar_pct: 3.0,
        hydration_pct: 65.0,
        damaged_starch_pct: 8.0,
        falling_number_s: 310.0,
        start_c: 25.0,
        mass_kg: 0.1,
        retention: 0.85,
        rate: 1.0,
        lag_h: 0.25,
        rise_limit_pct: None,
        kinetics: Kinetics::default(),
    };
    let phases = [Phase::rest(5.0, 24.0)];
    for true_rate in [0.5, 0.7, 0.9, 1.1, 1.4, 1.8] {
        let curve = ferment(&FermentingDough { rate: true_rate, ..dough }, &phases);
        let read: Vec<JarReading> = (1..=12)
            .map(|quarter| f64::from(quarter) * 0.25)
            .map(|t_h| JarReading { t_h, rise_pct: curve.rise_at(t_h) })
            .collect();
        let found = fit_rate(&dough, &phases, &read, &Coefficients::default());
        near(found.rate, true_rate, 0.02);
        assert!(found.sd < 0.05, "{true_rate}: ± {}", found.sd);
        let fewer = fit_rate(&dough, &phases, &read[..2], &Coefficients::default());
        assert!(fewer.sd > found.sd, "more readings say more");
    }
}
