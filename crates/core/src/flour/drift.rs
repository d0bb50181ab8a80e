use serde::Serialize;

/// Weight of the newest value in the moving average.
const LAMBDA: f64 = 0.2;
/// Standard deviations to a limit.
const SIGMAS: f64 = 3.0;
/// Mean moving range of two over standard deviation (ISO 7870-2, d₂ for n = 2).
const D2: f64 = 1.128;
/// This many in a row on one side of the centre are a shift.
const RUN: usize = 8;
/// Share of the centre within which values are equal.
const SLACK: f64 = 1e-9;
/// Fewer say nothing of spread.
const LEAST: usize = 3;

/// One lot on a drift chart.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct DriftPoint {
    pub value: f64,
    pub ewma: f64,
    /// Beyond a 3-sigma limit (rule 1).
    pub beyond: bool,
    /// Part of eight or more in a row on one side of the centre.
    pub run: bool,
    /// The moving average is beyond its own limits: a slow drift.
    pub drifting: bool,
}

/// A property over lots, with centre, limits and what is unusual.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Drift {
    pub centre: f64,
    pub sigma: f64,
    pub lower: f64,
    pub upper: f64,
    /// Limits of the moving average once it has settled.
    pub ewma_lower: f64,
    pub ewma_upper: f64,
    pub points: Vec<DriftPoint>,
}

/// A chart of individual values, oldest first; none of fewer than three.
///
/// Centre: the mean. Sigma: the mean moving range over 1.128, so that a single stray lot does not
/// widen the limits it is judged by. Limits: three sigma (ISO 7870-2), rule 1 and a run of eight
/// (Western Electric). Moving average: `z = 0.2 x + 0.8 z₋₁` from the centre, with limits
/// `centre ± 3σ √(λ/(2−λ) · (1 − (1−λ)²ⁱ))` (Roberts 1959).
///
/// ```
/// use ironpeel_core::flour::drift;
/// let mut values = vec![8.0, 8.2, 7.9, 8.1, 8.0, 8.3, 7.8, 8.1];
/// values.push(10.9);
/// let chart = drift(&values).expect("enough lots");
/// assert!(chart.points[8].beyond && !chart.points[7].beyond);
/// // Equal lots have nothing unusual, though their mean is off by its rounding.
/// let equal = drift(&[0.62; 20]).expect("enough lots");
/// assert!(equal.points.iter().all(|point| !(point.beyond || point.run || point.drifting)));
/// ```
pub fn drift(values: &[f64]) -> Option<Drift> {
    if values.len() < LEAST {
        return None;
    }
    let centre = values.iter().sum::<f64>() / values.len() as f64;
    let ranges = values.windows(2).map(|pair| (pair[1] - pair[0]).abs());
    let sigma = ranges.sum::<f64>() / (values.len() - 1) as f64 / D2;
    let reach = SIGMAS * sigma;
    // Of equal lots only rounding is left, and rounding is no drift.
    let slack = SLACK * centre.abs().max(1.0);
    let settled = (LAMBDA / (2.0 - LAMBDA)).sqrt();
    let mut ewma = centre;
    let mut points: Vec<DriftPoint> = (1..)
        .zip(values)
        .map(|(i, value)| {
            ewma = LAMBDA * value + (1.0 - LAMBDA) * ewma;
            let grown = (1.0 - (1.0 - LAMBDA).powi(2 * i)).sqrt();
            DriftPoint {
                value: *value,
                ewma,
                beyond: (value - centre).abs() > reach + slack,
                run: false,
                drifting: (ewma - centre).abs() > reach * settled * grown + slack,
            }
        })
        .collect();
    for side in points.chunk_by_mut(|a, b| {
        let side = |point: &DriftPoint| (point.value - centre).abs() > slack;
        side(a) && side(b) && (a.value > centre) == (b.value > centre)
    }) {
        let run = side.len() >= RUN;
        for point in side {
            point.run = run;
        }
    }
    Some(Drift {
        centre,
        sigma,
        lower: centre - reach,
        upper: centre + reach,
        ewma_lower: centre - reach * settled,
        ewma_upper: centre + reach * settled,
        points,
    })
}
