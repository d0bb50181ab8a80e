//! Every number the computation rests on is declared once, and a plant may put its own in its place.

use std::collections::BTreeSet;

use ironpeel_core::coefficient::{Coefficient, Coefficients, Origin, OverrideInput};
use ironpeel_core::plant::{COEFFICIENTS, coefficient};
use ironpeel_core::units::ValidationErrors;
use serde_json::{Value, json};

fn all() -> impl Iterator<Item = &'static Coefficient> {
    COEFFICIENTS.iter().flat_map(|(_, of)| of.iter().copied())
}

#[test]
fn keys_and_names_are_each_ones_own() {
    let keys: BTreeSet<&str> = all().map(|one| one.key).collect();
    assert_eq!(keys.len(), all().count(), "a key stands for one number");
    let names: BTreeSet<&str> = all().map(|one| one.name).collect();
    let twice: Vec<&str> = names
        .iter()
        .copied()
        .filter(|name| all().filter(|one| one.name == *name).count() > 1)
        .collect();
    assert!(twice.is_empty(), "{twice:?}");
    for one in all() {
        assert_eq!(coefficient(one.key), Some(one));
        assert!(
            one.key.chars().all(|letter| letter.is_ascii_lowercase()
                || letter.is_ascii_digit()
                || letter == '_'),
            "{}",
            one.key
        );
    }
}

#[test]
fn bands_hold_their_value_and_limits_hold_the_band() {
    for one in all() {
        assert!(
            one.value.is_finite() && one.low <= one.value && one.value <= one.high,
            "{}",
            one.key
        );
        let (least, most) = one.limits();
        assert!(least <= one.low && one.high <= most, "{}: {least} to {most}", one.key);
        assert!(
            one.is_replaceable() || one.low == one.high || one.origin != Origin::House,
            "{}",
            one.key
        );
    }
    assert!(
        all().any(|one| one.origin == Origin::Physics)
            && all().any(|one| one.origin == Origin::Standard)
    );
}

fn check(input: Value) -> Result<Coefficients, Vec<(String, String)>> {
    let input: OverrideInput = serde_json::from_value(input).expect("the contract's shape");
    let mut faults = ValidationErrors::default();
    let own = input.check(coefficient, "coefficients[0].", &mut faults);
    let told = |faults: ValidationErrors| {
        faults.0.into_iter().map(|fault| (fault.field, fault.message)).collect()
    };
    faults.or(Coefficients(own.into_iter().collect())).map_err(told)
}

#[test]
fn an_own_value_needs_a_band_that_holds_it_and_a_reason() {
    let own =
        check(json!({"key": "no_time", "typical": -0.5, "reason": "slow arm"})).expect("good");
    let no_time = coefficient("no_time").expect("declared");
    assert_eq!(
        (own.band(no_time).low, own.band(no_time).high),
        (-2.0, 0.0),
        "the house's band where it holds"
    );
    assert_eq!(
        (own.effective(no_time).origin, &*own.effective(no_time).source),
        (Origin::Plant, "slow arm")
    );
    // What was queued or put on record before coefficients had keys.
    assert_eq!(check(json!({"rule": "no_time", "typical": -0.5, "reason": "slow arm"})), Ok(own));
    for (input, field, message) in [
        (
            json!({"key": "no_time", "typical": 3, "low": 0, "high": 1, "reason": "x"}),
            "typical",
            "does not lie between",
        ),
        (
            json!({"key": "aged", "typical": 0.7, "reason": "  "}),
            "reason",
            "why does the plant's own differ",
        ),
        (
            json!({"key": "aged", "typical": 900, "reason": "x"}),
            "typical",
            "must be from -50 to 100",
        ),
        (json!({"key": "gas_per_yeast", "typical": -1, "reason": "x"}), "typical", "must be from"),
        (json!({"key": "gas_per_yeast", "off": true, "reason": "x"}), "off", "cannot be left out"),
        (json!({"key": "melting_of_ice", "typical": 330, "reason": "x"}), "key", "is a constant"),
        (json!({"key": "magic", "reason": "x"}), "key", "there is no coefficient “magic”"),
    ] {
        let faults = check(input.clone()).expect_err("refused");
        assert!(
            faults
                .iter()
                .any(|(at, told)| *at == format!("coefficients[0].{field}")
                    && told.contains(message)),
            "{input}: {faults:?}"
        );
    }
}
