//! The fault finder: its knowledge holds together, and its sum is that of the method notes.

use std::collections::BTreeMap;

use chrono::{TimeDelta, Utc};
use ironpeel_core::batch::observation;
use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::fault::{
    CaseVerdict, CauseOfFault, Comparison, ConfirmedCases, DiagnoseInput, Diagnosis,
    DiagnosisAnswer, Evidence, Fault, FaultCase, Feature, Gate, diagnose, knowledge,
};
use ironpeel_core::units::RawNumber;
use serde_json::{Value, json};
use uuid::Uuid;

fn asked(input: &Value) -> Diagnosis {
    let input: DiagnoseInput = serde_json::from_value(input.clone()).expect("an input");
    diagnose(&input.check().expect("it is known"), &Coefficients::default())
}

fn near(found: f64, wanted: f64) {
    assert!((found - wanted).abs() < 0.001, "{found} is not {wanted}");
}

fn probability(found: &Diagnosis, cause: &str) -> f64 {
    found.causes.iter().find(|one| one.cause == cause).expect(cause).probability
}

/// The batch of the method notes: a high damaged-starch lot, water added by feel, sliced in time.
fn smeared() -> Value {
    json!({"fault": "smearing", "gates": ["sponge", "ferment", "tin", "wheat"], "features": {
        "damaged_starch_pct": 10.9, "damaged_starch_d_pts": 2.6, "falling_number_s": 318,
        "amylase_added": 0, "water_over_plan_pts": 2.1, "water_late_pts": 1.6,
        "water_vs_floor_pts": -0.4, "ds_trap": 2, "arrival_d_pts": 11.4, "core_end_d_c": -0.2,
        "bake_loss_d_pts": -0.8, "bake_time_d_pct": 0, "core_slice_c": 36.5, "slice_age_h": 2.3,
        "cool_time_d_pct": 0, "blade_h": 22, "where_lane": 0, "where_new_lot": 1}})
}

#[test]
fn the_worked_example_comes_out_to_the_thousandth() {
    let found = asked(&smeared());
    for (cause, wanted) in [
        ("ds_trap_water", 0.814),
        ("bake_short", 0.075),
        ("ds_high", 0.049),
        ("water_high", 0.037),
        ("cooler_wet", 0.004),
        ("slice_warm", 0.003),
        ("amylase_high", 0.002),
        ("blade_dull", 0.002),
    ] {
        near(probability(&found, cause), wanted);
    }
    near(found.none_probability, 0.015);
    assert_eq!(found.answer, DiagnosisAnswer::VeryLikely);
    let trap = &found.causes[0];
    near(trap.prior, 0.1619);
    near(trap.evidence, 50_f64.ln());
    assert_eq!(trap.chain.as_deref(), Some("bake_short"), "one road");
    assert!(trap.then.as_deref().is_some_and(|then| then.starts_with("Blend the lot")));
}

#[test]
fn confirmed_cases_move_the_priors() {
    let mut input = smeared();
    // What the gates shut out is dropped before it counts.
    input["confirmed"] = json!({"ds_trap_water": 3, "slice_warm": 1, "rye_enzyme": 40});
    input["confirmed_none"] = json!(1);
    let found = asked(&input);
    let trap = &found.causes[0];
    near(trap.prior, 0.2908);
    near(trap.prior_sd, 0.107);
    near(trap.probability, 0.914);
    near(probability(&found, "bake_short"), 0.033);
    near(found.none_probability, 0.010);
}

#[test]
fn what_is_not_measured_is_asked_for() {
    let mut input = smeared();
    for missing in ["damaged_starch_pct", "damaged_starch_d_pts", "ds_trap"] {
        input["features"].as_object_mut().expect("features").remove(missing);
    }
    input["features"]["arrival_d_pts"] = json!(6.4);
    let found = asked(&input);
    assert!((probability(&found, "ds_trap_water") - 0.73).abs() < 0.005);
    assert!((probability(&found, "bake_short") - 0.12).abs() < 0.005);
    assert!((probability(&found, "water_high") - 0.09).abs() < 0.005);
    assert_eq!(found.answer, DiagnosisAnswer::Leading, "until damaged starch is measured");
    let decide: Vec<&str> = found.would_decide.iter().map(|one| &*one.feature).collect();
    assert_eq!(decide, ["damaged_starch_pct", "ds_trap", "damaged_starch_d_pts"]);
    assert!((found.would_decide[1].weight - 0.16).abs() < 0.005, "at the laboratory's effort");
    assert!((found.would_decide[2].weight - 0.10).abs() < 0.005);
}

