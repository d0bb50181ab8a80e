//! Limits, fringes and verdicts.

use ironpeel_core::coefficient::{Coefficients, Override};
use ironpeel_core::flour::{
    Assessment, BasisConversion, Limit, LimitFault, Moisture, MoistureBasis, Property, Reading,
    Readings, Verdict,
};
use ironpeel_core::units::Estimate;

/// By the house's coefficients.
fn assess(limits: &[Limit], readings: &Readings) -> Assessment {
    ironpeel_core::flour::assess(limits, readings, &Coefficients::default())
}

fn limit(property: Property, min: Option<f64>, target: Option<f64>, max: Option<f64>) -> Limit {
    let basis =
        (property.basis_conversion() != BasisConversion::None).then_some(MoistureBasis::Fourteen);
    Limit { property, basis, min, target, max, must: true, method: None }
}

fn reading(property: Property, value: f64, basis: Option<MoistureBasis>) -> Reading {
    Reading { property, value, basis, method: None, censored: None }
}

#[test]
fn a_limit_needs_something_to_hold_and_values_that_rise() {
    let whole = limit(Property::W, Some(270.0), Some(310.0), Some(360.0));
    assert_eq!(whole.check(), Ok(()));
    assert_eq!(limit(Property::W, None, None, None).check(), Err(LimitFault::Empty("W")));
    for (min, target, max) in [
        (Some(360.0), Some(310.0), None),
        (Some(270.0), None, Some(200.0)),
        (None, Some(f64::INFINITY), None),
    ] {
        let fallen = limit(Property::W, min, target, max);
        assert_eq!(fallen.check(), Err(LimitFault::NotRising("W")));
    }
    let floating = Limit { basis: None, ..limit(Property::Ash, None, None, Some(0.64)) };
    assert_eq!(floating.check(), Err(LimitFault::NoBasis("ash")));
}

#[test]
fn the_fringe_lies_on_both_sides_of_a_limit() {
    let protein = limit(Property::Protein, Some(12.4), None, Some(13.6));
    for (value, verdict) in [
        (12.19, Verdict::Out),
        (12.2, Verdict::Borderline),
        (12.4, Verdict::Borderline),
        (12.6, Verdict::Borderline),
        (12.61, Verdict::In),
        (13.39, Verdict::In),
        (13.4, Verdict::Borderline),
        (13.8, Verdict::Borderline),
        (13.81, Verdict::Out),
    ] {
        assert_eq!(protein.judge(value, &Coefficients::default()), verdict, "{value}");
    }
}

#[test]
fn a_fringe_in_percent_is_of_the_limit() {
    let falling = limit(Property::FallingNumber, Some(280.0), None, Some(400.0));
    for (value, verdict) in [
        (257.0, Verdict::Out),
        (257.7, Verdict::Borderline),
        (302.3, Verdict::Borderline),
        (303.0, Verdict::In),
        (431.9, Verdict::Borderline),
        (433.0, Verdict::Out),
    ] {
        assert_eq!(falling.judge(value, &Coefficients::default()), verdict, "{value}");
    }
}

#[test]
fn a_plants_own_repeatability_makes_its_own_fringe() {
    let value = Estimate::new(0.05, 0.04, 0.06);
    let own = Override {
        key: "repeatability_ash".into(),
        off: false,
        value,
        reason: "the ring test of this year".into(),
    };
    let ash = limit(Property::Ash, None, None, Some(0.64));
    let reading = 0.68;
    assert_eq!(ash.judge(reading, &Coefficients::default()), Verdict::Out);
    assert_eq!(ash.judge(reading, &Coefficients(vec![own])), Verdict::Borderline);
}

#[test]
fn without_a_repeatability_on_record_the_step_it_is_stated_to_is_the_fringe() {
    let stability = limit(Property::Stability, Some(9.0), None, None);
    for (value, verdict) in [
        (8.8, Verdict::Out),
        (8.9, Verdict::Borderline),
        (9.0, Verdict::Borderline),
        (9.2, Verdict::In),
    ] {
        assert_eq!(stability.judge(value, &Coefficients::default()), verdict, "{value}");
    }
    let is = Readings(vec![reading(Property::Stability, 8.9, None)]);
    let assessment = assess(&[stability], &is);
    let message = "0.1 below the minimum of 9: within the step it is stated to (0.1)";
    assert_eq!(assessment.checks[0].message, message);
}

