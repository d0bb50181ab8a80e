//! A batch held against its plan, beside others, and by its jar.

use std::collections::BTreeMap;

use crate::support::bench::{bench, flour, plain, strong};
use chrono::{DateTime, TimeDelta, TimeZone, Utc};
use ironpeel_core::batch::{
    BatchPlan, BatchRecord, BatchReport, ComparedBatch, ComparisonRow, EndedBy, Event,
    PlannedFigures, PlannedLine, Quantity, StagePlan, compare, fold, report,
};
use ironpeel_core::chain::{BatchFollowed, Chain, ReadOf, Scenario, batch_fermentation, chain};
use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::fault::{
    BakeEvidence, BatchEvidence, FlourEvidence, PlanEvidence, SeenEvidence, features,
};
use ironpeel_core::ferment::JarReading;
use ironpeel_core::flour::{Property, Reading, Readings};
use ironpeel_core::judging::{Characteristic, ScoreMark, Sign};
use ironpeel_core::method::{
    EndPoint, Method, Mixer, Process, Speed, Stage, StageKind, TimeTolerance,
};
use serde_json::{Value, json};
use uuid::Uuid;

fn began() -> DateTime<Utc> {
    Utc.with_ymd_and_hms(2026, 11, 26, 22, 0, 0).unwrap()
}

fn at(minute: i64) -> DateTime<Utc> {
    began() + TimeDelta::minutes(minute)
}

fn id(number: u64) -> Uuid {
    Uuid::from_u64_pair(3, number)
}

fn event(number: u64, minute: i64, kind: &str, said: Value) -> Event {
    let mut event = json!({"id": id(number), "kind": kind, "happened_at": at(minute)});
    let Value::Object(said) = said else { panic!("an object") };
    event.as_object_mut().expect("an object").extend(said);
    serde_json::from_value(event).expect("an event")
}

const MIXING: u64 = 100;
const PROOF: u64 = 101;
const BAKE: u64 = 102;

fn plan() -> BatchPlan {
    let stage = |number, kind, label: &str, minutes| Stage {
        id: Some(id(number)),
        tolerance: Some(TimeTolerance { low_min: minutes * 0.8, high_min: minutes * 1.2 }),
        ..Stage::new(kind, label, minutes)
    };
    let method = Method {
        process: Process::NoTime,
        target_c: 27.0,
        sponge_c: None,
        machine_divided: true,
        stages: vec![
            Stage {
                speed: Some(Speed::Fast),
                end_point: EndPoint::PullAndTap,
                ..stage(MIXING, StageKind::Mix, "Mixing", 10.0)
            },
            Stage { end_point: EndPoint::Height, ..stage(PROOF, StageKind::Proof, "Proof", 60.0) },
            Stage {
                end_point: EndPoint::CoreTemperature,
                ..stage(BAKE, StageKind::Bake, "Bake", 20.0)
            },
        ],
    };
    let mixer = Mixer {
        name: "Spiral".into(),
        kind: "spiral".into(),
        min_kg: 1.0,
        max_kg: 200.0,
        slow_kj_per_kg_min: 1.0,
        fast_kj_per_kg_min: 2.5,
        jacket_kj_per_kg_min: None,
    };
    BatchPlan {
        planned_for: began(),
        stages: StagePlan::of(&method, &mixer, &Coefficients::default()),
        lines: vec![PlannedLine {
            stage: Some(id(MIXING)),
            of: "water".into(),
            name: "water".into(),
            ingredient: "water".into(),
            part: None,
            kg: 60.0,
            division_kg: 0.01,
            temperature_c: Some(12.0),
            is_water: true,
            is_ice: false,
        }],
        figures: PlannedFigures {
            doughs: 1.0,
            flour_kg: 100.0,
            target_c: 27.0,
            mixing_kj_per_kg: 25.0,
            pieces: 200.0,
            piece_kg: 0.8,
            bake_loss_pct: 12.0,
            standing_correction_pts: 0.0,
            slicer_core_c: 38.0,
        },
    }
}

