//! The heat balance: physics that must hold whatever is asked, and what it says of itself.

use ironpeel_core::flour::Moisture;
use ironpeel_core::heat::{
    Balance, DoughTemperatureInput, HOTTEST_WATER_C, HeatPart, HeatSource, RemedyAmount,
    Unreachable, WantedWater, WaterSources, flour_specific_heat,
};
use proptest::prelude::*;
use serde_json::{Value, json};

fn part(name: &'static str, kg: f64, temperature_c: f64, specific_heat: f64) -> HeatPart {
    HeatPart {
        name: name.into(),
        kg,
        temperature_c,
        specific_heat,
        is: if name == "flour" { HeatSource::Flour } else { HeatSource::Other },
    }
}

/// 100 kg of flour and what goes with it.
fn dough() -> Balance {
    Balance {
        parts: vec![
            part("flour", 100.0, 24.0, flour_specific_heat(Moisture::FOURTEEN)),
            part("salt and sugar", 4.0, 22.0, 1.3),
        ],
        water_kg: 61.0,
        tap_c: 18.0,
        target_c: 26.0,
        mixing_kj_per_kg: 12.0,
        mixing_min: Some(10.0),
        jacket_kj_per_kg: None,
        flour_wetted_kg: 100.0,
        rested_kj: 0.0,
        chilled_min_c: 2.0,
        hottest_c: HOTTEST_WATER_C,
        ice_c: 0.0,
        max_ice_pct: 60.0,
        surroundings: None,
    }
}

fn near(found: f64, wanted: f64, within: f64) {
    assert!((found - wanted).abs() <= within, "{found} is not within {within} of {wanted}");
}

#[test]
fn every_term_together_is_nothing() {
    for mixing in [0.0, 12.0, 25.0, 36.0, 60.0] {
        let answer = Balance { mixing_kj_per_kg: mixing, ..dough() }.solve();
        let sum: f64 = answer.terms.iter().map(|term| term.kj).sum();
        near(sum, 0.0, 1e-6);
        let names: Vec<&str> = answer.terms.iter().map(|term| &*term.name).collect();
        assert_eq!(
            names,
            ["flour", "salt and sugar", "mixing", "wetting the flour", "water", "ice"]
        );
    }
}

#[test]
fn each_lever_gives_what_it_promises() {
    for mixing in [12.0, 36.0, 80.0] {
        let now = Balance { mixing_kj_per_kg: mixing, ..dough() };
        let answer = now.solve();
        for measure in &answer.sensitivities {
            let mut other = now.clone();
            match measure.measure {
                "flour" => other.parts[0].temperature_c -= 1.0,
                "mixing" => other.mixing_kj_per_kg *= 0.9,
                "tap" => other.tap_c -= 1.0,
                unknown => panic!("{unknown} is no lever"),
            }
            let then = other.solve();
            near(measure.water_c, then.water_c - answer.water_c, 1e-9);
            near(measure.ice_kg, then.ice_kg - answer.ice_kg, 1e-9);
            near(measure.dough_c, then.dough_c - answer.dough_c, 1e-9);
        }
    }
}

#[test]
fn each_remedy_alone_reaches_the_target() {
    let hot = Balance { mixing_kj_per_kg: 110.0, tap_c: 28.0, ..dough() };
    let answer = hot.solve();
    assert!(!answer.reachable && answer.dough_c > 26.0);
    assert_eq!(answer.remedies.len(), 3);
    for remedy in &answer.remedies {
        let mut other = hot.clone();
        match remedy.amount {
            RemedyAmount::FlourCooler { k } => other.parts[0].temperature_c -= k + 1e-6,
            RemedyAmount::LessMixing { kj_per_kg, minutes } => {
                near(minutes.expect("known"), 10.0 * kj_per_kg / 110.0, 1e-9);
                other.mixing_kj_per_kg -= kj_per_kg + 1e-6;
            }
            RemedyAmount::SomeJacket { kj } => other.mixing_kj_per_kg -= kj / 165.0 + 1e-6,
            other => panic!("{other}"),
        }
        assert!(other.solve().reachable, "{}", remedy.amount);
    }
}

