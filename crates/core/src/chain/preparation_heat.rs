//! The heat of each preparation: its water, how warm it is when it is made and when it meets the
//! dough, and when yeast may meet it.

use serde::Serialize;

use super::Scenario;
use super::incoming::{ingredient_c, surroundings};
use super::links::DoughLink;
use crate::dough::coefficients::{
    BOILING_MEETS, COOL_ENOUGH, COOLS_AS_DOUGH, PREPARATION_MIN, SCALD_WATER_C, STARTER_SET,
    STIRRED, WATER_SPECIFIC_HEAT,
};
use crate::dough::{FLOUR_PCT, Preparation, PreparationKind, Vessel};
use crate::ferment::coefficients::SPONGE_SET_C;
use crate::ferment::cooling_h;
use crate::flour::Moisture;
use crate::heat::{
    Balance, HOTTEST_WATER_C, HeatPart, HeatSource, Term, Unreachable, WantedWater, WaterFrom,
    flour_specific_heat,
};
use crate::method::PreparationMade;
use crate::method::coefficients::BOILS_C;
use crate::units::{Estimate, MIN_PER_H};

/// The heat of one preparation of one dough.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct PreparationHeat {
    pub kind: PreparationKind,
    pub name: String,
    pub kg: f64,
    pub vessel: Vessel,
    /// Minutes and work of its mixing; of what no stage mixes, what is usual.
    pub mixing_min: f64,
    pub mixing_kj_per_kg: f64,
    /// How warm it is to be made; none where its water's temperature is what is stated.
    pub target_c: Option<f64>,
    /// Liquid water and how warm it is poured; with the ice it is all its water.
    pub water_kg: f64,
    pub water_c: f64,
    pub ice_kg: f64,
    pub water_from: Vec<WaterFrom>,
    /// As it is when it is made.
    pub made_c: f64,
    /// Why what is wanted cannot be had.
    pub reason: Option<Unreachable>,
    pub terms: Vec<Term>,
    /// How long it rests, and what is around it.
    pub rests_min: f64,
    pub around_c: f64,
    /// After its rest; of a sponge, whose own heat the rise tells, none.
    pub cooled_c: Option<f64>,
    /// As it meets the final dough: as the formula states it, else after its rest, else as usual.
    pub meets_c: f64,
    /// How long until it is cool enough for yeast; none where it is made so.
    pub cool_after_min: Option<Estimate>,
    pub cool_c: f64,
    /// It meets the dough before that.
    pub is_hot: bool,
}

impl PreparationHeat {
    /// What the sheet says of it.
    pub(super) const fn made(&self) -> PreparationMade {
        PreparationMade {
            water_c: self.water_c,
            ice_kg: self.ice_kg,
            made_c: self.made_c,
            cool_c: self.cool_c,
            cool_after_min: self.cool_after_min,
        }
    }
}

/// What a preparation's balance is closed by.
enum ClosedBy {
    /// Its water, which is so warm.
    Water(f64),
    /// What it is to be made at.
    Target(f64),
}

/// Each preparation of one dough. How warm one that rests in no stage meets the dough is taken as usual
/// where it is not stated.
pub(super) fn preparations(
    scenario: &Scenario<'_>,
    moisture: Moisture,
    dough: &DoughLink,
) -> Vec<PreparationHeat> {
    let parts = scenario.formula.formula.parts().iter();
    parts.map(|part| one(scenario, moisture, dough, part)).collect()
}

fn one(
    scenario: &Scenario<'_>,
    moisture: Moisture,
    dough: &DoughLink,
    part: &Preparation,
) -> PreparationHeat {
    let here = |coefficient| scenario.coefficients().value(coefficient);
    let kg = |pct: f64| dough.flour_kg * pct / FLOUR_PCT;
    let tap_c = scenario.tap_c();
    let vessel = part.vessel.unwrap_or(part.kind.usual_vessel());
    let mass = kg(part.total_pct());
    let (mixing_min, mixing_kj_per_kg) = mixing(scenario, part.kind, vessel);
    let closed_by = closed_by(scenario, part, tap_c);
    let hot = matches!(closed_by, ClosedBy::Target(target) if target > HOTTEST_WATER_C)
        || part.kind == PreparationKind::Scald;
    let mut balance = Balance {
        parts: heat_parts(scenario, moisture, part, kg),
        water_kg: kg(part.water_pct),
        tap_c,
        target_c: scenario.method.target_c,
        mixing_kj_per_kg,
        mixing_min: Some(mixing_min),
        jacket_kj_per_kg: None,
        flour_wetted_kg: kg(part.flour_pct),
        rested_kj: 0.0,
        chilled_min_c: scenario.line.water.coldest_c(tap_c),
        hottest_c: if hot { here(&SCALD_WATER_C) } else { scenario.line.water.hottest_c(tap_c) },
        ice_c: 0.0,
        max_ice_pct: scenario.line.water.max_ice_pct,
        surroundings: surroundings(scenario, vessel, mass, mixing_min),
    };
    let mut water_kg = balance.water_kg;
    let (target_c, water_c) = match closed_by {
        ClosedBy::Target(target_c) => {
            balance.target_c = target_c;
            (Some(target_c), None)
        }
        ClosedBy::Water(water_c) => {
            pour(&mut balance, water_c, here(&BOILING_MEETS));
            balance.target_c = balance.close().dough_c;
            (None, Some(water_c))
        }
    };
    let solved = balance.solve();
    water_kg -= solved.ice_kg;
    let water_c = water_c.unwrap_or(solved.water_c);
    let made_c = solved.dough_c;

    let Rest { minutes: rests_min, around_c, cooled_c, cool_after_min } =
        Rest::of(scenario, part.kind, mass, made_c);
    let meets_c = part.temperature_c.or(cooled_c);
    PreparationHeat {
        kind: part.kind,
        name: part.name.clone(),
        kg: mass,
        vessel,
        mixing_min,
        mixing_kj_per_kg,
        target_c,
        water_kg,
        water_c,
        ice_kg: solved.ice_kg,
        water_from: scenario.line.water.mixed(WantedWater {
            kg: water_kg,
            temperature_c: water_c,
            tap_c,
        }),
        made_c,
        reason: solved.reason,
        terms: solved.terms,
        rests_min,
        around_c,
        cooled_c,
        meets_c: meets_c.unwrap_or_else(|| part.meets_c(scenario.coefficients())),
        cool_after_min,
        cool_c: COOL_ENOUGH.value,
        is_hot: cooled_c.is_some_and(|cooled| cooled > COOL_ENOUGH.value),
    }
}

