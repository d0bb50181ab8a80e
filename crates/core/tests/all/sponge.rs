//! The sponge of a dough, both ways of making it, late doughs, and the floor's rule.

use crate::support::bench::{Bench, bench, flour, plain, readings, sponge_bench, strong};
use crate::support::near;
use chrono::{DateTime, Duration, TimeZone, Utc};
use chrono_tz::Tz;
use ironpeel_core::batch::{BatchPlan, Event, PlannedFigures, StagePlan, fold, report};
use ironpeel_core::chain::{
    BatchDelay, DelayedBatch, DelayedMaterial, DoughState, Measured, Recovery, RecoveryAdvice,
    RecoveryCaution, Scenario, ScenarioFlour, SpongeUnknown, SpongeView, batch_delay, chain,
    each_dough, friction_factor, late, mixed_dough, process_comparison, rise, sponge_acceleration,
    sponge_for,
};
use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::dough::Amount;
use ironpeel_core::flour::{Property, Readings, Species};
use ironpeel_core::heat::Temperatures;
use ironpeel_core::method::{MixingClass, Process, Speed, StageKind, StageRole};
use ironpeel_core::schedule::{
    Anchor, RunRequest, ScheduleRequest, ScheduledBatch, Stop, plan_run,
};
use proptest::prelude::*;
use serde_json::json;
use uuid::Uuid;

fn white(readings: &Readings) -> [ScenarioFlour<'_>; 1] {
    [flour("Tarn Strong", Species::Wheat, 76.0, 100.0, readings)]
}

/// A plant line with a sponge dough on it.
fn plant() -> Bench {
    let mut bench = sponge_bench();
    bench.method.machine_divided = true;
    bench.method.stages[1].speed = Some(Speed::Fast);
    bench.line.mixer.max_kg = 500.0;
    bench.line.equipment.trough_kg = 320.0;
    bench.line.equipment.troughs = 16;
    bench.line.equipment.divider_per_min = 48.0;
    bench.line.equipment.proofer_pieces = 6000.0;
    bench.line.equipment.oven_pieces = 3000.0;
    bench
}

fn full<'a>(bench: &'a Bench, flours: &'a [ScenarioFlour<'a>], doughs: f64) -> Scenario<'a> {
    let mut scenario = bench.scenario(flours);
    scenario.run_settings.amount = Some(Amount::Mixer { doughs });
    scenario
}

#[test]
fn the_dough_stage_has_what_the_sponge_left_and_its_warmth() {
    let (flours, bench) = (strong(), plant());
    let flours = white(&flours);
    let scenario = full(&bench, &flours, 1.0);
    let chain = chain(&scenario);
    let sponge = SpongeView::of(&scenario, &chain).expect("it has one");
    let dough = chain.dough.as_ref().expect("computed");
    near(sponge.flour_kg, dough.flour_kg * 0.65, 1e-9);
    near(sponge.flour_kg + sponge.dough_flour_kg, dough.flour_kg, 1e-9);
    near(sponge.water_kg + sponge.dough_water_kg, dough.water_kg, 1e-9);
    near(sponge.hydration_pct, 60.0, 1e-9);
    near(sponge.yeast_idy_pct, 1.1 / 0.65, 1e-9);
    assert_eq!((sponge.set_c, sponge.hours, sponge.room_c), (24.0, 3.5, 27.0));
    assert!(sponge.end_c > 27.0 && sponge.end_c < 30.0, "{}", sponge.end_c);
    near(sponge.stated_c, 29.5, 1e-9);
    let stated = chain.heat.as_ref().expect("computed").answer.ice_kg;
    let cooler = sponge.heat.answer.ice_kg;
    assert!(cooler < stated, "a cooler sponge wants less ice");
    let straight = self::bench(plain(), Process::StraightBulk);
    let scenario = straight.scenario(&flours);
    assert!(SpongeView::of(&scenario, &self::chain(&scenario)).is_none());
}

