//! Methods: what each stage is for, what may be typed, and steps with two schools.

use crate::support::near;
use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::dough::Ingredient;
use ironpeel_core::method::{
    Addition, AdditionPoint, ConditioningDemand, ConditioningMeans, ConditioningReason, EndPoint,
    FlourStrength, Method, MethodDraft, Mixer, OptionalStep, Process, Speed, Stage, StageCaution,
    StageKind, StageRole, TimeTolerance, cautions_of, conditioning, developments,
};
use ironpeel_core::units::ValidationErrors;
use proptest::prelude::*;
use serde_json::{Value, json};
use uuid::Uuid;

fn mix(label: &str, minutes: f64, adds: &[Ingredient]) -> Stage {
    Stage {
        speed: Some(Speed::Slow),
        adds: adds.iter().copied().map(Addition::rest_of).collect(),
        ..Stage::new(StageKind::Mix, label, minutes)
    }
}

fn straight() -> Method {
    Method {
        process: Process::StraightBulk,
        target_c: 25.0,
        sponge_c: None,
        machine_divided: false,
        stages: vec![
            mix("Bring together", 4.0, &[]),
            mix("Develop", 8.0, &[]),
            Stage::new(StageKind::Rest, "Bulk", 100.0),
            Stage::new(StageKind::Divide, "Divide", 10.0),
            Stage::new(StageKind::Rest, "Bench rest", 20.0),
            Stage::new(StageKind::Proof, "Proof", 60.0),
            Stage::new(StageKind::Bake, "Bake", 30.0),
        ],
    }
}

fn faults(draft: Value) -> Vec<(String, String)> {
    let draft: MethodDraft = serde_json::from_value(draft).expect("the shape of the contract");
    let mut faults = ValidationErrors::default();
    draft.check("", &mut faults);
    faults.0.into_iter().map(|fault| (fault.field, fault.message)).collect()
}

#[test]
fn a_stage_is_what_its_place_makes_it() {
    let mut method = straight();
    method.process = Process::SpongeDough;
    method.stages.insert(0, Stage::new(StageKind::Rest, "Sponge", 210.0));
    method.stages.insert(0, Stage::new(StageKind::Rest, "Yeast in water", 10.0));
    method.stages.insert(3, Stage::new(StageKind::Rest, "Rest", 20.0));
    method.stages.insert(
        6,
        Stage { temperature_c: Some(4.0), ..Stage::new(StageKind::Rest, "Cold", 600.0) },
    );
    assert_eq!(
        method.roles(),
        [
            StageRole::Before,
            StageRole::Sponge,
            StageRole::Mixing,
            StageRole::Autolyse,
            StageRole::Mixing,
            StageRole::Floor,
            StageRole::Cold,
            StageRole::Dividing,
            StageRole::Intermediate,
            StageRole::Proof,
            StageRole::Bake,
        ]
    );
}

#[test]
fn a_dough_can_wait_where_it_lies_and_not_under_hands() {
    let mut method = straight();
    method.stages[2].tolerance = Some(TimeTolerance { low_min: 80.0, high_min: 130.0 });
    let waits = method.waits(&Coefficients::default());
    near(waits[2], 30.0, 1e-9);
    near(waits[5], 12.0, 1e-9);
    assert_eq!((waits[0], waits[3], waits[6]), (0.0, 0.0, 0.0));
    for (usual, stage) in method.usual(&Coefficients::default()).iter().zip(&method.stages) {
        assert!(!usual.message.is_empty(), "{}", stage.label);
        let bands = [usual.minutes, usual.temperature_c, usual.humidity_pct];
        for band in bands.into_iter().flatten() {
            assert!(band.low <= band.typical && band.typical <= band.high);
        }
    }
}

#[test]
fn what_no_dough_can_be_made_by_is_refused_at_its_place() {
    let found = faults(json!({
    "process": "no_time", "target_c": 70,
    "stages": [
        {"kind": "proof", "label": " ", "minutes": -1},
        {"kind": "bake", "label": "Bake", "minutes": "soon", "humidity_pct": 130},
        {"kind": "rest", "label": "Rest", "minutes": 30, "tolerance": {"low_min": 40, "high_min": 60}},
        {"kind": "rest", "label": "Rest", "minutes": 30, "tolerance": {"low_min": 40, "high_min": 20}},
    ]}));
    let fields: Vec<&str> = found.iter().map(|(field, _)| field.as_str()).collect();
    assert_eq!(
        fields,
        [
            "stages",
            "target_c",
            "stages[0].label",
            "stages[0].minutes",
            "stages[1].minutes",
            "stages[1].humidity_pct",
            "stages[2].minutes",
            "stages[3].tolerance.high_min",
        ]
    );
    assert_eq!(found[6].1, "30 min are planned, and 40 to 60 are allowed here");
    let many: Vec<Value> =
        (0..50).map(|_| json!({"kind": "mix", "label": "Mix", "minutes": 1})).collect();
    let found = faults(json!({"process": "no_time", "target_c": 27, "stages": many}));
    assert_eq!(found, [("stages".to_owned(), "up to 40 stages; 50 were given".to_owned())]);
}

