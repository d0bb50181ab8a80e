//! Names, drift, what changed, proposals, remedies and mappings.

use crate::support::composition;
use ironpeel_core::coefficient::{Coefficients, Origin};
use ironpeel_core::flour::{
    Assessment, Censored, ColumnMeaning, DateOrder, FlourName, IntendedUse, Limit, LotField,
    MoistureBasis, NameKind, Property, Reading, Readings, Row, Species, SuggestedFrom,
    SuggestedLimit, Verdict, date_parts, drift, own_header_of, read_rows, suggest_mapping,
};
use ironpeel_core::lot::{Consequence, CorrectionInput, compare_lots};
use ironpeel_core::plant::PlantParameters;
use ironpeel_core::water::{AbsorptionModel, StarchTrap};
use proptest::prelude::*;

/// By the house's coefficients.
fn assess(limits: &[Limit], readings: &Readings) -> Assessment {
    ironpeel_core::flour::assess(limits, readings, &Coefficients::default())
}

/// By the house's coefficients.
fn flour_names(species: Species, readings: &Readings) -> Vec<FlourName> {
    ironpeel_core::flour::flour_names(species, readings, &Coefficients::default())
}

/// By the house's coefficients.
fn suggest_limits(intended: IntendedUse, history: &[Readings], k: f64) -> Vec<SuggestedLimit> {
    ironpeel_core::flour::suggest_limits(intended, history, k, &Coefficients::default())
}

#[track_caller]
fn near(found: f64, wanted: f64, within: f64) {
    assert!((found - wanted).abs() <= within, "{found} is not within {within} of {wanted}");
}

fn reading(property: Property, value: f64, basis: Option<MoistureBasis>) -> Reading {
    Reading { property, value, basis, method: None, censored: None }
}

fn of_ash(ash_dm: f64, protein_dm: f64) -> Readings {
    let dry = Some(MoistureBasis::DryMatter);
    Readings(vec![reading(Property::Ash, ash_dm, dry), reading(Property::Protein, protein_dm, dry)])
}

#[test]
fn each_national_system_names_a_flour() {
    for (species, ash, protein, names) in [
        (Species::Wheat, 0.45, 11.0, ["T45", "405", "00", "pastry, patent"]),
        (Species::Wheat, 0.55, 14.0, ["T55", "550", "00", "bread"]),
        (Species::Wheat, 0.61, 13.0, ["between T55 and T65", "550", "0", "all-purpose"]),
        (Species::Wheat, 0.75, 13.0, ["T65", "812", "1", "first clear"]),
        (
            Species::Wheat,
            0.95,
            13.0,
            ["between T80 and T110", "1050", "2", "between first clear and whole"],
        ),
        (Species::Wheat, 1.66, 15.0, ["T150", "1600", "integrale", "whole"]),
        (Species::Wheat, 2.0, 15.0, ["T150", "above 1600", "above integrale", "whole"]),
        (Species::Wheat, 0.60, 10.4, ["T55", "550", "0 by ash only", "pastry"]),
        (Species::Rye, 1.35, 9.0, ["–", "1370", "–", "–"]),
        (Species::Spelt, 0.68, 13.0, ["–", "630", "–", "–"]),
        (Species::Durum, 0.85, 13.0, ["–", "–", "–", "–"]),
    ] {
        let found = flour_names(species, &of_ash(ash, protein));
        let found: Vec<_> = found.iter().map(FlourName::name).collect();
        assert_eq!(found, names, "{species:?} of {ash}");
    }
    let unknown = flour_names(Species::Wheat, &Readings::default());
    assert!(unknown.iter().all(|one| one.kind() == NameKind::None));
}

#[test]
fn a_stray_lot_and_a_shift_are_found() {
    let steady = [8.0, 8.2, 7.9, 8.1, 8.0, 8.3, 7.8, 8.1, 8.0, 7.9];
    let quiet = drift(&steady).expect("enough");
    assert!(quiet.points.iter().all(|point| !point.beyond && !point.run));
    near(quiet.centre, 8.03, 1e-9);

    let mut stray = steady.to_vec();
    stray.push(10.9);
    assert!(drift(&stray).expect("enough").points[10].beyond);

    let mut shifted = steady.to_vec();
    shifted.extend([8.8, 8.9, 9.0, 8.8, 8.9, 9.0, 8.9, 8.8]);
    let chart = drift(&shifted).expect("enough");
    assert!(chart.points[10..].iter().all(|point| point.run));
    assert!(chart.points[17].drifting);
    assert_eq!(drift(&[1.0, 2.0]), None);
}