#[test]
fn the_sheet_says_between_when_the_sponge_is_ripe_however_long_it_is_planned_to_lie() {
    let (flours, mut bench) = (strong(), plant());
    let flours = white(&flours);
    let planned = |bench: &Bench| {
        let found = chain(&full(bench, &flours, 1.0)).sheet.expect("a sheet");
        let step = &found.steps[0];
        let [low, high] = step.ripe_at_min.expect("it is ripe once");
        assert!(found.steps[1..].iter().all(|step| step.ripe_at_min.is_none()));
        (low - step.at_min, high - step.at_min)
    };
    let (low, high) = planned(&bench);
    // It drops at 0.60 to 0.72 of its time.
    near(low * 0.72, high * 0.60, 1e-6);
    assert!(low > 120.0 && high < 400.0, "{low} to {high}");
    bench.method.stages[0].minutes = 30.0;
    let (early, late) = planned(&bench);
    near(early, low, 1e-6);
    near(late, high, 1e-6);
    let straight = self::bench(plain(), Process::StraightBulk);
    let found = chain(&straight.scenario(&flours)).sheet.expect("a sheet");
    assert!(found.steps.iter().all(|step| step.ripe_at_min.is_none()));
}

#[test]
fn a_sponge_dough_is_riper_than_a_straight_one_with_more_yeast() {
    let (flours, bench) = (strong(), plant());
    let flours = white(&flours);
    let scenario = full(&bench, &flours, 1.0);
    let chain = chain(&scenario);
    let ripe = rise(&scenario, &chain).expect("it rises").maturity;
    let [sponge, fresh] = ripe.by.parts[..] else { panic!("{:?}", ripe.by.parts) };
    near(sponge.flour_share_pct, 65.0, 1e-9);
    near(sponge.hours - fresh.hours, 3.5, 1e-9);
    near(fresh.hours, ripe.at_h, 1e-9);
    near(ripe.by.work_kj_per_kg, chain.method.mixing_kj_per_kg, 1e-9);
    near(ripe.by.flour_w.expect("stated"), 310.0, 40.0);
    assert!(ripe.by.mean_c > 24.0 && ripe.by.mean_c < 30.0, "{}", ripe.by.mean_c);
    let both = process_comparison(&scenario, &chain).expect("both ways");
    let of = |way: &ironpeel_core::chain::ProcessOutcome| {
        (way.maturity.expect("it rises").maturity, way.yeast_idy_pct.expect("it has some"))
    };
    let ((sponge, _), (straight, _)) = (of(&both.own), of(&both.other));
    near(sponge, ripe.maturity.maturity, 1e-9);
    assert!(sponge > straight, "{sponge} {straight}");
}

#[test]
fn each_number_alone_brings_it_to_the_temperature() {
    let (flours, bench) = (strong(), plant());
    let flours = white(&flours);
    let scenario = full(&bench, &flours, 1.0);
    let chain = chain(&scenario);
    let found = sponge_for(&scenario, &chain, 29.0).expect("it has a sponge");
    let value = |unknown| found.iter().find(|one| one.unknown == unknown).expect("all").value;
    let mut warmer = plant();
    warmer.method.sponge_c = value(SpongeUnknown::SetTemperature);
    let mut longer = plant();
    longer.method.stages[0].minutes = 60.0 * value(SpongeUnknown::Hours).expect("in range");
    let mut hotter = plant();
    hotter.method.stages[0].temperature_c = value(SpongeUnknown::Room);
    for changed in [&warmer, &longer, &hotter] {
        let scenario = full(changed, &flours, 1.0);
        let sponge = SpongeView::of(&scenario, &self::chain(&scenario)).expect("it has one");
        near(sponge.end_c, 29.0, 0.02);
    }
    let never = sponge_for(&scenario, &chain, 39.9).expect("it has a sponge");
    assert!(never.iter().all(|one| one.value.is_none() && one.nearest_c < 39.9));
}

