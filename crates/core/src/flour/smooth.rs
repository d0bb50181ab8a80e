use nalgebra::{DMatrix, DVector, SymmetricEigen};

/// Samples kept of a longer trace: neighbours are averaged, which noise needs anyway.
const MOST_SAMPLES: usize = 4000;
/// Places the noise is looked for at; more would not tell it better.
const NOISE_SAMPLES: usize = 10_000;
/// Noise below this is nothing a reading would notice; the trace is taken as it is.
const QUIET: f64 = 0.3;
/// Minutes on which the time axis turns from even to logarithmic.
const TURN_MIN: f64 = 0.5;
/// Stretches of the spline along that axis.
const STRETCHES: usize = 36;
const BASIS: usize = STRETCHES + 3;
/// Stiffness that only keeps stretches without samples from floating.
const REGULAR: f64 = 1e-9;
/// Stiffness tried, as powers of ten to the third.
const STIFFNESS: std::ops::RangeInclusive<i32> = -18..=18;

/// A trace with its noise taken out: times and values.
#[derive(Debug, Clone, PartialEq)]
pub struct Smooth {
    pub t: Vec<f64>,
    pub y: Vec<f64>,
    /// Standard deviation of the noise that was found; 0 where the trace was taken as it is.
    pub noise: f64,
}

/// Takes the noise out of a trace; a quiet one is returned as it is.
///
/// A penalised cubic spline (Eilers & Marx 1996), its stiffness chosen by generalised
/// cross-validation (Craven & Wahba 1979), on the axis `ln(1 + t/0.5)`: a dough changes within
/// seconds at first and within minutes later, and on that axis it does so evenly.
/// The noise is found from how far samples lie from the line between their neighbours.
pub fn smooth(t_min: &[f64], y: &[f64]) -> Smooth {
    let noise = noise(t_min, y);
    if noise < QUIET {
        return Smooth { t: t_min.to_vec(), y: y.to_vec(), noise: 0.0 };
    }
    let (t, y) = thinned(t_min, y);
    let axis: Vec<f64> = t.iter().map(|t| (1.0 + t / TURN_MIN).ln()).collect();
    let fitted = fit(&axis, &y);
    Smooth { t, y: fitted.unwrap_or(y), noise }
}

/// Standard deviation of the noise, from the median distance to the neighbours' line.
fn noise(t: &[f64], y: &[f64]) -> f64 {
    let step = t.len().div_ceil(NOISE_SAMPLES);
    let mut off: Vec<f64> = t
        .windows(3)
        .zip(y.windows(3))
        .step_by(step)
        .map(|(t, y)| {
            let share = (t[1] - t[0]) / (t[2] - t[0]);
            let line = y[0] + share * (y[2] - y[0]);
            let spread = (1.0 + share * share + (1.0 - share) * (1.0 - share)).sqrt();
            (y[1] - line).abs() / spread
        })
        .collect();
    let middle = off.len() / 2;
    1.4826 * *off.select_nth_unstable_by(middle, f64::total_cmp).1
}

fn thinned(t: &[f64], y: &[f64]) -> (Vec<f64>, Vec<f64>) {
    let group = t.len().div_ceil(MOST_SAMPLES);
    let means = |values: &[f64]| {
        let mean = |few: &[f64]| few.iter().sum::<f64>() / few.len() as f64;
        values.chunks(group).map(mean).collect()
    };
    (means(t), means(y))
}

/// The four cubic B-splines over a place on the axis, and the first one's number.
fn splines(place: f64, start: f64, step: f64) -> (usize, [f64; 4]) {
    let along = (place - start) / step;
    let first = (along.floor().max(0.0) as usize).min(STRETCHES - 1);
    let u = along - first as f64;
    let v = 1.0 - u;
    let weights = [
        v * v * v,
        3.0 * u * u * u - 6.0 * u * u + 4.0,
        3.0 * v * v * v - 6.0 * v * v + 4.0,
        u * u * u,
    ];
    (first, weights.map(|weight| weight / 6.0))
}

/// The values of the fitted spline; none where the samples cannot carry one.
fn fit(axis: &[f64], y: &[f64]) -> Option<Vec<f64>> {
    let (start, end) = (*axis.first()?, *axis.last()?);
    let step = (end - start) / STRETCHES as f64;
    let mut normal = DMatrix::<f64>::zeros(BASIS, BASIS);
    let mut right = DVector::<f64>::zeros(BASIS);
    let mut total = 0.0;
    for (place, value) in axis.iter().zip(y) {
        let (first, weights) = splines(*place, start, step);
        for (i, one) in weights.iter().enumerate() {
            right[first + i] += one * value;
            for (j, other) in weights.iter().enumerate() {
                normal[(first + i, first + j)] += one * other;
            }
        }
        total += value * value;
    }
    // In the coordinates where data and stiffness are both diagonal, each stiffness costs a sum.
    let bend = bend() * (normal.trace() / BASIS as f64);
    let lower = (&normal + &bend * REGULAR).cholesky()?.unpack();
    let half = lower.solve_lower_triangular(&bend)?;
    let SymmetricEigen { eigenvectors, eigenvalues } =
        SymmetricEigen::new(lower.solve_lower_triangular(&half.transpose())?);
    let data = eigenvectors.tr_mul(&lower.solve_lower_triangular(&right)?);
    let samples = y.len() as f64;
    let kept = |power: i32| {
        let stiffness = 10f64.powf(f64::from(power) / 3.0);
        eigenvalues.map(|bent| 1.0 / (1.0 + stiffness * bent.max(0.0)))
    };
    let best = STIFFNESS.map(kept).min_by(|a, b| {
        let score = |kept: &DVector<f64>| {
            let explained: f64 =
                kept.iter().zip(&data).map(|(keep, z)| z * z * keep * (2.0 - keep)).sum();
            (total - explained).max(0.0) / (samples - kept.sum()).powi(2)
        };
        score(a).total_cmp(&score(b))
    })?;
    let heights = lower.tr_solve_lower_triangular(&(eigenvectors * data.component_mul(&best)))?;
    let at = |place: &f64| {
        let (first, weights) = splines(*place, start, step);
        weights.iter().enumerate().map(|(i, weight)| weight * heights[first + i]).sum()
    };
    Some(axis.iter().map(at).collect())
}

/// Squared second differences of neighbouring splines' heights.
fn bend() -> DMatrix<f64> {
    let mut differences = DMatrix::<f64>::zeros(BASIS - 2, BASIS);
    for row in 0..BASIS - 2 {
        for (at, weight) in [1.0, -2.0, 1.0].into_iter().enumerate() {
            differences[(row, row + at)] = weight;
        }
    }
    differences.transpose() * differences
}
