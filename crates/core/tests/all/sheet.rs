//! The mixing sheet: what goes in when, weighed so that it sums.

use crate::support::bench::{
    Bench, bench, flour, plain, spelt_sour, sponge_bench, stage, strong, whole,
};
use crate::support::near;
use ironpeel_core::chain::{Chain, ScenarioFlour, chain};
use ironpeel_core::dough::{Amount, Ingredient};
use ironpeel_core::flour::Species;
use ironpeel_core::method::{
    Addition, Process, Sheet, SheetCaution, SheetStep, Speed, Stage, StageCaution, StageKind,
    ToWeigh,
};
use proptest::prelude::*;
use serde_json::{Value, json};

fn rich() -> Value {
    json!({"lines": [
        {"ingredient": "flour", "pct": 100}, {"ingredient": "instant_yeast", "pct": 1.2},
        {"ingredient": "sugar", "pct": 6}, {"ingredient": "fat", "pct": 4},
        {"ingredient": "ascorbic_acid", "pct": 0.006}, {"ingredient": "salt", "pct": 1.9}]})
}

/// A sheet of one flour, so much dough on a scale of this division.
fn sheet(bench: &Bench, kg: f64, division_kg: f64) -> Sheet {
    let readings = strong();
    let flours = [flour("Tarn Strong", Species::Wheat, 76.0, 100.0, &readings)];
    whole_sheet(bench, &flours, kg, division_kg).sheet.expect("a sheet")
}

