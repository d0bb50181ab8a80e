//! When a probe's temperature first rises through a level.

use nalgebra::{Matrix3, Vector3};

/// A probe's samples: minutes, and °C as they are read.
#[derive(Debug, Clone)]
pub(super) struct Samples {
    t_min: Vec<f64>,
    core_c: Vec<f64>,
    first_c: f64,
}

/// How noise is told and read through.
#[derive(Debug, Clone, Copy)]
pub(super) struct Smoothing {
    pub noisy_c: f64,
    pub half_min: f64,
}

/// The scale from a median of absolute deviations to 1 σ of a normal distribution, and of a sample
/// beside the middle of its two neighbours: √1.5.
const MEDIAN_TO_SD: f64 = 1.4826;
const BESIDE_TWO: f64 = 1.224_744_871_391_589;
/// Samples farther apart than this are read as they are, min.
const COARSE_MIN: f64 = 1.0;
/// Averages a window is made of at most, and samples it has at least.
const AVERAGES: f64 = 40.0;
const LEAST: usize = 5;

impl Samples {
    /// A trace without noise as it is; one with noise through local parabolas.
    pub(super) fn new(t_min: &[f64], core_c: &[f64], smoothing: Smoothing) -> Self {
        let first_c = core_c[0];
        let every_min =
            median(&mut t_min.windows(2).map(|pair| pair[1] - pair[0]).collect::<Vec<_>>());
        if every_min >= COARSE_MIN || noise_c(t_min, core_c) < smoothing.noisy_c {
            return Self { t_min: t_min.into(), core_c: core_c.into(), first_c };
        }
        let (t_min, core_c) = averaged(t_min, core_c, smoothing.half_min / AVERAGES);
        let core_c = parabolas(&t_min, &core_c, smoothing.half_min);
        Self { t_min, core_c, first_c }
    }

    /// The first upward crossing, linear between samples; none where it begins above, or never
    /// comes there.
    pub(super) fn rises_through(&self, level_c: f64) -> Option<f64> {
        if self.first_c >= level_c {
            return None;
        }
        let at = self.core_c.windows(2).position(|pair| pair[0] < level_c && pair[1] >= level_c)?;
        let [from, to] = [self.core_c[at], self.core_c[at + 1]];
        let share = (level_c - from) / (to - from);
        Some(self.t_min[at] + share * (self.t_min[at + 1] - self.t_min[at]))
    }

    pub(super) const fn first_c(&self) -> f64 {
        self.first_c
    }
}

fn median(values: &mut [f64]) -> f64 {
    let middle = values.len() / 2;
    *values.select_nth_unstable_by(middle, f64::total_cmp).1
}

/// How far samples stray from those beside them, 1 σ.
fn noise_c(t_min: &[f64], core_c: &[f64]) -> f64 {
    let mut strays: Vec<f64> = t_min
        .windows(3)
        .zip(core_c.windows(3))
        .map(|(t, c)| {
            let share = (t[1] - t[0]) / (t[2] - t[0]);
            (c[1] - c[0] - share * (c[2] - c[0])).abs()
        })
        .collect();
    median(&mut strays) * MEDIAN_TO_SD / BESIDE_TWO
}

/// Samples closer than `every_min` averaged into one.
fn averaged(t_min: &[f64], core_c: &[f64], every_min: f64) -> (Vec<f64>, Vec<f64>) {
    let (mut times, mut means) = (Vec::new(), Vec::new());
    let mut from = 0;
    while from < t_min.len() {
        let many = t_min[from..].partition_point(|at| *at < t_min[from] + every_min).max(1);
        let mean = |values: &[f64]| values.iter().sum::<f64>() / many as f64;
        times.push(mean(&t_min[from..from + many]));
        means.push(mean(&core_c[from..from + many]));
        from += many;
    }
    (times, means)
}

/// Each sample on the parabola that fits those around it best.
fn parabolas(t_min: &[f64], core_c: &[f64], half_min: f64) -> Vec<f64> {
    let (mut from, mut to) = (0, 0);
    let fitted = t_min.iter().enumerate().map(|(at, time)| {
        while t_min[from] < time - half_min {
            from += 1;
        }
        while to < t_min.len() && t_min[to] <= time + half_min {
            to += 1;
        }
        let (from, to) = (from.min(at.saturating_sub(2)), to.max(at + 3).min(t_min.len()));
        if to - from < LEAST {
            return core_c[at];
        }
        let (mut moments, mut sums) = (Matrix3::zeros(), Vector3::zeros());
        for (t, c) in t_min[from..to].iter().zip(&core_c[from..to]) {
            let x = (t - time) / half_min;
            let powers = Vector3::new(1.0, x, x * x);
            moments += powers * powers.transpose();
            sums += powers * *c;
        }
        moments.lu().solve(&sums).map_or(core_c[at], |fit| fit[0])
    });
    fitted.collect()
}
