/// Younger is green, in days.
pub const GREEN_DAYS: f64 = 2.0;
/// Older is aged, in days.
pub const AGED_DAYS: f64 = 14.0;

/// What a flour's days since milling mean for the dough (H); none in between.
pub const fn age_message(days: f64) -> Option<&'static str> {
    match days {
        ..GREEN_DAYS => {
            Some("green: its strength comes with two days of age; it needs oxidation or time")
        }
        AGED_DAYS.. if days > AGED_DAYS => {
            Some("aged: it takes a little more water and acts stronger")
        }
        _ => None,
    }
}
