//! The dough and its way to the oven, ready to be followed with another yeast or room.

use serde::Serialize;
use thiserror::Error;

use super::{Chain, Scenario};
use crate::coefficient::Coefficients;
use crate::dough::{FLOUR_PCT, Ingredient, Line, Preparation, PreparationKind, Role};
use crate::ferment::{
    FermentationCurve, FermentationPoint, FermentingDough, Kinetics, NetworkFlour, Phase,
    ResidualSubstrate, Ripeness, Within, coefficients as c, ferment, ferment_on, retention,
    rise_limit_pct,
};
use crate::flour::coefficients::{USUAL_DAMAGED_STARCH, USUAL_FALLING_NUMBER};
use crate::flour::{MoistureBasis, Property, falling_number, liquefaction};
use crate::method::{AmbientSpan, OptionalStep, Stage, StageKind};
use crate::units::MIN_PER_H;

/// Dough in a sample jar, kg.
const JAR_KG: f64 = 0.1;

/// How long a sponge is looked at for its ripeness at least, h.
const LOOKED_AT_H: f64 = 24.0;

/// Why no rise is worked out.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Error)]
pub enum RiseError {
    #[error("the chain stops before the mixer")]
    NoDough,
    #[error("nothing in this dough makes gas: no yeast and no starter")]
    NoCulture,
    #[error("the method bakes at once: there is no time to rise")]
    NoTime,
}

/// What neither certificate nor method states and is taken as usual.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum RiseAssumption {
    /// The method has no stage for the sponge, h.
    SpongeHours(f64),
    DamagedStarch(f64),
    FallingNumber(f64),
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
    /// Over its hours, °C.
    pub mean_c: f64,
    /// What it has given, of its own flour.
    pub gas_ml_per_g: f64,
    pub series: Vec<FermentationPoint>,
    #[serde(flatten)]
    pub ripeness: Ripeness,
}

/// The dough and its way to the oven, ready to be followed with another yeast or room.
#[derive(Clone)]
pub(super) struct Way<'a> {
    pub dough: FermentingDough,
    pub sponge: Option<Sponge<'a>>,
    /// From the first mixing to the oven.
    pub stages: Vec<OnTheWay<'a>>,
    pub assumed: Vec<RiseAssumption>,
    pub limit_pct: f64,
    coefficients: &'a Coefficients,
}

#[derive(Clone)]
pub(super) struct Sponge<'a> {
    pub part: &'a Preparation,
    /// With its percents on its own flour.
    pub dough: FermentingDough,
    /// What is around it as it lies.
    pub phases: Vec<Phase>,
    /// Where it lies longer than planned.
    pub waits: Option<Phase>,
}

impl Sponge<'_> {
    /// How long it is planned to lie.
    pub fn hours(&self) -> f64 {
        self.phases.iter().map(|phase| phase.hours).sum()
    }

    /// What is around it as it begins to lie, and at the end, °C.
    pub fn ambient_c(&self) -> (f64, f64) {
        let ends = self.phases.first().zip(self.phases.last());
        ends.map_or((0.0, 0.0), |(first, last)| (first.ambient_c, last.ambient_end_c))
    }
}

/// A stage of the method and what it does to the dough.
#[derive(Clone, Copy)]
pub(super) struct OnTheWay<'a> {
    /// Its place in the method.
    pub at: usize,
    pub stage: &'a Stage,
    pub phase: Phase,
}

