//! Blends, sieving and liquefaction: the worked example, and laws that hold for any flours.

use ironpeel_core::flour::{
    BlendAnswer, BlendInput, ConflictOf, LotInBlend, Mixture, Property, Reading, Readings,
    SiftAnswer, SiftInput, blend_price, blended_certificate, usual_basis,
};
use proptest::prelude::*;
use serde_json::{Value, json};

#[track_caller]
fn near(found: f64, wanted: f64, within: f64) {
    assert!((found - wanted).abs() <= within, "{found} is not within {within} of {wanted}");
}

fn flour(name: &str, price: f64, has: [f64; 6]) -> Value {
    let [moisture, protein, ash, damaged, w, falling] = has;
    json!({
        "name": name, "price_per_t": price, "moisture_pct": moisture, "protein_14_pct": protein,
        "ash_dm_pct": ash, "damaged_starch_pct": damaged, "w": w, "falling_number_s": falling,
    })
}

fn three() -> Value {
    let mut c = flour("C", 470.0, [12.9, 13.1, 1.66, 8.2, 180.0, 330.0]);
    c["max_share_pct"] = json!(40);
    json!([
        flour("A", 520.0, [14.2, 13.6, 0.62, 8.9, 340.0, 390.0]),
        flour("B", 430.0, [13.8, 11.2, 0.55, 7.0, 215.0, 310.0]),
        c
    ])
}

fn blend(flours: &Value, targets: &Value) -> BlendAnswer {
    let input = json!({"flours": flours, "targets": targets});
    let input: BlendInput = serde_json::from_value(input).expect("the contract's shape");
    input.compute().expect("in range")
}

#[test]
fn the_cheapest_blend_within_targets() {
    let targets = json!([
        {"property": "protein_14_pct", "min": 12.2}, {"property": "ash_dm_pct", "max": 0.80},
        {"property": "w", "min": 250}, {"property": "falling_number_s", "min": 280, "max": 350},
    ]);
    let answer = blend(&three(), &targets);
    assert!(answer.feasible && answer.conflicts.is_empty());
    for (share, wanted) in answer.shares.iter().zip([31.71, 55.67, 12.62]) {
        near(share.share_pct, wanted, 0.005);
    }
    near(answer.price_per_t, 463.59, 0.005);
    near(answer.blend.ash_dm_pct, 0.714, 0.0005);
    near(answer.blend.falling_number_s, 334.0, 0.5);
    near(answer.blend.w, 250.0, 1e-6);
}

#[test]
fn a_target_beyond_every_flour_says_what_can_be_had() {
    let answer = blend(&three(), &json!([{"property": "protein", "min": 14}]));
    assert!(!answer.feasible);
    let [conflict] = answer.conflicts.as_slice() else { panic!("{:?}", answer.conflicts) };
    assert_eq!((conflict.of.key(), conflict.wanted), ("protein_14_pct", 14.0));
    near(conflict.best_reachable, 13.6, 1e-6);
    // The nearest is all of the strongest.
    near(answer.shares[0].share_pct, 100.0, 1e-6);
}

#[test]
fn targets_that_exclude_each_other_are_both_named() {
    let targets = json!([
        {"property": "ash_dm_pct", "min": 1.0}, {"property": "w", "min": 300},
        {"property": "moisture_pct", "max": 15},
    ]);
    let answer = blend(&three(), &targets);
    let named: Vec<_> = answer.conflicts.iter().map(|conflict| conflict.of.key()).collect();
    assert_eq!(named, ["ash_dm_pct", "w"]);
    // Ash of 1.0 takes so much of C that W cannot stay; W of 300 leaves room for little of C.
    assert!(answer.conflicts[0].best_reachable < 1.0);
    assert!((180.0..300.0).contains(&answer.conflicts[1].best_reachable));
}

#[test]
fn falling_number_turns_the_right_way() {
    for (side, best) in [("min", 390.0), ("max", 310.0)] {
        let wanted = if side == "min" { 500.0 } else { 200.0 };
        let answer = blend(&three(), &json!([{"property": "falling_number_s", side: wanted}]));
        near(answer.conflicts[0].best_reachable, best, 1e-3);
    }
}