#[test]
fn a_target_alone_puts_nothing_out() {
    let only = limit(Property::W, None, Some(310.0), None);
    assert_eq!(only.judge(90.0, &Coefficients::default()), Verdict::In);
    let assessment = assess(&[only], &Readings(vec![reading(Property::W, 90.0, None)]));
    assert_eq!(assessment.checks[0].message, "no limit, only a target");
}

#[test]
fn a_reading_is_moved_to_the_basis_of_its_limit() {
    let readings = Readings(vec![
        reading(Property::Moisture, 13.2, None),
        reading(Property::Protein, 15.0, Some(MoistureBasis::DryMatter)),
        reading(Property::Absorption, 61.0, Some(MoistureBasis::AsIs)),
    ]);
    let protein = limit(Property::Protein, Some(12.4), None, None);
    let absorption = limit(Property::Absorption, None, None, Some(61.0));
    let assessment = assess(&[protein, absorption], &readings);
    let values: Vec<f64> = assessment.checks.iter().filter_map(|rule| rule.value).collect();
    assert!((values[0] - 12.9).abs() < 1e-9);
    assert!((values[1] - (161.0 * 86.0 / 86.8 - 100.0)).abs() < 1e-9);
}

#[test]
fn words_name_the_nearest_limit_and_the_distance() {
    for (property, min, max, value, message) in [
        (Property::DamagedStarch, Some(6.5), Some(9.5), 10.9, "1.4 above the maximum of 9.5"),
        (Property::W, Some(270.0), None, 240.0, "30 below the minimum of 270"),
        (
            Property::Moisture,
            None,
            Some(14.8),
            14.7,
            "0.1 below the maximum of 14.8: within what the method repeats to (0.2)",
        ),
        (Property::W, Some(270.0), Some(360.0), 310.0, "inside its limits"),
    ] {
        let basis = (property == Property::DamagedStarch).then_some(MoistureBasis::Fourteen);
        let limit = Limit { property, basis, min, target: None, max, must: true, method: None };
        let assessment = assess(&[limit], &Readings(vec![reading(property, value, basis)]));
        assert_eq!(assessment.checks[0].message, message);
    }
}

#[test]
fn verdicts_worsen_in_order() {
    use Verdict::{Borderline, In, Missing, Out};
    let mut verdicts = [Out, In, Missing, Borderline];
    verdicts.sort();
    assert_eq!(verdicts, [In, Borderline, Missing, Out]);
    assert_eq!(assess(&[], &Readings::default()).verdict, In);
}

#[test]
fn every_property_is_found_by_its_words_and_keeps_its_range() {
    for property in Property::ALL {
        assert_eq!(Property::named(property.label()), Some(property));
        assert_eq!(Property::named(property.key()), Some(property));
        assert_eq!(Property::named(&property.label().to_uppercase()), Some(property));
        let (min, max) = property.range();
        assert!(min < max, "{property:?}");
    }
}

#[test]
fn a_reading_on_each_basis() {
    let ash = reading(Property::Ash, 0.61, Some(MoistureBasis::DryMatter));
    let on = ash.on_bases(Moisture::new(14.1).ok());
    assert!((on.as_is.expect("moisture is known") - 0.61 * 0.859).abs() < 1e-9);
    assert!((on.fourteen.expect("needs no moisture") - 0.61 * 0.86).abs() < 1e-9);
    assert_eq!(on.dry_matter, Some(0.61));
    let blind = ash.on_bases(None);
    assert_eq!((blind.as_is, blind.dry_matter), (None, Some(0.61)));
    let absorption = reading(Property::Absorption, 62.0, Some(MoistureBasis::Fourteen));
    assert_eq!(absorption.on_bases(Moisture::new(14.1).ok()).dry_matter, None);
    let w = reading(Property::W, 310.0, None).on_bases(None);
    assert_eq!((w.as_is, w.fourteen, w.dry_matter), (None, None, None));
}
