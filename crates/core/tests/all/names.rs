//! The names of flours in each national system, at every edge of every class.

use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::flour::{
    FlourAge, FlourName, Hardness, IntendedUse, MoistureBasis, NameKind, NameStanding, Property,
    Reading, Readings, Species, StrengthClass, TenacityClass, Treatment, hard_and_soft,
};
use proptest::prelude::*;
use serde_json::json;

/// By the house's coefficients.
fn flour_names(species: Species, readings: &Readings) -> Vec<FlourName> {
    ironpeel_core::flour::flour_names(species, readings, &Coefficients::default())
}

fn reading(property: Property, value: f64, basis: MoistureBasis) -> Reading {
    Reading { property, value, basis: Some(basis), method: None, censored: None }
}

/// A flour of this ash and protein on dry matter.
fn of(ash: f64, protein: Option<f64>) -> Readings {
    let mut all = vec![reading(Property::Ash, ash, MoistureBasis::DryMatter)];
    all.extend(
        protein.map(|protein| reading(Property::Protein, protein, MoistureBasis::DryMatter)),
    );
    Readings(all)
}

fn called(species: Species, system: &str, readings: &Readings) -> FlourName {
    let names = flour_names(species, readings);
    names.into_iter().find(|name| name.system == system).expect("every system answers")
}

#[track_caller]
fn ash_is(species: Species, system: &str, ash: f64, name: &str) {
    assert_eq!(called(species, system, &of(ash, Some(14.0))).name(), name, "{system} at {ash}");
}

#[test]
fn france_by_every_edge() {
    for (ash, name) in [
        (0.40, "T45"),
        (0.49, "T45"),
        (0.50, "T55"),
        (0.60, "T55"),
        (0.61, "between T55 and T65"),
        (0.62, "T65"),
        (0.74, "T65"),
        (0.76, "T80"),
        (0.90, "T80"),
        (0.95, "between T80 and T110"),
        (1.00, "T110"),
        (1.20, "T110"),
        (1.30, "between T110 and T150"),
        (1.40, "between T110 and T150"),
        (1.41, "T150"),
        (2.10, "T150"),
    ] {
        ash_is(Species::Wheat, "FR", ash, name);
    }
}

#[test]
fn germany_by_every_edge_of_wheat_rye_and_spelt() {
    for (ash, name) in [
        (0.50, "405"),
        (0.51, "550"),
        (0.63, "550"),
        (0.64, "812"),
        (0.90, "812"),
        (0.91, "1050"),
        (1.20, "1050"),
        (1.21, "1600"),
        (1.80, "1600"),
        (1.81, "above 1600"),
    ] {
        ash_is(Species::Wheat, "DE", ash, name);
    }
    for (ash, name) in [
        (0.90, "815"),
        (0.91, "997"),
        (1.10, "997"),
        (1.11, "1150"),
        (1.31, "1370"),
        (1.60, "1370"),
        (1.61, "1740"),
        (1.85, "above 1740"),
    ] {
        ash_is(Species::Rye, "DE", ash, name);
    }
    for (ash, name) in [(0.70, "630"), (0.71, "812"), (0.91, "1050"), (1.30, "above 1050")] {
        ash_is(Species::Spelt, "DE", ash, name);
    }
}

#[test]
fn italy_asks_for_protein_too() {
    for (ash, least, name) in [
        (0.55, 9.0, "00"),
        (0.60, 11.0, "0"),
        (0.75, 12.0, "1"),
        (0.90, 12.0, "2"),
        (1.50, 12.0, "integrale"),
    ] {
        let enough = called(Species::Wheat, "IT", &of(ash, Some(least)));
        assert_eq!((enough.kind(), enough.name()), (NameKind::Class, name.to_owned()));
        let short = called(Species::Wheat, "IT", &of(ash, Some(least - 0.1)));
        assert_eq!(
            (short.kind(), short.name()),
            (NameKind::Outside, format!("{name} by ash only"))
        );
        let unknown = called(Species::Wheat, "IT", &of(ash, None));
        assert_eq!((unknown.kind(), unknown.name()), (NameKind::Class, name.to_owned()));
        assert!(unknown.to_string().contains("it also asks for protein"), "{unknown}");
    }
    ash_is(Species::Wheat, "IT", 1.10, "between 2 and integrale");
    ash_is(Species::Wheat, "IT", 1.71, "above integrale");
}

#[test]
fn the_united_states_describe_on_fourteen_percent() {
    for (ash_14, name) in [
        (0.40, "patent by ash only"),
        (0.46, "bread by ash only"),
        (0.54, "bread by ash only"),
        (0.70, "first clear"),
        (1.00, "between first clear and whole"),
        (1.30, "whole"),
    ] {
        let readings = Readings(vec![reading(Property::Ash, ash_14, MoistureBasis::Fourteen)]);
        assert_eq!(called(Species::Wheat, "US", &readings).name(), name, "{ash_14}");
    }
    // What it is for goes by protein: no bread flour by its ash alone.
    for (ash, protein, name) in [
        (0.50, 10.4, "all-purpose"),
        (0.50, 12.6, "bread"),
        (0.50, 14.0, "high-gluten"),
        (0.40, 8.0, "cake, patent"),
        (0.44, 12.0, "bread, patent"),
        (0.70, 10.4, "first clear"),
    ] {
        let fourteen = |property, value| reading(property, value, MoistureBasis::Fourteen);
        let readings =
            Readings(vec![fourteen(Property::Ash, ash), fourteen(Property::Protein, protein)]);
        assert_eq!(called(Species::Wheat, "US", &readings).name(), name, "{ash} {protein}");
    }
    // As is, and moved by the flour's own moisture.
    let readings = Readings(vec![
        Reading {
            property: Property::Moisture,
            value: 10.0,
            basis: None,
            method: None,
            censored: None,
        },
        reading(Property::Ash, 0.50, MoistureBasis::AsIs),
    ]);
    assert!(called(Species::Wheat, "US", &readings).to_string().contains("0.48 %"));
}

