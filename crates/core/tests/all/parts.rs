//! Formulas split over sponge, starter and the like, and several flours.

use crate::support::{formula, near};
use ironpeel_core::dough::{
    Formula, FormulaDraft, Ingredient, Library, PreparationKind, StarterConvention, StarterInput,
    StarterShare, compare,
};
use ironpeel_core::units::ValidationErrors;
use proptest::prelude::*;
use serde_json::{Value, json};

fn refused(draft: Value, field: &str, message: &str) {
    let draft: FormulaDraft = serde_json::from_value(draft).expect("the contract's shape");
    let ValidationErrors(faults) = Formula::check(&draft).expect_err("makes no dough");
    assert!(
        faults.iter().any(|fault| fault.field == field && fault.message.contains(message)),
        "{faults:?}"
    );
}

fn sponge_dough() -> Formula {
    formula(json!({
        "lines": [{"ingredient": "flour", "pct": 100}, {"ingredient": "fresh_yeast", "pct": 3},
            {"ingredient": "salt", "pct": 2}, {"ingredient": "sugar", "pct": 5}],
        "parts": [{"kind": "sponge", "flour_pct": 65, "water_pct": 38,
            "lines": [{"ingredient": "fresh_yeast", "pct": 2.5}]}]}))
}

fn island_rye() -> Formula {
    formula(json!({
        "lines": [{"ingredient": "flour", "pct": 100}, {"ingredient": "salt", "pct": 1.9}],
        "flours": [{"name": "Kesh Rye", "share_pct": 70}, {"name": "Tarn Strong", "share_pct": 30}],
        "parts": [
            {"kind": "starter", "name": "rye sour", "flour": "Kesh Rye", "flour_pct": 22, "water_pct": 22},
            {"kind": "scald", "flour": "Kesh Rye", "flour_pct": 10, "water_pct": 20, "temperature_c": 32}]}))
}

#[test]
fn each_row_adds_up_over_the_columns() {
    let formula = sponge_dough();
    let columns = formula.columns(61.0).expect("enough water");
    let sponge = &columns.parts[0];
    assert_eq!((sponge.kind, &*sponge.name), (Some(PreparationKind::Sponge), "sponge"));
    assert_eq!((sponge.flour_pct, sponge.water_pct), (65.0, 38.0));
    let last = &columns.final_dough;
    assert_eq!((last.flour_pct, last.water_pct), (35.0, 23.0));
    for ingredient in [
        Ingredient::Flour,
        Ingredient::Water,
        Ingredient::FreshYeast,
        Ingredient::Salt,
        Ingredient::Sugar,
    ] {
        let sum = sponge.pct_of(ingredient) + last.pct_of(ingredient);
        near(sum, columns.whole.pct_of(ingredient), 1e-9);
    }
    near(sponge.total_pct + last.total_pct, columns.whole.total_pct, 1e-9);
    near(columns.whole.total_pct, formula.total_pct(61.0), 1e-9);
    near(sponge.hydration_pct.expect("flour"), 100.0 * 38.0 / 65.0, 1e-9);
    assert!(sponge.lines.iter().all(|line| line.ingredient != Ingredient::Salt));
}

#[test]
fn each_flour_adds_up_over_the_columns() {
    let columns = island_rye().columns(80.0).expect("enough water");
    let rye = |column: &ironpeel_core::dough::DoughColumn| {
        let found = column.flours.iter().find(|flour| flour.name == "Kesh Rye");
        found.map_or(0.0, |flour| flour.share_pct)
    };
    near(columns.parts.iter().map(rye).sum::<f64>() + rye(&columns.final_dough), 70.0, 1e-9);
    near(rye(&columns.final_dough), 38.0, 1e-9);
    near(columns.final_dough.flour_pct, 68.0, 1e-9);
    let shared = formula(json!({
        "lines": [{"ingredient": "flour", "pct": 100}],
        "flours": [{"name": "A", "share_pct": 75}, {"name": "B", "share_pct": 25}],
        "parts": [{"kind": "autolyse", "flour_pct": 80, "water_pct": 60}]}));
    let autolyse = &shared.columns(65.0).expect("enough").parts[0];
    near(autolyse.flours[1].share_pct, 20.0, 1e-9);
}

