//! Runs of doughs at a line's cadence.

use crate::support::near;
use chrono::{DateTime, Duration, TimeZone, Utc};
use chrono_tz::Tz;
use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::method::{Equipment, Method, Process, Stage, StageKind, StageRole};
use ironpeel_core::schedule::{
    Anchor, Cadence, ClosedHours, EachDough, Place, RunPlan, RunRequest, ScheduleRequest, Shift,
    Stop, cadence, plan_run,
};
use proptest::prelude::*;

static HOUSE: Coefficients = Coefficients(Vec::new());

const LINE: Equipment = Equipment {
    turn_min: 3.0,
    troughs: 24,
    trough_kg: 250.0,
    trough_m2: 1.8,
    divider_per_min: 45.0,
    proofer_pieces: 3200.0,
    oven_pieces: 1300.0,
};
const DOUGH: EachDough = EachDough { kg: 450.0, sponge_kg: 270.0, pieces: 497.0, piece_kg: 0.9 };

fn at(day: u32, hour: u32, minute: u32) -> DateTime<Utc> {
    Utc.with_ymd_and_hms(2026, 11, day, hour, minute, 0).single().expect("a time of that day")
}

fn sponge_dough() -> Method {
    let warm = |kind, label: &str, minutes, celsius| Stage {
        temperature_c: Some(celsius),
        ..Stage::new(kind, label, minutes)
    };
    Method {
        process: Process::SpongeDough,
        target_c: 26.5,
        sponge_c: None,
        machine_divided: true,
        stages: vec![
            warm(StageKind::Rest, "Sponge", 210.0, 27.0),
            Stage::new(StageKind::Mix, "Pick-up", 2.0),
            Stage::new(StageKind::Mix, "Development", 7.0),
            warm(StageKind::Rest, "Floor time", 15.0, 27.0),
            Stage::new(StageKind::Divide, "Divide", 12.0),
            Stage::new(StageKind::Divide, "Mould and pan", 4.0),
            warm(StageKind::Proof, "Proof", 58.0, 36.0),
            Stage::new(StageKind::Bake, "Bake", 24.0),
            Stage::new(StageKind::Cool, "Cool", 90.0),
        ],
    }
}

fn out_by(anchor: DateTime<Utc>) -> ScheduleRequest {
    ScheduleRequest {
        anchor: Anchor::OutBy(anchor),
        closed_hours: vec![],
        zone: Tz::UTC,
        not_before: None,
    }
}

fn asked<'a>(method: &'a Method, day: &'a ScheduleRequest) -> RunRequest<'a> {
    RunRequest {
        method,
        equipment: &LINE,
        doughs: 10,
        each: DOUGH,
        day,
        shifts: &[],
        stop: None,
        dropped: &[],
        coefficients: &HOUSE,
    }
}

fn pace(cadence: &Cadence, place: Place) -> f64 {
    cadence.paces.iter().find(|pace| pace.place == place).expect("every place has one").minutes
}

/// No place holds more than it can: troughs only where one dough alone needs more.
fn fits(plan: &RunPlan) {
    for full in &plan.fullest {
        let alone = if full.place == Place::Troughs { 4 } else { 0 };
        assert!(full.most <= full.holds.max(alone), "{full:?}");
    }
}

/// No dough in the mixer or the divider while another is, and every dough in one piece.
fn sound(plan: &RunPlan) {
    fits(plan);
    for dough in &plan.doughs {
        for pair in dough.stages.windows(2) {
            assert_eq!(pair[0].ends_at, pair[1].starts_at, "dough {}", dough.number);
        }
    }
    for place in [Place::Mixer, Place::Divider] {
        let mut busy: Vec<_> = plan
            .doughs
            .iter()
            .map(|dough| {
                // Moulding is another machine's.
                let mut here = dough.stages.iter().filter(|stage| stage.place == Some(place));
                let first = here.next().expect("it passes");
                let last = if place == Place::Mixer { here.next_back() } else { None };
                (first.starts_at, last.unwrap_or(first).ends_at)
            })
            .collect();
        busy.sort();
        for pair in busy.windows(2) {
            assert!(pair[0].1 <= pair[1].0, "{place:?}: {pair:?}");
        }
    }
}