#[test]
fn a_grain_without_classes_is_told_so_and_a_lack_too() {
    for species in [Species::Emmer, Species::Einkorn, Species::Khorasan, Species::GlutenFree] {
        for name in flour_names(species, &of(0.6, Some(13.0))) {
            assert_eq!((name.kind(), name.standing), (NameKind::None, NameStanding::NoClass));
        }
    }
    for name in flour_names(Species::Wheat, &Readings(Vec::new())) {
        assert_eq!((name.kind(), name.standing), (NameKind::None, NameStanding::UnknownAsh));
    }
    let rye: Vec<NameKind> =
        flour_names(Species::Rye, &of(1.0, None)).into_iter().map(|name| name.kind()).collect();
    assert_eq!(rye, [NameKind::None, NameKind::Class, NameKind::None, NameKind::None]);
}

#[test]
fn hard_and_soft_are_two_different_things() {
    let wheat = hard_and_soft(Species::Wheat, Some(Hardness::Hard));
    assert!(wheat.contains("US: hard wheat") && wheat.contains("IT: soft"), "{wheat}");
    let durum = hard_and_soft(Species::Durum, None);
    assert!(durum.contains("IT: hard"), "{durum}");
    assert!(hard_and_soft(Species::Rye, None).contains("neither word"));
    assert!(hard_and_soft(Species::Wheat, None).contains("not stated"));
}

#[test]
fn strength_and_temper_change_where_they_say() {
    for (w, word) in [
        (0.0, "weak"),
        (119.9, "weak"),
        (120.0, "low"),
        (180.0, "medium"),
        (259.9, "medium"),
        (260.0, "strong"),
        (340.0, "strong"),
        (340.1, "very strong"),
    ] {
        assert_eq!(StrengthClass::of(w, &Coefficients::default()).to_string(), word, "{w}");
    }
    for (p_over_l, word) in [
        (0.49, "extensible"),
        (0.5, "balanced"),
        (0.8, "balanced"),
        (0.9, "between balanced and tenacious"),
        (1.01, "tenacious"),
    ] {
        assert_eq!(
            TenacityClass::of(p_over_l, &Coefficients::default()).to_string(),
            word,
            "{p_over_l}"
        );
    }
}

#[test]
fn age_is_told_at_its_ends_alone() {
    let of = |days| FlourAge::of(days, &Coefficients::default());
    for days in [0.0, 1.9] {
        assert_eq!(of(days), Some(FlourAge::Green { until_days: 2.0 }), "{days}");
    }
    for days in [2.0, 7.0, 14.0] {
        assert_eq!(of(days), None, "{days}");
    }
    assert_eq!(of(14.1), Some(FlourAge::Aged { from_days: 14.0 }));
}

#[test]
fn every_word_comes_back_as_what_it_is() {
    fn there_and_back<T>(all: &[T])
    where
        T: serde::Serialize + serde::de::DeserializeOwned + PartialEq + std::fmt::Debug,
    {
        let words: Vec<String> = all.iter().map(|one| json!(one).to_string()).collect();
        for (at, word) in words.iter().enumerate() {
            assert_eq!(serde_json::from_str::<T>(word).expect("its own word"), all[at]);
            assert!(!words[..at].contains(word), "{word} stands for two");
        }
    }
    there_and_back(&Hardness::ALL);
    there_and_back(&Treatment::ALL);
    there_and_back(&Species::ALL);
    there_and_back(&IntendedUse::ALL);
    for property in Property::ALL {
        assert_eq!(Property::named(property.key()), Some(property));
        assert_eq!(json!(property), property.key());
    }
    assert_eq!(serde_json::from_value::<Hardness>(json!("Hard")).ok(), None, "words are exact");
}

proptest! {
    #[test]
    fn every_ash_has_a_name_in_every_system(ash in 0.2..3.0, protein in 6.0..18.0) {
        let readings = Readings(vec![
            Reading { property: Property::Moisture, value: 14.0, basis: None, method: None, censored: None },
            reading(Property::Ash, ash, MoistureBasis::DryMatter),
            reading(Property::Protein, protein, MoistureBasis::DryMatter),
        ]);
        for name in flour_names(Species::Wheat, &readings) {
            prop_assert!(name.kind() != NameKind::None, "{name:?}");
            prop_assert!(!name.name().is_empty());
            prop_assert!(name.to_string().contains('%'), "the figure it was read from: {name}");
        }
    }

    #[test]
    fn a_hair_of_ash_beyond_two_decimals_changes_no_name(hundredths in 30..200u32, hair in -0.0049..0.0049) {
        let ash = f64::from(hundredths) / 100.0;
        for system in ["FR", "DE"] {
            let exact = called(Species::Wheat, system, &of(ash, None));
            let near = called(Species::Wheat, system, &of(ash + hair, None));
            prop_assert_eq!(exact.name(), near.name());
        }
    }
}
