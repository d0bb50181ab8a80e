//! Units of one kind in one another.

pub const S_PER_MIN: f64 = 60.0;
pub const MIN_PER_H: f64 = 60.0;
pub const H_PER_DAY: f64 = 24.0;
pub const G_PER_KG: f64 = 1000.0;
pub const DAYS_PER_WEEK: f64 = 7.0;
