//! What batches teach, and what they must not.

use chrono::{DateTime, TimeDelta, TimeZone, Utc};
use ironpeel_core::batch::BatchState;
use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::learn::{
    LearnedNumberInput, LearnedSubject, Lesson, NotLearned, PlannedWater, WaterLesson, offer,
    water_lesson,
};
use proptest::prelude::*;
use serde_json::json;
use uuid::Uuid;

fn day(number: i64) -> DateTime<Utc> {
    Utc.with_ymd_and_hms(2026, 6, 1, 4, 0, 0).unwrap() + TimeDelta::days(number)
}

fn lessons(told: &[Result<(f64, f64), NotLearned>]) -> Vec<Lesson> {
    let lesson = |(number, told): (i64, &Result<(f64, f64), NotLearned>)| Lesson {
        batch: Uuid::from_u64_pair(2, number.unsigned_abs()),
        at: day(number),
        told: *told,
    };
    (0..).zip(told).map(lesson).collect()
}

fn water() -> ironpeel_core::learn::Settings {
    LearnedSubject::WaterCorrection.settings(&Coefficients::default(), 12.0)
}

#[test]
fn a_number_narrows_with_its_batches_and_says_what_was_left_out() {
    let told = [Ok((0.8, 0.5)), Err(NotLearned::DamagedStarch), Ok((1.1, 0.5)), Ok((9.0, 0.5))];
    let found = offer(water(), &lessons(&told));
    let left_out: Vec<_> = found.history.iter().map(|step| step.left_out).collect();
    let outlier = Some(NotLearned::Outlier);
    assert_eq!(left_out, [None, Some(NotLearned::DamagedStarch), None, outlier]);
    assert_eq!(found.used, 2);
    assert!(found.low < found.mean && found.mean < found.high);
    let width = |at: usize| found.history[at].believed.high - found.history[at].believed.low;
    assert!(width(2) < width(0));
    assert_eq!(width(1), width(0), "what told nothing moved nothing");
    assert_eq!(found.changed_since, None);
    assert_eq!((found.hits.inside, found.hits.of), (2, 3), "nine points were not expected");
}

#[test]
fn three_rejected_on_one_side_are_a_change() {
    let mut told = vec![Ok((0.0, 0.3)); 12];
    told.extend([Ok((5.0, 0.3)), Ok((5.2, 0.3)), Ok((4.9, 0.3))]);
    assert_eq!(offer(water(), &lessons(&told)).changed_since, Some(day(12)));
    // One on the other side is none.
    told[13] = Ok((-5.0, 0.3));
    assert_eq!(offer(water(), &lessons(&told)).changed_since, None);
}

#[test]
fn what_would_make_a_habit_of_a_fault_is_not_learned() {
    let batch = WaterLesson {
        state: BatchState::Finished,
        over_plan_pts: 1.5,
        by_feel_pts: 1.5,
        complete: true,
        consistency: None,
        standing_pts: 0.0,
        damaged_starch_caution: false,
        planned_water: PlannedWater::Computed,
        crumb_is_low: false,
    };
    let house = Coefficients::default();
    let told = |batch: WaterLesson| water_lesson(&batch, &house);
    assert_eq!(told(batch), Ok((1.5, 0.5)));
    let armed = WaterLesson { damaged_starch_caution: true, ..batch };
    assert_eq!(told(armed), Err(NotLearned::DamagedStarch));
    let set = WaterLesson { planned_water: PlannedWater::Set, ..batch };
    assert_eq!(told(set), Err(NotLearned::WaterSet));
    let scrapped = WaterLesson { state: BatchState::Scrapped, ..batch };
    assert_eq!(told(scrapped), Err(NotLearned::Scrapped));
    let gummy = WaterLesson { crumb_is_low: true, ..batch };
    assert_eq!(told(gummy), Err(NotLearned::LowScore));
    let quiet = WaterLesson { over_plan_pts: 0.0, by_feel_pts: 0.0, complete: false, ..batch };
    assert_eq!(told(quiet), Err(NotLearned::NothingSaid));
    // What somebody added for a mistake at the scale counts, ticked lines or not.
    let corrected = WaterLesson { by_feel_pts: 0.0, complete: false, ..batch };
    assert_eq!(told(corrected), Ok((1.5, 0.5)));
    // Taking the correction over must not unlearn it: the plan counts without it.
    let with = WaterLesson { over_plan_pts: 0.0, standing_pts: 1.5, ..batch };
    assert_eq!(told(with), Ok((1.5, 0.5)));
}

#[test]
fn what_cannot_be_used_is_told_at_its_place() {
    let input: LearnedNumberInput = serde_json::from_value(json!({
        "prior_mean": 0, "prior_sd": 0, "measurement_sd": "wide", "walk_sd": -1, "gate_sigma": 11,
        "observations": [{"value": 1}, {"sd": 0.5}, {"value": 1, "sd": 0}],
    }))
    .expect("the contract's shape");
    let faults = input.compute().expect_err("refused").0;
    let fields: Vec<&str> = faults.iter().map(|fault| &*fault.field).collect();
    assert_eq!(
        fields,
        [
            "prior_sd",
            "measurement_sd",
            "walk_sd",
            "gate_sigma",
            "observations[1].value",
            "observations[2].sd"
        ]
    );
    let missing: LearnedNumberInput = serde_json::from_value(
        json!({"prior_mean": 0, "prior_sd": 1, "measurement_sd": 1, "walk_sd": 0}),
    )
    .expect("the contract's shape");
    assert_eq!(missing.compute().expect_err("refused").0[0].field, "observations");
}

#[test]
fn a_gate_of_nought_takes_everything() {
    let input: LearnedNumberInput = serde_json::from_value(json!({
        "prior_mean": 0, "prior_sd": 1.5, "measurement_sd": 0.5, "walk_sd": 0.15, "gate_sigma": 0,
        "observations": [{"value": 0.8}, {"value": 60}],
    }))
    .expect("the contract's shape");
    let found = input.compute().expect("learned");
    assert_eq!(found.used, 2);
    assert!(found.mean > 20.0);
}

proptest! {
    /// Learned numbers never move on batches that are left out.
    #[test]
    fn what_is_left_out_never_moves_it(values in proptest::collection::vec(-2.0..2.0f64, 1..40), at in 0usize..40) {
        let told: Vec<_> = values.iter().map(|value| Ok((*value, 0.5))).collect();
        let mut with = told.clone();
        with.insert(at.min(told.len()), Err(NotLearned::WaterSet));
        let [one, other] = [told, with].map(|told| offer(water(), &lessons(&told)));
        prop_assert_eq!((one.mean, one.sd, one.used), (other.mean, other.sd, other.used));
    }
}
