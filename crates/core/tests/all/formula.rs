//! Formulas, scaling and the method's arithmetic.

use crate::support::scaled;
use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::dough::{
    Amount, AmountInput, Formula, Ingredient, LineInput, round_to_resolution,
};
use ironpeel_core::method::{
    Method, Mixer, Process, Speed, Stage, StageCaution, StageKind, cautions_at,
};
use ironpeel_core::units::{RawNumber, ValidationErrors};

fn line(ingredient: Ingredient, pct: impl Into<RawNumber>) -> LineInput {
    LineInput { ingredient, pct: pct.into() }
}

#[track_caller]
fn refused(lines: &[LineInput], field: &str, message: &str) {
    let ValidationErrors(faults) = Formula::new(lines).expect_err("makes no dough");
    assert!(
        faults.iter().any(|fault| fault.field == field && fault.message.contains(message)),
        "{faults:?}"
    );
}

#[test]
fn percentages_that_make_no_dough_are_refused_at_their_line() {
    let flour = || line(Ingredient::Flour, 100.0);
    refused(&[], "lines", "make no dough");
    refused(&[line(Ingredient::Flour, 90.0)], "lines", "flour adds to 90 %");
    refused(&[flour(), line(Ingredient::Salt, -2.0)], "lines[1].pct", "-2 was given");
    refused(&[flour(), line(Ingredient::Salt, 200.0)], "lines[1].pct", "from 0 to 100 %");
    refused(&[flour(), line(Ingredient::Salt, f64::NAN)], "lines[1].pct", "percent on flour");
    refused(&[flour(), line(Ingredient::Salt, RawNumber::Missing)], "lines[1].pct", "is missing");
    refused(
        &[flour(), line(Ingredient::Salt, RawNumber::Other("“much”".into()))],
        "lines[1].pct",
        "must be a number",
    );
    refused(&[flour(), line(Ingredient::Water, 60.0)], "lines[1].ingredient", "computed from");
    refused(
        &[flour(), line(Ingredient::Salt, 1.0), line(Ingredient::Salt, 1.0)],
        "lines[2].ingredient",
        "salt stands twice",
    );
}

#[test]
fn every_fault_of_a_formula_is_told_at_once() {
    let ValidationErrors(faults) = Formula::new(&[
        line(Ingredient::Salt, -1.0),
        line(Ingredient::Water, 60.0),
        line(Ingredient::Sugar, 900.0),
    ])
    .expect_err("makes no dough");
    let fields: Vec<_> = faults.iter().map(|fault| &*fault.field).collect();
    assert_eq!(fields, ["lines[0].pct", "lines[1].ingredient", "lines[2].pct"]);
}

#[test]
fn a_formula_adds_up_with_its_water() {
    let formula = Formula::new(&[
        line(Ingredient::Flour, 100.0),
        line(Ingredient::InstantYeast, 1.6),
        line(Ingredient::Salt, 1.9),
    ])
    .expect("makes a dough");
    assert!((formula.total_pct(58.0) - 161.5).abs() < 1e-9);
    let additions: Vec<_> = formula.additions().map(|line| (line.ingredient, line.pct)).collect();
    assert_eq!(additions, [(Ingredient::InstantYeast, 1.6), (Ingredient::Salt, 1.9)]);
}

#[test]
fn amounts_out_of_range_are_told_in_the_words_of_the_job() {
    for (amount, message) in [
        (
            AmountInput::Pieces { pieces: 0.0.into() },
            "number of pieces must be from 1 to 1000000; 0 was given",
        ),
        (
            AmountInput::Dough { kg: (-4.0).into() },
            "dough mass must be from 0.05 to 100000 kg; -4 was given",
        ),
        (
            AmountInput::Mixer { doughs: RawNumber::Missing },
            "number of full mixers is missing; from 1 to 500",
        ),
    ] {
        let mut faults = ValidationErrors::default();
        amount.check("", &mut faults);
        assert_eq!(faults.0[0].message, message);
    }
}