/// A batch as it was run, with its dough and its proof as they were.
fn run(dough_c: f64, proof_min: i64) -> Vec<Event> {
    let end = 12 + proof_min;
    vec![
        event(1, 0, "start", json!({})),
        event(
            2,
            1,
            "reading",
            json!({"quantity": "mass_kg", "of": "water", "stage": id(MIXING), "value": 61}),
        ),
        event(3, 12, "stage_end", json!({"stage": id(MIXING), "ended_by": "pull"})),
        event(4, 12, "reading", json!({"quantity": "dough_c", "value": dough_c})),
        event(5, end, "stage_end", json!({"stage": id(PROOF), "ended_by": "height"})),
        event(6, end + 20, "reading", json!({"quantity": "core_c", "value": 95.5})),
        event(7, end + 21, "stage_end", json!({"stage": id(BAKE), "ended_by": "core"})),
        event(
            8,
            end + 40,
            "finish",
            json!({"pieces_good": 190, "pieces_rejected": 10, "mass_kg": 139.2}),
        ),
    ]
}

fn come_to(events: &[Event]) -> (BatchRecord, BatchReport) {
    let record = fold(events);
    let report = report(&plan(), &record, at(200));
    (record, report)
}

#[test]
fn a_finished_batch_is_held_against_its_plan() {
    let (_, report) = come_to(&run(28.4, 70));
    let dough = report.dough_c.expect("it was read");
    assert_eq!((dough.planned, dough.actual), (27.0, 28.4));
    assert!((dough.difference - 1.4).abs() < 1e-9);
    // Twelve minutes at 2.5 kJ/kg.
    assert!((report.mixing_kj_per_kg.expect("it was mixed").actual - 30.0).abs() < 1e-9);
    assert!((report.proof_min.expect("it proved").difference - 10.0).abs() < 1e-9);
    assert!((report.bake_min.expect("it was baked").actual - 21.0).abs() < 1e-9);
    let water = report.water.expect("it was weighed");
    assert!((water.over_plan_pts - 1.0).abs() < 1e-9 && water.complete);
    // 139.2 kg of 160 kg of dough in pieces.
    assert!((report.loss_pct.expect("it was weighed").actual - 13.0).abs() < 1e-9);
    assert_eq!(report.pieces.expect("they were counted").actual, 200.0);
    assert_eq!(report.rejected_pct, Some(5.0));
    assert_eq!(report.next, None);
}

#[test]
fn a_core_that_comes_to_the_slicer_too_warm_is_said() {
    let core = |minute: i64, c: f64| {
        let read = json!({"quantity": "core_c", "value": c});
        let mut events = run(27.0, 60);
        events.insert(7, event(20, 72 + minute, "reading", read));
        come_to(&events).1.slicer_core
    };
    assert_eq!(come_to(&run(27.0, 60)).1.slicer_core, None, "nothing was read after the bake");
    // Out of the oven at 21 min: a reading just after is still the bake's.
    assert_eq!(core(23, 96.0), None);
    let warm = core(30, 41.2).expect("it was read");
    assert_eq!((warm.core_c, warm.limit_c, warm.over), (41.2, 38.0, true));
    assert!(!core(30, 38.0).expect("it was read").over);
}

#[test]
fn what_is_not_over_is_not_reported_and_what_passes_its_limit_is() {
    let (_, report) = come_to(&run(27.0, 60)[..4]);
    assert!(report.mixing_kj_per_kg.is_some(), "the mixing is over");
    assert_eq!(report.proof_min, None);
    assert_eq!(report.loss_pct, None);
    let proof = report.times[1];
    assert_eq!((proof.due_at, proof.limit_at), (at(72), at(84)));
    assert!(proof.beyond_limit, "it has lain for over three hours");
    let next = report.next.expect("the proof");
    assert_eq!((next.stage, next.late_min.round() as i64), (Some(id(PROOF)), 128));
}

