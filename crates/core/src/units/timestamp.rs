//! Moments a plant can mean: from 1970 to 2200. Beyond them clocks and databases count over.

use chrono::{DateTime, Datelike, Utc};
use serde::de::{Deserialize, Deserializer, Error};

const YEARS: std::ops::RangeInclusive<i32> = 1970..=2200;

/// Reads a moment.
///
/// ```
/// use chrono::{DateTime, Utc};
/// use ironpeel_core::units::timestamp;
/// #[derive(serde::Deserialize)]
/// struct Asked {
///     #[serde(deserialize_with = "timestamp::within")]
///     at: DateTime<Utc>,
/// }
/// let read = |text| serde_json::from_str::<Asked>(text).map(|asked| asked.at);
/// assert!(read(r#"{"at": "2026-11-26T05:00:00Z"}"#).is_ok());
/// let error = read(r#"{"at": "+262000-01-01T00:00:00Z"}"#).unwrap_err().to_string();
/// assert!(error.starts_with("a moment from 1970 to 2200; the year 262000 was given"), "{error}");
/// ```
pub fn within<'de, D: Deserializer<'de>>(deserializer: D) -> Result<DateTime<Utc>, D::Error> {
    check(DateTime::deserialize(deserializer)?)
}

/// Reads a moment that may be left out.
pub fn maybe<'de, D: Deserializer<'de>>(
    deserializer: D,
) -> Result<Option<DateTime<Utc>>, D::Error> {
    Option::deserialize(deserializer)?.map(check).transpose()
}

fn check<E: Error>(at: DateTime<Utc>) -> Result<DateTime<Utc>, E> {
    if YEARS.contains(&at.year()) {
        return Ok(at);
    }
    let (first, last) = (YEARS.start(), YEARS.end());
    Err(E::custom(format!("a moment from {first} to {last}; the year {} was given", at.year())))
}
