//! Absorption estimated and learned, the build-up of mixes and grains, and a plant's own rules.

use crate::support::{Asked, PLAIN, climb, climb_by, composition, flour, near, parts};
use ironpeel_core::coefficient::{Coefficient, Coefficients, Origin, Override};
use ironpeel_core::flour::{Moisture, Species};
use ironpeel_core::method::Process;
use ironpeel_core::units::{Estimate, ValidationErrors};
use ironpeel_core::water::{
    AbsorptionBuildUp, AbsorptionInput, AbsorptionModel, AbsorptionModelInput, AbsorptionUnknown,
    Caution, Composition, Flour, HoldBackReason, coefficients, hold_back,
};
use proptest::prelude::*;
use serde_json::{Value, json};

fn model(input: Value) -> Result<ironpeel_core::water::AbsorptionModelAnswer, ValidationErrors> {
    let input: AbsorptionModelInput = serde_json::from_value(input).expect("the contract's shape");
    input.compute()
}

fn absorption(input: Value) -> Result<AbsorptionBuildUp, ValidationErrors> {
    let input: AbsorptionInput = serde_json::from_value(input).expect("the contract's shape");
    input.compute()
}

fn lot(protein: f64, damaged: f64, ash: f64, absorption: f64) -> Value {
    json!({"protein_14_pct": protein, "damaged_starch_pct": damaged, "ash_dm_pct": ash,
        "absorption_14_pct": absorption})
}

fn four_lots() -> Vec<Value> {
    vec![
        lot(12.6, 8.1, 0.60, 63.4),
        lot(13.4, 8.8, 0.63, 65.0),
        lot(11.2, 6.9, 0.56, 60.1),
        lot(13.1, 8.2, 1.62, 69.5),
    ]
}

fn points(build_up: &AbsorptionBuildUp, key: &str) -> Option<f64> {
    build_up.adjustments.iter().find(|step| step.key == key).map(|step| step.points)
}

fn unmeasured(species: Species, whole_grain_pct: f64, ash: Option<f64>) -> Flour {
    Flour {
        usual_moisture: None,
        absorption_14_pct: None,
        composition: Composition { ash_dm_pct: ash, ..composition(12.0, 7.5, 0.6) },
        species,
        whole_grain_pct,
        age_days: None,
        w: None,
        moisture: Moisture::FOURTEEN,
    }
}

#[test]
fn the_model_predicts_before_and_after_it_has_learned() {
    let flour = json!({"protein_14_pct": 13.2, "damaged_starch_pct": 8.6, "ash_dm_pct": 0.62});
    let fresh = model(json!({"lots": [], "flour": flour})).expect("in range");
    near(fresh.predicted.mean_pct, 62.94, 0.005);
    near(fresh.predicted.sd_pct, 2.22, 0.005);
    let learned = model(json!({"lots": four_lots(), "flour": flour})).expect("in range");
    near(learned.predicted.mean_pct, 64.50, 0.005);
    near(learned.predicted.sd_pct, 1.70, 0.005);
    assert_eq!((fresh.lots, learned.lots), (0, 4));
    for (before, after) in fresh.coefficients.iter().zip(&learned.coefficients) {
        assert_eq!(before.key, after.key);
        assert!(after.sd < before.sd, "{} is surer after four lots", after.key);
    }
}

#[test]
fn each_bad_lot_is_named() {
    let input = json!({"lots": [lot(12.0, 8.0, 0.6, 62.0), {"protein_14_pct": -1}],
        "flour": {"protein_14_pct": "high", "damaged_starch_pct": 8}});
    let fields: Vec<_> =
        model(input).expect_err("bad").0.into_iter().map(|fault| fault.field).collect();
    assert_eq!(
        fields,
        [
            "lots[1].protein_14_pct",
            "lots[1].damaged_starch_pct",
            "lots[1].ash_dm_pct",
            "lots[1].absorption_14_pct",
            "flour.protein_14_pct",
            "flour.ash_dm_pct"
        ]
    );
    let many = vec![lot(12.0, 8.0, 0.6, 62.0); 5001];
    let faults =
        model(json!({"lots": many, "flour": lot(12.0, 8.0, 0.6, 62.0)})).expect_err("many");
    assert!(faults.0[0].message.contains("5001 were given"));
    assert_eq!(model(json!({"flour": {}})).expect_err("empty").0[0].field, "lots");
}