/// Minutes and work of its mixing: as a stage has it, else as is usual; stirred where no mixer turns it.
fn mixing(scenario: &Scenario<'_>, kind: PreparationKind, vessel: Vessel) -> (f64, f64) {
    let here = |coefficient| scenario.coefficients().value(coefficient);
    let mixer = &scenario.line.mixer;
    let (minutes, kj_per_kg) =
        scenario.method.preparation_mixing(kind, mixer).unwrap_or_else(|| {
            let minutes = here(&PREPARATION_MIN);
            (minutes, minutes * mixer.slow_kj_per_kg_min)
        });
    (minutes, if vessel == Vessel::MixerBowl { kj_per_kg } else { here(&STIRRED) })
}

/// How a preparation lies from when it is made to when it meets the dough.
struct Rest {
    minutes: f64,
    around_c: f64,
    cooled_c: Option<f64>,
    cool_after_min: Option<Estimate>,
}

impl Rest {
    /// Of so many kilos made so warm: `T = around + (made − around)·e^(−t/τ)`, `τ = m^⅔` h.
    fn of(scenario: &Scenario<'_>, kind: PreparationKind, kg: f64, made_c: f64) -> Self {
        let stages: Vec<_> = scenario.method.preparation_rests(kind).collect();
        let minutes: f64 = stages.iter().map(|stage| stage.minutes).sum();
        let stated_c = stages.first().and_then(|stage| stage.temperature_c);
        let around_c = stated_c.unwrap_or_else(|| scenario.room_c());
        let slowness = scenario.coefficients().band(&COOLS_AS_DOUGH);
        let slowness = slowness.times(cooling_h(kg) * MIN_PER_H);
        let follows = kind != PreparationKind::Sponge && !stages.is_empty();
        let cool_c = COOL_ENOUGH.value;
        Self {
            minutes,
            around_c,
            cooled_c: follows
                .then(|| around_c + (made_c - around_c) * (-minutes / slowness.typical).exp()),
            cool_after_min: (made_c > cool_c && cool_c > around_c)
                .then(|| slowness.times(((made_c - around_c) / (cool_c - around_c)).ln())),
        }
    }
}

/// Its water's temperature where that is stated, what it is to be made at where that is; else what
/// is usual of its kind: a scald is boiled, a soaker takes water as it comes, the rest is set.
fn closed_by(scenario: &Scenario<'_>, part: &Preparation, tap_c: f64) -> ClosedBy {
    let here = |coefficient| scenario.coefficients().value(coefficient);
    match (part.water_c, part.set_c, part.kind) {
        (Some(water_c), ..) => ClosedBy::Water(water_c),
        (_, Some(set_c), _) => ClosedBy::Target(set_c),
        (.., PreparationKind::Scald) => ClosedBy::Water(here(&SCALD_WATER_C)),
        (.., PreparationKind::Soaker) => ClosedBy::Water(tap_c),
        (.., PreparationKind::Sponge) => {
            ClosedBy::Target(scenario.method.sponge_c.unwrap_or_else(|| here(&SPONGE_SET_C)))
        }
        (.., PreparationKind::Starter) => ClosedBy::Target(here(&STARTER_SET)),
        (.., PreparationKind::Autolyse) => ClosedBy::Target(here(part.kind.usual_c())),
    }
}

/// Takes the water as something that is poured so warm; boiling, it has lost some of that as steam.
fn pour(balance: &mut Balance, water_c: f64, boiling_meets_c: f64) {
    balance.parts.push(HeatPart {
        name: "water".into(),
        kg: std::mem::take(&mut balance.water_kg),
        temperature_c: if water_c >= BOILS_C.value {
            water_c.min(boiling_meets_c)
        } else {
            water_c
        },
        specific_heat: WATER_SPECIFIC_HEAT.value,
        is: HeatSource::Other,
    });
}

/// Its flour and lines, each as warm as it comes.
fn heat_parts(
    scenario: &Scenario<'_>,
    moisture: Moisture,
    part: &Preparation,
    kg: impl Fn(f64) -> f64,
) -> Vec<HeatPart> {
    let library = &scenario.plant.library;
    let flour = HeatPart {
        name: "flour".into(),
        kg: kg(part.flour_pct),
        temperature_c: scenario.flour_c(),
        specific_heat: flour_specific_heat(moisture),
        is: HeatSource::Flour,
    };
    let lines = part.lines.iter().map(|line| {
        let properties = library.properties(line.ingredient);
        let (temperature_c, is) = ingredient_c(scenario, line.ingredient);
        HeatPart {
            name: properties.label.clone(),
            kg: kg(line.pct),
            temperature_c,
            specific_heat: properties.specific_heat,
            is,
        }
    });
    std::iter::once(flour).chain(lines).filter(|one| one.kg > 0.0).collect()
}