#[test]
fn mixing_brings_a_sponge_forward_where_a_hotter_room_hardly_does() {
    let (flours, bench) = (strong(), plant());
    let flours = white(&flours);
    let scenario = full(&bench, &flours, 1.0);
    let chain = chain(&scenario);
    let acceleration = sponge_acceleration(&scenario, &chain, 30.0).expect("it has a sponge");
    near(0.94_f64.powf(acceleration.extra_min), 180.0 / 210.0, 1e-9);
    near(0.90_f64.powf(acceleration.extra_low_min), 180.0 / 210.0, 1e-9);
    near(acceleration.warms_c, acceleration.extra_kj_per_kg / 2.8, 1e-9);
    near(acceleration.set_c, 24.0 - acceleration.warms_c, 1e-9);
    assert_eq!(acceleration.room_c, None, "300 kg follow no room in half an hour");
    // Three kilos do.
    let small = bench.scenario(&flours);
    let little = sponge_acceleration(&small, &self::chain(&small), 20.0).expect("it has a sponge");
    let room = little.room_c.expect("some room does twenty minutes");
    assert!(room > 27.5, "{room}");
    assert!(little.room_more_ice_kg.expect("computed") > 0.0);
    assert!(sponge_acceleration(&scenario, &chain, 210.0).is_none(), "not at once");
}

#[test]
fn both_ways_rise_the_same_and_differ_as_the_trade_knows_them_to() {
    let (flours, bench) = (strong(), plant());
    let flours = white(&flours);
    let scenario = full(&bench, &flours, 1.0);
    let both = process_comparison(&scenario, &chain(&scenario)).expect("it has yeast");
    let (sponge, straight) = (&both.own, &both.other);
    assert_eq!(straight.process, Process::NoTime);
    near(sponge.dough_absorption_pct - straight.dough_absorption_pct, 4.0, 1e-9);
    assert!(sponge.dough_yield > straight.dough_yield && sponge.pieces > straight.pieces);
    assert!(sponge.hours > straight.hours + 3.0 && sponge.floor_m2 > straight.floor_m2);
    assert!(straight.mixing_kj_per_kg > sponge.mixing_kj_per_kg);
    assert!(straight.conditioning[0].need > sponge.conditioning[0].need);
    assert_eq!(
        MixingClass::of(sponge.mixing_kj_per_kg, &Coefficients::default()),
        sponge.mixing_class
    );
    assert!(straight.yeast_idy_pct.is_some_and(|yeast| yeast > 0.3 && yeast < 3.0));
    let asks: Vec<(Property, Option<bool>)> =
        both.asks.iter().map(|ask| (ask.property, ask.met)).collect();
    assert_eq!(asks, [(Property::W, Some(true)), (Property::Stability, None)]);
    let kept = |method: &ironpeel_core::method::Method| {
        let divide = method.stages.iter().position(|stage| stage.kind == StageKind::Divide);
        method.stages[divide.expect("divided")..].to_vec()
    };
    assert_eq!(kept(&both.other_method), kept(&bench.method), "proof and bake stay");

    let mut weak = strong();
    weak.0.retain(|reading| reading.property != Property::W);
    weak.0.extend(readings(&[(Property::W, 180.0)]).0);
    let flours = white(&weak);
    let scenario = full(&bench, &flours, 1.0);
    let both = process_comparison(&scenario, &chain(&scenario)).expect("it has yeast");
    assert_eq!(both.asks[0].met, Some(false));
}

#[test]
fn a_straight_dough_is_seen_with_a_sponge_of_all_its_yeast() {
    let (flours, bench) = (strong(), bench(plain(), Process::StraightBulk));
    let flours = white(&flours);
    let scenario = bench.scenario(&flours);
    let both = process_comparison(&scenario, &chain(&scenario)).expect("it has yeast");
    assert_eq!(both.other.process, Process::SpongeDough);
    assert_eq!(both.other_method.roles()[..2], [StageRole::PreparationMixing, StageRole::Sponge]);
    near(both.other.dough_absorption_pct - both.own.dough_absorption_pct, 3.0, 1e-9);
}

