//! What a cause's action makes of a plan.

use crate::support::bench::{Bench, sponge_bench};
use crate::support::near;
use ironpeel_core::dough::Ingredient;
use ironpeel_core::fault::knowledge;
use ironpeel_core::method::{BakePhase, Method, StageKind};
use ironpeel_core::trial::{ChangedPlan, PlannedBefore, changed};

const BEFORE: PlannedBefore = PlannedBefore {
    hydration_pct: 63.5,
    dough_c: 26.0,
    sponge_c: 24.0,
    arrival_pct: Some((91.4, 80.0)),
};

fn made(bench: &Bench, cause: &str, before: &PlannedBefore) -> ChangedPlan {
    let cause = knowledge().cause(cause).expect("it is known");
    changed(&cause.change, &bench.formula, &bench.method, before).expect("a plan")
}

fn minutes(method: &Method, kind: StageKind) -> f64 {
    method.stages.iter().find(|stage| stage.kind == kind).expect("a stage").minutes
}

#[test]
fn water_and_temperature_are_set_in_hand_beside_what_was_planned() {
    let bench = sponge_bench();
    let back = made(&bench, "ds_trap_water", &BEFORE);
    assert_eq!((back.hydration_pct, back.dough_c), (Some(63.5), None), "back to the plan");
    assert_eq!((&back.formula, &back.method), (&bench.formula, &bench.method));
    assert_eq!(made(&bench, "water_high", &BEFORE).hydration_pct, Some(62.5));
    assert_eq!(made(&bench, "frz_started", &BEFORE).dough_c, Some(24.0));
    assert_eq!(
        made(&bench, "sponge_warm", &BEFORE).method.sponge_c,
        Some(22.5),
        "the house's, cooler"
    );
}

#[test]
fn a_bake_is_as_long_as_its_slowest_core_needs_and_its_phases_with_it() {
    let mut bench = sponge_bench();
    let phase = |minutes, top_c| BakePhase {
        minutes,
        top_c,
        bottom_c: None,
        steam_s: None,
        steam_until_core_c: None,
        damper_open: false,
        lid: false,
        tin_out: false,
        aid: None,
    };
    let bake = bench.method.stages.last_mut().expect("a bake");
    bake.programme = vec![phase(8.0, 240.0), phase(16.0, 210.0)];
    let longer = made(&bench, "bake_short", &BEFORE).method;
    // 24 · 91.4 / 80 = 27.42, in whole minutes.
    assert_eq!(minutes(&longer, StageKind::Bake), 27.0);
    let phases: Vec<f64> =
        longer.stages.iter().flat_map(|stage| &stage.programme).map(|one| one.minutes).collect();
    near(phases[0], 9.0, 1e-9);
    near(phases[1], 18.0, 1e-9);
    // Without a trace nobody knows how much; 6 % are of any bake.
    let unknown = PlannedBefore { arrival_pct: None, ..BEFORE };
    assert_eq!(made(&bench, "bake_short", &unknown).method, bench.method);
    assert_eq!(minutes(&made(&bench, "ds_high", &unknown).method, StageKind::Bake), 25.0);
}

#[test]
fn stages_and_ingredients_change_by_their_sizes() {
    let bench = sponge_bench();
    let proof = made(&bench, "proof_short", &BEFORE).method;
    assert_eq!(minutes(&proof, StageKind::Proof), 65.0, "60 and 8 %");
    let hot = made(&bench, "proof_hot", &BEFORE).method;
    let around = hot.stages.iter().find(|stage| stage.kind == StageKind::Proof).expect("a proof");
    assert_eq!(around.temperature_c, Some(34.0));
    let floor = made(&bench, "floor_short", &BEFORE).method;
    assert_eq!(floor.stages[2].minutes, 23.0, "the floor, not the sponge");

    let pct = |plan: &ChangedPlan, of| {
        let lines = plan.formula.formula.lines();
        lines.iter().find(|line| line.ingredient == of).map(|line| line.pct)
    };
    let yeast = made(&bench, "yeast_low", &BEFORE);
    near(pct(&yeast, Ingredient::InstantYeast).expect("yeast"), 1.1 * 1.15, 1e-9);
    near(yeast.formula.formula.parts()[0].lines[0].pct, 1.1 * 1.15, 1e-9);
    near(pct(&made(&bench, "sugar_high", &BEFORE), Ingredient::Sugar).expect("sugar"), 3.0, 1e-9);
    near(pct(&made(&bench, "softener_low", &BEFORE), Ingredient::Fat).expect("new"), 1.0, 1e-9);
    let binder = made(&bench, "binder_low", &BEFORE);
    assert_eq!((pct(&binder, Ingredient::Psyllium), binder.hydration_pct), (Some(0.5), Some(66.5)));
}

#[test]
fn every_action_in_figures_makes_a_plan() {
    let bench = sponge_bench();
    let in_figures = knowledge().causes.iter().filter(|cause| !cause.change.is_empty());
    let mut moved = 0;
    for cause in in_figures {
        let plan = made(&bench, &cause.key, &BEFORE);
        let documents = plan.formula != bench.formula || plan.method != bench.method;
        moved += usize::from(documents || plan.hydration_pct.or(plan.dough_c).is_some());
    }
    // All but the rests between divider and moulder, which this dough has none of.
    assert!(moved >= 26, "{moved}");
}
