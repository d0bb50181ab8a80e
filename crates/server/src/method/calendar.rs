//! A calendar file.

use crate::download::attachment;
use axum::response::Response;
use chrono::{DateTime, Duration, Utc};
use icalendar::{Alarm, Calendar, Component, Event, EventLike};
use ironpeel_core::schedule::FoldSet;
use uuid::Uuid;

/// A reminder comes so long before, minutes.
const REMINDS_MIN: i64 = 10;

/// One entry of a calendar.
pub struct Entry {
    pub summary: String,
    pub message: String,
    pub starts_at: DateTime<Utc>,
    pub ends_at: DateTime<Utc>,
    /// Somebody is needed: a reminder comes before.
    pub reminds: bool,
}

/// Every set of folds of a stage as an entry of its own.
pub fn folds(summary: &str, message: &str, sets: &[FoldSet]) -> Vec<Entry> {
    let many = sets.len();
    (1..)
        .zip(sets)
        .map(|(number, set): (usize, _)| Entry {
            summary: match many {
                1 => summary.to_owned(),
                _ => format!("{summary}, {number} of {many}"),
            },
            message: message.to_owned(),
            starts_at: set.starts_at,
            ends_at: set.ends_at,
            reminds: true,
        })
        .collect()
}

/// The entries as a calendar file.
pub fn file(name: &str, entries: impl IntoIterator<Item = Entry>) -> Response {
    let mut calendar = Calendar::new();
    calendar.name(name);
    for Entry { summary, message, starts_at, ends_at, reminds } in entries {
        let mut event = Event::new();
        event
            .uid(&Uuid::now_v7().to_string())
            .summary(&summary)
            .description(&message)
            .starts(starts_at)
            .ends(ends_at);
        if reminds {
            let alarm = format!("{summary} in {REMINDS_MIN} min");
            event.alarm(Alarm::display(&alarm, -Duration::minutes(REMINDS_MIN)));
        }
        calendar.push(event.done());
    }
    attachment(name, "ics", "text/calendar; charset=utf-8", calendar.to_string())
}
