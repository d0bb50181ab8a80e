use serde::Serialize;
use thiserror::Error;

use super::{CRITICAL_DAMAGED_STARCH, Process, Species};
use crate::dough::{Effect, Ingredient};
use crate::flour::{AGED_DAYS, GREEN_DAYS, Moisture, absorption_at_moisture};
use crate::units::Origin;

/// Half the repeatability of ISO 5530-1, taken as the standard deviation of a measured absorption.
const MEASURED_SD: f64 = 0.3;
/// How much less water a divider and moulder forgive than hands do, in points.
const MACHINE_DIVIDED: f64 = 8.0;

/// What the stair needs to know of the flour.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Flour {
    pub moisture: Moisture,
    /// Farinograph absorption on 14 %.
    pub absorption_14_pct: Option<f64>,
    pub species: Species,
    pub age_days: Option<f64>,
    pub damaged_starch_pct: Option<f64>,
    pub w: Option<f64>,
}

/// What is wanted of the dough, as far as its water goes.
#[derive(Debug, Clone, PartialEq)]
pub struct Wanted<'a> {
    pub process: Process,
    /// Everything but flour and water, in percent on flour.
    pub lines: &'a [(Ingredient, f64)],
    /// Points asked for by style, wetter or drier.
    pub style_points: f64,
    /// The floor figure set by hand, instead of where the stair ends.
    pub set_by_hand_pct: Option<f64>,
    pub machine_divided: bool,
}

/// No absorption to start from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Error)]
#[error(
    "the certificate has no absorption: type in the farinograph absorption, or set the water by hand"
)]
pub struct NoBase;

/// One step from the flour's figure to the floor figure.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Step {
    /// The step's own word, the same from lot to lot.
    pub key: &'static str,
    pub label: String,
    pub points: f64,
    pub low: f64,
    pub high: f64,
    pub origin: Origin,
    pub reason: String,
}

/// Something to know before going on.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Caution {
    pub key: &'static str,
    pub says: String,
}

/// The water stair: the floor figure is exactly the sum of its steps.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Stair {
    pub steps: Vec<Step>,
    /// All the water the dough wants, in percent on flour.
    pub floor_pct: f64,
    pub low_pct: f64,
    pub high_pct: f64,
    /// Water that comes with the other ingredients.
    pub ingredient_water_pct: f64,
    /// Water to weigh: floor less ingredient water.
    pub weigh_pct: f64,
    /// What the flour's strength can carry, where W is known.
    pub ceiling_pct: Option<f64>,
    pub cautions: Vec<Caution>,
}

/// Steps from the flour's measured absorption to the floor.
///
/// Base on 14 % (ISO 5530-1) → the lot's own moisture (mass balance) → process → each ingredient
/// → weak film → age → style → set by hand. The band is the root of the sum of the squared
/// half-ranges. All but base and moisture are house defaults.
///
/// ```
/// use ironpeel_core::{flour::Moisture, water::{Flour, Process, Species, Wanted, stair}};
/// let flour = Flour {
///     moisture: Moisture::new(15.2)?, absorption_14_pct: Some(62.0), species: Species::Wheat,
///     age_days: None, damaged_starch_pct: None, w: None,
/// };
/// let wanted = Wanted {
///     process: Process::NoTime, lines: &[], style_points: 0.0, set_by_hand_pct: None,
///     machine_divided: true,
/// };
/// assert!((stair(&flour, &wanted)?.floor_pct - 58.74).abs() < 0.005);
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
pub fn stair(flour: &Flour, wanted: &Wanted<'_>) -> Result<Stair, NoBase> {
    let mut steps = Vec::with_capacity(12);
    match (flour.absorption_14_pct, wanted.set_by_hand_pct) {
        (Some(absorption), _) => steps.extend(base(absorption, flour.moisture)),
        (None, Some(_)) => {}
        (None, None) => return Err(NoBase),
    }
    if !steps.is_empty() {
        steps.push(process(wanted.process));
        steps.extend(wanted.lines.iter().filter_map(|(ingredient, pct)| line(*ingredient, *pct)));
        steps.extend(weak_film(flour.species));
        steps.extend(flour.age_days.and_then(age));
        steps.extend(style(wanted.style_points));
    }
    let so_far: f64 = steps.iter().map(|step| step.points).sum();
    steps.extend(wanted.set_by_hand_pct.and_then(|wanted| by_hand(wanted, so_far)));

    let floor_pct: f64 = steps.iter().map(|step| step.points).sum();
    let half = steps.iter().map(|step| ((step.high - step.low) / 2.0).powi(2)).sum::<f64>().sqrt();
    // A figure somebody set is that figure: the band says what the flour was expected to want.
    let middle = if wanted.set_by_hand_pct.is_some() && flour.absorption_14_pct.is_some() {
        so_far
    } else {
        floor_pct
    };
    let ingredient_water_pct: f64 =
        wanted.lines.iter().map(|(ingredient, pct)| pct * ingredient.water_pct() / 100.0).sum();
    let w = flour.w.filter(|_| flour.species.has_gluten());
    let ceiling_pct = w.map(|w| ceiling(w, wanted.machine_divided));
    Ok(Stair {
        floor_pct,
        low_pct: middle - half,
        high_pct: middle + half,
        ingredient_water_pct,
        weigh_pct: floor_pct - ingredient_water_pct,
        ceiling_pct,
        cautions: cautions(flour, floor_pct, ceiling_pct),
        steps,
    })
}

