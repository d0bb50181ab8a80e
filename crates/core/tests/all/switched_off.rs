//! Switching off a coefficient of the water removes its effect and nothing else.

use crate::support::{composition, flour, parts};
use ironpeel_core::coefficient::{Coefficient, Coefficients, Override};
use ironpeel_core::flour::Species;
use ironpeel_core::method::Process;
use ironpeel_core::plant::COEFFICIENTS;
use ironpeel_core::units::Estimate;
use ironpeel_core::water::{
    AbsorptionBuildUp, AbsorptionModel, AbsorptionRequest, Flour, build_up, coefficients, hold_back,
};
use proptest::prelude::*;

fn off(of: &Coefficient) -> Coefficients {
    let value = Estimate::new(0.0, 0.0, 0.0);
    Coefficients(vec![Override { key: of.key.into(), off: true, value, reason: "not here".into() }])
}

fn of(
    flours: &[(Flour, f64)],
    process: Process,
    machine_divided: bool,
    coefficients: &Coefficients,
) -> AbsorptionBuildUp {
    let model = AbsorptionModel::default();
    let wanted = AbsorptionRequest {
        process: process.water_step(),
        lines: &[],
        style_points: 0.0,
        learned: None,
        override_pct: None,
        machine_divided,
        coefficients,
        model: &model,
    };
    build_up(&parts(flours), &wanted).expect("has a base")
}

fn damaged(pct: f64) -> Flour {
    Flour { composition: composition(12.9, pct, 0.6), w: Some(300.0), ..flour() }
}

#[test]
fn a_critical_level_that_is_off_holds_nothing_back_and_cautions_of_nothing() {
    let model = AbsorptionModel::default();
    let lot = [(damaged(11.0), 100.0)];
    let without = off(&coefficients::CRITICAL_DAMAGED_STARCH);
    assert!(hold_back(&parts(&lot), &Coefficients::default(), &model).is_some());
    assert_eq!(hold_back(&parts(&lot), &without, &model), None);
    let found = of(&lot, Process::NoTime, true, &without);
    assert!(found.cautions.iter().all(|caution| caution.key() != "damaged_starch"));
}

#[test]
fn a_ceiling_that_is_off_never_warns() {
    for rule in [&coefficients::CEILING_BASE, &coefficients::CEILING_PER_W] {
        let found = of(&[(damaged(8.0), 100.0)], Process::SpongeDough, true, &off(rule));
        assert_eq!(found.ceiling_pct, None, "{}", rule.key);
        assert!(found.cautions.iter().all(|caution| caution.key() != "strength"));
    }
}

fn species() -> impl Strategy<Value = Species> {
    prop::sample::select(vec![Species::Wheat, Species::Spelt, Species::Emmer, Species::Rye])
}

/// Every coefficient whose effect a plant may leave out.
fn optional() -> impl Strategy<Value = &'static Coefficient> {
    let all = COEFFICIENTS.iter().flat_map(|(_, of)| of.iter().copied());
    prop::sample::select(all.filter(|one| one.is_optional()).collect::<Vec<_>>())
}

proptest! {
    /// The figure is the same figure less that one step; nothing else moves.
    #[test]
    fn every_rule_removes_its_own_step(
        rule in optional(), species in species(),
        whole in 0.0..100.0f64, damaged in 4.0..14.0f64, age in 0.5..30.0f64, machine in any::<bool>(),
        process in prop::sample::select(vec![Process::NoTime, Process::LongCold, Process::SpongeDough]),
    ) {
        let lot = Flour {
            species,
            absorption_14_pct: None,
            whole_grain_pct: whole,
            age_days: Some(age),
            composition: composition(12.5, damaged, 0.9),
            w: Some(250.0),
            ..flour()
        };
        let flours = [(lot, 100.0)];
        let (on, without) = (
            of(&flours, process, machine, &Coefficients::default()),
            of(&flours, process, machine, &off(rule)),
        );
        let points = |build_up: &AbsorptionBuildUp| -> f64 {
            build_up.adjustments.iter().filter(|step| step.coefficient == Some(rule.key)).map(|step| step.points).sum()
        };
        prop_assert_eq!(points(&without), 0.0);
        prop_assert!((on.dough_absorption_pct - points(&on) - without.dough_absorption_pct).abs() < 1e-9);
        for step in on.adjustments.iter().filter(|step| step.coefficient != Some(rule.key)) {
            let same = without.adjustments.iter().find(|other| other.key == step.key);
            prop_assert_eq!(same.map(|other| other.points), Some(step.points));
        }
        let held = |coefficients: &Coefficients| {
            hold_back(&parts(&flours), coefficients, &AbsorptionModel::default()).map_or(0.0, |held| held.points)
        };
        prop_assert!(held(&off(rule)) <= held(&Coefficients::default()) + 1e-9, "off never holds back more");
    }
}