#[test]
fn what_a_certificate_does_not_state_widens_the_estimate() {
    let prior = AbsorptionModel::default();
    let all = prior.predict(composition(12.0, 7.5, 0.6));
    let no_damaged =
        prior.predict(Composition { damaged_starch_pct: None, ..composition(12.0, 7.5, 0.6) });
    assert_eq!(all.mean_pct, no_damaged.mean_pct);
    assert!(no_damaged.sd_pct > all.sd_pct + 0.5);
}

#[test]
fn an_estimated_base_carries_its_own_doubt() {
    let found = absorption(json!({
        "flour": {"moisture_pct": 14, "protein_14_pct": 13.2, "damaged_starch_pct": 8.6, "ash_dm_pct": 0.62},
        "process": "straight_bulk"}))
    .expect("in range");
    near(found.dough_absorption_pct, 62.94, 0.005);
    near(found.high_pct - found.dough_absorption_pct, 2.22, 0.005);
    assert!(found.estimated);
    assert_eq!(found.adjustments[0].origin, Origin::House);
    assert!(found.adjustments[0].label.starts_with("estimated absorption"));
}

#[test]
fn grains_step_where_they_were_not_measured() {
    for (species, offset) in [
        (Species::Wheat, None),
        (Species::Spelt, Some(-3.0)),
        (Species::Emmer, Some(-4.0)),
        (Species::Einkorn, Some(-8.0)),
        (Species::Khorasan, Some(2.0)),
        (Species::Durum, Some(2.0)),
        (Species::Rye, Some(8.0)),
    ] {
        let found = climb(&unmeasured(species, 0.0, Some(0.6)), &PLAIN).expect("estimated");
        assert_eq!(points(&found, "species"), offset, "{species:?}");
        let measured = Flour { species, ..flour() };
        assert_eq!(points(&climb(&measured, &PLAIN).expect("measured"), "species"), None);
    }
}

#[test]
fn bran_is_counted_once() {
    for (measured, ash, step) in [
        (false, Some(1.6), Some(3.0)),
        (false, None, Some(8.0)),
        (true, Some(1.6), None),
        (true, None, None),
    ] {
        let mut whole = unmeasured(Species::Wheat, 100.0, ash);
        whole.absorption_14_pct = measured.then_some(68.0);
        let found = climb(&whole, &PLAIN).expect("has a base");
        assert_eq!(points(&found, "whole_grain"), step, "measured {measured}, ash {ash:?}");
    }
    let half = climb(&unmeasured(Species::Wheat, 50.0, Some(1.1)), &PLAIN).expect("estimated");
    assert_eq!(points(&half, "whole_grain"), Some(1.5));
}

#[test]
fn a_mix_of_flours_behaves_by_its_parts() {
    let spelt = unmeasured(Species::Spelt, 100.0, Some(1.6));
    let white = flour();
    let mix =
        climb_by(&[(spelt, 40.0), (white, 60.0)], &PLAIN, &Coefficients::default()).expect("a mix");
    let alone =
        |flour: &Flour, key| points(&climb(flour, &PLAIN).expect("has a base"), key).unwrap_or(0.0);
    for key in ["absorption", "moisture", "species", "whole_grain", "weak_film", "process"] {
        let wanted = 0.4 * alone(&spelt, key) + 0.6 * alone(&white, key);
        near(points(&mix, key).unwrap_or(0.0), wanted, 1e-9);
    }
    assert!(mix.estimated);
    assert!(mix.adjustments[0].reason.contains("spelt 40 %"), "{}", mix.adjustments[0].reason);
    assert_eq!(mix.ceiling_pct, None, "one flour's strength is not known");
    let both = climb_by(
        &[(white, 50.0), (Flour { w: Some(210.0), ..white }, 50.0)],
        &PLAIN,
        &Coefficients::default(),
    );
    near(both.expect("a mix").ceiling_pct.expect("both known"), 50.0 + 0.13 * 260.0, 1e-9);
}

