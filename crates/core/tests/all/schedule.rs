//! Doughs on the clock, around the closed hours.

use crate::support::bench::stage;
use chrono::{DateTime, Duration, NaiveTime, TimeZone, Utc};
use chrono_tz::Tz;
use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::method::{Method, Process, Stage, StageKind, TimeTolerance};
use ironpeel_core::schedule::{
    Anchor, ClosedHours, FrozenReserveInput, NightPlace, ScheduleChange, ScheduleError,
    ScheduleInput, SchedulePlan, ScheduleRequest, StarterWanted, feed_before, spans,
};
use ironpeel_core::units::ValidationErrors;
use proptest::prelude::*;
use serde_json::{Value, json};

const ISLAND: Tz = Tz::Europe__London;

fn clock(hour: u32, minute: u32) -> NaiveTime {
    NaiveTime::from_hms_opt(hour, minute, 0).expect("a time of day")
}

fn night() -> ClosedHours {
    ClosedHours { from: clock(22, 0), to: clock(4, 0) }
}

/// A moment by the island's clock in November, where it is UTC.
fn at(day: u32, hour: u32, minute: u32) -> DateTime<Utc> {
    Utc.with_ymd_and_hms(2026, 11, day, hour, minute, 0).single().expect("a moment")
}

fn named(kind: StageKind, label: &str, minutes: f64, celsius: Option<f64>) -> Stage {
    Stage { label: label.into(), temperature_c: celsius, ..stage(kind, minutes) }
}

fn method(stages: Vec<Stage>) -> Method {
    Method {
        process: Process::StraightBulk,
        target_c: 25.0,
        sponge_c: None,
        machine_divided: false,
        stages,
    }
}

/// Five hours of which an hour and a half needs hands.
fn straight() -> Method {
    method(vec![
        named(StageKind::Mix, "Mix", 15.0, None),
        named(StageKind::Rest, "Bulk", 120.0, Some(25.0)),
        named(StageKind::Divide, "Shape", 20.0, None),
        named(StageKind::Proof, "Proof", 75.0, Some(26.0)),
        named(StageKind::Bake, "Bake", 40.0, Some(230.0)),
        named(StageKind::Cool, "Cool", 60.0, None),
    ])
}

/// A night in the cold before it is baked.
fn overnight() -> Method {
    method(vec![
        named(StageKind::Mix, "Mix", 15.0, None),
        named(StageKind::Rest, "Bulk", 180.0, Some(25.0)),
        named(StageKind::Divide, "Shape", 20.0, None),
        named(StageKind::Rest, "A night in the cold", 720.0, Some(4.0)),
        named(StageKind::Bake, "Bake", 40.0, Some(230.0)),
    ])
}

/// A plan by the clock of a place, whenever it is now.
fn plan_schedule(
    method: &Method,
    anchor: Anchor,
    closed: &[ClosedHours],
    zone: Tz,
) -> Result<SchedulePlan, ScheduleError> {
    let wanted = ScheduleRequest { anchor, closed_hours: closed.to_vec(), zone, not_before: None };
    ironpeel_core::schedule::plan_schedule(method, &wanted, &Coefficients::default())
}

/// Whether nobody is there, by the clock on the wall.
fn shut(closed: &[ClosedHours], moment: DateTime<Utc>, zone: Tz) -> bool {
    let wall = moment.with_timezone(&zone).time();
    closed.iter().any(|ClosedHours { from, to }| {
        if from <= to { *from <= wall && wall < *to } else { *from <= wall || wall < *to }
    })
}

fn sound(plan: &SchedulePlan, closed: &[ClosedHours], zone: Tz) {
    for pair in plan.stages.windows(2) {
        assert_eq!(pair[0].ends_at, pair[1].starts_at, "no gap");
    }
    assert_eq!(plan.starts_at, plan.stages[0].starts_at);
    for stage in &plan.stages {
        let busy = if stage.hands { stage.ends_at } else { stage.starts_at };
        let looked = (0..(busy - stage.starts_at).num_minutes().max(1)).step_by(5);
        let open = |minute| !shut(closed, stage.starts_at + Duration::minutes(minute), zone);
        assert!(
            looked.into_iter().all(open),
            "{} at {} falls into the closed hours",
            stage.label,
            stage.starts_at
        );
    }
}

