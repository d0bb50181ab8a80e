//! The public calculators, from their input to their answer.

use std::hint::black_box;

use criterion::{Criterion, criterion_group, criterion_main};
use ironpeel_core::ferment::FermentationInput;
use ironpeel_core::flour::{BlendInput, FarinographInput, MoistureBasisInput};
use ironpeel_core::heat::DoughTemperatureInput;
use ironpeel_core::water::AbsorptionInput;

#[expect(clippy::too_many_lines, reason = "one after another")]
fn calculators(criterion: &mut Criterion) {
    let protein = MoistureBasisInput {
        value_pct: 13.5.into(),
        from_moisture_pct: 0.0.into(),
        to_moisture_pct: 14.0.into(),
    };
    criterion.bench_function("moisture-basis", |bench| {
        bench.iter(|| black_box(&protein).compute());
    });
    let dough: DoughTemperatureInput = serde_json::from_str(
        r#"{"parts": [
            {"name": "sponge", "kg": 114, "temperature_c": 29.5, "specific_heat": 2.8},
            {"name": "flour", "kg": 30, "temperature_c": 24, "specific_heat": 1.833},
            {"name": "other", "kg": 12, "temperature_c": 22, "specific_heat": 1.6}],
            "water_kg": 20, "tap_c": 16, "target_c": 26.5, "mixing_kj_per_kg": 22,
            "flour_wetted_kg": 30}"#,
    )
    .expect("the shape of the contract");
    let plan: FermentationInput = serde_json::from_str(
        r#"{"phases": [{"hours": 4, "ambient_c": 24}, {"hours": 40, "ambient_c": 4},
                       {"hours": 4, "ambient_c": 26}],
            "dough": {"yeast_idy_pct": 0.2, "sour_pct": 5, "salt_pct": 2, "hydration_pct": 65,
                      "damaged_starch_pct": 8, "falling_number_s": 300, "start_c": 24,
                      "mass_kg": 12},
            "rise_targets_pct": [50, 100]}"#,
    )
    .expect("the shape of the contract");
    criterion.bench_function("fermentation, 48 h at 5 minutes", |bench| {
        bench.iter(|| black_box(&plan).compute());
    });
    let water: AbsorptionInput = serde_json::from_str(
        r#"{"flour": {"moisture_pct": 13.8, "protein_14_pct": 12.9, "damaged_starch_pct": 8.2,
                      "ash_dm_pct": 0.6},
            "process": "sponge_dough",
            "lines": [{"ingredient": "salt", "pct": 1.9}, {"ingredient": "sugar", "pct": 4},
                      {"ingredient": "fat", "pct": 2.5}, {"ingredient": "milk", "pct": 6}]}"#,
    )
    .expect("the shape of the contract");
    criterion.bench_function("absorption", |bench| bench.iter(|| black_box(&water).compute()));
    criterion.bench_function("dough-temperature", |bench| {
        bench.iter(|| black_box(&dough).compute());
    });
    let t_s: Vec<f64> = (0..100_000).map(|at| f64::from(at) * 0.012).collect();
    // Noise as a pen has it, the same at every run.
    let noise = |at: usize| {
        let mixed = (at as u64)
            .wrapping_mul(0x9E37_79B9_7F4A_7C15)
            .rotate_left(23)
            .wrapping_mul(0xBF58_476D_1CE4_E5B9);
        ((mixed >> 40) as f64 / f64::from(1u32 << 24) - 0.5) * 24.0
    };
    let fu: Vec<f64> = t_s
        .iter()
        .enumerate()
        .map(|(at, t)| 500.0 * (1.0 - (-t / 70.0).exp()) - (t - 400.0).max(0.0) / 9.0 + noise(at))
        .collect();
    let band_fu = vec![22.0; t_s.len()];
    let input = FarinographInput {
        mixer_g: 300.0.into(),
        flour_moisture_pct: 14.0.into(),
        flour_g: 300.0.into(),
        water_ml: 186.0.into(),
        t_s: t_s.into(),
        fu: fu.into(),
        band_fu: band_fu.into(),
    };
    let gram = input.check().expect("in range");
    criterion.bench_function("farinograph, 100 000 noisy points", |bench| {
        bench.iter(|| black_box(&gram).read());
    });
    let flours: Vec<serde_json::Value> = (0..20)
        .map(|at| {
            let at = f64::from(at);
            serde_json::json!({
                "name": format!("flour {at}"), "price_per_t": 400.0 + 9.0 * at + 40.0 * (at * 1.7).sin(),
                "moisture_pct": 13.0 + (at * 0.9).sin(), "protein_14_pct": 10.0 + 0.2 * at,
                "ash_dm_pct": 0.5 + 0.06 * at, "damaged_starch_pct": 5.0 + 0.2 * at,
                "w": 150.0 + 10.0 * at, "falling_number_s": 250.0 + 10.0 * ((at * 2.3).sin() * 10.0),
                "max_share_pct": 40})
        })
        .collect();
    let targets = serde_json::json!([
        {"property": "protein_14_pct", "min": 12.2}, {"property": "ash_dm_pct", "max": 0.9},
        {"property": "w", "min": 250}, {"property": "falling_number_s", "min": 240, "max": 320},
        {"property": "damaged_starch_pct", "max": 7.5}]);
    let blend: BlendInput =
        serde_json::from_value(serde_json::json!({"flours": flours, "targets": targets}))
            .expect("the shape of the contract");
    criterion.bench_function("blend of 20 flours", |bench| {
        bench.iter(|| black_box(&blend).compute());
    });
}

criterion_group!(benches, calculators);
criterion_main!(benches);
