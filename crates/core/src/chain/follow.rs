//! Tonight's dough by the clock and by its readings.

use serde::{Deserialize, Serialize};

use super::rise::JAR_MARKS;
use super::way::{RiseError, Way};
use super::{Chain, Scenario};
use crate::ferment::{FermentingDough, FittedRate, JarReading, ferment, fit_rate};

/// Slowest a band of the rate goes.
pub(super) const SLOWEST: f64 = 0.05;

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
