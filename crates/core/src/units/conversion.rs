//! Units of one kind in one another.

pub const S_PER_MIN: f64 = 60.0;
pub const MIN_PER_H: f64 = 60.0;
pub const H_PER_DAY: f64 = 24.0;
pub const G_PER_KG: f64 = 1000.0;
pub const DAYS_PER_WEEK: f64 = 7.0;

/// Degrees Fahrenheit at 0 °C, and how many a degree is.
const FAHRENHEIT_AT_ZERO: f64 = 32.0;
const FAHRENHEIT_PER_C: f64 = 1.8;

/// °C of °F: `(F − 32)/1.8`.
pub fn celsius_of_fahrenheit(read: f64) -> f64 {
    (read - FAHRENHEIT_AT_ZERO) / FAHRENHEIT_PER_C
}