#[test]
fn the_slowest_place_sets_the_cadence_and_is_named() {
    let found = cadence(&sponge_dough(), &LINE, DOUGH, &Coefficients::default());
    near(pace(&found, Place::Mixer), 9.0 + 3.0, 1e-9);
    near(pace(&found, Place::Divider), 497.0 / 45.0, 1e-9);
    near(pace(&found, Place::Proofer), 497.0 * 58.0 / 3200.0, 1e-9);
    near(pace(&found, Place::Oven), 497.0 * 24.0 / 1300.0, 1e-9);
    // Two each for eleven sponges and one dough: 18.75 min would need a thirteenth pair.
    near(pace(&found, Place::Troughs), 210.0 / 11.0, 1e-9);
    assert_eq!((found.bottleneck, found.minutes), (Place::Troughs, 20.0));
    assert_eq!(found.troughs, 24, "all of them");
    near(found.floor_m2, 24.0 * 1.8, 1e-9);

    let more = Equipment { troughs: 60, ..LINE };
    let found = cadence(&sponge_dough(), &more, DOUGH, &Coefficients::default());
    assert_eq!((found.bottleneck, found.minutes), (Place::Mixer, 12.0));
    let slow = Equipment { troughs: 60, oven_pieces: 500.0, ..LINE };
    let found = cadence(&sponge_dough(), &slow, DOUGH, &Coefficients::default());
    assert_eq!((found.bottleneck, found.minutes), (Place::Oven, 24.0));
    near(found.divide_min, 23.856, 1e-3);
    assert!(found.divide_limit_min < Some(found.divide_min), "the oven is too slow for this dough");
    near(found.most_kg.expect("machine-divided"), 500.0 / 24.0 * 0.9 * 20.0, 1e-6);
}

#[test]
fn ten_doughs_are_out_by_five_with_their_sponges_set_the_evening_before() {
    let (method, day) = (sponge_dough(), out_by(at(26, 5, 0)));
    let plan = plan_run(&asked(&method, &day)).expect("all hours are open");
    sound(&plan);
    assert_eq!(plan.out_at, at(26, 5, 0));
    assert_eq!(plan.doughs.len(), 10);
    for (one, next) in plan.doughs.iter().zip(&plan.doughs[1..]) {
        assert_eq!(next.starts_at - one.starts_at, Duration::minutes(20));
    }
    let first = &plan.doughs[0];
    let divided = (plan.cadence.divide_min * 60.0).round() as i64;
    let to_out = Duration::seconds((210 + 9 + 15 + 4 + 58 + 24) * 60 + divided);
    assert_eq!(first.out_at - first.starts_at, to_out);
    assert!(plan.first_out_at < first.out_at && plan.past.is_empty(), "{:?}", plan.past);
    assert_eq!(
        plan.troughs.iter().map(|now| now.troughs).max(),
        Some(20),
        "two each, the last one set before the first is mixed"
    );
    assert!(first.stages.iter().all(|stage| stage.waits_min == 0.0));
}

#[test]
fn a_run_keeps_clear_of_refused_hours_as_a_whole() {
    let clock = |hour| chrono::NaiveTime::from_hms_opt(hour, 0, 0).expect("an hour");
    let method = sponge_dough();
    let closed_hours = vec![ClosedHours { from: clock(22), to: clock(4) }];
    let day = ScheduleRequest { closed_hours, ..out_by(at(26, 5, 0)) };
    let plan = plan_run(&asked(&method, &day)).expect("a day has room for it");
    assert!(plan.moved_min > 0 && plan.out_at <= at(25, 22, 0), "{}", plan.out_at);
    let short =
        ScheduleRequest { closed_hours: vec![ClosedHours { from: clock(8), to: clock(4) }], ..day };
    let error = plan_run(&asked(&method, &short)).expect_err("four hours hold no run");
    assert!(error.to_string().contains("closed hours"), "{error}");
    let narrow = Equipment { oven_pieces: 1.0, ..LINE };
    let years = RunRequest { equipment: &narrow, doughs: 200, ..asked(&method, &day) };
    let error = plan_run(&years).expect_err("an oven for one loaf");
    assert!(error.to_string().contains("no run is planned beyond 60"), "{error}");
}

#[test]
fn a_stage_that_is_moved_pushes_what_comes_after_and_nothing_before() {
    let (method, day) = (sponge_dough(), out_by(at(26, 5, 0)));
    let calm = plan_run(&asked(&method, &day)).expect("fits");
    let shifts = [Shift { dough: 3, stage: 1, by_min: 40.0 }];
    let moved = plan_run(&RunRequest { shifts: &shifts, ..asked(&method, &day) }).expect("fits");
    sound(&moved);
    assert_eq!(moved.doughs[..3], calm.doughs[..3]);
    let mixed = |plan: &RunPlan, dough: usize| plan.doughs[dough].stages[1].starts_at;
    assert_eq!(mixed(&moved, 3) - mixed(&calm, 3), Duration::minutes(40));
    near(moved.doughs[3].stages[0].waits_min, 40.0, 1e-9);
    assert!(mixed(&moved, 4) > mixed(&calm, 4), "the next gives way");
    near(moved.doughs[4].stages[0].waits_min, 0.0, 1e-9);
    let earlier = [Shift { dough: 0, stage: 0, by_min: -30.0 }];
    let early = plan_run(&RunRequest { shifts: &earlier, ..asked(&method, &day) }).expect("fits");
    assert_eq!(calm.starts_at - early.starts_at, Duration::minutes(30));
}

