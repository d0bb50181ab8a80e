//! Quantities as people write them, changing one number, cost, and the library.

use crate::support::{formula, near, scaled};
use ironpeel_core::coefficient::{Coefficients, Origin};
use ironpeel_core::dough::{
    Amount, ByAmount, CupFlour, Ingredient, IngredientPrice, IngredientPropertiesInput,
    KeptConstant, Library, Masses, QuantityError, RescalingError, cost, read_quantity,
};
use ironpeel_core::flour::Species;
use ironpeel_core::units::{DecimalMark, NumberError, ValidationErrors};
use proptest::prelude::*;
use serde_json::{Value, json};

fn kg(text: &str, of: Ingredient) -> Result<(f64, f64, f64), QuantityError> {
    let found = read_quantity(text, Library::default().properties(of), None)?;
    Ok((found.typical, found.low, found.high))
}

#[test]
fn quantities_are_read_as_people_write_them() {
    for (text, of, wanted) in [
        ("500 g", Ingredient::Flour, 0.5),
        ("500g", Ingredient::Flour, 0.5),
        ("1.1 kg", Ingredient::Flour, 1.1),
        ("1,1 kg", Ingredient::Flour, 1.1),
        ("3 lb 4 oz", Ingredient::Flour, 1.474),
        ("2 1/3 cup", Ingredient::Flour, 0.2917),
        ("2⅓ cups", Ingredient::Flour, 0.2917),
        ("1½ tsp", Ingredient::Salt, 0.00885),
        ("1 1/2 tsp", Ingredient::InstantYeast, 0.00465),
        ("1 cup", Ingredient::Water, 0.2366),
        ("1 cup and 2 tbsp", Ingredient::Water, 0.2662),
        ("1 cup + 2 Tbsp.", Ingredient::Water, 0.2662),
        ("250 ml", Ingredient::Water, 0.25),
        ("8 fl oz", Ingredient::Water, 0.2366),
        ("20 mg", Ingredient::AscorbicAcid, 0.00002),
        ("½ cup", Ingredient::Honey, 0.17),
        ("0 g", Ingredient::Salt, 0.0),
    ] {
        near(kg(text, of).expect(text).0, wanted, wanted * 0.002 + 1e-9);
    }
}

#[test]
fn thousands_are_grouped_and_a_mark_that_could_be_either_asks() {
    let flour =
        |text, mark| read_quantity(text, Library::default().properties(Ingredient::Flour), mark);
    for text in ["1 250 g", "1\u{202f}250 g", "1'250 g", "1250 g", "1.25 kg"] {
        near(flour(text, None).expect(text).typical, 1.25, 1e-12);
    }
    near(flour("1,250 g", Some(DecimalMark::Point)).expect("grams").typical, 1.25, 1e-12);
    near(flour("1,250 kg", Some(DecimalMark::Comma)).expect("kilos").typical, 1.25, 1e-12);
    let refused = flour("1,250 g", None).expect_err("it could be either");
    assert!(matches!(refused, QuantityError::Number(NumberError::Ambiguous { .. })), "{refused}");
    let between = flour("450 to 500 g", None).expect("a range");
    near(between.typical, 0.475, 1e-12);
    assert_eq!((between.low, between.high), (0.45, 0.5));
}

#[test]
fn a_volume_carries_its_range_and_a_mass_does_not() {
    let (typical, low, high) = kg("1 cup", Ingredient::Flour).expect("a cup");
    near(typical, 0.125, 1e-9);
    near(low, 0.085, 1e-9);
    near(high, 0.170, 1e-9);
    let (typical, low, high) = kg("1 tsp", Ingredient::InstantYeast).expect("a spoon");
    near(typical, 0.0031, 1e-9);
    near(low, 0.0028, 1e-9);
    near(high, 0.0034, 1e-9);
    let (typical, low, high) = kg("3 lb", Ingredient::Flour).expect("a mass");
    assert!(typical == low && low == high);
}