#[test]
fn a_blend_without_gluten_starts_from_its_own_sheet() {
    let mut blend = unmeasured(Species::GlutenFree, 0.0, None);
    let refused = climb(&blend, &PLAIN).expect_err("no sheet");
    assert_eq!(refused, AbsorptionUnknown::NeedsItsSheet("gluten_free".into()));
    assert!(refused.to_string().contains("its own sheet"));
    blend.absorption_14_pct = Some(92.0);
    blend.moisture = Moisture::new(11.0).expect("in range");
    blend.age_days = Some(1.0);
    let asked = Asked { process: Process::NoTime, machine_divided: true, ..PLAIN };
    let found = climb(&blend, &asked).expect("its sheet");
    let keys: Vec<_> = found.adjustments.iter().map(|step| &*step.key).collect();
    assert_eq!(keys, ["absorption"], "no moisture, no process, no age: no gluten model");
    assert_eq!(found.ceiling_pct, None);
    let told: Vec<_> = found.cautions.iter().map(Caution::key).collect();
    assert!(told.contains(&"no_gluten"));
    assert!(!told.contains(&"strength") && !told.contains(&"damaged_starch"));
    let held = found.hold_back.expect("in stages");
    assert!(held.points > 0.0 && held.because.contains(&HoldBackReason::NoGluten));
}

#[test]
fn nothing_to_start_from_is_said_with_what_would_help() {
    let message = climb(&unmeasured(Species::LowStarch, 0.0, None), &PLAIN);
    assert!(message.expect_err("no sheet").to_string().contains("its own sheet states"));
    assert_eq!(climb_by(&[], &PLAIN, &Coefficients::default()), Err(AbsorptionUnknown::NoFlour));
}

fn own(of: &Coefficient, typical: f64, off: bool) -> Coefficients {
    let value = Estimate::new(typical, typical - 1.0, typical + 1.0);
    Coefficients(vec![Override {
        key: of.key.into(),
        off,
        value,
        reason: "weighed for a year".into(),
    }])
}

#[test]
fn a_plants_own_rule_takes_the_houses_place_and_says_so() {
    let asked = Asked { process: Process::SpongeDough, ..PLAIN };
    let flours = [(flour(), 100.0)];
    let house = climb_by(&flours, &asked, &Coefficients::default()).expect("has a base");
    let own_rules = own(&coefficients::SPONGE_DOUGH, 4.5, false);
    let plant = climb_by(&flours, &asked, &own_rules).expect("has a base");
    near(plant.dough_absorption_pct - house.dough_absorption_pct, 1.5, 1e-9);
    let step = plant.adjustments.iter().find(|step| step.key == "process").expect("a step");
    assert_eq!((step.origin, &*step.reason), (Origin::Plant, "weighed for a year"));
    assert_eq!(step.coefficient, Some("sponge_dough"));
    assert_eq!(own_rules.effective(&coefficients::SPONGE_DOUGH).origin, Origin::Plant);
    assert_eq!(own_rules.effective(&coefficients::NO_TIME).origin, Origin::House);
}

#[test]
fn a_rule_switched_off_leaves_a_step_of_nothing() {
    let spelt = Flour { species: Species::Spelt, ..flour() };
    let found =
        climb_by(&[(spelt, 100.0)], &PLAIN, &own(&coefficients::SPELT_HELD_BACK, -1.5, true))
            .expect("a base");
    let step = found.adjustments.iter().find(|step| step.key == "weak_film").expect("still there");
    assert_eq!((step.points, step.low, step.high), (0.0, 0.0, 0.0));
    assert!(step.label.ends_with("switched off"));
    near(found.dough_absorption_pct, 62.0, 1e-9);
    let trap = Flour { composition: composition(12.9, 11.0, 0.6), ..flour() };
    let quiet = climb_by(
        &[(trap, 100.0)],
        &PLAIN,
        &own(&coefficients::CRITICAL_DAMAGED_STARCH, 10.0, true),
    )
    .expect("a base");
    assert!(quiet.cautions.iter().all(|caution| !matches!(caution, Caution::DamagedStarch { .. })));
}