impl<'a> Way<'a> {
    pub fn of(scenario: &Scenario<'a>, chain: &Chain) -> Result<Self, RiseError> {
        let (Some(dough), Some(water), Some(heat)) = (&chain.dough, &chain.water, &chain.heat)
        else {
            return Err(RiseError::NoDough);
        };
        let coefficients = scenario.coefficients();
        let network: Vec<NetworkFlour> =
            scenario.flours.iter().map(|flour| flour.gluten_network(coefficients)).collect();
        let limit_pct = rise_limit_pct(&network, water.dough_absorption_pct, coefficients);
        let formula = &scenario.formula.formula;
        let is_sponge =
            |part: &&Preparation| part.kind == PreparationKind::Sponge && part.flour_pct > 0.0;
        let part = formula.parts().iter().find(is_sponge);
        let carried = part.map_or(0.0, |part| instant(amounts(&part.lines), coefficients));
        let yeast = instant(amounts(formula.lines()), coefficients);
        let starters = formula.parts().iter().filter(|part| part.kind == PreparationKind::Starter);
        let kept_rate = starters.clone().find_map(|part| part.rate);
        let mut assumed = Vec::new();
        let mixed = FermentingDough {
            yeast_idy_pct: yeast,
            sour_pct: starters.fold(0.0, |sum, part| sum + part.flour_pct),
            sour_activity: 1.0,
            salt_pct: formula.pct_of(Ingredient::Salt),
            sugar_pct: sugar(scenario, amounts(formula.lines())),
            hydration_pct: water.dough_absorption_pct,
            damaged_starch_pct: damaged_starch_pct(scenario, &mut assumed),
            falling_number_s: falling_number_s(scenario, &mut assumed),
            start_c: heat.answer.dough_c,
            mass_kg: dough.scaled.dough_kg,
            retention: retention(&network, coefficients),
            rate: scenario.run_settings.rate.or(kept_rate).unwrap_or(1.0),
            lag_h: lag_h(scenario, carried, yeast),
            rise_limit_pct: Some(limit_pct),
            kinetics: Kinetics::of(coefficients),
        };
        if mixed.yeast_idy_pct <= 0.0 && mixed.sour_pct <= 0.0 {
            return Err(RiseError::NoCulture);
        }
        let sponge = part.map(|part| {
            let mass_kg = dough.flour_kg * part.total_pct() / FLOUR_PCT;
            let dough = FermentingDough { mass_kg, ..mixed };
            Sponge::of(scenario, part, &dough, &network, heat.room_c, &mut assumed)
        });
        let stages = phases(scenario, &mixed, heat.room_c, dough.scaled.piece_kg, carried);
        if stages.iter().map(|one| one.phase.hours).sum::<f64>() <= 0.0 {
            return Err(RiseError::NoTime);
        }
        Ok(Self { dough: mixed, sponge, stages, assumed, limit_pct, coefficients })
    }

    /// The sponge and the dough with so much yeast; the sponge has the same share of it as ever.
    pub fn follow(&self, yeast_idy_pct: f64) -> (Option<SpongeRise>, FermentationCurve) {
        let phases = self.phases();
        let dough = FermentingDough { yeast_idy_pct, ..self.dough };
        let Some(sponge) = &self.sponge else { return (None, ferment(&dough, &phases)) };
        let was = self.dough.yeast_idy_pct;
        let factor = if was > 0.0 { yeast_idy_pct / was } else { 0.0 };
        let yeast_idy_pct = sponge.dough.yeast_idy_pct * factor;
        let lies: Vec<Phase> = sponge.phases.iter().copied().chain(sponge.waits).collect();
        let set = ferment(&FermentingDough { yeast_idy_pct, ..sponge.dough }, &lies);
        let (share, left) = (sponge.part.flour_pct / FLOUR_PCT, set.residual());
        let own = ferment(&FermentingDough { sugar_pct: 0.0, ..self.dough }, &[]).residual();
        let added_pct = self.dough.sugar_pct - share * sponge.dough.sugar_pct;
        let begun = ResidualSubstrate {
            sugar_g: share * left.sugar_g + (1.0 - share) * own.sugar_g + added_pct / 100.0,
            damaged_g: share * left.damaged_g + (1.0 - share) * own.damaged_g,
        };
        let end = set.last().copied();
        let hours: f64 = lies.iter().map(|phase| phase.hours).sum();
        let seen = SpongeRise {
            name: sponge.part.name.clone(),
            hours,
            mean_c: set.warmth_until(hours) / hours,
            gas_ml_per_g: set.gas_at(hours),
            set_c: sponge.dough.start_c,
            end_c: end.map_or(sponge.dough.start_c, |end| end.dough_c),
            end_rise_pct: end.map_or(0.0, |end| end.rise_pct),
            ripeness: Ripeness::of(set.drop_h, self.coefficients),
            series: set.points,
        };
        (Some(seen), ferment_on(&dough, begun, &phases))
    }

