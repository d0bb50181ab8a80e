//! What alone would bring the selected product to a rise: its yeast, its starter, its water, another
//! room, another time.

use chrono::{DateTime, TimeDelta, Utc};
use serde::Serialize;

use super::stage_ends::LOOKED_AT_H;
use super::way::{RiseError, Way};
use super::{Chain, RunSettings, Scenario, chain as chain_of};
use crate::dough::{FLOUR_PCT, PreparationKind};
use crate::ferment::{NotReachable, yeast_for};
use crate::units::{MIN_PER_H, crossing};

/// A rise that is wanted of the selected product.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct TargetRise {
    pub rise_pct: f64,
    /// So long after the first mixing; where it meets the oven if none.
    pub after_h: Option<f64>,
    /// The hour at which it is to stand there.
    pub wanted_at: Option<DateTime<Utc>>,
}

/// Each that alone brings the dough to the rise, all others as they are; none where nothing in its
/// range does.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TargetRiseSolutions {
    /// Instant yeast, % of all flour.
    pub yeast_idy_pct: Option<f64>,
    /// Of a dough with a starter.
    pub starter: Option<StarterDose>,
    pub water: Option<DoughWater>,
    /// From 5 to 38 °C; refrigerator and proofer stay as they are.
    pub room_c: Option<f64>,
    /// As it is, so long after the first mixing, its last stage lasting on if need be, h.
    pub after_h: Option<f64>,
    /// When the first mixing begins for it to have risen so far at the hour that was asked.
    pub mixing_from: Option<DateTime<Utc>>,
}

/// How much starter a dough takes.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct StarterDose {
    /// Its flour, % of all flour.
    pub prefermented_flour_pct: f64,
    /// All of it, % of all flour, and of one dough.
    pub starter_pct: f64,
    pub kg: f64,
}

/// The water that brings the dough off the mixer so warm.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct DoughWater {
    pub dough_c: f64,
    pub water_c: f64,
    pub ice_kg: f64,
}

/// Rooms, doughs off the mixer and starters that are thought of: °C, °C, % of all flour.
const ROOMS: (f64, f64) = (5.0, 38.0);
const DOUGHS: (f64, f64) = (10.0, 36.0);
const STARTERS: (f64, f64) = (0.2, 60.0);
/// A dough this near is as warm as was wanted, K.
const SAME_C: f64 = 0.1;

/// Solves a rise for each of its causes, or says why its film does not hold so much.
pub fn target_rise(
    scenario: &Scenario<'_>,
    chain: &Chain,
    target: TargetRise,
) -> Result<(TargetRiseSolutions, Option<NotReachable>), RiseError> {
    let TargetRise { rise_pct, after_h, wanted_at } = target;
    let planned = Way::of(scenario, chain)?;
    let way = after_h.map_or_else(|| planned.clone(), |hours| planned.until(hours));
    let yeast_pct = way.dough.yeast_idy_pct;
    let holds = rise_pct <= way.limit_pct;
    let beyond = NotReachable::BeyondFilm { limit_pct: way.limit_pct };
    let yeast = if holds { yeast_for(rise_pct, |yeast| way.end_gas(yeast)) } else { Err(beyond) };
    // Above its best temperature a culture slows again: the cooler of two is meant.
    let solved = |(low, high): (f64, f64), gas: &dyn Fn(f64) -> f64| {
        crossing(low, high, rise_pct, gas).ok().filter(|_| holds)
    };
    let room_c = solved(ROOMS, &|room_c| way.in_room(room_c).end_gas(yeast_pct));
    let dough_c = solved(DOUGHS, &|dough_c| way.off_mixer_at(dough_c).end_gas(yeast_pct));
    let sour_pct = (way.dough.sour_pct > 0.0)
        .then(|| solved(STARTERS, &|sour_pct| way.with_sour(sour_pct).end_gas(yeast_pct)))
        .flatten();
    let (_, curve) = planned.until(LOOKED_AT_H).follow(yeast_pct);
    let (_, to_oven) = planned.follow(yeast_pct);
    // A fold or a divider before the oven lets go what lasting on in its last stage does not.
    let reached_h = to_oven.reaches(rise_pct).or_else(|| curve.reaches(rise_pct));
    let before = |at: DateTime<Utc>, hours: f64| {
        let minutes = TimeDelta::minutes((hours * MIN_PER_H).round() as i64);
        at.checked_sub_signed(minutes)
    };
    let solutions = TargetRiseSolutions {
        yeast_idy_pct: yeast.ok(),
        starter: sour_pct.and_then(|pct| dose(scenario, chain, pct)),
        water: dough_c.and_then(|dough_c| water_for(scenario, dough_c)),
        room_c,
        after_h: reached_h,
        mixing_from: wanted_at.zip(after_h.or(reached_h)).and_then(|(at, hours)| before(at, hours)),
    };
    Ok((solutions, yeast.err()))
}

/// The starter of the formula with so much of all flour in it.
fn dose(scenario: &Scenario<'_>, chain: &Chain, flour_pct: f64) -> Option<StarterDose> {
    let parts = scenario.formula.formula.parts();
    let starter = parts.iter().find(|part| part.kind == PreparationKind::Starter)?;
    let starter_pct = starter.total_pct() * flour_pct / starter.flour_pct;
    let kg = chain.dough.as_ref()?.flour_kg * starter_pct / FLOUR_PCT;
    Some(StarterDose { prefermented_flour_pct: flour_pct, starter_pct, kg })
}

/// The water that brings the dough off the mixer so warm; none where no water does.
fn water_for(scenario: &Scenario<'_>, dough_c: f64) -> Option<DoughWater> {
    let run_settings = RunSettings { target_c: Some(dough_c), ..scenario.run_settings };
    let heat = chain_of(&Scenario { run_settings, ..*scenario }).heat?.answer;
    ((heat.dough_c - dough_c).abs() < SAME_C).then_some(DoughWater {
        dough_c,
        water_c: heat.water_c,
        ice_kg: heat.ice_kg,
    })
}