#[test]
fn too_little_is_not_answered() {
    let gates = ["sponge", "ferment", "tin", "wheat"];
    let found = asked(&json!({"fault": "smearing", "gates": gates, "features": {"blade_h": 90}}));
    assert_eq!(found.answer, DiagnosisAnswer::TooLittle);
    let order: Vec<&str> = found.causes.iter().map(|one| &*one.cause).collect();
    let catalogue: Vec<&str> = fault("smearing").causes.iter().map(|one| &*one.cause).collect();
    assert_eq!(order, catalogue, "in the order of the catalogue");
    assert_eq!(found.would_decide.len(), 3);
    let one_kind = json!({"core_slice_c": 37.6, "blade_h": 22});
    let found = asked(&json!({"fault": "smearing", "gates": gates, "features": one_kind}));
    assert_eq!(found.answer, DiagnosisAnswer::OneFamily);
}

#[test]
fn what_is_not_known_is_said_at_its_place() {
    let input = json!({"fault": "gluey", "gates": ["sponge", "oven"], "features": {"luck": 1,
        "blade_h": "old"}, "confirmed": {"gremlins": 2}, "confirmed_none": -1});
    let input: DiagnoseInput = serde_json::from_value(input).expect("an input");
    let faults = input.check().expect_err("nothing of it is known").0;
    let fields: Vec<&str> = faults.iter().map(|one| &*one.field).collect();
    assert_eq!(
        fields,
        [
            "fault",
            "gates[1]",
            "features.blade_h",
            "features.luck",
            "confirmed.gremlins",
            "confirmed_none"
        ]
    );
}

fn fault(key: &str) -> &'static Fault {
    knowledge().fault(key).expect(key)
}

fn feature(key: &str) -> &'static Feature {
    knowledge().feature(key).expect(key)
}

#[test]
fn the_knowledge_holds_together() {
    assert_eq!((knowledge().faults.len(), knowledge().features.len()), (28, 107));
    let pairs: usize = knowledge().faults.iter().map(|fault| fault.causes.len()).sum();
    assert_eq!(pairs, 212);
    for feature in &knowledge().features {
        let known = observation(&feature.key).expect("it can be entered for a batch");
        for limit in [feature.low, feature.usual, feature.high].into_iter().flatten() {
            assert!(known.range.holds(limit), "{}: {limit}", feature.key);
        }
        assert!(feature.ramp >= 0.0 && [1.0, 2.0, 4.0].contains(&feature.effort));
    }
    for cause in &knowledge().causes {
        assert!(!cause.action.is_empty() && !cause.cost.is_empty(), "{}", cause.key);
        let used = |fault: &Fault| fault.causes.iter().any(|one| one.cause == cause.key);
        assert!(knowledge().faults.iter().any(used), "{} is of no fault", cause.key);
    }
    for fault in &knowledge().faults {
        for CauseOfFault { cause, weight, ask, evidence, why } in &fault.causes {
            assert!(knowledge().cause(cause).is_some(), "{}: {cause}", fault.key);
            assert!([1.0, 2.0, 4.0].contains(weight) && !why.is_empty());
            assert!(knowledge().feature(ask).is_some(), "{}: {cause}: {ask}", fault.key);
            assert!(!evidence.is_empty(), "{}: {cause}", fault.key);
            for Evidence { feature, ratio_true, ratio_false, .. } in evidence {
                assert!(knowledge().feature(feature).is_some(), "{cause}: {feature}");
                let within = |ratio: &f64| (1.0 / 8.0..=8.0).contains(ratio);
                assert!(within(ratio_true) && within(ratio_false), "{cause}: {feature}");
                assert!((ratio_true - 1.0) * (ratio_false - 1.0) < 0.0, "{cause}: {feature}");
            }
        }
    }
}