#[test]
fn a_dough_too_cold_is_told_how_far_hot_water_takes_it() {
    let cold = Balance {
        parts: vec![part("flour", 100.0, -10.0, 1.83)],
        water_kg: 40.0,
        target_c: 34.0,
        mixing_kj_per_kg: 0.0,
        ..dough()
    };
    let answer = cold.solve();
    assert!(!answer.reachable);
    assert_eq!((answer.water_c, answer.ice_kg), (HOTTEST_WATER_C, 0.0));
    assert!(matches!(answer.reason, Some(Unreachable::HottestUsed { water_c: 60.0, .. })));
    assert!(
        matches!(answer.remedies[0].amount, RemedyAmount::FlourWarmer { .. }),
        "{:?}",
        answer.remedies
    );
    assert_eq!(answer.remedies.len(), 1, "no less mixing warms a dough");
}

#[test]
fn a_mixer_without_water_is_at_the_mercy_of_what_is_in_it() {
    let answer = Balance { water_kg: 0.0, ..dough() }.solve();
    assert!(!answer.reachable);
    assert_eq!(answer.reason, Some(Unreachable::NoWater { dough_c: answer.dough_c }));
    let settled = Balance { water_kg: 0.0, target_c: answer.dough_c, ..dough() }.solve();
    assert!(settled.reachable, "unless it is where it should be");
}

#[test]
fn colder_ice_does_more_and_a_higher_cap_reaches_further() {
    let hot = Balance { mixing_kj_per_kg: 36.0, ..dough() };
    let at = |ice_c: f64| Balance { ice_c, ..hot.clone() }.solve().ice_kg;
    assert!(at(-20.0) < at(0.0));
    let capped = Balance { max_ice_pct: 10.0, ..hot.clone() }.solve();
    assert!(!capped.reachable);
    near(capped.ice_kg, 6.1, 1e-9);
    assert!(matches!(capped.reason, Some(Unreachable::MostIce { ice_pct: 10.0, .. })));
    assert!(Balance { max_ice_pct: 60.0, ..hot }.solve().reachable);
}

#[test]
fn a_cold_tap_is_warmed_and_never_iced() {
    let answer = Balance { tap_c: 1.0, mixing_kj_per_kg: 21.0, ..dough() }.solve();
    assert!(answer.reachable);
    assert_eq!(answer.ice_kg, 0.0);
    assert!(answer.water_c >= 1.0);
}

#[test]
fn the_calculator_names_each_fault_by_its_place() {
    let good = json!({
        "parts": [{"name": "flour", "kg": 100, "temperature_c": 24, "specific_heat": 1.833}],
        "water_kg": 61, "tap_c": 18, "target_c": 26, "mixing_kj_per_kg": 12, "flour_wetted_kg": 100,
    });
    let compute = |input: &Value| {
        serde_json::from_value::<DoughTemperatureInput>(input.clone()).expect("the shape").compute()
    };
    assert!(compute(&good).is_ok());
    for (at, value, field) in [
        ("/parts/0/kg", json!(-1), "parts[0].kg"),
        ("/parts/0/specific_heat", json!(null), "parts[0].specific_heat"),
        ("/parts/0/temperature_c", json!("cool"), "parts[0].temperature_c"),
        ("/water_kg", json!(1e9), "water_kg"),
        ("/tap_c", json!(-4), "tap_c"),
        ("/target_c", json!(null), "target_c"),
        ("/mixing_kj_per_kg", json!(501), "mixing_kj_per_kg"),
        ("/flour_wetted_kg", json!(-0.1), "flour_wetted_kg"),
    ] {
        let mut wrong = good.clone();
        *wrong.pointer_mut(at).expect("part of it") = value;
        let faults = compute(&wrong).expect_err(field);
        assert_eq!(faults.0.len(), 1, "{faults:?}");
        assert_eq!(faults.0[0].field, field);
    }
    let mut many = good.clone();
    many["parts"] = json!(vec![good["parts"][0].clone(); 201]);
    assert_eq!(compute(&many).expect_err("too many").0[0].field, "parts");
    let mut nothing = good;
    nothing["parts"] = json!([]);
    nothing["water_kg"] = json!(0);
    assert!(compute(&nothing).is_err(), "nothing is mixed");
}