#[test]
fn what_was_typed_becomes_the_method() {
    let draft: MethodDraft = serde_json::from_value(json!({
    "process": "sponge_dough", "target_c": 26.5, "machine_divided": true,
    "stages": [
        {"kind": "mix", "label": " Mix ", "minutes": 9, "speed": "fast", "end_point": "windowpane",
         "ends_when": "thin enough", "reason": "all of it", "adds": ["salt"], "ends_at": 75},
        {"kind": "proof", "label": "Proof", "minutes": 58, "speed": "fast", "temperature_c": 36,
         "humidity_pct": 85, "tolerance": {"low_min": 45, "high_min": 70}, "ends_at": 75},
    ]}))
    .expect("the shape of the contract");
    let mut faults = ValidationErrors::default();
    let method = draft.check("", &mut faults);
    assert_eq!(faults, ValidationErrors::default());
    assert_eq!(method.stages[0].label, "Mix");
    assert_eq!(method.stages[0].end_point, EndPoint::Windowpane);
    assert_eq!(method.stages[1].speed, None, "only a mixer has one");
    assert_eq!(method.stages[1].ends_at, Some(75.0));
    assert_eq!(method.stages[0].ends_at, None, "no dough rises under the mixer");
    assert_eq!(method.stages[1].tolerance, Some(TimeTolerance { low_min: 45.0, high_min: 70.0 }));
}

#[test]
fn what_can_hurt_is_said_at_its_stage() {
    let mut method = straight();
    method.stages.insert(
        4,
        Stage { temperature_c: Some(-30.0), ..Stage::new(StageKind::Rest, "Freeze", 60.0) },
    );
    let told = cautions_of(&method);
    assert_eq!(told.len(), method.stages.len());
    assert_eq!(told[0], [StageCaution::FlourDust, StageCaution::MixerGuard]);
    assert!(!told[1].contains(&StageCaution::FlourDust), "no flour goes in there");
    assert_eq!((&*told[4], &*told[7]), (&[StageCaution::Freezer][..], &[StageCaution::Steam][..]));
}

#[test]
fn an_autolyse_left_out_is_one_more_set_of_folds() {
    let with = straight().with(OptionalStep::Autolyse, true, &Coefficients::default());
    let labels = |method: &Method| -> Vec<String> {
        method.stages.iter().map(|stage| stage.label.clone()).collect()
    };
    assert_eq!(labels(&with)[..3], ["Flour and water", "Autolyse", "Bring together"]);
    assert!(with.stages[2].takes(Ingredient::Salt), "salt waits for the rest");
    let without = with.with(OptionalStep::Autolyse, false, &Coefficients::default());
    assert!(!labels(&without).contains(&"Autolyse".to_owned()));
    let fold = without.stages.iter().position(|stage| stage.kind == StageKind::Fold);
    let fold = fold.expect("a set of folds in its place");
    near(without.stages[fold - 1].minutes + without.stages[fold + 1].minutes, 100.0, 1e-9);
    assert_eq!(
        straight().with(OptionalStep::Autolyse, false, &Coefficients::default()),
        straight(),
        "nothing to leave out"
    );
}

#[test]
fn salt_held_back_goes_in_at_three_quarters_of_mixing() {
    let late = straight().with(OptionalStep::SaltLate, true, &Coefficients::default());
    let mut mixed = 0.0;
    for stage in &late.stages {
        if stage.takes(Ingredient::Salt) {
            break;
        }
        mixed += stage.minutes;
    }
    near(mixed, 9.0, 1e-9);
    near(late.mixing_min(), straight().mixing_min(), 1e-9);
    let back = late.with(OptionalStep::SaltLate, false, &Coefficients::default());
    assert!(back.stages.iter().all(|stage| !stage.takes(Ingredient::Salt)));
}

