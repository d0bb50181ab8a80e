/// Halvings of a range: enough for the last digits of a number.
const HALVINGS: usize = 48;

/// Where between two numbers `below` turns from true to false, it being true below and false above.
///
/// ```
/// use ironpeel_core::units::bisect;
/// assert!((bisect(0.0, 2.0, |x| x * x < 2.0) - 2.0_f64.sqrt()).abs() < 1e-12);
/// ```
pub fn bisect(mut low: f64, mut high: f64, below: impl Fn(f64) -> bool) -> f64 {
    for _ in 0..HALVINGS {
        let middle = f64::midpoint(low, high);
        if below(middle) { low = middle } else { high = middle }
    }
    f64::midpoint(low, high)
}

/// Steps in which a range is searched before a crossing is closed in on.
const SEARCHED: u32 = 40;

/// The first argument from `low` on at which a function passes a value, upward or downward; the
/// nearest value it comes to where it passes it nowhere.
///
/// ```
/// use ironpeel_core::units::crossing;
/// let hill = |x: f64| 4.0 - (x - 2.0).powi(2);
/// assert!((crossing(0.0, 5.0, 3.0, hill).unwrap() - 1.0).abs() < 1e-6);
/// assert!((crossing(2.0, 5.0, 3.0, hill).unwrap() - 3.0).abs() < 1e-6);
/// assert_eq!(crossing(0.0, 4.0, 4.5, hill), Err(4.0));
/// ```
pub fn crossing(low: f64, high: f64, wanted: f64, f: impl Fn(f64) -> f64) -> Result<f64, f64> {
    let at = |step: u32| low + (high - low) * f64::from(step) / f64::from(SEARCHED);
    let mut before = f(low);
    let mut nearest = before;
    for step in 1..=SEARCHED {
        let here = f(at(step));
        let rises = before <= wanted && wanted <= here;
        if rises || (here <= wanted && wanted <= before) {
            return Ok(bisect(at(step - 1), at(step), |x| (f(x) < wanted) == rises));
        }
        if (here - wanted).abs() < (nearest - wanted).abs() {
            nearest = here;
        }
        before = here;
    }
    Err(nearest)
}
