//! The grammar of numbers against the cases that the browser's reader passes too.

use ironpeel_core::units::{DecimalMark, NumberError, parse_number};

#[derive(Debug, serde::Deserialize)]
struct Case {
    text: String,
    mark: Option<DecimalMark>,
    value: Option<f64>,
    error: Option<String>,
}

#[test]
fn every_case_reads_as_it_says() {
    let cases: Vec<Case> =
        serde_json::from_str(include_str!("vectors/numbers.json")).expect("cases");
    assert!(cases.len() > 50);
    for Case { text, mark, value, error } in cases {
        let word = |error: NumberError| match error {
            NumberError::Empty => "empty",
            NumberError::NotANumber(_) => "not_a_number",
            NumberError::BelowLimit(_) => "limit",
            NumberError::Range(_) => "range",
            NumberError::Ambiguous { .. } => "ambiguous",
        };
        let read = parse_number(&text, mark);
        assert_eq!(read.clone().ok(), value, "“{text}” with {mark:?}");
        assert_eq!(read.map_err(word).err(), error.as_deref(), "“{text}” with {mark:?}");
    }
}

#[test]
fn what_could_be_either_asks_with_both() {
    let message = parse_number("1,250", None).expect_err("it could be either").to_string();
    assert_eq!(message, "“1,250” can be 1.250 or 1250; write it as one of these");
}