#[test]
fn what_is_no_quantity_says_how_to_write_one() {
    for (text, wanted) in [
        ("", QuantityError::Empty),
        ("   ", QuantityError::Empty),
        ("some", QuantityError::NotOne("some".into())),
        ("500", QuantityError::NoUnit("500".into())),
        ("2 1/0 cup", QuantityError::NotOne("2 1/0 cup".into())),
        ("3 stone", QuantityError::UnknownUnit("stone".into())),
        ("-5 g", QuantityError::NotOne("-5 g".into())),
        ("5 g 3", QuantityError::NoUnit("5 g 3".into())),
        ("1.2.3 g", QuantityError::Number(NumberError::NotANumber("1.2.3".into()))),
        ("5 10 g", QuantityError::NotOne("5 10 g".into())),
        ("450-500 g", QuantityError::Range("450-500 g".into())),
        ("500 to 450 g", QuantityError::Range("500 to 450 g".into())),
    ] {
        assert_eq!(kg(text, Ingredient::Flour), Err(wanted), "{text}");
    }
    assert_eq!(
        kg("1 cup", Ingredient::FreshYeast),
        Err(QuantityError::NoDensity("fresh yeast".into()))
    );
    let long = "1 g ".repeat(40);
    assert!(kg(&long, Ingredient::Flour).is_err());
}

fn by_amount(input: Value) -> Result<ironpeel_core::dough::AmountsRead, ValidationErrors> {
    let input: ByAmount = serde_json::from_value(input).expect("the contract's shape");
    let flour_of = |name: &str| match name {
        "Kesh Rye" => Some(CupFlour::of(Species::Rye, Some(80.0))),
        "Holm Whole" => Some(CupFlour::of(Species::Wheat, Some(100.0))),
        "Tarn Strong" => Some(CupFlour::of(Species::Wheat, Some(76.0))),
        _ => None,
    };
    input.read(&Library::default(), &Coefficients::default(), &flour_of)
}

#[test]
fn a_sourdough_by_cups_is_the_one_by_percent_within_its_doubt() {
    let cups = by_amount(json!({
        "lines": [{"ingredient": "flour", "amount": "7 1/4 cups"}, {"ingredient": "water", "amount": "2 2/3 cups"},
            {"ingredient": "salt", "amount": "3 1/3 tsp"}],
        "starter": {"amount": "200 g", "hydration_pct": 100}}))
    .expect("understood");
    let weighed = by_amount(json!({
        "lines": [{"ingredient": "flour", "amount": "900 g"}, {"ingredient": "water", "amount": "620 g"},
            {"ingredient": "salt", "amount": "20 g"}],
        "starter": {"amount": "200 g"}}))
    .expect("understood");
    assert_eq!(weighed.hydration_pct.low, weighed.hydration_pct.high, "weighed is sure");
    near(weighed.hydration_pct.typical, 72.0, 1e-9);
    near(weighed.starter.expect("a starter").prefermented_flour_pct, 10.0, 1e-9);
    assert!(
        cups.hydration_pct.low < 72.0 && 72.0 < cups.hydration_pct.high,
        "{:?}",
        cups.hydration_pct
    );
    assert!(cups.hydration_pct.high - cups.hydration_pct.low > 20.0, "cups of flour are unsure");
    near(cups.hydration_pct.typical, 72.0, 2.0);
    near(cups.starter.expect("a starter").prefermented_flour_pct, 10.0, 0.3);
}

#[test]
fn milk_and_eggs_count_as_water_only_where_it_says_so() {
    let read = by_amount(json!({"lines": [{"ingredient": "flour", "amount": "1 kg"},
        {"ingredient": "water", "amount": "400 g"}, {"ingredient": "milk", "amount": "200 g"}]}))
    .expect("understood");
    near(read.hydration_pct.typical, 40.0, 1e-9);
    near(read.effective_hydration_pct.typical, 57.5, 1e-9);
    near(read.dough_kg.typical, 1.6, 1e-9);
    assert!(read.starter.is_none());
    assert_eq!(read.lines[2].label, "milk");
}

