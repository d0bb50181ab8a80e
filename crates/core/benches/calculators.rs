//! The two public calculators, from their input to their answer.

use std::hint::black_box;

use criterion::{Criterion, criterion_group, criterion_main};
use ironpeel_core::flour::MoistureBasisInput;
use ironpeel_core::heat::DoughTemperatureInput;

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
    criterion.bench_function("dough-temperature", |bench| {
        bench.iter(|| black_box(&dough).compute());
    });
}

criterion_group!(benches, calculators);
criterion_main!(benches);