#[test]
fn oxidation_is_by_strength_age_and_time() {
    let flour = |w, age| FlourStrength { w: Some(w), p_over_l: Some(0.7), age_days: Some(age) };
    let need = |flour, process| conditioning(flour, process, &Coefficients::default())[0].need;
    assert_eq!(need(flour(300.0, 6.0), Process::NoTime), ConditioningDemand::Usual);
    assert_eq!(need(flour(150.0, 6.0), Process::NoTime), ConditioningDemand::Much);
    assert_eq!(need(flour(300.0, 6.0), Process::SpongeDough), ConditioningDemand::Little);
    assert!(need(flour(300.0, 1.0), Process::SpongeDough) > ConditioningDemand::Little);
    let green = &conditioning(flour(300.0, 1.0), Process::SpongeDough, &Coefficients::default())[0];
    assert_eq!(green.goes_into, AdditionPoint::Sponge);
    let tenacious = FlourStrength { p_over_l: Some(1.3), ..FlourStrength::default() };
    let [_, relaxation] = conditioning(tenacious, Process::StraightBulk, &Coefficients::default());
    assert_eq!(
        (relaxation.help, relaxation.need),
        (ConditioningMeans::Relaxation, ConditioningDemand::Usual)
    );
    assert_eq!(relaxation.because, [ConditioningReason::TenaciousPOverL(1.3)]);
}

#[test]
fn a_mixer_of_no_power_develops_nothing() {
    let mixer = Mixer {
        name: "by hand".into(),
        kind: "scenario".into(),
        min_kg: 0.2,
        max_kg: 5.0,
        slow_kj_per_kg_min: 0.1,
        fast_kj_per_kg_min: 0.0,
        jacket_kj_per_kg_min: None,
    };
    let found = developments(&straight(), &mixer, &Coefficients::default());
    assert!(found.iter().all(|one| one.fast_min.is_none()));
    near(found[3].warms_c.typical, 36.0 / 2.8, 1e-9);
}

proptest! {
    #[test]
    fn a_choice_taken_is_seen_taken_and_costs_no_mixing(
        minutes in proptest::collection::vec(1.0..12.0f64, 1..5), bulk in 10.0..240.0,
    ) {
        let mut method = straight();
        let own = minutes.iter().map(|minutes| mix("Mix", *minutes, &[]));
        method.stages.splice(0..2, own);
        let at = method.stages.iter().position(|stage| stage.label == "Bulk").expect("it lies");
        method.stages[at].minutes = bulk;
        for choice in OptionalStep::ALL {
            for taken in [true, false] {
                let then = method.with(choice, taken, &Coefficients::default());
                let message = then.optional();
                let one = message.iter().find(|one| one.choice == choice).expect("all are told of");
                prop_assert_eq!(one.taken, taken, "{:?}", choice);
                if choice != OptionalStep::Autolyse {
                    prop_assert!((then.mixing_min() - method.mixing_min()).abs() < 1e-9);
                }
                prop_assert!(then.stages.iter().all(|stage| stage.minutes > 0.0));
            }
        }
    }
}

#[test]
fn a_stage_is_the_same_one_whatever_becomes_of_the_others() {
    let house = Coefficients::default();
    let mut method = straight();
    for (number, stage) in (1..).zip(&mut method.stages) {
        stage.id = Some(Uuid::from_u128(number));
    }
    let ids = |method: &Method| -> Vec<Uuid> {
        method.stages.iter().filter_map(|stage| stage.id).collect()
    };
    for step in OptionalStep::ALL {
        let taken = method.with(step, !method.takes(step), &house);
        assert_ne!(taken, method, "{step:?}");
        let (kept, before) = (ids(&taken), ids(&method));
        let mut once = kept.clone();
        once.dedup();
        assert_eq!(kept, once, "{step:?}: a copy is a stage of its own");
        assert!(kept.iter().all(|id| before.contains(id)), "{step:?}");
    }
    let other = method.other_process(&house);
    assert!(ids(&other).len() > 2, "what stays is the same");
    assert!(other.stages.iter().any(|stage| stage.id.is_none()), "what is new is new");
}

#[test]
fn an_optional_step_is_known_by_its_kind_and_not_by_what_it_is_called() {
    let house = Coefficients::default();
    for step in OptionalStep::ALL {
        let mut taken = straight().with(step, true, &house);
        for stage in &mut taken.stages {
            stage.label = "Etwas".into();
        }
        assert!(taken.takes(step), "{step:?}");
        assert!(!taken.with(step, false, &house).takes(step), "{step:?}");
    }
}

#[test]
fn one_stage_does_not_stand_twice() {
    let mix = json!({"id": "00000000-0000-0000-0000-000000000001", "kind": "mix", "label": "Mix", "minutes": 4});
    let found = faults(json!({"process": "no_time", "target_c": 27, "stages": [mix, mix]}));
    assert_eq!(found.len(), 1);
    assert!(found[0].1.contains("stands twice"), "{found:?}");
}
