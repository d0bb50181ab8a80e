//! Numbers as callers send them, and what is said of those that cannot be used.

use ironpeel_core::units::{Bound, Faults, Given};
use serde::Deserialize;

const MOISTURE: Bound = Bound::new("moisture_pct", "moisture", "%", 0.0, 30.0);
const PIECES: Bound = Bound::new("pieces", "number of pieces", "", 1.0, 10.0);

#[derive(Deserialize)]
struct Sent {
    #[serde(default)]
    value: Given,
}

fn sent(json: &str) -> Given {
    serde_json::from_str::<Sent>(json).expect("any JSON value can be given").value
}

#[test]
fn every_json_value_can_be_given() {
    for (json, given, shown) in [
        (r#"{"value": 14.1}"#, Given::Number(14.1), "14.1"),
        (r#"{"value": 14}"#, Given::Number(14.0), "14"),
        (r#"{"value": -3}"#, Given::Number(-3.0), "-3"),
        (r#"{"value": null}"#, Given::Missing, "nothing"),
        ("{}", Given::Missing, "nothing"),
        (r#"{"value": "damp"}"#, Given::Other("“damp”".into()), "“damp”"),
        (r#"{"value": true}"#, Given::Other("true".into()), "true"),
        (r#"{"value": [1, [2]]}"#, Given::Other("a list".into()), "a list"),
        (r#"{"value": {"a": {"b": 1}}}"#, Given::Other("an object".into()), "an object"),
    ] {
        let found = sent(json);
        assert_eq!(found, given, "{json}");
        assert_eq!(found.to_string(), shown, "{json}");
    }
}

#[test]
fn a_long_text_is_quoted_short() {
    let text = "x".repeat(5000);
    assert!(sent(&format!(r#"{{"value": "{text}"}}"#)).to_string().chars().count() < 50);
}

#[test]
fn a_fault_names_the_number_its_unit_its_range_and_what_was_given() {
    for (given, message) in [
        (Given::Number(31.0), "moisture must be from 0 to 30 %; 31 was given"),
        (Given::Number(f64::NAN), "moisture must be from 0 to 30 %; NaN was given"),
        (Given::Number(f64::NEG_INFINITY), "moisture must be from 0 to 30 %; -inf was given"),
        (Given::Missing, "moisture is missing; from 0 to 30 %"),
        (
            Given::Other("“damp”".into()),
            "moisture must be a number from 0 to 30 %; “damp” was given",
        ),
    ] {
        let mut faults = Faults::default();
        MOISTURE.check(&given, "flour.", &mut faults);
        assert_eq!(faults.0.len(), 1);
        assert_eq!(faults.0[0].field, "flour.moisture_pct");
        assert_eq!(faults.0[0].message, message);
        assert!(faults.or(()).is_err());
    }
}

#[test]
fn the_ends_of_a_range_belong_to_it() {
    let mut faults = Faults::default();
    for value in [0.0, -0.0, 14.0, 30.0] {
        assert_eq!(MOISTURE.check(&Given::Number(value), "", &mut faults), value);
    }
    assert_eq!(faults.or("good"), Ok("good"));
}

#[test]
fn what_may_be_left_out_is_still_checked_when_it_is_given() {
    let mut faults = Faults::default();
    assert_eq!(MOISTURE.check_or(&Given::Missing, 14.0, "", &mut faults), 14.0);
    assert_eq!(MOISTURE.check_or(&Given::Number(12.0), 14.0, "", &mut faults), 12.0);
    assert_eq!(MOISTURE.check_opt(&Given::Missing, "", &mut faults), None);
    assert_eq!(MOISTURE.check_opt(&Given::Number(12.0), "", &mut faults), Some(12.0));
    assert!(faults.0.is_empty());
    MOISTURE.check_opt(&Given::Number(99.0), "", &mut faults);
    PIECES.check_or(&Given::Number(0.5), 1.0, "", &mut faults);
    let told: Vec<_> = faults.0.iter().map(|fault| &*fault.message).collect();
    assert_eq!(
        told,
        [
            "moisture must be from 0 to 30 %; 99 was given",
            "number of pieces must be from 1 to 10; 0.5 was given"
        ]
    );
}