#[test]
fn the_calculator_refuses_in_the_words_of_the_job() {
    for (input, field, message) in [
        (json!({}), "process", "it is missing"),
        (
            json!({"process": "magic", "flour": {"moisture_pct": 14}}),
            "process",
            "“magic” is not known",
        ),
        (
            json!({"process": "no_time", "flour": {"absorption_14_pct": 62}}),
            "flour.moisture_pct",
            "missing",
        ),
        (
            json!({"process": "no_time", "flour": {"moisture_pct": 14}}),
            "flour.protein_14_pct",
            "protein on 14 % moisture is missing",
        ),
        (
            json!({"process": "no_time", "flour": {"moisture_pct": 14, "protein_14_pct": 12}}),
            "flour.damaged_starch_pct",
            "is missing",
        ),
        (
            json!({"process": "no_time", "flour": {"moisture_pct": 14, "absorption_14_pct": 62, "species": "teff"}}),
            "flour.species",
            "“teff” is not known",
        ),
        (
            json!({"process": "no_time", "flour": {"moisture_pct": 14, "absorption_14_pct": 62},
                "lines": [{"ingredient": "sand", "pct": 1}]}),
            "lines[0].ingredient",
            "“sand” is no ingredient",
        ),
        (
            json!({"process": "no_time", "flour": {"moisture_pct": 14, "absorption_14_pct": 62},
                "lines": [{"ingredient": "flour", "pct": 1}]}),
            "lines[0].ingredient",
            "is no ingredient",
        ),
        (
            json!({"process": "no_time", "flour": {"moisture_pct": 14, "absorption_14_pct": 62},
                "lines": [{"ingredient": "salt", "pct": 900}]}),
            "lines[0].pct",
            "from 0 to 100 %",
        ),
        (
            json!({"process": "no_time", "style_points": 50, "flour": {"moisture_pct": 14, "absorption_14_pct": 62}}),
            "style_points",
            "from -20 to 20",
        ),
        (
            json!({"process": "no_time", "flour": {"moisture_pct": 14, "species": "gluten_free"}}),
            "flour.absorption_14_pct",
            "its own sheet",
        ),
        (
            json!({"process": "no_time", "flour": {"moisture_pct": 14, "absorption_14_pct": 9}}),
            "flour.absorption_14_pct",
            "from 20 to 150",
        ),
    ] {
        let ValidationErrors(faults) = absorption(input.clone()).expect_err("refused");
        assert!(
            faults.iter().any(|fault| fault.field == field && fault.message.contains(message)),
            "{input}: {faults:?}"
        );
    }
}

#[test]
fn the_calculator_climbs_the_whole_stair() {
    let found = absorption(json!({
        "flour": {"moisture_pct": 13.2, "absorption_14_pct": 61, "species": "spelt", "age_days": 20},
        "process": "long_cold", "style_points": 2,
        "lines": [{"ingredient": "salt", "pct": 2}, {"ingredient": "milk", "pct": 10},
            {"ingredient": "butter", "pct": 5}]}))
    .expect("in range");
    let moisture = (61.0 + 100.0) * (100.0 - 13.2) / 86.0 - 100.0 - 61.0;
    near(found.dough_absorption_pct, 61.0 + moisture + 1.0 - 1.2 - 1.2 - 1.5 + 0.5 + 2.0, 1e-9);
    near(found.ingredient_water_pct, 8.75 + 0.8, 1e-9);
    near(found.added_water_pct, found.dough_absorption_pct - 9.55, 1e-9);
}

