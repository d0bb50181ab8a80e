//! How the dough in hand rises through the stages of its method.

use serde::Serialize;
use thiserror::Error;

use super::{Chain, Hand};
use crate::dough::{DoughPart, FLOUR_PCT, Ingredient, PartKind, Role};
use crate::ferment::{
    Begun, FermentingDough, NotReachable, Phase, Point, RiseReached, Track, ferment, ferment_on,
    yeast_for,
};
use crate::flour::{MoistureBasis, Property, falling_number, liquefaction};
use crate::method::{Stage, StageKind, StageRole};

/// Taken where no certificate states it (H).
const USUAL_DAMAGED_PCT: f64 = 7.5;
const USUAL_FALLING_S: f64 = 300.0;
/// Share of the gas that a set of folds, hands and a machine let go, % (H).
const FOLDS_LET_GO: f64 = 25.0;
const HANDS_LET_GO: f64 = 60.0;
const MACHINE_LETS_GO: f64 = 100.0;
/// Dough in a sample jar, kg.
const JAR_KG: f64 = 0.1;
/// What a jar is looked at for, %.
pub(super) const JAR_MARKS: [f64; 3] = [50.0, 75.0, 100.0];
/// How warm a sponge is set, °C (H).
const SPONGE_SET_C: f64 = 24.0;
/// Instant yeast: what another form is worth of it (H).
const ACTIVE_DRY: f64 = 1.25;
const FRESH: f64 = 3.0;

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
    pub series: Vec<Point>,
    /// A sample of the same dough in a small jar that nobody folds.
    pub jar: Vec<RiseReached>,
    /// What no certificate stated and was taken as usual.
    pub assumed: Vec<&'static str>,
}

/// A sponge from its setting to the mixer.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SpongeRise {
    pub name: String,
    pub hours: f64,
    pub set_c: f64,
    pub end_c: f64,
    pub end_rise_pct: f64,
    pub series: Vec<Point>,
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
    pub rise_pct: f64,
    pub dough_c: f64,
    pub sugar_pct: f64,
}

/// Why no rise is worked out.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Error)]
pub enum NoRise {
    #[error("the chain stops before the mixer")]
    NoDough,
    #[error("nothing in this dough makes gas: no yeast and no starter")]
    NoCulture,
    #[error("the method bakes at once: there is no time to rise")]
    NoTime,
}

/// Yeast for a rise at the end of the last stage before the oven, in another room.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SeasonalYeast {
    pub room_c: f64,
    /// None where no dose brings it there.
    pub yeast_idy_pct: Option<f64>,
}

/// The dough and its way to the oven, ready to be followed with another yeast or room.
#[derive(Clone)]
pub(super) struct Way<'a> {
    pub dough: FermentingDough,
    pub sponge: Option<Sponge<'a>>,
    /// From the first mixing on, with the phase each makes.
    pub stages: Vec<(&'a Stage, Phase)>,
    assumed: Vec<&'static str>,
}

#[derive(Clone)]
pub(super) struct Sponge<'a> {
    pub part: &'a DoughPart,
    /// With its percents on its own flour.
    pub dough: FermentingDough,
    pub phase: Phase,
}

/// How the dough in hand rises, from its first mixing to the oven, a sponge before it.
pub fn rise(hand: &Hand<'_>, chain: &Chain) -> Result<Rise, NoRise> {
    let way = Way::of(hand, chain)?;
    let (sponge, track) = way.follow(way.dough.yeast_idy_pct);
    let mut stages = Vec::with_capacity(way.stages.len());
    let mut from_h = 0.0;
    for (stage, phase) in &way.stages {
        let to_h = from_h + phase.hours;
        // The moment before the next stage lets anything go.
        let at_end = track.points.iter().find(|point| point.t_h > to_h - 1e-6);
        let Some(end) = at_end.or(track.last()) else { break };
        stages.push(RiseStage {
            label: stage.label.clone(),
            kind: stage.kind,
            from_h,
            to_h,
            ambient_c: phase.ambient_c,
            rise_pct: end.rise_pct,
            dough_c: end.dough_c,
            sugar_pct: end.sugar_pct,
        });
        from_h = to_h;
    }
    let jar = way.jar();
    Ok(Rise {
        yeast_idy_pct: way.dough.yeast_idy_pct,
        sour_pct: way.dough.sour_pct,
        sponge,
        stages,
        series: track.points,
        jar: JAR_MARKS.map(|mark| RiseReached { rise_pct: mark, at_h: jar.reaches(mark) }).into(),
        assumed: way.assumed,
    })
}

/// Instant yeast, % of all flour, that brings the dough to a rise where it meets the oven.
pub fn yeast_wanted(
    hand: &Hand<'_>,
    chain: &Chain,
    rise_pct: f64,
) -> Result<Result<f64, NotReachable>, NoRise> {
    let way = Way::of(hand, chain)?;
    Ok(yeast_for(rise_pct, |yeast| way.end_rise(yeast)))
}