#[test]
fn the_average_moves_a_fifth_of_the_way() {
    let chart = drift(&[10.0, 10.0, 10.0, 14.0]).expect("enough");
    near(chart.centre, 11.0, 1e-9);
    near(chart.points[0].ewma, 0.2 * 10.0 + 0.8 * 11.0, 1e-9);
    // Mean moving range 4/3 over 1.128, three of them.
    near(chart.upper - chart.centre, 3.0 * 4.0 / 3.0 / 1.128, 1e-9);
}

fn lot(damaged: f64, w: f64, falling: f64, absorption: f64) -> Readings {
    let fourteen = Some(MoistureBasis::Fourteen);
    Readings(vec![
        reading(Property::Protein, 12.9, fourteen),
        reading(Property::DamagedStarch, damaged, Some(MoistureBasis::AsIs)),
        reading(Property::W, w, None),
        reading(Property::FallingNumber, falling, None),
        reading(Property::Absorption, absorption, fourteen),
        reading(Property::Development, 6.0, None),
    ])
}

#[test]
fn what_changed_is_explained_in_the_words_of_the_job() {
    let told = compare_lots(
        &lot(8.2, 310.0, 340.0, 62.0),
        &lot(10.9, 240.0, 250.0, 65.4),
        &PlantParameters::default(),
    );
    let part = |key: &str| {
        told.absorption_difference.parts.iter().find(|part| part.key == key).expect("a part").points
    };
    near(part("damaged_starch"), 3.78, 1e-9);
    near(part("protein"), 0.0, 1e-9);
    near(part("unexplained"), 3.4 - 3.78, 1e-9);
    // One figure for it, here as on the water's page and the sheet.
    let trap = StarchTrap::of(Some(10.9), &Coefficients::default(), &AbsorptionModel::default());
    let trap = trap.expect("above");
    near(trap.points.typical, 0.9 * 1.4, 1e-9);
    let said = told.consequences.as_slice();
    assert!(
        said.iter().any(|one| matches!(one, Consequence::HoldBack { trap: held, arrival_pct: 80.0, .. } if *held == trap)),
        "{said:?}"
    );
    let words: Vec<String> = said.iter().map(ToString::to_string).collect();
    for word in ["Hold back 1.3 points", "from strong to medium", "more amylase"] {
        assert!(words.iter().any(|one| one.contains(word)), "{word}: {words:?}");
    }
    assert!(!said.iter().any(|one| matches!(one, Consequence::Mixing { .. })));
    let real: Vec<_> =
        told.differences.iter().filter(|one| one.real).map(|one| one.property).collect();
    assert_eq!(
        real,
        [Property::FallingNumber, Property::DamagedStarch, Property::Absorption, Property::W]
    );
}

#[test]
fn a_should_never_puts_a_lot_out_and_a_limit_of_the_method_is_understood() {
    let rows = [
        Row {
            property: "falling number".into(),
            value: "<62".into(),
            unit: "s".into(),
            ..Row::default()
        },
        Row { property: "W".into(), value: "150".into(), unit: "10-4 J".into(), ..Row::default() },
    ];
    let readings =
        Readings(read_rows(&rows, None).into_iter().map(|read| read.expect("good")).collect());
    assert_eq!(readings.0[0].censored, Some(Censored::Below));
    let limit = |property, min, max, must| Limit {
        property,
        basis: None,
        min,
        target: None,
        max,
        must,
        method: None,
    };
    let verdict = |limits: &[Limit]| assess(limits, &readings).verdict;
    let falling = Property::FallingNumber;
    assert_eq!(verdict(&[limit(falling, Some(250.0), None, true)]), Verdict::Out);
    assert_eq!(verdict(&[limit(falling, None, Some(100.0), true)]), Verdict::In);
    // 62 would do, and what lies below it nobody knows.
    assert_eq!(verdict(&[limit(falling, Some(50.0), None, true)]), Verdict::Borderline);
    assert_eq!(verdict(&[limit(Property::W, Some(260.0), None, true)]), Verdict::Out);
    assert_eq!(verdict(&[limit(Property::W, Some(260.0), None, false)]), Verdict::Borderline);
}

