//! Stand-ins for a laboratory's instruments, for the demo, for tests and for those who have none.
//!
//! A [`Sample`] is what a flour truly is; nobody sees it. Instruments measure it with the noise
//! their kind has. The same seed gives the same measurement, always.

mod alveograph;
mod crumb;
mod farinograph;
mod jar_camera;
mod laboratory;
mod oven_logger;
mod probe;
mod sample;
mod scale;
mod uptake;
mod years;

pub use alveograph::{Bubbles, run_alveograph};
pub use crumb::{CutLoaf, Picture, draw_cut_loaf};
pub use farinograph::{Titration, run_farinograph};
pub use jar_camera::run_jar_camera;
pub use laboratory::certificate;
pub use oven_logger::{Bake, LoggerTrace, run_oven_logger};
pub use probe::{ProbeTrace, run_probe};
pub use sample::Sample;
pub use scale::run_scale;
pub use years::lots_over_years;

use rand_chacha::ChaCha8Rng;
use rand_chacha::rand_core::SeedableRng;
use rand_distr::{Distribution, StandardNormal, StandardUniform};

/// The noise of a measurement.
#[derive(Debug)]
pub struct Noise(ChaCha8Rng);

impl Noise {
    pub fn seeded(seed: u64) -> Self {
        Self(ChaCha8Rng::seed_from_u64(seed))
    }

    /// Normal, with this standard deviation.
    pub fn of(&mut self, sd: f64) -> f64 {
        let unit: f64 = StandardNormal.sample(&mut self.0);
        sd * unit
    }

    /// Anywhere between two ends alike.
    fn between(&mut self, low: f64, high: f64) -> f64 {
        let unit: f64 = StandardUniform.sample(&mut self.0);
        low + (high - low) * unit
    }
}

/// Where a rising function first reaches a level between two ends.
fn solve(mut low: f64, mut high: f64, level: f64, rising: impl Fn(f64) -> f64) -> f64 {
    for _ in 0..60 {
        let middle = f64::midpoint(low, high);
        if rising(middle) < level { low = middle } else { high = middle }
    }
    f64::midpoint(low, high)
}
