//! Doughs with parts and several flours through the whole chain, and variants of them.

use crate::support::bench::{bench, flour, plain, readings, spelt_sour, strong, whole};
use crate::support::near;
use ironpeel_core::chain::{Link, ScenarioFlour, chain};
use ironpeel_core::dough::{Allergen, Ingredient, PreparationKind};
use ironpeel_core::flour::{Property, Species, Verdict};
use ironpeel_core::method::{Process, SheetCaution};
use ironpeel_core::plant::OwnParameters;
use ironpeel_core::trial::{Intervention, QualityGoal, interventions_for, kept_variant, trial_set};
use ironpeel_core::water::Caution;
use proptest::prelude::*;
use serde_json::json;

#[test]
fn a_dough_with_a_starter_and_two_flours_weighs_out_to_its_mass() {
    let bench = bench(spelt_sour(), Process::LongCold);
    let (spelt, white) = (whole(), strong());
    let flours = [
        flour("Rigg Spelt", Species::Spelt, 100.0, 70.0, &spelt),
        flour("Tarn Strong", Species::Wheat, 76.0, 30.0, &white),
    ];
    let found = chain(&bench.scenario(&flours));
    let (dough, sheet) = (found.dough.expect("a dough"), found.sheet.expect("a sheet"));
    near(sheet.dough_kg, 5.0, 0.0006);
    let starter = &sheet.parts[0];
    assert_eq!((starter.kind, &*starter.name), (PreparationKind::Starter, "starter"));
    let names: Vec<_> = starter.takes.iter().map(|item| &*item.name).collect();
    assert_eq!(names, ["water", "Rigg Spelt"]);
    assert_eq!(sheet.steps[0].takes_parts, [0]);
    let last: Vec<_> = sheet.steps[0].takes.iter().map(|item| &*item.name).collect();
    assert_eq!(last, ["water", "Rigg Spelt", "Tarn Strong", "salt", "water held back"]);
    let all: f64 = sheet.steps.iter().flat_map(|step| &step.takes).map(|item| item.kg).sum::<f64>()
        + starter.kg;
    near(all, sheet.dough_kg, 1e-9);
    let columns = dough.columns.expect("several flours");
    near(columns.final_dough.flour_pct, 85.0, 1e-9);
    let heat = found.heat.expect("a balance");
    near(heat.answer.water_kg + heat.answer.ice_kg, dough.final_water_kg, 1e-9);
    assert!(
        heat.answer.terms.iter().any(|term| term.name.contains("starter")),
        "{:?}",
        heat.answer.terms
    );
    assert!(sheet.cautions.iter().any(|caution| matches!(caution, SheetCaution::HoldBack { .. })));
    assert_eq!(found.flour.others.len(), 1);
    assert_eq!(dough.allergens.allergens, [Allergen::Gluten, Allergen::Wheat]);
    assert!(!dough.allergens.unknown.is_empty());
}

#[test]
fn what_no_certificate_states_is_taken_as_usual_and_marked() {
    let bench = bench(spelt_sour(), Process::LongCold);
    let (spelt, bare) = (whole(), readings(&[(Property::Protein, 12.0)]));
    let flours = [
        flour("Rigg Spelt", Species::Spelt, 100.0, 70.0, &spelt),
        flour("Tarn Strong", Species::Wheat, 76.0, 30.0, &bare),
    ];
    let found = chain(&bench.scenario(&flours));
    assert_eq!(found.error, None);
    assert!(found.sheet.is_some());
    let assumed: Vec<_> =
        found.flour.assumed.iter().map(|one| (&*one.flour, one.property)).collect();
    let bare = [("Tarn Strong", Property::Moisture), ("Tarn Strong", Property::DamagedStarch)];
    assert_eq!(assumed, bare, "the other one's certificate has them");
    let none = chain(&bench.scenario(&[])).error.expect("no flour");
    assert_eq!(none.link(), Link::Water);
}

