//! What is made before the dough: its own water, heat, vessel and mixing.

use crate::support::bench::{Bench, EQUIPMENT, bench, flour, plain, sponge_bench, stage, strong};
use crate::support::near;
use ironpeel_core::chain::{ChangeReason, PreparationHeat, chain, changes, mixed_dough};
use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::dough::{Formula, FormulaDraft, Ingredient, PreparationKind, Vessel};
use ironpeel_core::flour::Species;
use ironpeel_core::heat::{Temperatures, Unreachable};
use ironpeel_core::method::{Equipment, MethodDraft, Process, Stage, StageKind, StageRole};
use ironpeel_core::schedule::{EachDough, PaceCause, Place, cadence};
use ironpeel_core::units::ValidationErrors;
use serde_json::{Value, json};

fn made(bench: &Bench) -> Vec<PreparationHeat> {
    let readings = strong();
    let flours = [flour("Tarn Strong", Species::Wheat, 76.0, 100.0, &readings)];
    chain(&bench.scenario(&flours)).preparations
}

fn of(kind: PreparationKind, stage: Stage) -> Stage {
    Stage { makes: Some(kind), ..stage }
}

/// A dough of 5 kg of which so much is made before.
fn with_part(part: &Value, process: Process) -> Bench {
    bench(
        json!({"lines": [{"ingredient": "flour", "pct": 100}, {"ingredient": "salt", "pct": 2},
            {"ingredient": "instant_yeast", "pct": 0.8}], "parts": [part]}),
        process,
    )
}

fn scald() -> Bench {
    let part = json!({"kind": "scald", "flour_pct": 10, "water_pct": 20});
    let mut bench = with_part(&part, Process::StraightBulk);
    bench.method.stages.insert(0, of(PreparationKind::Scald, stage(StageKind::Rest, 120.0)));
    bench
}

#[test]
fn a_sponge_has_the_water_or_ice_that_sets_it() {
    let mut bench = sponge_bench();
    let sponge = made(&bench).remove(0);
    assert_eq!((sponge.kind, sponge.vessel), (PreparationKind::Sponge, Vessel::MixerBowl));
    assert_eq!((sponge.target_c, sponge.ice_kg, sponge.reason), (Some(24.0), 0.0, None));
    near(sponge.made_c, 24.0, 1e-9);
    near(sponge.terms.iter().map(|term| term.kj).sum(), 0.0, 1e-6);
    // Nothing mixes it as a stage: four minutes at slow speed are taken.
    near(sponge.mixing_kj_per_kg, 4.0 * 0.9, 1e-9);
    let mixed = of(PreparationKind::Sponge, stage(StageKind::Mix, 6.0));
    bench.method.stages.insert(0, mixed);
    bench.method.stages[1].makes = Some(PreparationKind::Sponge);
    let longer = made(&bench).remove(0);
    near(longer.mixing_kj_per_kg, 6.0 * 0.9, 1e-9);
    assert!(longer.water_c < sponge.water_c, "two minutes more want colder water");
    (bench.line.flour_c, bench.line.tap_c, bench.method.sponge_c) = (34.0, 26.0, Some(20.0));
    let summer = made(&bench).remove(0);
    assert!(summer.ice_kg > 0.0 && summer.reason.is_none(), "{summer:?}");
    near(summer.made_c, 20.0, 1e-9);
    bench.line.water.max_ice_pct = 0.0;
    let without = made(&bench).remove(0);
    assert!(matches!(without.reason, Some(Unreachable::NoIce { .. })) && without.made_c > 20.0);
}