#[test]
fn each_end_point_is_stamped_by_a_sign_of_its_own() {
    let signs: Vec<EndedBy> = plan().stages.iter().map(|stage| stage.ended_by).collect();
    assert_eq!(signs, [EndedBy::Pull, EndedBy::Height, EndedBy::Core]);
    for (end, sign) in [
        (EndPoint::Look, EndedBy::Look),
        (EndPoint::Ph, EndedBy::Look),
        (EndPoint::Time, EndedBy::Clock),
        (EndPoint::Temperature, EndedBy::Temperature),
        (EndPoint::Rise, EndedBy::Rise),
        (EndPoint::Jar, EndedBy::Jar),
        (EndPoint::Drop, EndedBy::Drop),
        (EndPoint::Windowpane, EndedBy::Windowpane),
        (EndPoint::ClearsBowl, EndedBy::ClearsBowl),
        (EndPoint::Poke, EndedBy::Poke),
        (EndPoint::Cracks, EndedBy::Cracks),
    ] {
        assert_eq!(EndedBy::from(end), sign);
    }
}

fn row<'a>(rows: &'a [ComparisonRow], label: &str) -> &'a ComparisonRow {
    rows.iter().find(|row| row.label == label).unwrap_or_else(|| panic!("{label}"))
}

#[test]
fn batches_stand_side_by_side_and_what_differs_is_said() {
    let one = come_to(&run(27.1, 60));
    let other = come_to(&run(29.0, 61));
    let batches = [&one, &other].map(|(record, report)| ComparedBatch { report, record });
    let rows = compare(&batches);
    let dough = row(&rows, "Dough temperature");
    assert!(dough.differs);
    assert_eq!(dough.values, [Some(27.1), Some(29.0)]);
    assert_eq!(dough.planned, [Some(27.0); 2]);
    assert!(!row(&rows, "Proof").differs, "a minute is not noticed");
    assert!(!row(&rows, "Core at the end").differs);
    // Both are off the plan alike, and that is a difference too.
    assert!(row(&rows, "Water over plan").differs);
    assert!(rows.iter().all(|row| row.label != "Flour temperature"), "nobody read it");
    // One alone is held against its plan.
    let alone = compare(&batches[1..]);
    assert!(row(&alone, "Dough temperature").differs);
    assert!(!row(&alone, "Proof").differs);
}

#[test]
fn readings_of_one_quantity_come_in_order_whatever_order_they_were_sent_in() {
    let mut events = run(27.0, 60);
    events.push(event(20, 40, "reading", json!({"quantity": "jar_rise_pct", "value": 40})));
    events.push(event(21, 30, "reading", json!({"quantity": "jar_rise_pct", "value": 22})));
    events.push(event(22, 35, "reading", json!({"quantity": "dough_rise_pct", "value": 90})));
    let record = fold(&events);
    let jar: Vec<f64> = record.readings(Quantity::JarRisePct).map(|(_, value, _)| value).collect();
    assert_eq!(jar, [22.0, 40.0], "the jar and the dough are not mixed up");
}

/// A flour's readings, nothing but its damaged starch and falling number.
fn lab(damaged_starch: f64, falling_number: f64) -> Readings {
    let reading =
        |property, value| Reading { property, value, basis: None, method: None, censored: None };
    Readings(vec![
        reading(Property::DamagedStarch, damaged_starch),
        reading(Property::FallingNumber, falling_number),
    ])
}

