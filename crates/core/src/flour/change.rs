use serde::Serialize;

use super::{MoistureBasis, Movement, Property, Readings, strength, temper};
use crate::water::{CRITICAL_DAMAGED_STARCH, Thirst, thirst};

/// Points of water from damaged starch that are worth holding back.
const WORTH_HOLDING: f64 = 0.5;

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
    pub says: String,
}

/// One lot against another.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Change {
    pub differences: Vec<Difference>,
    pub thirst: Thirst,
    pub consequences: Vec<Consequence>,
}

/// What changed from one lot to another, why it drinks differently, and what that does.
///
/// Properties meet on one basis: 14 % for protein, gluten and absorption, dry matter for ash, as
/// is for damaged starch. Differences within the method's repeatability are not real ones.
pub fn change(before: &Readings, after: &Readings) -> Change {
    let differences: Vec<Difference> = Property::ALL
        .into_iter()
        .filter_map(|property| difference(property, before, after))
        .collect();
    let thirst = thirst(before, after);
    let consequences = consequences(&differences, &thirst);
    Change { differences, thirst, consequences }
}

/// The basis two lots are compared on.
pub const fn usual_basis(property: Property) -> Option<MoistureBasis> {
    match (property, property.movement()) {
        (Property::Ash, _) => Some(MoistureBasis::DryMatter),
        (Property::DamagedStarch, _) => Some(MoistureBasis::AsIs),
        (_, Movement::None) => None,
        _ => Some(MoistureBasis::Fourteen),
    }
}

fn difference(property: Property, before: &Readings, after: &Readings) -> Option<Difference> {
    let basis = usual_basis(property);
    let (before, after) = (before.value(property, basis)?, after.value(property, basis)?);
    let real = (after - before).abs() > property.repeatability().at(before) + 1e-9;
    let (label, unit) = (property.label(), property.unit());
    Some(Difference { property, label, unit, basis, before, after, real })
}

fn consequences(differences: &[Difference], thirst: &Thirst) -> Vec<Consequence> {
    let of = |property| {
        differences.iter().find(|one| one.property == property).map(|one| (one.before, one.after))
    };
    let real = |property| {
        differences
            .iter()
            .find(|one| one.property == property && one.real)
            .map(|one| (one.before, one.after))
    };
    let mut all = Vec::new();
    let mut say = |key, subject, says| all.push(Consequence { key, subject, says });

    let damaged = thirst.parts.iter().find(|part| part.key == Property::DamagedStarch.key());
    if let Some(part) = damaged.filter(|part| part.points >= WORTH_HOLDING) {
        let above =
            of(Property::DamagedStarch).is_some_and(|(_, after)| after > CRITICAL_DAMAGED_STARCH);
        let bake = if above { ". Plan for the core to arrive by 80 % of the bake" } else { "" };
        say(
            "damaged_starch",
            "water",
            format!(
                "Hold back {:.1} points: that much of this lot's thirst is damaged starch. The dough feels \
             dry early and sticks late; wait, and judge at the divider{bake}",
                part.points
            ),
        );
    }
    if let Some((before, after)) = real(Property::W) {
        let (was, is) = (strength(before), strength(after));
        let more = after > before;
        let says = if was == is {
            format!(
                "W {before:.0} → {after:.0}: still {is}, {}",
                if more {
                    "with more to spare for water and time"
                } else {
                    "with less to spare for water and time"
                }
            )
        } else if more {
            format!(
                "W {before:.0} → {after:.0}, from {was} to {is}: it carries more water and longer times, and wants more mixing"
            )
        } else {
            format!(
                "W {before:.0} → {after:.0}, from {was} to {is}: less water, gentler mixing, shorter times"
            )
        };
        say("strength", "strength", says);
    }
    if let Some((before, after)) = of(Property::POverL).filter(|(a, b)| temper(*a) != temper(*b)) {
        say(
            "temper",
            "handling",
            format!(
                "P/L {before:.2} → {after:.2}: from {} to {}; {}",
                temper(before),
                temper(after),
                if after > before {
                    "rest it before moulding, or it springs back"
                } else {
                    "handle it less, or it flows"
                }
            ),
        );
    }
    let longer = |before: f64, after: f64| (after - before).abs() >= 0.5 && before > 0.0;
    if let Some((before, after)) = of(Property::Development).filter(|(a, b)| longer(*a, *b)) {
        let word = if after > before { "longer" } else { "shorter" };
        say(
            "mixing",
            "mixing",
            format!(
                "Development {before:.1} → {after:.1} min: expect {word} mixing, by about {:.0} %; end it on the windowpane",
                100.0 * (after / before - 1.0).abs()
            ),
        );
    }
    if let Some((before, after)) = of(Property::Stability).filter(|(a, b)| (a - b).abs() >= 1.0) {
        say(
            "tolerance",
            "mixing",
            format!(
                "Stability {before:.1} → {after:.1} min: {} tolerance to overmixing and to waiting",
                if after > before { "more" } else { "less" }
            ),
        );
    }
    if let Some((before, after)) = real(Property::FallingNumber) {
        say(
            "amylase",
            "fermentation",
            format!(
                "Falling number {before:.0} → {after:.0} s: {}",
                if after < before {
                    "more amylase, so more sugar: quicker gas, redder crust, stickier crumb if it goes far"
                } else {
                    "less amylase, so less sugar: slower gas late on, paler crust; malt is the remedy"
                }
            ),
        );
    }
    if let Some((before, after)) = real(Property::Ash) {
        say(
            "ash",
            "fermentation",
            format!(
                "Ash {before:.2} → {after:.2} %: {}",
                if after > before {
                    "more of the outer grain: more flavour, thirst and ferment, a darker crumb"
                } else {
                    "whiter: less flavour, thirst and ferment"
                }
            ),
        );
    }
    all
}