#[test]
fn a_scald_is_told_as_it_is_made_and_when_yeast_may_meet_it() {
    let mut bench = scald();
    let found = made(&bench).remove(0);
    assert_eq!((found.target_c, found.water_c, found.vessel), (None, 100.0, Vessel::Pot));
    // Flour at 21 °C under twice its mass of water that meets it at 90.
    assert!(found.made_c > 68.0 && found.made_c < 78.0, "{}", found.made_c);
    let cool = found.cool_after_min.expect("it is hot");
    assert!(cool.low < cool.typical && cool.typical < cool.high);
    let cooled = found.cooled_c.expect("it rests");
    assert_eq!((found.is_hot, found.meets_c), (cooled > 35.0, cooled));
    bench.method.stages[0].minutes = cool.typical;
    near(made(&bench).remove(0).cooled_c.expect("it rests"), 35.0, 1e-6);
    bench.method.stages[0].minutes = 10.0;
    assert!(made(&bench).remove(0).is_hot);
    // Stated, it is as it is stated; in no stage, as is usual.
    let part = json!({"kind": "scald", "flour_pct": 10, "water_pct": 20, "temperature_c": 28});
    near(made(&with_part(&part, Process::StraightBulk)).remove(0).meets_c, 28.0, 1e-9);
    let part = json!({"kind": "scald", "flour_pct": 10, "water_pct": 20});
    near(made(&with_part(&part, Process::StraightBulk)).remove(0).meets_c, 30.0, 1e-9);
    // A bare mass in the mixer's own bowl loses nothing to a pot.
    let part = json!({"kind": "scald", "flour_pct": 10, "water_pct": 20, "vessel": "mixer_bowl"});
    assert!(made(&with_part(&part, Process::StraightBulk)).remove(0).made_c > found.made_c);
}

#[test]
fn the_final_dough_meets_what_has_cooled() {
    let readings = strong();
    let flours = [flour("Tarn Strong", Species::Wheat, 76.0, 100.0, &readings)];
    let mut bench = scald();
    let water =
        |bench: &Bench| chain(&bench.scenario(&flours)).heat.expect("a balance").answer.water_c;
    let soon = water(&bench);
    bench.method.stages[0].minutes = 600.0;
    assert!(water(&bench) > soon, "what has cooled longer wants warmer water");
}

#[test]
fn a_soaker_takes_water_as_it_comes_and_others_what_sets_them() {
    for (part, water_c, target_c) in [
        (json!({"kind": "soaker", "flour_pct": 5, "water_pct": 10}), Some(14.0), None),
        (
            json!({"kind": "soaker", "flour_pct": 5, "water_pct": 10, "water_c": 60}),
            Some(60.0),
            None,
        ),
        (json!({"kind": "starter", "flour_pct": 15, "water_pct": 15}), None, Some(26.0)),
        (
            json!({"kind": "starter", "flour_pct": 15, "water_pct": 15, "set_c": 28}),
            None,
            Some(28.0),
        ),
        (json!({"kind": "autolyse", "flour_pct": 80, "water_pct": 50}), None, Some(23.0)),
        (json!({"kind": "scald", "flour_pct": 10, "water_pct": 20, "set_c": 65}), None, Some(65.0)),
    ] {
        let found = made(&with_part(&part, Process::StraightBulk)).remove(0);
        assert_eq!(found.target_c, target_c, "{part}");
        if let Some(water_c) = water_c {
            near(found.water_c, water_c, 1e-9);
        } else {
            near(found.made_c, target_c.expect("stated"), 1e-9);
        }
    }
    let both = json!({"lines": [{"ingredient": "flour", "pct": 100}], "parts": [
        {"kind": "starter", "flour_pct": 15, "water_pct": 15, "set_c": 28, "water_c": 30}]});
    let draft: FormulaDraft = serde_json::from_value(both).expect("a draft");
    let faults = Formula::check(&draft).expect_err("one follows from the other").0;
    assert_eq!(faults[0].field, "parts[0].set_c");
    for field in ["set_c", "water_c"] {
        let sponge = json!({"lines": [{"ingredient": "flour", "pct": 100}], "parts": [
            {"kind": "sponge", "flour_pct": 65, "water_pct": 39, field: 26}]});
        let draft: FormulaDraft = serde_json::from_value(sponge).expect("a draft");
        let faults = Formula::check(&draft).expect_err("its method says it").0;
        assert_eq!(faults[0].field, format!("parts[0].{field}"));
    }
}

