//! A run of doughs planned anew, the line standing still in it.

use std::hint::black_box;

use chrono::{DateTime, Duration, NaiveTime, TimeZone, Utc};
use chrono_tz::Tz;
use criterion::{Criterion, criterion_group, criterion_main};
use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::method::{Equipment, Method, Process, Stage, StageKind};
use ironpeel_core::schedule::{
    Anchor, ClosedHours, EachDough, RunRequest, ScheduleRequest, Shift, Stop, plan_run,
};

static HOUSE: Coefficients = Coefficients(Vec::new());

fn runs(criterion: &mut Criterion) {
    let stage = Stage::new;
    let method = Method {
        process: Process::SpongeDough,
        target_c: 26.5,
        sponge_c: None,
        machine_divided: true,
        stages: vec![
            stage(StageKind::Rest, "Sponge", 210.0),
            stage(StageKind::Mix, "Pick-up", 2.0),
            stage(StageKind::Mix, "Development", 7.0),
            stage(StageKind::Rest, "Floor time", 15.0),
            stage(StageKind::Divide, "Divide", 12.0),
            stage(StageKind::Divide, "Mould", 4.0),
            stage(StageKind::Proof, "Proof", 58.0),
            stage(StageKind::Bake, "Bake", 24.0),
            stage(StageKind::Cool, "Cool", 90.0),
        ],
    };
    let equipment = Equipment {
        turn_min: 4.0,
        troughs: 16,
        trough_kg: 320.0,
        trough_m2: 2.1,
        divider_per_min: 48.0,
        proofer_pieces: 2900.0,
        oven_pieces: 1300.0,
    };
    let five: DateTime<Utc> = Utc.with_ymd_and_hms(2026, 11, 26, 5, 0, 0).single().expect("five");
    let clock = |hour| NaiveTime::from_hms_opt(hour, 0, 0).expect("an hour");
    let day = ScheduleRequest {
        anchor: Anchor::OutBy(five),
        // A day's start has to be sought.
        closed_hours: vec![ClosedHours { from: clock(3), to: clock(5) }],
        zone: Tz::Europe__London,
        not_before: None,
    };
    let shifts = [Shift { dough: 7, stage: 1, by_min: 20.0 }];
    // Each piece is laid by itself: the time for a dough is to stay the same.
    for doughs in [10, 20, 40] {
        let wanted = RunRequest {
            method: &method,
            equipment: &equipment,
            doughs,
            each: EachDough { kg: 500.0, sponge_kg: 304.0, pieces: 553.0, piece_kg: 0.9 },
            day: &day,
            shifts: &shifts,
            stop: Some(Stop { from: five - Duration::hours(6), minutes: 90.0, place: None }),
            dropped: &[3],
            coefficients: &HOUSE,
        };
        plan_run(&wanted).expect("it fits");
        criterion.bench_function(&format!("a run of {doughs} doughs planned anew"), |bench| {
            bench.iter(|| plan_run(black_box(&wanted)));
        });
    }
}

criterion_group!(benches, runs);
criterion_main!(benches);