#[test]
fn when_the_line_stops_sponges_wait_and_go_past_what_they_may() {
    let (method, day) = (sponge_dough(), out_by(at(26, 5, 0)));
    let calm = plan_run(&asked(&method, &day)).expect("fits");
    let from = calm.doughs[2].stages[1].starts_at - Duration::minutes(1);
    let stop = Some(Stop { from, minutes: 90.0, place: None });
    let stopped = plan_run(&RunRequest { stop, ..asked(&method, &day) }).expect("fits");
    sound(&stopped);
    let sponge = |dough: usize| &stopped.doughs[dough].stages[0];
    near(sponge(2).waits_min, 89.0, 1e-9);
    // A sponge of 210 min may be a quarter longer, to the minute.
    near(sponge(2).past_min, 89.0 - 53.0, 1e-9);
    assert!(
        stopped
            .past
            .iter()
            .any(|message| message.to_string().starts_with("Dough 3: Sponge goes 36 min"))
    );
    let set_after = stopped.doughs.iter().filter(|dough| dough.starts_at >= from);
    for dough in set_after {
        near(dough.stages[0].waits_min, 0.0, 1e-9);
    }
    // Of what was begun before only what stood in the mixer's way is late.
    assert_eq!(stopped.doughs[0].stages[0], calm.doughs[0].stages[0]);
    let fewer = RunRequest { stop, dropped: &[2, 3], ..asked(&method, &day) };
    let fewer = plan_run(&fewer).expect("fits");
    assert_eq!(fewer.doughs.len(), 8);
    assert!(fewer.out_at < stopped.out_at);
}

#[test]
fn what_is_in_the_oven_is_baked_and_what_is_in_the_mixer_goes_on_after() {
    let (method, day) = (sponge_dough(), out_by(at(26, 5, 0)));
    let calm = plan_run(&asked(&method, &day)).expect("fits");
    for (place, stage, longer) in [(Place::Mixer, 2, 30), (Place::Oven, 7, 0)] {
        let from = calm.doughs[0].stages[stage].starts_at + Duration::minutes(2);
        let stop = Some(Stop { from, minutes: 30.0, place: Some(place) });
        let stopped = plan_run(&RunRequest { stop, ..asked(&method, &day) }).expect("fits");
        let lasts = |plan: &RunPlan| {
            plan.doughs[0].stages[stage].ends_at - plan.doughs[0].stages[stage].starts_at
        };
        assert_eq!(lasts(&stopped) - lasts(&calm), Duration::minutes(longer), "{place:?}");
    }
}

#[test]
fn a_full_proofer_stops_the_divider_and_an_oven_that_stood_takes_no_more_than_it_holds() {
    let (method, day) = (sponge_dough(), out_by(at(26, 5, 0)));
    let tight = Equipment { troughs: 60, proofer_pieces: 2600.0, ..LINE };
    let wanted = RunRequest { equipment: &tight, doughs: 20, ..asked(&method, &day) };
    let calm = plan_run(&wanted).expect("fits");
    let from = calm.doughs[4].stages[7].starts_at;
    let stop = Some(Stop { from, minutes: 90.0, place: Some(Place::Oven) });
    let stopped = plan_run(&RunRequest { stop, ..wanted }).expect("fits");
    let most = |plan: &RunPlan, place| {
        let full = plan.fullest.iter().find(|one| one.place == place).expect("it is used");
        (full.most, full.holds)
    };
    let usual = most(&calm, Place::Proofer).0;
    assert!(usual < 2600, "{usual}");
    assert_eq!(most(&stopped, Place::Proofer), (2600, 2600), "it fills");
    let (most, holds) = most(&stopped, Place::Oven);
    assert!(most <= holds, "{most}");
    // What stands in the proofer waits there, what is not divided yet at the divider.
    let waits = |role: StageRole| {
        let stages = stopped.doughs.iter().flat_map(|dough| &dough.stages);
        stages.filter(|stage| stage.role == role).map(|stage| stage.waits_min).fold(0.0, f64::max)
    };
    assert!(waits(StageRole::Proof) >= 89.0, "{}", waits(StageRole::Proof));
    assert!(waits(StageRole::Dividing) > 10.0, "{}", waits(StageRole::Dividing));
}

#[test]
fn no_sponge_is_set_while_the_whole_line_stands() {
    let (method, day) = (sponge_dough(), out_by(at(26, 5, 0)));
    let wanted = RunRequest { doughs: 20, ..asked(&method, &day) };
    let calm = plan_run(&wanted).expect("fits");
    let from = calm.doughs[2].stages[1].starts_at;
    let stop = Stop { from, minutes: 90.0, place: None };
    let stopped = plan_run(&RunRequest { stop: Some(stop), ..wanted }).expect("fits");
    let set = |plan: &RunPlan| {
        plan.doughs.iter().filter(|one| (from..stop.until()).contains(&one.starts_at)).count()
    };
    assert!(set(&calm) > 3 && set(&stopped) == 0, "{} {}", set(&calm), set(&stopped));
}

