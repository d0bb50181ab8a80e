//! A product's standard, the sheet of a judge, and several judges together.

use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::judging::{
    Characteristic, ProductStandard, ScoreInput, ScoreMark, ScoredMark, Sheet, Sign, StandardInput,
    panel,
};
use ironpeel_core::units::ValidationErrors;
use proptest::prelude::*;
use serde_json::{Value, json};
use uuid::Uuid;

fn standard(input: Value) -> Result<ProductStandard, ValidationErrors> {
    let input: StandardInput = serde_json::from_value(input).expect("the contract's shape");
    input.check(&Coefficients::default())
}

fn score(marks: &Value, standard: &ProductStandard) -> Result<Vec<ScoredMark>, ValidationErrors> {
    let input: ScoreInput =
        serde_json::from_value(json!({"marks": marks})).expect("the contract's shape");
    input.check(standard, &Coefficients::default())
}

fn message<T: std::fmt::Debug>(found: Result<T, ValidationErrors>) -> (String, String) {
    let first = found.expect_err("it is refused").0.remove(0);
    (first.field, first.message)
}

fn sheet(judge: &str, loaf: u128, sample: u128, marks: &[(Characteristic, f64)]) -> Sheet {
    Sheet {
        judge: judge.into(),
        loaf: (Uuid::from_u128(loaf), 1),
        sample: Uuid::from_u128(sample),
        marks: marks
            .iter()
            .map(|(of, mark)| ScoreMark { of: *of, mark: *mark, sign: None })
            .collect(),
    }
}

#[test]
fn a_sheet_that_cannot_be_is_told_at_its_place() {
    let plain = ProductStandard::default();
    for (marks, field, words) in [
        (json!([{"of": "flavour", "mark": 6}]), "marks[0].mark", "from 1 to 5"),
        (json!([{"of": "flavour", "mark": 3.2}]), "marks[0].mark", "halves"),
        (json!([{"of": "volume", "mark": 3}]), "marks[0].sign", "too little or too much"),
        (json!([{"of": "flavour", "mark": 3, "sign": "too_much"}]), "marks[0].sign", "one side"),
        (
            json!([{"of": "texture", "mark": 3}, {"of": "texture", "mark": 4}]),
            "marks[1].of",
            "twice",
        ),
        (json!([{"of": "volume", "measured": 3.9}]), "marks[0].measured", "states no target"),
        (json!([{"of": "flavour", "measured": 3.9}]), "marks[0].measured", "it is marked"),
        (json!([]), "marks", "nothing is marked"),
    ] {
        let (at, said) = message(score(&marks, &plain));
        assert_eq!(at, field, "{marks}");
        assert!(said.contains(words), "{said}");
    }
}

#[test]
fn a_measurement_is_marked_by_the_products_own_target() {
    let own = standard(json!({"targets": {"volume": {"target": 4.0}, "openness": {"target": 40}}}))
        .expect("it stands");
    let marks = score(
        &json!([
            {"of": "volume", "measured": 3.76},
            {"of": "openness", "measured": 52},
            {"of": "crust_colour", "measured": 8, "sign": "too_little"},
            {"of": "evenness", "measured": 13},
        ]),
        &own,
    )
    .expect("they are marks");
    let found: Vec<_> = marks.iter().map(|one| (one.mark.mark, one.mark.sign)).collect();
    assert!((found[0].0 - 4.04).abs() < 1e-9 && found[0].1 == Some(Sign::TooLittle));
    // More cells are a closer crumb.
    assert!((found[1].0 - 3.0).abs() < 1e-9 && found[1].1 == Some(Sign::TooLittle));
    // A distance of colours does not say which way.
    assert_eq!(found[2], (3.0, Some(Sign::TooLittle)));
    assert_eq!(found[3], (3.0, None));
}

#[test]
fn weights_of_a_product_are_all_twelve_or_none() {
    let (at, said) = message(standard(json!({"weights": {"volume": 100}})));
    assert!(at == "weights" && said.contains("all twelve"), "{said}");
    let all: Value = Characteristic::ALL
        .map(|of| (of.key().to_owned(), json!(if of == Characteristic::Flavour { 45 } else { 5 })))
        .into_iter()
        .collect();
    let found = standard(json!({"weights": all})).expect("they add up");
    assert_eq!(found.weight(Characteristic::Flavour, &Coefficients::default()), 45.0);
    let (at, _) = message(standard(json!({"targets": {"flavour": {"target": 3}}})));
    assert_eq!(at, "targets.flavour.target");
}

