//! What a dough's own plan is evidence of, before anything happens.

use crate::support::bench::{Bench, bench, flour, plain, readings, sponge_bench, strong};
use ironpeel_core::batch::observation;
use ironpeel_core::chain::{chain, plan_evidence};
use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::fault::{PlanEvidence, drifting, knowledge};
use ironpeel_core::flour::{Property, Readings, Species};
use ironpeel_core::method::Process;
use serde_json::{Value, json};
use std::collections::BTreeMap;

fn of(bench: &Bench, parts: &[(&str, Species, f64, &Readings)]) -> PlanEvidence {
    let flours: Vec<_> = parts
        .iter()
        .map(|(name, species, share, readings)| flour(name, *species, 76.0, *share, readings))
        .collect();
    let scenario = bench.scenario(&flours);
    plan_evidence(&scenario, &chain(&scenario))
}

fn wheat(draft: Value, process: Process) -> PlanEvidence {
    of(&bench(draft, process), &[("Tarn Strong", Species::Wheat, 100.0, &strong())])
}

#[test]
fn a_plain_dough_says_what_it_is_and_lacks() {
    let found = wheat(plain(), Process::NoTime);
    for (key, wanted) in [
        ("water_vs_floor_pts", 0.0),
        ("osmotic_load", 1.0),
        ("ice_capped", 0.0),
        ("amylase_added", 0.0),
        ("softener_on", 0.0),
        ("bean_flour", 0.0),
        ("preserver_pct", 0.0),
        ("binder_pct", 0.0),
    ] {
        assert_eq!(found.figures.get(key), Some(&wanted), "{key}");
    }
    assert!(found.no_time && !found.rye);
    assert!(
        !found.figures.contains_key("rye_fn_s") && !found.figures.contains_key("sour_share_pct")
    );
    assert!(found.figures["sugar_left_pct"] > 0.0 && found.figures["over_strength_pts"] < 0.0);
    assert!(found.flour_c.is_some() && found.room_c.is_some() && found.sponge_c.is_none());
}

#[test]
fn what_is_put_in_is_told_and_an_ingredient_of_the_plants_own_leaves_open_what_it_may_be() {
    let with = |more: Value| {
        let mut draft = plain();
        draft["lines"].as_array_mut().expect("lines").push(more);
        wheat(draft, Process::StraightBulk).figures
    };
    let malt = with(json!({"ingredient": "malt_flour", "pct": 0.3}));
    assert_eq!(malt["amylase_added"], 1.0);
    assert_eq!(with(json!({"ingredient": "butter", "pct": 2}))["softener_on"], 1.0);
    assert_eq!(with(json!({"ingredient": "soy_flour", "pct": 0.5}))["bean_flour"], 1.0);
    assert_eq!(with(json!({"ingredient": "psyllium", "pct": 3}))["binder_pct"], 3.0);
    let sweet = with(json!({"ingredient": "sugar", "pct": 15}));
    assert!((sweet["osmotic_load"] - 0.6).abs() < 1e-9, "{}", sweet["osmotic_load"]);
    let wet = |pct: f64| {
        let mut bench = bench(plain(), Process::StraightBulk);
        bench.formula.hydration_pct = Some(pct);
        of(&bench, &[("Tarn Strong", Species::Wheat, 100.0, &strong())]).figures
    };
    let apart = wet(72.0)["over_strength_pts"] - wet(62.0)["over_strength_pts"];
    assert!((apart - 10.0).abs() < 1e-6, "{apart}");
    let by_hand = wet(72.0)["water_vs_floor_pts"] - wet(62.0)["water_vs_floor_pts"];
    assert!((by_hand - 10.0).abs() < 1e-6, "{by_hand}");
}

#[test]
fn a_rye_and_a_sponge_say_what_is_theirs() {
    let rye = readings(&[
        (Property::Moisture, 14.0),
        (Property::Ash, 1.2),
        (Property::FallingNumber, 142.0),
    ]);
    let mut draft = plain();
    draft["flours"] =
        json!([{"name": "Kesh Rye", "share_pct": 60}, {"name": "Tarn Strong", "share_pct": 40}]);
    draft["parts"] =
        json!([{"kind": "starter", "flour": "Kesh Rye", "flour_pct": 25, "water_pct": 25}]);
    let strong = strong();
    let found = of(
        &bench(draft, Process::StraightBulk),
        &[("Kesh Rye", Species::Rye, 60.0, &rye), ("Tarn Strong", Species::Wheat, 40.0, &strong)],
    );
    assert_eq!((found.figures["rye_fn_s"], found.figures["sour_share_pct"]), (142.0, 25.0));
    assert!(found.rye);
    let sponge = of(&sponge_bench(), &[("Tarn Strong", Species::Wheat, 100.0, &strong)]);
    assert!(sponge.sponge_c.is_some_and(|target| (20.0..30.0).contains(&target)));
}

#[test]
fn what_the_plan_sets_is_marked_as_such_and_never_drifts() {
    let strong = strong();
    let found = of(&sponge_bench(), &[("Tarn Strong", Species::Wheat, 100.0, &strong)]);
    for key in found.figures.keys() {
        let feature = knowledge().feature(key).unwrap_or_else(|| panic!("{key} is no feature"));
        assert!(feature.set_by_plan && observation(key).is_some(), "{key}");
    }
    let drift = |key: &str, value: f64| {
        let batches = vec![BTreeMap::from([(key.to_owned(), value)]); 8];
        drifting(&batches, &Coefficients::default()).len()
    };
    assert_eq!(drift("sour_share_pct", 60.0), 0);
    assert_eq!(drift("floor_time_d_min", 60.0), 1, "what is held against the plan does");
}
