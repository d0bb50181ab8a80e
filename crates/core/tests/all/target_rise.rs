//! What alone brings a dough to a rise, and when its stages end by a number.

use crate::support::bench::{
    Bench, bench, flour, plain, spelt_sour, sponge_bench, stage, strong, whole,
};
use crate::support::{formula, near};
use chrono::{DateTime, Utc};
use ironpeel_core::chain::{
    ScenarioFlour, StageEnd, TargetRise, TargetRiseSolutions, chain, rise, stage_ends, target_rise,
};
use ironpeel_core::flour::{Readings, Species};
use ironpeel_core::method::{AmbientPoint, EndPoint, MethodDraft, Process, Stage, StageKind};
use ironpeel_core::units::ValidationErrors;
use serde_json::{Value, json};
use uuid::Uuid;

fn white(readings: &Readings) -> [ScenarioFlour<'_>; 1] {
    [flour("Tarn Strong", Species::Wheat, 76.0, 100.0, readings)]
}

fn at_oven(bench: &Bench, flours: &[ScenarioFlour<'_>]) -> f64 {
    let scenario = bench.scenario(flours);
    let found = rise(&scenario, &chain(&scenario)).expect("it has yeast");
    found.stages.last().expect("stages").rise_pct
}

fn solved(
    bench: &Bench,
    flours: &[ScenarioFlour<'_>],
    rise_pct: f64,
    after_h: Option<f64>,
    wanted_at: Option<DateTime<Utc>>,
) -> TargetRiseSolutions {
    let scenario = bench.scenario(flours);
    let target = TargetRise { rise_pct, after_h, wanted_at };
    target_rise(&scenario, &chain(&scenario), target).expect("it has yeast").0
}

#[test]
fn what_it_has_now_is_what_the_rise_it_has_now_wants() {
    let flours = strong();
    let flours = white(&flours);
    let bench = bench(plain(), Process::StraightBulk);
    let now = at_oven(&bench, &flours);
    let same = solved(&bench, &flours, now, None, None);
    near(same.yeast_idy_pct.expect("the yeast it has"), 0.8, 1e-3);
    near(same.room_c.expect("the room it has"), 22.0, 0.05);
    let scenario = bench.scenario(&flours);
    let heat = chain(&scenario).heat.expect("it is mixed").answer;
    let water = same.water.expect("the water it has");
    near(water.dough_c, heat.dough_c, 0.05);
    near(water.water_c, heat.water_c, 0.2);
    assert_eq!((same.starter, same.mixing_from), (None, None));
}

#[test]
fn more_of_anything_brings_it_there_sooner_and_the_hour_counts_back() {
    let flours = strong();
    let flours = white(&flours);
    let bench = bench(plain(), Process::StraightBulk);
    let now = at_oven(&bench, &flours);
    let morning: DateTime<Utc> = "2026-11-28T05:00:00Z".parse().expect("a moment");
    let less = solved(&bench, &flours, now * 0.9, None, Some(morning));
    let same = solved(&bench, &flours, now, None, None);
    let before = (morning - less.mixing_from.expect("an hour was asked")).num_minutes() as f64;
    near(before, 60.0 * less.after_h.expect("before the oven"), 0.5);
    assert!(less.after_h < same.after_h && less.room_c < same.room_c);
    let long = solved(&bench, &flours, now, Some(8.0), Some(morning));
    assert!(long.yeast_idy_pct < same.yeast_idy_pct, "more time wants less yeast");
    assert_eq!((morning - long.mixing_from.expect("an hour was asked")).num_minutes(), 480);
    let never = solved(&bench, &flours, 5000.0, None, Some(morning));
    assert_eq!((never.room_c, never.after_h, never.water), (None, None, None));
    let later = solved(&bench, &flours, now * 1.2, None, None).after_h.expect("it goes on rising");
    assert!(later > same.after_h.expect("at the oven"), "beyond the planned oven if need be");
}

#[test]
fn how_much_starter_for_eight_hours_is_one_question() {
    let flours = strong();
    let flours = white(&flours);
    let bench = bench(spelt_sour(), Process::LongCold);
    let eight = solved(&bench, &flours, 50.0, Some(8.0), None).starter.expect("some starter");
    let five = solved(&bench, &flours, 50.0, Some(5.0), None).starter.expect("some starter");
    assert!(eight.prefermented_flour_pct < five.prefermented_flour_pct);
    near(eight.kg / five.kg, eight.starter_pct / five.starter_pct, 1e-9);
}

fn ends(bench: &Bench, flours: &[ScenarioFlour<'_>]) -> Vec<StageEnd> {
    let scenario = bench.scenario(flours);
    stage_ends(&scenario, &chain(&scenario))
}

#[test]
fn a_stage_ends_when_its_number_is_reached_and_the_next_begins_there() {
    let flours = strong();
    let flours = white(&flours);
    let mut bench = bench(plain(), Process::StraightBulk);
    assert_eq!(ends(&bench, &flours), [], "no stage ends at a number");
    let proof = at_oven(&bench, &flours);
    (bench.method.stages[2].end_point, bench.method.stages[2].ends_at) =
        (EndPoint::Rise, Some(proof));
    let [planned] = ends(&bench, &flours)[..] else { panic!("one stage ends at a rise") };
    near(planned.minutes.expect("as planned"), bench.method.stages[2].minutes, 0.1);
    let (low, high) = (planned.low_min.expect("quick"), planned.high_min.expect("slow"));
    assert!(low < planned.planned_min && planned.planned_min < high);
    (bench.method.stages[1].end_point, bench.method.stages[1].ends_at) =
        (EndPoint::Rise, Some(proof * 1.1));
    let [bulk, after] = ends(&bench, &flours)[..] else { panic!("two end at a rise") };
    assert!(bulk.minutes > Some(bulk.planned_min));
    near(after.minutes.expect("it had risen so far before"), 0.0, 1e-6);
    bench.method.stages[1].ends_at = Some(400.0);
    assert_eq!(ends(&bench, &flours)[0].minutes, None, "its film does not hold so much");
}

#[test]
fn a_dough_temperature_a_drop_and_another_stage_end_stages_too() {
    let flours = strong();
    let flours = white(&flours);
    let mut bench = bench(plain(), Process::StraightBulk);
    let (bulk, first) = (Uuid::from_u128(1), Uuid::from_u128(2));
    bench.method.stages = vec![
        Stage { id: Some(first), ..stage(StageKind::Mix, 8.0) },
        Stage {
            id: Some(bulk),
            temperature_c: Some(4.0),
            end_point: EndPoint::Temperature,
            ends_at: Some(10.0),
            ..stage(StageKind::Rest, 60.0)
        },
        stage(StageKind::Divide, 10.0),
        Stage {
            end_point: EndPoint::Time,
            ends_at: Some(90.0),
            ends_after: Some(bulk),
            ..stage(StageKind::Proof, 30.0)
        },
    ];
    let found = ends(&bench, &flours);
    assert!(found[0].minutes > Some(60.0), "so much dough cools slowly: {found:?}");
    assert_eq!(found[1].minutes, Some(80.0), "ten of them are gone at the divider");

    let mut sponge = sponge_bench();
    let lies = sponge.method.sponge_at().expect("a sponge");
    sponge.method.stages[lies].end_point = EndPoint::Drop;
    let scenario = sponge.scenario(&flours);
    let made = chain(&scenario);
    let ripe = rise(&scenario, &made).expect("it has yeast").sponge.expect("a sponge").ripeness;
    let found = stage_ends(&scenario, &made)[0];
    near(found.minutes.expect("it drops"), 60.0 * ripe.drop_h.expect("it drops"), 1e-6);
}

#[test]
fn a_room_that_cools_overnight_is_followed() {
    let flours = strong();
    let flours = white(&flours);
    let mut bench = bench(plain(), Process::StraightBulk);
    bench.method.stages[1] = Stage {
        temperature_c: Some(24.0),
        end_point: EndPoint::Rise,
        ends_at: Some(100.0),
        ..stage(StageKind::Rest, 600.0)
    };
    let rise_min = |bench: &Bench| ends(bench, &flours)[0].minutes.expect("it doubles");
    let steady = rise_min(&bench);
    bench.method.stages[1].ambient_curve =
        vec![AmbientPoint { after_min: 60.0, temperature_c: 18.0 }];
    let cooling = rise_min(&bench);
    bench.method.stages[1].ambient_curve.clear();
    bench.method.stages[1].temperature_c = Some(18.0);
    let cool = rise_min(&bench);
    assert!(steady < cooling && cooling < cool, "{steady} {cooling} {cool}");
    // The same curve told in more points is the same curve.
    let curve = |points: &[(f64, f64)]| -> Vec<AmbientPoint> {
        let point =
            |&(after_min, temperature_c): &(f64, f64)| AmbientPoint { after_min, temperature_c };
        points.iter().map(point).collect()
    };
    bench.method.stages[1].temperature_c = Some(24.0);
    bench.method.stages[1].ambient_curve = curve(&[(20.0, 22.0), (40.0, 20.0), (60.0, 18.0)]);
    near(rise_min(&bench), cooling, 0.1);
}

fn faults(stages: &Value) -> Vec<(String, String)> {
    let draft = json!({"process": "straight_bulk", "target_c": 25, "stages": stages});
    let draft: MethodDraft = serde_json::from_value(draft).expect("the shape of the contract");
    let mut faults = ValidationErrors::default();
    draft.check("", &mut faults);
    faults.0.into_iter().map(|fault| (fault.field, fault.message)).collect()
}

#[test]
fn ends_and_rooms_that_cannot_be_are_refused_at_their_place() {
    let mix = json!({"kind": "mix", "label": "Mix", "minutes": 8});
    let found = faults(&json!([
        {"kind": "rest", "label": "Soak", "minutes": 30,
         "ambient_curve": [{"after_min": 10, "temperature_c": 20}]},
        mix,
        {"kind": "rest", "label": "Bulk", "minutes": 60, "end_point": "time", "ends_at": 90,
         "ends_after": Uuid::from_u128(7)},
        {"kind": "proof", "label": "Proof", "minutes": 60, "end_point": "ph", "ends_at": 12,
         "ambient_curve": [{"after_min": 60, "temperature_c": 20}, {"after_min": 30, "temperature_c": 90}]},
    ]));
    let at: Vec<&str> = found.iter().map(|(field, _)| field.as_str()).collect();
    assert_eq!(
        at,
        [
            "stages[3].ends_at",
            "stages[3].ambient_curve[1].after_min",
            "stages[3].ambient_curve[1].temperature_c",
            "stages[0].ambient_curve",
            "stages[2].ends_after",
        ]
    );
    assert_eq!(found[0].1, "the pH it ends at must be from 3 to 7; 12 was given");
}

#[test]
fn folds_a_warming_piece_and_a_cooling_loaf_end_at_their_numbers() {
    let flours = strong();
    let flours = white(&flours);
    let mut bench = bench(plain(), Process::StraightBulk);
    let at =
        |stage: Stage, end_point, ends_at| Stage { end_point, ends_at: Some(ends_at), ..stage };
    let folds = Stage { fold_sets: Some(3), ..stage(StageKind::Fold, 90.0) };
    bench.method.stages[1] = at(folds, EndPoint::Rise, 60.0);
    let found = ends(&bench, &flours)[0];
    let planned = found.minutes.expect("it rises");
    assert!(planned > 60.0, "after the last set at the earliest: {found:?}");
    assert!(found.low_min < found.minutes && found.minutes < found.high_min);

    let cold = Stage { temperature_c: Some(4.0), ..stage(StageKind::Rest, 1200.0) };
    let out = at(stage(StageKind::Rest, 60.0), EndPoint::CoreTemperature, 16.0);
    bench.method.stages = vec![
        stage(StageKind::Mix, 8.0),
        stage(StageKind::Divide, 10.0),
        cold,
        out,
        at(stage(StageKind::Bake, 30.0), EndPoint::CoreTemperature, 96.0),
        at(stage(StageKind::Cool, 30.0), EndPoint::CoreTemperature, 32.0),
    ];
    let found = ends(&bench, &flours);
    assert_eq!(found.iter().map(|one| one.stage).collect::<Vec<_>>(), [3, 5]);
    // Half a kilo of dough in 22 °C from 4 °C to 16: 0.63 h · ln(18/6).
    near(found[0].minutes.expect("it warms"), 41.5, 4.0);
    let cool = found[1];
    let loaf = chain(&bench.scenario(&flours)).dough.expect("a dough").scaled.cooled_piece_kg;
    let wanted = 60.0 * loaf.powf(2.0 / 3.0) * (74.0_f64 / 10.0).ln();
    near(cool.minutes.expect("it cools"), wanted, 1e-6);
    assert!(cool.low_min < cool.minutes && cool.minutes < cool.high_min);
    bench.method.stages[5].ends_at = Some(20.0);
    assert_eq!(ends(&bench, &flours)[1].minutes, None, "no colder than its room");
}

#[test]
fn a_sponge_room_that_cools_is_followed() {
    let flours = strong();
    let flours = white(&flours);
    let mut bench = sponge_bench();
    let lies = bench.method.sponge_at().expect("a sponge");
    let end = |bench: &Bench| {
        let scenario = bench.scenario(&flours);
        let made = chain(&scenario);
        rise(&scenario, &made).expect("it has yeast").sponge.expect("a sponge").end_c
    };
    let steady = end(&bench);
    bench.method.stages[lies].ambient_curve =
        vec![AmbientPoint { after_min: 210.0, temperature_c: 18.0 }];
    assert!(end(&bench) < steady - 0.3);
}

#[test]
fn a_height_between_straight_sides_is_the_rise_that_makes_it() {
    let flours = strong();
    let flours = white(&flours);
    let mut bench = bench(plain(), Process::StraightBulk);
    let scenario = bench.scenario(&flours);
    let stages = rise(&scenario, &chain(&scenario)).expect("it has yeast").stages;
    let [before, after] = [&stages[1], &stages[2]].map(|one| 1.0 + one.rise_pct / 100.0);
    let proof = &mut bench.method.stages[2];
    let planned = proof.minutes;
    (proof.end_point, proof.ends_at) = (EndPoint::Height, Some(40.0 * after / before));
    assert_eq!(ends(&bench, &flours), [], "nobody says how high it stands at first");
    bench.method.stages[2].begins_at_mm = Some(40.0);
    near(ends(&bench, &flours)[0].minutes.expect("it stands so high"), planned, 0.2);
}

#[test]
fn a_sour_ends_at_its_ph_and_sooner_in_the_warmth() {
    let (rye, white) = (whole(), strong());
    let flours = [
        flour("Rigg Spelt", Species::Spelt, 100.0, 70.0, &rye),
        flour("Tarn Strong", Species::Wheat, 76.0, 30.0, &white),
    ];
    let mut bench = bench(spelt_sour(), Process::StraightBulk);
    let bulk = &mut bench.method.stages[1];
    (bulk.end_point, bulk.ends_at) = (EndPoint::Ph, Some(4.4));
    let minutes = |bench: &Bench| ends(bench, &flours)[0].minutes;
    let room = minutes(&bench).expect("it sours");
    // 15 % of its flour comes in a ripe starter: at 5.5 with it, and 4.4 within a working day.
    assert!((180.0..600.0).contains(&room), "{room}");
    bench.method.stages[1].temperature_c = Some(30.0);
    assert!(minutes(&bench).expect("it sours") < room);
    bench.method.stages[1].ends_at = Some(6.0);
    near(minutes(&bench).expect("it is"), 0.0, 1e-9);
    bench.method.stages[1].ends_at = Some(3.2);
    assert_eq!(minutes(&bench), None, "no sour goes so far");
    bench.formula.formula = formula(plain());
    assert_eq!(ends(&bench, &flours), [], "what yeast alone does is not computed");
}
