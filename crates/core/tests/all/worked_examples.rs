//! The worked examples of the method notes, as tables.

use ironpeel_core::flour::{Moisture, MoistureBasisInput, absorption_at_moisture};
use ironpeel_core::heat::{DoughTemperatureInput, RemedyMeans};
use serde_json::json;

#[track_caller]
fn near(found: f64, wanted: f64, within: f64) {
    assert!((found - wanted).abs() <= within, "{found} is not within {within} of {wanted}");
}

#[test]
fn moisture_basis() {
    for (value, from, to, wanted, within) in
        [(13.5, 0.0, 14.0, 11.61, 0.005), (0.62, 14.0, 0.0, 0.7209, 0.000_05)]
    {
        let input = MoistureBasisInput {
            value_pct: f64::into(value),
            from_moisture_pct: f64::into(from),
            to_moisture_pct: f64::into(to),
        };
        near(input.compute().expect("in range").value_pct, wanted, within);
    }
}

#[test]
fn absorption_moves_as_added_water() {
    for (moisture, wanted) in [(15.2, 59.74), (12.4, 65.01)] {
        let own = Moisture::new(moisture).expect("in range");
        near(absorption_at_moisture(62.0, Moisture::FOURTEEN, own), wanted, 0.005);
    }
}

fn straight_dough(mixing: f64) -> serde_json::Value {
    json!({
        "parts": [
            {"name": "flour", "kg": 100, "temperature_c": 24, "specific_heat": 1.833},
            {"name": "salt and sugar", "kg": 4, "temperature_c": 22, "specific_heat": 1.3}
        ],
        "water_kg": 61, "tap_c": 18, "target_c": 26, "mixing_kj_per_kg": mixing,
        "flour_wetted_kg": 100
    })
}

fn solve(input: &serde_json::Value) -> ironpeel_core::heat::HeatSolution {
    let input: DoughTemperatureInput =
        serde_json::from_value(input.clone()).expect("the shape of the contract");
    input.compute().expect("in range")
}

#[test]
fn gentle_mixing_wants_chilled_water() {
    let answer = solve(&straight_dough(12.0));
    near(answer.water_c, 13.85, 0.005);
    assert_eq!((answer.ice_kg, answer.dough_c, answer.reachable), (0.0, 26.0, true));
}

#[test]
fn intensive_mixing_wants_ice() {
    let answer = solve(&straight_dough(36.0));
    near(answer.ice_kg, 12.26, 0.005);
    near(answer.water_kg + answer.ice_kg, 61.0, 1e-9);
    assert_eq!((answer.water_c, answer.reachable), (18.0, true));
}

#[test]
fn a_warm_sponge_wants_ice() {
    let answer = solve(&json!({
        "parts": [
            {"name": "sponge", "kg": 114, "temperature_c": 29.5, "specific_heat": 2.8},
            {"name": "flour", "kg": 30, "temperature_c": 24, "specific_heat": 1.833},
            {"name": "other", "kg": 12, "temperature_c": 22, "specific_heat": 1.6}
        ],
        "water_kg": 20, "tap_c": 16, "target_c": 26.5, "mixing_kj_per_kg": 22,
        "flour_wetted_kg": 30
    }));
    near(answer.ice_kg, 10.42, 0.005);
}

#[test]
fn more_ice_than_the_cap_says_what_the_dough_will_have_and_what_would_help() {
    let mut input = straight_dough(36.0);
    input["max_ice_pct"] = json!(10);
    let answer = solve(&input);
    assert!(!answer.reachable);
    near(answer.ice_kg, 6.1, 1e-9);
    assert!(answer.dough_c > 26.0);
    let named: Vec<_> = answer.remedies.iter().map(|remedy| remedy.means).collect();
    assert_eq!(named, [RemedyMeans::Flour, RemedyMeans::Mixing, RemedyMeans::Jacket]);
}

#[test]
fn a_target_no_water_can_reach_is_answered_with_the_nearest() {
    let mut input = straight_dough(0.0);
    input["target_c"] = json!(60);
    let answer = solve(&input);
    assert!(!answer.reachable);
    assert_eq!(answer.water_c, 60.0);
    assert!(answer.dough_c < 60.0);
}

#[test]
fn tap_water_colder_than_wanted_is_warmed_not_iced() {
    let mut input = straight_dough(18.0);
    input["tap_c"] = json!(0.5);
    input["chilled_min_c"] = json!(12);
    let answer = solve(&input);
    assert!(answer.reachable);
    assert_eq!(answer.ice_kg, 0.0);
    assert!(answer.water_c > 0.5 && answer.water_c < 12.0);
}

#[test]
fn every_fault_is_named_with_unit_range_and_what_was_given() {
    let input: DoughTemperatureInput = serde_json::from_value(json!({
        "parts": [{"name": "flour", "kg": -3, "temperature_c": "warm", "specific_heat": 1.8}],
        "tap_c": 18, "target_c": 26, "mixing_kj_per_kg": 12, "flour_wetted_kg": 100, "ice_c": 4
    }))
    .expect("the shape of the contract");
    let faults = input.compute().expect_err("four faults").0;
    let told: Vec<_> = faults.iter().map(|fault| (&*fault.field, &*fault.message)).collect();
    assert_eq!(
        told,
        [
            ("parts[0].kg", "mass must be from 0 to 100000 kg; -3 was given"),
            (
                "parts[0].temperature_c",
                "temperature must be a number from -40 to 150 °C; “warm” was given"
            ),
            ("water_kg", "water is missing; from 0 to 100000 kg"),
            ("ice_c", "ice must be from -60 to 0 °C; 4 was given"),
        ]
    );
}

#[test]
fn an_empty_mixer_is_refused() {
    let input: DoughTemperatureInput = serde_json::from_value(json!({
        "parts": [], "water_kg": 0, "tap_c": 18, "target_c": 26, "mixing_kj_per_kg": 12,
        "flour_wetted_kg": 0
    }))
    .expect("the shape of the contract");
    assert_eq!(input.compute().expect_err("nothing to mix").0[0].field, "parts");
}
