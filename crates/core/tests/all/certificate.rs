//! Certificates as they arrive, and what is said of the rows that cannot be used.

use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::flour::{
    Assessment, CertificateColumn, Limit, MoistureBasis, Property, Readings, Row, Verdict,
    read_rows,
};
use proptest::prelude::*;

/// By the house's coefficients.
fn assess(limits: &[Limit], readings: &Readings) -> Assessment {
    ironpeel_core::flour::assess(limits, readings, &Coefficients::default())
}

fn row(text: &str) -> Row {
    let mut cells = text.split(';').map(str::to_owned);
    let mut next = || cells.next().unwrap_or_default();
    Row { property: next(), value: next(), unit: next(), basis: next(), method: next() }
}

#[test]
fn each_bad_row_says_what_would_be_right_and_spoils_no_other() {
    for (text, column, message) in [
        ("loaf joy;3;%;as is", CertificateColumn::Property, "one of moisture, protein, ash"),
        (";3;%;as is", CertificateColumn::Property, "the property is missing"),
        ("protein;13,0;;14 %", CertificateColumn::Unit, "the unit is missing; protein is in %"),
        ("W;298;cups;", CertificateColumn::Unit, "write it in 10-4 J"),
        ("protein;thirteen;%;14 %", CertificateColumn::Value, "“thirteen” is not a number"),
        (
            "protein;130;%;14 %",
            CertificateColumn::Value,
            "protein of 130 cannot be; it is from 0 to 40 %",
        ),
        ("protein;13,0;%;", CertificateColumn::Basis, "needs its basis: as is, 14 % or dry matter"),
        ("protein;13,0;%;wet", CertificateColumn::Basis, "“wet” is not a basis"),
        ("absorption;62;%;dry matter", CertificateColumn::Basis, "never on dry matter"),
        ("moisture;14;%;dry matter", CertificateColumn::Basis, "always as is"),
    ] {
        let read = read_rows(&[row("ash;0,61;%;dry matter;ISO 2171"), row(text)], None);
        assert!(read[0].is_ok());
        let fault = read[1].as_ref().expect_err(text);
        assert_eq!(fault.column, column, "{text}");
        assert!(fault.message.contains(message), "{text}: {}", fault.message);
    }
}

#[test]
fn the_same_property_twice_names_the_first_row() {
    let read = read_rows(&[row("ash;0.6;%;dm"), row("W;300;10-4 J;"), row("Ash;0.7;%;dm")], None);
    let fault = read[2].as_ref().expect_err("ash again");
    assert_eq!(fault.message, "ash stands twice, here and in row 1; keep the one that holds");
}

#[test]
fn units_are_understood_as_laboratories_write_them() {
    for (text, value) in [
        ("protein;130;g/kg;as received", 13.0),
        ("W;298;10⁻⁴ J;", 298.0),
        ("P;84;mm H2O;", 84.0),
        ("softening;48;BU;", 48.0),
        ("stability;690;s;", 11.5),
        ("gluten index;92;%;", 92.0),
        ("P/L;0.83;;", 0.83),
    ] {
        let read = read_rows(&[row(text)], None);
        let reading = read[0].as_ref().unwrap_or_else(|fault| panic!("{text}: {fault:?}"));
        assert!((reading.value - value).abs() < 1e-9, "{text}");
    }
}

#[test]
fn a_lot_is_as_good_as_its_worst_reading() {
    use Verdict::{Borderline, In, Missing, Out};
    let limit = |property, basis, min, max| Limit {
        property,
        basis,
        min,
        target: None,
        max,
        must: true,
        method: None,
    };
    let limits = [
        limit(Property::Protein, Some(MoistureBasis::DryMatter), Some(14.5), None),
        limit(Property::Ash, Some(MoistureBasis::DryMatter), None, Some(0.64)),
        limit(Property::W, None, Some(290.0), None),
    ];
    let verdicts = |rows: &[&str]| {
        let mut rows: Vec<Row> = rows.iter().map(|text| row(text)).collect();
        rows.push(row("moisture;14.1;%;as is"));
        let readings: Vec<_> =
            read_rows(&rows, None).into_iter().map(|read| read.expect("good")).collect();
        let assessment = assess(&limits, &Readings(readings));
        let each: Vec<_> = assessment.checks.iter().map(|rule| rule.verdict).collect();
        (assessment.verdict, each)
    };
    assert_eq!(
        verdicts(&["protein;13.0;%;14 %", "ash;0.61;%;dm", "W;330;10-4 J;"]),
        (In, vec![In, In, In])
    );
    // 12.6 on 14 % is 14.65 on dry matter: inside, and within 0.2 of the minimum.
    assert_eq!(
        verdicts(&["protein;12.6;%;14 %", "ash;0.65;%;dm", "W;330;10-4 J;"]),
        (Borderline, vec![Borderline, Borderline, In])
    );
    assert_eq!(verdicts(&["protein;13.0;%;14 %", "ash;0.70;%;dm"]), (Out, vec![In, Out, Missing]));
}

#[test]
fn a_value_as_is_without_moisture_cannot_be_judged_on_dry_matter() {
    let limit = Limit {
        property: Property::Ash,
        basis: Some(MoistureBasis::DryMatter),
        min: None,
        target: None,
        max: Some(0.64),
        must: true,
        method: None,
    };
    let reading = read_rows(&[row("ash;0.55;%;as is")], None).remove(0).expect("good");
    let assessment = assess(&[limit], &Readings(vec![reading]));
    assert_eq!(assessment.verdict, Verdict::Missing);
    assert!(assessment.checks[0].message.contains("moisture"));
}

proptest! {
    #[test]
    fn no_row_makes_it_panic(cells in prop::collection::vec(".{0,20}", 5)) {
        let row = row(&cells.join(";"));
        for reading in read_rows(&[row.clone(), row], None).into_iter().flatten() {
            prop_assert!(reading.value.is_finite());
        }
    }
}
