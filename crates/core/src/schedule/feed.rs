use chrono::{DateTime, Duration, Utc};
use serde::Serialize;

use super::ScheduleRequest;
use super::hours::spans;
use crate::coefficient::Coefficients;
use crate::ferment::{Refreshment, RefreshmentInput};
use crate::units::RawNumber;

/// Hours before use in which a feed is thought of, the likeliest first (H).
const FEED_H: [i64; 12] = [10, 9, 11, 8, 12, 7, 13, 6, 14, 5, 16, 18];

/// When a starter is fed, and how, so that it is ripe when the dough wants it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FeedAt {
    pub at: DateTime<Utc>,
    pub ripe_at: DateTime<Utc>,
    #[serde(flatten)]
    pub feed: Refreshment,
}

/// A starter that a dough wants ripe at a moment.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct StarterWanted {
    pub mixes_at: DateTime<Utc>,
    pub grams: f64,
    pub hydration_pct: f64,
    /// Where it stands.
    pub room_c: f64,
}

/// The feed before a dough: at an hour when somebody is there and not gone by, as near to ten hours
/// before as can be. None where none fits, or where the starter or its room is beyond what the model
/// knows.
pub fn feed_before(
    starter: StarterWanted,
    wanted: &ScheduleRequest,
    coefficients: &Coefficients,
) -> Option<FeedAt> {
    let StarterWanted { mixes_at, grams, hydration_pct, room_c } = starter;
    let shut = spans(&wanted.closed_hours, mixes_at - Duration::days(1), mixes_at, wanted.zone);
    FEED_H.into_iter().find_map(|hours| {
        let at = mixes_at - Duration::hours(hours);
        let open = shut.iter().all(|(from, to)| at < *from || *to <= at);
        if !open || wanted.not_before.is_some_and(|now| at < now) {
            return None;
        }
        let input = RefreshmentInput {
            flour_parts: 1.0.into(),
            water_parts: RawNumber::default(),
            feed_hydration_pct: hydration_pct.into(),
            starter_hydration_pct: hydration_pct.into(),
            ambient_c: room_c.into(),
            activity: 1.0.into(),
            grams: grams.into(),
            ripe_in_h: (hours as f64).into(),
        };
        let feed = input.compute(coefficients).ok().filter(|feed| feed.reachable)?;
        Some(FeedAt { at, ripe_at: mixes_at, feed })
    })
}
