//! Revised specifications, certificates against curves, and what a chain rests on.

use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::flour::{
    Assessment, CurveCheck, FromCurve, Limit, MoistureBasis, Property, Reading, Readings, Verdict,
    check_against_curve, revised, targets,
};
use proptest::prelude::*;

/// By the house's coefficients.
fn assess(limits: &[Limit], readings: &Readings) -> Assessment {
    ironpeel_core::flour::assess(limits, readings, &Coefficients::default())
}

/// By the house's coefficients.
fn nonconformities(limits: &[Limit], readings: &Readings) -> Assessment {
    ironpeel_core::flour::nonconformities(limits, readings, &Coefficients::default())
}

fn limit(property: Property, min: Option<f64>, target: Option<f64>, max: Option<f64>) -> Limit {
    let basis = (property == Property::Protein).then_some(MoistureBasis::Fourteen);
    Limit { property, basis, min, target, max, must: true, method: None }
}

fn reading(property: Property, value: f64) -> Reading {
    let basis = matches!(property, Property::Protein | Property::Absorption)
        .then_some(MoistureBasis::Fourteen);
    Reading { property, value, basis, method: None, censored: None }
}

#[test]
fn every_way_a_limit_can_be_revised_has_its_word() {
    let w = |min, max| limit(Property::W, min, None, max);
    let base = w(Some(260.0), Some(360.0));
    for (after, message) in [
        (w(Some(280.0), Some(360.0)), "narrower"),
        (w(Some(240.0), Some(380.0)), "wider"),
        (w(Some(240.0), None), "wider"),
        (w(Some(280.0), Some(380.0)), "moved"),
        (Limit { must: false, ..base.clone() }, "a must became a should"),
        (Limit { target: Some(300.0), ..base.clone() }, "another target"),
        (Limit { method: Some("ISO 27971".into()), ..base.clone() }, "another method"),
    ] {
        let found = revised(std::slice::from_ref(&base), std::slice::from_ref(&after));
        assert_eq!((found.len(), found[0].message), (1, message), "{after:?}");
    }
    assert_eq!(revised(&[], std::slice::from_ref(&base))[0].message, "added");
    assert_eq!(revised(std::slice::from_ref(&base), &[])[0].message, "removed");
    assert_eq!(revised(std::slice::from_ref(&base), std::slice::from_ref(&base)), []);
    let protein = limit(Property::Protein, Some(12.0), None, None);
    let dry = Limit { basis: Some(MoistureBasis::DryMatter), ..protein.clone() };
    assert_eq!(revised(&[protein], &[dry])[0].message, "on another basis");
}

#[test]
fn a_certificate_agrees_with_its_curve_within_twice_the_repeatability() {
    let stated =
        Readings(vec![reading(Property::Absorption, 62.0), reading(Property::Stability, 11.0)]);
    let check = |property, from_curve| -> CurveCheck {
        check_against_curve(
            &stated,
            &[FromCurve { property, value: from_curve, unsure: 0.0 }],
            &Coefficients::default(),
        )
        .remove(0)
    };
    assert!(check(Property::Absorption, 63.1).agrees);
    assert!(!check(Property::Absorption, 63.3).agrees);
    assert!(check(Property::Stability, 12.0).agrees, "a tenth where none is on record");
    assert!(!check(Property::Stability, 13.0).agrees);
    let broad = FromCurve { property: Property::Stability, value: 13.0, unsure: 2.5 };
    assert!(
        check_against_curve(&stated, &[broad], &Coefficients::default())[0].agrees,
        "the peak is broader than a tenth"
    );
    let unstated = check(Property::W, 300.0);
    assert_eq!((unstated.stated, unstated.agrees), (None, true));
}

#[test]
fn a_method_that_was_not_asked_for_is_seen() {
    let asked = Limit {
        method: Some("AACC 76-31".into()),
        ..limit(Property::DamagedStarch, None, None, Some(9.5))
    };
    let by = |method: Option<&str>| {
        let measured =
            Reading { method: method.map(Into::into), ..reading(Property::DamagedStarch, 8.0) };
        assess(std::slice::from_ref(&asked), &Readings(vec![measured])).checks[0].other_method
    };
    assert!(!by(Some("aacc 76 31")) && !by(None) && by(Some("AACC 76-33")));
}

#[test]
fn age_is_judged_as_a_reading_is() {
    let fresh = limit(Property::Age, Some(2.0), None, Some(30.0));
    let verdict = |days| {
        let lot = Readings::default().with_age(days);
        assess(std::slice::from_ref(&fresh), &lot).verdict
    };
    assert_eq!(verdict(Some(7.0)), Verdict::In);
    assert_eq!(verdict(Some(1.0)), Verdict::Out);
    assert_eq!(verdict(Some(31.0)), Verdict::Out);
    assert_eq!(verdict(None), Verdict::Missing);
}

proptest! {
    #[test]
    fn concerns_are_what_is_not_in_and_judge_as_the_whole(
        w in 150.0..450.0f64, protein in 9.0..15.0f64, moisture in 12.0..16.0f64,
    ) {
        let limits = [
            limit(Property::Moisture, None, None, Some(14.8)),
            limit(Property::Protein, Some(12.4), None, Some(13.6)),
            limit(Property::W, Some(270.0), None, Some(360.0)),
            limit(Property::FallingNumber, Some(280.0), None, None),
        ];
        let lot = Readings(vec![
            reading(Property::Moisture, moisture), reading(Property::Protein, protein), reading(Property::W, w),
        ]);
        let (whole, part) = (assess(&limits, &lot), nonconformities(&limits, &lot));
        prop_assert_eq!(whole.verdict, part.verdict);
        let not_in: Vec<_> = whole.checks.into_iter().filter(|rule| rule.verdict != Verdict::In).collect();
        prop_assert_eq!(not_in, part.checks);
    }

    #[test]
    fn what_is_aimed_at_is_in(
        min in 100.0..200.0f64, span in 80.0..200.0f64,
    ) {
        // Far enough from both limits that no repeatability reaches them.
        let aim = limit(Property::W, Some(min), Some(min + span / 2.0), Some(min + span));
        let lot = targets(std::slice::from_ref(&aim));
        prop_assert_eq!(assess(std::slice::from_ref(&aim), &lot).verdict, Verdict::In);
    }
}