#[test]
fn with_all_hours_open_it_is_as_the_method_says() {
    let plan = plan_schedule(&straight(), Anchor::From(at(25, 9, 0)), &[], ISLAND).expect("fits");
    assert_eq!((plan.starts_at, plan.out_at), (at(25, 9, 0), at(25, 13, 30)));
    assert_eq!((plan.moved_min, plan.message), (0, None));
    let back =
        plan_schedule(&straight(), Anchor::OutBy(at(25, 13, 30)), &[], ISLAND).expect("fits");
    assert_eq!(back.stages, plan.stages);
    assert_eq!(plan.stages.last().map(|stage| stage.ends_at), Some(at(25, 14, 30)), "and cool");
}

#[test]
fn a_start_that_would_end_in_the_night_waits_for_the_morning() {
    let closed = [night()];
    let plan =
        plan_schedule(&straight(), Anchor::From(at(25, 19, 0)), &closed, ISLAND).expect("fits");
    sound(&plan, &closed, ISLAND);
    assert_eq!(plan.starts_at, at(26, 4, 0));
    assert_eq!((plan.moved_min, plan.message), (9 * 60, None), "the next morning");
}

#[test]
fn bread_wanted_early_is_baked_the_evening_before() {
    let closed = [night()];
    let plan =
        plan_schedule(&straight(), Anchor::OutBy(at(26, 6, 0)), &closed, ISLAND).expect("fits");
    sound(&plan, &closed, ISLAND);
    assert_eq!(plan.out_at, at(25, 21, 55), "while somebody is there to take it out");
}

#[test]
fn a_night_in_the_cold_is_stretched_before_anything_is_put_in() {
    let closed = [
        ClosedHours { from: clock(8, 0), to: clock(17, 0) },
        ClosedHours { from: clock(21, 30), to: clock(7, 0) },
    ];
    let plan =
        plan_schedule(&overnight(), Anchor::From(at(25, 17, 0)), &closed, ISLAND).expect("fits");
    sound(&plan, &closed, ISLAND);
    assert!(plan.stages.iter().all(|stage| !stage.added));
    let stretched: Vec<&str> = plan
        .stages
        .iter()
        .filter(|stage| stage.stretched_min != 0.0)
        .map(|stage| &*stage.label)
        .collect();
    assert_eq!(stretched, ["A night in the cold"]);
    assert!(matches!(plan.message, Some(ScheduleChange::ColdStretched { .. })));
}

#[test]
fn a_night_in_the_cold_is_stretched_only_as_far_as_its_stage_allows() {
    let closed = [
        ClosedHours { from: clock(8, 0), to: clock(17, 0) },
        ClosedHours { from: clock(21, 30), to: clock(7, 0) },
    ];
    let mut method = overnight();
    let cold = method.stages.iter().position(Stage::is_cold).expect("a night");
    let planned = method.stages[cold].minutes;
    let mut fits = 0;
    for hour in 0..24 {
        for (low, high) in [(1.0, 1.0), (0.95, 1.05), (0.9, 1.0), (1.0, 1.3), (0.75, 1.6)] {
            let tolerance = TimeTolerance { low_min: low * planned, high_min: high * planned };
            method.stages[cold].tolerance = Some(tolerance);
            let from = Anchor::From(at(25, hour, 0));
            let Ok(plan) = plan_schedule(&method, from, &closed, ISLAND) else { continue };
            let night = plan.stages.iter().find(|stage| stage.of == Some(cold)).expect("planned");
            let lasts = (night.ends_at - night.starts_at).num_minutes() as f64;
            assert!(
                (tolerance.low_min - 0.5..=tolerance.high_min + 0.5).contains(&lasts),
                "{lasts}"
            );
            fits += 1;
        }
    }
    assert!(fits > 20, "{fits}");
}

