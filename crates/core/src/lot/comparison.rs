use serde::Serialize;

use crate::flour::coefficients::{FELT_DEVELOPMENT, FELT_STABILITY, FELT_WATER};
use crate::flour::{MoistureBasis, Property, Readings, strength, tenacity_class, usual_basis};
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

/// What a change will do to the dough, in the words of the job.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Consequence {
    pub key: &'static str,
    pub subject: &'static str,
    pub message: String,
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
        .filter_map(|property| difference(property, before, after))
        .collect();
    let absorption_difference = absorption_difference(before, after, &plant.model);
    let consequences = consequences(&differences, &absorption_difference, plant);
    LotComparison { differences, absorption_difference, consequences }
}

fn difference(property: Property, before: &Readings, after: &Readings) -> Option<Difference> {
    let basis = usual_basis(property);
    let (before, after) = (before.value(property, basis)?, after.value(property, basis)?);
    let real = (after - before).abs() > property.repeatability().at(before) + SLACK;
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
        told.real(Property::W).map(strength_of),
        told.of(Property::POverL).and_then(tenacity_consequence),
        told.of(Property::Development).and_then(|both| mixing(both, plant)),
        told.of(Property::Stability).and_then(|both| tolerance(both, plant)),
        told.real(Property::FallingNumber).map(amylase),
        told.real(Property::Ash).map(ash),
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
    let more = part.map_or(0.0, |part| part.points);
    let drinks = format!("{more:.1} points of this lot's water demand are damaged starch");
    let message = match StarchTrap::of(Some(is), &plant.coefficients, &plant.model) {
        Some(trap) => format!(
            "Hold back {:.1} points: damaged starch is {:.1} above {:.0} %, and {drinks} more than \
             before. The dough feels dry early and sticks late; wait, and judge at the divider. \
             Plan for the core to arrive by {:.0} % of the bake",
            trap.points.typical,
            trap.over_pct,
            trap.critical_pct,
            arrival_target_pct(true, &plant.coefficients)
        ),
        None if more >= plant.coefficients.value(&FELT_WATER) => format!(
            "{drinks} more than before, below the level at which any is held back: wait before \
             judging the water"
        ),
        None => return None,
    };
    Some(Consequence { key: "damaged_starch", subject: "water", message })
}

fn strength_of((before, after): (f64, f64)) -> Consequence {
    let (was, is) = (strength(before), strength(after));
    let word = match (was == is, after > before) {
        (true, true) => format!("still {is}, with more to spare for water and time"),
        (true, false) => format!("still {is}, with less to spare for water and time"),
        (false, true) => format!(
            "from {was} to {is}: it carries more water and longer times, and wants more mixing"
        ),
        (false, false) => {
            format!("from {was} to {is}: less water, gentler mixing, shorter times")
        }
    };
    let message = format!("W {before:.0} → {after:.0}, {word}");
    Consequence { key: "strength", subject: "strength", message }
}

fn tenacity_consequence((before, after): (f64, f64)) -> Option<Consequence> {
    let (was, is) = (tenacity_class(before), tenacity_class(after));
    let advice = if after > before {
        "rest it before moulding, or it springs back"
    } else {
        "handle it less, or it flows"
    };
    let message = format!("P/L {before:.2} → {after:.2}: from {was} to {is}; {advice}");
    (was != is).then_some(Consequence { key: "temper", subject: "handling", message })
}

fn mixing((before, after): (f64, f64), plant: &PlantParameters) -> Option<Consequence> {
    let word = if after > before { "longer" } else { "shorter" };
    let message = format!(
        "Development {before:.1} → {after:.1} min: expect {word} mixing, by about {:.0} %; end it \
         on the windowpane",
        100.0 * (after / before - 1.0).abs()
    );
    let felt =
        (after - before).abs() >= plant.coefficients.value(&FELT_DEVELOPMENT) && before > 0.0;
    felt.then_some(Consequence { key: "mixing", subject: "mixing", message })
}

fn tolerance((before, after): (f64, f64), plant: &PlantParameters) -> Option<Consequence> {
    let word = if after > before { "more" } else { "less" };
    let message = format!(
        "Stability {before:.1} → {after:.1} min: {word} tolerance to overmixing and to waiting"
    );
    let felt = (after - before).abs() >= plant.coefficients.value(&FELT_STABILITY);
    felt.then_some(Consequence { key: "tolerance", subject: "mixing", message })
}

fn amylase((before, after): (f64, f64)) -> Consequence {
    let does = if after < before {
        "more amylase, so more sugar: quicker gas, redder crust, stickier crumb if it goes far"
    } else {
        "less amylase, so less sugar: slower gas late on, paler crust; malt is the remedy"
    };
    let message = format!("Falling number {before:.0} → {after:.0} s: {does}");
    Consequence { key: "amylase", subject: "fermentation", message }
}

fn ash((before, after): (f64, f64)) -> Consequence {
    let does = if after > before {
        "more of the outer grain: more flavour, absorption and fermentation, a darker crumb"
    } else {
        "whiter: less flavour, absorption and fermentation"
    };
    let message = format!("Ash {before:.2} → {after:.2} %: {does}");
    Consequence { key: "ash", subject: "fermentation", message }
}