#[test]
fn a_dough_drier_than_its_sponge_stops_at_the_dough() {
    let draft = json!({"lines": [{"ingredient": "flour", "pct": 100}, {"ingredient": "instant_yeast", "pct": 1}],
        "parts": [{"kind": "sponge", "flour_pct": 60, "water_pct": 70}]});
    let bench = bench(draft, Process::SpongeDough);
    let white = strong();
    let flours = [flour("Tarn Strong", Species::Wheat, 76.0, 100.0, &white)];
    let found = chain(&bench.scenario(&flours));
    assert_eq!(found.error.expect("too dry").link(), Link::Dough);
    assert!(found.sheet.is_none());
}

#[test]
fn the_worst_lot_is_the_doughs_verdict() {
    let limits = [ironpeel_core::flour::Limit {
        property: Property::W,
        basis: None,
        min: Some(350.0),
        target: None,
        max: None,
        must: true,
        method: None,
    }];
    let bench = bench(spelt_sour(), Process::LongCold);
    let (spelt, white) = (whole(), strong());
    let weak = ScenarioFlour {
        limits: &limits,
        ..flour("Tarn Strong", Species::Wheat, 76.0, 30.0, &white)
    };
    let flours = [flour("Rigg Spelt", Species::Spelt, 100.0, 70.0, &spelt), weak];
    let found = chain(&bench.scenario(&flours)).flour;
    assert_eq!((found.verdict, found.others[0].verdict), (Verdict::Out, Verdict::Out));
    assert!(found.nonconformities.is_empty(), "the main flour is in");
}

#[test]
fn the_plants_own_numbers_reach_the_chain_and_come_back_from_record() {
    let mut bench = bench(plain(), Process::NoTime);
    let white = strong();
    let flours = [flour("Tarn Strong", Species::Wheat, 76.0, 100.0, &white)];
    let house = chain(&bench.scenario(&flours)).water.expect("a stair").dough_absorption_pct;
    let own: OwnParameters = serde_json::from_value(json!({
        "correction_factors": [{"rule": "no_time", "off": false, "value": {"typical": 1.0, "low": 0.0, "high": 2.0}, "reason": "x"}],
        "ingredients": [{"ingredient": "salt", "label": "sea salt", "role": "salt", "water_pct": 3, "specific_heat": 1.3,
            "effect": null, "kg_per_l": null, "allergens": [], "price_per_kg": 1.0, "origin": "plant"}]}))
    .expect("the shape on record");
    let again: OwnParameters =
        serde_json::from_value(serde_json::to_value(&own).expect("a record")).expect("read back");
    assert_eq!(own, again);
    bench.plant = own.into();
    let found = chain(&bench.scenario(&flours)).water.expect("a stair");
    near(found.dough_absorption_pct, house + 2.0 + 1.2, 1e-9);
    near(found.ingredient_water_pct, 0.06, 1e-9);
}

#[test]
fn each_wish_gets_the_levers_the_trade_uses() {
    let bench = bench(plain(), Process::StraightBulk);
    let white = strong();
    let flours = [flour("Tarn Strong", Species::Wheat, 76.0, 100.0, &white)];
    let scenario = bench.scenario(&flours);
    let (mut words, mut seen) = (std::collections::HashSet::new(), Vec::new());
    for goal in QualityGoal::ALL {
        let offered = interventions_for(&scenario, goal);
        assert!(!offered.is_empty() || goal == QualityGoal::LighterWholeGrain, "{goal:?}");
        for intervention in offered {
            assert!(intervention.variant.error.is_none(), "{:?}", intervention.variant.error);
            assert_ne!(intervention.does, intervention.trade_off);
            assert!(words.insert(intervention.does) || seen.contains(&intervention.intervention));
            seen.push(intervention.intervention);
            assert_eq!(intervention.variant.interventions, [intervention.intervention]);
        }
    }
    let has = |goal, intervention| {
        interventions_for(&scenario, goal)
            .iter()
            .any(|offered| offered.intervention == intervention)
    };
    assert!(has(QualityGoal::OpenCrumb, Intervention::MoreWater));
    assert!(
        !has(QualityGoal::LighterWholeGrain, Intervention::Sieve),
        "nothing to sieve out of white flour"
    );
    assert!(!has(QualityGoal::Faster, Intervention::YeastTrace), "it has yeast already");
    assert!(!has(QualityGoal::FewerAdditives, Intervention::NoAscorbicAcid), "it has none");
}