fn any() -> impl Strategy<Value = Balance> {
    (
        (10.0..500.0, -5.0..40.0, 0.0..200.0, 5.0..30.0),
        (20.0..400.0, 1.0..30.0, 18.0..32.0, 0.0..60.0, 0.0..100.0),
    )
        .prop_map(|((flour, flour_c, sponge, sponge_c), (water, tap, target, mixing, ice))| {
            Balance {
                parts: vec![
                    part("flour", flour, flour_c, 1.833),
                    part("sponge", sponge, sponge_c, 2.8),
                ],
                water_kg: water,
                tap_c: tap,
                target_c: target,
                mixing_kj_per_kg: mixing,
                mixing_min: None,
                jacket_kj_per_kg: None,
                flour_wetted_kg: flour,
                rested_kj: 0.0,
                chilled_min_c: 2.0,
                hottest_c: HOTTEST_WATER_C,
                ice_c: 0.0,
                max_ice_pct: ice,
                surroundings: None,
            }
        })
}

proptest! {
    #[test]
    fn water_and_ice_are_all_the_water(balance in any()) {
        let answer = balance.solve();
        prop_assert!((answer.water_kg + answer.ice_kg - balance.water_kg).abs() < 1e-9);
        prop_assert!(answer.ice_kg >= 0.0 && answer.water_kg >= -1e-9);
        prop_assert!(answer.water_c <= HOTTEST_WATER_C + 1e-9);
        prop_assert_eq!(answer.reachable, answer.reason.is_none());
        prop_assert!(answer.dough_c.is_finite());
    }

    #[test]
    fn reachable_means_at_the_target(balance in any()) {
        let answer = balance.solve();
        if answer.reachable {
            prop_assert!((answer.dough_c - balance.target_c).abs() < 1e-9);
            prop_assert!(answer.remedies.is_empty());
        }
    }

    #[test]
    fn twice_the_dough_wants_the_same_water(balance in any()) {
        let mut twice = balance.clone();
        for part in &mut twice.parts {
            part.kg *= 2.0;
        }
        twice.water_kg *= 2.0;
        twice.flour_wetted_kg *= 2.0;
        let (one, other) = (balance.solve(), twice.solve());
        prop_assert!((one.water_c - other.water_c).abs() < 1e-6);
        prop_assert!((2.0 * one.ice_kg - other.ice_kg).abs() < 1e-6);
    }

    #[test]
    fn warmer_flour_never_wants_warmer_water(balance in any(), more in 0.1..15.0f64) {
        let mut warmer = balance.clone();
        warmer.parts[0].temperature_c += more;
        let (one, other) = (balance.solve(), warmer.solve());
        if one.ice_kg == 0.0 && other.ice_kg == 0.0 && one.reachable && other.reachable {
            prop_assert!(other.water_c <= one.water_c + 1e-9);
        }
        prop_assert!(other.ice_kg >= one.ice_kg - 1e-9);
    }
}

#[test]
fn ice_and_chilled_water_are_levers_with_their_effect() {
    let balance = Balance {
        parts: vec![part("flour", 100.0, 24.0, 1.833), part("other", 4.0, 22.0, 1.3)],
        water_kg: 61.0,
        tap_c: 18.0,
        target_c: 26.0,
        mixing_kj_per_kg: 36.0,
        jacket_kj_per_kg: Some(8.0),
        mixing_min: Some(12.0),
        flour_wetted_kg: 100.0,
        rested_kj: 0.0,
        chilled_min_c: 2.0,
        hottest_c: HOTTEST_WATER_C,
        ice_c: 0.0,
        max_ice_pct: 60.0,
        surroundings: None,
    };
    let (answer, sensitivities) = (balance.solve(), balance.available_measures());
    let measure = |name| sensitivities.iter().find(|measure| measure.measure == name).expect(name);
    assert!(measure("ice").dough_c < -0.5, "a kilo of ice cools: {}", measure("ice").dough_c);
    assert!(measure("chilled").ice_kg < -5.0, "{}", measure("chilled").ice_kg);
    assert!(measure("jacket").ice_kg < -2.0, "{}", measure("jacket").ice_kg);
    // The jacket takes what it takes from the mixing.
    let with = Balance { mixing_kj_per_kg: 28.0, jacket_kj_per_kg: None, ..balance };
    assert!((with.solve().ice_kg - answer.ice_kg - measure("jacket").ice_kg).abs() < 1e-9);
    assert!(with.available_measures().iter().all(|measure| measure.measure != "jacket"));
}