    /// When its sponge drops and is ripe, from its setting, however long it is planned to lie.
    pub fn sponge_ripens(&self) -> Option<Ripeness> {
        let sponge = self.sponge.as_ref()?;
        let long = Phase::lasting(&sponge.phases, LOOKED_AT_H.max(sponge.hours()));
        Some(Ripeness::of(ferment(&sponge.dough, &long).drop_h, self.coefficients))
    }

    /// The rise its gas would give where it meets the oven if the film held it all: more yeast or
    /// time never less, so that it can be solved for.
    pub fn end_gas(&self, yeast_idy_pct: f64) -> f64 {
        let mut held = self.clone();
        held.dough.rise_limit_pct = None;
        held.end_rise(yeast_idy_pct)
    }

    /// The rise where it meets the oven.
    pub fn end_rise(&self, yeast_idy_pct: f64) -> f64 {
        self.follow(yeast_idy_pct).1.last().map_or(0.0, |end| end.rise_pct)
    }

    pub fn phases(&self) -> Vec<Phase> {
        self.stages.iter().map(|one| one.phase).collect()
    }

    /// The same dough in a small jar, where it stays through every stage.
    pub fn jar_of(&self) -> (FermentingDough, Vec<Phase>) {
        let phases = self.stages.iter();
        let phases = phases
            .map(|one| {
                let Phase { hours, ambient_c, ambient_end_c, within, .. } = one.phase;
                Phase { within, ..Phase::changing(hours, ambient_c, ambient_end_c) }
            })
            .collect();
        (FermentingDough { mass_kg: JAR_KG, ..self.dough }, phases)
    }

    pub fn jar(&self) -> FermentationCurve {
        let (dough, phases) = self.jar_of();
        ferment(&dough, &phases)
    }
}

impl<'a> Sponge<'a> {
    /// A sponge of the final dough's flours, as heavy as `dough` says, with its percents on its own
    /// flour.
    fn of(
        scenario: &Scenario<'a>,
        part: &'a Preparation,
        dough: &FermentingDough,
        network: &[NetworkFlour],
        room_c: f64,
        assumed: &mut Vec<RiseAssumption>,
    ) -> Self {
        let coefficients = scenario.coefficients();
        let here = |coefficient| coefficients.value(coefficient);
        let set = scenario.method.sponge_stage();
        let hours = set.map(|stage| stage.minutes / MIN_PER_H).filter(|hours| *hours > 0.0);
        let hours = hours.unwrap_or_else(|| {
            let usual = here(&c::SPONGE_H);
            assumed.push(RiseAssumption::SpongeHours(usual));
            usual
        });
        let on_own = |pct: f64| pct * FLOUR_PCT / part.flour_pct;
        let own = || amounts(&part.lines).map(|(ingredient, pct)| (ingredient, on_own(pct)));
        let salt = own().filter(|(one, _)| *one == Ingredient::Salt);
        let limit = rise_limit_pct(network, on_own(part.water_pct), coefficients);
        Self {
            part,
            dough: FermentingDough {
                yeast_idy_pct: instant(own(), coefficients),
                sour_pct: 0.0,
                salt_pct: salt.map(|(_, pct)| pct).sum(),
                sugar_pct: sugar(scenario, own()),
                hydration_pct: on_own(part.water_pct),
                start_c: scenario.method.sponge_c.unwrap_or_else(|| here(&c::SPONGE_SET_C)),
                lag_h: here(&c::LAG_SPONGE),
                rise_limit_pct: Some(limit),
                ..*dough
            },
            phases: match set {
                Some(stage) => stage
                    .ambient(0.0, hours * MIN_PER_H, room_c)
                    .into_iter()
                    .map(|span| Phase::changing(span.minutes / MIN_PER_H, span.from_c, span.to_c))
                    .collect(),
                None => vec![Phase::rest(hours, room_c)],
            },
            waits: None,
        }
    }
}

