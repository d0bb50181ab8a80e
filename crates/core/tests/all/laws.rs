//! Laws that hold for every input: there and back, sums, balances, directions.

use crate::support::{Asked, PLAIN, climb, composition, scaled};
use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::dough::{Amount, Ingredient, round_to_resolution};
use ironpeel_core::flour::{Moisture, Species, absorption_at_moisture, at_moisture};
use ironpeel_core::heat::{Balance, HOTTEST_WATER_C, HeatPart, HeatSource};
use ironpeel_core::method::Process;
use ironpeel_core::water::{Composition, Flour};
use proptest::prelude::*;

fn moisture() -> impl Strategy<Value = Moisture> {
    (0.0..=30.0).prop_map(|percent| Moisture::new(percent).expect("in range"))
}

fn flour() -> impl Strategy<Value = Flour> {
    (moisture(), 50.0..80.0, prop::option::of(0.0..60.0), 100.0..400.0).prop_map(
        |(moisture, absorption, age_days, w)| Flour {
            moisture,
            usual_moisture: None,
            absorption_14_pct: Some(absorption),
            species: Species::Spelt,
            age_days,
            composition: composition(12.0, 8.0, 0.6),
            whole_grain_pct: 0.0,
            w: Some(w),
        },
    )
}

fn balance() -> impl Strategy<Value = Balance> {
    (1.0..500.0, 0.3..0.9, 0.0..40.0, 1.0..30.0, 18.0..34.0, 0.0..45.0, 0.0..100.0).prop_map(
        |(flour_kg, hydration, flour_c, tap_c, target_c, mixing, max_ice_pct)| Balance {
            jacket_kj_per_kg: None,
            parts: vec![HeatPart {
                name: "flour".into(),
                kg: flour_kg,
                temperature_c: flour_c,
                specific_heat: 1.833,
                is: HeatSource::Flour,
            }],
            water_kg: flour_kg * hydration,
            tap_c,
            target_c,
            mixing_kj_per_kg: mixing,
            mixing_min: Some(10.0),
            flour_wetted_kg: flour_kg,
            rested_kj: 0.0,
            chilled_min_c: 2.0,
            hottest_c: HOTTEST_WATER_C,
            ice_c: 0.0,
            max_ice_pct,
            surroundings: None,
        },
    )
}

