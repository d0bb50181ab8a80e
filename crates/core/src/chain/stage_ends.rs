//! When each stage ends by what its end point is read at.

use std::cmp::Ordering;

use serde::Serialize;

use super::way::Way;
use super::{Chain, Scenario};
use crate::dough::coefficients::COOLS_AS_DOUGH;
use crate::ferment::coefficients::RATE_SD;
use crate::ferment::{FermentationCurve, cooling_h, ferment};
use crate::method::coefficients::CORE_OUT;
use crate::method::{EndFigure, EndPoint, Method, Stage, StageKind};
use crate::units::MIN_PER_H;

/// How long a stage is looked at for its end, h.
pub(super) const LOOKED_AT_H: f64 = 72.0;

/// When a stage is predicted to end, the stages before it lasting as predicted.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct StageEnd {
    /// Its place in the method.
    pub stage: usize,
    pub planned_min: f64,
    /// None where nothing brings it there within three days.
    pub minutes: Option<f64>,
    /// With a dough as much quicker and slower as doughs of one formula differ (1 σ).
    pub low_min: Option<f64>,
    pub high_min: Option<f64>,
}

/// What the model says of the end of a stage.
#[derive(Clone, Copy)]
enum End {
    /// Nothing: it ends at what is not computed.
    Unknown,
    Never,
    /// Minutes from its beginning.
    After(f64),
}

impl End {
    /// A moment on the dough's way, as minutes of the stage that began at another.
    fn at(at_h: Option<f64>, from_h: f64) -> Self {
        at_h.map_or(Self::Never, |at_h| Self::After((at_h - from_h) * MIN_PER_H))
    }

    const fn minutes(self) -> Option<f64> {
        match self {
            Self::After(minutes) => Some(minutes),
            Self::Unknown | Self::Never => None,
        }
    }
}

/// The predicted end of each stage that ends at a rise, a height, a dough or core temperature, a pH or a
/// drop, or so long after another: the model is followed beyond the planned minutes if need be, after
/// the last of several sets of folds. A piece is taken as warm throughout, and as high as it is large;
/// a loaf cools as a dough of its mass. Left out are the core of a bake, which its own traces tell, a
/// height where none is stated to begin with, and the pH of a dough in which nothing sours.
pub fn stage_ends(scenario: &Scenario<'_>, chain: &Chain) -> Vec<StageEnd> {
    let sd = scenario.coefficients().value(&RATE_SD);
    let [likely, quick, slow] =
        [1.0, 1.0 + sd, 1.0 - sd].map(|speed| ends_at_speed(scenario, chain, speed));
    let all = likely.into_iter().zip(quick).zip(slow).enumerate();
    all.filter(|(_, ((likely, _), _))| !matches!(likely, End::Unknown))
        .map(|(stage, ((likely, quick), slow))| {
            // A dough cools or warms sooner or later whichever way its speed goes.
            let (quick, slow) = (quick.minutes(), slow.minutes());
            StageEnd {
                stage,
                planned_min: scenario.method.stages[stage].minutes,
                minutes: likely.minutes(),
                low_min: [quick, slow].into_iter().flatten().min_by(f64::total_cmp),
                high_min: quick.zip(slow).map(|(one, other)| one.max(other)),
            }
        })
        .collect()
}

/// The end of each stage with everything living so much quicker than planned.
fn ends_at_speed(scenario: &Scenario<'_>, chain: &Chain, speed: f64) -> Vec<End> {
    let mut method = scenario.method.clone();
    (0..method.stages.len())
        .map(|at| {
            let end = match (method.stages[at].end_figure(), method.stages[at].kind) {
                (Some(EndFigure::MinutesAfter), _) => {
                    minutes_after(&method, at).map_or(End::Unknown, End::After)
                }
                (Some(EndFigure::CoreTemperature), StageKind::Cool) => {
                    cooled(scenario, chain, speed, at)
                }
                _ => {
                    let (planned, sponge_at) = (method.stages[at].minutes, method.sponge_at());
                    // Sets of folds keep their hours: what is looked at longer is the last rest.
                    if method.stages[at].sets() <= 1 {
                        method.stages[at].minutes = LOOKED_AT_H * MIN_PER_H;
                    }
                    let scenario = Scenario { method: &method, ..*scenario };
                    let end = fermented(&scenario, chain, speed, at, sponge_at == Some(at));
                    method.stages[at].minutes = planned;
                    end
                }
            };
            if let End::After(minutes) = end {
                method.stages[at].minutes = minutes;
            }
            end
        })
        .collect()
}

