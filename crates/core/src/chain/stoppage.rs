//! What to do with sponges and doughs that are late because the line stands still.

use serde::Serialize;

use chrono::{DateTime, Utc};

use super::dough_maturity::maturity_of;
use super::way::{OnTheWay, Way};
use super::{Chain, DoughLink, Scenario};
use crate::dough::{FLOUR_PCT, Preparation, PreparationKind};
use crate::ferment::{Maturity, Phase};
use crate::method::coefficients::{HARDLY_COOLED, HOLD_C, REVIVE_FLOUR, REVIVE_YEAST};
use crate::method::{StageKind, StageRole};
use crate::schedule::{RunStage, ScheduledBatch};
use crate::units::MIN_PER_H;

/// Sponges an old one is spread over.
const THIRDS: usize = 3;

/// A way out for one late dough.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Recovery {
    /// As it is: it is within what it may be.
    GoOn,
    HoldCold,
    SpreadInThirds,
    Revive,
    BakeOff,
}

/// So much of something.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct DelayedAmount {
    pub of: DelayedMaterial,
    pub kg: f64,
}

/// One way out with its amounts.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct RecoveredBatch {
    pub way: Recovery,
    /// The one to take, skill and time being what they usually are.
    pub advised: bool,
    pub message: RecoveryAdvice,
    /// The dough when it goes on, where the way makes that another.
    pub then: Option<DoughState>,
    pub amounts: Vec<DelayedAmount>,
    /// Doughs it touches, by their number.
    pub doughs: Vec<usize>,
    pub caution: Option<RecoveryCaution>,
}

/// How a way out is taken.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum RecoveryAdvice {
    WithinWindow,
    /// Into the refrigerator; `hardly_cools` where the mass is too big for it.
    HoldCold {
        hardly_cools: bool,
    },
    /// Into the next sponges; so many of them are set after this run.
    SpreadInThirds {
        after_run: usize,
    },
    Revive,
    BakeOffSponge,
    BakeOffDough,
}

/// What a way out asks attention for.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum RecoveryCaution {
    LiveDough,
    HeavyTrough,
}

/// What an amount is of.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum DelayedMaterial {
    OldSpongeEach,
    FlourEach,
    WaterEach,
    YeastEach,
    Flour,
    Water,
    Yeast,
    Sponge,
    Dough,
}

/// A dough that waits because the line stood still.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct DelayedBatch {
    pub dough: usize,
    pub stage: String,
    pub role: StageRole,
    pub waits_min: f64,
    pub past_min: f64,
    /// The dough at the end of it, and as it was planned; none of what is not a dough yet.
    pub then: Option<DoughState>,
    pub planned: Option<DoughState>,
    /// How ripe it meets the oven if it waits where it is, and as it was planned.
    pub maturity: Maturity,
    pub planned_maturity: Maturity,
    pub ways: Vec<RecoveredBatch>,
}

/// Every dough of a run that waits, where it is past its window or waits longest, with its ways
/// out. The line goes again at a moment: sponges set from then on can take an old one.
pub fn late(
    scenario: &Scenario<'_>,
    chain: &Chain,
    doughs: &[ScheduledBatch],
    goes_again: DateTime<Utc>,
) -> Vec<DelayedBatch> {
    let (Ok(way), Some(dough)) = (Way::of(scenario, chain), chain.dough.as_ref()) else {
        return Vec::new();
    };
    let room_c = chain.heat.as_ref().map_or_else(|| scenario.room_c(), |heat| heat.room_c);
    let line = LotStatus { scenario, way, chain, dough, room_c };
    // The last first, so that they are taken in order.
    let set_after = doughs.iter().rev().filter(|dough| dough.starts_at >= goes_again);
    let mut fresh: Vec<usize> = set_after.map(|dough| dough.number).collect();
    doughs
        .iter()
        .filter_map(|one| {
            let waits = one.stages.iter().filter(|stage| stage.waits_min > 0.0);
            // Bread that cools longer is nobody's trouble.
            let worst = waits.filter(|stage| stage.role != StageRole::Cool).max_by(|a, b| {
                a.past_min.total_cmp(&b.past_min).then(a.waits_min.total_cmp(&b.waits_min))
            });
            worst.map(|stage| line.late(one, stage, &mut fresh))
        })
        .collect()
}