#[test]
fn a_part_cannot_take_what_the_dough_has_not() {
    let flour = json!({"ingredient": "flour", "pct": 100});
    refused(
        json!({"lines": [flour], "parts": [{"kind": "sponge", "flour_pct": 60, "water_pct": 40,
            "lines": [{"ingredient": "instant_yeast", "pct": 1}]}]}),
        "parts[0].lines[0]",
        "raise it in the whole dough first",
    );
    refused(
        json!({"lines": [flour], "parts": [{"kind": "sponge", "flour_pct": 60},
            {"kind": "starter", "flour_pct": 50}]}),
        "parts",
        "110 % of the flour",
    );
    refused(
        json!({"lines": [flour], "parts": [{"kind": "starter", "flour": "Kesh Rye", "flour_pct": 20}]}),
        "parts[0].flour",
        "none of the formula's flours",
    );
    refused(
        json!({"lines": [flour], "flours": [{"name": "A", "share_pct": 90}, {"name": "B", "share_pct": 10}],
            "parts": [{"kind": "starter", "flour": "B", "flour_pct": 20}]}),
        "parts",
        "more B than the dough has",
    );
    refused(
        json!({"lines": [flour], "parts": [{"kind": "sponge", "flour_pct": 60,
            "lines": [{"ingredient": "flour", "pct": 60}]}]}),
        "parts[0].lines[0]",
        "a place of its own",
    );
    refused(
        json!({"lines": [flour], "parts": [{"kind": "sponge", "flour_pct": 130}]}),
        "parts[0].flour_pct",
        "from 0 to 100",
    );
}

#[test]
fn flours_must_be_named_once_and_add_up() {
    let lines = json!([{"ingredient": "flour", "pct": 100}]);
    let with = |flours: Value| json!({"lines": lines, "flours": flours});
    refused(
        with(json!([{"name": "A", "share_pct": 60}, {"name": "B", "share_pct": 30}])),
        "flours",
        "90 %",
    );
    refused(
        with(json!([{"name": "A", "share_pct": 50}, {"name": "A", "share_pct": 50}])),
        "flours[1].name",
        "twice",
    );
    refused(with(json!([{"name": " ", "share_pct": 100}])), "flours[0].name", "which flour");
    let many: Vec<Value> =
        (0..61).map(|at| json!({"name": at.to_string(), "share_pct": 1})).collect();
    refused(with(json!(many)), "flours", "up to 60");
}

#[test]
fn a_dough_drier_than_its_parts_is_refused_with_both_figures() {
    let error = island_rye().columns(30.0).expect_err("too dry");
    let message = error.to_string();
    assert!(message.contains("42.0 %") && message.contains("30.0 %"), "{message}");
}

#[test]
fn a_starter_counts_into_flour_and_water() {
    let starter = |input: Value| -> Result<_, ValidationErrors> {
        serde_json::from_value::<StarterInput>(input).expect("the contract's shape").compute()
    };
    let found = starter(
        json!({"flour_g": 850, "water_g": 600, "starter_g": 300, "starter_hydration_pct": 100}),
    );
    let found = found.expect("in range");
    assert_eq!((found.total_flour_g, found.total_water_g), (1000.0, 750.0));
    assert_eq!((found.hydration_pct, found.prefermented_flour_pct), (75.0, 15.0));
    near(found.starter_on_final_flour_pct, 35.294, 0.001);
    near(found.starter_of_dough_pct, 100.0 * 300.0 / 1750.0, 1e-9);
    let stiff = starter(
        json!({"flour_g": 1000, "water_g": 600, "starter_g": 150, "starter_hydration_pct": 50}),
    );
    near(stiff.expect("in range").prefermented_flour_pct, 100.0 / 11.0, 1e-9);
    let none = starter(
        json!({"flour_g": 1000, "water_g": 600, "starter_g": 0, "starter_hydration_pct": 100}),
    );
    assert_eq!(none.expect("in range").prefermented_flour_pct, 0.0);
    for (input, field) in [
        (
            json!({"flour_g": 0, "water_g": 1, "starter_g": 1, "starter_hydration_pct": 100}),
            "flour_g",
        ),
        (
            json!({"flour_g": 1, "water_g": -1, "starter_g": 1, "starter_hydration_pct": 100}),
            "water_g",
        ),
        (
            json!({"flour_g": 1, "water_g": 1, "starter_g": "a cup", "starter_hydration_pct": 100}),
            "starter_g",
        ),
        (
            json!({"flour_g": 1, "water_g": 1, "starter_g": 1, "starter_hydration_pct": 501}),
            "starter_hydration_pct",
        ),
        (json!({"water_g": 1, "starter_g": 1, "starter_hydration_pct": 100}), "flour_g"),
    ] {
        assert_eq!(starter(input).expect_err("refused").0[0].field, field);
    }
}

