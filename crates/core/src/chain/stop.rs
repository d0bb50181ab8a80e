//! What to do with sponges and doughs that are late because the line stands still.

use serde::Serialize;

use super::rise::Way;
use super::{Chain, Hand};
use crate::day::RunPlan;
use crate::dough::{FLOUR_PCT, PartKind};
use crate::ferment::{FermentingDough, Phase, ferment};
use crate::method::StageRole;

/// How cold a hold is, °C, and how much of a sponge's flour and yeast brings it back (H).
const HOLD_C: f64 = 4.0;
const REVIVE_FLOUR_PCT: f64 = 10.0;
const REVIVE_YEAST_PCT: f64 = 15.0;
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
    let part = hand.formula.formula.parts().iter().find(|part| part.kind == PartKind::Sponge);
    let kg = |pct: f64| dough.flour_kg * pct / FLOUR_PCT;
    let mut found = Vec::new();
    // Sponges that are set after the line goes again and are still whole.
    let waiting =
        |dough: &crate::day::RunDough| dough.stages.iter().any(|stage| stage.waits_min > 0.0);
    let last_wait =
        run.doughs.iter().filter(|dough| waiting(dough)).map(|dough| dough.number).max();
    let mut fresh: Vec<usize> = run
        .doughs
        .iter()
        .map(|dough| dough.number)
        .filter(|number| last_wait.is_some_and(|last| *number > last))
        .rev()
        .collect();
    for one in &run.doughs {
        // Bread that cools longer, and pieces between machines, are nobody's trouble.
        let stage = one.stages.iter().filter(|stage| stage.waits_min > 0.0).find(|stage| {
            matches!(
                stage.role,
                StageRole::Sponge | StageRole::Floor | StageRole::Proof | StageRole::Dividing
            )
        });
        let Some(stage) = stage else { continue };
        let (fermenting, begin) = match (&way.sponge, stage.role) {
            (Some(sponge), StageRole::Sponge) => (sponge.dough, sponge.phase),
            _ => {
                let ambient = hand.method.stages[stage.stage].temperature_c;
                let hours = (stage.ends_at - stage.starts_at).num_seconds() as f64 / 3600.0;
                let phase = Phase::rest(
                    hours - stage.waits_min / 60.0,
                    ambient.unwrap_or(chain.heat.as_ref().map_or(24.0, |heat| heat.room_c)),
                );
                (way.dough, phase)
            }
        };
        let waits_h = stage.waits_min / 60.0;
        let planned = at_end(&fermenting, &[begin]);
        let then = at_end(&fermenting, &[begin, Phase { hours: waits_h, ..begin }]);
        let cold =
            at_end(&fermenting, &[begin, Phase { hours: waits_h, ambient_c: HOLD_C, ..begin }]);
        let mut ways = Vec::new();
        let mut out = |way, says: String, amounts: Vec<LateAmount>, doughs: Vec<usize>, caution| {
            ways.push(Remedied { way, advised: false, says, amounts, doughs, caution });
        };
        let amount = |of: &str, kg: f64| LateAmount { of: of.into(), kg };
        if stage.past_min <= 0.0 {
            out(
                WayOut::GoOn,
                "within what it may be: go on with it, and look before you do".into(),
                vec![],
                vec![],
                None,
            );
        }
        out(
            WayOut::HoldCold,
            format!(
                "{HOLD_C:.0} °C around it from when the line stops: it goes on at {:.1} °C instead \
                 of {:.1}, risen {:.0} % instead of {:.0}{}",
                cold.0,
                then.0,
                cold.1,
                then.1,
                if then.0 - cold.0 < 3.0 {
                    ": a mass this big hardly cools; spread it thin"
                } else {
                    ""
                }
            ),
            vec![],
            vec![],
            None,
        );
        if let (Some(part), StageRole::Sponge) = (part, stage.role) {
            let yeast: f64 = part
                .lines
                .iter()
                .filter(|line| line.ingredient.is_yeast())
                .map(|line| kg(line.pct))
                .sum();
            let (flour, water, all) =
                (kg(part.flour_pct), kg(part.water_pct), kg(part.total_pct()));
            if stage.past_min > 0.0 {
                let over: Vec<usize> = (0..THIRDS).map_while(|_| fresh.pop()).collect();
                let third = THIRDS as f64;
                let mut says =
                    "a third of it into each of the next three sponges, their own flour, \
                                water and yeast less by what it brings"
                        .to_owned();
                if over.len() < THIRDS {
                    let missing = THIRDS - over.len();
                    says.push_str(&format!(
                        "; {missing} of them are set after this run: hold that much of it cold till then"
                    ));
                }
                out(
                    WayOut::SpreadInThirds,
                    says,
                    vec![
                        amount("old sponge into each", all / third),
                        amount("flour in each then", flour - flour / third),
                        amount("water in each then", water - water / third),
                        amount("yeast in each then", yeast - yeast / third),
                    ],
                    over,
                    Some(HEAVY),
                );
                out(
                    WayOut::Revive,
                    "fresh flour, water and yeast mixed in, half an hour, and on; for skilled hands"
                        .into(),
                    vec![
                        amount("flour", flour * REVIVE_FLOUR_PCT / 100.0),
                        amount("water", water * REVIVE_FLOUR_PCT / 100.0),
                        amount("yeast", yeast * REVIVE_YEAST_PCT / 100.0),
                    ],
                    vec![one.number],
                    None,
                );
            }
            if stage.past_min > 0.0 {
                let says = "bake it off in tins as it is and discard the bread".into();
                out(
                    WayOut::BakeOff,
                    says,
                    vec![amount("sponge", all)],
                    vec![one.number],
                    Some(LIVE),
                );
            }
        } else if stage.past_min > 0.0 {
            let says = "bake it off as it is: too old to be this bread".into();
            let all = vec![amount("dough", dough.scaled.dough_kg)];
            out(WayOut::BakeOff, says, all, vec![one.number], Some(LIVE));
        }
        // Unskilled hands are safe with thirds; what has no sponge left in it is baked off.
        let safe = |one: &Remedied| matches!(one.way, WayOut::GoOn | WayOut::SpreadInThirds);
        let take = ways.iter().position(safe).unwrap_or(ways.len() - 1);
        ways[take].advised = true;
        found.push(Late {
            dough: one.number,
            stage: stage.label.clone(),
            role: stage.role,
            waits_min: stage.waits_min,
            past_min: stage.past_min,
            dough_c: then.0,
            rise_pct: then.1,
            planned_c: planned.0,
            planned_rise_pct: planned.1,
            ways,
        });
    }
    found
}

/// Temperature and rise at the end.
fn at_end(dough: &FermentingDough, phases: &[Phase]) -> (f64, f64) {
    ferment(dough, phases).last().map_or((dough.start_c, 0.0), |end| (end.dough_c, end.rise_pct))
}
