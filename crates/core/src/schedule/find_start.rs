use chrono::{DateTime, Duration, Utc};

use super::hours::spans;
use super::{Anchor, ScheduleRequest};

/// Steps in which a start is sought, minutes.
const STEP_MIN: i64 = 5;
/// How far from what was asked it is sought, minutes.
const FARTHEST_MIN: i64 = 48 * 60;

/// Minutes as real time.
pub(crate) fn minutes(minutes: f64) -> Duration {
    Duration::seconds((minutes * 60.0).round() as i64)
}

/// Hours in which nobody is there, each with its end.
pub(super) type Shut = [(DateTime<Utc>, DateTime<Utc>)];

/// The start nearest to what is wanted at which nothing stands in the way, and how far that is from
/// it in minutes: later where it must not begin before, earlier where it must be out by. Else what
/// stood in the way first; none where all of it is gone by.
///
/// It is out so long after its start, and at its end so long after.
pub(super) fn find_start<T>(
    wanted: &ScheduleRequest,
    out_min: f64,
    end_min: f64,
    in_the_way: impl Fn(DateTime<Utc>, &Shut) -> Option<T>,
) -> Result<(DateTime<Utc>, i64), Option<T>> {
    let ScheduleRequest { anchor, closed_hours, zone, not_before } = wanted;
    let first = match *anchor {
        Anchor::From(start) => not_before.map_or(start, |now| start.max(now)),
        Anchor::OutBy(out) => out - minutes(out_min),
    };
    let far = Duration::minutes(FARTHEST_MIN);
    let shut = spans(closed_hours, first - far, first + far + minutes(end_min), *zone);
    let mut found = None;
    for moved_min in (0..=FARTHEST_MIN).step_by(STEP_MIN as usize) {
        let start = match anchor {
            Anchor::From(_) => first + Duration::minutes(moved_min),
            Anchor::OutBy(_) => first - Duration::minutes(moved_min),
        };
        if not_before.is_some_and(|now| start < now) {
            break;
        }
        match in_the_way(start, &shut) {
            None => return Ok((start, moved_min)),
            Some(one) => found = found.or(Some(one)),
        }
    }
    Err(found)
}
