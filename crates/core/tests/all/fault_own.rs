//! A plant's own weights, thresholds, ratios and limits of the fault finder's knowledge.

use std::collections::{BTreeMap, BTreeSet};

use ironpeel_core::coefficient::{Coefficients, Override};
use ironpeel_core::fault::{
    DiagnoseInput, Diagnosis, DriftSide, LearnedRatios, diagnose, drifting, fault_coefficient,
    fault_coefficients, knowledge,
};
use ironpeel_core::plant::coefficient;
use ironpeel_core::units::Estimate;
use serde_json::json;

/// Whether a key is that of a weight, a threshold or a ratio.
fn is_of(key: &str, what: &str) -> bool {
    key.rsplit_once('.').is_some_and(|(_, last)| last == what)
}

fn own(key: &str, value: f64) -> Coefficients {
    assert!(coefficient(key).is_some(), "{key}");
    let value = Estimate::new(value, value, value);
    Coefficients(vec![Override { key: key.into(), off: false, value, reason: "seen here".into() }])
}

fn smearing(coefficients: &Coefficients) -> Diagnosis {
    let asked: DiagnoseInput = serde_json::from_value(json!({
        "fault": "smearing", "gates": ["sponge", "ferment", "tin", "wheat"],
        "features": {"core_slice_c": 48.0, "slice_age_h": 2.3, "blade_h": 22}
    }))
    .expect("an input");
    diagnose(&asked.check().expect("it is known"), coefficients)
}

fn of<T>(found: &Diagnosis, cause: &str, take: fn(&ironpeel_core::fault::CauseFound) -> T) -> T {
    take(found.causes.iter().find(|one| one.cause == cause).expect("a cause of it"))
}

#[test]
fn each_number_of_the_knowledge_has_a_key_of_its_own_and_a_band_about_it() {
    let mut keys = BTreeSet::new();
    for fault in &knowledge().faults {
        let found: Vec<_> =
            fault_coefficients(&fault.key).filter(|one| one.key.starts_with("fault.")).collect();
        let weights: Vec<f64> =
            found.iter().filter(|one| is_of(one.key, "weight")).map(|one| one.value).collect();
        assert_eq!(weights, fault.causes.iter().map(|one| one.weight).collect::<Vec<_>>());
        let ratios = found.iter().filter(|one| is_of(one.key, "true")).map(|one| one.value);
        let evidence = fault.causes.iter().flat_map(|cause| &cause.evidence);
        assert_eq!(
            ratios.collect::<Vec<_>>(),
            evidence.map(|one| one.ratio_true).collect::<Vec<_>>()
        );
        for one in found {
            assert!(keys.insert(one.key), "{} stands for two numbers", one.key);
            assert!(one.is_replaceable() && one.low <= one.value && one.value <= one.high);
            let (least, most) = one.limits();
            assert!(least <= one.low && one.high <= most, "{}: {least} to {most}", one.key);
            assert_eq!(fault_coefficient(one.key), Some(one));
        }
    }
}

#[test]
fn a_weight_moves_the_prior_and_a_ratio_what_a_reading_says() {
    let house = smearing(&Coefficients::default());
    let prior = |found: &Diagnosis| of(found, "slice_warm", |one| one.prior);
    let key = "fault.smearing.slice_warm.weight";
    let doubled = smearing(&own(key, 2.0 * fault_coefficient(key).expect("it is known").value));
    assert!(prior(&doubled) > prior(&house));
    assert_eq!(
        of(&doubled, "slice_warm", |one| one.evidence),
        of(&house, "slice_warm", |one| one.evidence)
    );

    let evidence = knowledge().fault("smearing").and_then(|fault| {
        fault.causes.iter().find(|one| one.cause == "slice_warm").map(|one| &one.evidence[0])
    });
    let evidence = evidence.expect("it has some");
    let key = fault_coefficients("smearing")
        .map(|one| one.key)
        .find(|key| key.starts_with("fault.smearing.slice_warm.") && is_of(key, "true"))
        .expect("it is listed");
    assert!(key.contains(&evidence.feature), "{key}");
    let said = |found: &Diagnosis| {
        let readings = of(found, "slice_warm", |one| one.readings.clone());
        let reading = readings.into_iter().find(|one| one.feature == evidence.feature);
        reading.expect("it was measured").log_ratio
    };
    assert!((said(&house) - evidence.ratio_true.ln()).abs() < 1e-9);
    assert!((said(&smearing(&own(key, 1.5))) - 1.5_f64.ln()).abs() < 1e-9);
    // A threshold above what was measured turns the reading round.
    let key = key.replace(".true", ".threshold");
    assert!(said(&smearing(&own(&key, 60.0))) < 0.0);
}

#[test]
fn a_number_of_one_fault_moves_no_other_and_learned_ratios_begin_at_it() {
    let fault = knowledge().fault("smearing").expect("it is known");
    let elsewhere = own("fault.gummy.bake_short.weight", 1.0);
    assert_eq!(&*fault.held(&elsewhere), fault);
    let late = BTreeMap::from([("arrival_d_pts".to_owned(), 9.0)]);
    let cases = vec![("bake_short", &late); 5];
    let learned = |coefficients: &Coefficients| {
        let found = LearnedRatios::of(fault, &cases, &[], coefficients);
        found.of_cause("bake_short", 0).map(|one| one.evidence.ratio_true)
    };
    let key = fault_coefficients("smearing")
        .map(|one| one.key)
        .find(|key| key.contains("bake_short.arrival_d_pts") && is_of(key, "true"))
        .expect("it is listed");
    assert_ne!(learned(&own(key, 2.0)), learned(&Coefficients::default()));
}

#[test]
fn a_limit_of_the_plants_own_moves_what_drifts() {
    let warm = vec![BTreeMap::from([("dough_c_d".to_owned(), 1.2)]); 8];
    let house = drifting(&warm, &Coefficients::default());
    assert_eq!((house.len(), house[0].side), (1, DriftSide::Above));
    assert_eq!(drifting(&warm, &own("fault_limit.dough_c_d.high", 3.0)), []);
}
