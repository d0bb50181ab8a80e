//! The library of ingredients: what each is, what a plant makes of it, what must be declared.

use crate::support::{formula, near, scaled};
use ironpeel_core::coefficient::Origin;
use ironpeel_core::dough::{
    Allergen, AllergenFlour, AllergenLine, AllergenStatement, Amount, AmountInput, Ingredient,
    IngredientPropertiesInput, Library, Losses, LossesInput, Role, ScaleRequest, allergen_line,
};
use ironpeel_core::flour::Species;
use ironpeel_core::units::{RawNumber, ValidationErrors};
use proptest::prelude::*;
use serde_json::{Value, json};

#[test]
fn every_ingredient_has_facts_that_make_sense() {
    let library = Library::default();
    for ingredient in Ingredient::ALL {
        let properties = library.properties(ingredient);
        assert_eq!(properties.ingredient, ingredient);
        assert_eq!(properties.origin, Origin::House, "{ingredient}");
        assert!(
            !properties.label.is_empty() && !properties.label.contains('_'),
            "{}",
            properties.label
        );
        assert!((0.0..=100.0).contains(&properties.water_pct), "{ingredient}");
        assert!((1.0..=4.3).contains(&properties.specific_heat), "{ingredient}");
        assert!(properties.price_per_kg.is_none_or(|price| price >= 0.0));
        if let Some(effect) = &properties.effect {
            let points = effect.points;
            assert!(points.low <= points.typical && points.typical <= points.high, "{ingredient}");
            assert!(effect.reason.contains(' '), "{ingredient} says why in words");
        }
        if let Some(litre) = properties.kg_per_l {
            assert!(litre.low <= litre.typical && litre.typical <= litre.high, "{ingredient}");
            assert!((0.1..=2.0).contains(&litre.typical), "{ingredient}");
        }
    }
    assert_eq!(library.all().count(), Ingredient::ALL.len());
}

#[test]
fn wetter_things_hold_more_heat() {
    let library = Library::default();
    let heat = |ingredient| library.properties(ingredient).specific_heat;
    assert!(heat(Ingredient::Water) > heat(Ingredient::Milk));
    assert!(heat(Ingredient::Milk) > heat(Ingredient::Egg));
    assert!(heat(Ingredient::Egg) > heat(Ingredient::Honey));
    assert!(heat(Ingredient::Honey) > heat(Ingredient::Salt));
}

#[test]
fn words_on_the_wire_come_back() {
    for ingredient in
        Ingredient::ALL.into_iter().chain([Ingredient::Own(1), Ingredient::Own(65535)])
    {
        assert_eq!(Ingredient::from_key(&ingredient.key()), Some(ingredient));
        let sent = serde_json::to_string(&ingredient).expect("a word");
        assert_eq!(serde_json::from_str::<Ingredient>(&sent).expect("read back"), ingredient);
    }
    for word in ["own_", "own_-1", "own_70000", "Flour", "", "own_1x"] {
        assert_eq!(Ingredient::from_key(word), None, "{word}");
    }
    assert!(serde_json::from_str::<Ingredient>("\"gravel\"").is_err());
}

#[test]
fn a_plant_changes_what_it_knows_better_and_no_more() {
    let input: IngredientPropertiesInput = serde_json::from_value(json!({
        "ingredient": "psyllium", "label": "psyllium husk", "role": "fibre", "water_pct": 6,
        "points": 5.2, "points_low": 4, "points_high": 6,
    }))
    .expect("the shape");
    let mut faults = ValidationErrors::default();
    let own = input.check("", &mut faults);
    assert!(faults.0.is_empty(), "{faults:?}");
    let library = Library::with(vec![own]);
    let properties = library.properties(Ingredient::Psyllium);
    assert_eq!((&*properties.label, properties.origin), ("psyllium husk", Origin::Plant));
    assert!(properties.specific_heat > 1.3, "from its water, where nothing is said");
    assert_eq!(properties.kg_per_l, None, "no volume is understood where none was given");
    assert_eq!(
        library.properties(Ingredient::Salt),
        Library::default().properties(Ingredient::Salt)
    );
    assert_eq!(library.all().count(), Ingredient::ALL.len());
    assert!(!library.knows(Ingredient::Own(3)));
    assert_eq!(Role::Fibre, properties.role);
}