/// Each stage before the oven as what it does to the dough. While it is mixed, a dough keeps the
/// temperature the mixer brings it to; from the divider on it is as heavy as a piece.
fn phases<'a>(
    scenario: &Scenario<'a>,
    dough: &FermentingDough,
    room_c: f64,
    piece_kg: f64,
    carried_pct: f64,
) -> Vec<OnTheWay<'a>> {
    let method = scenario.method;
    let (stages, first) = (&method.stages, method.first_mix());
    let oven = stages.iter().position(|stage| stage.kind == StageKind::Bake);
    let here = |coefficient| scenario.coefficients().value(coefficient);
    let mut frozen = false;
    (first..oven.unwrap_or(stages.len()).max(first))
        .flat_map(|at| {
            let stage = &stages[at];
            let mut within = within(scenario, at, dough.yeast_idy_pct, carried_pct);
            if frozen {
                within.yeast *= here(&c::FREEZING_KEEPS);
            }
            frozen |= stage.temperature_c.is_some_and(|celsius| celsius <= here(&c::FREEZES_AT));
            let (mass_kg, let_go_pct) = match stage.kind {
                StageKind::Fold => (None, here(&c::FOLDS_LET_GO)),
                StageKind::Divide if scenario.method.machine_divided => {
                    (Some(piece_kg), here(&c::MACHINE_LETS_GO))
                }
                StageKind::Divide => (Some(piece_kg), here(&c::HANDS_LET_GO)),
                _ => (None, 0.0),
            };
            // Each set of folds lets gas go, and a rest follows it.
            let sets = stage.sets().max(1);
            let each_min = stage.minutes / sets as f64;
            (0..sets).flat_map(move |set| {
                let from_min = set as f64 * each_min;
                let spans = match stage.kind {
                    StageKind::Mix => {
                        let dough_c = dough.start_c;
                        vec![AmbientSpan { minutes: each_min, from_c: dough_c, to_c: dough_c }]
                    }
                    _ => stage.ambient(from_min, from_min + each_min, room_c),
                };
                spans.into_iter().enumerate().map(move |(number, span)| {
                    let rest = Phase::changing(span.minutes / MIN_PER_H, span.from_c, span.to_c);
                    let let_go_pct = if number == 0 { let_go_pct } else { 0.0 };
                    let phase = Phase { mass_kg, let_go_pct, within, ..rest };
                    OnTheWay { at, stage, phase }
                })
            })
        })
        .collect()
}

/// What of the dough's yeast, sour and salt is in it at a stage.
fn within(scenario: &Scenario<'_>, at: usize, yeast_pct: f64, carried_pct: f64) -> Within {
    let (formula, method) = (&scenario.formula.formula, scenario.method);
    let parts_in = method.parts_join_at() <= at;
    let share_in = |line: &Line| method.share_in(line.ingredient, at);
    let of_parts = |of: &dyn Fn(Ingredient) -> bool| -> f64 {
        let lines = formula.parts().iter().flat_map(|part| &part.lines);
        lines.filter(|line| of(line.ingredient)).map(|line| line.pct).sum()
    };
    let fresh = |line: &Line| formula.in_final(line) * share_in(line);
    let yeast: f64 = {
        let lines = formula.lines().iter();
        instant(lines.map(|line| (line.ingredient, fresh(line))), scenario.coefficients())
    };
    let carried = if parts_in { carried_pct } else { 0.0 };
    let salt = formula.pct_of(Ingredient::Salt);
    let salted: f64 =
        formula.lines().iter().filter(|line| line.ingredient == Ingredient::Salt).map(fresh).sum();
    let early_salt = if parts_in { of_parts(&|one| one == Ingredient::Salt) } else { 0.0 };
    let share = |part: f64, whole: f64| if whole > 0.0 { (part / whole).min(1.0) } else { 1.0 };
    Within {
        yeast: share(yeast + carried, yeast_pct),
        sour: f64::from(u8::from(parts_in)),
        salt: share(salted + early_salt, salt),
    }
}

