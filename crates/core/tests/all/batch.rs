//! Batches as their events say, in whatever order they came.

use chrono::{DateTime, TimeDelta, TimeZone, Utc};
use ironpeel_core::batch::{
    Acceptance, BatchState, EndedBy, Event, Misplaced, PlannedLine, StagePlan, fold, stage_times,
    water, weighed,
};
use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::method::{Method, Mixer, Process, Speed, Stage, StageKind};
use proptest::prelude::*;
use serde_json::{Value, json};
use uuid::Uuid;

fn began() -> DateTime<Utc> {
    Utc.with_ymd_and_hms(2026, 11, 26, 22, 0, 0).unwrap()
}

fn id(number: u64) -> Uuid {
    Uuid::from_u64_pair(1, number)
}

/// An event so many minutes after ten in the evening.
fn event(number: u64, minute: i64, kind: &str, said: Value) -> Event {
    let mut event = json!({
        "id": id(number), "kind": kind, "happened_at": began() + TimeDelta::minutes(minute),
    });
    let Value::Object(said) = said else { panic!("an object") };
    event.as_object_mut().expect("an object").extend(said);
    serde_json::from_value(event).expect("an event")
}

fn nothing(number: u64, minute: i64, kind: &str) -> Event {
    event(number, minute, kind, json!({}))
}

const MIXING: u64 = 100;
const PROOF: u64 = 101;

fn batch() -> Vec<Event> {
    vec![
        nothing(1, 0, "start"),
        event(2, 1, "reading", json!({"quantity": "mass_kg", "of": "water", "value": 41.5})),
        event(3, 12, "stage_end", json!({"stage": id(MIXING), "ended_by": "windowpane"})),
        event(4, 12, "reading", json!({"quantity": "dough_c", "value": 27.9})),
        event(5, 13, "addition", json!({"ingredient": "water", "kg": 0.6, "reason": "feel"})),
        event(6, 14, "consistency", json!({"value": 1})),
        event(7, 40, "hold", json!({"reason": "divider"})),
        nothing(8, 55, "resume"),
        event(9, 80, "stage_end", json!({"stage": id(PROOF), "ended_by": "height"})),
        event(10, 120, "finish", json!({"pieces_good": 98, "pieces_rejected": 2, "mass_kg": 80})),
    ]
}

#[test]
fn a_batch_is_what_its_events_say() {
    let record = fold(&batch());
    assert_eq!(record.state, BatchState::Finished);
    assert_eq!(record.started_at, Some(began()));
    assert_eq!(record.held_min.round() as i64, 15);
    assert_eq!(record.stages[0].ended_by, Some(EndedBy::Windowpane));
    assert_eq!(record.consistency(), Some(1.0));
    assert!(record.unplaced.is_empty(), "{:?}", record.unplaced);
    assert_eq!(record.finish.expect("finished").pieces_good, Some(98.0));
}

#[test]
fn what_the_batch_could_not_take_is_kept_and_said() {
    let strays = [
        (nothing(20, -1, "stage_end"), Misplaced::NotStarted),
        (event(21, 5, "start", json!({})), Misplaced::AlreadyStarted),
        (nothing(22, 5, "resume"), Misplaced::NotHeld),
        (event(23, 45, "stage_begin", json!({"stage": id(PROOF)})), Misplaced::Held),
        (event(24, 20, "stage_end", json!({"stage": id(MIXING)})), Misplaced::StageOver),
        (event(25, 121, "addition", json!({"ingredient": "salt", "kg": 1})), Misplaced::Finished),
        (event(26, 5, "correct", json!({"corrects": id(999)})), Misplaced::NothingToCorrect),
    ];
    for (stray, why) in strays {
        let number = stray.id;
        let record = fold(&[batch(), vec![stray]].concat());
        let unplaced: Vec<_> =
            record.unplaced.iter().map(|one| (one.event, one.why.clone())).collect();
        assert_eq!(unplaced, [(number, why)]);
        assert_eq!(record.state, BatchState::Finished, "the rest stands");
    }
}

#[test]
fn a_correction_undone_restores_and_the_latest_wins() {
    let value = |events: &[Event]| {
        let record = fold(&[batch(), events.to_vec()].concat());
        let read = record.readings(ironpeel_core::batch::Quantity::DoughC);
        read.map(|(_, value, _)| value).collect::<Vec<_>>()
    };
    let slip = event(30, 15, "correct", json!({"corrects": id(4), "value": 26.9}));
    let undo = event(31, 16, "correct", json!({"corrects": id(30)}));
    let other = event(32, 17, "correct", json!({"corrects": id(4), "value": 25.0}));
    let gone = event(33, 18, "correct", json!({"corrects": id(4)}));
    assert_eq!(value(&[]), [27.9]);
    assert_eq!(value(std::slice::from_ref(&slip)), [26.9]);
    assert_eq!(value(&[slip.clone(), undo.clone()]), [27.9]);
    assert_eq!(value(&[slip.clone(), other.clone()]), [25.0]);
    assert_eq!(value(&[other.clone(), slip.clone(), gone.clone()]), [0.0; 0]);
    let back = event(34, 19, "correct", json!({"corrects": id(33)}));
    assert_eq!(value(&[gone, back, slip, other]), [25.0]);
    // What becomes impossible by a correction is no reading.
    let hot = event(35, 20, "correct", json!({"corrects": id(4), "value": 300}));
    let record = fold(&[batch(), vec![hot]].concat());
    assert_eq!(record.unplaced[0].event, id(4));
    // Corrections that only correct one another correct nothing.
    let round = [
        event(36, 15, "correct", json!({"corrects": id(37)})),
        event(37, 15, "correct", json!({"corrects": id(36)})),
    ];
    assert_eq!(fold(&[batch(), round.to_vec()].concat()).unplaced.len(), 2);
}

