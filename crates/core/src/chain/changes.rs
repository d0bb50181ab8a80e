use std::borrow::Cow;

use serde::{Deserialize, Serialize};

use super::{Chain, Scenario, balance};
use crate::heat::{Balance, Solution};
use crate::water::AbsorptionBuildUp;

/// A link of the chain.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Link {
    Flour,
    Water,
    Dough,
    Method,
    Floor,
}

/// One reason for a move, with its share of it or its own change.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Contribution {
    #[serde(rename = "label")]
    pub reason: ChangeReason,
    pub delta: f64,
    pub unit: &'static str,
}

/// What moved a figure.
#[derive(Debug, Clone, PartialEq)]
pub enum ChangeReason {
    /// A step of the absorption's build-up.
    Adjustment {
        key: Cow<'static, str>,
        label: String,
    },
    Hydration,
    DoughInOneMix,
    TotalDough,
    Batches,
    DoughYield,
    Method,
    /// Inputs of the heat balance.
    Masses,
    Temperatures,
    Tap,
    Mixing,
    Surroundings,
    Target,
    HottestWater,
    ColdestWater,
    MostIce,
}

/// A figure of the chain that moved.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FigureChange {
    pub link: Link,
    pub figure: &'static str,
    pub label: &'static str,
    pub unit: &'static str,
    pub before: f64,
    pub after: f64,
    pub delta: f64,
    /// True where the reasons' deltas add up to the move's.
    pub adds_up: bool,
    pub because: Vec<Contribution>,
}

/// Below this nothing a scale, thermometer or eye could tell has moved.
const NOTHING: f64 = 0.005;

