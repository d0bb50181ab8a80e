use std::borrow::Cow;

use serde::Serialize;
use thiserror::Error;

use super::coefficients as c;
use super::hold_back::damaged_starch;
use super::{AbsorptionModel, Flour, FlourPart, HoldBack, hold_back};
use crate::coefficient::{Coefficient, Coefficients, Origin};
use crate::dough::{Ingredient, IngredientProperties};
use crate::flour::coefficients::{AGED_DAYS, GREEN_DAYS};
use crate::flour::{Moisture, absorption_at_moisture};
use crate::units::Estimate;

/// An ingredient and how much of it, in percent on flour.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Addition<'a> {
    pub properties: &'a IngredientProperties,
    pub pct: f64,
}

/// What is wanted of the dough, as far as its water goes.
#[derive(Debug, Clone, PartialEq)]
pub struct AbsorptionRequest<'a> {
    /// What its process does to the water.
    pub process: &'static Coefficient,
    /// Everything but flour and water.
    pub lines: &'a [Addition<'a>],
    /// Points asked for by style, wetter or drier.
    pub style_points: f64,
    /// The dough absorption set by hand, instead of where the build-up ends.
    pub override_pct: Option<f64>,
    pub machine_divided: bool,
    pub coefficients: &'a Coefficients,
    pub model: &'a AbsorptionModel,
}

/// Nothing to start the build-up from.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub enum AbsorptionUnknown {
    #[error(
        "{0} states neither absorption nor protein and damaged starch: type in one of them, or override \
         the water"
    )]
    NothingStated(String),
    #[error(
        "{0} has no gluten, so its water is not computed: type in the water its own sheet states, \
         as absorption, or override the water"
    )]
    NeedsItsSheet(String),
    #[error("no flour to begin with")]
    NoFlour,
}

/// One step from the flour's figure to the dough absorption.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Adjustment {
    /// The step's own word, the same from lot to lot.
    #[cfg_attr(feature = "openapi", schema(value_type = String))]
    pub key: Cow<'static, str>,
    pub label: String,
    pub points: f64,
    pub low: f64,
    pub high: f64,
    pub origin: Origin,
    pub reason: String,
    /// Key of the coefficient a plant may switch off or replace; none where there is none.
    pub coefficient: Option<&'static str>,
}

/// Something to know before going on.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Caution {
    pub key: &'static str,
    #[serde(rename = "says")]
    pub message: String,
}

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
///     process: &coefficients::NO_TIME, lines: &[], style_points: 0.0, override_pct: None,
///     machine_divided: true, coefficients: &house, model: &model,
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
    let base = Base::of(flours, wanted);
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
    base: &Base,
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
        let days = flour.age_days?;
        let rule = if days < wanted.coefficients.value(&GREEN_DAYS) {
            &c::GREEN
        } else if days > wanted.coefficients.value(&AGED_DAYS) {
            &c::AGED
        } else {
            return None;
        };
        flour.species.has_gluten().then_some((rule, 1.0))
    }));
    adjustments.extend(style(wanted.style_points));
}

/// How finely a percentage is said.
const THOUSANDTHS: f64 = 1000.0;
/// Less than this, in points, the lot's own moisture does not move the figure.
const NO_DRIER: f64 = 0.005;
const NO_DAMPER: f64 = -NO_DRIER;

/// Where the build-up starts: the mix's absorption on 14 %, and moved to its parts' own moisture.
struct Base {
    on_14: f64,
    own: f64,
    sd: f64,
}