fn stopped(minutes: f64, doughs: f64) -> Vec<DelayedBatch> {
    let (flours, bench) = (strong(), plant());
    let flours = white(&flours);
    let scenario = full(&bench, &flours, doughs);
    let chain = chain(&scenario);
    let five: DateTime<Utc> = Utc.with_ymd_and_hms(2026, 11, 26, 5, 0, 0).single().expect("five");
    let day = ScheduleRequest {
        anchor: Anchor::OutBy(five),
        closed_hours: vec![],
        zone: Tz::UTC,
        not_before: None,
    };
    let wanted = RunRequest {
        method: scenario.method,
        equipment: &scenario.line.equipment,
        doughs: doughs as usize,
        each: each_dough(&scenario, &chain).expect("it is mixed"),
        day: &day,
        shifts: &[],
        stop: None,
        dropped: &[],
        coefficients: &scenario.plant.coefficients,
    };
    let calm = plan_run(&wanted).expect("fits");
    assert!(late(&scenario, &chain, &calm.doughs, calm.starts_at).is_empty(), "nothing waits");
    // When the third sponge is about to be mixed.
    let from = calm.doughs[2].stages[1].starts_at - Duration::minutes(1);
    let stop = Some(Stop { from, minutes, place: None });
    let plan = plan_run(&RunRequest { stop, ..wanted }).expect("fits");
    let goes_again = from + Duration::seconds((minutes * 60.0) as i64);
    let found = late(&scenario, &chain, &plan.doughs, goes_again);

    // Every dough that waits is there once, and no sponge set before the line goes again takes an
    // old one.
    let waits = |dough: &&ScheduledBatch| {
        dough.stages.iter().any(|one| one.waits_min > 0.0 && one.role != StageRole::Cool)
    };
    let waiting: Vec<usize> = plan.doughs.iter().filter(waits).map(|dough| dough.number).collect();
    assert_eq!(found.iter().map(|one| one.dough).collect::<Vec<_>>(), waiting);
    for into in found.iter().flat_map(|one| &one.ways).flat_map(|way| &way.doughs) {
        let taken = plan.doughs.iter().find(|dough| dough.number == *into).expect("of the run");
        let own = found.iter().any(|one| one.dough == *into);
        assert!(own || taken.starts_at >= goes_again, "dough {into} is set before");
    }
    // As it was planned it is as its rise has it.
    let risen = rise(&scenario, &chain).expect("it has yeast");
    for one in found.iter().filter(|one| one.role != StageRole::Sponge) {
        let stage = risen.stages.iter().find(|stage| stage.label == one.stage).expect("it rises");
        let planned = one.planned.expect("it is a dough");
        near(planned.dough_c, stage.dough_c, 1e-6);
        near(planned.rise_pct, stage.rise_pct, 1e-6);
    }
    found
}

#[test]
fn what_waits_and_is_within_its_window_goes_on() {
    let found = stopped(20.0, 4.0);
    let sponge = found.iter().find(|one| one.dough == 3).expect("it waits");
    assert_eq!((sponge.role, sponge.past_min), (StageRole::Sponge, 0.0));
    let advised: Vec<Recovery> =
        sponge.ways.iter().filter(|way| way.advised).map(|way| way.way).collect();
    assert_eq!(advised, [Recovery::GoOn]);
    let dough_c = |seen: Option<DoughState>| seen.expect("a sponge").dough_c;
    assert!(dough_c(sponge.then) > dough_c(sponge.planned));
}

#[test]
fn an_old_sponge_is_spread_in_thirds_over_the_next_with_less_of_their_own() {
    let found = stopped(120.0, 40.0);
    let sponge = found.iter().find(|one| one.dough == 3).expect("it waits");
    assert!(sponge.past_min > 60.0, "{}", sponge.past_min);
    let spread = sponge.ways.iter().find(|way| way.way == Recovery::SpreadInThirds).expect("a way");
    assert!(spread.advised && spread.caution.is_some());
    assert_eq!(spread.doughs.len(), 3, "{:?}", spread.doughs);
    let kg = |of: DelayedMaterial| {
        spread.amounts.iter().find(|one| one.of == of).expect("one of them").kg
    };
    let (flours, bench) = (strong(), plant());
    let flours = white(&flours);
    let scenario = full(&bench, &flours, 40.0);
    let whole = SpongeView::of(&scenario, &chain(&scenario)).expect("it has one");
    near(kg(DelayedMaterial::OldSpongeEach), whole.kg / 3.0, 1e-9);
    near(kg(DelayedMaterial::FlourEach), whole.flour_kg * 2.0 / 3.0, 1e-9);
    near(kg(DelayedMaterial::WaterEach), whole.water_kg * 2.0 / 3.0, 1e-9);
    let bake = sponge.ways.iter().find(|way| way.way == Recovery::BakeOff).expect("a way");
    assert_eq!(bake.caution, Some(RecoveryCaution::LiveDough));
    let cold = sponge.ways.iter().find(|way| way.way == Recovery::HoldCold).expect("a way");
    assert!(cold.message == (RecoveryAdvice::HoldCold { hardly_cools: true }));
    // No sponge takes two thirds of old ones.
    let mut into: Vec<usize> = found
        .iter()
        .flat_map(|one| &one.ways)
        .filter(|way| way.way == Recovery::SpreadInThirds)
        .flat_map(|way| way.doughs.clone())
        .collect();
    let all = into.len();
    into.sort_unstable();
    into.dedup();
    assert_eq!(into.len(), all);
}

