//! What to do with sponges and doughs that are late because the line stands still.

use serde::Serialize;

use super::rise::Way;
use super::{Chain, DoughLink, Hand};
use crate::day::{RunDough, RunPlan, RunStage};
use crate::dough::{DoughPart, FLOUR_PCT, PartKind};
use crate::ferment::{FermentingDough, Phase, ferment};
use crate::method::StageRole;

/// How cold a hold is, °C, and how much of a sponge's flour and yeast brings it back (H).
const HOLD_C: f64 = 4.0;
const REVIVE_FLOUR_PCT: f64 = 10.0;
const REVIVE_YEAST_PCT: f64 = 15.0;
/// Cooled by less than this, the cold was hardly felt, °C.
const HARDLY_C: f64 = 3.0;
/// Sponges an old one is spread over.
const THIRDS: usize = 3;

/// A way out for one late dough.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum WayOut {
    /// As it is: it is within what it may be.
    GoOn,
    HoldCold,
    SpreadInThirds,
    Revive,
    BakeOff,
}

/// So much of something.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[cfg_attr(feature = "openapi", schema(as = LateAmount))]
pub struct LateAmount {
    pub of: String,
    pub kg: f64,
}

/// One way out with its amounts.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Remedied {
    pub way: WayOut,
    /// The one to take, skill and time being what they usually are.
    pub advised: bool,
    pub says: String,
    pub amounts: Vec<LateAmount>,
    /// Doughs it touches, by their number.
    pub doughs: Vec<usize>,
    pub caution: Option<&'static str>,
}

/// A dough that waits because the line stood still.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Late {
    pub dough: usize,
    pub stage: String,
    pub role: StageRole,
    pub waits_min: f64,
    pub past_min: f64,
    /// How warm and how far risen it is when it goes on, and would have been.
    pub dough_c: f64,
    pub rise_pct: f64,
    pub planned_c: f64,
    pub planned_rise_pct: f64,
    pub ways: Vec<Remedied>,
}

const LIVE: &str = "Live dough goes on growing: never into a bin or drain as it is. Bake it first, let it cool, \
     and discard it by your local rules.";
const HEAVY: &str = "A trough of dough is heavy: tip it with the hoist, not by hand.";

/// Every dough of a run that waits, with its ways out.
pub fn late(hand: &Hand<'_>, chain: &Chain, run: &RunPlan) -> Vec<Late> {
    let (Ok(way), Some(dough)) = (Way::of(hand, chain), chain.dough.as_ref()) else {
        return Vec::new();
    };
    let room_c = chain.heat.as_ref().map_or(24.0, |heat| heat.room_c);
    let line = Standing { hand, way, dough, room_c };
    let mut fresh = set_after(run);
    run.doughs
        .iter()
        .filter_map(|one| {
            // Bread that cools longer, and pieces between machines, are nobody's trouble.
            let stage = one.stages.iter().filter(|stage| stage.waits_min > 0.0).find(|stage| {
                use StageRole::{Dividing, Floor, Proof, Sponge};
                matches!(stage.role, Sponge | Floor | Proof | Dividing)
            })?;
            Some(line.late(one.number, stage, &mut fresh))
        })
        .collect()
}

/// Doughs that are begun when the line goes again and wait nowhere: their sponges take an old one.
/// The last first, so that they are taken in order.
fn set_after(run: &RunPlan) -> Vec<usize> {
    let waits = |dough: &&RunDough| dough.stages.iter().any(|stage| stage.waits_min > 0.0);
    let last = run.doughs.iter().filter(waits).map(|dough| dough.number).max();
    let numbers = run.doughs.iter().map(|dough| dough.number).rev();
    numbers.filter(|number| last.is_some_and(|last| *number > last)).collect()
}

/// A line that stands still, with the dough on it.
struct Standing<'a> {
    hand: &'a Hand<'a>,
    way: Way<'a>,
    dough: &'a DoughLink,
    room_c: f64,
}

/// Temperature and rise of a dough at a moment.
#[derive(Clone, Copy)]
struct Seen {
    celsius: f64,
    rise_pct: f64,
}

