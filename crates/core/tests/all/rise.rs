//! How doughs rise through their methods.

use crate::support::bench::{
    Bench, bench, flour, plain, readings, spelt_sour, sponge_bench, sponge_dough, stage, strong,
    whole,
};
use crate::support::near;
use ironpeel_core::chain::{
    Rise, RiseAssumption, RiseError, RiseMiss, ScenarioFlour, chain, derivations, rise,
    seasonal_yeast, yeast_wanted,
};
use ironpeel_core::coefficient::{Derivation, Origin};
use ironpeel_core::flour::{Property, Readings, Species};
use ironpeel_core::method::{Process, Stage, StageKind};
use serde_json::json;

fn risen(bench: &Bench, flours: &[ScenarioFlour<'_>]) -> Result<Rise, RiseError> {
    let scenario = bench.scenario(flours);
    rise(&scenario, &chain(&scenario))
}

fn white(readings: &Readings) -> [ScenarioFlour<'_>; 1] {
    [flour("Tarn Strong", Species::Wheat, 76.0, 100.0, readings)]
}

fn at(kind: StageKind, minutes: f64, temperature_c: f64) -> Stage {
    Stage { temperature_c: Some(temperature_c), ..stage(kind, minutes) }
}

#[test]
fn a_straight_dough_rises_stage_by_stage_to_the_oven() {
    let flours = strong();
    let bench = bench(plain(), Process::StraightBulk);
    let found = risen(&bench, &white(&flours)).expect("it has yeast");
    let kinds: Vec<StageKind> = found.stages.iter().map(|stage| stage.kind).collect();
    assert_eq!(kinds, [StageKind::Mix, StageKind::Rest, StageKind::Proof], "not into the oven");
    assert!(found.stages.windows(2).all(|two| two[0].to_h == two[1].from_h));
    assert!(found.stages.windows(2).all(|two| two[0].rise_pct <= two[1].rise_pct));
    near(found.stages[2].to_h, 188.0 / 60.0, 1e-9);
    near(found.stages[0].dough_c, 25.0, 0.3);
    assert_eq!((found.yeast_idy_pct, found.sour_pct), (0.8, 0.0));
    assert_eq!(found.assumed, [RiseAssumption::FallingNumber(300.0)], "the certificate lacks it");
    let last = found.series.last().expect("a moment");
    near(last.rise_pct, found.stages[2].rise_pct, 1e-9);
    assert!(found.stages.iter().all(|stage| stage.sugar_pct > 0.0), "the crust wants some");
}

#[test]
fn a_stage_that_is_predicted_to_miss_the_rise_it_ends_at_says_so() {
    let flours = strong();
    let mut bench = bench(plain(), Process::StraightBulk);
    let told = |bench: &Bench| -> Vec<Option<RiseMiss>> {
        let found = risen(bench, &white(&flours)).expect("it has yeast");
        found.stages.into_iter().map(|stage| stage.misses).collect()
    };
    bench.method.stages[1].ends_when = "twice as high, doubled".into();
    assert_eq!(told(&bench), [None, None, None], "what a stage says in words is nobody's number");
    let proof = risen(&bench, &white(&flours)).expect("it has yeast").stages[2].rise_pct;
    bench.method.stages[2].ends_at = Some(proof);
    assert_eq!(told(&bench)[2], None, "met");
    bench.method.stages[2].ends_at = Some(3.0 * proof);
    let miss = told(&bench)[2].expect("a third of what it is to be");
    assert_eq!(miss, RiseMiss { wanted_pct: 3.0 * proof, predicted_pct: proof });
}

#[test]
fn what_the_certificate_states_is_used() {
    let bench = bench(plain(), Process::StraightBulk);
    let mut stated = strong();
    stated.0.extend(readings(&[(Property::FallingNumber, 180.0)]).0);
    let quick = risen(&bench, &white(&stated)).expect("it has yeast");
    assert!(quick.assumed.is_empty());
    let usual = strong();
    let slow = risen(&bench, &white(&usual)).expect("it has yeast");
    let sugar = |found: &Rise| found.stages.last().expect("a stage").sugar_pct;
    assert!(sugar(&quick) > sugar(&slow), "amylase makes sugar of damaged starch");
}

#[test]
fn a_fold_lets_some_go_and_a_divider_all() {
    let flours = strong();
    let rise_after = |kind: StageKind, machine: bool| {
        let mut bench = bench(plain(), Process::StraightBulk);
        bench.method.machine_divided = machine;
        bench.method.stages =
            vec![stage(StageKind::Mix, 8.0), at(StageKind::Rest, 90.0, 26.0), stage(kind, 1.0)];
        risen(&bench, &white(&flours)).expect("it has yeast").stages[2].rise_pct
    };
    let rest = rise_after(StageKind::Rest, false);
    let fold = rise_after(StageKind::Fold, false);
    let hands = rise_after(StageKind::Divide, false);
    let machine = rise_after(StageKind::Divide, true);
    assert!(rest > fold && fold > hands && hands > machine, "{rest} {fold} {hands} {machine}");
    assert!(machine < 2.0, "a minute's rise is all there is: {machine}");
    near(fold / rest, 0.75, 0.01);
}

#[test]
fn each_set_of_folds_lets_gas_go_and_rests_after_it() {
    let flours = strong();
    let with = |sets: Option<u8>| {
        let mut bench = bench(plain(), Process::StraightBulk);
        let folds = Stage { fold_sets: sets, ..at(StageKind::Fold, 90.0, 24.0) };
        bench.method.stages.insert(1, folds);
        risen(&bench, &white(&flours)).expect("it has yeast")
    };
    let (once, thrice) = (with(None), with(Some(3)));
    let folds = |found: &Rise| -> Vec<(String, f64)> {
        let stages = found.stages.iter().filter(|stage| stage.kind == StageKind::Fold);
        stages.map(|stage| (stage.label.clone(), stage.to_h - stage.from_h)).collect()
    };
    assert_eq!(folds(&once).len(), 1);
    assert_eq!(folds(&thrice).len(), 3);
    for (number, (label, hours)) in (1..).zip(folds(&thrice)) {
        assert!(label.ends_with(&format!(", {number} of 3")), "{label}");
        near(hours, 0.5, 1e-9);
    }
    let end = |found: &Rise| found.stages.last().expect("a stage").rise_pct;
    assert!(end(&thrice) < end(&once), "more of it is let go");
}

#[test]
fn a_sponge_ferments_before_the_mixer_and_wakes_the_yeast() {
    let flours = strong();
    let bench = sponge_bench();
    let found = risen(&bench, &white(&flours)).expect("it has yeast");
    let sponge = found.sponge.as_ref().expect("a sponge");
    near(sponge.hours, 3.5, 1e-9);
    near(sponge.set_c, 24.0, 1e-9);
    assert!(sponge.end_c > 26.0, "gas warms it: {}", sponge.end_c);
    assert!(sponge.end_rise_pct > 150.0, "{}", sponge.end_rise_pct);
    assert_eq!(found.stages[0].kind, StageKind::Mix, "the trough is not the final dough's");

    let mut straight = sponge_bench();
    straight.formula.formula = crate::support::formula(json!({"lines": sponge_dough()["lines"]}));
    let without = risen(&straight, &white(&flours)).expect("it has yeast");
    assert!(without.sponge.is_none());
    assert!(
        found.stages[1].rise_pct > without.stages[1].rise_pct,
        "its yeast is awake when it meets the rest"
    );
    let sugar = |found: &Rise| found.stages[0].sugar_pct;
    assert!(sugar(&found) < sugar(&without), "the sponge has eaten of it");
    assert!(sugar(&found) > 3.0, "the sugar of the final dough is still there");
}

#[test]
fn a_sour_rises_slowly_and_its_jar_tells_when() {
    let (spelt, wheat) = (whole(), strong());
    let flours = [
        flour("Rigg Spelt", Species::Spelt, 100.0, 70.0, &spelt),
        flour("Tarn Strong", Species::Wheat, 76.0, 30.0, &wheat),
    ];
    let mut bench = bench(spelt_sour(), Process::LongCold);
    bench.method.stages = vec![stage(StageKind::Mix, 6.0), at(StageKind::Rest, 720.0, 25.0)];
    let found = risen(&bench, &flours).expect("it has a sour");
    assert_eq!((found.yeast_idy_pct, found.sour_pct), (0.0, 15.0));
    let times: Vec<f64> =
        found.jar.iter().map(|mark| mark.at_h.expect("in twelve hours")).collect();
    assert!(times.is_sorted(), "{times:?}");
    assert!(times[0] > 3.0, "a sour takes its time: {times:?}");
    let short = {
        bench.method.stages[1].minutes = 60.0;
        risen(&bench, &flours).expect("it has a sour")
    };
    assert!(short.jar.iter().all(|mark| mark.at_h.is_none()), "not in an hour");
}

#[test]
fn a_speed_kept_for_a_starter_moves_its_dough_until_tonight_s_readings_say_otherwise() {
    let (spelt, wheat) = (whole(), strong());
    let flours = [
        flour("Rigg Spelt", Species::Spelt, 100.0, 70.0, &spelt),
        flour("Tarn Strong", Species::Wheat, 76.0, 30.0, &wheat),
    ];
    let end = |kept: Option<f64>, tonight: Option<f64>| {
        let mut typed = spelt_sour();
        if let Some(rate) = kept {
            typed["parts"][0]["rate"] = json!(rate);
        }
        let mut bench = bench(typed, Process::LongCold);
        bench.method.stages = vec![stage(StageKind::Mix, 6.0), at(StageKind::Rest, 240.0, 25.0)];
        let mut scenario = bench.scenario(&flours);
        scenario.run_settings.rate = tonight;
        let found = rise(&scenario, &chain(&scenario)).expect("it has a starter");
        found.stages.last().expect("a stage").rise_pct
    };
    assert!(end(Some(1.3), None) > end(None, None));
    near(end(Some(1.3), None), end(None, Some(1.3)), 1e-9);
    near(end(Some(1.3), Some(0.8)), end(None, Some(0.8)), 1e-9);
}

#[test]
fn forms_of_yeast_are_worth_what_they_are() {
    let flours = strong();
    let yeast = |ingredient: &str, pct: f64| {
        let lines = json!({"lines": [{"ingredient": "flour", "pct": 100},
            {"ingredient": ingredient, "pct": pct}, {"ingredient": "salt", "pct": 2}]});
        risen(&bench(lines, Process::StraightBulk), &white(&flours))
            .expect("it has yeast")
            .yeast_idy_pct
    };
    near(yeast("instant_yeast", 0.8), 0.8, 1e-12);
    near(yeast("active_dry_yeast", 1.0), 0.8, 1e-12);
    near(yeast("fresh_yeast", 2.4), 0.8, 1e-12);
}

#[test]
fn what_cannot_rise_says_why() {
    let flours = strong();
    let lines =
        json!({"lines": [{"ingredient": "flour", "pct": 100}, {"ingredient": "salt", "pct": 2}]});
    let flat = risen(&bench(lines, Process::StraightBulk), &white(&flours));
    assert_eq!(flat.expect_err("nothing makes gas"), RiseError::NoCulture);
    let stopped = risen(&bench(plain(), Process::StraightBulk), &[]);
    assert_eq!(stopped.expect_err("no flour"), RiseError::NoDough);
    let mut at_once = bench(plain(), Process::NoTime);
    at_once.method.stages = vec![stage(StageKind::Mix, 0.0), stage(StageKind::Bake, 20.0)];
    assert_eq!(risen(&at_once, &white(&flours)).expect_err("no time"), RiseError::NoTime);
}

#[test]
fn yeast_is_found_for_the_rise_wanted_at_the_oven() {
    let flours = strong();
    for mut bench in [bench(plain(), Process::StraightBulk), sponge_bench()] {
        let lots = white(&flours);
        let found = {
            let scenario = bench.scenario(&lots);
            yeast_wanted(&scenario, &chain(&scenario), 80.0)
                .expect("it has yeast")
                .expect("reachable")
        };
        let was = risen(&bench, &lots).expect("it has yeast").yeast_idy_pct;
        let mut draft = serde_json::to_value(json!({
            "lines": bench.formula.formula.lines(), "parts": bench.formula.formula.parts(),
        }))
        .expect("JSON");
        draft["lines"][1]["pct"] = json!(found);
        if let Some(part) = draft["parts"].get_mut(0) {
            let pct = part["lines"][0]["pct"].as_f64().expect("a number");
            part["lines"][0]["pct"] = json!(pct * found / was);
        }
        bench.formula.formula = crate::support::formula(draft);
        let again = risen(&bench, &lots).expect("it has yeast");
        near(again.stages.last().expect("a stage").rise_pct, 80.0, 0.1);
    }
    let bench = bench(plain(), Process::StraightBulk);
    let lots = white(&flours);
    let scenario = bench.scenario(&lots);
    let none = yeast_wanted(&scenario, &chain(&scenario), 5000.0).expect("it has yeast");
    assert!(none.is_err(), "no dough rises fifty times");
}

#[test]
fn warm_days_need_half_the_yeast() {
    let flours = strong();
    let mut bench = bench(plain(), Process::StraightBulk);
    bench.method.stages = vec![
        stage(StageKind::Mix, 8.0),
        stage(StageKind::Rest, 180.0),
        at(StageKind::Rest, 600.0, 4.0),
        at(StageKind::Proof, 60.0, 28.0),
    ];
    let lots = white(&flours);
    let scenario = bench.scenario(&lots);
    let table = seasonal_yeast(&scenario, &chain(&scenario)).expect("it has yeast");
    assert_eq!((table[0].room_c, table[table.len() - 1].room_c), (14.0, 34.0));
    let dose: Vec<f64> = table.iter().filter_map(|row| row.yeast_idy_pct).collect();
    assert!(dose.is_sorted_by(|one, other| one > other), "{dose:?}");
    let usual = table.iter().find(|row| row.room_c == 22.0).and_then(|row| row.yeast_idy_pct);
    near(usual.expect("tonight's room"), 0.8, 0.01);
}

#[test]
fn a_rise_and_a_sponge_answer_why() {
    let flours = strong();
    let flours = white(&flours);
    let bench = sponge_bench();
    let scenario = bench.scenario(&flours);
    let found = derivations(&scenario, &chain(&scenario));
    let (rise, sponge) = (found.rise.expect("it has yeast"), found.sponge.expect("it has one"));
    let yeast = |why: &Derivation| {
        why.inputs.iter().find(|one| one.name == "yeast, as instant").map(|one| one.value)
    };
    near(yeast(&sponge).expect("an input"), yeast(&rise).expect("an input") / 0.65, 1e-9);
    for why in [&rise, &sponge] {
        assert!(why.coefficients.iter().all(|one| one.low <= one.value && one.value <= one.high));
        assert!(why.coefficients.iter().any(|one| one.origin == Origin::Physics));
        assert!(why.coefficients.iter().any(|one| one.origin == Origin::House));
    }
    let plain = bench_of_no_gas();
    let scenario = plain.scenario(&flours);
    let none = derivations(&scenario, &chain(&scenario));
    assert!(none.rise.is_none() && none.sponge.is_none());
}

/// A dough with neither yeast nor sour.
fn bench_of_no_gas() -> Bench {
    let lines =
        json!({"lines": [{"ingredient": "flour", "pct": 100}, {"ingredient": "salt", "pct": 2}]});
    bench(lines, Process::StraightBulk)
}