#[test]
fn a_run_with_no_sponge_left_says_how_many_are_wanted_after_it() {
    let found = stopped(120.0, 4.0);
    let sponge = found.iter().find(|one| one.dough == 3).expect("it waits");
    let spread = sponge.ways.iter().find(|way| way.way == Recovery::SpreadInThirds).expect("a way");
    assert!(spread.message == (RecoveryAdvice::SpreadInThirds { after_run: 3 }));
}

#[test]
fn the_floors_rule_stands_beside_the_balance_and_learns() {
    let (flours, bench) = (strong(), bench(plain(), Process::StraightBulk));
    let flours = white(&flours);
    let scenario = bench.scenario(&flours);
    let chain = chain(&scenario);
    let none = friction_factor(&scenario, &chain, &[]).expect("it is mixed");
    assert_eq!((none.counts, none.doughs, none.measured_kj_per_kg), (3, 0, None));
    // 3 · 25 − 21 − 22 − 14
    near(none.water_c.typical, 18.0, 1e-9);
    near(none.water_c.high - none.water_c.low, 12.0, 1e-9);
    let heat = &chain.heat.as_ref().expect("computed").answer;
    near(none.balance_c, heat.water_c, 1e-9);
    assert_eq!(none.disagree, (none.water_c.typical - heat.water_c).abs() > 2.0);

    // A dough that came off as the balance says: its energy is the mixer's.
    let measured = Temperatures {
        flour_c: 21.0,
        room_c: 22.0,
        water_c: heat.water_c,
        preferment_c: None,
        dough_c: heat.dough_c,
        ice_share_pct: 0.0,
        ice_c: 0.0,
    };
    let mixed = mixed_dough(&scenario, &chain);
    let measured = Measured { temperatures: measured, mixed };
    let learned =
        friction_factor(&scenario, &chain, &vec![measured.clone(); 12]).expect("it is mixed");
    near(learned.measured_kj_per_kg.expect("measured"), chain.method.mixing_kj_per_kg, 1e-6);
    near(learned.water_c.typical, heat.water_c, 1.0);
    assert!(learned.friction.sd_c < 1.0 && !learned.disagree);
    assert_eq!(learned.agreeing, None);

    // A mixer that takes a fifth more than its line says is told what would agree.
    let mut strong = bench.line.clone();
    strong.mixer.slow_kj_per_kg_min /= 1.2;
    strong.mixer.fast_kj_per_kg_min /= 1.2;
    let weak = Scenario { line: &strong, ..scenario };
    let told = friction_factor(
        &weak,
        &ironpeel_core::chain::chain(&weak),
        std::slice::from_ref(&measured),
    );
    let agreeing = told.expect("it is mixed").agreeing.expect("off by a fifth");
    near(agreeing.fast_kj_per_kg_min, bench.line.mixer.fast_kj_per_kg_min, 1e-6);

    // Judged by its own masses: a wetter formula today changes nothing of it.
    let mut wetter = scenario;
    wetter.run_settings.hydration_pct = Some(75.0);
    let today = friction_factor(
        &wetter,
        &ironpeel_core::chain::chain(&wetter),
        std::slice::from_ref(&measured),
    );
    near(
        today.expect("it is mixed").measured_kj_per_kg.expect("kept"),
        chain.method.mixing_kj_per_kg,
        1e-6,
    );
    let unkept = Measured { mixed: None, ..measured };
    let none = friction_factor(&scenario, &chain, &[unkept]).expect("it is mixed");
    assert_eq!((none.doughs, none.measured_kj_per_kg), (1, None));
}