impl Standing<'_> {
    fn late(&self, number: usize, stage: &RunStage, fresh: &mut Vec<usize>) -> Late {
        let [planned, then, cold] = self.seen(stage);
        let mut ways = Vec::new();
        if stage.past_min <= 0.0 {
            let says = "within what it may be: go on with it, and look before you do";
            ways.push(Remedied::plain(WayOut::GoOn, says.into()));
        }
        ways.push(hold_cold(then, cold));
        if stage.past_min > 0.0 {
            match self.sponge().filter(|_| stage.role == StageRole::Sponge) {
                Some(part) => ways.extend(self.old_sponge(part, number, fresh)),
                None => ways.push(self.old_dough(number)),
            }
        }
        // Unskilled hands are safe with thirds; what has no sponge left in it is baked off.
        let safe = |one: &Remedied| matches!(one.way, WayOut::GoOn | WayOut::SpreadInThirds);
        let take = ways.iter().position(safe).unwrap_or(ways.len() - 1);
        ways[take].advised = true;
        Late {
            dough: number,
            stage: stage.label.clone(),
            role: stage.role,
            waits_min: stage.waits_min,
            past_min: stage.past_min,
            dough_c: then.celsius,
            rise_pct: then.rise_pct,
            planned_c: planned.celsius,
            planned_rise_pct: planned.rise_pct,
            ways,
        }
    }

    fn sponge(&self) -> Option<&DoughPart> {
        let parts = self.hand.formula.formula.parts();
        parts.iter().find(|part| part.kind == PartKind::Sponge)
    }

    fn kg(&self, pct: f64) -> f64 {
        self.dough.flour_kg * pct / FLOUR_PCT
    }

    /// The dough at the end of its stage as planned, after its wait, and after a wait in the cold.
    fn seen(&self, stage: &RunStage) -> [Seen; 3] {
        let (dough, begin) = match &self.way.sponge {
            Some(sponge) if stage.role == StageRole::Sponge => (sponge.dough, sponge.phase),
            _ => {
                let ambient = self.hand.method.stages[stage.stage].temperature_c;
                let hours = (stage.ends_at - stage.starts_at).num_seconds() as f64 / 3600.0;
                let planned_h = hours - stage.waits_min / 60.0;
                (self.way.dough, Phase::rest(planned_h, ambient.unwrap_or(self.room_c)))
            }
        };
        let wait = Phase { hours: stage.waits_min / 60.0, ..begin };
        let cold = Phase { ambient_c: HOLD_C, ..wait };
        [&[begin][..], &[begin, wait], &[begin, cold]].map(|phases| at_end(&dough, phases))
    }

    /// What can be done with a sponge past its window.
    fn old_sponge(&self, part: &DoughPart, number: usize, fresh: &mut Vec<usize>) -> [Remedied; 3] {
        let yeasts = part.lines.iter().filter(|line| line.ingredient.is_yeast());
        let yeast: f64 = yeasts.map(|line| self.kg(line.pct)).sum();
        let (flour, water) = (self.kg(part.flour_pct), self.kg(part.water_pct));
        let all = self.kg(part.total_pct());
        let over: Vec<usize> = (0..THIRDS).map_while(|_| fresh.pop()).collect();
        let third = THIRDS as f64;
        let after = match THIRDS - over.len() {
            0 => String::new(),
            missing => format!(
                "; {missing} of them are set after this run: hold that much of it cold till then"
            ),
        };
        let thirds = Remedied {
            amounts: vec![
                LateAmount::new("old sponge into each", all / third),
                LateAmount::new("flour in each then", flour - flour / third),
                LateAmount::new("water in each then", water - water / third),
                LateAmount::new("yeast in each then", yeast - yeast / third),
            ],
            doughs: over,
            caution: Some(HEAVY),
            ..Remedied::plain(
                WayOut::SpreadInThirds,
                format!(
                    "a third of it into each of the next three sponges, their own flour, water and \
                     yeast less by what it brings{after}"
                ),
            )
        };
        let says = "fresh flour, water and yeast mixed in, half an hour, and on; for skilled hands";
        let revived = Remedied {
            amounts: vec![
                LateAmount::new("flour", flour * REVIVE_FLOUR_PCT / 100.0),
                LateAmount::new("water", water * REVIVE_FLOUR_PCT / 100.0),
                LateAmount::new("yeast", yeast * REVIVE_YEAST_PCT / 100.0),
            ],
            doughs: vec![number],
            ..Remedied::plain(WayOut::Revive, says.into())
        };
        let says = "bake it off in tins as it is and discard the bread";
        [thirds, revived, bake_off(says, LateAmount::new("sponge", all), number)]
    }

    fn old_dough(&self, number: usize) -> Remedied {
        let all = LateAmount::new("dough", self.dough.scaled.dough_kg);
        bake_off("bake it off as it is: too old to be this bread", all, number)
    }
}

fn hold_cold(then: Seen, cold: Seen) -> Remedied {
    let hardly = then.celsius - cold.celsius < HARDLY_C;
    let says = format!(
        "{HOLD_C:.0} °C around it from when the line stops: it goes on at {:.1} °C instead of {:.1}, \
         risen {:.0} % instead of {:.0}{}",
        cold.celsius,
        then.celsius,
        cold.rise_pct,
        then.rise_pct,
        if hardly { ": a mass this big hardly cools; spread it thin" } else { "" }
    );
    Remedied::plain(WayOut::HoldCold, says)
}

fn bake_off(says: &str, all: LateAmount, number: usize) -> Remedied {
    Remedied {
        amounts: vec![all],
        doughs: vec![number],
        caution: Some(LIVE),
        ..Remedied::plain(WayOut::BakeOff, says.into())
    }
}

impl Remedied {
    fn plain(way: WayOut, says: String) -> Self {
        Self { way, advised: false, says, amounts: Vec::new(), doughs: Vec::new(), caution: None }
    }
}

impl LateAmount {
    fn new(of: &str, kg: f64) -> Self {
        Self { of: of.into(), kg }
    }
}

fn at_end(dough: &FermentingDough, phases: &[Phase]) -> Seen {
    let track = ferment(dough, phases);
    let (celsius, rise_pct) =
        track.last().map_or((dough.start_c, 0.0), |end| (end.dough_c, end.rise_pct));
    Seen { celsius, rise_pct }
}
