//! Fermentation and friction: the worked examples and the laws.

use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::ferment::{
    CardinalTemperatures, FermentationInput, FermentingDough, Kinetics, NotReachable, Phase,
    ResidualSubstrate, Ripeness, Within, ferment, ferment_on, yeast_for,
};
use ironpeel_core::heat::{Friction, FrictionInput, Temperatures};
use proptest::prelude::*;
use serde_json::{Value, json};

fn straight() -> FermentingDough {
    FermentingDough {
        yeast_idy_pct: 0.8,
        sour_pct: 0.0,
        sour_activity: 1.0,
        salt_pct: 2.0,
        sugar_pct: 0.0,
        hydration_pct: 62.0,
        damaged_starch_pct: 7.5,
        falling_number_s: 300.0,
        start_c: 26.0,
        mass_kg: 20.0,
        retention: 0.85,
        rate: 1.0,
        lag_h: 0.25,
        rise_limit_pct: None,
        kinetics: Kinetics::default(),
    }
}

fn sour() -> FermentingDough {
    FermentingDough {
        yeast_idy_pct: 0.0,
        sour_pct: 15.0,
        hydration_pct: 78.0,
        damaged_starch_pct: 8.0,
        falling_number_s: 330.0,
        start_c: 25.0,
        mass_kg: 1.2,
        ..straight()
    }
}

fn near(found: f64, wanted: f64, within: f64) {
    assert!((found - wanted).abs() <= within * wanted, "{found} is not {wanted}");
}

#[test]
fn the_worked_examples_hold_within_a_hundredth() {
    let curve = ferment(&straight(), &[Phase::rest(6.0, 24.0)]);
    near(curve.reaches(50.0).expect("in time"), 0.927, 0.01);
    near(curve.reaches(100.0).expect("in time"), 1.595, 0.01);

    let curve = ferment(&sour(), &[Phase::rest(12.0, 23.0)]);
    near(curve.reaches(50.0).expect("in time"), 4.37, 0.01);
    near(curve.reaches(100.0).expect("in time"), 6.33, 0.01);

    let sponge = FermentingDough {
        yeast_idy_pct: 1.0,
        salt_pct: 0.0,
        hydration_pct: 60.0,
        damaged_starch_pct: 8.0,
        start_c: 24.0,
        mass_kg: 300.0,
        ..straight()
    };
    let curve = ferment(&sponge, &[Phase::rest(4.5, 27.0)]);
    near(curve.last().expect("a moment").dough_c, 28.0, 0.01);

    let slow = FermentingDough { lag_h: 0.5, ..straight() };
    let curve = ferment(&slow, &[Phase::rest(6.0, 24.0)]);
    near(curve.reaches(50.0).expect("in time"), 1.123, 0.01);
    near(curve.reaches(100.0).expect("in time"), 1.816, 0.01);

    let piece = FermentingDough {
        yeast_idy_pct: 1.0,
        hydration_pct: 58.0,
        damaged_starch_pct: 8.0,
        falling_number_s: 340.0,
        start_c: 27.5,
        mass_kg: 0.9,
        ..straight()
    };
    for (lag_h, wanted) in [(0.25, 1.217), (0.5, 1.419)] {
        let curve = ferment(&FermentingDough { lag_h, ..piece }, &[Phase::rest(4.0, 30.0)]);
        near(curve.reaches(100.0).expect("in time"), wanted, 0.01);
    }

    let old = FermentingDough {
        yeast_idy_pct: 1.69,
        salt_pct: 0.0,
        hydration_pct: 60.0,
        damaged_starch_pct: 8.0,
        falling_number_s: 330.0,
        start_c: 24.0,
        mass_kg: 304.0,
        rise_limit_pct: Some(346.4),
        ..straight()
    };
    let curve = ferment(&old, &[Phase::rest(6.0, 27.0)]);
    near(curve.drop_h.expect("it drops"), 2.480, 0.01);
    let ripe = Ripeness::of(curve.drop_h, &Coefficients::default());
    near(ripe.ripe_h.expect("ripe"), 3.758, 0.01);
    near(ripe.ripe_low_h.expect("ripe"), 3.444, 0.01);
    near(ripe.ripe_high_h.expect("ripe"), 4.133, 0.01);
    near(curve.rise_at(6.0), 207.8, 0.01);
}