#[test]
fn a_correction_may_change_kind_and_time() {
    let moved = event(
        40,
        60,
        "correct",
        json!({"corrects": id(7), "new_happened_at": began() + TimeDelta::minutes(50)}),
    );
    assert_eq!(fold(&[batch(), vec![moved]].concat()).held_min.round() as i64, 5);
    let note = event(
        41,
        60,
        "correct",
        json!({"corrects": id(7), "new_kind": "note", "text": "the divider squeaks"}),
    );
    let record = fold(&[batch(), vec![note]].concat());
    assert_eq!(record.held_min as i64, 0);
    assert_eq!(record.unplaced[0].why, Misplaced::NotHeld, "nothing is left to resume");
}

#[test]
fn undo_is_offered_for_the_last_of_each_stage() {
    let undoable = fold(&batch()[..4]).undoable;
    assert_eq!(undoable, [id(3), id(4)], "the stage's end and the last that is of no stage");
}

#[test]
fn an_event_is_refused_for_what_it_says_alone() {
    let now = began() + TimeDelta::minutes(200);
    let stages = [id(MIXING), id(PROOF)];
    let planned_at = began() - TimeDelta::hours(3);
    let against = Acceptance { stages: &stages, planned_at, now };
    let said = |event: Event| event.refusal(&against).map(|refusal| refusal.to_string());
    for event in batch() {
        assert_eq!(said(event), None);
    }
    let refused = [
        (event(1, 0, "reading", json!({"quantity": "dough_c", "value": 270})), "27.0?"),
        (event(1, 0, "reading", json!({"quantity": "dough_c", "value": "warm"})), "warm”"),
        (event(1, 0, "reading", json!({"value": 20})), "quantity is missing"),
        (event(1, 0, "reading", json!({"quantity": "ph", "value": 9})), "from 3 to 8"),
        (event(1, 0, "stage_end", json!({"stage": id(7)})), "no such stage"),
        (event(1, 0, "stage_end", json!({})), "stage is missing"),
        (event(1, 0, "observation", json!({"name": "luck", "value": 1})), "no name that is known"),
        (event(1, 0, "observation", json!({"name": "poke", "value": 1.5})), "one of few"),
        (event(1, 0, "addition", json!({"ingredient": "water", "kg": -1})), "from 0"),
        (
            event(1, 0, "addition", json!({"ingredient": "water", "kg": 1, "reason": "why not"})),
            "no reason that is known",
        ),
        (event(1, 0, "consistency", json!({"value": 3})), "from -2 to 2"),
        (event(1, 0, "note", json!({"text": "  "})), "text is missing"),
        (event(1, 0, "note", json!({"text": "x".repeat(3000)})), "too long"),
        (event(1, 0, "finish", json!({"pieces_good": -4})), "from 0"),
        (event(1, 0, "correct", json!({})), "corrects is missing"),
        (event(1, 0, "correct", json!({"corrects": id(1)})), "itself"),
        (nothing(1, 203, "start"), "future"),
        (nothing(1, -181, "start"), "before the batch was planned"),
    ];
    for (event, words) in refused {
        let kind = event.kind;
        let refusal = said(event).unwrap_or_else(|| panic!("{kind:?}, {words}"));
        assert!(refusal.contains(words), "{refusal}");
    }
}

fn method() -> Method {
    let stage = |number, kind, label: &str, minutes| Stage {
        id: Some(id(number)),
        ..Stage::new(kind, label, minutes)
    };
    let mixing = stage(MIXING, StageKind::Mix, "Mixing", 10.0);
    Method {
        process: Process::NoTime,
        target_c: 27.0,
        sponge_c: None,
        machine_divided: true,
        stages: vec![
            Stage { speed: Some(Speed::Fast), ..mixing },
            stage(PROOF, StageKind::Proof, "Proof", 60.0),
            stage(102, StageKind::Bake, "Bake", 20.0),
        ],
    }
}

fn mixer() -> Mixer {
    Mixer {
        name: "Spiral".into(),
        kind: "spiral".into(),
        min_kg: 1.0,
        max_kg: 100.0,
        slow_kj_per_kg_min: 1.0,
        fast_kj_per_kg_min: 2.5,
        jacket_kj_per_kg_min: None,
    }
}