/// A line that stands still, with the dough on it.
struct LotStatus<'a> {
    scenario: &'a Scenario<'a>,
    way: Way<'a>,
    chain: &'a Chain,
    dough: &'a DoughLink,
    room_c: f64,
}

/// Temperature and rise of a dough at a moment.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct DoughState {
    pub dough_c: f64,
    pub rise_pct: f64,
}

/// Whether a dough waits where it does, or in the cold from when its last stage should end.
#[derive(Clone, Copy)]
enum Waits {
    Not,
    WhereItIs,
    InTheCold,
}

impl<'a> LotStatus<'a> {
    fn late(
        &self,
        dough: &ScheduledBatch,
        stage: &RunStage,
        fresh: &mut Vec<usize>,
    ) -> DelayedBatch {
        let number = dough.number;
        let seen = |waits: Waits| self.seen(dough, stage.stage, waits);
        let (planned, then) = (seen(Waits::Not), seen(Waits::WhereItIs));
        let mut ways = Vec::new();
        if stage.past_min <= 0.0 {
            ways.push(RecoveredBatch::plain(Recovery::GoOn, RecoveryAdvice::WithinWindow));
        }
        if let (Some(then), Some(cold)) = (then, seen(Waits::InTheCold)) {
            let hardly_c = self.scenario.coefficients().value(&HARDLY_COOLED);
            ways.push(hold_cold(then, cold, hardly_c));
        }
        if stage.past_min > 0.0 {
            match self.sponge().filter(|_| stage.role == StageRole::Sponge) {
                Some(part) => ways.extend(self.old_sponge(part, number, fresh)),
                None => ways.push(self.old_dough(number)),
            }
        }
        // Unskilled hands are safe with thirds; what has no sponge left in it is baked off.
        let safe =
            |one: &RecoveredBatch| matches!(one.way, Recovery::GoOn | Recovery::SpreadInThirds);
        let take = ways.iter().position(safe).unwrap_or(ways.len() - 1);
        ways[take].advised = true;
        DelayedBatch {
            dough: number,
            stage: stage.label.clone(),
            role: stage.role,
            waits_min: stage.waits_min,
            past_min: stage.past_min,
            then,
            planned,
            maturity: self.maturity(dough, Waits::WhereItIs),
            planned_maturity: self.maturity(dough, Waits::Not),
            ways,
        }
    }

    fn sponge(&self) -> Option<&Preparation> {
        let parts = self.scenario.formula.formula.parts();
        parts.iter().find(|part| part.kind == PreparationKind::Sponge)
    }

    fn kg(&self, pct: f64) -> f64 {
        self.dough.flour_kg * pct / FLOUR_PCT
    }

    /// The dough at the end of one of its stages, as *Rise* has it, lying longer where it waits.
    fn seen(&self, dough: &ScheduledBatch, at: usize, waits: Waits) -> Option<DoughState> {
        let way = self.way(dough, at, waits);
        let (sponge, curve) = way.follow(way.dough.yeast_idy_pct);
        if way.stages.is_empty() {
            let lies = dough.stages.iter().find(|one| one.stage == at)?;
            let sponge = sponge.filter(|_| lies.role == StageRole::Sponge)?;
            return Some(DoughState { dough_c: sponge.end_c, rise_pct: sponge.end_rise_pct });
        }
        curve.last().map(|end| DoughState { dough_c: end.dough_c, rise_pct: end.rise_pct })
    }

    /// How ripe it is where it meets the oven.
    fn maturity(&self, dough: &ScheduledBatch, waits: Waits) -> Maturity {
        let way = self.way(dough, self.scenario.method.stages.len(), waits);
        maturity_of(self.scenario, self.chain, &way)
    }