#[test]
fn shares_that_cannot_add_up_are_said() {
    let mut flours = json!([flour("A", 1.0, [14.0, 12.0, 0.6, 8.0, 250.0, 300.0])]);
    flours[0]["max_share_pct"] = json!(60);
    let answer = blend(&flours, &json!([]));
    assert!(!answer.feasible && answer.conflicts[0].of == ConflictOf::Shares);
    near(answer.conflicts[0].best_reachable, 60.0, 1e-9);
}

#[test]
fn a_blend_that_cannot_be_asked_for_says_why() {
    let mut bad = flour("", 1.0, [14.0, 12.0, 0.6, 8.0, 250.0, 300.0]);
    bad["min_share_pct"] = json!(50);
    bad["max_share_pct"] = json!(40);
    bad["w"] = json!("strong");
    let input = json!({"flours": [bad], "targets": [
        {"property": "joy", "min": 1}, {"property": "w"}, {"property": "w", "min": 3, "max": 2}]});
    let input: BlendInput = serde_json::from_value(input).expect("a shape");
    let faults = input.compute().expect_err("cannot be used").0;
    let fields: Vec<_> = faults.iter().map(|fault| fault.field.as_str()).collect();
    let wanted = [
        "flours[0].name",
        "flours[0].min_share_pct",
        "flours[0].w",
        "targets[0].property",
        "targets[1].min",
        "targets[2].min",
    ];
    assert_eq!(fields, wanted);
    assert!(serde_json::from_value::<BlendInput>(json!({})).expect("a shape").compute().is_err());
}

fn sift(input: Value) -> SiftAnswer {
    serde_json::from_value::<SiftInput>(input).expect("a shape").compute().expect("in range")
}

#[test]
fn sieving_takes_off_what_the_ash_says() {
    let removed = sift(json!({"ash_dm_pct": 1.62, "removed_pct": 14}));
    near(removed.ash_dm_pct, 0.940, 0.0005);
    near(removed.extraction_pct, 86.0, 1e-9);
    assert!(removed.low_pct < 0.94 && removed.high_pct > 0.94);
    let target = sift(json!({"ash_dm_pct": 1.62, "target_ash_dm_pct": 0.85}));
    near(target.removed_pct, 15.56, 0.005);
    assert_eq!(target.passes[0].mesh, 30);
}

#[test]
fn sieving_says_what_it_cannot_do() {
    let more = sift(json!({"ash_dm_pct": 0.6, "removed_pct": 40}));
    assert!(!more.feasible && more.ash_dm_pct == 0.0);
    near(more.removed_pct, 100.0 * 0.6 / 5.8, 1e-9);
    let up = sift(json!({"ash_dm_pct": 0.6, "target_ash_dm_pct": 0.9}));
    assert!(!up.feasible && up.removed_pct == 0.0 && up.ash_dm_pct == 0.6);
    for bad in [
        json!({"ash_dm_pct": 1.6}),
        json!({"ash_dm_pct": 1.6, "removed_pct": 1, "target_ash_dm_pct": 1}),
        json!({"ash_dm_pct": 6, "removed_pct": 1}),
    ] {
        let input: SiftInput = serde_json::from_value(bad).expect("a shape");
        assert!(input.compute().is_err());
    }
}

prop_compose! {
    fn any_flour()(
        price in 200.0..900.0f64, moisture in 10.0..16.0f64, protein in 8.0..16.0f64,
        ash in 0.4..2.0f64, damaged in 3.0..12.0f64, w in 80.0..400.0f64, falling in 100.0..450.0f64,
    ) -> (f64, [f64; 6]) {
        (price, [moisture, protein, ash, damaged, w, falling])
    }
}