#[test]
fn yeast_and_salt_act_from_when_they_are_in() {
    let nothing = Within { yeast: 0.0, sour: 0.0, salt: 0.0 };
    let alone = Phase { within: nothing, ..Phase::rest(0.5, 24.0) };
    let curve = ferment(&straight(), &[alone, Phase::rest(3.0, 24.0)]);
    assert!(curve.rise_at(0.5) < 1e-9, "flour and water rest without gas");
    let fresh = ferment(&straight(), &[Phase::rest(3.0, 24.0)]);
    let later = curve.reaches(50.0).expect("in time") - 0.5;
    // By the same lag: it counts from the yeast's own wetting.
    assert!((later - fresh.reaches(50.0).expect("in time")).abs() < 0.05, "{later}");
    let sour = ferment(&sour(), &[alone, Phase::rest(8.0, 23.0)]);
    assert!(sour.rise_at(0.5) < 1e-9);
    assert!(sour.reaches(50.0).is_some());
    let unsalted = Phase { within: Within { salt: 0.0, ..Within::ALL }, ..Phase::rest(2.0, 24.0) };
    let quick = ferment(&straight(), &[unsalted]);
    assert!(quick.rise_at(2.0) > fresh.rise_at(2.0), "salt slows");
}

#[test]
fn a_film_holds_to_its_limit_and_a_fold_mends_it() {
    let dough = FermentingDough { yeast_idy_pct: 2.0, rise_limit_pct: Some(120.0), ..straight() };
    let curve = ferment(&dough, &[Phase::rest(5.0, 27.0)]);
    let highest = curve.points.iter().map(|point| point.rise_pct).fold(0.0, f64::max);
    assert!((highest - 120.0).abs() < 1e-6);
    assert_eq!(curve.reaches(121.0), None);
    let free =
        ferment(&FermentingDough { rise_limit_pct: None, ..dough }, &[Phase::rest(5.0, 27.0)]);
    let (one, other) = (curve.last().expect("an end"), free.last().expect("an end"));
    assert_eq!((one.sugar_pct, one.dough_c), (other.sugar_pct, other.dough_c), "gas goes on");
    let fold = Phase { let_go_pct: 90.0, ..Phase::rest(0.5, 27.0) };
    let folded = ferment(&dough, &[Phase::rest(2.0, 27.0), fold]);
    assert!(folded.rise_at(2.4) > folded.rise_at(2.1), "it holds again");
}

#[test]
fn growth_is_best_at_its_best_and_nothing_outside() {
    for (lowest, best, highest) in [(-2.0, 36.0, 46.0), (2.0, 31.0, 40.0)] {
        let culture = CardinalTemperatures { lowest, best, highest };
        assert_eq!((culture.growth(lowest), culture.growth(highest)), (0.0, 0.0));
        assert!((culture.growth(best) - 1.0).abs() < 1e-12);
        let mut before = 0.0;
        for tenth in 1..((best - lowest) * 10.0) as i32 {
            let now = culture.growth(lowest + f64::from(tenth) / 10.0);
            assert!(now > before, "it grows towards its best");
            before = now;
        }
    }
}

#[test]
fn cold_waits_and_warmth_hurries() {
    let hours = |ambient_c: f64| {
        let dough = FermentingDough { start_c: ambient_c, ..straight() };
        ferment(&dough, &[Phase::rest(200.0, ambient_c)]).reaches(50.0).expect("in time")
    };
    let times = [4.0, 12.0, 18.0, 24.0, 30.0, 36.0].map(hours);
    assert!(times.is_sorted_by(|one, other| one > other), "{times:?}");
    assert!(times[0] > 10.0 * times[4], "a refrigerator buys time: {times:?}");
}

#[test]
fn a_small_jar_follows_the_room_sooner_than_the_bulk() {
    let cold = [Phase::rest(3.0, 15.0)];
    let bulk = ferment(&straight(), &cold);
    let jar = ferment(&FermentingDough { mass_kg: 0.1, ..straight() }, &cold);
    let end =
        |curve: &ironpeel_core::ferment::FermentationCurve| curve.last().expect("a moment").dough_c;
    assert!(end(&jar) < 15.6 && end(&bulk) > 20.0);
    assert!(jar.reaches(50.0) > bulk.reaches(50.0), "so say which was read");
}

#[test]
fn what_is_let_go_is_gone_from_the_rise_and_not_from_the_sugar() {
    let quiet = [Phase::rest(1.0, 26.0), Phase::rest(1.0, 26.0)];
    let folded = [Phase::rest(1.0, 26.0), Phase { let_go_pct: 25.0, ..Phase::rest(1.0, 26.0) }];
    let knocked = [Phase::rest(1.0, 26.0), Phase { let_go_pct: 100.0, ..Phase::rest(1.0, 26.0) }];
    let [quiet, folded, knocked] =
        [quiet, folded, knocked].map(|phases| ferment(&straight(), &phases));
    let at_one = quiet.rise_at(1.0);
    let end = |curve: &ironpeel_core::ferment::FermentationCurve| {
        curve.last().expect("a moment").rise_pct
    };
    assert!((end(&quiet) - end(&folded) - 0.25 * at_one).abs() < 1e-9);
    assert!((end(&quiet) - end(&knocked) - at_one).abs() < 1e-9);
    let sugar = |curve: &ironpeel_core::ferment::FermentationCurve| {
        curve.last().expect("a moment").sugar_pct
    };
    assert!((sugar(&quiet) - sugar(&knocked)).abs() < 1e-12);
}