#[test]
fn bran_weak_grains_and_damage_ask_to_hold_back_and_wait() {
    let held = |flours: &[(Flour, f64)]| {
        hold_back(&parts(flours), &Coefficients::default(), &AbsorptionModel::default())
    };
    assert_eq!(held(&[(flour(), 100.0)]), None, "white flour needs none");
    let whole = held(&[(unmeasured(Species::Wheat, 100.0, Some(1.6)), 100.0)]).expect("bran");
    assert_eq!((whole.points, whole.wait_min_low, whole.wait_min_high), (2.0, 10.0, 15.0));
    let little = held(&[(unmeasured(Species::Wheat, 100.0, Some(1.6)), 5.0), (flour(), 95.0)]);
    assert_eq!(little, None, "a little bran needs no waiting");
    let spelt =
        held(&[(unmeasured(Species::Spelt, 0.0, None), 50.0), (flour(), 50.0)]).expect("weak");
    near(spelt.points, 0.75, 1e-9);
    assert!(spelt.low <= spelt.points && spelt.points <= spelt.high);
    let rye = held(&[(unmeasured(Species::Rye, 0.0, None), 100.0)]).expect("pentosans");
    assert_eq!((rye.points, rye.wait_min_low), (0.0, 10.0));
    let damaged = Flour { composition: composition(12.9, 11.5, 0.6), ..flour() };
    near(held(&[(damaged, 100.0)]).expect("the trap").points, 1.5 * 1.4, 1e-9);
}

fn compositions() -> impl Strategy<Value = Composition> {
    (7.0..18.0f64, 2.0..14.0f64, 0.4..2.2f64)
        .prop_map(|(protein, damaged, ash)| composition(protein, damaged, ash))
}

proptest! {
    #[test]
    fn more_damaged_starch_never_lowers_predicted_water(
        lot in compositions(), more in 0.1..5.0f64,
    ) {
        let damaged = lot.damaged_starch_pct.map(|damaged| damaged + more);
        let prior = AbsorptionModel::default();
        let (less, more) = (prior.predict(lot), prior.predict(Composition { damaged_starch_pct: damaged, ..lot }));
        prop_assert!(more.mean_pct >= less.mean_pct);
    }

    #[test]
    fn a_lot_learned_draws_its_own_prediction_to_it_and_nothing_grows_less_sure(
        lot in compositions(), other in compositions(), measured in 50.0..75.0f64,
    ) {
        let prior = AbsorptionModel::default();
        let learned = prior.learn(lot, measured);
        let (was, is) = (prior.predict(lot), learned.predict(lot));
        prop_assert!((is.mean_pct - measured).abs() <= (was.mean_pct - measured).abs() + 1e-9);
        prop_assert!(learned.predict(other).sd_pct <= prior.predict(other).sd_pct + 1e-9);
    }

    #[test]
    fn the_order_lots_came_in_does_not_matter(
        lots in prop::collection::vec((compositions(), 50.0..75.0f64), 1..12), flour in compositions(),
    ) {
        let learn = |model: AbsorptionModel, (lot, measured): &(Composition, f64)| model.learn(*lot, *measured);
        let forward = lots.iter().fold(AbsorptionModel::default(), learn);
        let backward = lots.iter().rev().fold(AbsorptionModel::default(), learn);
        prop_assert!((forward.predict(flour).mean_pct - backward.predict(flour).mean_pct).abs() < 1e-6);
        prop_assert!((forward.predict(flour).sd_pct - backward.predict(flour).sd_pct).abs() < 1e-6);
    }

    #[test]
    fn an_estimated_stair_still_sums(lot in compositions(), whole in 0.0..100.0f64, share in 1.0..99.0f64) {
        let estimated = Flour {
            composition: lot, ..unmeasured(Species::Emmer, whole, None)
        };
        let mix = [(estimated, share), (flour(), 100.0 - share)];
        let found = climb_by(&mix, &PLAIN, &Coefficients::default()).expect("a mix");
        let sum: f64 = found.adjustments.iter().map(|step| step.points).sum();
        prop_assert!((sum - found.dough_absorption_pct).abs() < 1e-9);
        for step in &found.adjustments {
            prop_assert!(step.low <= step.points + 1e-9 && step.points <= step.high + 1e-9, "{step:?}");
        }
    }
}
