use crate::Noise;

/// Noise of a level read off a picture, points of rise.
const NOISE_PCT: f64 = 2.0;

/// What a camera beside the sample jar reads of a rise, whole points.
pub fn run_jar_camera(truly_pct: f64, seed: u64) -> f64 {
    (truly_pct + Noise::seeded(seed).of(NOISE_PCT)).round().max(-20.0)
}