#[test]
fn a_dough_with_a_sponge_in_it_rises_at_once_on_what_is_left() {
    let phases = [Phase::rest(2.0, 26.0)];
    let fresh = ferment(&straight(), &phases);
    let begun = ResidualSubstrate { sugar_g: 0.012, damaged_g: 0.075 };
    let awake = ferment_on(&FermentingDough { lag_h: 0.05, ..straight() }, begun, &phases);
    assert!(awake.reaches(20.0) < fresh.reaches(20.0), "no yeast has to wake");
    let spent =
        ferment_on(&straight(), ResidualSubstrate { sugar_g: 0.001, damaged_g: 0.02 }, &phases);
    assert!(spent.rise_at(2.0) < fresh.rise_at(2.0));
    let sponge = ferment(&straight(), &[Phase::rest(4.0, 27.0)]).residual();
    assert!(sponge.sugar_g >= 0.0 && sponge.damaged_g < 0.075);
}

#[test]
fn yeast_is_solved_for_or_told_why_not() {
    let rise = |dough: FermentingDough, hours: f64, ambient_c: f64| {
        move |yeast_idy_pct: f64| {
            ferment(&FermentingDough { yeast_idy_pct, ..dough }, &[Phase::rest(hours, ambient_c)])
                .rise_at(hours)
        }
    };
    let night = rise(straight(), 9.0, 18.0);
    let yeast = yeast_for(100.0, night).expect("reachable");
    assert!(yeast < 0.3, "a night wants little: {yeast}");
    near(night(yeast), 100.0, 1e-4);

    let error = yeast_for(300.0, rise(straight(), 0.1, 24.0)).expect_err("nobody has so much");
    assert!(matches!(error, NotReachable::TooSlow { .. }));
    assert!(error.to_string().starts_with("even 4 % does not bring it there"), "{error}");
    let error = yeast_for(10.0, rise(sour(), 20.0, 28.0)).expect_err("the sour is there");
    assert!(matches!(error, NotReachable::TooFast { .. }), "{error}");
}

#[test]
fn the_calculator_says_what_is_wrong_at_its_field() {
    let good = json!({
        "phases": [{"hours": 6, "ambient_c": 24}],
        "dough": {"yeast_idy_pct": 0.8, "salt_pct": 2, "hydration_pct": 62, "damaged_starch_pct": 7.5,
                  "falling_number_s": 300, "start_c": 26, "mass_kg": 20},
        "rise_targets_pct": [50, 100, 1900],
    });
    let compute = |input: &Value| {
        serde_json::from_value::<FermentationInput>(input.clone()).expect("the shape").compute()
    };
    let found = compute(&good).expect("all in range");
    assert_eq!(found.times[2].at_h, None, "it never does");
    assert!(found.series.windows(2).all(|two| two[1].t_h - two[0].t_h <= 1.0 / 12.0 + 1e-9));
    near(found.series.last().expect("a point").t_h, 6.0, 1e-12);
    for (at, value, field) in [
        ("/phases", json!([]), "phases"),
        ("/phases", json!(vec![json!({"hours": 1, "ambient_c": 20}); 21]), "phases"),
        ("/phases/0/hours", json!(0), "phases[0].hours"),
        ("/phases/0/ambient_c", json!("warm"), "phases[0].ambient_c"),
        ("/dough/hydration_pct", json!(null), "dough.hydration_pct"),
        ("/dough/falling_number_s", json!(50), "dough.falling_number_s"),
        ("/dough/mass_kg", json!(0), "dough.mass_kg"),
        ("/dough/yeast_idy_pct", json!(-1), "dough.yeast_idy_pct"),
        ("/rise_targets_pct/0", json!(-5), "rise_targets_pct[0]"),
        ("/rise_targets_pct", json!(vec![1; 21]), "rise_targets_pct"),
    ] {
        let mut wrong = good.clone();
        *wrong.pointer_mut(at).expect("part of it") = value;
        let faults = compute(&wrong).expect_err(field);
        assert_eq!(faults.0.iter().map(|fault| &*fault.field).collect::<Vec<_>>(), [field]);
    }
}