proptest! {
    #[test]
    fn shares_sum_and_every_target_is_kept(
        flours in prop::collection::vec(any_flour(), 1..8),
        protein in 9.0..14.0f64, ash in 0.5..1.5f64, falling in 150.0..400.0f64,
    ) {
        let flours = flours.iter().map(|(price, has)| flour("f", *price, *has));
        let targets = json!([
            {"property": "protein_14_pct", "min": protein}, {"property": "ash_dm_pct", "max": ash},
            {"property": "falling_number_s", "min": falling},
        ]);
        let answer = blend(&flours.collect(), &targets);
        let total: f64 = answer.shares.iter().map(|share| share.share_pct).sum();
        prop_assert!((total - 100.0).abs() < 1e-6);
        prop_assert_eq!(answer.feasible, answer.conflicts.is_empty());
        let kept = answer.blend.protein_14_pct >= protein - 1e-4
            && answer.blend.ash_dm_pct <= ash + 1e-4
            && answer.blend.falling_number_s >= falling - 1e-2;
        prop_assert!(!answer.feasible || kept);
        for conflict in &answer.conflicts {
            prop_assert!((conflict.best_reachable - conflict.wanted).abs() > 1e-9);
        }
    }

    #[test]
    fn a_blend_lies_between_its_parts(
        one in any_flour(), other in any_flour(), share in 0.0..100.0f64,
    ) {
        let mixture = |(_, has): (f64, [f64; 6])| Mixture {
            moisture_pct: has[0], protein_14_pct: has[1], ash_dm_pct: has[2],
            damaged_starch_pct: has[3], w: has[4], falling_number_s: has[5],
        };
        let mixed = Mixture::of([(mixture(one), share), (mixture(other), 100.0 - share)]);
        let (low, high) = (one.1[5].min(other.1[5]), one.1[5].max(other.1[5]));
        prop_assert!((low - 1e-6..=high + 1e-6).contains(&mixed.falling_number_s));
        let weighed = (one.1[5] * share + other.1[5] * (100.0 - share)) / 100.0;
        // Enzymes outweigh: never above what the seconds themselves would average to, beyond what
        // the flours' different dry matter moves.
        prop_assert!(mixed.falling_number_s <= weighed + 0.07 * (high - low) + 1e-6);
    }

    #[test]
    fn sieving_there_and_back(ash in 0.7..2.0f64, removed in 0.0..12.0f64) {
        let after = sift(json!({"ash_dm_pct": ash, "removed_pct": removed}));
        prop_assume!(after.feasible && after.ash_dm_pct >= 0.1);
        let back = sift(json!({"ash_dm_pct": ash, "target_ash_dm_pct": after.ash_dm_pct}));
        prop_assert!((back.removed_pct - removed).abs() < 1e-6);
    }
}

#[test]
fn lots_in_a_blend_have_what_their_flours_other_lots_have_and_say_so() {
    let read = |figures: &[(Property, f64)]| {
        let of = |(property, value): &(Property, f64)| Reading {
            property: *property,
            value: *value,
            basis: usual_basis(*property),
            method: None,
            censored: None,
        };
        Readings(figures.iter().map(of).collect())
    };
    let all = [
        (Property::Moisture, 14.0),
        (Property::Protein, 12.0),
        (Property::Ash, 0.6),
        (Property::DamagedStarch, 8.0),
        (Property::W, 250.0),
        (Property::FallingNumber, 300.0),
        (Property::Absorption, 60.0),
    ];
    let stated = read(&all);
    let bare = read(&all[..4]);
    let others = [read(&[(Property::W, 200.0)]), read(&[(Property::W, 240.0)])];
    assert_eq!(LotInBlend::of(&bare, &others), Err(vec![Property::FallingNumber]));
    let others = [others[0].clone(), read(&all)];
    let found = LotInBlend::of(&bare, &others).expect("all of them");
    assert_eq!((found.has.w, found.has.falling_number_s), (225.0, 300.0));
    assert_eq!(found.assumed, [Property::W, Property::FallingNumber]);
    let rows = blended_certificate(&[(found.has, &stated, 50.0), (found.has, &bare, 50.0)]);
    assert_eq!(rows.len(), 6, "absorption only where every part has it");
    let rows = blended_certificate(&[(found.has, &stated, 100.0)]);
    assert_eq!((rows[6].value.as_str(), rows[6].basis.as_str()), ("60.0", "14 %"));
    assert_eq!(blend_price(&[Some(400.0), Some(500.0)], &[25.0, 75.0]), Some(475.0));
    assert_eq!(blend_price(&[Some(400.0), None], &[25.0, 75.0]), None);
    assert_eq!(blend_price(&[Some(400.0)], &[0.0]), None);
}