#[test]
fn an_iced_dough_teaches_by_its_equivalent_water() {
    let (flours, mut bench) = (strong(), plant());
    bench.line.flour_c = 32.0;
    let flours = white(&flours);
    let scenario = full(&bench, &flours, 1.0);
    let chain = chain(&scenario);
    let heat = &chain.heat.as_ref().expect("computed").answer;
    assert!(heat.ice_kg > 0.0);
    let iced = Temperatures {
        flour_c: 32.0,
        room_c: chain.heat.as_ref().expect("computed").room_c,
        water_c: heat.water_c,
        preferment_c: None,
        dough_c: heat.dough_c,
        ice_share_pct: 100.0 * heat.ice_kg / (heat.ice_kg + heat.water_kg),
        ice_c: 0.0,
    };
    let mixed = mixed_dough(&scenario, &chain).expect("mixed");
    near(mixed.mixing_kj_per_kg(&iced).expect("mixed"), chain.method.mixing_kj_per_kg, 1e-6);
    let by_tap = Temperatures { ice_share_pct: 0.0, ..iced };
    assert!(iced.friction_c() > by_tap.friction_c() + 10.0, "the ice is no friction's absence");
}

#[test]
fn a_sponge_is_counted_among_the_temperatures_and_a_jacket_takes_heat_away() {
    let (flours, mut bench) = (strong(), plant());
    let flours = white(&flours);
    bench.line.mixer.jacket_kj_per_kg_min = Some(0.9);
    let scenario = full(&bench, &flours, 1.0);
    let off = chain(&scenario);
    assert_eq!(friction_factor(&scenario, &off, &[]).expect("it is mixed").counts, 4);
    let mut cooled = scenario;
    cooled.run_settings.jacket = true;
    let on = chain(&cooled);
    let ice =
        |chain: &ironpeel_core::chain::Chain| chain.heat.as_ref().expect("computed").answer.ice_kg;
    assert!(ice(&on) < ice(&off), "{} {}", ice(&on), ice(&off));
    let sensitivities = &off.heat.as_ref().expect("computed").answer.sensitivities;
    let jacket =
        sensitivities.iter().find(|measure| measure.measure == "jacket").expect("it is off");
    near(jacket.ice_kg, ice(&on) - ice(&off), 1e-9);
    assert!(
        on.heat
            .as_ref()
            .expect("computed")
            .answer
            .sensitivities
            .iter()
            .all(|one| one.measure != "jacket")
    );
}

/// A sponge of a few kilos follows its room: set warmer than that, it cools.
#[test]
fn a_small_sponge_set_warmer_than_its_room_is_answered() {
    let (flours, mut bench) = (strong(), plant());
    let flours = white(&flours);
    bench.method.sponge_c = Some(24.0);
    bench.method.stages[0].temperature_c = Some(18.0);
    let mut scenario = bench.scenario(&flours);
    scenario.run_settings.amount = Some(Amount::Dough { kg: 2.0 });
    let chain = chain(&scenario);
    let sponge = SpongeView::of(&scenario, &chain).expect("it has one");
    assert!(sponge.end_c < 24.0, "{}", sponge.end_c);
    let found = sponge_for(&scenario, &chain, 22.0).expect("it has a sponge");
    assert!(found.iter().all(|one| one.nearest_c.is_finite()));
    assert!(found.iter().any(|one| one.value.is_some()), "{found:?}");
}