#[test]
fn judges_are_levelled_by_the_loaves_both_marked() {
    let of = Characteristic::Flavour;
    // Ten loaves, one judge always a mark above the other.
    let earlier: Vec<Sheet> = (0..10)
        .flat_map(|loaf| {
            [sheet("high", loaf, loaf, &[(of, 4.0)]), sheet("low", loaf, loaf, &[(of, 3.0)])]
        })
        .collect();
    let now = [sheet("high", 50, 50, &[(of, 4.0)]), sheet("low", 50, 50, &[(of, 3.0)])];
    let house = Coefficients::default();
    let found = panel(&now, &earlier, &ProductStandard::default(), &house).expect("two judged");
    let flavour = &found.traits[0];
    let level: Vec<f64> = found.judges.iter().map(|judge| judge.level).collect();
    assert!((level[0] - 0.25).abs() < 1e-9 && (level[1] + 0.25).abs() < 1e-9, "{level:?}");
    assert!((flavour.mark - 3.5).abs() < 1e-9 && flavour.agree);
    // A weight of 15 is too little for a total.
    assert_eq!((found.total.total, found.total_sd), (None, None));
}

#[test]
fn a_loaf_met_again_tells_how_well_a_judge_repeats() {
    let of = Characteristic::Texture;
    let differing = [0.5, 0.5, 0.5, 0.5, 0.5, 0.0, 0.0, 0.0];
    let earlier: Vec<Sheet> = (0_u8..)
        .zip(differing)
        .flat_map(|(loaf, d)| {
            let loaf = u128::from(loaf);
            [
                sheet("one", loaf, 100 + loaf, &[(of, 4.0)]),
                sheet("one", loaf, 200 + loaf, &[(of, 4.0 - d)]),
            ]
        })
        .collect();
    let now = [sheet("one", 50, 50, &[(of, 4.0)])];
    let house = Coefficients::default();
    let found = panel(&now, &earlier, &ProductStandard::default(), &house).expect("one judged");
    // √((6·0.25 + 1.25/2)/14) = 0.390.
    assert!((found.judges[0].sd - 0.390).abs() < 0.001, "{}", found.judges[0].sd);
}

#[test]
fn marks_on_two_sides_of_the_standard_disagree() {
    let side = |judge: &str, sign| {
        let mark = ScoreMark { of: Characteristic::CrustColour, mark: 4.0, sign: Some(sign) };
        Sheet { marks: vec![mark], ..sheet(judge, 1, 1, &[]) }
    };
    let house = Coefficients::default();
    let both = |signs: [Sign; 2]| {
        let sheets = [side("one", signs[0]), side("two", signs[1])];
        panel(&sheets, &[], &ProductStandard::default(), &house).expect("two judged")
    };
    let alike = both([Sign::TooMuch, Sign::TooMuch]);
    assert!(alike.traits[0].agree && alike.traits[0].sign == Some(Sign::TooMuch));
    let apart = both([Sign::TooMuch, Sign::TooLittle]);
    assert!(!apart.traits[0].agree && apart.traits[0].sign.is_none());
    assert!(panel(&[], &[], &ProductStandard::default(), &house).is_none());
}

proptest! {
    #[test]
    fn together_they_lie_between_their_marks(marks in prop::collection::vec(2u8..=10, 1..5)) {
        let of = Characteristic::Flavour;
        let marks: Vec<f64> = marks.into_iter().map(|mark| f64::from(mark) / 2.0).collect();
        let sheets: Vec<Sheet> =
            (0..).zip(&marks).map(|(at, mark)| sheet(&format!("{at}"), 1, 1, &[(of, *mark)])).collect();
        let house = Coefficients::default();
        let found = panel(&sheets, &[], &ProductStandard::default(), &house).expect("judged");
        let least = marks.iter().copied().fold(f64::MAX, f64::min);
        let most = marks.iter().copied().fold(f64::MIN, f64::max);
        prop_assert!(found.traits[0].mark >= least - 1e-9 && found.traits[0].mark <= most + 1e-9);
    }
}