/// A value at which evidence fully holds, where it is to, or clearly does not.
fn value(evidence: &Evidence, holds: bool) -> f64 {
    let Feature { ramp, .. } = feature(&evidence.feature);
    let step = if *ramp > 0.0 { *ramp } else { 1.0 };
    let direction = match evidence.comparison {
        Comparison::Lt | Comparison::Le => -1.0,
        Comparison::Eq if holds => 0.0,
        Comparison::Gt | Comparison::Ge | Comparison::Eq => 1.0,
    };
    evidence.threshold + if holds { direction * step } else { -direction * step }
}

/// Every feature of a fault at its usual value.
fn usual(fault: &Fault) -> BTreeMap<String, RawNumber> {
    let all = fault.causes.iter().flat_map(|cause| &cause.evidence);
    all.filter_map(|evidence| {
        let usual = feature(&evidence.feature).usual?;
        Some((evidence.feature.clone(), RawNumber::Number(usual)))
    })
    .collect()
}

fn found(fault: &Fault, gates: &[&str], features: BTreeMap<String, RawNumber>) -> Diagnosis {
    let input = DiagnoseInput {
        fault: fault.key.clone(),
        gates: gates.iter().map(|gate| (*gate).to_owned()).collect(),
        features,
        ..DiagnoseInput::default()
    };
    diagnose(&input.check().expect("known"), &Coefficients::default())
}

const ALL_GATES: [&str; 12] = [
    "sponge", "straight", "frozen", "cold", "gf", "ferment", "sour", "rye", "whole", "wheat",
    "tin", "hearth",
];

#[test]
fn every_cause_comes_first_on_its_own_evidence() {
    assert_eq!(ALL_GATES.len(), Gate::ALL.len());
    for fault in &knowledge().faults {
        for cause in &fault.causes {
            let mut features = usual(fault);
            for evidence in &cause.evidence {
                let holds = evidence.ratio_true > 1.0;
                features
                    .insert(evidence.feature.clone(), RawNumber::Number(value(evidence, holds)));
            }
            let found = found(fault, &ALL_GATES, features);
            assert_eq!(found.causes[0].cause, cause.cause, "{}", fault.key);
        }
    }
}

#[test]
fn nothing_is_found_where_everything_is_usual() {
    for fault in &knowledge().faults {
        let gates: &[&str] =
            if fault.key == "frozen_rise" { &["frozen", "wheat"] } else { &ALL_GATES };
        let found = found(fault, gates, usual(fault));
        let most = found.causes.iter().map(|one| one.probability).fold(0.0, f64::max);
        assert!(found.none_probability > most, "{}: {most}", fault.key);
        assert_eq!(found.answer, DiagnosisAnswer::NoneFits, "{}", fault.key);
    }
}

#[test]
fn confirmed_cases_count_by_how_they_were_and_fade() {
    let now = Utc::now();
    let (one, two) = (Uuid::from_u128(1), Uuid::from_u128(2));
    let case = |batch: u128, cause: Option<&str>, by_change, days| FaultCase {
        batch: Uuid::from_u128(batch),
        line: one,
        cause: cause.map(str::to_owned),
        verdict: CaseVerdict::Confirmed,
        by_change,
        at: now - TimeDelta::days(days),
    };
    let house = Coefficients::default();
    let count = |cases: &[FaultCase], line| ConfirmedCases::of(cases, line, now, &house);
    let mut cases = vec![
        case(1, Some("bake_short"), true, 0),
        case(2, Some("bake_short"), false, 0),
        case(3, None, true, 365),
        // Two causes of one batch share it.
        case(4, Some("bake_short"), true, 0),
        case(4, Some("ds_high"), true, 0),
    ];
    let found = count(&cases, two);
    assert!((found.by_cause["bake_short"] - 2.0).abs() < 1e-9, "{found:?}");
    assert!((found.by_cause["ds_high"] - 0.5).abs() < 1e-9 && (found.none - 0.5).abs() < 1e-6);
    assert_eq!((found.batches, found.of_line), (4, false));
    // What was said last stands.
    cases.push(FaultCase {
        verdict: CaseVerdict::Rejected,
        ..case(1, Some("bake_short"), false, 0)
    });
    assert!((count(&cases, two).by_cause["bake_short"] - 1.0).abs() < 1e-9);
    // From ten on a line's own count alone.
    cases.extend((10..20).map(|batch| case(batch, Some("slice_warm"), true, 0)));
    assert!(count(&cases, one).of_line);
    assert!(!count(&cases, two).of_line && count(&cases, two).by_cause["slice_warm"] == 10.0);
}