#[test]
fn what_of_a_batch_is_evidence_is_read_off_its_record() {
    let mut events = run(29.0, 66);
    events[2] = event(3, 12, "stage_end", json!({"stage": id(MIXING), "ended_by": "clears_bowl"}));
    events.extend([
        event(20, 3, "addition", json!({"ingredient": "water", "kg": 0.5, "reason": "feel"})),
        event(21, 13, "addition", json!({"ingredient": "water", "kg": 1.0, "reason": "feel"})),
        event(22, 2, "reading", json!({"quantity": "water_c", "value": 15})),
        event(23, 40, "reading", json!({"quantity": "humidity_pct", "value": 72})),
        event(24, 50, "observation", json!({"name": "poke", "value": 1})),
        event(25, 55, "observation", json!({"name": "poke", "value": 3})),
    ]);
    let (record, report) = come_to(&events);
    let (now, before) = (lab(10.9, 318.0), lab(8.3, 330.0));
    let plan = plan();
    let flour = FlourEvidence { readings: &now, before: Some(&before), age_days: Some(9.0) };
    let nothing = BTreeMap::new();
    let batch = BatchEvidence {
        plan: &plan,
        record: &record,
        report: &report,
        flour: Some(flour),
        planned: &PlanEvidence::default(),
        seen: &SeenEvidence::default(),
        answers: &nothing,
        coefficients: &Coefficients::default(),
    };
    let found = features(&batch);
    for (key, wanted) in [
        ("damaged_starch_pct", 10.9),
        ("damaged_starch_d_pts", 2.6),
        ("falling_number_s", 318.0),
        ("flour_age_days", 9.0),
        // One weighed over the plan, one and a half added, one of it after the dough cleaned up.
        ("water_over_plan_pts", 2.5),
        ("water_late_pts", 1.0),
        ("ds_trap", 2.0),
        ("water_c_d", 3.0),
        ("dough_c_d", 2.0),
        ("mix_energy_d_pct", 20.0),
        ("proof_time_d_pct", 10.0),
        ("proof_rh_pct", 72.0),
        ("bake_time_d_pct", 5.0),
        ("where_after_stop", 0.0),
        // The last that was seen.
        ("poke", 3.0),
    ] {
        let value = found.get(key).unwrap_or_else(|| panic!("{key} in {found:?}"));
        assert!((value - wanted).abs() < 1e-6, "{key}: {value} is not {wanted}");
    }
    for missing in ["protein_d_pts", "sponge_end_c", "cool_time_d_pct", "core_slice_c"] {
        assert!(!found.contains_key(missing), "nobody measured {missing}");
    }
    // Without the certificate nothing is known of the trap.
    let unknown = features(&BatchEvidence { flour: None, ..batch });
    assert!(!unknown.contains_key("ds_trap"));
    // What somebody knows of it closes the gap, and counts before what was entered.
    let answers = BTreeMap::from([("damaged_starch_pct".into(), 11.0), ("poke".into(), 2.0)]);
    let told = features(&BatchEvidence { flour: None, answers: &answers, ..batch });
    assert_eq!((told.get("ds_trap"), told.get("poke")), (Some(&2.0), Some(&2.0)));
    // Less starch than critical, and hardly more than before: not armed, whatever was added.
    let (now, before) = (lab(8.2, 318.0), lab(8.0, 330.0));
    let flour = FlourEvidence { readings: &now, before: Some(&before), age_days: None };
    let calm = features(&BatchEvidence { flour: Some(flour), ..batch });
    assert_eq!(calm.get("ds_trap"), Some(&0.0));
}

#[test]
fn what_was_weighed_and_how_warm_it_came_is_held_against_what_was_calculated_with() {
    let mut plan = plan();
    let line = |of: &str, ingredient: &str, kg| PlannedLine {
        of: of.into(),
        name: of.into(),
        ingredient: ingredient.into(),
        kg,
        is_water: false,
        ..plan.lines[0].clone()
    };
    let own = [
        line("salt", "salt", 2.0),
        line("yeast", "instant_yeast", 1.0),
        line("sugar", "sugar", 3.0),
        line("honey", "honey", 1.0),
    ];
    plan.lines.extend(own);
    let mass = |of: &str, kg: f64| json!({"quantity": "mass_kg", "of": of, "stage": id(MIXING), "value": kg});
    let mut events = run(27.0, 60);
    events.extend([
        event(20, 1, "reading", mass("salt", 1.6)),
        event(21, 1, "reading", mass("yeast", 1.2)),
        event(22, 1, "reading", mass("sugar", 3.5)),
        event(23, 2, "reading", json!({"quantity": "flour_c", "value": 24})),
        event(24, 2, "reading", json!({"quantity": "room_c", "value": 19})),
        event(25, 12, "reading", json!({"quantity": "ph", "value": 5.4})),
    ]);
    let record = fold(&events);
    let report = report(&plan, &record, at(300));
    let planned = PlanEvidence {
        figures: BTreeMap::from([("osmotic_load", 0.9), ("water_c_d", 99.0)]),
        flour_c: Some(20.0),
        room_c: Some(22.0),
        no_time: true,
        ..PlanEvidence::default()
    };
    let batch = BatchEvidence {
        plan: &plan,
        record: &record,
        report: &report,
        flour: None,
        planned: &planned,
        seen: &SeenEvidence::default(),
        answers: &BTreeMap::new(),
        coefficients: &Coefficients::default(),
    };
    let found = features(&batch);
    for (key, wanted) in [
        ("salt_d_pts", -0.4),
        ("yeast_d_pct", 20.0),
        ("flour_c_d", 4.0),
        ("room_c_d", -3.0),
        ("dough_ph", 5.4),
        ("mix_time_d_pct", 20.0),
        ("wait_oven_min", 0.0),
        ("osmotic_load", 0.9),
    ] {
        assert!((found[key] - wanted).abs() < 1e-9, "{key}: {}", found[key]);
    }
    // Honey was not ticked: how sweet the dough is nobody knows.
    assert!(!found.contains_key("sugar_d_pts"));
    // Under the mixer still, nobody knows how long it was mixed.
    let under_way = fold(&events[..1]);
    let so_far = ironpeel_core::batch::report(&plan, &under_way, at(4));
    let early = features(&BatchEvidence { record: &under_way, report: &so_far, ..batch });
    assert!(!early.contains_key("mix_time_d_pct"));
    let unknown = features(&BatchEvidence { planned: &PlanEvidence::default(), ..batch });
    assert!(!unknown.contains_key("flour_c_d") && !unknown.contains_key("osmotic_load"));
}

