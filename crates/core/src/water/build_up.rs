use std::borrow::Cow;

use serde::Serialize;

use super::base_absorption::BaseAbsorption;
use super::cautions::{cautions, too_wet};
use super::coefficients as c;
use super::strength_ceiling::ceiling;
use super::{
    AbsorptionRequest, AbsorptionUnknown, Addition, Adjustment, Caution, Flour, FlourPart,
    HoldBack, hold_back,
};
use crate::coefficient::{Coefficient, Coefficients, Origin};
use crate::flour::FlourAge;
use crate::units::Estimate;

/// The absorption build-up: the dough absorption is exactly the sum of its steps.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AbsorptionBuildUp {
    #[serde(rename = "steps")]
    pub adjustments: Vec<Adjustment>,
    /// All the water the dough wants, in percent on flour.
    #[serde(rename = "floor_pct")]
    pub dough_absorption_pct: f64,
    pub low_pct: f64,
    pub high_pct: f64,
    /// Water that comes with the other ingredients.
    pub ingredient_water_pct: f64,
    /// Water to weigh: floor less ingredient water. Below zero only beside the caution `too_wet`.
    #[serde(rename = "weigh_pct")]
    pub added_water_pct: f64,
    /// Whether any flour's absorption was estimated and not measured.
    pub estimated: bool,
    /// What the flour's strength can carry, where W is known.
    pub ceiling_pct: Option<f64>,
    pub hold_back: Option<HoldBack>,
    pub cautions: Vec<Caution>,
}

