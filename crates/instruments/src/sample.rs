use ironpeel_core::flour::{MoistureBasis, Property, Readings};

use crate::Noise;
use crate::uptake::uptake;

/// What a flour truly is.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Sample {
    pub moisture_pct: f64,
    pub protein_14_pct: f64,
    pub ash_dm_pct: f64,
    pub damaged_starch_pct: f64,
    pub falling_number_s: f64,
    pub absorption_14_pct: f64,
    pub development_min: f64,
    pub stability_min: f64,
    /// Fall of the centre line 12 min after the peak, FU.
    pub softening_fu: f64,
    pub p_mmh2o: f64,
    pub l_mm: f64,
    pub w: f64,
}

impl Sample {
    /// A flour that a certificate of it could have been written of: its figures, each off by what
    /// its method repeats to. What the certificate lacks is filled in from what usually goes with
    /// the rest.
    pub fn behind(certificate: &Readings, seed: u64) -> Self {
        let mut noise = Noise::seeded(seed);
        let mut of = |property, basis, usual: f64, sd: f64| {
            certificate.value(property, basis).unwrap_or(usual) + noise.of(sd)
        };
        let moisture_pct = of(Property::Moisture, None, 14.0, 0.07);
        let protein_14_pct = of(Property::Protein, Some(MoistureBasis::Fourteen), 12.0, 0.07);
        let ash_dm_pct = of(Property::Ash, Some(MoistureBasis::DryMatter), 0.6, 0.006);
        let damaged_starch_pct = of(Property::DamagedStarch, Some(MoistureBasis::AsIs), 7.5, 0.12);
        let absorption =
            60.2 + uptake([protein_14_pct - 12.0, damaged_starch_pct - 7.5, ash_dm_pct - 0.6]);
        let strong = (protein_14_pct - 9.0).max(0.5);
        let p_mmh2o = of(Property::P, None, 20.0 + 0.9 * absorption, 1.5);
        let l_mm = of(Property::L, None, 95.0, 2.5);
        Self {
            moisture_pct,
            protein_14_pct,
            ash_dm_pct,
            damaged_starch_pct,
            falling_number_s: of(Property::FallingNumber, None, 330.0, 6.0),
            absorption_14_pct: of(
                Property::Absorption,
                Some(MoistureBasis::Fourteen),
                absorption,
                0.15,
            ),
            development_min: of(Property::Development, None, 1.4 * strong, 0.12).max(1.0),
            stability_min: of(Property::Stability, None, 2.6 * strong, 0.2).max(2.0),
            softening_fu: of(Property::Softening, None, 130.0 - 20.0 * strong, 2.0).max(8.0),
            p_mmh2o,
            l_mm,
            w: of(Property::W, None, 0.038 * p_mmh2o * l_mm, 4.0),
        }
    }
}