#[test]
fn amounts_that_make_no_dough_are_told_at_their_line() {
    for (input, field, message) in [
        (json!({"lines": [{"ingredient": "salt", "amount": "1 tsp"}]}), "lines", "no flour"),
        (
            json!({"lines": [{"ingredient": "flour", "amount": "lots"}]}),
            "lines[0].amount",
            "no quantity",
        ),
        (
            json!({"lines": [{"ingredient": "flour", "amount": "1 cup", "flour": "Loch Rye"}]}),
            "lines[0].flour",
            "no flour here is called Loch Rye",
        ),
        (
            json!({"lines": [{"ingredient": "flour", "amount": "1 kg"}, {"ingredient": "salt", "amount": "a packet"}]}),
            "lines[1].amount",
            "says nothing of the mass of salt",
        ),
        (
            json!({"lines": [{"ingredient": "flour", "amount": "1 kg"}], "starter": {"pct": 100, "convention": "of_dough"}}),
            "starter.pct",
            "leaves no flour",
        ),
        (
            json!({"water_is_total": true, "starter": {"amount": "1 kg"}, "lines": [
                {"ingredient": "flour", "amount": "1 kg"}, {"ingredient": "water", "amount": "300 g"}]}),
            "lines[1].amount",
            "the starter alone brings 0.500 kg",
        ),
        (
            json!({"lines": [{"ingredient": "flour", "amount": "1 kg"}], "starter": {"amount": "a bit"}}),
            "starter.amount",
            "no unit known",
        ),
        (
            json!({"lines": [{"ingredient": "flour", "amount": "1 kg"}], "starter": {"amount": "1 cup", "hydration_pct": 900}}),
            "starter.hydration_pct",
            "from 0 to 500",
        ),
    ] {
        let ValidationErrors(faults) = by_amount(input).expect_err("refused");
        assert!(
            faults.iter().any(|fault| fault.field == field && fault.message.contains(message)),
            "{faults:?}"
        );
    }
}

#[test]
fn flours_have_cups_of_their_own_and_what_stands_twice_is_added_up() {
    let read = by_amount(json!({"lines": [
        {"ingredient": "flour", "amount": "1 cup", "flour": "Kesh Rye"},
        {"ingredient": "flour", "amount": "2 cups", "flour": "Tarn Strong"},
        {"ingredient": "flour", "amount": "1 cup", "flour": "Tarn Strong"},
        {"ingredient": "water", "amount": "1 cup"}, {"ingredient": "water", "amount": "100 g"}]}))
    .expect("understood");
    let kg: Vec<(&str, f64)> = read.lines.iter().map(|one| (&*one.label, one.kg.typical)).collect();
    let [(rye, rye_kg), (strong, strong_kg), (_, water_kg)] = kg[..] else { panic!("{kg:?}") };
    assert_eq!((rye, strong), ("Kesh Rye", "Tarn Strong"));
    near(rye_kg, 0.105, 1e-9);
    near(strong_kg, 0.375, 0.0005);
    near(water_kg, 0.3366, 0.0005);
    let [first, second] = &read.flours[..] else { panic!("{:?}", read.flours) };
    assert_eq!((&*first.name, &*second.name), ("Tarn Strong", "Kesh Rye"));
    near(first.share_pct + second.share_pct, 100.0, 1e-9);
    near(second.share_pct, 100.0 * 0.105 / 0.480, 0.1);
}

#[test]
fn pinches_packets_sticks_and_eggs_are_what_they_are_sold_as() {
    for (text, of, wanted) in [
        ("a packet", Ingredient::InstantYeast, 0.007),
        ("2 sachets", Ingredient::ActiveDryYeast, 0.014),
        ("1 cube", Ingredient::FreshYeast, 0.042),
        ("½ stick", Ingredient::Butter, 0.0567),
        ("2 large eggs", Ingredient::Egg, 0.1),
        ("a pinch", Ingredient::Salt, 0.000_371),
        ("3 drops", Ingredient::Oil, 0.000_137),
        ("1½ to 2 cups", Ingredient::Water, 0.414),
    ] {
        near(kg(text, of).expect(text).0, wanted, wanted * 0.01);
    }
    let (_, low, high) = kg("a pinch of", Ingredient::Salt).expect("a pinch");
    assert!(high > 3.0 * low, "fingers differ");
}

