//! Numbers as callers send them, and what is said of those that cannot be used.

use ironpeel_core::units::{NumberRange, RawNumber, ValidationErrors};
use serde::Deserialize;

const MOISTURE: NumberRange = NumberRange::new("moisture_pct", "moisture", "%", 0.0, 30.0);
const PIECES: NumberRange = NumberRange::new("pieces", "number of pieces", "", 1.0, 10.0);

#[derive(Deserialize)]
struct Sent {
    #[serde(default)]
    value: RawNumber,
}

fn sent(json: &str) -> RawNumber {
    serde_json::from_str::<Sent>(json).expect("any JSON value can be given").value
}

#[test]
fn every_json_value_can_be_given() {
    for (json, given, shown) in [
        (r#"{"value": 14.1}"#, RawNumber::Number(14.1), "14.1"),
        (r#"{"value": 14}"#, RawNumber::Number(14.0), "14"),
        (r#"{"value": -3}"#, RawNumber::Number(-3.0), "-3"),
        (r#"{"value": null}"#, RawNumber::Missing, "nothing"),
        ("{}", RawNumber::Missing, "nothing"),
        (r#"{"value": "damp"}"#, RawNumber::Other("“damp”".into()), "“damp”"),
        (r#"{"value": true}"#, RawNumber::Other("true".into()), "true"),
        (r#"{"value": [1, [2]]}"#, RawNumber::Other("a list".into()), "a list"),
        (r#"{"value": {"a": {"b": 1}}}"#, RawNumber::Other("an object".into()), "an object"),
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
        (RawNumber::Number(31.0), "moisture must be from 0 to 30 %; 31 was given"),
        (RawNumber::Number(f64::NAN), "moisture must be from 0 to 30 %; NaN was given"),
        (RawNumber::Number(f64::NEG_INFINITY), "moisture must be from 0 to 30 %; -inf was given"),
        (RawNumber::Missing, "moisture is missing; from 0 to 30 %"),
        (
            RawNumber::Other("“damp”".into()),
            "moisture must be a number from 0 to 30 %; “damp” was given",
        ),
    ] {
        let mut faults = ValidationErrors::default();
        MOISTURE.check(&given, "flour.", &mut faults);
        assert_eq!(faults.0.len(), 1);
        assert_eq!(faults.0[0].field, "flour.moisture_pct");
        assert_eq!(faults.0[0].message, message);
        assert!(faults.or(()).is_err());
    }
}

#[test]
fn the_ends_of_a_range_belong_to_it() {
    let mut faults = ValidationErrors::default();
    for value in [0.0, -0.0, 14.0, 30.0] {
        assert_eq!(MOISTURE.check(&RawNumber::Number(value), "", &mut faults), value);
    }
    assert_eq!(faults.or("good"), Ok("good"));
}

#[test]
fn what_may_be_left_out_is_still_checked_when_it_is_given() {
    let mut faults = ValidationErrors::default();
    assert_eq!(MOISTURE.check_or(&RawNumber::Missing, 14.0, "", &mut faults), 14.0);
    assert_eq!(MOISTURE.check_or(&RawNumber::Number(12.0), 14.0, "", &mut faults), 12.0);
    assert_eq!(MOISTURE.check_opt(&RawNumber::Missing, "", &mut faults), None);
    assert_eq!(MOISTURE.check_opt(&RawNumber::Number(12.0), "", &mut faults), Some(12.0));
    assert!(faults.0.is_empty());
    MOISTURE.check_opt(&RawNumber::Number(99.0), "", &mut faults);
    PIECES.check_or(&RawNumber::Number(0.5), 1.0, "", &mut faults);
    let told: Vec<_> = faults.0.iter().map(|fault| &*fault.message).collect();
    assert_eq!(
        told,
        [
            "moisture must be from 0 to 30 %; 99 was given",
            "number of pieces must be from 1 to 10; 0.5 was given"
        ]
    );
}