#[test]
fn only_what_a_line_has_is_used() {
    let none =
        WaterSources { chilled_c: None, refrigerator_c: None, hot_c: None, max_ice_pct: 0.0 };
    let with = |sources: WaterSources, tap_c: f64, mixing: f64| {
        Balance {
            tap_c,
            mixing_kj_per_kg: mixing,
            chilled_min_c: sources.coldest_c(tap_c),
            hottest_c: sources.hottest_c(tap_c),
            max_ice_pct: sources.max_ice_pct,
            ..dough()
        }
        .solve()
    };
    // A tap of 30 °C, and 3 °C wanted: nothing here gives it.
    let bare = with(none, 30.0, 24.0);
    near(bare.water_c, 30.0, 1e-9);
    assert!(!bare.reachable && bare.ice_kg == 0.0 && bare.dough_c > 26.0);
    assert!(matches!(bare.reason, Some(Unreachable::NoIce { .. })));
    // With a chiller it is chilled water, with ice tap water and ice, never one for the other.
    let chilled = with(WaterSources { chilled_c: Some(1.0), ..none }, 30.0, 24.0);
    assert!(chilled.reachable && chilled.ice_kg == 0.0 && chilled.water_c < 30.0);
    let iced = with(WaterSources { max_ice_pct: 60.0, ..none }, 30.0, 24.0);
    near(iced.water_c, 30.0, 1e-9);
    assert!(iced.reachable && iced.ice_kg > 0.0);
    // Warmer than the tap only out of a hot tap.
    let cold = with(none, 4.0, 0.0);
    assert!(!cold.reachable && matches!(cold.reason, Some(Unreachable::HottestHere { .. })));
    let hot = WaterSources { hot_c: Some(55.0), ..none };
    let warm = with(hot, 4.0, 0.0);
    assert!(warm.reachable && warm.water_c > 4.0);
    let from =
        hot.mixed(WantedWater { kg: warm.water_kg, temperature_c: warm.water_c, tap_c: 4.0 });
    near(from.iter().map(|one| one.kg).sum(), warm.water_kg, 1e-9);
    let heat: f64 = from.iter().map(|one| one.kg * one.temperature_c).sum();
    near(heat / warm.water_kg, warm.water_c, 1e-9);
}

proptest! {
    #[test]
    fn water_mixed_by_mass_is_as_warm_as_it_is_wanted(
        kg in 0.1..500.0, tap in 1.0..32.0, share in 0.0..1.0, up in proptest::bool::ANY,
        chilled in prop::option::of(0.5..6.0), fridge in 2.0..8.0, hot in 35.0..70.0,
    ) {
        let there = WaterSources {
            chilled_c: chilled, refrigerator_c: Some(fridge), hot_c: Some(hot), max_ice_pct: 0.0,
        };
        let end = if up { there.hottest_c(tap) } else { there.coldest_c(tap) };
        let wanted = tap + share * (end - tap);
        let from = there.mixed(WantedWater { kg, temperature_c: wanted, tap_c: tap });
        prop_assert!(from.iter().all(|one| one.kg >= 0.0));
        let all: f64 = from.iter().map(|one| one.kg).sum();
        let heat: f64 = from.iter().map(|one| one.kg * one.temperature_c).sum();
        prop_assert!((all - kg).abs() < 1e-9 * kg.max(1.0));
        prop_assert!((heat / kg - wanted).abs() < 1e-6, "{from:?}");
    }
}
