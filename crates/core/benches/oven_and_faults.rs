//! A long logger's file, and a diagnosis with all its evidence.

use std::hint::black_box;

use criterion::{Criterion, criterion_group, criterion_main};
use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::fault::{DiagnoseInput, diagnose};
use ironpeel_core::oven::BakeTraceInput;
use serde_json::json;

/// Wanted within 20 ms.
fn sixteen_probes(criterion: &mut Criterion) {
    const SAMPLES: u32 = 20_000;
    let minutes = |at: u32| f64::from(at) * 30.0 / f64::from(SAMPLES);
    let core = |probe: u32| {
        let rate = 0.12 - 0.002 * f64::from(probe);
        (0..SAMPLES).map(move |at| 98.0 - 70.0 * (-(rate * minutes(at)).powi(2)).exp())
    };
    let probes: Vec<_> = (0..16)
        .map(|probe| json!({"name": format!("probe {probe}"), "core_c": core(probe).collect::<Vec<f64>>()}))
        .collect();
    let t_min: Vec<f64> = (0..SAMPLES).map(minutes).collect();
    let input: BakeTraceInput =
        serde_json::from_value(json!({"bake_min": 30, "t_min": t_min, "probes": probes}))
            .expect("the shape of the contract");
    let house = Coefficients::default();
    let read = input.compute(&house).expect("in range");
    assert_eq!(read.probes.len(), 16, "every probe arrives");
    criterion.bench_function("bake-trace, 16 probes of 20 000 samples", |bench| {
        bench.iter(|| black_box(&input).compute(&house));
    });
}

/// Wanted within 1 ms.
fn smearing(criterion: &mut Criterion) {
    let input: DiagnoseInput = serde_json::from_value(json!({
        "fault": "smearing", "gates": ["sponge", "ferment", "tin", "wheat"], "features": {
            "damaged_starch_pct": 10.9, "damaged_starch_d_pts": 2.6, "falling_number_s": 318,
            "amylase_added": 0, "water_over_plan_pts": 2.1, "water_late_pts": 1.6,
            "water_vs_floor_pts": -0.4, "ds_trap": 2, "arrival_d_pts": 11.4, "core_end_d_c": -0.2,
            "bake_loss_d_pts": -0.8, "bake_time_d_pct": 0, "core_slice_c": 36.5, "slice_age_h": 2.3,
            "cool_time_d_pct": 0, "blade_h": 22, "where_lane": 0, "where_new_lot": 1}}))
    .expect("the shape of the contract");
    let house = Coefficients::default();
    let asked = input.check().expect("it is known");
    assert_eq!(diagnose(&asked, &house).causes[0].cause, "ds_trap_water");
    criterion.bench_function("diagnose", |bench| {
        bench.iter(|| diagnose(black_box(&asked), &house));
    });
}

criterion_group!(benches, sixteen_probes, smearing);
criterion_main!(benches);