#[test]
fn a_method_without_a_night_is_given_one_when_it_is_the_only_way() {
    // Two hours in the evening and two in the morning are all there is.
    let closed = [
        ClosedHours { from: clock(8, 0), to: clock(18, 0) },
        ClosedHours { from: clock(21, 0), to: clock(5, 30) },
    ];
    let plan =
        plan_schedule(&straight(), Anchor::From(at(25, 18, 0)), &closed, ISLAND).expect("fits");
    sound(&plan, &closed, ISLAND);
    let added: Vec<&str> =
        plan.stages.iter().filter(|stage| stage.added).map(|stage| &*stage.label).collect();
    assert_eq!(added, ["In the cold"]);
    assert!(matches!(plan.message, Some(ScheduleChange::NightAdded { .. })), "{plan:?}");
    let proof = plan.stages.iter().position(|stage| stage.kind == StageKind::Proof);
    assert!(proof.is_some_and(|proof| plan.stages[proof - 1].added), "before the proof");

    let planned = plan.method(&straight());
    assert_eq!(planned.stages.len(), straight().stages.len() + 1);
    let minutes: f64 = planned.stages.iter().map(|stage| stage.minutes).sum();
    let all = plan.stages.last().expect("a stage").ends_at - plan.starts_at;
    assert!((minutes - all.num_minutes() as f64).abs() < 1e-9);
}

#[test]
fn folds_are_moments_with_hours_of_one_s_own_between_them() {
    let mut folded = straight();
    let folds = Stage {
        fold_sets: Some(3),
        ..named(StageKind::Fold, "Three sets of folds", 90.0, Some(24.0))
    };
    folded.stages.insert(1, folds);
    let free = |from, to| [ClosedHours { from, to }];
    // Away between the first set and the second; nobody may be away at the second.
    let begins = at(25, 9, 0);
    let mixed = folded.stages[0].minutes as i64;
    let set = |number: i64| begins + Duration::minutes(mixed + 30 * number);
    let clock_of = |moment: DateTime<Utc>| moment.with_timezone(&ISLAND).time();
    let away = free(clock_of(set(0) + Duration::minutes(3)), clock_of(set(1)));
    let plan = plan_schedule(&folded, Anchor::From(begins), &away, ISLAND).expect("fits");
    assert_eq!((plan.starts_at, plan.moved_min), (begins, 0));
    let stage = &plan.stages[1];
    assert!(!stage.hands, "it is not work all the while");
    let begun: Vec<DateTime<Utc>> = stage.folds.iter().map(|one| one.starts_at).collect();
    assert_eq!(begun, [set(0), set(1), set(2)]);
    assert!(stage.folds.iter().all(|one| one.ends_at - one.starts_at == Duration::minutes(2)));
    let busy =
        free(clock_of(set(1) - Duration::minutes(5)), clock_of(set(1) + Duration::minutes(5)));
    let moved = plan_schedule(&folded, Anchor::From(begins), &busy, ISLAND).expect("fits");
    assert!(moved.moved_min > 0);
}

#[test]
fn nothing_begins_in_the_past() {
    let wanted = |anchor, now| ScheduleRequest {
        anchor,
        closed_hours: vec![night()],
        zone: ISLAND,
        not_before: Some(now),
    };
    let plan = |anchor, now| {
        ironpeel_core::schedule::plan_schedule(
            &straight(),
            &wanted(anchor, now),
            &Coefficients::default(),
        )
    };
    let early = plan(Anchor::OutBy(at(26, 6, 0)), at(25, 12, 0)).expect("fits");
    assert_eq!((early.out_at, early.message), (at(25, 21, 55), None));
    let late =
        plan(Anchor::OutBy(at(26, 7, 0)), at(25, 18, 0)).expect("fits with a night in the cold");
    assert!(late.starts_at >= at(25, 18, 0) && late.out_at <= at(26, 7, 0), "{late:?}");
    assert!(late.stages.iter().any(|stage| stage.added));
    let never =
        plan(Anchor::OutBy(at(25, 20, 0)), at(25, 18, 0)).expect_err("two hours are not enough");
    assert!(never.to_string().contains("or into the past"), "{never}");
    let from = plan(Anchor::From(at(24, 9, 0)), at(25, 9, 30)).expect("fits");
    assert_eq!(from.starts_at, at(25, 9, 30));
}