fn whole_sheet(bench: &Bench, flours: &[ScenarioFlour<'_>], kg: f64, division_kg: f64) -> Chain {
    let mut scenario = bench.scenario(flours);
    scenario.run_settings.amount = Some(Amount::Dough { kg });
    scenario.run_settings.division_kg = Some(division_kg);
    chain(&scenario)
}

fn takes(sheet: &Sheet) -> Vec<&ToWeigh> {
    sheet.steps.iter().flat_map(|step| &step.takes).collect()
}

fn adds(kind: StageKind, minutes: f64, adds: &[Ingredient]) -> Stage {
    Stage { adds: adds.iter().copied().map(Addition::rest_of).collect(), ..stage(kind, minutes) }
}

#[test]
fn what_a_stage_names_waits_for_it_and_the_rest_goes_in_first() {
    let mut bench = bench(rich(), Process::NoTime);
    bench.method.stages = vec![
        stage(StageKind::Mix, 3.0),
        adds(StageKind::Mix, 6.0, &[Ingredient::Fat]),
        adds(StageKind::Mix, 3.0, &[Ingredient::Salt]),
        stage(StageKind::Proof, 55.0),
    ];
    let found = sheet(&bench, 10.0, 0.001);
    let names =
        |at: usize| -> Vec<&str> { found.steps[at].takes.iter().map(|item| &*item.name).collect() };
    assert_eq!(names(0), ["water", "flour", "instant yeast", "sugar", "ascorbic acid"]);
    assert_eq!(names(1), ["fat"]);
    assert_eq!(names(2), ["salt"]);
    assert!(names(3).is_empty());
    let done: Vec<Option<f64>> = found.steps.iter().map(|step| step.mixing_done_pct).collect();
    assert_eq!(done, [Some(0.0), Some(25.0), Some(75.0), None]);
    let clock: Vec<f64> = found.steps.iter().map(|step| step.at_min).collect();
    assert_eq!(clock, [0.0, 3.0, 9.0, 12.0]);
    assert_eq!(found.total_min, 67.0);
}

/// Shares of the water at a stage, each with its temperature where it has one.
fn pours(minutes: f64, goes: &[(f64, Option<f64>)]) -> Stage {
    let pour = |&(share, temperature_c): &(f64, Option<f64>)| Addition {
        ingredient: Ingredient::Water,
        share_pct: Some(share),
        temperature_c,
    };
    Stage { adds: goes.iter().map(pour).collect(), ..stage(StageKind::Mix, minutes) }
}

fn water(step: &SheetStep) -> Vec<&ToWeigh> {
    step.takes.iter().filter(|item| item.ingredient == Ingredient::Water).collect()
}

#[test]
fn water_goes_in_as_often_as_the_method_says_and_nothing_of_it_is_lost() {
    let mut bench = bench(rich(), Process::StraightBulk);
    bench.method.stages = vec![
        stage(StageKind::Mix, 4.0),
        pours(3.0, &[(15.0, None)]),
        pours(3.0, &[(5.0, None)]),
        stage(StageKind::Proof, 55.0),
    ];
    let found = sheet(&bench, 10.0, 0.001);
    let goes: Vec<f64> = found.steps.iter().flat_map(water).map(|item| item.kg).collect();
    let [first, second, third] = goes[..] else { panic!("{goes:?}") };
    let all = first + second + third;
    near(second, 0.15 * all, 0.001);
    near(third, 0.05 * all, 0.001);
    near(takes(&found).iter().map(|item| item.kg).sum::<f64>(), found.dough_kg, 1e-9);
    let warm: Vec<_> = found.steps.iter().flat_map(water).map(|item| item.temperature_c).collect();
    assert!(warm.iter().all(|celsius| celsius.is_some() && *celsius == warm[0]), "{warm:?}");
}

#[test]
fn boiling_water_is_said_to_be_and_the_rest_of_it_is_cooler_for_it() {
    let mut bench = bench(rich(), Process::StraightBulk);
    bench.method.stages = vec![stage(StageKind::Mix, 8.0), stage(StageKind::Proof, 55.0)];
    let cool = sheet(&bench, 10.0, 0.001);
    bench.method.stages[0] = pours(8.0, &[(10.0, Some(100.0))]);
    let readings = strong();
    let flours = [flour("Tarn Strong", Species::Wheat, 76.0, 100.0, &readings)];
    let chain = whole_sheet(&bench, &flours, 10.0, 0.001);
    let heat = chain.heat.expect("computed").answer;
    assert!(heat.reachable);
    let found = chain.sheet.expect("a sheet");
    let [boiling, rest] = water(&found.steps[0])[..] else { panic!("{:?}", found.steps[0]) };
    assert_eq!((&*boiling.name, boiling.temperature_c), ("boiling water", Some(100.0)));
    let [whole] =
        found.whole.iter().filter(|item| item.ingredient == Ingredient::Water).collect::<Vec<_>>()
            [..]
    else {
        panic!()
    };
    assert_eq!(whole.name, "water", "one line of all of it");
    near(rest.temperature_c.expect("of the balance"), heat.water_c, 1e-9);
    near(boiling.kg / (boiling.kg + rest.kg), 0.1, 0.001);
    // A tenth of it at 100 °C: the rest gives back what that brings over what all of it had.
    let was = water(&cool.steps[0])[0].temperature_c.expect("of the balance");
    near(0.1 * 100.0 + 0.9 * heat.water_c, was, 1e-6);
    assert!(found.steps[0].cautions.contains(&StageCaution::HotWater));
    assert!(!cool.steps[0].cautions.contains(&StageCaution::HotWater));
}

#[test]
fn with_ice_the_hot_water_is_poured_whole_and_the_ice_is_of_the_rest() {
    let mut bench = sponge_bench();
    bench.line.tap_c = 18.0;
    bench.method.stages.insert(1, pours(2.0, &[(15.0, Some(100.0))]));
    let found = sheet(&bench, 50.0, 0.001);
    let poured: Vec<_> = found.steps.iter().flat_map(water).collect();
    let all: f64 = poured.iter().map(|item| item.kg).sum();
    let ice: f64 = poured.iter().filter(|item| item.is_ice).map(|item| item.kg).sum();
    let hot = poured.iter().find(|item| item.temperature_c == Some(100.0)).expect("poured");
    assert!(ice > 0.3 * all, "{ice} of {all}");
    near(hot.kg, 0.15 * all, 0.002);
}

#[test]
fn what_goes_in_after_mixing_warms_no_dough_in_the_mixer() {
    let mut bench = bench(rich(), Process::StraightBulk);
    let seeds = Addition { temperature_c: Some(5.0), ..Addition::rest_of(Ingredient::Sugar) };
    bench.method.stages = vec![stage(StageKind::Mix, 8.0), stage(StageKind::Fold, 2.0)];
    let readings = strong();
    let flours = [flour("Tarn Strong", Species::Wheat, 76.0, 100.0, &readings)];
    let heat = |bench: &Bench| {
        whole_sheet(bench, &flours, 10.0, 0.001).heat.expect("computed").answer.water_c
    };
    let mixed = heat(&bench);
    bench.method.stages[0].adds = vec![seeds];
    let cold = heat(&bench);
    assert!(cold > mixed, "cold sugar wants warmer water: {cold} {mixed}");
    bench.method.stages[0].adds = Vec::new();
    bench.method.stages[1].adds = vec![seeds];
    assert!((heat(&bench) - cold).abs() > 0.01, "in a fold it has no part in it");
}

proptest! {
    #[test]
    fn whatever_goes_in_when_it_adds_up(
        shares in prop::collection::vec(1.0..30.0, 0..4), kg in 1.0..500.0, coarse in 0..3,
    ) {
        let division = [0.001, 0.01, 0.1][coarse as usize];
        let mut bench = bench(rich(), Process::StraightBulk);
        bench.line.mixer.max_kg = 1000.0;
        bench.method.stages = vec![stage(StageKind::Mix, 4.0)];
        bench.method.stages.extend(shares.iter().map(|share| pours(2.0, &[(*share, None)])));
        let found = sheet(&bench, kg, division);
        let poured: f64 = takes(&found).iter().map(|item| item.kg).sum();
        prop_assert!((poured - found.dough_kg).abs() < 1e-6, "{poured} {}", found.dough_kg);
        prop_assert!(takes(&found).iter().all(|item| item.kg >= 0.0));
    }
}

#[test]
fn a_rest_before_the_mixer_takes_nothing() {
    let mut bench = bench(plain(), Process::LongCold);
    bench.method.stages = vec![
        stage(StageKind::Rest, 40.0),
        stage(StageKind::Mix, 8.0),
        stage(StageKind::Bake, 30.0),
    ];
    let found = sheet(&bench, 10.0, 0.001);
    assert!(found.steps[0].takes.is_empty());
    assert_eq!(found.steps[1].at_min, 40.0);
    assert_eq!(found.steps[1].takes.len(), 4);
}

#[test]
fn what_a_scale_cannot_show_is_told_with_the_scale_it_wants() {
    let bench = bench(rich(), Process::NoTime);
    let coarse = sheet(&bench, 150.0, 0.05);
    let acid = takes(&coarse).into_iter().find(|item| item.ingredient == Ingredient::AscorbicAcid);
    let acid = acid.expect("in the dough");
    assert!(acid.division_kg < 0.05 && acid.off_pct.abs() <= 2.0, "{acid:?}");
    assert!(
        coarse
            .cautions
            .iter()
            .any(|caution| matches!(caution, SheetCaution::FinerScale { items, .. } if items.contains(&"ascorbic acid".into())))
    );
    let fine = sheet(&bench, 150.0, 0.000_01);
    assert!(
        fine.cautions.iter().all(|message| !matches!(message, SheetCaution::FinerScale { .. })),
        "{:?}",
        fine.cautions
    );
}

#[test]
fn what_is_weighed_in_several_goes_is_added_up_flours_apart() {
    let bench = sponge_bench();
    let found = sheet(&bench, 50.0, 0.001);
    let kg = |items: &[ToWeigh]| -> f64 { items.iter().map(|item| item.kg).sum() };
    near(kg(&found.whole), found.dough_kg, 1e-9);
    let early: f64 = found.parts.iter().map(|part| part.kg).sum();
    near(kg(&found.final_dough) + early, found.dough_kg, 1e-9);
    for (at, item) in found.whole.iter().enumerate() {
        assert!(!item.is_ice, "ice is water");
        let same = |one: &ToWeigh| one.ingredient == item.ingredient && one.name == item.name;
        assert!(!found.whole[..at].iter().any(same), "{} twice", item.name);
    }
    let water = |items: &[ToWeigh]| -> f64 {
        items.iter().filter(|item| item.ingredient == Ingredient::Water).map(|item| item.kg).sum()
    };
    let poured: f64 = found.steps.iter().map(|step| water(&step.takes)).sum();
    near(water(&found.final_dough), poured, 1e-9);
}

#[test]
fn too_little_for_the_mixer_is_told_and_too_much_is_split() {
    let bench = bench(plain(), Process::StraightBulk);
    let little = sheet(&bench, 0.5, 0.001);
    assert!(
        little
            .cautions
            .iter()
            .any(|message| matches!(message, SheetCaution::SmallDough { dough_kg: 0.5, .. }))
    );
    let much = sheet(&bench, 50.0, 0.001);
    assert_eq!(much.doughs, 3, "20 kg at a time");
    near(much.dough_kg, 50.0 / 3.0, 0.001);
}

#[test]
fn whole_grain_waits_before_its_water_is_judged() {
    let bench = bench(plain(), Process::StraightBulk);
    let readings = whole();
    let flours = [flour("Holm Whole", Species::Wheat, 100.0, 100.0, &readings)];
    let found = whole_sheet(&bench, &flours, 10.0, 0.001).sheet.expect("a sheet");
    let held = found.cautions.iter().find(|one| matches!(one, SheetCaution::HoldBack { .. }));
    let held = held.expect("bran drinks slowly").to_string();
    assert!(held.contains("2.0 points") && held.contains("10 to 15 min"), "{held}");
}

#[test]
fn parts_are_made_before_and_meet_the_rest_at_the_first_mixing() {
    let bench = bench(spelt_sour(), Process::LongCold);
    let (spelt, wheat) = (whole(), strong());
    let flours = [
        flour("Rigg Spelt", Species::Spelt, 100.0, 70.0, &spelt),
        flour("Tarn Strong", Species::Wheat, 76.0, 30.0, &wheat),
    ];
    let found = whole_sheet(&bench, &flours, 12.0, 0.001).sheet.expect("a sheet");
    assert_eq!(found.parts.len(), 1);
    let part = &found.parts[0];
    near(part.takes.iter().map(|item| item.kg).sum(), part.kg, 1e-9);
    assert_eq!(found.steps[0].takes_parts, [0]);
    assert!(found.steps[1..].iter().all(|step| step.takes_parts.is_empty()));
    let flours: Vec<&str> = found.steps[0]
        .takes
        .iter()
        .filter(|item| item.ingredient == Ingredient::Flour)
        .map(|item| &*item.name)
        .collect();
    assert_eq!(flours, ["Rigg Spelt", "Tarn Strong"], "each flour by its name");
}

#[test]
fn ice_is_weighed_apart_from_the_water() {
    let mut bench = bench(plain(), Process::NoTime);
    bench.line.flour_c = 33.0;
    bench.line.tap_c = 26.0;
    bench.method.stages[0] = Stage { speed: Some(Speed::Fast), ..stage(StageKind::Mix, 14.0) };
    let found = sheet(&bench, 15.0, 0.001);
    let of =
        |name: &str| takes(&found).into_iter().find(|item| item.name == name).map(|item| item.kg);
    let (water, ice) = (of("water").expect("water"), of("ice").expect("ice"));
    assert!(ice > 0.5 && water > 0.5, "{water} and {ice}");
}

#[test]
fn a_step_that_can_hurt_says_so() {
    let mut bench = bench(plain(), Process::StraightBulk);
    bench.method.stages = vec![
        stage(StageKind::Mix, 8.0),
        stage(StageKind::Divide, 10.0),
        Stage { humidity_pct: Some(85.0), ..stage(StageKind::Proof, 60.0) },
        Stage { humidity_pct: Some(60.0), ..stage(StageKind::Proof, 5.0) },
        stage(StageKind::Bake, 30.0),
        stage(StageKind::Cool, 60.0),
    ];
    let found = sheet(&bench, 10.0, 0.001);
    let told: Vec<_> = found.steps.iter().map(|step| step.cautions.as_slice()).collect();
    let wanted: [&[StageCaution]; 6] = [
        &[StageCaution::FlourDust, StageCaution::MixerGuard],
        &[StageCaution::DividerGuard],
        &[StageCaution::WetFloor],
        &[],
        &[StageCaution::Steam],
        &[],
    ];
    assert_eq!(told, wanted);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(64))]

    #[test]
    fn whatever_is_scaled_the_sheet_sums_to_its_dough(
        kg in 0.6..60.0f64, division in prop::sample::select(vec![0.001, 0.005, 0.01, 0.05]),
    ) {
        let bench = bench(rich(), Process::NoTime);
        let found = sheet(&bench, kg, division);
        let sum: f64 = takes(&found).iter().map(|item| item.kg).sum();
        prop_assert!((sum - found.dough_kg).abs() < 1e-9);
        prop_assert!((found.dough_kg * f64::from(found.doughs) - kg).abs() < f64::from(found.doughs) * division);
        for item in takes(&found) {
            let divisions = item.kg / item.division_kg;
            prop_assert!((divisions - divisions.round()).abs() < 1e-6, "{item:?}");
            prop_assert!((item.kg - item.exact_kg).abs() <= item.division_kg + 1e-9);
        }
    }
}