    /// The dough's way to the end of one of its stages, lying longer where it waits.
    fn way(&self, dough: &ScheduledBatch, at: usize, waits: Waits) -> Way<'a> {
        let hold_c = self.scenario.coefficients().value(&HOLD_C);
        let mut way = self.way.clone();
        way.stages.retain(|one| one.at <= at);
        for stage in dough.stages.iter().filter(|one| one.stage <= at && one.waits_min > 0.0) {
            let cold = matches!(waits, Waits::InTheCold) && stage.stage == at;
            let hours = if matches!(waits, Waits::Not) { 0.0 } else { stage.waits_min / MIN_PER_H };
            let lies = |phase: Phase, ambient_c: f64| Phase {
                within: phase.within,
                ..Phase::rest(hours, if cold { hold_c } else { ambient_c })
            };
            if stage.role == StageRole::Sponge {
                if let Some(sponge) = &mut way.sponge {
                    let (last, (_, end_c)) = (sponge.phases.last().copied(), sponge.ambient_c());
                    sponge.waits = last.map(|last| lies(last, end_c));
                }
            } else if let Some(last) = way.stages.iter().rposition(|one| one.at == stage.stage) {
                let OnTheWay { phase, stage, at } = way.stages[last];
                // What is mixed waits in the bowl.
                let mixed = stage.kind == StageKind::Mix;
                let ambient_c = if mixed { self.room_c } else { phase.ambient_end_c };
                let waits = OnTheWay { at, stage, phase: lies(phase, ambient_c) };
                way.stages.insert(last + 1, waits);
            }
        }
        way
    }

    /// What can be done with a sponge past its window.
    fn old_sponge(
        &self,
        part: &Preparation,
        number: usize,
        fresh: &mut Vec<usize>,
    ) -> [RecoveredBatch; 3] {
        let yeasts = part.lines.iter().filter(|line| line.ingredient.is_yeast());
        let yeast: f64 = yeasts.map(|line| self.kg(line.pct)).sum();
        let (flour, water) = (self.kg(part.flour_pct), self.kg(part.water_pct));
        let all = self.kg(part.total_pct());
        let over: Vec<usize> = (0..THIRDS).map_while(|_| fresh.pop()).collect();
        let third = THIRDS as f64;
        let after_run = THIRDS - over.len();
        let thirds = RecoveredBatch {
            amounts: vec![
                DelayedAmount::new(DelayedMaterial::OldSpongeEach, all / third),
                DelayedAmount::new(DelayedMaterial::FlourEach, flour - flour / third),
                DelayedAmount::new(DelayedMaterial::WaterEach, water - water / third),
                DelayedAmount::new(DelayedMaterial::YeastEach, yeast - yeast / third),
            ],
            doughs: over,
            caution: Some(RecoveryCaution::HeavyTrough),
            ..RecoveredBatch::plain(
                Recovery::SpreadInThirds,
                RecoveryAdvice::SpreadInThirds { after_run },
            )
        };
        let of = |coefficient| self.scenario.coefficients().value(coefficient);
        let revived = RecoveredBatch {
            amounts: vec![
                DelayedAmount::new(DelayedMaterial::Flour, flour * of(&REVIVE_FLOUR) / 100.0),
                DelayedAmount::new(DelayedMaterial::Water, water * of(&REVIVE_FLOUR) / 100.0),
                DelayedAmount::new(DelayedMaterial::Yeast, yeast * of(&REVIVE_YEAST) / 100.0),
            ],
            doughs: vec![number],
            ..RecoveredBatch::plain(Recovery::Revive, RecoveryAdvice::Revive)
        };
        let advice = RecoveryAdvice::BakeOffSponge;
        [
            thirds,
            revived,
            bake_off(advice, DelayedAmount::new(DelayedMaterial::Sponge, all), number),
        ]
    }

    fn old_dough(&self, number: usize) -> RecoveredBatch {
        let all = DelayedAmount::new(DelayedMaterial::Dough, self.dough.scaled.dough_kg);
        bake_off(RecoveryAdvice::BakeOffDough, all, number)
    }
}

fn hold_cold(then: DoughState, cold: DoughState, hardly_c: f64) -> RecoveredBatch {
    let hardly_cools = then.dough_c - cold.dough_c < hardly_c;
    let advice = RecoveryAdvice::HoldCold { hardly_cools };
    RecoveredBatch { then: Some(cold), ..RecoveredBatch::plain(Recovery::HoldCold, advice) }
}

fn bake_off(message: RecoveryAdvice, all: DelayedAmount, number: usize) -> RecoveredBatch {
    RecoveredBatch {
        amounts: vec![all],
        doughs: vec![number],
        caution: Some(RecoveryCaution::LiveDough),
        ..RecoveredBatch::plain(Recovery::BakeOff, message)
    }
}

impl RecoveredBatch {
    fn plain(way: Recovery, message: RecoveryAdvice) -> Self {
        let (amounts, doughs) = (Vec::new(), Vec::new());
        Self { way, advised: false, message, then: None, amounts, doughs, caution: None }
    }
}

impl DelayedAmount {
    const fn new(of: DelayedMaterial, kg: f64) -> Self {
        Self { of, kg }
    }
}
