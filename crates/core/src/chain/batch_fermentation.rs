//! A batch on the floor by what was read of it: how it rises from here, and what the cold buys.

use serde::Serialize;

use super::follow::{MarkReached, ReadOf, SLOWEST};
use super::way::{RiseError, Way};
use super::{Chain, Scenario};
use crate::ferment::{
    FermentationCurve, FermentingDough, FittedRate, JarReading, Phase, ferment, fit_rate,
};
use crate::units::Estimate;

/// A batch as it was read, by hours from its first mixing.
#[derive(Debug, Clone, Copy)]
pub struct BatchFollowed<'a> {
    pub of: ReadOf,
    pub readings: &'a [JarReading],
    pub now_h: f64,
    /// The rise it is to reach; as at the oven by the plan where none is stated.
    pub wanted_pct: Option<f64>,
    /// When it was put elsewhere, and how warm that is, °C.
    pub moved: &'a [(f64, f64)],
}

/// A rise with the band in which it lies nine times in ten.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct RiseBand {
    pub t_h: f64,
    pub rise_pct: Estimate,
}

/// What becomes of it in the cold from now on.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct IntoTheCold {
    pub cold_c: f64,
    /// When it is as far as wanted even there; none within four days.
    pub until_h: Option<f64>,
    pub taken_out: Vec<TakenOut>,
}

/// Taken out of the cold after a time.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TakenOut {
    /// Hours in the cold.
    pub after_h: f64,
    /// Hours from the first mixing at which it is as far as wanted; none where it is not within a day.
    pub ready_h: Option<f64>,
}

/// A batch's fermentation as its readings say.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BatchFermentation {
    pub rate: FittedRate,
    /// The rise it is to reach.
    pub wanted: MarkReached,
    /// Every few minutes to a while after the oven.
    pub series: Vec<RiseBand>,
    pub into_the_cold: IntoTheCold,
}

/// Followed so far past the oven, in the cold, and out of it, h.
const AFTER_H: f64 = 3.0;
const COLD_H: f64 = 96.0;
const OUT_H: f64 = 24.0;
/// Hours in the cold that are looked at.
const NIGHTS_H: [f64; 5] = [4.0, 8.0, 12.0, 16.0, 24.0];
/// How cold a refrigerator is, °C.
const REFRIGERATOR_C: f64 = 4.0;
/// Points of the series.
const POINTS: u32 = 120;

/// A stretch cut at an hour of its own.
fn cut(phase: Phase, at_h: f64) -> (Phase, Phase) {
    let share = at_h / phase.hours;
    let between = phase.ambient_c + share * (phase.ambient_end_c - phase.ambient_c);
    (
        Phase { hours: at_h, ambient_end_c: between, ..phase },
        Phase { hours: phase.hours - at_h, ambient_c: between, let_go_pct: 0.0, ..phase },
    )
}

/// The way with what is around it as it was moved.
fn around(phases: &[Phase], moved: &[(f64, f64)]) -> Vec<Phase> {
    let mut parts = Vec::with_capacity(phases.len() + moved.len());
    let mut from = 0.0;
    for phase in phases {
        let (mut rest, end) = (*phase, from + phase.hours);
        for (at_h, _) in moved.iter().filter(|(at_h, _)| (from..end).contains(at_h)) {
            let (before, after) = cut(rest, at_h - (end - rest.hours));
            parts.push(before);
            rest = after;
        }
        parts.push(rest);
        from = end;
    }
    let mut from = 0.0;
    for part in &mut parts {
        let now = moved.iter().rfind(|(at_h, _)| *at_h <= from);
        if let Some((_, celsius)) = now {
            (part.ambient_c, part.ambient_end_c) = (*celsius, *celsius);
        }
        from += part.hours;
    }
    parts
}

/// The way until an hour.
fn until(phases: &[Phase], hour: f64) -> Vec<Phase> {
    let mut left = hour;
    let mut parts = Vec::new();
    for phase in phases {
        if left <= 0.0 {
            break;
        }
        parts.push(if phase.hours <= left { *phase } else { cut(*phase, left).0 });
        left -= phase.hours;
    }
    if left > 0.0 {
        let last = phases.last().map_or(REFRIGERATOR_C, |phase| phase.ambient_end_c);
        parts.push(Phase::rest(left, last));
    }
    parts
}

/// A batch's dough on its way as it was really timed and moved, and how fast it goes.
struct Fitted {
    dough: FermentingDough,
    /// To the oven, by the method.
    planned: Vec<Phase>,
    /// And a while longer, as it was moved.
    phases: Vec<Phase>,
    end_c: f64,
    rate: FittedRate,
}