#[test]
fn what_can_never_be_done_names_what_is_in_the_way() {
    let error = plan_schedule(
        &straight(),
        Anchor::From(at(25, 9, 0)),
        &[ClosedHours { to: clock(5, 40), from: clock(6, 0) }],
        ISLAND,
    );
    let message = error.expect_err("twenty minutes a day are not enough").to_string();
    assert!(message.contains("falls into the closed hours"), "{message}");
}

#[test]
fn a_long_bulk_is_halved_by_a_day_in_the_cold_around_work_and_sleep() {
    let method = Method {
        process: Process::StraightBulk,
        stages: vec![
            named(StageKind::Mix, "Mix", 24.0, None),
            named(StageKind::Fold, "Folds", 90.0, None),
            named(StageKind::Rest, "Bulk", 240.0, Some(25.0)),
            named(StageKind::Divide, "Shape", 6.0, None),
            named(StageKind::Proof, "Proof", 110.0, Some(28.0)),
            named(StageKind::Bake, "Bake", 45.0, Some(225.0)),
        ],
        ..straight()
    };
    let closed = [
        ClosedHours { from: clock(8, 0), to: clock(17, 0) },
        ClosedHours { from: clock(22, 30), to: clock(6, 30) },
    ];
    let plan = plan_schedule(&method, Anchor::OutBy(at(27, 22, 0)), &closed, ISLAND).expect("fits");
    sound(&plan, &closed, ISLAND);
    assert_eq!(
        plan.message,
        Some(ScheduleChange::NightAdded { hours: 20.0, at: NightPlace::HalfwayThroughBulk })
    );
    let then = plan.method(&method);
    let minutes: Vec<f64> = then.stages.iter().map(|stage| stage.minutes).collect();
    assert_eq!(minutes, [24.0, 90.0, 120.0, 1200.0, 120.0, 6.0, 110.0, 45.0]);
    assert_eq!(then.stages[4].temperature_c, Some(25.0), "the second half is as the first");
}

#[test]
fn spare_balls_are_frozen_thawed_and_taken_out_in_time() {
    let balls = Method {
        stages: vec![
            named(StageKind::Mix, "Mix", 10.0, None),
            named(StageKind::Divide, "Ball", 15.0, None),
            named(StageKind::Rest, "Cold", 1800.0, Some(4.0)),
            named(StageKind::Rest, "Out", 110.0, Some(22.0)),
            named(StageKind::Bake, "Bake", 3.0, Some(380.0)),
        ],
        ..straight()
    };
    let day = plan_schedule(&balls, Anchor::OutBy(at(27, 19, 0)), &[], ISLAND).expect("fits");
    let open = ScheduleRequest {
        anchor: Anchor::From(day.starts_at),
        closed_hours: Vec::new(),
        zone: ISLAND,
        not_before: None,
    };
    let spare = |on, method: &Method| {
        let mut faults = ValidationErrors::default();
        let asked = FrozenReserveInput { pieces: 4.0.into(), on };
        (asked.plan(method, &day, &open, &Coefficients::default(), "spare.", &mut faults), faults)
    };
    let (found, faults) = spare(at(29, 18, 0), &balls);
    let found = found.expect("there is a cold");
    assert!(faults.0.is_empty());
    assert_eq!(found.freeze_at, day.stages[2].starts_at + Duration::hours(2));
    assert_eq!(found.out_at, at(29, 16, 10));
    assert_eq!(found.thaw_at, at(28, 16, 10));
    // Where nobody is there they wait for the morning, and are taken out before the evening ends.
    let cold = found.freeze_at.time();
    let around = |moment: NaiveTime| ClosedHours {
        from: moment.overflowing_sub_signed(Duration::hours(1)).0,
        to: moment.overflowing_add_signed(Duration::hours(1)).0,
    };
    let closed = ScheduleRequest {
        closed_hours: vec![around(cold), around(found.thaw_at.time())],
        ..open.clone()
    };
    let asked = FrozenReserveInput { pieces: 4.0.into(), on: at(29, 18, 0) };
    let kept = asked
        .plan(&balls, &day, &closed, &Coefficients::default(), "", &mut ValidationErrors::default())
        .expect("fits");
    assert_eq!(kept.freeze_at, found.freeze_at + Duration::hours(1));
    for moment in [kept.freeze_at, kept.thaw_at, kept.out_at] {
        assert!(!shut(&closed.closed_hours, moment, ISLAND), "{moment} is nobody's hour");
    }
    assert!(kept.thaw_at < found.thaw_at && kept.out_at < found.out_at);
    let (_, soon) = spare(at(27, 12, 0), &balls);
    assert!(soon.0[0].message.contains("cannot be frozen and thawed"), "{soon:?}");
    let (_, late) = spare(at(27, 12, 0) + Duration::weeks(9), &balls);
    assert!(late.0[0].message.contains("keeps 6 weeks"), "{late:?}");
    let (none, without) = spare(at(29, 18, 0), &straight());
    assert!(none.is_none() && without.0[0].message.contains("no pieces lying in the cold"));
}

