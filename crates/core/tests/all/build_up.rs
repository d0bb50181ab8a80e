//! The absorption build-up step by step.

use crate::support::{Asked, PLAIN, climb, flour};
use ironpeel_core::coefficient::Origin;
use ironpeel_core::dough::Ingredient;
use ironpeel_core::flour::{Moisture, Species};
use ironpeel_core::method::Process;
use ironpeel_core::water::{AbsorptionBuildUp, AbsorptionUnknown, Composition, Flour};

#[track_caller]
fn near(found: f64, wanted: f64) {
    crate::support::near(found, wanted, 1e-9);
}

#[track_caller]
fn adjustment(build_up: &AbsorptionBuildUp, key: &str) -> (f64, f64, f64) {
    let adjustment =
        build_up.adjustments.iter().find(|adjustment| adjustment.key == key).expect(key);
    (adjustment.points, adjustment.low, adjustment.high)
}

fn keys(build_up: &AbsorptionBuildUp) -> Vec<&str> {
    build_up.adjustments.iter().map(|adjustment| &*adjustment.key).collect()
}

#[test]
fn each_process_moves_the_water_by_its_band() {
    for (process, band) in [
        (Process::NoTime, (-1.0, -2.0, 0.0)),
        (Process::StraightBulk, (0.0, 0.0, 0.0)),
        (Process::SpongeDough, (3.0, 2.0, 4.0)),
        (Process::LongCold, (1.0, 0.0, 2.0)),
        (Process::Frozen, (-3.0, -4.0, -2.0)),
    ] {
        let found = climb(&flour(), &Asked { process, ..PLAIN }).expect("has a base");
        assert_eq!(adjustment(&found, "process"), band, "{process:?}");
        near(found.dough_absorption_pct, 62.0 + band.0);
    }
}

#[test]
fn each_ingredient_moves_the_water_for_each_percent_of_it() {
    for (ingredient, points, low, high) in [
        (Ingredient::Salt, -0.6, -0.9, -0.4),
        (Ingredient::Sugar, -0.25, -0.5, -0.1),
        (Ingredient::Fat, -0.3, -0.5, -0.1),
        (Ingredient::VitalGluten, 1.3, 1.0, 1.6),
        (Ingredient::SkimMilkPowder, 0.8, 0.5, 1.0),
        (Ingredient::SoyFlour, 1.0, 0.8, 1.2),
        (Ingredient::OatFibre, 2.0, 1.5, 3.0),
        (Ingredient::Psyllium, 6.0, 4.0, 8.0),
        (Ingredient::Inulin, -0.5, -1.0, 0.0),
        (Ingredient::Bran, 0.9, 0.6, 1.2),
        (Ingredient::Butter, -0.24, -0.4, -0.08),
        (Ingredient::Honey, -0.2075, -0.415, -0.083),
    ] {
        let lines = [(ingredient, 2.0)];
        let found = climb(&flour(), &Asked { lines: &lines, ..PLAIN }).expect("has a base");
        let (p, l, h) = adjustment(&found, &ingredient.key());
        near(p, 2.0 * points);
        near(l, 2.0 * low);
        near(h, 2.0 * high);
    }
}

#[test]
fn what_has_no_effect_and_what_is_not_there_makes_no_step() {
    let lines = [(Ingredient::InstantYeast, 1.6), (Ingredient::Sugar, 0.0)];
    let found = climb(&flour(), &Asked { lines: &lines, ..PLAIN }).expect("has a base");
    assert_eq!(keys(&found), ["absorption", "moisture", "process"]);
}

#[test]
fn water_in_ingredients_comes_off_what_is_weighed() {
    for (ingredient, water) in [
        (Ingredient::Milk, 87.5),
        (Ingredient::Egg, 75.0),
        (Ingredient::EggWhite, 88.0),
        (Ingredient::Butter, 16.0),
        (Ingredient::Honey, 17.0),
        (Ingredient::Molasses, 22.0),
        (Ingredient::MaltSyrup, 20.0),
        (Ingredient::FreshYeast, 70.0),
        (Ingredient::Vinegar, 94.0),
        (Ingredient::Salt, 0.0),
    ] {
        let lines = [(ingredient, 10.0)];
        let found = climb(&flour(), &Asked { lines: &lines, ..PLAIN }).expect("has a base");
        near(found.ingredient_water_pct, water / 10.0);
        near(found.added_water_pct, found.dough_absorption_pct - water / 10.0);
    }
}

#[test]
fn weak_films_are_held_back_and_strong_ones_are_not() {
    for (species, points) in [
        (Species::Spelt, Some(-1.5)),
        (Species::Emmer, Some(-2.0)),
        (Species::Einkorn, Some(-3.0)),
        (Species::Wheat, None),
        (Species::Durum, None),
        (Species::Khorasan, None),
        (Species::Rye, None),
    ] {
        let found = climb(&Flour { species, ..flour() }, &PLAIN).expect("has a base");
        let held = found.adjustments.iter().find(|adjustment| adjustment.key == "weak_film");
        assert_eq!(held.map(|adjustment| adjustment.points), points, "{species:?}");
    }
}