#[test]
fn water_may_be_all_of_it_and_a_starter_stands_in_any_convention() {
    let lines = json!([{"ingredient": "flour", "amount": "900 g"}, {"ingredient": "water", "amount": "720 g"},
        {"ingredient": "salt", "amount": "20 g"}]);
    let total =
        by_amount(json!({"lines": lines, "water_is_total": true, "starter": {"amount": "200 g"}}));
    let total = total.expect("understood");
    near(total.hydration_pct.typical, 72.0, 1e-9);
    near(total.lines[1].kg.typical, 0.620, 1e-9);
    let lines = json!([{"ingredient": "flour", "amount": "900 g"}, {"ingredient": "water", "amount": "620 g"},
        {"ingredient": "salt", "amount": "20 g"}]);
    for (convention, pct) in [
        ("prefermented_flour", 10.0),
        ("on_final_flour", 100.0 * 200.0 / 900.0),
        ("of_dough", 100.0 * 200.0 / 1740.0),
    ] {
        let starter = json!({"pct": pct, "convention": convention, "hydration_pct": 100});
        let read = by_amount(json!({"lines": lines, "starter": starter})).expect("understood");
        near(read.starter_kg.expect("a starter").typical, 0.2, 1e-9);
        near(read.hydration_pct.typical, 72.0, 1e-9);
    }
    // 400 of flour, 300 of water, 8 of salt and 2 of yeast are 75 %, and stay it.
    let plain = by_amount(json!({"lines": [{"ingredient": "flour", "amount": "400"}]}));
    assert!(plain.is_err(), "400 of what?");
    let plain = by_amount(json!({"lines": [
        {"ingredient": "flour", "amount": "400 g"}, {"ingredient": "water", "amount": "300 g"},
        {"ingredient": "salt", "amount": "8 g"}, {"ingredient": "instant_yeast", "amount": "2 g"}]}));
    near(plain.expect("understood").hydration_pct.typical, 75.0, 1e-12);
}

fn dough() -> Masses {
    Masses(vec![
        (Ingredient::Flour, 100.0),
        (Ingredient::Water, 62.0),
        (Ingredient::Salt, 2.0),
        (Ingredient::InstantYeast, 1.0),
    ])
}

#[test]
fn one_number_changes_and_what_was_chosen_stays() {
    let wetter = dough().with(Ingredient::Water, 70.0, KeptConstant::Flour).expect("a dough");
    assert_eq!((wetter.of(Ingredient::Flour), wetter.total_kg()), (100.0, 173.0));
    let kept = dough().with(Ingredient::Water, 70.0, KeptConstant::Dough).expect("a dough");
    near(kept.total_kg(), 165.0, 1e-9);
    assert!(kept.of(Ingredient::Flour) < 100.0);
    let saltier = dough().with(Ingredient::Salt, 3.0, KeptConstant::Water).expect("a dough");
    assert_eq!((saltier.of(Ingredient::Water), saltier.of(Ingredient::Flour)), (62.0, 100.0));
    let stiffer = dough().with(Ingredient::Flour, 110.0, KeptConstant::Water).expect("a dough");
    assert_eq!(stiffer.of(Ingredient::Water), 62.0);
    near(stiffer.of(Ingredient::Salt) / stiffer.of(Ingredient::Flour), 0.02, 1e-12);
    let percent = wetter.on_flour();
    assert_eq!(percent[0], (Ingredient::Water, 70.0));
}

#[test]
fn a_change_that_leaves_no_dough_is_refused() {
    for (changed, to, keep, wanted) in [
        (Ingredient::Egg, 1.0, KeptConstant::Flour, RescalingError::NotInIt),
        (Ingredient::Salt, -1.0, KeptConstant::Flour, RescalingError::NoDough),
        (Ingredient::Salt, f64::NAN, KeptConstant::Flour, RescalingError::NoDough),
        (Ingredient::Flour, 0.0, KeptConstant::Dough, RescalingError::NoDough),
        (Ingredient::Water, 165.0, KeptConstant::Dough, RescalingError::TooMuch),
        (Ingredient::Flour, 90.0, KeptConstant::Flour, RescalingError::IsKept),
        (Ingredient::Water, 60.0, KeptConstant::Water, RescalingError::IsKept),
    ] {
        assert_eq!(dough().with(changed, to, keep), Err(wanted), "{changed} {keep:?}");
    }
}

