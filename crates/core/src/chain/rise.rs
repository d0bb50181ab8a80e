//! How the selected product rises through the stages of its method.

use serde::Serialize;

use super::dough_maturity::{DoughMaturity, dough_maturity};
use super::way::{OnTheWay, RiseAssumption, RiseError, SpongeRise, Way};
use super::{Chain, Scenario};
use crate::coefficient::Coefficients;
use crate::ferment::{FermentationPoint, NotReachable, RiseReached, coefficients as c, yeast_for};
use crate::method::{EndPoint, Stage, StageKind};
use crate::units::bisect;

/// Nearer than this is the same moment, h.
const MOMENT_H: f64 = 1e-6;
/// Rooms a season brings, in steps of 2 °C.
const ROOMS: std::ops::RangeInclusive<u8> = 7..=17;
/// What a jar is looked at for, %.
pub(super) const JAR_MARKS: [f64; 3] = [50.0, 75.0, 100.0];
/// How much shorter or longer the living stages may become.
const STRETCH: (f64, f64) = (0.2, 6.0);
/// How a dough rises through its method.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Rise {
    /// In instant yeast, % of all flour.
    pub yeast_idy_pct: f64,
    /// Flour of sours, % of all flour.
    pub sour_pct: f64,
    /// The sponge before it, where there is one.
    pub sponge: Option<SpongeRise>,
    /// From the first mixing to the oven.
    pub stages: Vec<RiseStage>,
    pub series: Vec<FermentationPoint>,
    /// A sample of the same dough in a small jar that nobody folds.
    pub jar: Vec<RiseReached>,
    /// What no certificate stated and was taken as usual.
    pub assumed: Vec<RiseAssumption>,
    /// What the film holds, and when it gives way before the oven.
    pub limit_pct: f64,
    pub drop_h: Option<f64>,
    /// How ripe it is there.
    pub maturity: DoughMaturity,
}

/// A stage with the dough as it is at its end.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct RiseStage {
    pub label: String,
    pub kind: StageKind,
    pub from_h: f64,
    pub to_h: f64,
    pub ambient_c: f64,
    /// At its end.
    pub ambient_end_c: f64,
    pub rise_pct: f64,
    pub dough_c: f64,
    pub sugar_pct: f64,
    /// Where the prediction misses what the stage itself ends at.
    pub misses: Option<RiseMiss>,
}

/// A stage that ends at a rise, and the rise predicted at the end of its minutes.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct RiseMiss {
    pub wanted_pct: f64,
    pub predicted_pct: f64,
}

/// Yeast for a rise at the end of the last stage before the oven, in another room.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SeasonalYeast {
    pub room_c: f64,
    /// None where no dose brings it there.
    pub yeast_idy_pct: Option<f64>,
}

/// How the selected product rises, from its first mixing to the oven, a sponge before it.
pub fn rise(scenario: &Scenario<'_>, chain: &Chain) -> Result<Rise, RiseError> {
    let way = Way::of(scenario, chain)?;
    let (sponge, curve) = way.follow(way.dough.yeast_idy_pct);
    let jar = way.jar();
    let mut stages = Vec::with_capacity(way.stages.len());
    let mut from_h = 0.0;
    for (number, OnTheWay { at, stage, phase }) in way.stages.iter().enumerate() {
        let to_h = from_h + phase.hours;
        let last = way.stages.get(number + 1).is_none_or(|next| next.at != *at);
        let set = way.stages[..=number].iter().filter(|one| one.at == *at).count();
        // The moment before the next stage lets anything go.
        let at_end = curve.points.iter().find(|point| point.t_h > to_h - MOMENT_H);
        let Some(end) = at_end.or(curve.last()) else { break };
        // Whoever looks at the jar is told of the jar.
        let seen_pct = match stage.end_point {
            EndPoint::Jar => jar.rise_at(to_h),
            _ => end.rise_pct,
        };
        stages.push(RiseStage {
            label: match way.stages.iter().filter(|one| one.at == *at).count() {
                1 => stage.label.clone(),
                parts => format!("{}, {set} of {parts}", stage.label),
            },
            kind: stage.kind,
            from_h,
            to_h,
            ambient_c: phase.ambient_c,
            ambient_end_c: phase.ambient_end_c,
            rise_pct: end.rise_pct,
            dough_c: end.dough_c,
            sugar_pct: end.sugar_pct,
            misses: misses(stage, seen_pct, scenario.coefficients()).filter(|_| last),
        });
        from_h = to_h;
    }
    Ok(Rise {
        maturity: dough_maturity(scenario, chain, &way, sponge.as_ref(), &curve),
        yeast_idy_pct: way.dough.yeast_idy_pct,
        sour_pct: way.dough.sour_pct,
        sponge,
        stages,
        drop_h: curve.drop_h,
        series: curve.points,
        limit_pct: way.limit_pct,
        jar: JAR_MARKS.map(|mark| RiseReached { rise_pct: mark, at_h: jar.reaches(mark) }).into(),
        assumed: way.assumed,
    })
}

