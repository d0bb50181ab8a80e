use ironpeel_core::flour::Row;

use crate::{Noise, Sample};

/// The certificate a laboratory would write of a sample: each figure off by what its method
/// repeats to, and rounded as the method is.
pub fn certificate(sample: &Sample, seed: u64) -> Vec<Row> {
    let mut noise = Noise::seeded(seed);
    let m = sample.moisture_pct;
    let figures: [(&str, f64, f64, usize, &str, &str, &str); 13] = [
        ("moisture", m, 0.05, 1, "%", "as is", "ISO 712"),
        ("protein", sample.protein_14_pct, 0.05, 1, "%", "14 %", "ISO 16634-2"),
        ("ash", sample.ash_dm_pct, 0.005, 2, "%", "dry matter", "ISO 2171"),
        ("wet gluten", 2.43 * sample.protein_14_pct, 0.3, 1, "%", "14 %", "ISO 21415-2"),
        ("falling number", sample.falling_number_s, 6.0, 0, "s", "", "ISO 3093"),
        ("damaged starch", sample.damaged_starch_pct, 0.12, 1, "%", "as is", "AACC 76-31"),
        ("absorption", sample.absorption_14_pct, 0.15, 1, "%", "14 %", "ISO 5530-1"),
        ("development", sample.development_min, 0.1, 1, "min", "", "ISO 5530-1"),
        ("stability", sample.stability_min, 0.2, 1, "min", "", "ISO 5530-1"),
        ("softening", sample.softening_fu, 2.0, 0, "FU", "", "ISO 5530-1"),
        ("P", sample.p_mmh2o, 1.0, 0, "mmH2O", "", "ISO 27971"),
        ("L", sample.l_mm, 2.0, 0, "mm", "", "ISO 27971"),
        ("W", sample.w, 4.0, 0, "10-4 J", "", "ISO 27971"),
    ];
    figures
        .into_iter()
        .map(|(property, value, sd, decimals, unit, basis, method)| Row {
            property: property.into(),
            value: format!("{:.decimals$}", (value + noise.of(sd)).max(0.0)),
            unit: unit.into(),
            basis: basis.into(),
            method: method.into(),
        })
        .collect()
}