fn base(absorption_14: f64, moisture: Moisture) -> [Step; 2] {
    let own = absorption_at_moisture(absorption_14, Moisture::FOURTEEN, moisture);
    let moved = own - absorption_14;
    [
        Step {
            key: "absorption",
            label: "farinograph absorption on 14 %".into(),
            points: absorption_14,
            low: absorption_14 - MEASURED_SD,
            high: absorption_14 + MEASURED_SD,
            origin: Origin::Standard,
            reason: "ISO 5530-1: water to 500 FU; the band is half the method's repeatability"
                .into(),
        },
        Step {
            key: "moisture",
            label: format!("the lot's own moisture, {:.1} %", moisture.percent()),
            points: moved,
            low: moved,
            high: moved,
            origin: Origin::Physics,
            reason: if moved < 0.0 {
                "damper than 14 %: the flour brings water of its own".into()
            } else {
                "drier than 14 %: the flour brings less water of its own".into()
            },
        },
    ]
}

fn process(process: Process) -> Step {
    house("process", process.label().into(), process.points(), process.reason().into())
}

fn line(ingredient: Ingredient, pct: f64) -> Option<Step> {
    let Effect { points, low, high, reason } = ingredient.effect()?;
    (pct != 0.0).then(|| {
        let label = format!("{}, {pct} %", ingredient.label());
        house(ingredient.key(), label, (points * pct, low * pct, high * pct), reason.into())
    })
}

fn weak_film(species: Species) -> Option<Step> {
    let reason = "a weak film: hold it back, let it rest, and add by feel";
    let label = format!("{}, held back", species.key());
    species.held_back().map(|points| house("weak_film", label, points, reason.into()))
}

fn age(days: f64) -> Option<Step> {
    let label = format!("{days:.0} {} since milling", if days == 1.0 { "day" } else { "days" });
    if days < GREEN_DAYS {
        let reason = "green flour: weak, and not yet thirsty";
        Some(house("age", label, (-0.5, -1.0, 0.0), reason.into()))
    } else if days > AGED_DAYS {
        let reason = "aged flour takes more and acts stronger";
        Some(house("age", label, (0.5, 0.0, 1.0), reason.into()))
    } else {
        None
    }
}

fn style(points: f64) -> Option<Step> {
    let label = if points > 0.0 { "wetter by style" } else { "drier by style" };
    (points != 0.0).then(|| chosen("style", label.into(), points, "asked for by the formula"))
}

fn by_hand(wanted: f64, so_far: f64) -> Option<Step> {
    let points = wanted - so_far;
    let reason = "the water was set to a figure, away from where the stair ends";
    (points.abs() > 1e-9).then(|| chosen("by_hand", "set by hand".into(), points, reason))
}

fn chosen(key: &'static str, label: String, points: f64, reason: &str) -> Step {
    let reason = reason.into();
    Step { key, label, points, low: points, high: points, origin: Origin::Choice, reason }
}

fn house(
    key: &'static str,
    label: String,
    (points, low, high): (f64, f64, f64),
    reason: String,
) -> Step {
    Step { key, label, points, low, high, origin: Origin::House, reason }
}

/// What the strength can carry, in percent of water: `50 + 0.13·W` folded or long rested, 8 less
/// where a machine divides. House default.
fn ceiling(w: f64, machine_divided: bool) -> f64 {
    50.0 + 0.13 * w - if machine_divided { MACHINE_DIVIDED } else { 0.0 }
}

fn cautions(flour: &Flour, floor_pct: f64, ceiling_pct: Option<f64>) -> Vec<Caution> {
    let mut cautions = Vec::new();
    if let Some(ceiling) = ceiling_pct.filter(|ceiling| floor_pct > *ceiling) {
        cautions.push(Caution {
            key: "strength",
            says: format!(
                "{floor_pct:.1} % is beyond what W {:.0} is likely to carry ({ceiling:.1} %): \
                 expect a flat, sticky dough",
                flour.w.unwrap_or_default()
            ),
        });
    }
    if let Some(damaged) = flour
        .damaged_starch_pct
        .filter(|pct| flour.species.has_gluten() && *pct > CRITICAL_DAMAGED_STARCH)
    {
        cautions.push(Caution {
            key: "damaged_starch",
            says: format!(
                "damaged starch is {damaged:.1} %: the dough will feel dry early and stick late. \
                 Do not add water for feel; wait, and judge at the divider"
            ),
        });
    }
    if flour.age_days.is_some_and(|days| days < GREEN_DAYS) {
        cautions.push(Caution {
            key: "green",
            says: "green flour: weak until it has aged two days; it needs oxidation or time".into(),
        });
    }
    cautions
}