/// What moved between two hands, by how much, and why.
pub fn changes(
    before: (&Scenario<'_>, &Chain),
    after: (&Scenario<'_>, &Chain),
) -> Vec<FigureChange> {
    let mut moved = Vec::new();
    let (was, is) = (before.1, after.1);
    if let (Some(a), Some(b)) = (&was.water, &is.water) {
        let mut floor = figure(
            Link::Water,
            "floor_pct",
            "dough absorption",
            "%",
            a.dough_absorption_pct,
            b.dough_absorption_pct,
        );
        floor.because = adjustments(a, b);
        floor.adds_up = true;
        moved.push(floor);
    }
    if let (Some(a), Some(b)) = (&was.dough, &is.dough) {
        let water = because(
            ChangeReason::Hydration,
            b.formula_hydration_pct - a.formula_hydration_pct,
            "points",
        );
        let mass =
            because(ChangeReason::DoughInOneMix, b.scaled.dough_kg - a.scaled.dough_kg, "kg");
        let run = because(ChangeReason::TotalDough, b.scaled.total_kg - a.scaled.total_kg, "kg");
        let count = because(
            ChangeReason::Batches,
            f64::from(b.scaled.doughs) - f64::from(a.scaled.doughs),
            "",
        );
        let of = |key, label, x, y, reasons: &[Contribution]| {
            let mut figure = figure(Link::Dough, key, label, "kg", x, y);
            figure.because = told(reasons);
            figure
        };
        moved.extend([
            of("dough_kg", "one batch", a.scaled.dough_kg, b.scaled.dough_kg, &[run, count]),
            of("flour_kg", "flour", a.flour_kg, b.flour_kg, &[water.clone(), mass.clone()]),
            of("water_kg", "water to add", a.water_kg, b.water_kg, &[water, mass]),
        ]);
        let mut cost =
            figure(Link::Dough, "cost", "ingredients of a kilo", "", a.cost.per_kg, b.cost.per_kg);
        cost.because = told(&[because(
            ChangeReason::DoughYield,
            b.cost.dough_yield - a.cost.dough_yield,
            "kg",
        )]);
        moved.push(cost);
    }
    moved.extend(heat(before, after));
    let mut time = figure(
        Link::Method,
        "total_min",
        "process time",
        "min",
        was.method.total_min,
        is.method.total_min,
    );
    time.because = told(&[because(ChangeReason::Method, time.delta, "min")]);
    moved.push(time);
    moved.retain(|figure| figure.delta.abs() >= NOTHING);
    moved
}

fn figure(
    link: Link,
    figure: &'static str,
    label: &'static str,
    unit: &'static str,
    before: f64,
    after: f64,
) -> FigureChange {
    let delta = after - before;
    FigureChange {
        link,
        figure,
        label,
        unit,
        before,
        after,
        delta,
        adds_up: false,
        because: Vec::new(),
    }
}

const fn because(reason: ChangeReason, delta: f64, unit: &'static str) -> Contribution {
    Contribution { reason, delta, unit }
}

fn told(reasons: &[Contribution]) -> Vec<Contribution> {
    reasons.iter().filter(|reason| reason.delta.abs() >= NOTHING).cloned().collect()
}

/// The build-ups' differences step by step: they add up to the floor's.
fn adjustments(before: &AbsorptionBuildUp, after: &AbsorptionBuildUp) -> Vec<Contribution> {
    let points = |build_up: &AbsorptionBuildUp, key: &str| {
        build_up
            .adjustments
            .iter()
            .find(|adjustment| adjustment.key == key)
            .map_or(0.0, |adjustment| adjustment.points)
    };
    let mut seen: Vec<&str> = Vec::new();
    let mut reasons = Vec::new();
    for adjustment in after.adjustments.iter().chain(&before.adjustments) {
        if !seen.contains(&&*adjustment.key) {
            seen.push(&adjustment.key);
            let delta = points(after, &adjustment.key) - points(before, &adjustment.key);
            let (key, label) = (adjustment.key.clone(), adjustment.label.clone());
            reasons.push(because(ChangeReason::Adjustment { key, label }, delta, "points"));
        }
    }
    told(&reasons)
}

/// One group of the balance's inputs, and how to put the new ones into the old balance.
type Swap = (ChangeReason, fn(&mut Balance, &Balance));
const SWAPS: [Swap; 9] = [
    (ChangeReason::Masses, |now, then| {
        let mut parts = then.parts.clone();
        for part in &mut parts {
            let same = now.parts.iter().find(|before| before.name == part.name);
            part.temperature_c = same.map_or(part.temperature_c, |before| before.temperature_c);
        }
        now.parts = parts;
        now.water_kg = then.water_kg;
        now.flour_wetted_kg = then.flour_wetted_kg;
    }),
    (ChangeReason::Temperatures, |now, then| now.parts.clone_from(&then.parts)),
    (ChangeReason::Tap, |now, then| now.tap_c = then.tap_c),
    (ChangeReason::Mixing, |now, then| {
        now.mixing_kj_per_kg = then.mixing_kj_per_kg;
        now.mixing_min = then.mixing_min;
    }),
    (ChangeReason::Surroundings, |now, then| {
        now.surroundings = then.surroundings;
        now.rested_kj = then.rested_kj;
    }),
    (ChangeReason::Target, |now, then| now.target_c = then.target_c),
    (ChangeReason::HottestWater, |now, then| now.hottest_c = then.hottest_c),
    (ChangeReason::ColdestWater, |now, then| now.chilled_min_c = then.chilled_min_c),
    (ChangeReason::MostIce, |now, then| now.max_ice_pct = then.max_ice_pct),
];

/// A figure of the closed balance: key, label, unit, and where it stands.
type Read = (&'static str, &'static str, &'static str, fn(&Solution) -> f64);

const READ: [Read; 3] = [
    ("water_c", "water temperature", "°C", |closed| closed.water_c),
    ("ice_kg", "ice", "kg", |closed| closed.ice_kg),
    ("dough_c", "dough off the mixer", "°C", |closed| closed.dough_c),
];

/// Water temperature, ice and dough temperature, with the move shared out by putting the new
/// inputs into the old balance one after another; the shares add up.
fn heat(before: (&Scenario<'_>, &Chain), after: (&Scenario<'_>, &Chain)) -> Vec<FigureChange> {
    let (Some(mut now), Some(then)) = (balance_of(before), balance_of(after)) else {
        return Vec::new();
    };
    let start = now.close();
    let mut states = vec![start];
    for (_, swap) in SWAPS {
        swap(&mut now, &then);
        states.push(now.close());
    }
    let end = then.close();
    READ.into_iter()
        .map(|(key, label, unit, of)| {
            let mut moved = figure(Link::Method, key, label, unit, of(&states[0]), of(&end));
            let shares: Vec<Contribution> = SWAPS
                .iter()
                .zip(states.windows(2))
                .map(|((reason, _), pair)| {
                    because(reason.clone(), of(&pair[1]) - of(&pair[0]), unit)
                })
                .collect();
            moved.because = told(&shares);
            moved.adds_up = true;
            moved
        })
        .collect()
}

fn balance_of((scenario, chain): (&Scenario<'_>, &Chain)) -> Option<Balance> {
    let dough = chain.dough.as_ref()?;
    Some(balance(scenario, scenario.moisture()?, dough, chain.method.mixing_kj_per_kg))
}