#[test]
fn a_logger_and_judges_are_evidence_where_they_were_there() {
    let (record, report) = come_to(&run(27.0, 60));
    let nothing = BTreeMap::new();
    let bake = BakeEvidence {
        arrival_pct: Some(91.4),
        target_arrival_pct: 80.0,
        kill_pct: Some(50.0),
        spread_min: Some(1.2),
        end_c: 95.3,
    };
    let mark = |of, mark, sign| ScoreMark { of, mark, sign };
    let marks = vec![
        mark(Characteristic::CrustColour, 3.5, Some(Sign::TooMuch)),
        mark(Characteristic::Stickiness, 2.0, None),
    ];
    let found = |seen: &SeenEvidence| {
        features(&BatchEvidence {
            plan: &plan(),
            record: &record,
            report: &report,
            flour: None,
            planned: &PlanEvidence::default(),
            seen,
            answers: &nothing,
            coefficients: &Coefficients::default(),
        })
    };
    let unseen = found(&SeenEvidence::default());
    let seen = found(&SeenEvidence { bake: Some(bake), marks });
    for (key, wanted) in [
        ("arrival_d_pts", 11.4),
        ("spread_min", 1.2),
        ("kill_pct", 50.0),
        ("colour_d", 1.5),
        ("stick_mark", 2.0),
    ] {
        assert!((seen[key] - wanted).abs() < 1e-9, "{key}");
        assert!(!unseen.contains_key(key), "{key} was not seen before");
    }
    assert!(!seen.contains_key("openness_d"), "nobody marked it");
    let never = SeenEvidence {
        bake: Some(BakeEvidence { arrival_pct: None, ..bake }),
        ..SeenEvidence::default()
    };
    assert!(!found(&never).contains_key("arrival_d_pts"), "missing is missing, not nothing");
}

/// A dough with an hour of bulk and an hour of proof at 26 °C, followed.
fn with_dough<T>(ask: impl FnOnce(&Scenario<'_>, &Chain) -> T) -> T {
    let mut bench = bench(plain(), Process::StraightBulk);
    let warm = |kind, label: &str, minutes| Stage {
        temperature_c: Some(26.0),
        ..Stage::new(kind, label, minutes)
    };
    bench.method.stages = vec![
        Stage { speed: Some(Speed::Slow), ..Stage::new(StageKind::Mix, "Mixing", 8.0) },
        warm(StageKind::Rest, "Bulk", 90.0),
        Stage::new(StageKind::Divide, "Divide", 5.0),
        warm(StageKind::Proof, "Proof", 60.0),
        Stage::new(StageKind::Bake, "Bake", 30.0),
    ];
    let readings = strong();
    let flours =
        [flour("Tarn Strong", ironpeel_core::flour::Species::Wheat, 75.0, 100.0, &readings)];
    let scenario = bench.scenario(&flours);
    ask(&scenario, &chain(&scenario))
}

const NOTHING: BatchFollowed<'_> = BatchFollowed {
    of: ReadOf::Jar,
    readings: &[],
    now_h: 0.5,
    wanted_pct: Some(60.0),
    moved: &[],
};