#[test]
fn a_starter_is_fed_at_an_hour_somebody_is_there() {
    let wanted = |closed: &[ClosedHours], now| ScheduleRequest {
        anchor: Anchor::From(at(26, 8, 0)),
        closed_hours: closed.to_vec(),
        zone: ISLAND,
        not_before: now,
    };
    let fed = feed_before(
        StarterWanted { mixes_at: at(26, 8, 0), grams: 300.0, hydration_pct: 100.0, room_c: 22.0 },
        &wanted(&[], None),
        &Coefficients::default(),
    )
    .expect("fits");
    assert_eq!(fed.at, at(25, 22, 0), "ten hours before");
    let ripe = fed.feed.ripe_h.expect("ripe");
    assert!((ripe - 10.0).abs() < 0.01, "{ripe}");
    let all = fed.feed.starter_g + fed.feed.flour_g + fed.feed.water_g;
    assert!((all - 300.0).abs() < 1e-9);
    let night = [ClosedHours { from: clock(21, 30), to: clock(4, 0) }];
    let early = feed_before(
        StarterWanted { mixes_at: at(26, 8, 0), grams: 300.0, hydration_pct: 100.0, room_c: 22.0 },
        &wanted(&night, None),
        &Coefficients::default(),
    )
    .expect("fits");
    assert_eq!(early.at, at(25, 21, 0), "eleven hours before, when somebody is there");
    let gone = wanted(&[], Some(at(26, 7, 30)));
    assert!(
        feed_before(
            StarterWanted {
                mixes_at: at(26, 8, 0),
                grams: 300.0,
                hydration_pct: 100.0,
                room_c: 22.0
            },
            &gone,
            &Coefficients::default()
        )
        .is_none(),
        "too late to feed"
    );
}

#[test]
fn nights_that_are_an_hour_short_or_long_are_planned_by_the_clock_on_the_wall() {
    // The clocks go forward on 29 March 2026 at 1:00, back on 25 October at 2:00.
    let from = |month, day, hour| {
        Utc.with_ymd_and_hms(2026, month, day, hour, 0, 0).single().expect("a moment")
    };
    let closed = [night()];
    for (start, opens) in [
        (from(3, 28, 22), from(3, 29, 3)),
        (from(10, 24, 21), from(10, 25, 4)),
        (from(11, 25, 22), from(11, 26, 4)),
    ] {
        let plan = plan_schedule(&straight(), Anchor::From(start), &closed, ISLAND).expect("fits");
        assert_eq!(plan.starts_at, opens, "at four by the wall");
        sound(&plan, &closed, ISLAND);
    }
    let bulk = |plan: &SchedulePlan| plan.stages[1].ends_at - plan.stages[1].starts_at;
    let through =
        plan_schedule(&overnight(), Anchor::From(from(3, 28, 18)), &[], ISLAND).expect("fits");
    assert_eq!(bulk(&through), Duration::minutes(180), "a dough knows no summer time");
    assert_eq!(through.stages[3].ends_at - through.stages[3].starts_at, Duration::hours(12));
}