#[test]
fn friction_is_learned_as_worked_out_and_used_by_the_rule_of_thumb() {
    let dough = |friction: f64| json!({"flour_c": 20, "room_c": 23, "water_c": 35.0 - friction, "dough_c": 26});
    let observations: Vec<Value> = [15.2, 13.9, 16.0, 15.5].map(dough).into();
    let input: FrictionInput =
        serde_json::from_value(json!({"observations": observations})).expect("the shape");
    let learned = input.compute().expect("all in range");
    assert!((learned.friction_c - 15.19).abs() < 0.005, "{learned:?}");
    assert!((learned.sd_c - 0.83).abs() < 0.005, "{learned:?}");
    let none: FrictionInput =
        serde_json::from_value(json!({"observations": []})).expect("the shape");
    assert_eq!(none.compute().expect("nothing learned"), Friction::prior(&Coefficients::default()));
    let missing: FrictionInput = serde_json::from_value(json!({})).expect("the shape");
    assert_eq!(missing.compute().expect_err("a list").0[0].field, "observations");
    let wrong: FrictionInput =
        serde_json::from_value(json!({"observations": [{"flour_c": 20, "room_c": "hot"}]}))
            .expect("the shape");
    let named: Vec<String> =
        wrong.compute().expect_err("three faults").0.into_iter().map(|fault| fault.field).collect();
    assert_eq!(
        named,
        ["observations[0].room_c", "observations[0].water_c", "observations[0].dough_c"]
    );
}

proptest! {
    #[test]
    fn more_yeast_never_rises_later(
        yeast in 0.1..2.0, more in 0.05..2.0, ambient in 10.0..35.0, rise in 5.0..60.0,
    ) {
        let phases = [Phase::rest(40.0, ambient)];
        let at = |yeast_idy_pct| {
            ferment(&FermentingDough { yeast_idy_pct, ..straight() }, &phases).reaches(rise)
        };
        if let (Some(little), Some(much)) = (at(yeast), at(yeast + more)) {
            prop_assert!(much <= little + 1e-9);
        }
    }

    #[test]
    fn salt_holds_back_and_water_helps(salt in 0.0..4.0, hydration in 50.0..85.0) {
        let rise = |salt_pct, hydration_pct| {
            let dough = FermentingDough { salt_pct, hydration_pct, ..straight() };
            ferment(&dough, &[Phase::rest(1.0, 26.0)]).last().map_or(0.0, |end| end.sugar_pct)
        };
        prop_assert!(rise(salt + 0.5, hydration) >= rise(salt, hydration) - 1e-9);
        prop_assert!(rise(salt, hydration + 2.0) <= rise(salt, hydration) + 1e-9);
    }

    #[test]
    fn nothing_is_made_of_nothing(
        yeast in 0.0..4.0, sour in 0.0..40.0, sugar in 0.0..15.0, damaged in 0.0..15.0,
        hours in 0.5..60.0, ambient in 0.0..38.0,
    ) {
        let dough = FermentingDough {
            yeast_idy_pct: yeast, sour_pct: sour, sugar_pct: sugar, damaged_starch_pct: damaged,
            ..straight()
        };
        let curve = ferment(&dough, &[Phase::rest(hours, ambient)]);
        let flour = 1.0 / (1.0 + (62.0 + 2.0 + sugar) / 100.0);
        // All the sugar there can be, turned to gas.
        let most = 272.0 * (0.012 + sugar / 100.0 + damaged / 100.0);
        let rise = 100.0 * 0.85 * 1.15 * flour * most;
        for point in &curve.points {
            prop_assert!(point.rise_pct <= rise + 1e-6 && point.rise_pct >= 0.0);
            prop_assert!(point.sugar_pct >= -1e-9);
            prop_assert!(point.dough_c.is_finite());
        }
        prop_assert!(curve.points.windows(2).all(|two| two[0].rise_pct <= two[1].rise_pct + 1e-9));
    }

    #[test]
    fn the_moment_of_a_rise_and_the_rise_of_a_moment_agree(rise in 1.0..120.0) {
        let curve = ferment(&straight(), &[Phase::rest(6.0, 25.0)]);
        let at = curve.reaches(rise).expect("it rises so far");
        prop_assert!((curve.rise_at(at) - rise).abs() < 1e-6);
    }

    #[test]
    fn friction_goes_to_what_is_seen(seen in 4.0..30.0) {
        let house = Coefficients::default();
        let mut learned = Friction::prior(&house);
        for _ in 0..40 {
            learned = learned.learn(seen, &house);
        }
        prop_assert!((learned.friction_c - seen).abs() < 0.05);
        prop_assert!(learned.sd_c < 1.0 && learned.sd_c > 0.3, "it never gets surer than it wanders");
    }

    #[test]
    fn a_dough_as_warm_as_all_that_went_in_had_no_friction(
        warm in 5.0..35.0f64, over in 0.0..12.0f64, sponge in any::<bool>(),
    ) {
        let measured = Temperatures {
            flour_c: warm, room_c: warm, water_c: warm, preferment_c: sponge.then_some(warm),
            dough_c: warm + over, ice_share_pct: 0.0, ice_c: 0.0,
        };
        let temperatures = if sponge { 4.0 } else { 3.0 };
        prop_assert!((measured.friction_c() - temperatures * over).abs() < 1e-9);
    }
}
