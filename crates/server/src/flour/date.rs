use chrono::{Datelike, NaiveDate};
use ironpeel_core::units::{ValidationErrors, quoted};

/// A date as people write it, or a fault at its field; none where nothing is written.
pub fn date(field: &'static str, text: &str, faults: &mut ValidationErrors) -> Option<NaiveDate> {
    let text = text.trim();
    if text.is_empty() {
        return None;
    }
    let read =
        ["%Y-%m-%d", "%d.%m.%Y"].iter().find_map(|form| NaiveDate::parse_from_str(text, form).ok());
    let sane = read.filter(|date| (2000..2100).contains(&date.year()));
    if sane.is_none() {
        let short = quoted(text);
        faults.push(field, format!("“{short}” is not a date; write 2026-11-05 or 5.11.2026"));
    }
    sane
}
