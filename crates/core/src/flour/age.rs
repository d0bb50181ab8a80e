use super::coefficients::{AGED_DAYS, GREEN_DAYS};
use crate::coefficient::Coefficients;

/// What a flour's days since milling mean for the dough (H); none in between.
pub fn age_message(days: f64, coefficients: &Coefficients) -> Option<&'static str> {
    if days < coefficients.value(&GREEN_DAYS) {
        Some("green: its strength comes with two days of age; it needs oxidation or time")
    } else if days > coefficients.value(&AGED_DAYS) {
        Some("aged: it takes a little more water and acts stronger")
    } else {
        None
    }
}
