//! Ratios of evidence as a plant's own batches have them.

use std::collections::BTreeMap;

use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::fault::{
    CheckedDiagnosis, DiagnoseInput, Evidence, Fault, LearnedRatios, diagnose, knowledge,
};

type Features = BTreeMap<String, f64>;

fn smearing() -> &'static Fault {
    knowledge().fault("smearing").expect("it is known")
}

/// A late arrival speaks for a short bake: 4 to 1, and 0.33 to 1 where it was in time.
fn evidence() -> &'static Evidence {
    let causes = smearing().causes.iter();
    let short = causes.into_iter().find(|cause| cause.cause == "bake_short").expect("a cause");
    assert_eq!((&*short.evidence[0].feature, short.evidence[0].ratio_true), ("arrival_d_pts", 4.0));
    &short.evidence[0]
}

fn arrived(points: f64) -> Features {
    BTreeMap::from([("arrival_d_pts".to_owned(), points)])
}

fn learned(cases: &[Features], ordinary: &[Features]) -> LearnedRatios {
    let cases: Vec<(&str, &Features)> = cases.iter().map(|one| ("bake_short", one)).collect();
    let ordinary: Vec<&Features> = ordinary.iter().collect();
    LearnedRatios::of(smearing(), &cases, &ordinary, &Coefficients::default())
}

#[test]
fn shares_move_by_what_was_counted_from_five_cases_on() {
    let house = evidence();
    let q = (1.0 - house.ratio_false) / (house.ratio_true - house.ratio_false);
    let p = house.ratio_true * q;
    // Six cases, five of them late; a hundred ordinary batches, ten late, that count as fifty.
    let mut cases = vec![arrived(9.0); 5];
    cases.push(arrived(0.0));
    let ordinary: Vec<Features> =
        (0..100).map(|at| arrived(if at < 10 { 9.0 } else { 0.0 })).collect();
    let found = learned(&cases, &ordinary);
    let one = found.of_cause("bake_short", 0).expect("six are enough");
    assert_eq!(one.cases, 6);
    let with = (10.0 * p + 5.0) / 16.0;
    let without = (10.0 * q + 5.0) / 60.0;
    assert!((one.evidence.ratio_true - with / without).abs() < 1e-12, "{one:?}");
    assert!((one.evidence.ratio_false - (1.0 - with) / (1.0 - without)).abs() < 1e-12, "{one:?}");
    // Of another cause, and of what was not measured, nothing was learned.
    assert_eq!(found.of_cause("slice_warm", 0), None);
    assert_eq!(found.of_cause("bake_short", 1), None);
    assert_eq!(learned(&cases[..4], &ordinary).of_cause("bake_short", 0), None, "four are chance");
    // Without ordinary batches the house's stand for them.
    let alone = learned(&vec![arrived(9.0); 5], &[]);
    let ratio = alone.of_cause("bake_short", 0).expect("five").evidence.ratio_true;
    assert!((ratio - (10.0 * p + 5.0) / 15.0 / q).abs() < 1e-12, "{ratio}");
}

#[test]
fn a_learned_ratio_speaks_with_the_houses_beside_it() {
    let input: DiagnoseInput = serde_json::from_value(serde_json::json!({
        "fault": "smearing", "gates": ["sponge", "ferment", "tin", "wheat"],
        "features": {"arrival_d_pts": 9, "core_slice_c": 37.6, "blade_h": 22}}))
    .expect("an input");
    let house = input.check().expect("it is known");
    let plain = diagnose(&house, &Coefficients::default());
    // Here ordinary batches arrive late as well: it says nearly nothing.
    let learned = learned(&vec![arrived(9.0); 6], &vec![arrived(9.0); 50]);
    let own = CheckedDiagnosis { learned, ..house };
    let found = diagnose(&own, &Coefficients::default());
    let reading = |diagnosis: &ironpeel_core::fault::Diagnosis| {
        let cause = diagnosis.causes.iter().find(|one| one.cause == "bake_short").expect("there");
        let readings = cause.readings.iter();
        readings.into_iter().find(|one| one.feature == "arrival_d_pts").expect("read").clone()
    };
    let (before, after) = (reading(&plain), reading(&found));
    assert!(before.log_ratio > 1.3 && after.log_ratio.abs() < 0.4, "{before:?} {after:?}");
    assert_eq!(before.house, None);
    let beside = after.house.expect("the house's stand beside it");
    assert_eq!(beside.cases, 6);
    assert_eq!(Some(beside.true_pct), before.true_pct);
    assert_eq!(Some(beside.ordinary_pct), before.ordinary_pct);
}