#[test]
fn a_run_costs_what_is_in_it_and_water_is_worth_what_it_saves() {
    let formula = formula(
        json!({"lines": [{"ingredient": "flour", "pct": 100}, {"ingredient": "salt", "pct": 2},
        {"ingredient": "inulin", "pct": 1}]}),
    );
    let price = |ingredient, price_per_kg| IngredientPrice { ingredient, price_per_kg };
    let paid = [
        price(Ingredient::Flour, 0.52),
        price(Ingredient::Water, 0.003),
        price(Ingredient::Salt, 0.35),
        price(Ingredient::Inulin, 4.2),
    ];
    let library = Library::default().priced(&paid);
    let run = scaled(Amount::Dough { kg: 163.0 }, 0.9, 200.0, 163.0);
    let found = cost(&formula, 60.0, &run, &[(100.0, Some(0.40))], &library);
    near(found.per_kg, (40.0 + 0.7 + 4.2 + 0.18) / 163.0, 1e-9);
    near(found.run, found.per_kg * 163.0, 1e-9);
    near(found.per_piece, found.run / f64::from(run.pieces), 1e-9);
    assert_eq!(found.dough_yield, 163.0);
    near(found.point_of_water.more_pieces, 1.0 / 0.9, 1e-9);
    near(found.point_of_water.flour_saved_kg, 100.0 - 163.0 / 1.64, 1e-9);
    assert!(found.point_of_water.saved > 0.0 && found.unpriced.is_empty());
    let two = cost(&formula, 60.0, &run, &[(50.0, Some(0.40)), (50.0, None)], &library);
    near(two.per_kg - found.per_kg, 50.0 * (0.52 - 0.40) / 163.0, 1e-9);
    let bare = cost(&formula, 60.0, &run, &[(100.0, None)], &Library::default());
    assert_eq!(bare.unpriced, ["flour", "water", "salt", "inulin"], "nobody's prices are assumed");
}

#[test]
fn every_ingredient_of_the_house_is_known_by_its_word() {
    let library = Library::default();
    assert_eq!(library.all().count(), Ingredient::ALL.len());
    for (properties, ingredient) in library.all().zip(Ingredient::ALL) {
        assert_eq!(
            properties.ingredient, ingredient,
            "the library stands in the order of the words"
        );
        assert_eq!(Ingredient::from_key(&ingredient.key()), Some(ingredient));
        assert!(library.knows(ingredient) && properties.origin == Origin::House);
        assert!((1.0..=4.2).contains(&properties.specific_heat), "{ingredient}");
        assert!((0.0..=100.0).contains(&properties.water_pct), "{ingredient}");
        for band in
            properties.kg_per_l.iter().chain(properties.effect.iter().map(|effect| &effect.points))
        {
            assert!(band.low <= band.typical && band.typical <= band.high, "{ingredient}");
        }
        let word = serde_json::to_value(ingredient).expect("a word");
        assert_eq!(serde_json::from_value::<Ingredient>(word).expect("the same"), ingredient);
    }
    for word in ["sawdust", "own_", "own_x", "own_99999999", "own_-1", "Salt"] {
        assert_eq!(Ingredient::from_key(word), None, "{word}");
    }
}

