//! Who holds the water, what extra water does to it, and how grains behave.

use crate::support::{composition, flour, near, parts};
use ironpeel_core::coefficient::{Coefficients, Override};
use ironpeel_core::flour::{Moisture, Property, Species};
use ironpeel_core::water::{
    Composition, ExcessWaterEffect, Flour, WaterDistribution, coefficients, excess_water,
    mix_of_grains,
};
use proptest::prelude::*;

const GREER: WaterDistribution =
    WaterDistribution { protein_pct: 12.0, damaged_pct: 8.0, intact_pct: 58.5, pentosan_pct: 1.3 };

#[test]
fn each_holds_by_its_mass_and_capacity() {
    let shares = GREER.shares(62.0, 0.0);
    near(shares.intact_pct, 29.6, 0.05);
    near(shares.damaged_pct, 18.4, 0.05);
    near(shares.protein_pct, 29.6, 0.05);
    near(shares.pentosan_pct, 22.4, 0.05);
    assert_eq!(shares.free_pct, 0.0);
}

#[test]
fn a_usual_white_flour_is_made_of_what_the_example_is() {
    let stated = composition(12.0, 8.0, 0.6);
    let white = Flour { composition: stated, ..flour() };
    let found =
        WaterDistribution::of(&parts(&[(white, 100.0)]), &Coefficients::default()).expect("wheat");
    near(found.intact_pct, 58.5, 0.05);
    near(found.pentosan_pct, 1.3, 1e-9);
    let whole = Flour { composition: composition(13.0, 7.0, 1.6), ..flour() };
    let found =
        WaterDistribution::of(&parts(&[(whole, 100.0)]), &Coefficients::default()).expect("wheat");
    assert!(found.pentosan_pct > 5.0 && found.intact_pct < 55.0, "{found:?}");
    let drier = Flour { moisture: Moisture::new(10.0).expect("in range"), ..white };
    assert!(
        WaterDistribution::of(&parts(&[(drier, 100.0)]), &Coefficients::default())
            .expect("wheat")
            .protein_pct
            > 12.0
    );
}

#[test]
fn what_no_certificate_states_is_said_to_be_taken_as_usual() {
    let stated = Flour { composition: composition(12.0, 8.0, 0.6), ..flour() };
    assert!(
        WaterDistribution::assumed(&parts(&[(stated, 100.0)]), &Coefficients::default()).is_empty()
    );
    let bare = Composition { protein_14_pct: Some(12.0), ..Composition::default() };
    let assumed = WaterDistribution::assumed(
        &parts(&[(Flour { composition: bare, ..flour() }, 100.0)]),
        &Coefficients::default(),
    );
    let usual = assumed.iter().map(|one| (one.property, one.pct)).collect::<Vec<_>>();
    assert_eq!(usual, [(Property::DamagedStarch, 7.5), (Property::Ash, 0.6)]);
    assert_eq!(assumed[0].to_string(), "damaged starch 7.5 %, of the common wheat");
}

#[test]
fn without_gluten_nothing_is_said() {
    let blend = Flour { species: Species::GlutenFree, ..flour() };
    assert_eq!(
        WaterDistribution::of(&parts(&[(flour(), 70.0), (blend, 30.0)]), &Coefficients::default()),
        None
    );
    assert_eq!(WaterDistribution::of(&[], &Coefficients::default()), None);
}