#[test]
fn a_whole_grain_tin_is_lightened_by_what_bakers_try() {
    let draft = json!({"lines": [{"ingredient": "flour", "pct": 100}, {"ingredient": "salt", "pct": 2}],
        "parts": [{"kind": "starter", "flour_pct": 15, "water_pct": 15}]});
    let bench = bench(draft, Process::LongCold);
    let holm = whole();
    let flours = [flour("Holm Whole", Species::Wheat, 100.0, 100.0, &holm)];
    let scenario = bench.scenario(&flours);
    let interventions = [
        Intervention::MoreWater,
        Intervention::Sieve,
        Intervention::PartWhite,
        Intervention::VitalGluten,
        Intervention::YeastTrace,
    ];
    let set = trial_set(&scenario, &interventions, 1.5);
    let names: Vec<_> = set.variants.iter().map(|variant| &*variant.name).collect();
    assert_eq!(names.len(), 7);
    assert_eq!((names[0], names[6]), ("as it is", "all changes"));
    let base = set.variants[0].dough_absorption_pct.expect("a dough");
    let moved = |at: usize| set.variants[at].dough_absorption_pct.expect("a dough") - base;
    near(moved(1), 3.0, 1e-9);
    assert!(moved(2) < -1.0, "less bran drinks less: {}", moved(2));
    assert!(moved(3) < 0.0, "white flour drinks less");
    near(moved(4), 2.6, 1e-9);
    near(moved(5), 0.0, 1e-9);
    for variant in &set.variants {
        let sheet = variant.sheet.as_ref().expect("set out");
        near(sheet.dough_kg, 1.5, 0.0006);
        assert_eq!(sheet.division_kg, 0.001);
    }
    let white = set.variants[3].sheet.as_ref().expect("set out");
    assert!(white.steps.iter().flat_map(|step| &step.takes).any(|item| item.name == "white flour"));
    let yeast = set.variants[5].sheet.as_ref().expect("set out");
    assert!(
        yeast
            .steps
            .iter()
            .flat_map(|step| &step.takes)
            .any(|item| item.ingredient == Ingredient::InstantYeast)
    );
    assert!(set.variants[1].handling.contains("softer and stickier"));
}

#[test]
fn a_sponge_takes_the_yeast_and_the_hours() {
    let bench = bench(plain(), Process::NoTime);
    let white = strong();
    let flours = [flour("Tarn Strong", Species::Wheat, 76.0, 100.0, &white)];
    let set =
        trial_set(&bench.scenario(&flours), &[Intervention::Sponge, Intervention::Sponge], 2.0);
    assert_eq!(set.variants.len(), 2, "pulled once, and nothing to put together");
    let (straight, sponge) = (&set.variants[0], &set.variants[1]);
    near(
        sponge.dough_absorption_pct.expect("a dough")
            - straight.dough_absorption_pct.expect("a dough"),
        4.0,
        1e-9,
    );
    assert_eq!(sponge.total_min - straight.total_min, 210.0);
    let sheet = sponge.sheet.as_ref().expect("set out");
    assert!(sheet.parts[0].takes.iter().any(|item| item.ingredient == Ingredient::InstantYeast));
    assert!(sheet.parts[0].caution.expect("live dough").contains("bake it first"));
}

