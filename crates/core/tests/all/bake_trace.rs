//! Bake traces: what is read of them, through noise and where little is to be read.

use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::oven::{
    BakeTrace, BakeTraceInput, LoggerColumn, LoggerProbes, LoggerUnit, ProbeInput,
};
use ironpeel_core::units::{Series, ValidationErrors};
use proptest::prelude::*;
use serde_json::{Value, json};

fn read(input: &Value) -> Result<BakeTrace, ValidationErrors> {
    let input: BakeTraceInput = serde_json::from_value(input.clone()).expect("an input");
    input.compute(&Coefficients::default())
}

#[test]
fn several_probes_have_a_slowest_and_a_spread() {
    let found = read(&json!({"t_min": [0, 5, 10, 15, 20], "bake_min": 20, "probes": [
        {"name": "left", "core_c": [30, 50, 70, 90, 98]},
        {"name": "middle", "core_c": [30, 45, 65, 85, 95]}]}))
    .expect("read");
    assert_eq!(found.slowest.as_deref(), Some("middle"));
    let arrivals: Vec<f64> = found.probes.iter().filter_map(|one| one.arrival_min).collect();
    assert!((arrivals[0] - 16.875).abs() < 1e-9 && (arrivals[1] - 19.0).abs() < 1e-9);
    assert!((found.spread_min.expect("both arrive") - 2.125).abs() < 1e-9);
    assert!((found.bake_min_for_target.expect("both") - 19.0 / 0.85).abs() < 1e-9);
    assert!((found.steam_until_min.expect("of the slowest") - 13.75).abs() < 1e-9);
    assert!(found.notes.is_empty());
}

#[test]
fn what_a_trace_does_not_say_is_noted() {
    let found = read(&json!({"t_min": [0, 5, 10, 15, 18], "bake_min": 20, "probes": [
        {"name": "par-baked", "core_c": [60, 70, 80, 90, 96]},
        {"name": "in the crust", "core_c": [30, 50, 60, 70, 75]}]}))
    .expect("read");
    assert_eq!(found.probes[0].yeast_kill_min, None);
    assert_eq!(found.probes[1].arrival_min, None);
    assert_eq!((found.bake_min_for_target, found.spread_min), (None, None));
    assert_eq!(found.slowest.as_deref(), Some("in the crust"));
    assert!((found.probes[0].end_c - 96.0).abs() < 1e-9, "of the last sample");
    let notes: Vec<String> = found.notes.iter().map(ToString::to_string).collect();
    assert!(notes.iter().any(|note| note.contains("ends after 18.0 of 20.0 min")), "{notes:?}");
    assert!(notes.iter().any(|note| note.contains("par-baked begins above 56 °C")), "{notes:?}");
    assert!(notes.iter().any(|note| note.contains("in the crust never arrives")), "{notes:?}");
}

#[test]
fn bad_traces_are_refused_at_their_fields() {
    let faults = |input: Value| -> Vec<String> {
        let faults = read(&input).expect_err("it cannot be read");
        faults.0.into_iter().map(|one| one.field).collect()
    };
    let good = json!({"t_min": [0, 1, 2, 3, 4], "bake_min": 4,
        "probes": [{"name": "1", "core_c": [30, 40, 50, 60, 70]}]});
    let with = |path: &str, value: Value| {
        let mut input = good.clone();
        *input.pointer_mut(path).expect(path) = value;
        input
    };
    assert!(read(&good).is_ok());
    assert_eq!(faults(with("/t_min", json!([0, 1, 1, 3, 4]))), ["t_min[2]"]);
    assert_eq!(faults(with("/t_min", json!([0, 1, 2]))), ["t_min"]);
    assert_eq!(faults(with("/bake_min", json!(0))), ["bake_min"]);
    assert_eq!(faults(with("/probes", json!([]))), ["probes"]);
    let unequal = json!([30, 40, 50, 60, 70, 80]);
    assert_eq!(faults(with("/probes/0/core_c", unequal)), ["probes[0].core_c"]);
    let fahrenheit = json!([86, 104, 122, 140, 158]);
    assert_eq!(faults(with("/probes/0/core_c", fahrenheit)), ["probes[0].core_c[2]"]);
}

/// A core that warms as a loaf does: slowly, fast, and towards the boiling point.
fn core_c(t_min: f64, half_min: f64, speed: f64) -> f64 {
    30.0 + 69.0 / (1.0 + (-(t_min - half_min) / speed).exp())
}