#[test]
fn water_added_by_feel_springs_the_trap() {
    let plain = excess_water(&GREER, 62.0, 0.0, &Coefficients::default());
    assert!(plain.will.is_empty());
    assert_eq!(plain.arrival_target_pct, 85.0);
    let trapped = WaterDistribution { damaged_pct: 11.0, ..GREER };
    let added = excess_water(&trapped, 62.0, 3.0, &Coefficients::default());
    near(added.shares.free_pct, 100.0 * 3.0 / 65.0, 1e-9);
    assert_eq!((added.to_drive_out_kg, added.arrival_target_pct), (3.0, 80.0));
    let critical = Override {
        key: coefficients::CRITICAL_DAMAGED_STARCH.key.into(),
        off: true,
        value: coefficients::CRITICAL_DAMAGED_STARCH.band(),
        reason: "not here".into(),
    };
    let quiet = Coefficients(vec![critical]);
    let off = excess_water(&trapped, 62.0, 3.0, &quiet);
    assert_eq!(off.arrival_target_pct, 85.0, "switched off, nothing is trapped");
    assert!(matches!(
        added.will[..],
        [
            ExcessWaterEffect::GlutenDiluted { from_pct, to_pct },
            ExcessWaterEffect::Sticks,
            ExcessWaterEffect::LateRelease,
            ExcessWaterEffect::WetCrumb { to_drive_out_kg: 3.0 },
        ] if to_pct < from_pct
    ));
}

#[test]
fn a_mix_of_grains_mixes_and_ferments_by_its_parts() {
    let plain = mix_of_grains(&parts(&[(flour(), 100.0)]), &Coefficients::default());
    assert_eq!((plain.mixing.typical, plain.fermentation.typical), (1.0, 1.0));
    assert!(plain.has_gluten && plain.water_points == 0.0);
    let spelt = Flour {
        species: Species::Spelt,
        absorption_14_pct: None,
        whole_grain_pct: 100.0,
        ..flour()
    };
    let mix = mix_of_grains(
        &parts(&[(flour(), 30.0), (spelt, 40.0), (spelt, 30.0)]),
        &Coefficients::default(),
    );
    assert_eq!(mix.grains.len(), 2, "one row for a grain");
    assert_eq!(mix.grains[0].grain.species, Species::Spelt, "the largest first");
    near(mix.grains[0].share_pct, 70.0, 1e-9);
    near(mix.grains[0].whole_grain_pct, 70.0, 1e-9);
    near(mix.water_points, 0.7 * -4.5, 1e-9);
    near(mix.mixing.typical, 0.3 + 0.7 * (0.6 - 0.15), 1e-9);
    assert!(mix.fermentation.typical > 1.2);
}

#[test]
fn every_grain_has_its_advice() {
    let mut advice = std::collections::HashSet::new();
    for species in Species::ALL {
        let grain = species.grain(&Coefficients::default());
        assert!(advice.insert((grain.water, grain.handling)), "{species:?} has another's advice");
        for band in [grain.mixing, grain.fermentation] {
            assert!(band.low <= band.typical && band.typical <= band.high, "{species:?}");
        }
        if !species.has_gluten() {
            let words = format!("{} {} {}", grain.water, grain.handling, grain.tolerance);
            assert!(!words.contains("windowpane") && words.contains("stages"), "{words}");
        }
    }
}

proptest! {
    #[test]
    fn the_shares_are_the_whole_of_the_water(
        protein in 6.0..18.0f64, damaged in 1.0..14.0f64, intact in 40.0..70.0f64,
        pentosan in 0.5..8.0f64, planned in 40.0..90.0f64, added in 0.0..15.0f64,
    ) {
        let flour = WaterDistribution { protein_pct: protein, damaged_pct: damaged, intact_pct: intact, pentosan_pct: pentosan };
        let shares = flour.shares(planned, added);
        let sum = shares.intact_pct + shares.damaged_pct + shares.protein_pct + shares.pentosan_pct + shares.free_pct;
        prop_assert!((sum - 100.0).abs() < 1e-9);
        let plan = flour.shares(planned, 0.0);
        prop_assert!(shares.protein_pct <= plan.protein_pct);
        let more = WaterDistribution { damaged_pct: damaged + 1.0, ..flour }.shares(planned, 0.0);
        prop_assert!(more.protein_pct < plan.protein_pct, "damage takes it from the protein");
    }
}