/// Steps from the flour's absorption, measured or estimated, to the floor.
///
/// Base on 14 % (ISO 5530-1, or the absorption model) → grain and bran where it was estimated →
/// the lot's own moisture (mass balance) → process → each ingredient → weak film → age → style →
/// set by hand. A mix of flours behaves by its parts: each step is the parts' by their shares. The
/// band is the root of the sum of the squared half-ranges. All but a measured base and the moisture
/// are house defaults, or the plant's own in their place.
///
/// A blend without gluten starts from the water of its own sheet, as is, and knows no process: no
/// rule here is about it but what its ingredients do.
///
/// ```
/// use ironpeel_core::{coefficient::Coefficients, flour::Moisture, water::*};
/// let flour = Flour::measured(Moisture::new(15.2)?, 62.0);
/// let (house, model) = (Coefficients::default(), AbsorptionModel::default());
/// let wanted = AbsorptionRequest {
///     process: &coefficients::NO_TIME, lines: &[], style_points: 0.0, learned: None,
///     override_pct: None, machine_divided: true, coefficients: &house, model: &model,
/// };
/// let found = build_up(&[FlourPart { name: "the flour", flour, share_pct: 100.0 }], &wanted)?;
/// assert!((found.dough_absorption_pct - 58.74).abs() < 0.005);
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
pub fn build_up(
    flours: &[FlourPart<'_>],
    wanted: &AbsorptionRequest<'_>,
) -> Result<AbsorptionBuildUp, AbsorptionUnknown> {
    let mut adjustments = Vec::new();
    let base = BaseAbsorption::of(flours, wanted);
    match (base, wanted.override_pct) {
        (Ok(base), _) => climb(&mut adjustments, &base, flours, wanted),
        (Err(_), Some(_)) => {}
        (Err(no_base), None) => return Err(no_base),
    }
    let stands = !adjustments.is_empty();
    let so_far: f64 = adjustments.iter().map(|adjustment| adjustment.points).sum();
    adjustments.extend(wanted.override_pct.and_then(|wanted| by_hand(wanted, so_far)));

    let dough_absorption_pct: f64 = adjustments.iter().map(|adjustment| adjustment.points).sum();
    let half = adjustments
        .iter()
        .map(|adjustment| ((adjustment.high - adjustment.low) / 2.0).powi(2))
        .sum::<f64>()
        .sqrt();
    // A figure somebody set is that figure: the band says what the flour was expected to want.
    let middle = if stands { so_far } else { dough_absorption_pct };
    let ingredient_water_pct: f64 =
        wanted.lines.iter().map(|line| line.pct * line.properties.water_pct / 100.0).sum();
    let added_water_pct = dough_absorption_pct - ingredient_water_pct;
    let ceiling_pct = ceiling(flours, wanted);
    let mut cautions = cautions(flours, wanted.coefficients, dough_absorption_pct, ceiling_pct);
    cautions.extend(too_wet(dough_absorption_pct, ingredient_water_pct));
    Ok(AbsorptionBuildUp {
        dough_absorption_pct,
        low_pct: middle - half,
        high_pct: middle + half,
        ingredient_water_pct,
        added_water_pct,
        estimated: flours.iter().any(|part| part.flour.absorption_14_pct.is_none()),
        ceiling_pct,
        hold_back: hold_back(flours, wanted.coefficients, wanted.model),
        cautions,
        adjustments,
    })
}

fn climb(
    adjustments: &mut Vec<Adjustment>,
    base: &BaseAbsorption,
    flours: &[FlourPart<'_>],
    wanted: &AbsorptionRequest<'_>,
) {
    adjustments.push(base.adjustment(flours));
    let has_film = flours.iter().any(|part| part.flour.species.has_gluten());
    if has_film {
        let unmeasured = |flour: &Flour| flour.absorption_14_pct.is_none();
        adjustments.extend(ruled("species", flours, wanted.coefficients, |flour| {
            let rule = c::offset_of(flour.species).filter(|_| unmeasured(flour))?;
            Some((rule, 1.0))
        }));
        adjustments.extend(ruled("whole_grain", flours, wanted.coefficients, |flour| {
            let counted = flour.composition.ash_dm_pct.is_some();
            let rule = if counted { &c::WHOLE_GRAIN } else { &c::WHOLE_GRAIN_UNKNOWN };
            unmeasured(flour).then_some((rule, flour.whole_grain_pct / 100.0))
        }));
        adjustments.push(base.moisture_step(flours));
        adjustments.extend(ruled("process", flours, wanted.coefficients, |flour| {
            flour.species.has_gluten().then_some((wanted.process, 1.0))
        }));
    }
    adjustments.extend(wanted.lines.iter().filter_map(line));
    adjustments.extend(ruled("weak_film", flours, wanted.coefficients, |flour| {
        Some((c::held_back_of(flour.species)?, 1.0))
    }));
    adjustments.extend(ruled("age", flours, wanted.coefficients, |flour| {
        let rule = match FlourAge::of(flour.age_days?, wanted.coefficients)? {
            FlourAge::Green { .. } => &c::GREEN,
            FlourAge::Aged { .. } => &c::AGED,
        };
        flour.species.has_gluten().then_some((rule, 1.0))
    }));
    adjustments.extend(style(wanted.style_points));
    adjustments.extend(wanted.learned.map(learned));
}

/// The step of what batches taught.
pub(super) const LEARNED: &str = "learned";
/// How finely a percentage is said.
const THOUSANDTHS: f64 = 1000.0;
/// A step made of what one rule or another says of each flour, by its share; none where nothing is
/// said. Switched off, it stays as a step of nothing, so that it can be switched on again.
fn ruled(
    key: &'static str,
    flours: &[FlourPart<'_>],
    coefficients: &Coefficients,
    message: impl Fn(&Flour) -> Option<(&'static Coefficient, f64)>,
) -> Option<Adjustment> {
    let mut made: Option<Adjustment> = None;
    for FlourPart { flour, share_pct, .. } in flours {
        let Some((rule, times)) = message(flour).filter(|(_, times)| *times > 0.0) else {
            continue;
        };
        let ruling = coefficients.get(rule);
        let value = if ruling.off { Estimate::new(0.0, 0.0, 0.0) } else { ruling.value };
        let points = value.times(times * share_pct / 100.0);
        if let Some(adjustment) = &mut made {
            adjustment.points += points.typical;
            adjustment.low += points.low;
            adjustment.high += points.high;
            if adjustment.coefficient != Some(rule.key) {
                adjustment.label = format!("{}; {}", adjustment.label, rule.name);
            }
        } else {
            made = Some(Adjustment {
                key: Cow::Borrowed(key),
                label: if ruling.off {
                    format!("{}, switched off", rule.name)
                } else {
                    rule.name.into()
                },
                points: points.typical,
                low: points.low,
                high: points.high,
                origin: ruling.origin,
                reason: ruling.reason.into_owned(),
                coefficient: Some(rule.key),
            });
        }
    }
    made
}

fn line(line: &Addition<'_>) -> Option<Adjustment> {
    let Addition { properties, pct } = line;
    let effect = properties.effect.as_ref().filter(|_| *pct != 0.0)?;
    let points = effect.points.times(*pct);
    Some(Adjustment {
        key: properties.ingredient.key(),
        label: format!("{}, {} %", properties.label, (pct * THOUSANDTHS).round() / THOUSANDTHS),
        points: points.typical,
        low: points.low,
        high: points.high,
        origin: properties.origin,
        reason: effect.reason.clone().into_owned(),
        coefficient: None,
    })
}

fn style(points: f64) -> Option<Adjustment> {
    let label = if points > 0.0 { "wetter by style" } else { "drier by style" };
    (points != 0.0).then(|| chosen("style", label.into(), points, "asked for by the formula"))
}

fn learned(Estimate { typical, low, high }: Estimate) -> Adjustment {
    Adjustment {
        key: Cow::Borrowed(LEARNED),
        label: "water correction learned on this line".into(),
        points: typical,
        low,
        high,
        origin: Origin::Learned,
        reason: "what finished batches of this flour took beyond the plan".into(),
        coefficient: None,
    }
}

const BY_HAND: &str = "by_hand";

impl AbsorptionBuildUp {
    /// Water set away from the computed dough absorption, points; none where nobody set it.
    pub fn by_hand_pts(&self) -> Option<f64> {
        self.adjustments.iter().find(|one| one.key == BY_HAND).map(|one| one.points)
    }
}

fn by_hand(wanted: f64, so_far: f64) -> Option<Adjustment> {
    let points = wanted - so_far;
    let reason = "the water was set to a figure, away from the computed absorption";
    (points.abs() > 1e-9).then(|| chosen(BY_HAND, "override".into(), points, reason))
}

fn chosen(key: &'static str, label: String, points: f64, reason: &str) -> Adjustment {
    let (key, reason) = (Cow::Borrowed(key), reason.into());
    let origin = Origin::Choice;
    Adjustment { key, label, points, low: points, high: points, origin, reason, coefficient: None }
}
