use crate::Noise;

/// Noise of a reading, °C.
const NOISE_C: f64 = 0.1;

/// What a probe in a dough or a loaf wrote down, and when.
#[derive(Debug, Clone, PartialEq)]
pub struct ProbeTrace {
    pub t_min: Vec<f64>,
    pub core_c: Vec<f64>,
}

/// Reads a temperature that runs so over the minutes, every so many of them.
pub fn run_probe(
    truly_c: impl Fn(f64) -> f64,
    readings: usize,
    every_min: f64,
    seed: u64,
) -> ProbeTrace {
    let mut noise = Noise::seeded(seed);
    let t_min: Vec<f64> = (0..readings).map(|at| at as f64 * every_min).collect();
    let core_c = t_min.iter().map(|t| ((truly_c(*t) + noise.of(NOISE_C)) * 10.0).round() / 10.0);
    ProbeTrace { core_c: core_c.collect(), t_min }
}

impl ProbeTrace {
    /// The same by a probe that drifts by so much an hour.
    #[must_use]
    pub fn drifting(mut self, c_per_h: f64) -> Self {
        for (t, c) in self.t_min.iter().zip(&mut self.core_c) {
            *c += c_per_h * t / 60.0;
        }
        self
    }

    /// The same with one reading off by so much.
    #[must_use]
    pub fn spiked(mut self, reading: usize, off_c: f64) -> Self {
        if let Some(c) = self.core_c.get_mut(reading) {
            *c += off_c;
        }
        self
    }
}