#[test]
fn without_gluten_no_lever_speaks_of_it() {
    let draft = json!({"lines": [{"ingredient": "flour", "pct": 100}, {"ingredient": "instant_yeast", "pct": 2},
        {"ingredient": "psyllium", "pct": 3}, {"ingredient": "salt", "pct": 1.8}]});
    let bench = bench(draft, Process::StraightBulk);
    let blend = readings(&[(Property::Moisture, 11.0), (Property::Absorption, 88.0)]);
    let flours = [flour("Lantern Blend", Species::GlutenFree, 70.0, 100.0, &blend)];
    let scenario = bench.scenario(&flours);
    for goal in QualityGoal::ALL {
        for offered in interventions_for(&scenario, goal) {
            let words = format!("{} {} {}", offered.label, offered.does, offered.trade_off);
            for word in ["gluten", "film to", "autolyse", "folds", "bran"] {
                assert!(!words.contains(word), "{word}: {words}");
            }
        }
    }
    let found = chain(&scenario);
    let dough = found.dough.expect("a dough");
    assert!(dough.allergens.caution().expect("cross-contact").contains("Keep it apart"));
    assert_eq!(found.water.expect("a stair").cautions, [Caution::NoGluten]);
}

#[test]
fn colder_slower_and_the_night_take_their_time() {
    let bench = bench(plain(), Process::StraightBulk);
    let white = strong();
    let flours = [flour("Tarn Strong", Species::Wheat, 76.0, 100.0, &white)];
    let scenario = bench.scenario(&flours);
    let minutes = |intervention| {
        let set = trial_set(&scenario, &[intervention], 1.0);
        set.variants[1].total_min - set.variants[0].total_min
    };
    for (intervention, wanted) in [
        (Intervention::ColdNight, 720.0),
        (Intervention::Autolyse, 33.0),
        (Intervention::AnotherFold, 30.0),
        (Intervention::WaterInTwo, 10.0),
        (Intervention::MoreFat, 0.0),
    ] {
        assert_eq!(minutes(intervention), wanted, "{intervention:?}");
    }
    // Yeast and warmth ask the model: the same gas at the oven, sooner or later.
    assert!(minutes(Intervention::MoreYeast) < -20.0 && minutes(Intervention::WarmerDough) < -5.0);
    assert!(minutes(Intervention::LessYeast) > 40.0 && minutes(Intervention::ColderDough) > 5.0);
}

#[test]
fn a_night_in_the_cold_is_as_long_whatever_the_yeast_and_the_proof_comes_after_it() {
    let mut bench = bench(plain(), Process::StraightBulk);
    let white = strong();
    let flours = [flour("Tarn Strong", Species::Wheat, 76.0, 100.0, &white)];
    let of = |set: &ironpeel_core::trial::TrialSet| -> Vec<(String, f64)> {
        let steps = &set.variants.last().expect("all").sheet.as_ref().expect("set out").steps;
        steps.iter().map(|step| (step.label.clone(), step.minutes)).collect()
    };
    let set = trial_set(
        &bench.scenario(&flours),
        &[Intervention::ColdNight, Intervention::LessYeast],
        1.0,
    );
    let steps = of(&set);
    let night = steps.iter().position(|(label, _)| label.contains("night")).expect("a night");
    assert_eq!(steps[night].1, 720.0);
    assert!(steps[night + 1..].iter().any(|(label, _)| label == "Proof"), "{steps:?}");
    bench.method.machine_divided = false;
    let set = trial_set(&bench.scenario(&flours), &[Intervention::Autolyse], 1.0);
    let sheet = set.variants[1].sheet.as_ref().expect("set out");
    let first: Vec<_> = sheet.steps[0].takes.iter().map(|item| &*item.name).collect();
    assert_eq!(first, ["water", "flour"], "flour and water rest alone");
    let set = trial_set(&bench.scenario(&flours), &[Intervention::WaterInTwo], 1.0);
    let sheet = set.variants[1].sheet.as_ref().expect("set out");
    let water: Vec<f64> = sheet
        .steps
        .iter()
        .flat_map(|step| &step.takes)
        .filter(|item| item.name == "water")
        .map(|item| item.kg)
        .collect();
    assert_eq!(water.len(), 2);
    near(water[1] / (water[0] + water[1]), 0.1, 0.005);
}