#[test]
fn a_run_is_split_into_the_fewest_equal_doughs() {
    for (kg, most, doughs) in
        [(160.0, 160.0, 1), (160.1, 160.0, 2), (480.0, 160.0, 3), (1.0, 160.0, 1)]
    {
        let run = scaled(Amount::Dough { kg }, 0.06, most, 165.0);
        assert_eq!(run.doughs, doughs, "{kg} kg in {most} kg");
        assert!((run.dough_kg * f64::from(doughs) - kg).abs() < 1e-9);
    }
    let full = scaled(Amount::Mixer { doughs: 3.0 }, 0.06, 160.0, 165.0);
    assert_eq!((full.doughs, full.total_kg), (3, 480.0));
}

#[test]
fn a_piece_loses_on_its_way_to_the_rack() {
    let run = scaled(Amount::Pieces { pieces: 100.0 }, 1.0, 500.0, 165.0);
    assert!((run.total_kg - 100.0 / 0.995).abs() < 1e-9);
    assert!((run.cooled_piece_kg - 0.99 * 0.88 * 0.985).abs() < 1e-9);
}

#[test]
fn what_the_scale_cannot_show_goes_to_a_finer_one() {
    for (kg, division, kg_shown, division_shown) in [
        (0.018, 0.05, 0.018, 0.0005),
        (4.21, 0.05, 4.2, 0.05),
        (0.0, 0.05, 0.0, 0.05),
        (0.26, 0.01, 0.26, 0.01),
        (0.2, 0.01, 0.2, 0.001),
    ] {
        let mass = round_to_resolution(&[kg], division, &Coefficients::default())[0];
        assert!((mass.kg - kg_shown).abs() < 1e-9, "{kg} kg shows {}", mass.kg);
        assert!(
            (mass.division_kg - division_shown).abs() < 1e-12,
            "{kg} kg on {}",
            mass.division_kg
        );
    }
    assert!(round_to_resolution(&[1e-300], 0.05, &Coefficients::default())[0].kg.is_finite());
    assert!(round_to_resolution(&[], 0.05, &Coefficients::default()).is_empty());
}

fn stage(kind: StageKind, minutes: f64, speed: Option<Speed>) -> Stage {
    Stage { speed, ..Stage::new(kind, "", minutes) }
}

fn method(stages: Vec<Stage>) -> Method {
    Method {
        process: Process::NoTime,
        target_c: 27.0,
        sponge_c: None,
        machine_divided: true,
        stages,
    }
}

#[test]
fn mixing_energy_is_minutes_times_power_at_each_speed() {
    let mixer = Mixer {
        name: "mixer".into(),
        kind: "spiral".into(),
        min_kg: 20.0,
        max_kg: 150.0,
        slow_kj_per_kg_min: 1.2,
        fast_kj_per_kg_min: 2.6,
        jacket_kj_per_kg_min: None,
    };
    let method = method(vec![
        stage(StageKind::Mix, 3.0, Some(Speed::Slow)),
        stage(StageKind::Rest, 20.0, None),
        stage(StageKind::Mix, 9.0, Some(Speed::Fast)),
        stage(StageKind::Mix, 1.0, None),
    ]);
    assert_eq!((method.mixing_min(), method.total_min()), (13.0, 33.0));
    assert!((method.mixing_kj_per_kg(&mixer) - (4.0 * 1.2 + 9.0 * 2.6)).abs() < 1e-9);
}

#[test]
fn cautions_stand_at_the_step_that_can_hurt() {
    for (kind, takes, word) in [
        (StageKind::Mix, &[][..], "locked out"),
        (StageKind::Mix, &[Ingredient::Flour][..], "dust"),
        (StageKind::Divide, &[][..], "raw dough"),
        (StageKind::Bake, &[][..], "Steam"),
    ] {
        let told = cautions_at(&stage(kind, 1.0, None), takes);
        let told: Vec<String> = told.iter().map(ToString::to_string).collect();
        assert!(told.concat().contains(word), "{kind:?}: {told:?}");
    }
    let mut proof = stage(StageKind::Proof, 50.0, None);
    assert!(cautions_at(&proof, &[]).is_empty());
    proof.humidity_pct = Some(90.0);
    assert_eq!(cautions_at(&proof, &[]), [StageCaution::WetFloor]);
    assert!(cautions_at(&stage(StageKind::Rest, 5.0, None), &[]).is_empty());
}