impl Base {
    fn of(
        flours: &[FlourPart<'_>],
        wanted: &AbsorptionRequest<'_>,
    ) -> Result<Self, AbsorptionUnknown> {
        if flours.is_empty() {
            return Err(AbsorptionUnknown::NoFlour);
        }
        let mut base = Self { on_14: 0.0, own: 0.0, sd: 0.0 };
        let mut variance = 0.0;
        for FlourPart { name, flour, share_pct } in flours {
            let share = share_pct / 100.0;
            let (on_14, sd) = absorption(name, flour, wanted)?;
            base.on_14 += share * on_14;
            base.own += share
                * if flour.species.has_gluten() {
                    absorption_at_moisture(on_14, Moisture::FOURTEEN, flour.moisture)
                } else {
                    on_14
                };
            variance += (share * sd).powi(2);
        }
        base.sd = variance.sqrt();
        Ok(base)
    }

    fn adjustment(&self, flours: &[FlourPart<'_>]) -> Adjustment {
        let measured = |part: &FlourPart<'_>| part.flour.absorption_14_pct.is_some();
        let (label, origin, reason) = if flours.iter().all(|part| !part.flour.species.has_gluten())
        {
            (
                "water by the blend's own sheet",
                Origin::House,
                "no gluten model holds here: the blend's sheet is the figure to start from",
            )
        } else if flours.iter().all(measured) {
            (
                "farinograph absorption on 14 %",
                Origin::Standard,
                "ISO 5530-1: water to 500 FU; the band is half the method's repeatability",
            )
        } else {
            (
                "estimated absorption on 14 %",
                Origin::House,
                "no curve came with it: from protein, damaged starch and ash by the absorption model",
            )
        };
        let (label, reason) = if let [_] = flours {
            (label.to_owned(), reason.to_owned())
        } else {
            let parts: Vec<String> = flours
                .iter()
                .map(|part| format!("{} {:.0} %", part.name, part.share_pct))
                .collect();
            (format!("{label}, of the mix"), format!("{}; {reason}", parts.join(", ")))
        };
        Adjustment {
            key: Cow::Borrowed("absorption"),
            label,
            points: self.on_14,
            low: self.on_14 - self.sd,
            high: self.on_14 + self.sd,
            origin,
            reason,
            coefficient: None,
        }
    }

    fn moisture_step(&self, flours: &[FlourPart<'_>]) -> Adjustment {
        let moved = self.own - self.on_14;
        let mean: f64 =
            flours.iter().map(|part| part.flour.moisture.percent() * part.share_pct / 100.0).sum();
        Adjustment {
            key: Cow::Borrowed("moisture"),
            label: format!("the lot's own moisture, {mean:.1} %"),
            points: moved,
            low: moved,
            high: moved,
            origin: Origin::Physics,
            reason: match moved {
                ..NO_DAMPER => "damper than 14 %: the flour brings water of its own",
                NO_DRIER.. => "drier than 14 %: the flour brings less water of its own",
                _ => "as moist as its figure is stated for",
            }
            .into(),
            coefficient: None,
        }
    }
}

/// Absorption on 14 % and its standard deviation, measured or estimated.
fn absorption(
    name: &str,
    flour: &Flour,
    wanted: &AbsorptionRequest<'_>,
) -> Result<(f64, f64), AbsorptionUnknown> {
    let gluten_network = flour.species.has_gluten();
    if let Some(absorption) = flour.absorption_14_pct {
        let sd = if gluten_network { &c::MEASURED_SD } else { &c::SHEET_SD };
        return Ok((absorption, wanted.coefficients.value(sd)));
    }
    if !gluten_network {
        return Err(AbsorptionUnknown::NeedsItsSheet(name.into()));
    }
    let composition = flour.composition;
    if composition.protein_14_pct.is_none() && composition.damaged_starch_pct.is_none() {
        return Err(AbsorptionUnknown::NothingStated(name.into()));
    }
    let predicted = wanted.model.predict(composition);
    Ok((predicted.mean_pct, predicted.sd_pct))
}

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

fn by_hand(wanted: f64, so_far: f64) -> Option<Adjustment> {
    let points = wanted - so_far;
    let reason = "the water was set to a figure, away from the computed absorption";
    (points.abs() > 1e-9).then(|| chosen("by_hand", "override".into(), points, reason))
}

fn chosen(key: &'static str, label: String, points: f64, reason: &str) -> Adjustment {
    let (key, reason) = (Cow::Borrowed(key), reason.into());
    let origin = Origin::Choice;
    Adjustment { key, label, points, low: points, high: points, origin, reason, coefficient: None }
}

/// The W of a mix, by share of what has gluten; none where a flour with gluten does not state it.
fn strength(flours: &[FlourPart<'_>]) -> Option<f64> {
    let gluten_network = flours.iter().filter(|part| part.flour.species.has_gluten());
    let (mut sum, mut share) = (0.0, 0.0);
    for part in gluten_network {
        sum += part.flour.w? * part.share_pct;
        share += part.share_pct;
    }
    (share > 0.0).then(|| sum / share)
}

/// What the strength can carry, in percent of water: `50 + 0.13·W` folded or long rested, 8 less
/// where a machine divides. House default; W of a mix by share.
fn ceiling(flours: &[FlourPart<'_>], wanted: &AbsorptionRequest<'_>) -> Option<f64> {
    let active = |coefficient| wanted.coefficients.active(coefficient);
    let (base, per_w) = (active(&c::CEILING_BASE)?, active(&c::CEILING_PER_W)?);
    let less = active(&c::MACHINE_DIVIDED).filter(|_| wanted.machine_divided);
    let carried = wanted
        .lines
        .iter()
        .filter_map(|line| Some(active(carried_by(line.properties.ingredient)?)? * line.pct));
    Some(base + per_w * strength(flours)? + carried.sum::<f64>() - less.unwrap_or(0.0))
}

/// Points that 1 % of an ingredient lets strength carry more, or less: gluten builds film, fibre cuts
/// it.
const fn carried_by(ingredient: Ingredient) -> Option<&'static Coefficient> {
    match ingredient {
        Ingredient::VitalGluten => Some(&c::GLUTEN_CARRIES),
        Ingredient::Bran | Ingredient::OatFibre => Some(&c::FIBRE_CUTS),
        _ => None,
    }
}

/// Where less than no water would be weighed.
fn too_wet(dough_absorption_pct: f64, ingredient_water_pct: f64) -> Option<Caution> {
    let message = format!(
        "the other ingredients bring {ingredient_water_pct:.1} % of water, and the dough wants \
         {dough_absorption_pct:.1} %: no water is left to weigh. Take less of them, or drier ones"
    );
    (ingredient_water_pct > dough_absorption_pct).then_some(Caution { key: "too_wet", message })
}

fn cautions(
    flours: &[FlourPart<'_>],
    coefficients: &Coefficients,
    dough_absorption_pct: f64,
    ceiling_pct: Option<f64>,
) -> Vec<Caution> {
    let mut cautions = Vec::new();
    let mut say = |key, message: String| cautions.push(Caution { key, message });
    if let Some(ceiling) = ceiling_pct.filter(|ceiling| dough_absorption_pct > *ceiling) {
        let w = strength(flours).unwrap_or_default();
        say(
            "strength",
            format!(
                "{dough_absorption_pct:.1} % is beyond what W {w:.0} is likely to carry ({ceiling:.1} %): \
                 expect a flat, sticky dough"
            ),
        );
    }
    let critical = coefficients.active(&c::CRITICAL_DAMAGED_STARCH);
    let damaged = damaged_starch(flours);
    if let Some(damaged) = damaged.filter(|pct| critical.is_some_and(|critical| *pct > critical)) {
        say(
            "damaged_starch",
            format!(
                "damaged starch is {damaged:.1} %: the dough will feel dry early and stick late. \
                 Do not add water for feel; wait, and judge at the divider"
            ),
        );
    }
    let green = coefficients.value(&GREEN_DAYS);
    if flours.iter().any(|part| part.flour.age_days.is_some_and(|days| days < green)) {
        let message =
            "green flour: its strength comes with two days of age; it needs oxidation or time";
        say("green", message.into());
    }
    if flours.iter().any(|part| !part.flour.species.has_gluten()) {
        say(
            "no_gluten",
            "no gluten film: add the water in stages, mix softly, one rise. Keep it apart from \
             wheat: flour dust, tins and hands carry gluten over"
                .into(),
        );
    }
    cautions
}