#[test]
fn a_band_must_hold_its_own_value() {
    let faults_of = |extra: serde_json::Value| -> Vec<String> {
        let mut input =
            json!({"ingredient": "own_1", "label": "kelp", "role": "other", "water_pct": 5});
        for (key, value) in extra.as_object().expect("an object") {
            input[key] = value.clone();
        }
        let input: IngredientPropertiesInput = serde_json::from_value(input).expect("the shape");
        let mut faults = ValidationErrors::default();
        let _ = input.check("ingredients[2].", &mut faults);
        faults.0.into_iter().map(|fault| fault.field).collect()
    };
    assert!(faults_of(json!({})).is_empty());
    assert!(faults_of(json!({"points": 1})).is_empty(), "its band is itself");
    assert_eq!(
        faults_of(json!({"points": 1, "points_low": 2, "points_high": 3})),
        ["ingredients[2].points"]
    );
    assert_eq!(faults_of(json!({"kg_per_l": 9})), ["ingredients[2].kg_per_l"]);
    assert_eq!(faults_of(json!({"label": "x".repeat(200)})), ["ingredients[2].label"]);
}

/// A flour of a grain with what its mill states of it.
fn milled(species: Species, stated: Option<&AllergenStatement>) -> AllergenFlour<'_> {
    AllergenFlour { name: "the flour", species, stated }
}