/// What is left of a time that is counted from the end of an earlier stage.
fn minutes_after(method: &Method, at: usize) -> Option<f64> {
    let stage = &method.stages[at];
    let counts_from = stage.ends_after?;
    let after = method.stages[..at].iter().position(|one| one.id == Some(counts_from))?;
    let gone: f64 = method.stages[after + 1..at].iter().map(|one| one.minutes).sum();
    Some((stage.ends_at? - gone).max(0.0))
}

/// When the core of a loaf has cooled so far: `τ · ln((core − room)/(end − room))`.
fn cooled(scenario: &Scenario<'_>, chain: &Chain, speed: f64, at: usize) -> End {
    let stage = &scenario.method.stages[at];
    let (Some(ends_at), Some(dough)) = (stage.ends_at, &chain.dough) else { return End::Unknown };
    let baked = scenario.method.stages[..at].iter().rev().find(|one| one.kind == StageKind::Bake);
    let stated = baked.filter(|one| one.end_figure() == Some(EndFigure::CoreTemperature));
    let core_c = stated
        .and_then(|one| one.ends_at)
        .unwrap_or_else(|| scenario.coefficients().value(&CORE_OUT));
    let around_c = stage.temperature_c.unwrap_or_else(|| scenario.room_c());
    if ends_at >= core_c {
        return End::After(0.0);
    }
    if ends_at <= around_c {
        return End::Never;
    }
    let slowness = scenario.coefficients().band(&COOLS_AS_DOUGH);
    let slowness = match speed.total_cmp(&1.0) {
        Ordering::Greater => slowness.low,
        Ordering::Equal => slowness.typical,
        Ordering::Less => slowness.high,
    };
    let tau_min = slowness * cooling_h(dough.scaled.cooled_piece_kg) * MIN_PER_H;
    End::After(tau_min * ((core_c - around_c) / (ends_at - around_c)).ln())
}

/// When a stage that is looked at long enough ends.
fn fermented(
    scenario: &Scenario<'_>,
    chain: &Chain,
    speed: f64,
    at: usize,
    is_sponge: bool,
) -> End {
    let stage = &scenario.method.stages[at];
    let is_read = stage.ends_at.is_some() || stage.end_point == EndPoint::Drop;
    if !is_read || !stage.rises() {
        return End::Unknown;
    }
    let Ok(way) = Way::of(scenario, chain) else { return End::Unknown };
    let mut way = way.at_speed(speed);
    if is_sponge {
        let Some(sponge) = &way.sponge else { return End::Unknown };
        return end_in(stage, &ferment(&sponge.dough, &sponge.phases), 0.0);
    }
    if stage.sets() > 1
        && let Some(last) = way.stages.iter_mut().rfind(|one| one.at == at)
    {
        last.phase.hours = LOOKED_AT_H;
    }
    let Some(first) = way.stages.iter().position(|one| one.at == at) else { return End::Unknown };
    let from_h: f64 = way.stages[..first].iter().map(|one| one.phase.hours).sum();
    let curve = match stage.end_point {
        EndPoint::Jar => way.jar(),
        _ => way.follow(way.dough.yeast_idy_pct).1,
    };
    end_in(stage, &curve, from_h)
}

/// The end of a stage on its curve, if the curve shows it.
fn end_in(stage: &Stage, curve: &FermentationCurve, from_h: f64) -> End {
    let at_h = match (stage.end_point, stage.end_figure(), stage.ends_at) {
        (EndPoint::Drop, ..) => curve.drop_h.filter(|drop_h| *drop_h >= from_h),
        (_, Some(EndFigure::Rise), Some(rise)) => curve.reaches_from(from_h, rise),
        (_, Some(EndFigure::Height), Some(height)) => {
            let Some(begins_at) = stage.begins_at_mm else { return End::Unknown };
            // Between straight sides it is as many times as high as it is large.
            let volume = (1.0 + curve.rise_at(from_h) / 100.0) * height / begins_at;
            curve.reaches_from(from_h, 100.0 * (volume - 1.0))
        }
        (_, Some(EndFigure::Ph), Some(ph)) if curve.sours() => curve.sours_to(from_h, ph),
        (_, Some(EndFigure::DoughTemperature | EndFigure::CoreTemperature), Some(dough_c)) => {
            curve.is_at(from_h, dough_c)
        }
        _ => return End::Unknown,
    };
    End::at(at_h, from_h)
}