#[test]
fn the_sheet_weighs_a_preparation_where_it_is_mixed_with_its_water_as_warm_as_it_must_be() {
    let readings = strong();
    let flours = [flour("Tarn Strong", Species::Wheat, 76.0, 100.0, &readings)];
    let mut bench = sponge_bench();
    let mixed = of(PreparationKind::Sponge, stage(StageKind::Mix, 4.0));
    bench.method.stages.insert(0, mixed);
    (bench.line.flour_c, bench.line.tap_c, bench.method.sponge_c) = (34.0, 26.0, Some(20.0));
    let found = chain(&bench.scenario(&flours));
    let (sheet, heat) = (found.sheet.expect("a sheet"), &found.preparations[0]);
    assert_eq!((sheet.steps[0].makes_parts.as_slice(), sheet.steps[0].takes.len()), (&[0][..], 0));
    assert_eq!(sheet.steps[2].takes_parts, [0], "it goes in where the dough is mixed");
    let part = &sheet.parts[0];
    let ice = part.takes.iter().find(|item| item.is_ice).expect("ice");
    near(ice.kg, heat.ice_kg, 0.001);
    let water = &part.takes[0];
    assert_eq!((&*water.name, water.temperature_c), ("water", Some(heat.water_c)));
    near(part.made_c, 20.0, 1e-9);
    let kg: f64 = part.takes.iter().map(|item| item.kg).sum();
    near(kg, part.kg, 1e-9);

    let scald = chain(&scald().scenario(&flours)).sheet.expect("a sheet");
    assert_eq!(scald.parts[0].takes[0].name, "boiling water");
    assert_eq!(scald.parts[0].cool_c, 35.0);
}

#[test]
fn a_bowl_and_the_room_take_from_a_dough_made_by_hand() {
    let readings = strong();
    let flours = [flour("Tarn Strong", Species::Wheat, 76.0, 100.0, &readings)];
    let water = |kind: &str| {
        let mut bench = bench(plain(), Process::StraightBulk);
        bench.line.mixer.kind = kind.into();
        (bench.line.room_c, bench.method.target_c) = (17.0, 26.0);
        let scenario = bench.scenario(&flours);
        let found = chain(&scenario);
        let answer = found.heat.as_ref().expect("a balance").answer.clone();
        // Measured as it was planned, it tells the energy it was planned with.
        let measured = Temperatures {
            flour_c: 21.0,
            room_c: 17.0,
            water_c: answer.water_c,
            preferment_c: None,
            dough_c: answer.dough_c,
            ice_share_pct: 0.0,
            ice_c: 0.0,
        };
        let mixed = mixed_dough(&scenario, &found).expect("masses");
        let energy = mixed.mixing_kj_per_kg(&measured).expect("something is mixed");
        near(energy, found.method.mixing_kj_per_kg, 1e-6);
        let around = answer.terms.iter().any(|term| term.name == "vessel and room");
        (answer.water_c, around)
    };
    let ((spiral, losing), (hand, loses)) = (water("spiral"), water("hand"));
    assert!(hand > spiral + 1.0, "{hand} beside {spiral}");
    assert_eq!((losing, loses), (false, true));
}

const LINE: Equipment = Equipment { turn_min: 3.0, troughs: 24, trough_kg: 250.0, ..EQUIPMENT };
const DOUGH: EachDough = EachDough { kg: 450.0, sponge_kg: 270.0, pieces: 20.0, piece_kg: 0.9 };

#[test]
fn a_sponges_mixing_takes_the_mixer_and_doughs_keep_out_of_its_way() {
    let house = Coefficients::default();
    let mut bench = sponge_bench();
    let mixed = of(PreparationKind::Sponge, stage(StageKind::Mix, 4.0));
    bench.method.stages.insert(0, mixed);
    assert_eq!(
        bench.method.roles()[..3],
        [StageRole::PreparationMixing, StageRole::Sponge, StageRole::Mixing]
    );
    assert_eq!((bench.method.first_mix(), bench.method.mixing_min()), (2, 9.0));
    for minutes in [200.0, 203.0, 210.0, 217.0] {
        bench.method.stages[1].minutes = minutes;
        let found = cadence(&bench.method, &LINE, DOUGH, &house);
        let place = found.paces.iter().find(|pace| pace.place == Place::Mixer).expect("a mixer");
        let waits_min = found.sponge_waits_min;
        let sponge_waits_min = Some(waits_min);
        let cause = PaceCause::Mixer { mixing_min: 13.0, turn_min: 6.0, sponge_waits_min };
        assert_eq!(place.message, cause);
        assert_eq!(place.minutes, 19.0, "no more than it mixes and turns");
        // Dough after dough, no mixing of one meets that of another.
        let taken = |dough: f64| {
            let from = dough * found.minutes;
            [
                (from, from + 7.0),
                (from + 4.0 + minutes + waits_min, from + 16.0 + minutes + waits_min),
            ]
        };
        let mut all: Vec<_> = (0..60).flat_map(|dough| taken(f64::from(dough))).collect();
        all.sort_by(|one, other| one.0.total_cmp(&other.0));
        for pair in all.windows(2) {
            assert!(pair[0].1 <= pair[1].0 + 1e-6, "{minutes}: {pair:?} every {}", found.minutes);
        }
    }
}