fn line_of(lines: &[&str], flours: &[AllergenFlour<'_>]) -> AllergenLine {
    let lines: Vec<_> = std::iter::once(json!({"ingredient": "flour", "pct": 100}))
        .chain(lines.iter().map(|line| json!({"ingredient": line, "pct": 2})))
        .collect();
    allergen_line(&formula(json!({"lines": lines})), flours, &Library::default())
}

#[test]
fn what_must_be_declared_is_what_is_stated_of_each() {
    use Allergen::{Egg, Gluten, Milk, Sesame, Soy, Wheat};
    let nothing = AllergenStatement::default();
    let wheat = line_of(&["milk", "egg", "butter"], &[milled(Species::Wheat, Some(&nothing))]);
    assert_eq!(wheat.allergens, [Gluten, Wheat, Egg, Milk]);
    assert_eq!(wheat.to_string(), "Contains: cereals containing gluten, wheat, egg, milk.");
    assert_eq!(wheat.caution(), None);
    for species in [Species::Spelt, Species::Durum, Species::Einkorn, Species::Khorasan] {
        let line = line_of(&[], &[milled(species, Some(&nothing))]);
        assert_eq!(line.allergens, [Gluten, Wheat], "a grain is what it is, whatever is stated");
    }
    assert_eq!(line_of(&[], &[milled(Species::Rye, Some(&nothing))]).allergens, [Gluten]);
    let traces = AllergenStatement { contains: vec![Soy], may_contain: vec![Sesame, Soy] }.tidy();
    let free = line_of(&[], &[milled(Species::GlutenFree, Some(&traces))]);
    assert_eq!(free.to_string(), "Contains: soy. May contain: sesame.");
    assert!(free.caution().is_some_and(|message| message.contains("is not gluten-free")));
}

#[test]
fn one_unknown_is_named_and_nothing_is_claimed() {
    // A low-starch mix is often vital wheat gluten.
    let mix = line_of(&[], &[milled(Species::LowStarch, None)]);
    assert_eq!(mix.unknown, ["the flour"]);
    assert!(mix.to_string().starts_with("Not stated for the flour"), "{mix}");
    let stated = AllergenStatement::by_nature(&[Allergen::Gluten, Allergen::Wheat]);
    let mix = line_of(&[], &[milled(Species::LowStarch, Some(&stated))]);
    assert_eq!(mix.to_string(), "Contains: cereals containing gluten, wheat.");
    assert_eq!(mix.caution(), None);
    let nothing = AllergenStatement::default();
    for unknown in ["seeds", "own_7", "fat", "vinegar"] {
        let line = line_of(&[unknown], &[milled(Species::GlutenFree, Some(&nothing))]);
        assert_eq!(line.unknown.len(), 1, "{unknown}");
        assert!(!line.to_string().contains("None of"), "{unknown}: {line}");
    }
    let plain = line_of(&["salt"], &[milled(Species::GlutenFree, Some(&nothing))]);
    assert_eq!(
        plain.to_string(),
        "None of the listed allergens by the statements of its ingredients."
    );
}

#[test]
fn a_statement_is_read_as_stated_or_as_an_earlier_record_had_it() {
    let read = |value: Value| serde_json::from_value::<AllergenStatement>(value).expect("read");
    assert_eq!(read(json!(["milk"])).contains, [Allergen::Milk]);
    let stated = read(json!({"contains": ["nuts"], "may_contain": ["celery"]}));
    assert_eq!(
        (stated.contains, stated.may_contain),
        (vec![Allergen::Nuts], vec![Allergen::Celery])
    );
    assert_eq!(Allergen::ALL.len(), 15);
}

#[test]
fn losses_and_amounts_are_checked_at_their_place() {
    let mut faults = ValidationErrors::default();
    let input = LossesInput { bake_pct: RawNumber::from(60.0), ..LossesInput::default() };
    let checked = input.check(Losses::house(), "losses.", &mut faults);
    assert_eq!(faults.0[0].field, "losses.bake_pct");
    assert_eq!(checked.cooling_pct, Losses::house().cooling_pct, "what is left out is as it was");
    for (amount, field) in [
        (json!({"by": "pieces", "pieces": 0}), "run_settings.amount.pieces"),
        (json!({"by": "baked", "pieces": 10}), "run_settings.amount.cooled_kg"),
        (json!({"by": "dough", "kg": 1e6}), "run_settings.amount.kg"),
        (json!({"by": "flour", "kg": "some"}), "run_settings.amount.kg"),
        (json!({"by": "mixer", "doughs": -1}), "run_settings.amount.doughs"),
    ] {
        let amount: AmountInput = serde_json::from_value(amount).expect("the shape");
        let mut faults = ValidationErrors::default();
        amount.check("run_settings.", &mut faults);
        assert_eq!(faults.0.iter().map(|fault| &*fault.field).collect::<Vec<_>>(), [field]);
    }
}

fn losses() -> impl Strategy<Value = Losses> {
    (0.0..5.0, 0.0..3.0, 5.0..20.0, 0.0..3.0).prop_map(|(scaling, fermentation, bake, cooling)| {
        Losses {
            scaling_pct: scaling,
            fermentation_pct: fermentation,
            bake_pct: bake,
            cooling_pct: cooling,
        }
    })
}

proptest! {
    #[test]
    fn a_dough_declares_what_each_of_its_ingredients_does(
        of in prop::sample::subsequence(Ingredient::ALL.to_vec(), 0..6), soaked in 0usize..3,
        species in prop::sample::select(vec![Species::Wheat, Species::Rye, Species::GlutenFree]),
    ) {
        let weighed = [Ingredient::Flour, Ingredient::Water];
        let of: Vec<_> = of.into_iter().filter(|one| !weighed.contains(one)).collect();
        let lines = |of: &[Ingredient]| -> Vec<Value> {
            of.iter().map(|one| json!({"ingredient": one.key(), "pct": 1.5})).collect()
        };
        let mut whole = lines(&of);
        whole.push(json!({"ingredient": "flour", "pct": 100}));
        let soaker = json!({"kind": "soaker", "name": "Soak", "flour_pct": 0, "water_pct": 5,
            "lines": lines(&of[..soaked.min(of.len())])});
        let formula = formula(json!({"lines": whole, "parts": [soaker]}));
        let library = Library::default();
        let line = allergen_line(&formula, &[milled(species, None)], &library);
        for ingredient in of {
            let properties = library.properties(ingredient);
            let told = match &properties.allergens {
                Some(stated) => stated.contains.iter().all(|one| line.allergens.contains(one)),
                None => line.unknown.iter().any(|name| *name == properties.label),
            };
            prop_assert!(told, "{ingredient}");
        }
    }

    #[test]
    fn every_way_of_saying_how_much_is_the_same_run(
        pieces in 10u32..5000, piece in 0.03..1.5f64, most in 20.0..600.0f64, total in 150.0..230.0f64,
        losses in losses(),
    ) {
        let by_pieces = ScaleRequest { amount: Amount::Pieces { pieces: f64::from(pieces) }, piece_kg: piece, mixer_max_kg: most, losses, total_pct: total }.scale();
        let by_dough = ScaleRequest { amount: Amount::Dough { kg: by_pieces.total_kg }, piece_kg: piece, mixer_max_kg: most, losses, total_pct: total }.scale();
        let flour = Amount::Flour { kg: by_pieces.total_kg * 100.0 / total };
        let by_flour = ScaleRequest { amount: flour, piece_kg: piece, mixer_max_kg: most, losses, total_pct: total }.scale();
        let baked = Amount::Baked { pieces: f64::from(pieces), cooled_kg: by_pieces.cooled_piece_kg };
        let by_baked = ScaleRequest { amount: baked, piece_kg: 9.0, mixer_max_kg: most, losses, total_pct: total }.scale();
        for other in [by_dough, by_flour, by_baked] {
            near(other.total_kg, by_pieces.total_kg, 1e-6 * by_pieces.total_kg);
            near(other.piece_kg, piece, 1e-9);
        }
        prop_assert!(by_pieces.pieces == pieces || by_pieces.pieces + 1 == pieces);
        prop_assert!(by_pieces.dough_kg <= most * (1.0 + 1e-6));
        prop_assert!(by_pieces.cooled_piece_kg < by_pieces.piece_kg);
    }

    #[test]
    fn a_full_mixer_is_one_dough(doughs in 1u32..40, most in 5.0..600.0f64) {
        let run = scaled(Amount::Mixer { doughs: f64::from(doughs) }, 0.5, most, 165.0);
        prop_assert_eq!(run.doughs, doughs);
        prop_assert!((run.dough_kg - most).abs() < 1e-9 * most);
    }
}
