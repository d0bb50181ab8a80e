use crate::Noise;

/// Noise of a probe in a loaf, °C.
const NOISE_C: f64 = 0.15;
/// Where a core ends that is baked for long, °C.
const BOILS_C: f64 = 98.5;
/// When a crumb is set, °C.
const SET_C: f64 = 93.0;
/// How steeply a core rises once the heat has come to it.
const STEEP: f64 = 2.7;

/// A bake as it truly is, and nobody sees.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Bake {
    pub bake_min: f64,
    /// Of the dough at oven entry, °C.
    pub start_c: f64,
    /// When the slowest core is set, % of the bake.
    pub arrival_pct: f64,
    /// From the first core set to the last, min.
    pub spread_min: f64,
}

/// What a logger with several probes wrote.
#[derive(Debug, Clone, PartialEq)]
pub struct LoggerTrace {
    pub t_min: Vec<f64>,
    pub probes: Vec<(String, Vec<f64>)>,
}

/// Sends a logger through the oven: `T = end − (end − start)·e^(−(t/τ)^2.7)`, τ so that each probe
/// comes to 93 °C when it truly does; a sample every so many minutes.
pub fn run_oven_logger(bake: Bake, probes: usize, every_min: f64, seed: u64) -> LoggerTrace {
    let mut noise = Noise::seeded(seed);
    let samples = (bake.bake_min / every_min).ceil() as usize;
    let t_min: Vec<f64> = (0..=samples).map(|at| at as f64 * every_min).collect();
    let slowest = bake.bake_min * bake.arrival_pct / 100.0;
    let steps = probes.saturating_sub(1).max(1) as f64;
    let probes = (0..probes)
        .map(|at| {
            let arrives = slowest - bake.spread_min * at as f64 / steps;
            let depth = ((BOILS_C - bake.start_c) / (BOILS_C - SET_C)).ln();
            let tau = arrives / depth.powf(1.0 / STEEP);
            let read = t_min.iter().map(|t| {
                let truly = BOILS_C - (BOILS_C - bake.start_c) * (-(t / tau).powf(STEEP)).exp();
                ((truly + noise.of(NOISE_C)) * 10.0).round() / 10.0
            });
            (format!("Probe {}", at + 1), read.collect())
        })
        .collect();
    LoggerTrace { t_min, probes }
}

impl LoggerTrace {
    /// The same with one probe that fell out of its loaf and reads the oven from a minute on.
    #[must_use]
    pub fn fell_out(mut self, probe: usize, from_min: f64, oven_c: f64) -> Self {
        if let Some((_, read)) = self.probes.get_mut(probe) {
            let later = self.t_min.iter().zip(read).filter(|(t, _)| **t >= from_min);
            later.for_each(|(_, c)| *c = oven_c);
        }
        self
    }
}