fn check(input: Value) -> Result<ironpeel_core::schedule::ScheduleRequest, Vec<String>> {
    let input: ScheduleInput = serde_json::from_value(input).expect("the shape");
    let mut faults = ValidationErrors::default();
    let wanted = input.check(ISLAND, "day.", &mut faults);
    faults.or(wanted).map_err(|faults| faults.0.into_iter().map(|fault| fault.field).collect())
}

#[test]
fn hours_and_zone_are_read_or_told_at_their_place() {
    let by = json!({"by": "out_by", "at": "2026-11-26T05:00:00Z"});
    let wanted = check(json!({
        "anchor": by, "zone": "Europe/London",
        "closed_hours": [{"from": "22:00", "to": "4:00"}, {"from": " 12:30", "to": "13:00 "}],
    }))
    .expect("all of it");
    assert_eq!(wanted.anchor, Anchor::OutBy(at(26, 5, 0)));
    assert_eq!(wanted.closed_hours[0], night());
    assert_eq!(wanted.zone, ISLAND);
    assert_eq!(check(json!({"anchor": by})).expect("the least").zone, ISLAND, "the plant's");
    for (input, field) in [
        (json!({"closed_hours": [{"from": "25:00", "to": "4:00"}]}), "day.closed_hours[0].from"),
        (json!({"closed_hours": [{"from": "22:00"}]}), "day.closed_hours[0].to"),
        (json!({"closed_hours": [{"from": "22:00", "to": "22:05"}]}), "day.closed_hours[0].to"),
        (json!({"closed_hours": [{"from": "4:00", "to": "3:00"}]}), "day.closed_hours[0].to"),
        (json!({"zone": "Atlantis/Skerrow"}), "day.zone"),
        (
            json!({"closed_hours": vec![json!({"from": "1:00", "to": "2:00"}); 7]}),
            "day.closed_hours",
        ),
    ] {
        let mut whole = json!({"anchor": by});
        for (key, value) in input.as_object().expect("an object") {
            whole[key] = value.clone();
        }
        assert_eq!(check(whole).expect_err(field), [field]);
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(48))]

    #[test]
    fn whatever_fits_keeps_its_word(
        day in 1u32..28, hour in 0u32..24, from in 0u32..24, long in 1u32..12, back in any::<bool>(),
    ) {
        let closed = [ClosedHours { from: clock(from, 0), to: clock((from + long) % 24, 0) }];
        let wanted = at(day, hour, 0);
        let anchor = if back { Anchor::OutBy(wanted) } else { Anchor::From(wanted) };
        for method in [straight(), overnight()] {
            if let Ok(plan) = plan_schedule(&method, anchor, &closed, ISLAND) {
                sound(&plan, &closed, ISLAND);
                if back {
                    prop_assert!(plan.out_at <= wanted);
                } else {
                    prop_assert!(plan.starts_at >= wanted);
                }
                let windows = method.windows(&Coefficients::default());
                for stage in plan.stages.iter().filter(|stage| stage.stretched_min != 0.0) {
                    let lasts = (stage.ends_at - stage.starts_at).num_seconds() as f64 / 60.0;
                    // A night that was put in has no window of its own.
                    let allowed = stage.of.is_none_or(|of| {
                        (windows[of].low_min..=windows[of].high_min).contains(&lasts)
                    });
                    prop_assert!(allowed, "{} lasts {lasts} min", stage.label);
                }
                prop_assert_eq!(plan.stages.len() - plan.stages.iter().filter(|stage| stage.added).count(), method.stages.len());
            }
        }
    }

    #[test]
    fn refused_hours_hold_what_lies_in_them(from in 0u32..24, long in 1u32..20, minute in 0i64..1440) {
        let hours = ClosedHours { from: clock(from, 0), to: clock((from + long) % 24, 0) };
        let moment = at(10, 0, 0) + Duration::minutes(minute);
        let found = spans(&[hours], moment - Duration::days(1), moment + Duration::days(1), ISLAND);
        let held = found.iter().any(|(begins, ends)| *begins <= moment && moment < *ends);
        prop_assert_eq!(held, shut(&[hours], moment, ISLAND));
        prop_assert_eq!(hours.minutes(), i64::from(long) * 60);
    }
}
