use chrono::{DateTime, Duration, NaiveTime, Timelike, Utc};
use chrono_tz::Tz;
use serde::{Deserialize, Serialize};

use crate::units::Faults;

/// Minutes of a day.
const DAY_MIN: i64 = 24 * 60;

/// Hours of every day in which nobody is there, by the clock on the wall; past midnight where the
/// end lies before the beginning.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Refused {
    #[cfg_attr(feature = "openapi", schema(value_type = String))]
    pub from: NaiveTime,
    #[cfg_attr(feature = "openapi", schema(value_type = String))]
    pub to: NaiveTime,
}

impl Refused {
    /// Whether any of a stretch of time, its end left out, lies in them.
    ///
    /// ```
    /// use chrono::{NaiveTime, TimeZone, Utc};
    /// use ironpeel_core::day::Refused;
    /// let at = |hour| NaiveTime::from_hms_opt(hour, 0, 0).unwrap();
    /// let night = Refused { from: at(22), to: at(4) };
    /// let when = |hour| Utc.with_ymd_and_hms(2026, 11, 25, hour, 0, 0).unwrap();
    /// assert!(night.touches(when(21), when(23), chrono_tz::UTC));
    /// assert!(!night.touches(when(4), when(22), chrono_tz::UTC));
    /// ```
    pub fn touches(&self, from: DateTime<Utc>, to: DateTime<Utc>, zone: Tz) -> bool {
        let minutes = (to - from).num_minutes().max(1);
        // A quarter of an hour is shorter than any night; the last minute closes the stretch.
        let mut at = 0;
        loop {
            if self.holds((from + Duration::minutes(at)).with_timezone(&zone).time()) {
                return true;
            }
            if at == minutes - 1 {
                return false;
            }
            at = (at + 15).min(minutes - 1);
        }
    }

    fn holds(&self, time: NaiveTime) -> bool {
        if self.from <= self.to {
            self.from <= time && time < self.to
        } else {
            self.from <= time || time < self.to
        }
    }

    /// How long they are, in minutes.
    pub fn minutes(&self) -> i64 {
        let of = |time: NaiveTime| i64::from(time.num_seconds_from_midnight()) / 60;
        (of(self.to) - of(self.from)).rem_euclid(DAY_MIN)
    }
}

/// Refused hours as they were typed: `22:00` to `4:00`.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct RefusedInput {
    #[serde(default)]
    pub from: String,
    #[serde(default)]
    pub to: String,
}

impl RefusedInput {
    /// The hours, or what is wrong with them under `at`.
    pub fn check(&self, at: &str, faults: &mut Faults) -> Option<Refused> {
        let mut time = |field: &str, text: &str| {
            let read = NaiveTime::parse_from_str(text.trim(), "%H:%M");
            if read.is_err() {
                let message = format!("“{}” is no time of day, such as 22:00", short(text));
                faults.push(format!("{at}{field}"), message);
            }
            read.ok()
        };
        let (from, to) = (time("from", &self.from), time("to", &self.to));
        let refused = Refused { from: from?, to: to? };
        // Less than a quarter of an hour would be stepped over; more than twenty hours leaves no day.
        if !(15..=20 * 60).contains(&refused.minutes()) {
            faults.push(format!("{at}to"), "refused hours are from 15 minutes to 20 hours long");
        }
        Some(refused)
    }
}

fn short(text: &str) -> String {
    text.trim().chars().take(20).collect()
}