#[test]
fn a_line_with_too_few_troughs_for_two_doughs_makes_them_one_by_one() {
    let (method, day) = (sponge_dough(), out_by(at(26, 5, 0)));
    let few = Equipment { troughs: 3, ..LINE };
    let plan = plan_run(&RunRequest { equipment: &few, ..asked(&method, &day) }).expect("fits");
    sound(&plan);
    near(pace(&plan.cadence, Place::Troughs), 210.0 + 9.0 + 15.0, 1e-9);
    assert!(plan.troughs.iter().all(|now| now.troughs <= 2));
}

#[test]
fn a_dough_that_waits_in_the_mixer_is_in_no_other_s_way() {
    let (method, day) = (sponge_dough(), out_by(at(26, 5, 0)));
    let equipment = Equipment { troughs: 14, proofer_pieces: 2610.93, oven_pieces: 284.21, ..LINE };
    let each = EachDough { pieces: 482.875, ..DOUGH };
    let wanted = RunRequest { doughs: 6, equipment: &equipment, each, ..asked(&method, &day) };
    let from = plan_run(&wanted).expect("fits").starts_at + Duration::minutes(25);
    let stop = Some(Stop { from, minutes: 294.123, place: None });
    sound(&plan_run(&RunRequest { stop, ..wanted }).expect("fits"));
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(48))]

    #[test]
    fn nothing_holds_more_than_it_can_whatever_stands_still(
        doughs in 1usize..30, troughs in 4u32..60, stop_min in 1.0..300.0, stopped_after in 0i64..900,
        place in prop::option::of(prop::sample::select(vec![
            Place::Mixer, Place::Divider, Place::Proofer, Place::Oven,
        ])),
        proofer in 300.0..4000.0, oven in 100.0..2000.0, pieces in 1.0..900.0, proofs in 1usize..3,
    ) {
        let mut method = sponge_dough();
        if proofs == 2 {
            let second = Stage::new(StageKind::Proof, "Second proof", 20.0);
            let scored = Stage::new(StageKind::Rest, "Scored", 5.0);
            method.stages.splice(7..7, [scored, second]);
        }
        let day = out_by(at(26, 5, 0));
        let equipment = Equipment { troughs, proofer_pieces: proofer, oven_pieces: oven, ..LINE };
        let each = EachDough { pieces, ..DOUGH };
        let wanted = RunRequest { doughs, equipment: &equipment, each, ..asked(&method, &day) };
        let calm = plan_run(&wanted).expect("all hours are open");
        fits(&calm);
        let from = calm.starts_at + Duration::minutes(stopped_after);
        let stop = Some(Stop { from, minutes: stop_min, place });
        let stopped = plan_run(&RunRequest { stop, ..wanted }).expect("all hours are open");
        sound(&stopped);
        prop_assert!(stopped.out_at + Duration::seconds(2) >= calm.out_at);
        // In a calm run of one proof nothing waits: its cadence is one the line keeps.
        if proofs == 1 {
            let mut stages = calm.doughs.iter().flat_map(|dough| &dough.stages);
            prop_assert!(stages.all(|stage| stage.waits_min == 0.0), "{:?}", calm.doughs);
        }
    }

    #[test]
    fn mixer_and_divider_take_one_dough_after_another(
        doughs in 1usize..40, dough in 0usize..40, stage in 0usize..9, by in -30.0..120.0,
        stop_min in 0.0..240.0, stopped_after in 0i64..600, troughs in 2u32..60,
    ) {
        let (method, day) = (sponge_dough(), out_by(at(26, 5, 0)));
        let equipment = Equipment { troughs, ..LINE };
        let shifts = [Shift { dough, stage, by_min: by }];
        let wanted = RunRequest { doughs, equipment: &equipment, shifts: &shifts, ..asked(&method, &day) };
        let plan = plan_run(&wanted).expect("all hours are open");
        sound(&plan);
        let from = plan.starts_at + Duration::minutes(stopped_after);
        let stop = Some(Stop { from, minutes: stop_min, place: None });
        let stopped = plan_run(&RunRequest { stop, ..wanted }).expect("all hours are open");
        sound(&stopped);
        // What nobody moves is never out sooner because the line stands still.
        let calm = RunRequest { shifts: &[], ..wanted };
        let out_at = plan_run(&calm).expect("all hours are open").out_at;
        let late = plan_run(&RunRequest { stop, ..calm }).expect("all hours are open");
        prop_assert!(late.out_at + Duration::seconds(2) >= out_at);
    }
}
