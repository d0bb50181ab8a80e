use chrono::{
    DateTime, Days, Duration, LocalResult, NaiveDateTime, NaiveTime, TimeZone, Timelike, Utc,
};
use chrono_tz::Tz;
use serde::{Deserialize, Serialize};

use crate::units::{ValidationErrors, quoted};

/// Minutes of a day.
/// Days more than lie between: one before, one after, and one cut off.
const AROUND: usize = 3;
const DAY_MIN: i64 = 24 * 60;
/// Shortest and longest closed hours: a start steps over less, and more leaves no day.
const LEAST_MIN: i64 = 15;
const MOST_MIN: i64 = 20 * 60;

/// Hours of every day in which nobody is there, by the clock on the wall; past midnight where the
/// end lies before the beginning.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ClosedHours {
    #[cfg_attr(feature = "openapi", schema(value_type = String))]
    pub from: NaiveTime,
    #[cfg_attr(feature = "openapi", schema(value_type = String))]
    pub to: NaiveTime,
}

/// The moments between `from` and `to` at which nobody is there, each with its end, by the clock on
/// the wall: a night in which the clocks change is an hour longer or shorter.
///
/// ```
/// use chrono::{NaiveTime, TimeZone, Utc};
/// use ironpeel_core::schedule::{ClosedHours, spans};
/// let at = |hour| NaiveTime::from_hms_opt(hour, 0, 0).unwrap();
/// let night = [ClosedHours { from: at(22), to: at(4) }];
/// let when = |day, hour| Utc.with_ymd_and_hms(2026, 11, day, hour, 0, 0).unwrap();
/// let found = spans(&night, when(25, 12), when(26, 12), chrono_tz::UTC);
/// assert!(found.contains(&(when(25, 22), when(26, 4))));
/// ```
pub fn spans(
    closed: &[ClosedHours],
    from: DateTime<Utc>,
    to: DateTime<Utc>,
    zone: Tz,
) -> Vec<(DateTime<Utc>, DateTime<Utc>)> {
    let first = from.with_timezone(&zone).date_naive() - Days::new(1);
    let days = (to - from).num_days().max(0) as usize + AROUND;
    first
        .iter_days()
        .take(days)
        .flat_map(|day| {
            closed.iter().map(move |hours| {
                let next = if hours.from <= hours.to { day } else { day + Days::new(1) };
                let begins = moment(day.and_time(hours.from), zone, false);
                (begins, moment(next.and_time(hours.to), zone, true))
            })
        })
        .filter(|(begins, ends)| begins < ends && *ends > from && *begins < to)
        .collect()
}

/// A time on the wall as a moment. Of two the earlier, or the later; one the clocks leap over is
/// an hour on.
fn moment(wall: NaiveDateTime, zone: Tz, later: bool) -> DateTime<Utc> {
    let found = match zone.from_local_datetime(&wall) {
        LocalResult::Single(one) => Some(one),
        LocalResult::Ambiguous(early, late) => Some(if later { late } else { early }),
        LocalResult::None => zone.from_local_datetime(&(wall + Duration::hours(1))).earliest(),
    };
    found.map_or_else(|| wall.and_utc(), |found| found.with_timezone(&Utc))
}

impl ClosedHours {
    /// How long they are, in minutes.
    pub fn minutes(&self) -> i64 {
        let of = |time: NaiveTime| i64::from(time.num_seconds_from_midnight()) / 60;
        (of(self.to) - of(self.from)).rem_euclid(DAY_MIN)
    }
}

/// Refused hours as they were typed: `22:00` to `4:00`.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ClosedHoursInput {
    #[serde(default)]
    pub from: String,
    #[serde(default)]
    pub to: String,
}

impl ClosedHoursInput {
    /// The hours, or what is wrong with them under `at`.
    pub fn check(&self, at: &str, faults: &mut ValidationErrors) -> Option<ClosedHours> {
        let mut time = |field: &str, text: &str| {
            let read = NaiveTime::parse_from_str(text.trim(), "%H:%M");
            if read.is_err() {
                let message = format!("“{}” is no time of day, such as 22:00", quoted(text));
                faults.push(format!("{at}{field}"), message);
            }
            read.ok()
        };
        let (from, to) = (time("from", &self.from), time("to", &self.to));
        let closed = ClosedHours { from: from?, to: to? };
        if !(LEAST_MIN..=MOST_MIN).contains(&closed.minutes()) {
            faults.push(format!("{at}to"), "closed hours are from 15 minutes to 20 hours long");
        }
        Some(closed)
    }
}