/// The yeast for each room from 14 to 34 °C that gives the rise this dough has tonight. Stages in a
/// refrigerator or a proofer stay as they are.
pub fn seasonal_yeast(hand: &Hand<'_>, chain: &Chain) -> Result<Vec<SeasonalYeast>, NoRise> {
    let way = Way::of(hand, chain)?;
    let wanted = way.end_rise(way.dough.yeast_idy_pct);
    let rooms = (7..=17).map(|half| f64::from(half) * 2.0);
    Ok(rooms
        .map(|room_c| {
            let there = way.in_room(room_c);
            let found = yeast_for(wanted, |yeast| there.end_rise(yeast));
            SeasonalYeast { room_c, yeast_idy_pct: found.ok() }
        })
        .collect())
}

impl<'a> Way<'a> {
    pub fn of(hand: &Hand<'a>, chain: &Chain) -> Result<Self, NoRise> {
        let (Some(dough), Some(water), Some(heat)) = (&chain.dough, &chain.water, &chain.heat)
        else {
            return Err(NoRise::NoDough);
        };
        let formula = &hand.formula.formula;
        let library = &hand.numbers.library;
        let mut assumed = Vec::new();
        let damaged_starch_pct = blended(hand, Property::DamagedStarch, |value| value)
            .unwrap_or_else(|| {
                assumed.push("damaged starch 7.5 %");
                USUAL_DAMAGED_PCT
            });
        let falling_number_s = blended(hand, Property::FallingNumber, liquefaction).map_or_else(
            || {
                assumed.push("falling number 300 s");
                USUAL_FALLING_S
            },
            falling_number,
        );
        let sugar_of = |lines: &mut dyn Iterator<Item = (Ingredient, f64)>| -> f64 {
            lines
                .map(|(ingredient, pct)| (library.facts(ingredient), pct))
                .filter(|(facts, _)| facts.role == Role::Sweet)
                .map(|(facts, pct)| pct * (1.0 - facts.water_pct / 100.0))
                .sum()
        };
        let lines = || formula.lines().iter().map(|line| (line.ingredient, line.pct));
        let starters = formula.parts().iter().filter(|part| part.kind == PartKind::Starter);
        let after = &hand.method.stages[hand.method.first_mix()..];
        let mixed = FermentingDough {
            yeast_idy_pct: instant(lines()),
            sour_pct: starters.fold(0.0, |sum, part| sum + part.flour_pct),
            sour_activity: 1.0,
            salt_pct: formula.pct_of(Ingredient::Salt),
            sugar_pct: sugar_of(&mut lines()),
            hydration_pct: water.floor_pct,
            damaged_starch_pct,
            falling_number_s,
            start_c: heat.answer.dough_c,
            mass_kg: dough.scaled.dough_kg,
            retention: 0.85,
            rate: 1.0,
        };
        if mixed.yeast_idy_pct <= 0.0 && mixed.sour_pct <= 0.0 {
            return Err(NoRise::NoCulture);
        }
        let room_c = heat.room_c;
        let sponge = formula.parts().iter().find(|part| part.kind == PartKind::Sponge);
        let roles = hand.method.roles();
        let set = roles.iter().position(|role| *role == StageRole::Sponge);
        let set = set.map(|at| &hand.method.stages[at]);
        let hours = set.map_or(0.0, |stage| stage.minutes / 60.0);
        let sponge = sponge.filter(|part| part.flour_pct > 0.0 && hours > 0.0).map(|part| {
            let on_own = |pct: f64| pct * FLOUR_PCT / part.flour_pct;
            let own = || part.lines.iter().map(|line| (line.ingredient, on_own(line.pct)));
            let salt: f64 =
                own().filter(|(one, _)| *one == Ingredient::Salt).map(|(_, pct)| pct).sum();
            Sponge {
                part,
                dough: FermentingDough {
                    yeast_idy_pct: instant(own()),
                    sour_pct: 0.0,
                    salt_pct: salt,
                    sugar_pct: sugar_of(&mut own()),
                    hydration_pct: on_own(part.water_pct),
                    start_c: hand.method.sponge_c.unwrap_or(SPONGE_SET_C),
                    mass_kg: dough.flour_kg * part.total_pct() / FLOUR_PCT,
                    ..mixed
                },
                phase: Phase::rest(
                    hours,
                    set.and_then(|stage| stage.temperature_c).unwrap_or(room_c),
                ),
            }
        });
        let stages = phases(after, hand, &mixed, room_c, dough.scaled.piece_kg);
        if stages.iter().map(|(_, phase)| phase.hours).sum::<f64>() <= 0.0 {
            return Err(NoRise::NoTime);
        }
        Ok(Self { dough: mixed, sponge, stages, assumed })
    }