/// Numbers of a normal distribution, from a seed.
fn normal(seed: &mut u64) -> f64 {
    let mut uniform = || {
        *seed =
            seed.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        ((*seed >> 11) as f64 + 0.5) / (1_u64 << 53) as f64
    };
    (-2.0 * uniform().ln()).sqrt() * (std::f64::consts::TAU * uniform()).cos()
}

fn crossings(t_min: &[f64], core_c: Vec<f64>) -> [Option<f64>; 3] {
    let input = BakeTraceInput {
        t_min: t_min.to_vec().into(),
        probes: vec![ProbeInput { name: "1".into(), core_c: Series::from(core_c) }],
        bake_min: 25.0.into(),
        ..BakeTraceInput::default()
    };
    let found = input.compute(&Coefficients::default()).expect("read");
    let probe = &found.probes[0];
    [probe.yeast_kill_min, probe.gelatinised_min, probe.arrival_min]
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 400, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn half_a_degree_of_noise_moves_a_crossing_by_a_sample_at_most(
        seed in any::<u64>(), half_min in 9.0..13.0, speed in 2.0..3.2,
        every_min in prop::sample::select(vec![0.1, 0.25, 0.5, 1.0, 2.0]),
    ) {
        let many = (30.0 / every_min) as usize;
        let t_min: Vec<f64> = (0..=many).map(|at| at as f64 * every_min).collect();
        let clean: Vec<f64> = t_min.iter().map(|t| core_c(*t, half_min, speed)).collect();
        let mut state = seed;
        let noisy = clean.iter().map(|c| c + 0.5 * normal(&mut state)).collect();
        let is = crossings(&t_min, clean);
        let read = crossings(&t_min, noisy);
        for (is, read) in is.into_iter().zip(read) {
            if let (Some(is), Some(read)) = (is, read) {
                prop_assert!((is - read).abs() <= f64::max(every_min, 0.25), "{is} read as {read}");
            }
        }
    }

    #[test]
    fn without_noise_crossings_are_exact(half_min in 9.0..13.0, speed in 2.0..3.2,
        every_min in prop::sample::select(vec![0.05, 0.25, 0.5, 1.0, 3.0])) {
        let many = (30.0 / every_min) as usize;
        let t_min: Vec<f64> = (0..=many).map(|at| at as f64 * every_min).collect();
        let clean: Vec<f64> = t_min.iter().map(|t| core_c(*t, half_min, speed)).collect();
        let between = |level: f64| {
            let at = clean.windows(2).position(|pair| pair[0] < level && level <= pair[1])?;
            let share = (level - clean[at]) / (clean[at + 1] - clean[at]);
            Some(t_min[at] + share * (t_min[at + 1] - t_min[at]))
        };
        for (read, level) in crossings(&t_min, clean.clone()).into_iter().zip([56.0, 82.0, 93.0]) {
            prop_assert_eq!(read.is_some(), between(level).is_some());
            prop_assert!(read.zip(between(level)).is_none_or(|(a, b)| (a - b).abs() < 1e-9));
        }
    }
}

fn column(name: &str, samples: &[f64]) -> LoggerColumn {
    LoggerColumn { name: name.into(), samples: samples.iter().copied().map(Some).collect() }
}

#[test]
fn a_logger_that_names_no_unit_is_asked_for_it() {
    let house = Coefficients::default();
    let hot = || vec![column("1", &[82.0, 150.0, 203.0]), column("2", &[80.0, 148.0, 201.0])];
    let t_min = [0.0, 10.0, 20.0];
    let asked = LoggerProbes::of(&t_min, hot(), None, &house).expect_err("which is it?");
    assert!(asked.to_string().contains("203") && asked.to_string().contains("°F"), "{asked}");
    let read = LoggerProbes::of(&t_min, hot(), Some(LoggerUnit::Fahrenheit), &house).expect("°F");
    assert!((read.probes[1].core_c[2] - 93.9).abs() < 0.05 && read.left_out.is_empty());
}

#[test]
fn a_probe_that_fell_out_is_named_and_left_out() {
    let house = Coefficients::default();
    let silent = LoggerColumn { name: "3".into(), samples: vec![Some(28.0), None, None] };
    let columns = vec![column("1", &[28.0, 60.0, 95.0]), column("2", &[28.0, 60.0, 210.0]), silent];
    let read = LoggerProbes::of(&[0.0, 10.0, 20.0], columns, None, &house).expect("one is left");
    assert_eq!(read.probes.len(), 1);
    let said: Vec<String> = read.left_out.iter().map(ToString::to_string).collect();
    assert!(said[0].contains("2 read 210 °C at 20.0 min"), "{said:?}");
    assert!(said[1].contains("3 wrote nothing at 10.0 min"), "{said:?}");
}
