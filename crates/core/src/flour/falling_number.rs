/// Water at its boil cannot fall slower than this: the least a falling number can be, s (ISO 3093).
pub const LEAST_FALLING_NUMBER_S: f64 = 62.0;

/// The liquefaction number of a falling number (ISO 3093): `LN = 6000/(FN − 50)`.
/// Liquefaction numbers mix by mass; falling numbers do not.
///
/// FN is in seconds and above 50.
///
/// ```
/// use ironpeel_core::flour::{falling_number, liquefaction};
/// let mixed = 0.6 * liquefaction(250.0) + 0.4 * liquefaction(400.0);
/// assert!((falling_number(mixed) - 291.0).abs() < 0.5);
/// ```
pub fn liquefaction(falling_number_s: f64) -> f64 {
    6000.0 / (falling_number_s - 50.0)
}

/// The falling number, in seconds, of a liquefaction number above 0.
pub fn falling_number(liquefaction: f64) -> f64 {
    50.0 + 6000.0 / liquefaction
}
