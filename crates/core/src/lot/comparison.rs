use serde::Serialize;

use crate::coefficient::Coefficients;
use crate::flour::coefficients::{FELT_DEVELOPMENT, FELT_STABILITY, FELT_WATER};
use crate::flour::{MoistureBasis, Property, Readings, StrengthClass, TenacityClass, usual_basis};
use crate::plant::PlantParameters;
use crate::water::{AbsorptionDifference, StarchTrap, absorption_difference, arrival_target_pct};

/// What rounding may tear apart.
const SLACK: f64 = 1e-9;

/// One property of two lots, on one basis.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Difference {
    pub property: Property,
    pub label: &'static str,
    pub unit: &'static str,
    pub basis: Option<MoistureBasis>,
    pub before: f64,
    pub after: f64,
    /// More than the method's repeatability apart.
    pub real: bool,
}

/// What a change will do to the dough; each pair is before and after.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[serde(into = "super::words::ConsequenceWords")]
pub enum Consequence {
    /// Damaged starch asks for water to be held back; points of the water demand that it moved.
    HoldBack {
        trap: StarchTrap,
        more_points: f64,
        arrival_pct: f64,
    },
    /// Damaged starch drinks more, below the level at which any water is held back.
    DrinksMore {
        more_points: f64,
    },
    /// W before and after, each with its class.
    Strength {
        before: (f64, StrengthClass),
        after: (f64, StrengthClass),
    },
    /// P/L before and after, each with its class.
    Tenacity {
        before: (f64, TenacityClass),
        after: (f64, TenacityClass),
    },
    Mixing {
        before_min: f64,
        after_min: f64,
    },
    Tolerance {
        before_min: f64,
        after_min: f64,
    },
    Amylase {
        before_s: f64,
        after_s: f64,
    },
    Ash {
        before_pct: f64,
        after_pct: f64,
    },
}

/// One lot against another.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct LotComparison {
    pub differences: Vec<Difference>,
    pub absorption_difference: AbsorptionDifference,
    pub consequences: Vec<Consequence>,
}

/// What changed from one lot to another, why it drinks differently, and what that does.
///
/// Properties meet on one basis: 14 % for protein, gluten and absorption, dry matter for ash, as
/// is for damaged starch. Differences within the method's repeatability are not real ones.
pub fn compare_lots(before: &Readings, after: &Readings, plant: &PlantParameters) -> LotComparison {
    let differences: Vec<Difference> = Property::ALL
        .into_iter()
        .filter_map(|property| difference(property, before, after, &plant.coefficients))
        .collect();
    let absorption_difference = absorption_difference(before, after, &plant.model);
    let consequences = consequences(&differences, &absorption_difference, plant);
    LotComparison { differences, absorption_difference, consequences }
}

fn difference(
    property: Property,
    before: &Readings,
    after: &Readings,
    coefficients: &Coefficients,
) -> Option<Difference> {
    let basis = usual_basis(property);
    let (before, after) = (before.value(property, basis)?, after.value(property, basis)?);
    let real = (after - before).abs() > property.repeatability(coefficients).at(before) + SLACK;
    let (label, unit) = (property.label(), property.unit());
    Some(Difference { property, label, unit, basis, before, after, real })
}

/// What is known of one property before and after.
struct Differences<'a>(&'a [Difference]);

impl Differences<'_> {
    fn of(&self, property: Property) -> Option<(f64, f64)> {
        let found = self.0.iter().find(|one| one.property == property)?;
        Some((found.before, found.after))
    }

    /// Only where it changed by more than the method repeats to.
    fn real(&self, property: Property) -> Option<(f64, f64)> {
        let found = self.0.iter().find(|one| one.property == property && one.real)?;
        Some((found.before, found.after))
    }
}

fn consequences(
    differences: &[Difference],
    absorption_difference: &AbsorptionDifference,
    plant: &PlantParameters,
) -> Vec<Consequence> {
    let told = Differences(differences);
    [
        damaged_starch(&told, absorption_difference, plant),
        told.real(Property::W).map(|both| strength(both, &plant.coefficients)),
        told.of(Property::POverL).and_then(|both| tenacity(both, &plant.coefficients)),
        told.of(Property::Development).and_then(|both| mixing(both, plant)),
        told.of(Property::Stability).and_then(|both| tolerance(both, plant)),
        told.real(Property::FallingNumber)
            .map(|(before_s, after_s)| Consequence::Amylase { before_s, after_s }),
        told.real(Property::Ash)
            .map(|(before_pct, after_pct)| Consequence::Ash { before_pct, after_pct }),
    ]
    .into_iter()
    .flatten()
    .collect()
}

fn damaged_starch(
    told: &Differences<'_>,
    absorption_difference: &AbsorptionDifference,
    plant: &PlantParameters,
) -> Option<Consequence> {
    let (_, is) = told.of(Property::DamagedStarch)?;
    let part =
        absorption_difference.parts.iter().find(|part| part.key == Property::DamagedStarch.key());
    let more_points = part.map_or(0.0, |part| part.points);
    if let Some(trap) = StarchTrap::of(Some(is), &plant.coefficients, &plant.model) {
        let arrival_pct = arrival_target_pct(true, &plant.coefficients);
        return Some(Consequence::HoldBack { trap, more_points, arrival_pct });
    }
    (more_points >= plant.coefficients.value(&FELT_WATER))
        .then_some(Consequence::DrinksMore { more_points })
}

fn strength((before, after): (f64, f64), coefficients: &Coefficients) -> Consequence {
    let classed = |w| (w, StrengthClass::of(w, coefficients));
    Consequence::Strength { before: classed(before), after: classed(after) }
}

fn tenacity((before, after): (f64, f64), coefficients: &Coefficients) -> Option<Consequence> {
    let classed = |p_over_l| (p_over_l, TenacityClass::of(p_over_l, coefficients));
    let (before, after) = (classed(before), classed(after));
    (before.1 != after.1).then_some(Consequence::Tenacity { before, after })
}

fn mixing((before_min, after_min): (f64, f64), plant: &PlantParameters) -> Option<Consequence> {
    let least = plant.coefficients.value(&FELT_DEVELOPMENT);
    ((after_min - before_min).abs() >= least && before_min > 0.0)
        .then_some(Consequence::Mixing { before_min, after_min })
}

fn tolerance((before_min, after_min): (f64, f64), plant: &PlantParameters) -> Option<Consequence> {
    let least = plant.coefficients.value(&FELT_STABILITY);
    ((after_min - before_min).abs() >= least)
        .then_some(Consequence::Tolerance { before_min, after_min })
}