/// Instant yeast, % of all flour, that brings the dough to a rise where it meets the oven.
pub fn yeast_wanted(
    scenario: &Scenario<'_>,
    chain: &Chain,
    rise_pct: f64,
) -> Result<Result<f64, NotReachable>, RiseError> {
    let way = Way::of(scenario, chain)?;
    if rise_pct > way.limit_pct {
        return Ok(Err(NotReachable::BeyondFilm { limit_pct: way.limit_pct }));
    }
    Ok(yeast_for(rise_pct, |yeast| way.end_gas(yeast)))
}

/// The rise that the dough's gas would give at the oven if its film held it all, %; none where it
/// makes none.
pub(crate) fn gas_at_oven(scenario: &Scenario<'_>, chain: &Chain) -> Option<f64> {
    let way = Way::of(scenario, chain).ok()?;
    Some(way.end_gas(way.dough.yeast_idy_pct))
}

/// How much longer or shorter the stages at room temperature must be for so much gas at the oven; what
/// lies in the cold stays. None where no time in reason gives it.
pub(crate) fn stretch_for_gas(scenario: &Scenario<'_>, chain: &Chain, gas_pct: f64) -> Option<f64> {
    let way = Way::of(scenario, chain).ok()?;
    let at = |times: f64| {
        let mut stretched = way.clone();
        for OnTheWay { stage, phase, .. } in &mut stretched.stages {
            if stage.can_stretch() {
                phase.hours *= times;
            }
        }
        stretched.end_gas(way.dough.yeast_idy_pct)
    };
    let (quick, slow) = STRETCH;
    (at(quick) <= gas_pct && gas_pct <= at(slow))
        .then(|| bisect(quick.ln(), slow.ln(), |times| at(times.exp()) < gas_pct).exp())
}

/// The yeast for each room from 14 to 34 °C that gives the rise this dough has tonight. Stages in a
/// refrigerator or a proofer stay as they are.
pub fn seasonal_yeast(
    scenario: &Scenario<'_>,
    chain: &Chain,
) -> Result<Vec<SeasonalYeast>, RiseError> {
    let way = Way::of(scenario, chain)?;
    let wanted = way.end_gas(way.dough.yeast_idy_pct);
    let rooms = ROOMS.map(|half| f64::from(half) * 2.0);
    Ok(rooms
        .map(|room_c| {
            let there = way.in_room(room_c);
            let found = yeast_for(wanted, |yeast| there.end_gas(yeast));
            SeasonalYeast { room_c, yeast_idy_pct: found.ok() }
        })
        .collect())
}

/// Where the prediction misses the rise a stage ends at.
fn misses(stage: &Stage, rise_pct: f64, coefficients: &Coefficients) -> Option<RiseMiss> {
    let wanted_pct = stage.ends_at_rise()?;
    let share = |of| coefficients.value(of) * wanted_pct;
    let within = (share(&c::HITS_FROM)..=share(&c::HITS_UNTIL)).contains(&rise_pct);
    (!within).then_some(RiseMiss { wanted_pct, predicted_pct: rise_pct })
}