#[test]
fn a_plants_own_ingredient_is_checked_and_found() {
    let check = |input: Value| {
        let input: IngredientPropertiesInput =
            serde_json::from_value(input).expect("the contract's shape");
        let mut faults = ValidationErrors::default();
        let properties = input.check("ingredients[0].", &mut faults);
        faults.or(properties)
    };
    let malt = check(json!({"ingredient": "own_1", "label": "Skerrow seaweed", "role": "other",
        "water_pct": 12, "points": 3, "points_low": 2, "points_high": 4, "kg_per_l": 0.4,
        "allergens": ["sulphite", "sulphite"], "price_per_kg": 9}))
    .expect("good");
    assert_eq!(malt.allergens.clone().expect("stated").contains.len(), 1);
    near(malt.specific_heat, (1.45 * 88.0 + 4.186 * 12.0) / 100.0, 1e-9);
    let salt = check(json!({"ingredient": "salt", "label": "salt", "role": "salt", "water_pct": 0,
        "price_per_kg": 0.5}))
    .expect("good");
    assert!(salt.effect.is_none(), "its effect is switched off");
    let library = Library::with(vec![malt, salt]);
    assert_eq!(library.properties(Ingredient::Own(1)).label, "Skerrow seaweed");
    assert_eq!(library.properties(Ingredient::Salt).origin, Origin::Plant);
    assert_eq!(library.all().count(), Ingredient::ALL.len() + 1);
    assert!(!library.knows(Ingredient::Own(2)));
    assert!(library.properties(Ingredient::Own(2)).label.contains("no longer on record"));
    for (input, field) in [
        (
            json!({"ingredient": "own_1", "label": " ", "role": "other", "water_pct": 0}),
            "ingredients[0].label",
        ),
        (
            json!({"ingredient": "own_1", "label": "x", "role": "other", "water_pct": 101}),
            "ingredients[0].water_pct",
        ),
        (json!({"ingredient": "own_1", "label": "x", "role": "other"}), "ingredients[0].water_pct"),
        (
            json!({"ingredient": "own_1", "label": "x", "role": "other", "water_pct": 0, "points": 5, "points_low": 6}),
            "ingredients[0].points",
        ),
        (
            json!({"ingredient": "own_1", "label": "x", "role": "other", "water_pct": 0, "kg_per_l": 90}),
            "ingredients[0].kg_per_l",
        ),
    ] {
        assert_eq!(check(input).expect_err("refused").0[0].field, field);
    }
}

fn keep() -> impl Strategy<Value = KeptConstant> {
    prop::sample::select(vec![KeptConstant::Flour, KeptConstant::Dough, KeptConstant::Water])
}

proptest! {
    #[test]
    fn no_text_makes_the_reader_panic(text in ".{0,80}") {
        if let Ok((typical, low, high)) = kg(&text, Ingredient::Flour) {
            prop_assert!(low <= typical && typical <= high && high.is_finite());
        }
    }

    #[test]
    fn grams_written_are_grams_read(grams in 0.0..100_000.0f64) {
        let text = format!("{grams:.4} g");
        let (typical, ..) = kg(&text, Ingredient::Salt).expect("grams");
        prop_assert!((typical * 1000.0 - grams).abs() < 0.001);
    }

    #[test]
    fn what_is_kept_is_kept_and_back_is_back(keep in keep(), water in 40.0..90.0f64, salt in 0.5..4.0f64) {
        for (changed, to) in [(Ingredient::Water, water), (Ingredient::Salt, salt)] {
            let Ok(now) = dough().with(changed, to, keep) else { continue };
            prop_assert!((now.of(changed) - to).abs() < 1e-9);
            match keep {
                KeptConstant::Flour => prop_assert!((now.of(Ingredient::Flour) - 100.0).abs() < 1e-9),
                KeptConstant::Dough => prop_assert!((now.total_kg() - 165.0).abs() < 1e-9),
                KeptConstant::Water => prop_assert!((now.of(Ingredient::Water) - 62.0).abs() < 1e-9),
            }
            let back = now.with(changed, dough().of(changed), keep).expect("was one");
            for (ingredient, kg) in dough().0 {
                prop_assert!((back.of(ingredient) - kg).abs() < 1e-9, "{ingredient}");
            }
        }
    }

    #[test]
    fn a_wanted_baked_weight_is_what_comes_off_the_rack(
        pieces in 1u32..5000, cooled in 0.02..2.0f64, most in 10.0..500.0f64,
    ) {
        let wanted = Amount::Baked { pieces: pieces.into(), cooled_kg: cooled };
        let run = scaled(wanted, 0.5, most, 165.0);
        prop_assert!((run.cooled_piece_kg - cooled).abs() < 1e-9);
        prop_assert_eq!(run.pieces, pieces);
        let flour = scaled(Amount::Flour { kg: run.total_kg / 1.65 }, run.piece_kg, most, 165.0);
        prop_assert!((flour.total_kg - run.total_kg).abs() < 1e-6);
    }
}