#[test]
fn limits_are_proposed_from_history_and_from_the_use() {
    let history: Vec<Readings> = [8.0, 8.2, 8.4, 8.1, 8.3, 10.9]
        .into_iter()
        .map(|damaged| lot(damaged, 310.0, 340.0, 62.0))
        .collect();
    let suggestions = suggest_limits(IntendedUse::PanBread, &history, 1.5);
    let of = |property, from| {
        suggestions
            .iter()
            .find(|one| one.limit.property == property && one.from == from)
            .expect("proposed")
    };
    let by_use = of(Property::DamagedStarch, SuggestedFrom::Use);
    near(by_use.would_fail_pct, 100.0 / 6.0, 1e-9);
    let by_history = of(Property::DamagedStarch, SuggestedFrom::History);
    assert_eq!((by_history.lots, by_history.limit.target), (6, Some(8.7)));
    assert!(by_history.limit.check().is_ok());
    assert!(suggestions.iter().all(|one| one.limit.check().is_ok()));
    assert!(!suggestions.iter().any(|one| one.limit.property == Property::Ie));
}

#[test]
fn remedies_balance_and_say_where_they_end() {
    let house = &PlantParameters::default();
    let sieve = CorrectionInput::Sieve { ash_dm_pct: 0.85 }.of(1.62, house).expect("reachable");
    near(sieve.amount_pct, 15.56, 0.005);
    near(sieve.yield_pct, 84.44, 0.005);
    near(sieve.water_points, -0.77 * 4.0, 1e-9);
    assert!(sieve.low_pct < sieve.amount_pct && sieve.amount_pct < sieve.high_pct);
    let white = CorrectionInput::PartWhite { ash_dm_pct: 1.31, white_ash_dm_pct: 0.60 }
        .of(1.62, house)
        .expect("between");
    near(white.amount_pct, 100.0 * 0.31 / 1.02, 1e-9);
    let malt = CorrectionInput::Malt { falling_number_s: 300.0 }.of(380.0, house).expect("lower");
    assert!(malt.amount_pct > 0.1 && malt.amount_pct < 0.5, "{}", malt.amount_pct);
    for (out, has) in [
        (CorrectionInput::VitalGluten { protein_14_pct: 11.0 }, 12.0),
        (CorrectionInput::VitalGluten { protein_14_pct: f64::NAN }, 12.0),
        (CorrectionInput::Malt { falling_number_s: 400.0 }, 380.0),
        (CorrectionInput::Sieve { ash_dm_pct: 1.7 }, 1.62),
        (CorrectionInput::PartWhite { ash_dm_pct: 0.5, white_ash_dm_pct: 0.6 }, 1.62),
    ] {
        assert!(!out.of(has, house).expect_err("no such flour").to_string().is_empty(), "{out:?}");
    }
}

#[test]
fn a_remedy_moves_the_water_by_what_the_plant_learned_of_ash() {
    let mut plant = PlantParameters::default();
    let sieve = |plant: &PlantParameters| {
        let sieved =
            CorrectionInput::Sieve { ash_dm_pct: 0.85 }.of(1.62, plant).expect("reachable");
        (sieved.water_points, sieved.why.coefficients.last().map(|one| one.origin))
    };
    assert_eq!(sieve(&plant).1, Some(Origin::House));
    for ash in [0.5, 0.9, 1.3, 1.7] {
        let lot = composition(12.0, 7.5, ash);
        plant.model = plant.model.learn(lot, 60.0 + 8.0 * (ash - 0.60));
    }
    let learned = plant.model.per_ash().value;
    assert!(learned > 5.0, "{learned}");
    assert_eq!(sieve(&plant), (-(1.62 - 0.85) * learned, Some(Origin::Plant)));
}

