/// Halvings of a range: enough for the last digits of a number.
const HALVINGS: usize = 48;

/// Where between two numbers `below` turns from true to false, it being true below and false above.
///
/// ```
/// use ironpeel_core::units::halved;
/// assert!((halved(0.0, 2.0, |x| x * x < 2.0) - 2.0_f64.sqrt()).abs() < 1e-12);
/// ```
pub fn halved(mut low: f64, mut high: f64, below: impl Fn(f64) -> bool) -> f64 {
    for _ in 0..HALVINGS {
        let middle = f64::midpoint(low, high);
        if below(middle) { low = middle } else { high = middle }
    }
    f64::midpoint(low, high)
}