#[test]
fn gluten_and_fibre_move_what_strength_carries() {
    let white = strong();
    let flours = [flour("Tarn Strong", Species::Wheat, 76.0, 100.0, &white)];
    let ceiling = |lines: serde_json::Value| {
        let bench = bench(lines, Process::StraightBulk);
        chain(&bench.scenario(&flours)).water.expect("computed").ceiling_pct.expect("W is stated")
    };
    let base = json!([{"ingredient": "flour", "pct": 100}, {"ingredient": "salt", "pct": 2}]);
    let with = |ingredient: &str| {
        let mut lines = base.clone();
        lines.as_array_mut().expect("a list").push(json!({"ingredient": ingredient, "pct": 2}));
        ceiling(json!({"lines": lines}))
    };
    let plain = ceiling(json!({"lines": base}));
    assert!(with("vital_gluten") > plain && with("bran") < plain);
}

fn pulled() -> impl Strategy<Value = Vec<Intervention>> {
    prop::collection::vec(prop::sample::select(Intervention::ALL.to_vec()), 0..6)
}

proptest! {
    #[test]
    fn whatever_levers_are_pulled_each_dough_is_one(interventions in pulled(), kg in 0.3..15.0f64) {
        let bench = bench(plain(), Process::StraightBulk);
        let (holm, white) = (whole(), strong());
        for flours in [
            [flour("Holm Whole", Species::Wheat, 100.0, 100.0, &holm)],
            [flour("Tarn Strong", Species::Wheat, 76.0, 100.0, &white)],
        ] {
            let set = trial_set(&bench.scenario(&flours), &interventions, kg);
            for variant in &set.variants {
                prop_assert!(variant.error.is_none(), "{:?}", variant.error);
                let sheet = variant.sheet.as_ref().expect("set out");
                prop_assert!((sheet.dough_kg - kg).abs() < 0.001, "{} for {kg}", sheet.dough_kg);
            }
        }
    }
}

#[test]
fn a_kept_variant_is_the_next_formula_and_method() {
    let white = strong();
    let flours = [flour("Tarn Strong", Species::Wheat, 76.0, 100.0, &white)];
    let mut plain = bench(crate::support::bench::plain(), Process::StraightBulk);
    let kept = |bench: &crate::support::bench::Bench, of: &[Intervention]| {
        kept_variant(&bench.scenario(&flours), of)
    };
    let as_it_is = kept(&plain, &[]).expect("nothing is asked");
    assert_eq!(as_it_is, (plain.formula.clone(), plain.method.clone()));
    let (formula, method) = kept(&plain, &[Intervention::MoreWater]).expect("a formula");
    assert_eq!(formula.style_points, plain.formula.style_points + 3.0);
    assert_eq!(method, plain.method);
    let night = [Intervention::ColdNight, Intervention::MoreSalt];
    let (formula, method) = kept(&plain, &night).expect("both");
    assert_ne!(formula.formula, plain.formula.formula);
    assert_eq!(method.stages.len(), plain.method.stages.len() + 1);
    assert_eq!(method.target_c, plain.method.target_c);
    let (_, warm) = kept(&plain, &[Intervention::WarmerDough]).expect("a method");
    assert_eq!(warm.target_c, plain.method.target_c + 2.0);
    let refused = kept(&plain, &[Intervention::MoreWater, Intervention::Sieve]);
    let faults = refused.expect_err("another flour").0;
    assert_eq!(&*faults[0].field, "interventions[1]");
    // Water of its own is moved, not the style beneath it; what was set in hand was judged.
    plain.formula.hydration_pct = Some(64.0);
    let (formula, _) = kept(&plain, &[Intervention::MoreWater]).expect("a formula");
    assert_eq!((formula.hydration_pct, formula.style_points), (Some(67.0), 0.0));
    let mut scenario = plain.scenario(&flours);
    scenario.run_settings.hydration_pct = Some(60.0);
    scenario.run_settings.target_c = Some(23.0);
    let (formula, method) = kept_variant(&scenario, &[Intervention::MoreWater]).expect("both");
    assert_eq!((formula.hydration_pct, method.target_c), (Some(63.0), 23.0));
    let scenario = plain.scenario(&flours);
    let tried = trial_set(&scenario, &[Intervention::MoreWater], 1.0).variants;
    let moved = |at: usize| tried[at].dough_absorption_pct.expect("water");
    near(moved(1) - moved(0), 3.0, 1e-9);
}
