//! Tonight's dough by the clock and by its readings.

use chrono::{DateTime, TimeDelta, Utc};
use serde::{Deserialize, Serialize};

use super::rise::JAR_MARKS;
use super::way::{RiseError, Way};
use super::{Chain, Scenario};
use crate::ferment::{FermentingDough, FittedRate, JarReading, ferment, fit_rate};
use crate::units::{MIN_PER_H, crossing};

/// What alone would bring the dough to a rise: another room, another time.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct OtherwiseRisen {
    /// The room in which it has risen so far where it meets the oven, °C; none where no room from 5
    /// to 38 °C does it. Refrigerator and proofer stay as they are.
    pub room_c: Option<f64>,
    /// As it is, so long after the first mixing it has risen so far, h; none if not before the oven.
    pub after_h: Option<f64>,
    /// When the first mixing begins for it to have risen so far at the hour that was asked.
    pub mixing_from: Option<DateTime<Utc>>,
}

/// Slowest a band of the rate goes.
const SLOWEST: f64 = 0.05;
/// Rooms that are thought of, °C.
const ROOMS: (f64, f64) = (5.0, 38.0);

/// The room, or the hours, that bring the dough to a rise with the yeast it has; counted back from
/// the hour at which it is wanted, if one is.
pub fn otherwise_risen(
    scenario: &Scenario<'_>,
    chain: &Chain,
    rise_pct: f64,
    wanted_at: Option<DateTime<Utc>>,
) -> Result<OtherwiseRisen, RiseError> {
    let way = Way::of(scenario, chain)?;
    let yeast = way.dough.yeast_idy_pct;
    let in_room = |room_c: f64| way.in_room(room_c).end_gas(yeast);
    let (_, curve) = way.follow(yeast);
    let after_h = curve.reaches(rise_pct);
    let before = |at: DateTime<Utc>, hours: f64| {
        let minutes = TimeDelta::minutes((hours * MIN_PER_H).round() as i64);
        at.checked_sub_signed(minutes)
    };
    Ok(OtherwiseRisen {
        // Above its best temperature a culture slows again: the cooler of two rooms is meant.
        room_c: (rise_pct <= way.limit_pct)
            .then(|| crossing(ROOMS.0, ROOMS.1, rise_pct, in_room).ok())
            .flatten(),
        after_h,
        mixing_from: wanted_at.zip(after_h).and_then(|(at, hours)| before(at, hours)),
    })
}

/// What a rise was read of.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum ReadOf {
    /// A sample of 100 g, which follows the room sooner.
    Jar,
    /// The dough itself.
    Bulk,
}

/// How fast tonight's dough goes, from its readings, and when it will stand where.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FermentationTracking {
    pub rate: FittedRate,
    /// Marks of what was read, with the likely earliest and latest.
    pub marks: Vec<MarkReached>,
    /// The rise where it meets the oven now.
    pub end_rise_pct: f64,
}

/// When a mark is reached, hours from the first mixing.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct MarkReached {
    pub rise_pct: f64,
    pub at_h: Option<f64>,
    pub early_h: Option<f64>,
    pub late_h: Option<f64>,
}

/// Follows tonight's dough by readings of its jar or of itself.
pub fn fermentation_tracking(
    scenario: &Scenario<'_>,
    chain: &Chain,
    of: ReadOf,
    readings: &[JarReading],
) -> Result<FermentationTracking, RiseError> {
    let way = Way::of(scenario, chain)?;
    let (dough, phases) = match of {
        ReadOf::Jar => way.jar_of(),
        ReadOf::Bulk => (way.dough, way.phases()),
    };
    let rate = fit_rate(
        &FermentingDough { rise_limit_pct: None, ..dough },
        &phases,
        readings,
        scenario.coefficients(),
    );
    let at = |rate: f64| ferment(&FermentingDough { rate, ..dough }, &phases);
    let (likely, quick, slow) =
        (at(rate.rate), at(rate.rate + rate.sd), at((rate.rate - rate.sd).max(SLOWEST)));
    let marks = JAR_MARKS.map(|mark| MarkReached {
        rise_pct: mark,
        at_h: likely.reaches(mark),
        early_h: quick.reaches(mark),
        late_h: slow.reaches(mark),
    });
    let mut tonight = way.clone();
    tonight.dough.rate = rate.rate;
    Ok(FermentationTracking {
        rate,
        marks: marks.into(),
        end_rise_pct: tonight.end_rise(way.dough.yeast_idy_pct),
    })
}
