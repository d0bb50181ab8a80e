//! Edits of a formula that move several of its numbers.

use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::dough::{Formula, FormulaDraft, FormulaEdit, PreparationKind};
use ironpeel_core::units::RawNumber;
use proptest::prelude::*;
use serde_json::{Value, json};

fn draft(value: Value) -> FormulaDraft {
    serde_json::from_value(value).expect("the shape of the contract")
}

fn made(formula: &mut FormulaDraft, edit: Value) -> Result<(), Vec<String>> {
    let edit: FormulaEdit = serde_json::from_value(edit).expect("an edit");
    formula
        .edit(&edit, "Tarn Plain", &Coefficients::default())
        .map_err(|faults| faults.0.into_iter().map(|fault| fault.field).collect())
}

fn shares(formula: &FormulaDraft) -> Vec<(String, f64)> {
    let number = |given: &RawNumber| given.to_string().parse().expect("a number");
    formula.flours.iter().map(|one| (one.name.clone(), number(&one.share_pct))).collect()
}

fn two(name: &str, share: f64) -> (String, f64) {
    (name.into(), share)
}

#[test]
fn another_flour_takes_its_share_from_the_main_one_and_gives_it_back() {
    let mut formula = draft(json!({"lines": [{"ingredient": "flour", "pct": 100}]}));
    made(&mut formula, json!({"edit": "add_flour", "name": "Kesh Rye"})).expect("new");
    assert_eq!(shares(&formula), [two("Tarn Plain", 90.0), two("Kesh Rye", 10.0)]);
    assert_eq!(
        made(&mut formula, json!({"edit": "add_flour", "name": "Kesh Rye"})),
        Err(vec!["name".into()])
    );
    made(&mut formula, json!({"edit": "add_flour", "name": "Rigg Spelt"})).expect("new");
    made(&mut formula, json!({"edit": "flour_share", "at": 1, "share_pct": 30})).expect("a share");
    assert_eq!(
        shares(&formula),
        [two("Tarn Plain", 60.0), two("Kesh Rye", 30.0), two("Rigg Spelt", 10.0)]
    );
    made(&mut formula, json!({"edit": "flour_share", "at": 0, "share_pct": 50})).expect("a share");
    assert_eq!(shares(&formula)[1], two("Kesh Rye", 40.0), "the next takes up the rest");
    formula.parts.push(
        serde_json::from_value(json!({"kind": "soaker", "flour": "Kesh Rye"})).expect("a part"),
    );
    made(&mut formula, json!({"edit": "remove_flour", "at": 1})).expect("one of them");
    assert_eq!(shares(&formula), [two("Tarn Plain", 90.0), two("Rigg Spelt", 10.0)]);
    assert_eq!(formula.parts[0].flour, None, "made of the main flour then");
    made(&mut formula, json!({"edit": "remove_flour", "at": 1})).expect("the last of them");
    assert!(formula.flours.is_empty(), "the product's own is all of it");
}

#[test]
fn an_edit_of_what_is_not_there_is_refused() {
    let mut formula = draft(json!({}));
    for (edit, field) in [
        (json!({"edit": "remove_flour", "at": 0}), "at"),
        (json!({"edit": "flour_share", "at": 3, "share_pct": 5}), "at"),
        (json!({"edit": "flour_share", "at": 0, "share_pct": 130}), "share_pct"),
        (json!({"edit": "yeast_dose", "from_pct": 0, "to_pct": 1}), "from_pct"),
        (json!({"edit": "yeast_dose", "from_pct": 1}), "to_pct"),
    ] {
        let before = formula.clone();
        assert_eq!(made(&mut formula, edit.clone()), Err(vec![field.into()]), "{edit}");
        assert_eq!(formula, before, "{edit} leaves it as it was");
    }
}

#[test]
fn a_preparation_is_begun_as_is_usual_of_what_flour_is_left() {
    for kind in PreparationKind::ALL {
        let mut formula = draft(json!({"lines": [{"ingredient": "flour", "pct": 100},
            {"ingredient": "instant_yeast", "pct": 1}]}));
        made(&mut formula, json!({"edit": "add_preparation", "kind": kind})).expect("a kind");
        let checked = Formula::check(&formula).expect("can be made");
        assert_eq!(checked.parts()[0].kind, kind);
        made(&mut formula, json!({"edit": "add_preparation", "kind": kind})).expect("again");
        assert_eq!(formula.parts[1].name, format!("{} 2", kind.key()));
        let flour: f64 = Formula::check(&formula)
            .expect("still")
            .parts()
            .iter()
            .map(|part| part.flour_pct)
            .sum();
        assert!(flour <= 100.0, "{kind:?}: {flour}");
    }
}

#[test]
fn yeast_is_scaled_wherever_it_stands() {
    let mut formula = draft(json!({
        "lines": [{"ingredient": "flour", "pct": 100}, {"ingredient": "fresh_yeast", "pct": 3},
            {"ingredient": "salt", "pct": 2}],
        "parts": [{"kind": "sponge", "flour_pct": 60, "water_pct": 36,
            "lines": [{"ingredient": "fresh_yeast", "pct": 1}]}]}));
    made(&mut formula, json!({"edit": "yeast_dose", "from_pct": 1.2, "to_pct": 0.6}))
        .expect("half of it");
    assert_eq!(formula.lines[1].pct, 1.5.into());
    assert_eq!(formula.lines[2].pct, 2.0.into(), "salt stays");
    assert_eq!(formula.parts[0].lines[0].pct, 0.5.into());
}

proptest! {
    #[test]
    fn flours_always_add_up(shares_set in prop::collection::vec((0usize..3, 0.0..100.0f64), 1..12)) {
        let mut formula = draft(json!({}));
        for name in ["Kesh Rye", "Rigg Spelt"] {
            made(&mut formula, json!({"edit": "add_flour", "name": name})).expect("new");
        }
        for (at, share_pct) in shares_set {
            let edit = json!({"edit": "flour_share", "at": at, "share_pct": share_pct});
            made(&mut formula, edit).expect("in range");
            let sum: f64 = shares(&formula).iter().map(|one| one.1).sum();
            prop_assert!((sum - 100.0).abs() < 1e-3, "{sum}");
        }
    }
}