#[test]
fn headers_of_five_languages_are_understood() {
    use MoistureBasis::{AsIs, DryMatter, Fourteen};
    for (header, property, unit, basis) in [
        ("Protein, % d.m.", Property::Protein, "%", Some(DryMatter)),
        ("Ash, % d.m.", Property::Ash, "%", Some(DryMatter)),
        ("Moisture %", Property::Moisture, "%", None),
        ("F.N. s", Property::FallingNumber, "s", None),
        ("W", Property::W, "10-4 J", None),
        ("P/L", Property::POverL, "", None),
        ("Dam. starch %", Property::DamagedStarch, "%", Some(AsIs)),
        ("Protéines (% MS)", Property::Protein, "%", Some(DryMatter)),
        ("Temps de chute (s)", Property::FallingNumber, "s", None),
        ("Asche % i.TS", Property::Ash, "%", Some(DryMatter)),
        ("Wasseraufnahme 14 %", Property::Absorption, "%", Some(Fourteen)),
        ("Stärkebeschädigung", Property::DamagedStarch, "%", Some(AsIs)),
        ("Umidità %", Property::Moisture, "%", None),
        ("Ceneri % s.s.", Property::Ash, "%", Some(DryMatter)),
        ("Proteína 14 %", Property::Protein, "%", Some(Fourteen)),
        ("P (mmH2O)", Property::P, "mmH2O", None),
    ] {
        let meant = suggest_mapping(&[header.to_owned()], &[]).columns.remove(0);
        let wanted =
            ColumnMeaning::Reading { property, unit: unit.into(), basis, method: String::new() };
        assert_eq!(meant, wanted, "{header}");
    }
    for (header, field) in
        [("Lot", LotField::Lot), ("Farine", LotField::Flour), ("Mahldatum", LotField::Milled)]
    {
        let meant = suggest_mapping(&[header.to_owned()], &[]).columns.remove(0);
        assert_eq!(meant, ColumnMeaning::Head { field }, "{header}");
    }
    for stranger in ["Remarks", "", "Price", "Lab"] {
        let meant = suggest_mapping(&[stranger.to_owned()], &[]).columns.remove(0);
        assert_eq!(meant, ColumnMeaning::Ignored, "{stranger}");
    }
}

#[test]
fn the_order_of_dates_is_seen_where_it_shows() {
    let headers = ["Lot".to_owned(), "Milled".to_owned()];
    let rows = |date: &str| [vec!["A".to_owned(), date.to_owned()]];
    assert_eq!(suggest_mapping(&headers, &rows("03/25/2026")).dates, DateOrder::MonthFirst);
    assert_eq!(suggest_mapping(&headers, &rows("25/03/2026")).dates, DateOrder::DayFirst);
    for (text, order, wanted) in [
        ("3.11.26", DateOrder::DayFirst, Some((2026, 11, 3))),
        ("03/11/2026 08:15", DateOrder::MonthFirst, Some((2026, 3, 11))),
        ("31/13/2026", DateOrder::DayFirst, None),
        ("1999-01-01", DateOrder::DayFirst, None),
    ] {
        assert_eq!(date_parts(text, order), wanted, "{text}");
    }
}

#[test]
fn what_says_nothing_gives_no_reading() {
    let headers = ["Lot", "Protein %", "F.N. s"].map(str::to_owned);
    let mapping = suggest_mapping(&headers, &[]);
    let lot = mapping.lot(&["A", "n/a", "<62"].map(str::to_owned));
    let [row] = lot.rows.as_slice() else { panic!("{:?}", lot.rows) };
    assert_eq!((row.property.as_str(), row.value.as_str()), ("falling number", "<62"));
}

proptest! {
    #[test]
    fn our_own_headers_come_back_as_they_went(at in 0..Property::ALL.len(), basis in 0..4usize, method in "[A-Za-z0-9 ;-]{0,20}") {
        let property = Property::ALL[at];
        let basis = [None, Some(MoistureBasis::AsIs), Some(MoistureBasis::Fourteen), Some(MoistureBasis::DryMatter)][basis];
        let header = own_header_of(property, property.unit(), basis, &method);
        let meant = suggest_mapping(&[header], &[]).columns.remove(0);
        let wanted = ColumnMeaning::Reading { property, unit: property.unit().into(), basis, method };
        prop_assert_eq!(meant, wanted);
    }

    #[test]
    fn no_header_or_date_makes_it_panic(header in ".*", date in ".*") {
        let _ = suggest_mapping(&[header], &[vec![date.clone()]]);
        let _ = date_parts(&date, DateOrder::DayFirst);
    }

    #[test]
    fn the_parts_of_a_change_add_up(
        a in 4.0..12.0f64, b in 4.0..12.0f64, was in 55.0..70.0f64, is in 55.0..70.0f64,
    ) {
        let told = compare_lots(&lot(a, 300.0, 300.0, was), &lot(b, 300.0, 300.0, is), &PlantParameters::default());
        let sum: f64 = told.absorption_difference.parts.iter().map(|part| part.points).sum();
        prop_assert!((sum - (is - was)).abs() < 1e-9);
    }
}