proptest! {
    #[test]
    fn a_basis_there_and_back_is_where_it_was(value in 0.0..100.0f64, a in moisture(), b in moisture()) {
        prop_assert!((at_moisture(at_moisture(value, a, b), b, a) - value).abs() < 1e-9);
        let there = absorption_at_moisture(value, a, b);
        prop_assert!((absorption_at_moisture(there, b, a) - value).abs() < 1e-9);
    }

    #[test]
    fn rounded_masses_keep_their_total(
        exact in prop::collection::vec(0.0..500.0f64, 1..20),
        division in prop::sample::select(vec![0.001, 0.005, 0.01, 0.05, 0.1, 0.5]),
    ) {
        let weighed = round_to_resolution(&exact, division, &Coefficients::default());
        let total: f64 = exact.iter().sum();
        let rounded: f64 = weighed.iter().map(|mass| mass.kg).sum();
        prop_assert!((rounded - total).abs() <= division / 2.0 + 1e-6);
        for mass in &weighed {
            prop_assert!((mass.kg - mass.exact_kg).abs() < mass.division_kg + 1e-6);
            let divisions = mass.kg / mass.division_kg;
            prop_assert!((divisions - divisions.round()).abs() < 1e-3);
            prop_assert!(mass.division_kg <= division);
        }
    }

    #[test]
    fn the_stair_is_the_sum_of_its_steps_inside_its_band(
        flour in flour(), salt in 0.0..3.0f64, sugar in 0.0..12.0f64, style in -3.0..3.0f64,
    ) {
        let lines = [(Ingredient::Salt, salt), (Ingredient::Sugar, sugar)];
        let asked = Asked { process: Process::NoTime, lines: &lines, style_points: style, ..PLAIN };
        let build_up = climb(&flour, &asked).expect("has a base");
        let sum: f64 = build_up.adjustments.iter().map(|step| step.points).sum();
        prop_assert!((build_up.dough_absorption_pct - sum).abs() < 1e-9);
        prop_assert!(build_up.low_pct < build_up.dough_absorption_pct && build_up.dough_absorption_pct < build_up.high_pct);
        for step in &build_up.adjustments {
            prop_assert!(step.low <= step.points && step.points <= step.high, "{step:?}");
        }
    }

    #[test]
    fn less_than_no_water_is_never_weighed_without_a_caution(
        flour in flour(), milk in 0.0..100.0f64, egg in 0.0..100.0f64,
    ) {
        let lines = [(Ingredient::Milk, milk), (Ingredient::Egg, egg)];
        let build_up = climb(&flour, &Asked { lines: &lines, ..PLAIN }).expect("has a base");
        let said = build_up.cautions.iter().any(|caution| caution.key() == "too_wet");
        prop_assert_eq!(build_up.added_water_pct < 0.0, said, "{}", build_up.added_water_pct);
    }

    #[test]
    fn water_set_by_hand_is_the_floor_figure(flour in flour(), wanted in 40.0..90.0f64) {
        let asked = Asked { override_pct: Some(wanted), ..PLAIN };
        let with = climb(&flour, &asked).expect("has a figure");
        prop_assert!((with.dough_absorption_pct - wanted).abs() < 1e-9);
        let without =
            Flour { absorption_14_pct: None, composition: Composition::default(), ..flour };
        let with = climb(&without, &asked).expect("needs no base");
        prop_assert!((with.dough_absorption_pct - wanted).abs() < 1e-9);
    }

    #[test]
    fn heat_balances_whatever_the_answer(balance in balance()) {
        let answer = balance.solve();
        let total: f64 = answer.terms.iter().map(|term| term.kj).sum();
        let scale = balance.water_kg * 400.0;
        prop_assert!(total.abs() < 1e-9 * scale.max(1.0), "{total} kJ left over");
        prop_assert!((answer.water_kg + answer.ice_kg - balance.water_kg).abs() < 1e-9);
        prop_assert!(answer.ice_kg >= 0.0);
        prop_assert!(answer.ice_kg <= balance.water_kg * balance.max_ice_pct / 100.0 + 1e-9);
        prop_assert_eq!(answer.reachable, answer.dough_c == balance.target_c);
        prop_assert_eq!(answer.reachable, answer.reason.is_none());
    }

    #[test]
    fn more_mixing_never_wants_warmer_water_or_less_ice(balance in balance(), more in 0.1..10.0f64) {
        let harder = Balance { mixing_kj_per_kg: balance.mixing_kj_per_kg + more, ..balance.clone() };
        let (gentle, hard) = (balance.solve(), harder.solve());
        prop_assert!(hard.ice_kg >= gentle.ice_kg - 1e-9);
        prop_assert!(hard.dough_c >= gentle.dough_c - 1e-9);
        if hard.ice_kg == 0.0 {
            prop_assert!(hard.water_c <= gentle.water_c + 1e-9);
        }
    }

    #[test]
    fn scaling_there_and_back(pieces in 1u32..50_000, piece in 0.03..1.2f64, most in 10.0..800.0f64) {
        let run = scaled(Amount::Pieces { pieces: pieces.into() }, piece, most, 165.0);
        prop_assert_eq!(run.pieces, pieces);
        prop_assert!(run.dough_kg <= most * (1.0 + 1e-6));
        let back = scaled(Amount::Dough { kg: run.total_kg }, piece, most, 165.0);
        prop_assert_eq!(back.pieces, pieces);
        prop_assert!((f64::from(run.doughs) * run.dough_kg - run.total_kg).abs() < 1e-6);
    }
}
