//! One dough used over several days.

use crate::support::bench::{Bench, bench, flour, plain, stage, strong};
use crate::support::near;
use chrono::{DateTime, Duration, Utc};
use ironpeel_core::chain::{
    PortionCaution, PortionInput, PortionStorage, Portions, PortionsInput, chain, portions,
};
use ironpeel_core::flour::Species;
use ironpeel_core::method::{Process, Stage, StageKind};
use ironpeel_core::units::ValidationErrors;

fn begins() -> DateTime<Utc> {
    DateTime::from_timestamp(1_800_000_000, 0).expect("a moment")
}

fn portion(pieces: f64, kept: PortionStorage, after_h: i64) -> PortionInput {
    PortionInput {
        pieces: pieces.into(),
        kept,
        out_of_oven_at: begins() + Duration::hours(after_h),
    }
}

/// Balls that are divided after two hours, and proofed an hour before half an hour of oven.
fn balls(cold: bool) -> Bench {
    let mut bench = bench(plain(), Process::LongCold);
    let night = Stage { temperature_c: Some(5.0), ..stage(StageKind::Rest, 1200.0) };
    bench.method.stages.insert(2, stage(StageKind::Divide, 10.0));
    if cold {
        bench.method.stages.insert(3, night);
    }
    bench
}

fn planned(bench: &Bench, wanted: Vec<PortionInput>) -> Result<Portions, ValidationErrors> {
    let readings = strong();
    let flours = [flour("Tarn Strong", Species::Wheat, 76.0, 100.0, &readings)];
    let scenario = bench.scenario(&flours);
    let asked = PortionsInput { starts_at: begins(), portions: wanted };
    portions(&scenario, &chain(&scenario), &asked)
}

const COLD: PortionStorage = PortionStorage::Refrigerator;
const FROZEN: PortionStorage = PortionStorage::Freezer;

#[test]
fn two_tomorrow_two_later_and_two_frozen_each_come_out_and_warm_at_their_hour() {
    let wanted = || vec![portion(2.0, COLD, 24), portion(2.0, COLD, 72), portion(2.0, FROZEN, 240)];
    let found = planned(&balls(true), wanted()).expect("it is made");
    assert_eq!(found.divided_at, begins() + Duration::minutes(138));
    assert_eq!((found.pieces, found.left_pieces), (9, 3));
    let [tomorrow, saturday, frozen] = found.portions.as_slice() else { panic!("three") };
    // An hour of proof and half an hour of oven, as the method has them.
    assert_eq!(tomorrow.bake_at, begins() + Duration::minutes(24 * 60 - 30));
    assert_eq!(tomorrow.out_at, tomorrow.bake_at - Duration::minutes(60));
    assert_eq!((tomorrow.thaw_at, tomorrow.caution), (None, None));
    near(saturday.kept_h - tomorrow.kept_h, 48.0, 1e-9);
    let ripe = |one: &ironpeel_core::chain::Portion| one.maturity.expect("it has yeast").maturity;
    assert!(ripe(saturday) > ripe(tomorrow), "it ripens in the cold");
    // Half a kilo in 22 °C from 5 °C to 17: 0.63 h · ln(17/5).
    let warms = (tomorrow.warm_at - tomorrow.out_at).num_seconds() as f64 / 3600.0;
    near(warms, 0.5_f64.powf(2.0 / 3.0) * (17.0_f64 / 5.0).ln(), 0.001);
    assert_eq!(frozen.thaw_at, Some(frozen.out_at - Duration::hours(24)));
    assert!(frozen.rise_pct < saturday.rise_pct, "freezing costs the yeast some of its vigour");

    // Without a cold of its own it warms first, then proofs.
    let other = planned(&balls(false), wanted()).expect("it is made");
    let one = &other.portions[0];
    near((one.bake_at - one.warm_at).num_minutes() as f64, 60.0, 1.0);
}

#[test]
fn what_cannot_be_is_said_at_its_portion() {
    let faults = |bench: &Bench, wanted| -> Vec<String> {
        let faults = planned(bench, wanted).expect_err("it cannot be");
        faults.0.into_iter().map(|fault| fault.field).collect()
    };
    let bench = balls(true);
    assert_eq!(faults(&bench, vec![portion(2.0, COLD, 3)]), ["portions[0].out_of_oven_at"]);
    assert_eq!(faults(&bench, vec![portion(2.0, FROZEN, 20)]), ["portions[0].out_of_oven_at"]);
    assert_eq!(faults(&bench, vec![portion(6.0, COLD, 24); 2]), ["portions"]);
    assert_eq!(faults(&bench, vec![portion(0.0, COLD, 24)]), ["portions[0].pieces"]);
    assert_eq!(faults(&bench, vec![]), ["portions"]);
    assert_eq!(faults(&bench, vec![portion(0.1, COLD, 24); 13])[0], "portions");
    let whole = self::bench(plain(), Process::StraightBulk);
    assert_eq!(faults(&whole, vec![portion(2.0, COLD, 24)]), ["portions"]);

    assert_eq!(
        faults(&bench, vec![portion(1.0, FROZEN, 24 * 365 * 50)]),
        ["portions[0].out_of_oven_at"]
    );

    let late = planned(&bench, vec![portion(1.0, COLD, 24 * 9), portion(1.0, FROZEN, 24 * 60)]);
    let cautions: Vec<_> =
        late.expect("it is planned").portions.iter().map(|one| one.caution).collect();
    assert!(matches!(cautions[0], Some(PortionCaution::TooLongInRefrigerator { .. })));
    assert!(matches!(cautions[1], Some(PortionCaution::TooLongFrozen { .. })));
}