#[test]
fn what_comes_is_moved_by_what_happened() {
    let planned = StagePlan::of(&method(), &mixer(), &Coefficients::default());
    let at = |minute| began() + TimeDelta::minutes(minute);
    let times = |events: &[Event], now| stage_times(&planned, began(), &fold(events), at(now));

    let (before, next) = times(&[], -30);
    let next = next.expect("to start");
    assert_eq!((next.stage, next.due_at, next.late_min as i64), (None, at(0), -30));
    assert!(before.iter().all(|one| one.begun_at.is_none()));
    assert_eq!(before[2].expected_end, at(90));

    // Started eight minutes late, mixed for twelve, and the proof has not ended after seventy.
    let events = [nothing(1, 8, "start"), event(2, 20, "stage_end", json!({"stage": id(MIXING)}))];
    let (running, next) = times(&events, 90);
    let next = next.expect("the proof");
    assert_eq!((next.stage, next.due_at, next.late_min as i64), (Some(id(PROOF)), at(80), 10));
    assert_eq!(running[0].lasted_min, Some(12.0));
    assert_eq!((running[1].begun_at, running[1].expected_end), (Some(at(20)), at(90)));
    assert_eq!(running[2].expected_end, at(110), "the bake waits for the proof");

    // A stage nobody stamped is over once a later one is.
    let skipped = [nothing(1, 0, "start"), event(2, 65, "stage_end", json!({"stage": id(PROOF)}))];
    let (skipped, next) = times(&skipped, 66);
    assert_eq!(next.expect("the bake").stage, Some(id(102)));
    assert_eq!((skipped[0].ended_at, skipped[0].expected_end), (None, at(10)));
    assert_eq!(skipped[1].lasted_min, Some(55.0));

    let (_, over) = times(&batch(), 130);
    assert_eq!(over, None, "nothing is next of what is finished");
}

#[test]
fn a_sponge_seen_to_drop_is_ripe_at_its_time() {
    let lies = Stage { id: Some(id(200)), ..Stage::new(StageKind::Rest, "Sponge", 240.0) };
    let sponge = Method {
        process: Process::SpongeDough,
        stages: [vec![lies], method().stages].concat(),
        ..method()
    };
    let planned = StagePlan::of(&sponge, &mixer(), &Coefficients::default());
    let drops = event(2, 132, "observation", json!({"name": "sponge_tap", "value": 2}));
    let resists = event(3, 90, "observation", json!({"name": "sponge_tap", "value": 1}));
    let now = began() + TimeDelta::minutes(140);
    let next = |events: &[Event]| {
        stage_times(&planned, began(), &fold(events), now).1.expect("the sponge").due_at
    };
    let started = nothing(1, 0, "start");
    assert_eq!(next(&[started.clone(), resists]), began() + TimeDelta::minutes(240));
    // 132 minutes are two thirds of 200.
    assert_eq!(next(&[started, drops]), began() + TimeDelta::minutes(200));
}

#[test]
fn the_water_it_got_is_weighed_and_added_less_what_was_held_back() {
    let line = |of: &str, kg, is_water| PlannedLine {
        stage: None,
        of: of.into(),
        name: of.into(),
        ingredient: of.into(),
        part: None,
        kg,
        division_kg: 0.01,
        temperature_c: None,
        is_water,
        is_ice: of == "ice",
    };
    let lines = [line("water", 40.0, true), line("ice", 20.0, true), line("flour", 100.0, false)];
    let record = fold(&batch());
    let weighed = weighed(&lines, &record);
    assert_eq!(weighed[0].weighed_kg, Some(41.5));
    assert_eq!(weighed[1].weighed_kg, None);
    let water = water(&weighed, &record, 100.0).expect("there is water");
    assert!((water.over_plan_pts - 2.1).abs() < 1e-9, "{water:?}");
    assert!((water.by_feel_pts - 0.6).abs() < 1e-9 && !water.complete);
}

proptest! {
    /// Events in any order, some of them twice, fold to the same state.
    #[test]
    fn order_of_arrival_makes_no_difference(
        order in Just((0..10usize).collect::<Vec<_>>()).prop_shuffle(),
        twice in 0..10usize,
        undone in 0..10usize,
    ) {
        let undo = event(50, 130, "correct", json!({"corrects": batch()[undone].id}));
        let straight: Vec<Event> = batch().into_iter().chain([undo.clone()]).collect();
        let mut shuffled: Vec<Event> = order.iter().map(|at| batch()[*at].clone()).collect();
        shuffled.insert(0, undo);
        shuffled.push(batch()[twice].clone());
        prop_assert_eq!(fold(&shuffled), fold(&straight));
    }

    /// Any correction withdrawn again leaves what was.
    #[test]
    fn undoing_an_undo_restores(at in 0..10usize) {
        let events = batch();
        let undo = event(60, 130, "correct", json!({"corrects": events[at].id}));
        let back = event(61, 131, "correct", json!({"corrects": id(60)}));
        let restored = fold(&[events.clone(), vec![undo, back]].concat());
        prop_assert_eq!(restored, fold(&events));
    }
}