#[test]
fn what_is_made_before_is_made_before() {
    let draft = |stages: Value| -> ValidationErrors {
        let draft: MethodDraft = serde_json::from_value(
            json!({"process": "sponge_dough", "target_c": 26, "stages": stages}),
        )
        .expect("a draft");
        let mut faults = ValidationErrors::default();
        draft.check("", &mut faults);
        faults
    };
    let mix = json!({"kind": "mix", "label": "Mix", "minutes": 5});
    let sponge = json!({"kind": "mix", "label": "Sponge", "minutes": 4, "makes": "sponge"});
    let proof = json!({"kind": "proof", "label": "Proof", "minutes": 50, "makes": "sponge"});
    assert_eq!(draft(json!([sponge, mix])).0, []);
    assert_eq!(draft(json!([sponge])).0[0].message, "a method needs a mixing stage");
    for (stages, at) in
        [(json!([mix, sponge]), "stages[1].makes"), (json!([mix, proof]), "stages[1].makes")]
    {
        assert_eq!(draft(stages).0[0].field, at);
    }
}

#[test]
fn a_bake_lasts_as_long_as_its_phases_and_a_loaf_is_sliced() {
    let draft = |minutes: f64, phases: Value| -> (Vec<String>, usize) {
        let draft: MethodDraft =
            serde_json::from_value(json!({"process": "no_time", "target_c": 26,
            "stages": [{"kind": "mix", "label": "Mix", "minutes": 5},
                {"kind": "bake", "label": "Bake", "minutes": minutes, "programme": phases},
                {"kind": "slice", "label": "Slice", "minutes": 5}]}))
            .expect("a draft");
        let mut faults = ValidationErrors::default();
        let method = draft.check("", &mut faults);
        assert_eq!(method.roles()[2], StageRole::Slicing);
        (faults.0.into_iter().map(|fault| fault.field).collect(), method.stages[1].programme.len())
    };
    let phases = json!([{"minutes": 6, "top_c": 230, "bottom_c": 220, "steam_s": 10},
        {"minutes": 18.5, "top_c": 210, "damper_open": true}]);
    assert_eq!(draft(24.5, phases.clone()), (vec![], 2));
    assert_eq!(draft(24.0, phases).0, ["stages[1].programme"]);
    assert_eq!(
        draft(24.0, json!([{"minutes": 24, "top_c": 900}])).0,
        ["stages[1].programme[0].top_c"]
    );
    let bowl = json!([{"minutes": 14, "top_c": 245, "lid": true, "aid": "hot_vessel", "steam_s": 5,
        "steam_until_core_c": 80}, {"minutes": 10, "top_c": 225, "tin_out": true}]);
    assert_eq!(draft(24.0, bowl), (vec![], 2));
    let back =
        json!([{"minutes": 14, "top_c": 245, "tin_out": true}, {"minutes": 10, "top_c": 225}]);
    assert_eq!(draft(24.0, back).0, ["stages[1].programme[1].tin_out"]);
    let late = json!([{"minutes": 24, "top_c": 245, "steam_s": 5, "steam_until_core_c": 120}]);
    assert_eq!(draft(24.0, late).0, ["stages[1].programme[0].steam_until_core_c"]);
}

#[test]
fn yeast_is_dissolved_in_a_part_of_the_water() {
    use ironpeel_core::method::OptionalStep;
    let readings = strong();
    let flours = [flour("Tarn Strong", Species::Wheat, 76.0, 100.0, &readings)];
    let mut bench = bench(plain(), Process::StraightBulk);
    let plain = chain(&bench.scenario(&flours)).sheet.expect("a sheet").dough_kg;
    bench.method = bench.method.with(OptionalStep::YeastProofed, true, &Coefficients::default());
    let sheet = chain(&bench.scenario(&flours)).sheet.expect("a sheet");
    let takes = &sheet.steps[0].takes;
    let goes: Vec<_> = takes.iter().map(|item| (item.ingredient, item.temperature_c)).collect();
    assert_eq!(goes, [(Ingredient::Water, Some(35.0)), (Ingredient::InstantYeast, None)]);
    let all = sheet.steps.iter().flat_map(|step| &step.takes);
    let water: f64 =
        all.filter(|item| item.ingredient == Ingredient::Water).map(|item| item.kg).sum();
    near(takes[0].kg / water, 0.10, 0.001);
    near(sheet.dough_kg, plain, 1e-9);
    let back = bench.method.with(OptionalStep::YeastProofed, false, &Coefficients::default());
    assert!(back.stages.iter().all(|stage| stage.adds.is_empty()));
}

