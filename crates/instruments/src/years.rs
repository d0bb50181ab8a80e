use crate::uptake::uptake;
use crate::{Noise, Sample};

/// How much of its distance from the usual a mill's flour keeps from one lot to the next.
const KEPT: f64 = 0.2;

/// The lots of a flour over the years, oldest first: each a little off the usual, and a little like
/// the one before.
pub fn lots_over_years(usual: &Sample, lots: usize, seed: u64) -> Vec<Sample> {
    let mut noise = Noise::seeded(seed);
    // Protein, ash, damaged starch, falling number, moisture, and strength beyond protein's.
    let sds = [0.19, 0.009, 0.33, 12.0, 0.18, 8.0];
    let mut off = [0.0; 6];
    let mut next = || {
        for (off, sd) in off.iter_mut().zip(sds) {
            *off = KEPT * *off + noise.of(sd);
        }
        let [protein, ash, damaged, falling, moisture, strength] = off;
        Sample {
            moisture_pct: usual.moisture_pct + moisture,
            protein_14_pct: usual.protein_14_pct + protein,
            ash_dm_pct: usual.ash_dm_pct + ash,
            damaged_starch_pct: usual.damaged_starch_pct + damaged,
            falling_number_s: usual.falling_number_s + falling,
            absorption_14_pct: usual.absorption_14_pct + uptake([protein, damaged, ash]),
            development_min: (usual.development_min + 0.9 * protein).max(1.0),
            stability_min: (usual.stability_min + 1.8 * protein + 0.02 * strength).max(1.5),
            softening_fu: (usual.softening_fu - 14.0 * protein).max(8.0),
            p_mmh2o: usual.p_mmh2o + 3.0 * damaged,
            l_mm: usual.l_mm + 6.0 * protein - 2.0 * damaged,
            w: usual.w + 26.0 * protein + strength,
        }
    };
    (0..lots).map(|_| next()).collect()
}