proptest! {
    #[test]
    fn whatever_the_room_and_the_mass_a_sponge_is_answered(
        kg in 0.05..3000.0f64, set_c in prop::option::of(0.0..45.0f64), room_c in -20.0..60.0f64,
        minutes in 1.0..2880.0f64, end_c in 0.0..60.0f64, by_min in 1.0..600.0f64,
    ) {
        let (flours, mut bench) = (strong(), plant());
        let flours = white(&flours);
        bench.method.sponge_c = set_c;
        bench.method.stages[0].temperature_c = Some(room_c);
        bench.method.stages[0].minutes = minutes;
        let mut scenario = bench.scenario(&flours);
        scenario.run_settings.amount = Some(Amount::Dough { kg });
        let chain = chain(&scenario);
        let risen = rise(&scenario, &chain).expect("it has yeast");
        prop_assert!(risen.stages.iter().all(|stage| stage.rise_pct.is_finite()));
        if let Some(sponge) = SpongeView::of(&scenario, &chain) {
            prop_assert!(sponge.end_c.is_finite());
        }
        for one in sponge_for(&scenario, &chain, end_c).into_iter().flatten() {
            prop_assert!(one.nearest_c.is_finite(), "{:?}", one);
            prop_assert!(one.value.is_none_or(f64::is_finite), "{:?}", one);
        }
        if let Some(acceleration) = sponge_acceleration(&scenario, &chain, by_min) {
            prop_assert!(acceleration.set_c.is_finite() && acceleration.extra_min.is_finite());
        }
        if let Ok(both) = process_comparison(&scenario, &chain) {
            prop_assert!(both.other.dough_absorption_pct.is_finite() && both.other.dough_yield.is_finite());
        }
    }
}

/// What to do with a batch whose sponge is open since so many minutes more than planned.
fn held(late_min: f64) -> Option<DelayedBatch> {
    let (flours, mut bench) = (strong(), plant());
    for (stage, id) in bench.method.stages.iter_mut().zip(1..) {
        stage.id = Some(Uuid::from_u128(id));
    }
    let flours = white(&flours);
    let scenario = full(&bench, &flours, 1.0);
    let stages = StagePlan::of(&bench.method, &bench.line.mixer, &Coefficients::default());
    let begun: DateTime<Utc> = Utc.with_ymd_and_hms(2026, 11, 26, 5, 0, 0).single().expect("five");
    let after = |minutes: f64| begun + Duration::seconds((minutes * 60.0) as i64);
    let events = [
        json!({"id": Uuid::from_u128(11), "kind": "start", "happened_at": begun}),
        json!({"id": Uuid::from_u128(12), "kind": "hold", "happened_at": after(60.0),
            "reason": "no steam"}),
    ];
    let events = events.map(|event| serde_json::from_value::<Event>(event).expect("an event"));
    let now = after(stages[0].minutes + late_min);
    let plan = BatchPlan {
        planned_for: begun,
        stages,
        lines: Vec::new(),
        figures: PlannedFigures::default(),
    };
    let report = report(&plan, &fold(&events), now);
    let batch = BatchDelay { stages: &plan.stages, report: &report, now };
    batch_delay(&scenario, &chain(&scenario), batch)
}

#[test]
fn a_held_sponge_has_its_ways_out_with_amounts() {
    assert_eq!(held(-10.0), None, "it is within its time");
    let waits = held(15.0).expect("it waits");
    near(waits.waits_min, 15.0, 0.02);
    assert_eq!((waits.role, waits.past_min), (StageRole::Sponge, 0.0));
    assert_eq!(waits.ways[0].way, Recovery::GoOn);

    let old = held(240.0).expect("it is past its limit");
    assert!(old.past_min > 0.0 && old.maturity.maturity > old.planned_maturity.maturity);
    let ways: Vec<Recovery> = old.ways.iter().map(|one| one.way).collect();
    assert!(ways.contains(&Recovery::SpreadInThirds) && ways.contains(&Recovery::BakeOff));
    let thirds = old.ways.iter().find(|one| one.way == Recovery::SpreadInThirds).expect("is there");
    let kg = |of| thirds.amounts.iter().find(|one| one.of == of).expect("is weighed").kg;
    assert!(kg(DelayedMaterial::OldSpongeEach) > 50.0, "a third of a sponge");
    assert!(thirds.doughs.is_empty(), "no sponge of this batch is set after it");
    let advised: Vec<bool> = old.ways.iter().map(|one| one.advised).collect();
    assert_eq!(advised.iter().filter(|one| **one).count(), 1);
}