#[test]
fn water_that_is_held_back_is_weighed_by_itself() {
    let readings = strong();
    let flours = [flour("Tarn Strong", Species::Wheat, 100.0, 100.0, &readings)];
    let mut bench = bench(plain(), Process::StraightBulk);
    bench.method.stages.insert(1, stage(StageKind::Mix, 3.0));
    let found = chain(&bench.scenario(&flours));
    let points = found.water.expect("computed").hold_back.expect("bran drinks late").points;
    let (sheet, dough) = (found.sheet.expect("a sheet"), found.dough.expect("a dough"));
    let held = sheet.steps[1].takes.iter().find(|item| item.name == "water held back");
    near(held.expect("its own line").kg, points * dough.flour_kg / 100.0, 0.001);
    let water = sheet.steps[0].takes.iter().find(|item| item.name == "water").expect("water");
    near(water.kg + held.expect("its own line").kg, dough.water_kg, 0.002);
}

#[test]
fn a_dough_that_rests_between_two_mixings_gives_its_heat_to_the_room_and_the_water_makes_up_for_it()
{
    let readings = strong();
    let flours = [flour("Tarn Strong", Species::Wheat, 76.0, 100.0, &readings)];
    let mut bench = bench(plain(), Process::LongCold);
    let heat = |bench: &Bench| chain(&bench.scenario(&flours)).heat.expect("it is mixed");
    bench.line.room_c = 12.0;
    bench.method.stages.insert(1, stage(StageKind::Mix, 6.0));
    let straight = heat(&bench);
    assert_eq!(straight.rests, []);
    bench.method.stages.insert(1, stage(StageKind::Rest, 40.0));
    let rested = heat(&bench);
    let [rest] = rested.rests[..] else { panic!("one rest between two mixings") };
    near(rest.kg, 5.0, 0.01);
    // 5 kg keep their heat for 5^⅔ hours.
    let left = (rest.rested_c - 12.0) / (rest.left_c - 12.0);
    near(left, (-(40.0 / 60.0) / 5.0_f64.powf(2.0 / 3.0)).exp(), 1e-9);
    let capacity = rest.lost_kj / (rest.left_c - rest.rested_c);
    // What the second mixing gives it brings it to its target.
    near(rest.rested_c + 6.0 * 0.9 * rest.kg / capacity, 25.0, 1e-3);
    let water = rested.answer.water_kg * 4.186;
    near(rested.answer.water_c - straight.answer.water_c, rest.lost_kj / water, 1e-3);
    // Measured as it was planned, it tells the energy it was planned with.
    let scenario = bench.scenario(&flours);
    let planned = chain(&scenario);
    let measured = Temperatures {
        flour_c: 21.0,
        room_c: 12.0,
        water_c: rested.answer.water_c,
        preferment_c: None,
        dough_c: 25.0,
        ice_share_pct: 0.0,
        ice_c: 0.0,
    };
    let mixed = mixed_dough(&scenario, &planned).expect("masses");
    let energy = mixed.mixing_kj_per_kg(&measured).expect("something is mixed");
    near(energy, planned.method.mixing_kj_per_kg, 1e-3);
    // A warm room warms it, and a change says so with what it comes to.
    let mut warm = bench.clone();
    warm.line.room_c = 40.0;
    let other = warm.scenario(&flours);
    let hotter = chain(&other);
    assert!(hotter.heat.as_ref().expect("it is mixed").rests[0].lost_kj < 0.0);
    let moved = changes((&scenario, &planned), (&other, &hotter));
    let water = moved.iter().find(|one| one.figure == "water_c").expect("colder water");
    let told: f64 = water.because.iter().map(|one| one.delta).sum();
    near(told, water.delta, 0.02);
    assert!(water.because.iter().any(|one| one.reason == ChangeReason::Surroundings));
}