/// In which a dough's yeast wakes: each part of it by how it came in.
fn lag_h(scenario: &Scenario<'_>, carried: f64, yeast: f64) -> f64 {
    let proofed = scenario.method.takes(OptionalStep::YeastProofed);
    let here = |coefficient| scenario.coefficients().value(coefficient);
    let fresh = here(if proofed { &c::LAG_HEAD_START } else { &c::LAG_FRESH });
    let carried_in = here(&c::LAG_CARRIED);
    if yeast <= 0.0 {
        return carried_in;
    }
    let share = (carried / yeast).min(1.0);
    share * carried_in + (1.0 - share) * fresh
}

/// Each ingredient of some lines and how much of it.
fn amounts(lines: &[Line]) -> impl Iterator<Item = (Ingredient, f64)> {
    lines.iter().map(|line| (line.ingredient, line.pct))
}

/// Sugar of what sweetens.
fn sugar(scenario: &Scenario<'_>, lines: impl Iterator<Item = (Ingredient, f64)>) -> f64 {
    lines
        .map(|(ingredient, pct)| (scenario.plant.library.properties(ingredient), pct))
        .filter(|(properties, _)| properties.role == Role::Sweet)
        .map(|(properties, pct)| pct * (1.0 - properties.water_pct / 100.0))
        .sum()
}

/// Damaged starch of the flours, or what is usual.
fn damaged_starch_pct(scenario: &Scenario<'_>, assumed: &mut Vec<RiseAssumption>) -> f64 {
    blended(scenario, Property::DamagedStarch, |value| value).unwrap_or_else(|| {
        let usual = scenario.coefficients().value(&USUAL_DAMAGED_STARCH);
        assumed.push(RiseAssumption::DamagedStarch(usual));
        usual
    })
}

/// Falling number of the flours, or what is usual.
fn falling_number_s(scenario: &Scenario<'_>, assumed: &mut Vec<RiseAssumption>) -> f64 {
    let mixed = blended(scenario, Property::FallingNumber, liquefaction).map(falling_number);
    mixed.unwrap_or_else(|| {
        let usual = scenario.coefficients().value(&USUAL_FALLING_NUMBER);
        assumed.push(RiseAssumption::FallingNumber(usual));
        usual
    })
}

/// Yeast in what it is worth as instant yeast.
fn instant(lines: impl Iterator<Item = (Ingredient, f64)>, coefficients: &Coefficients) -> f64 {
    lines
        .map(|(ingredient, pct)| match ingredient {
            Ingredient::InstantYeast => pct,
            Ingredient::ActiveDryYeast => pct / coefficients.value(&c::ACTIVE_DRY_YEAST),
            Ingredient::FreshYeast => pct / coefficients.value(&c::FRESH_YEAST),
            _ => 0.0,
        })
        .sum()
}

/// A property of the flours by their shares, as something that mixes by mass; none where one does
/// not state it.
fn blended(
    scenario: &Scenario<'_>,
    property: Property,
    mixes_as: impl Fn(f64) -> f64,
) -> Option<f64> {
    let basis = (property == Property::DamagedStarch).then_some(MoistureBasis::AsIs);
    scenario.flours.iter().try_fold(0.0, |sum, flour| {
        let value = flour.readings.value(property, basis)?;
        Some(sum + mixes_as(value) * flour.share_pct / FLOUR_PCT)
    })
}
