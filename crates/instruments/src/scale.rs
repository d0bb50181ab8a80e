use crate::Noise;

/// Of what was wanted, a hand is so far off when it stops pouring, 1 σ.
const HAND: f64 = 0.002;

/// What a scale shows, to its division, when somebody weighs so much by hand.
pub fn run_scale(wanted_kg: f64, division_kg: f64, seed: u64) -> f64 {
    let mut noise = Noise::seeded(seed);
    let poured = wanted_kg + noise.of(HAND * wanted_kg.abs());
    let divisions = (poured / division_kg).round().max(0.0);
    // Told as the scale's own decimals.
    (divisions * division_kg * 1e6).round() / 1e6
}