#[test]
fn a_jar_that_lags_moves_the_hour_and_narrows_the_band() {
    with_dough(|scenario, chain| {
        let before = batch_fermentation(scenario, chain, NOTHING).expect("it ferments");
        let at_h = before.wanted.at_h.expect("it reaches its mark");
        // Half of what was expected by then, read three times.
        let read: Vec<JarReading> = [0.6, 0.9, 1.2]
            .map(|t_h| {
                let near = |point: &&ironpeel_core::chain::RiseBand| (point.t_h - t_h).abs();
                let series = before.series.iter();
                let expected = series.min_by(|one, other| near(one).total_cmp(&near(other)));
                let rise_pct = expected.expect("a series").rise_pct.typical / 2.0;
                JarReading { t_h, rise_pct }
            })
            .into();
        let followed = BatchFollowed { readings: &read, now_h: 1.2, ..NOTHING };
        let after = batch_fermentation(scenario, chain, followed).expect("it ferments");
        assert!(after.rate.rate < 0.8 * before.rate.rate, "{:?}", after.rate);
        assert!(after.rate.sd < before.rate.sd);
        assert!(after.wanted.at_h.is_none_or(|later| later > at_h + 0.2), "{:?}", after.wanted);
        for point in &after.series {
            let band = point.rise_pct;
            assert!(band.low <= band.typical && band.typical <= band.high);
        }
    });
}

#[test]
fn the_cold_buys_hours_and_the_longer_it_lay_the_sooner_it_is_ready() {
    with_dough(|scenario, chain| {
        let warm = batch_fermentation(scenario, chain, NOTHING).expect("it ferments");
        let cold = &warm.into_the_cold;
        let bakes_h = warm.wanted.at_h.expect("it reaches its mark");
        assert!(cold.until_h.is_none_or(|until| until > bakes_h + 2.0), "{cold:?}");
        // Hours at room temperature that are left once it comes out.
        let left: Vec<f64> = cold
            .taken_out
            .iter()
            .map(|out| out.ready_h.expect("within a day") - NOTHING.now_h - out.after_h)
            .collect();
        assert!(left.windows(2).all(|pair| pair[1] <= pair[0] + 1e-9), "{left:?}");
        // Put there in fact, it arrives later than it would have.
        let moved = [(0.5, cold.cold_c)];
        let put = BatchFollowed { moved: &moved, ..NOTHING };
        let put = batch_fermentation(scenario, chain, put).expect("it ferments");
        assert!(put.wanted.at_h.is_none_or(|later| later > bakes_h + 1.0), "{:?}", put.wanted);
        // And taken out again, sooner than if it stayed.
        let out = [(0.5, cold.cold_c), (1.0, 26.0)];
        let out = BatchFollowed { moved: &out, ..NOTHING };
        let out = batch_fermentation(scenario, chain, out).expect("it ferments");
        let out_h = out.wanted.at_h.expect("it goes on");
        assert!(out_h > bakes_h && put.wanted.at_h.is_none_or(|later| later > out_h));
    });
}

#[test]
fn where_no_rise_is_stated_it_is_that_of_the_plan_at_the_oven() {
    with_dough(|scenario, chain| {
        let plan = BatchFollowed { wanted_pct: None, ..NOTHING };
        let found = batch_fermentation(scenario, chain, plan).expect("it ferments");
        let oven_h = (8.0 + 90.0 + 5.0 + 60.0) / 60.0;
        let at_h = found.wanted.at_h.expect("by definition");
        assert!((at_h - oven_h).abs() < 0.1, "{at_h} {oven_h}");
    });
}