#[test]
fn no_dough_is_all_starter() {
    let of = |convention, pct| {
        StarterShare { convention, pct, hydration_pct: 100.0, dough_pct: 170.0 }.shares()
    };
    assert!(of(StarterConvention::PrefermentedFlour, 100.0).is_none());
    assert!(of(StarterConvention::OfDough, 130.0).is_none());
    assert!(of(StarterConvention::OnFinalFlour, 400.0).is_some());
}

#[test]
fn two_formulas_are_compared_with_their_differences_first() {
    let library = Library::default();
    let was = sponge_dough();
    let is = formula(json!({
        "lines": [{"ingredient": "flour", "pct": 100}, {"ingredient": "fresh_yeast", "pct": 3},
            {"ingredient": "salt", "pct": 1.8}, {"ingredient": "fat", "pct": 3}],
        "flours": [{"name": "Tarn Strong", "share_pct": 100}],
        "parts": [{"kind": "sponge", "flour_pct": 60, "water_pct": 38,
            "lines": [{"ingredient": "fresh_yeast", "pct": 2.5}]}]}));
    let rows = compare(&was, &is, &library);
    let changed: Vec<_> =
        rows.iter().take_while(|row| row.delta.is_some()).map(|row| &*row.label).collect();
    assert_eq!(changed.len(), 5, "{changed:?}");
    for label in ["fat", "sugar", "Tarn Strong", "salt", "flour in sponge"] {
        assert!(changed.contains(&label), "{label}: {changed:?}");
    }
    assert!(rows.iter().skip(changed.len()).all(|row| row.delta.is_none()));
    let sugar = rows.iter().find(|row| row.label == "sugar").expect("a row");
    assert_eq!((sugar.was, sugar.is, sugar.delta), (Some(5.0), None, Some(-5.0)));
    assert!(compare(&was, &was, &library).iter().all(|row| row.delta.is_none()));
}

proptest! {
    #[test]
    fn conventions_of_a_starter_agree(
        pct in 1.0..60.0f64, hydration in 40.0..200.0f64, dough in 150.0..220.0f64,
    ) {
        let all = StarterShare { convention: StarterConvention::PrefermentedFlour, pct, hydration_pct: hydration, dough_pct: dough }.shares().expect("a dough");
        for (convention, stated) in [
            (StarterConvention::OnFinalFlour, all.on_final_flour_pct),
            (StarterConvention::OfDough, all.of_dough_pct),
        ] {
            let back = StarterShare { convention, pct: stated, hydration_pct: hydration, dough_pct: dough }.shares().expect("a dough");
            prop_assert!((back.prefermented_flour_pct - pct).abs() < 1e-9, "{convention:?}");
        }
        // Weighed out and counted back by the calculator, it is the same dough.
        let flour = 1000.0 * (100.0 - pct) / 100.0;
        let starter = 10.0 * all.on_all_flour_pct;
        let found = StarterInput {
            flour_g: flour.into(), water_g: 500.0.into(), starter_g: starter.into(),
            starter_hydration_pct: hydration.into(),
        }.compute().expect("in range");
        prop_assert!((found.prefermented_flour_pct - pct).abs() < 1e-9);
        prop_assert!((found.starter_on_final_flour_pct - all.on_final_flour_pct).abs() < 1e-9);
    }

    #[test]
    fn columns_sum_whatever_the_split(
        sponge in 0.0..70.0f64, starter in 0.0..30.0f64, yeast in 0.1..4.0f64, share in 0.0..1.0f64,
        water in 30.0..90.0f64,
    ) {
        let formula = formula(json!({
            "lines": [{"ingredient": "flour", "pct": 100}, {"ingredient": "instant_yeast", "pct": yeast},
                {"ingredient": "salt", "pct": 2}],
            "parts": [
                {"kind": "sponge", "flour_pct": sponge, "water_pct": sponge * 0.6,
                    "lines": [{"ingredient": "instant_yeast", "pct": yeast * share}]},
                {"kind": "starter", "flour_pct": starter, "water_pct": starter}]}));
        let round_to_resolution = water + formula.preferment_water_pct();
        let columns = formula.columns(round_to_resolution).expect("enough");
        for ingredient in [Ingredient::Flour, Ingredient::Water, Ingredient::InstantYeast, Ingredient::Salt] {
            let sum: f64 = columns.parts.iter().map(|part| part.pct_of(ingredient)).sum::<f64>()
                + columns.final_dough.pct_of(ingredient);
            prop_assert!((sum - columns.whole.pct_of(ingredient)).abs() < 1e-9);
        }
        let totals: f64 = columns.parts.iter().map(|part| part.total_pct).sum();
        prop_assert!((totals + columns.final_dough.total_pct - columns.whole.total_pct).abs() < 1e-9);
    }
}