    /// The sponge and the dough with so much yeast; the sponge has the same share of it as ever.
    pub fn follow(&self, yeast_idy_pct: f64) -> (Option<SpongeRise>, Track) {
        let phases: Vec<Phase> = self.stages.iter().map(|(_, phase)| *phase).collect();
        let dough = FermentingDough { yeast_idy_pct, ..self.dough };
        let Some(sponge) = &self.sponge else { return (None, ferment(&dough, &phases)) };
        let was = self.dough.yeast_idy_pct;
        let factor = if was > 0.0 { yeast_idy_pct / was } else { 0.0 };
        let yeast_idy_pct = sponge.dough.yeast_idy_pct * factor;
        let set = ferment(&FermentingDough { yeast_idy_pct, ..sponge.dough }, &[sponge.phase]);
        let (share, left) = (sponge.part.flour_pct / FLOUR_PCT, set.leaves());
        let own = ferment(&FermentingDough { sugar_pct: 0.0, ..self.dough }, &[]).leaves();
        let added_pct = self.dough.sugar_pct - share * sponge.dough.sugar_pct;
        let begun = Begun {
            sugar_g: share * left.sugar_g + (1.0 - share) * own.sugar_g + added_pct / 100.0,
            damaged_g: share * left.damaged_g + (1.0 - share) * own.damaged_g,
        };
        let end = set.last().copied();
        let seen = SpongeRise {
            name: sponge.part.name.clone(),
            hours: sponge.phase.hours,
            set_c: sponge.dough.start_c,
            end_c: end.map_or(sponge.dough.start_c, |end| end.dough_c),
            end_rise_pct: end.map_or(0.0, |end| end.rise_pct),
            series: set.points,
        };
        (Some(seen), ferment_on(&dough, begun, &phases))
    }

    /// The rise where it meets the oven.
    pub fn end_rise(&self, yeast_idy_pct: f64) -> f64 {
        self.follow(yeast_idy_pct).1.last().map_or(0.0, |end| end.rise_pct)
    }

    /// The same dough in a small jar, where it stays through every stage.
    pub fn jar_of(&self) -> (FermentingDough, Vec<Phase>) {
        let phases = self.stages.iter();
        let phases = phases.map(|(_, phase)| Phase::rest(phase.hours, phase.ambient_c)).collect();
        (FermentingDough { mass_kg: JAR_KG, ..self.dough }, phases)
    }

    fn jar(&self) -> Track {
        let (dough, phases) = self.jar_of();
        ferment(&dough, &phases)
    }

    /// The same way in another room; a refrigerator and a proofer stay as they are.
    pub fn in_room(&self, room_c: f64) -> Self {
        let mut there = self.clone();
        for (stage, phase) in &mut there.stages {
            let open = matches!(stage.kind, StageKind::Rest | StageKind::Fold | StageKind::Divide);
            if open && !stage.is_cold() {
                phase.ambient_c = room_c;
            }
        }
        there
    }
}

/// Each stage before the oven as what it does to the dough. While it is mixed, a dough keeps the
/// temperature the mixer brings it to; from the divider on it is as heavy as a piece.
fn phases<'a>(
    stages: &'a [Stage],
    hand: &Hand<'_>,
    dough: &FermentingDough,
    room_c: f64,
    piece_kg: f64,
) -> Vec<(&'a Stage, Phase)> {
    let oven = stages.iter().position(|stage| stage.kind == StageKind::Bake);
    stages[..oven.unwrap_or(stages.len())]
        .iter()
        .map(|stage| {
            let ambient_c = match stage.kind {
                StageKind::Mix => dough.start_c,
                _ => stage.temperature_c.unwrap_or(room_c),
            };
            let (mass_kg, let_go_pct) = match stage.kind {
                StageKind::Fold => (None, FOLDS_LET_GO),
                StageKind::Divide if hand.method.machine_divided => {
                    (Some(piece_kg), MACHINE_LETS_GO)
                }
                StageKind::Divide => (Some(piece_kg), HANDS_LET_GO),
                _ => (None, 0.0),
            };
            (stage, Phase { mass_kg, let_go_pct, ..Phase::rest(stage.minutes / 60.0, ambient_c) })
        })
        .collect()
}

/// Yeast in what it is worth as instant yeast.
fn instant(lines: impl Iterator<Item = (Ingredient, f64)>) -> f64 {
    lines
        .map(|(ingredient, pct)| match ingredient {
            Ingredient::InstantYeast => pct,
            Ingredient::ActiveDryYeast => pct / ACTIVE_DRY,
            Ingredient::FreshYeast => pct / FRESH,
            _ => 0.0,
        })
        .sum()
}

/// A property of the flours by their shares, as something that mixes by mass; none where one does
/// not state it.
fn blended(hand: &Hand<'_>, property: Property, mixes_as: impl Fn(f64) -> f64) -> Option<f64> {
    let basis = (property == Property::DamagedStarch).then_some(MoistureBasis::AsIs);
    hand.flours.iter().try_fold(0.0, |sum, flour| {
        let value = flour.readings.value(property, basis)?;
        Some(sum + mixes_as(value) * flour.share_pct / FLOUR_PCT)
    })
}