#[test]
fn green_and_aged_flour_step_and_the_days_between_do_not() {
    for (days, points) in
        [(0.0, Some(-0.5)), (1.9, Some(-0.5)), (2.0, None), (14.0, None), (15.0, Some(0.5))]
    {
        let aged = Flour { age_days: Some(days), ..flour() };
        let found = climb(&aged, &PLAIN).expect("has a base");
        let age = found.adjustments.iter().find(|adjustment| adjustment.key == "age");
        assert_eq!(age.map(|adjustment| adjustment.points), points, "{days} days");
        let green = found.cautions.iter().any(|caution| caution.key() == "green");
        assert_eq!(green, days < 2.0);
    }
}

#[test]
fn the_band_is_the_root_of_the_squared_half_ranges() {
    let lines = [(Ingredient::Salt, 2.0), (Ingredient::Sugar, 4.0)];
    let wanted = Asked { process: Process::NoTime, lines: &lines, ..PLAIN };
    let found = climb(&flour(), &wanted).expect("has a base");
    let half = (0.3f64.powi(2) + 1.0 + 0.5f64.powi(2) + 0.8f64.powi(2)).sqrt();
    near(found.high_pct - found.dough_absorption_pct, half);
    near(found.dough_absorption_pct - found.low_pct, half);
}

#[test]
fn a_figure_set_by_hand_keeps_the_band_where_the_flour_put_it() {
    let free = climb(&flour(), &PLAIN).expect("has a base");
    let wanted = Asked { override_pct: Some(66.0), ..PLAIN };
    let set = climb(&flour(), &wanted).expect("has a base");
    near(set.dough_absorption_pct, 66.0);
    near(set.low_pct, free.low_pct);
    near(set.high_pct, free.high_pct);
    let by_hand = set.adjustments.last().expect("a step");
    assert_eq!((&*by_hand.key, by_hand.origin), ("by_hand", Origin::Choice));
    near(by_hand.points, 4.0);
}

#[test]
fn of_a_flour_nobody_measured_a_usual_one_is_taken_with_a_wider_band() {
    let unmeasured =
        Flour { absorption_14_pct: None, composition: Composition::default(), ..flour() };
    let width = |found: &AbsorptionBuildUp| found.high_pct - found.low_pct;
    let usual = climb(&unmeasured, &PLAIN).expect("a usual flour");
    let measured = climb(&flour(), &PLAIN).expect("has a base");
    near(usual.adjustments[0].points, 60.0);
    assert!(width(&usual) > 2.0 * width(&measured), "{} {}", width(&usual), width(&measured));
    let damp = Flour { usual_moisture: Some([13.0, 15.0]), ..unmeasured };
    assert!(width(&climb(&damp, &PLAIN).expect("a usual flour")) > width(&usual));
    let blend = Flour { species: Species::GlutenFree, ..unmeasured };
    let no_sheet = Err(AbsorptionUnknown::NeedsItsSheet("gluten_free".into()));
    assert_eq!(climb(&blend, &PLAIN), no_sheet);
    let wanted = Asked { override_pct: Some(70.0), ..PLAIN };
    let set = climb(&blend, &wanted).expect("set by hand");
    assert_eq!(keys(&set), ["by_hand"]);
    near(set.dough_absorption_pct, 70.0);
}

#[test]
fn strength_carries_less_through_a_machine() {
    let by_hand = climb(&flour(), &PLAIN).expect("has a base").ceiling_pct.expect("W is known");
    let machine = Asked { machine_divided: true, ..PLAIN };
    let divided = climb(&flour(), &machine).expect("has a base").ceiling_pct.expect("W is known");
    near(by_hand, 50.0 + 0.13 * 310.0);
    near(by_hand - divided, 8.0);
    let unknown = climb(&Flour { w: None, ..flour() }, &PLAIN).expect("has a base");
    assert_eq!(unknown.ceiling_pct, None);
}

#[test]
fn the_damaged_starch_trap_opens_above_its_level() {
    for (damaged, opens) in [(8.2, false), (10.0, false), (10.1, true)] {
        let composition =
            Composition { damaged_starch_pct: Some(damaged), ..Composition::default() };
        let lot = Flour { composition, ..flour() };
        let found = climb(&lot, &PLAIN).expect("has a base");
        let told = found.cautions.iter().find(|caution| caution.key() == "damaged_starch");
        assert_eq!(told.is_some(), opens, "{damaged} %");
        if let Some(caution) = told {
            assert!(caution.to_string().contains("dry early and stick late"));
        }
    }
}

#[test]
fn the_moisture_step_says_which_way_the_flour_is_off() {
    let message = |percent: f64| {
        let moist = Flour { moisture: Moisture::new(percent).expect("in range"), ..flour() };
        let build_up = climb(&moist, &PLAIN).expect("measured");
        let adjustment =
            build_up.adjustments.into_iter().find(|adjustment| adjustment.key == "moisture");
        adjustment.expect("a step of its own").reason
    };
    assert!(message(15.2).starts_with("damper than 14 %"));
    assert!(message(12.4).starts_with("drier than 14 %"));
    assert_eq!(message(14.0), "as moist as its figure is stated for");
}