fn fitted(
    scenario: &Scenario<'_>,
    chain: &Chain,
    followed: &BatchFollowed<'_>,
) -> Result<Fitted, RiseError> {
    let way = Way::of(scenario, chain)?;
    let (dough, planned) = match followed.of {
        ReadOf::Jar => way.jar_of(),
        ReadOf::Bulk => (way.dough, way.phases()),
    };
    let end_c = planned.last().map_or(scenario.room_c(), |phase| phase.ambient_end_c);
    let longer: Vec<Phase> = planned.iter().copied().chain([Phase::rest(AFTER_H, end_c)]).collect();
    let phases = around(&longer, followed.moved);
    let rate = if followed.readings.is_empty() {
        let sd = scenario.coefficients().value(&crate::ferment::coefficients::RATE_SD);
        FittedRate { rate: dough.rate, sd }
    } else {
        let unlimited = FermentingDough { rise_limit_pct: None, ..dough };
        fit_rate(&unlimited, &phases, followed.readings, scenario.coefficients())
    };
    Ok(Fitted { dough, planned, phases, end_c, rate })
}

/// How fast a batch goes by what was read of it.
pub fn batch_rate(
    scenario: &Scenario<'_>,
    chain: &Chain,
    followed: &BatchFollowed<'_>,
) -> Result<FittedRate, RiseError> {
    Ok(fitted(scenario, chain, followed)?.rate)
}

/// Follows a batch on its method as it was really timed.
pub fn batch_fermentation(
    scenario: &Scenario<'_>,
    chain: &Chain,
    followed: BatchFollowed<'_>,
) -> Result<BatchFermentation, RiseError> {
    let BatchFollowed { now_h, wanted_pct, .. } = followed;
    let Fitted { dough, planned, phases, end_c, rate } = fitted(scenario, chain, &followed)?;
    let oven_h: f64 = planned.iter().map(|phase| phase.hours).sum();
    let wanted_pct = wanted_pct.unwrap_or_else(|| ferment(&dough, &planned).rise_at(oven_h));
    let band = Estimate::nine_tenths(rate.rate, rate.sd);
    let rates = [band.typical, band.low.max(SLOWEST), band.high];
    let [likely, slow, quick] =
        rates.map(|rate| ferment(&FermentingDough { rate, ..dough }, &phases));
    let hours = oven_h + AFTER_H;
    let series = (0..=POINTS).map(|point| {
        let t_h = hours * f64::from(point) / f64::from(POINTS);
        let [typical, low, high] = [&likely, &slow, &quick].map(|curve| curve.rise_at(t_h));
        RiseBand { t_h, rise_pct: Estimate::new(typical, low.min(typical), high.max(typical)) }
    });
    let reaches = |curve: &FermentationCurve| curve.reaches(wanted_pct);
    let own = FermentingDough { rate: rate.rate, ..dough };
    Ok(BatchFermentation {
        wanted: MarkReached {
            rise_pct: wanted_pct,
            at_h: reaches(&likely),
            early_h: reaches(&quick),
            late_h: reaches(&slow),
        },
        series: series.collect(),
        into_the_cold: into_the_cold(&own, &phases, now_h, wanted_pct, end_c),
        rate,
    })
}

fn into_the_cold(
    dough: &FermentingDough,
    phases: &[Phase],
    now_h: f64,
    wanted_pct: f64,
    out_c: f64,
) -> IntoTheCold {
    let before = until(phases, now_h);
    let with = |more: &[Phase]| -> FermentationCurve {
        let all: Vec<Phase> = before.iter().chain(more).copied().collect();
        ferment(dough, &all)
    };
    let cold = with(&[Phase::rest(COLD_H, REFRIGERATOR_C)]);
    let until_h = cold.reaches_from(now_h, wanted_pct);
    let taken_out = NIGHTS_H.map(|after_h| {
        let curve = with(&[Phase::rest(after_h, REFRIGERATOR_C), Phase::rest(OUT_H, out_c)]);
        TakenOut { after_h, ready_h: curve.reaches_from(now_h + after_h, wanted_pct) }
    });
    IntoTheCold { cold_c: REFRIGERATOR_C, until_h, taken_out: taken_out.into() }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_around_it_changes_from_the_hour_it_was_moved() {
        let planned = [Phase::rest(2.0, 24.0), Phase::changing(2.0, 30.0, 34.0)];
        let parts = around(&planned, &[(1.0, 4.0), (3.0, 21.0)]);
        let told: Vec<_> =
            parts.iter().map(|one| (one.hours, one.ambient_c, one.ambient_end_c)).collect();
        assert_eq!(told, [(1.0, 24.0, 24.0), (1.0, 4.0, 4.0), (1.0, 4.0, 4.0), (1.0, 21.0, 21.0)]);
        assert_eq!(around(&planned, &[]), planned);
    }

    #[test]
    fn the_way_until_an_hour_is_as_long_as_that() {
        let planned = [Phase::rest(2.0, 24.0), Phase::rest(1.0, 30.0)];
        for hour in [0.5, 2.0, 2.5, 7.0] {
            let hours: f64 = until(&planned, hour).iter().map(|one| one.hours).sum();
            assert!((hours - hour).abs() < 1e-12);
        }
    }
}
