use std::borrow::Cow;

use serde::Serialize;
use thiserror::Error;

use super::hold_back::damaged_starch;
use super::{AbsorptionModel, Flour, FlourPart, HoldBack, Process, Rule, Rules, hold_back};
use crate::dough::{Facts, Ingredient};
use crate::flour::{AGED_DAYS, GREEN_DAYS, Moisture, absorption_at_moisture};
use crate::units::{Banded, Origin};

/// Half the repeatability of ISO 5530-1, taken as the standard deviation of a measured absorption.
const MEASURED_SD: f64 = 0.3;
/// How far off the water on a blend's own sheet may be, in points (H).
const SHEET_SD: f64 = 2.0;

/// Points of water that 1 % of vital gluten carries, and that 1 % of bran or oat fibre costs (H).
const GLUTEN_CARRIES: Banded = Banded::new(2.0, 1.0, 3.0);
const FIBRE_CUTS: Banded = Banded::new(-0.5, -1.0, 0.0);

/// An ingredient and how much of it, in percent on flour.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Addition<'a> {
    pub facts: &'a Facts,
    pub pct: f64,
}

/// What is wanted of the dough, as far as its water goes.
#[derive(Debug, Clone, PartialEq)]
pub struct Wanted<'a> {
    pub process: Process,
    /// Everything but flour and water.
    pub lines: &'a [Addition<'a>],
    /// Points asked for by style, wetter or drier.
    pub style_points: f64,
    /// The floor figure set by hand, instead of where the stair ends.
    pub set_by_hand_pct: Option<f64>,
    pub machine_divided: bool,
    pub rules: &'a Rules,
    pub model: &'a AbsorptionModel,
}

/// Nothing to start the stair from.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub enum NoBase {
    #[error(
        "{0} states neither absorption nor protein and damaged starch: type in one of them, or set \
         the water by hand"
    )]
    NothingStated(String),
    #[error(
        "{0} has no gluten, so its water is not computed: type in the water its own sheet states, \
         as absorption, or set the water by hand"
    )]
    NeedsItsSheet(String),
    #[error("no flour to begin with")]
    NoFlour,
}

/// One step from the flour's figure to the floor figure.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Step {
    /// The step's own word, the same from lot to lot.
    #[cfg_attr(feature = "openapi", schema(value_type = String))]
    pub key: Cow<'static, str>,
    pub label: String,
    pub points: f64,
    pub low: f64,
    pub high: f64,
    pub origin: Origin,
    pub reason: String,
    /// The rule a plant may switch off or replace; none where there is none.
    pub rule: Option<Rule>,
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
    /// Water to weigh: floor less ingredient water. Below zero only beside the caution `too_wet`.
    pub weigh_pct: f64,
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
/// use ironpeel_core::{flour::Moisture, water::*};
/// let flour = Flour::measured(Moisture::new(15.2)?, 62.0);
/// let (rules, model) = (Rules::default(), AbsorptionModel::prior());
/// let wanted = Wanted {
///     process: Process::NoTime, lines: &[], style_points: 0.0, set_by_hand_pct: None,
///     machine_divided: true, rules: &rules, model: &model,
/// };
/// let found = stair(&[FlourPart { name: "the flour", flour, share_pct: 100.0 }], &wanted)?;
/// assert!((found.floor_pct - 58.74).abs() < 0.005);
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
pub fn stair(flours: &[FlourPart<'_>], wanted: &Wanted<'_>) -> Result<Stair, NoBase> {
    let mut steps = Vec::with_capacity(14);
    let base = Base::of(flours, wanted.model);
    match (base, wanted.set_by_hand_pct) {
        (Ok(base), _) => climb(&mut steps, &base, flours, wanted),
        (Err(_), Some(_)) => {}
        (Err(no_base), None) => return Err(no_base),
    }
    let stands = !steps.is_empty();
    let so_far: f64 = steps.iter().map(|step| step.points).sum();
    steps.extend(wanted.set_by_hand_pct.and_then(|wanted| by_hand(wanted, so_far)));

    let floor_pct: f64 = steps.iter().map(|step| step.points).sum();
    let half = steps.iter().map(|step| ((step.high - step.low) / 2.0).powi(2)).sum::<f64>().sqrt();
    // A figure somebody set is that figure: the band says what the flour was expected to want.
    let middle = if stands { so_far } else { floor_pct };
    let ingredient_water_pct: f64 =
        wanted.lines.iter().map(|line| line.pct * line.facts.water_pct / 100.0).sum();
    let weigh_pct = floor_pct - ingredient_water_pct;
    let ceiling_pct = ceiling(flours, wanted);
    let mut cautions = cautions(flours, wanted.rules, floor_pct, ceiling_pct);
    cautions.extend(too_wet(floor_pct, ingredient_water_pct));
    Ok(Stair {
        floor_pct,
        low_pct: middle - half,
        high_pct: middle + half,
        ingredient_water_pct,
        weigh_pct,
        estimated: flours.iter().any(|part| part.flour.absorption_14_pct.is_none()),
        ceiling_pct,
        hold_back: hold_back(flours, wanted.rules, wanted.model),
        cautions,
        steps,
    })
}

fn climb(steps: &mut Vec<Step>, base: &Base, flours: &[FlourPart<'_>], wanted: &Wanted<'_>) {
    steps.push(base.step(flours));
    let has_film = flours.iter().any(|part| part.flour.species.has_gluten());
    if has_film {
        let unmeasured = |flour: &Flour| flour.absorption_14_pct.is_none();
        steps.extend(ruled("species", flours, wanted.rules, |flour| {
            let rule = Rule::offset_of(flour.species).filter(|_| unmeasured(flour))?;
            Some((rule, 1.0))
        }));
        steps.extend(ruled("whole_grain", flours, wanted.rules, |flour| {
            let counted = flour.composition.ash_dm_pct.is_some();
            let rule = if counted { Rule::WholeGrain } else { Rule::WholeGrainUnknown };
            unmeasured(flour).then_some((rule, flour.whole_grain_pct / 100.0))
        }));
        steps.push(base.moisture_step(flours));
        let process = Rule::of_process(wanted.process);
        steps.extend(ruled("process", flours, wanted.rules, |flour| {
            flour.species.has_gluten().then_some((process, 1.0))
        }));
    }
    steps.extend(wanted.lines.iter().filter_map(line));
    steps.extend(ruled("weak_film", flours, wanted.rules, |flour| {
        Some((Rule::held_back_of(flour.species)?, 1.0))
    }));
    steps.extend(ruled("age", flours, wanted.rules, |flour| {
        let rule = match flour.age_days? {
            ..GREEN_DAYS => Rule::Green,
            days if days > AGED_DAYS => Rule::Aged,
            _ => return None,
        };
        flour.species.has_gluten().then_some((rule, 1.0))
    }));
    steps.extend(style(wanted.style_points));
}

/// Where the stair starts: the mix's absorption on 14 %, and moved to its parts' own moisture.
struct Base {
    on_14: f64,
    own: f64,
    sd: f64,
}

impl Base {
    fn of(flours: &[FlourPart<'_>], model: &AbsorptionModel) -> Result<Self, NoBase> {
        if flours.is_empty() {
            return Err(NoBase::NoFlour);
        }
        let mut base = Self { on_14: 0.0, own: 0.0, sd: 0.0 };
        let mut variance = 0.0;
        for FlourPart { name, flour, share_pct } in flours {
            let share = share_pct / 100.0;
            let (on_14, sd) = absorption(name, flour, model)?;
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

    fn step(&self, flours: &[FlourPart<'_>]) -> Step {
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
        Step {
            key: Cow::Borrowed("absorption"),
            label,
            points: self.on_14,
            low: self.on_14 - self.sd,
            high: self.on_14 + self.sd,
            origin,
            reason,
            rule: None,
        }
    }

    fn moisture_step(&self, flours: &[FlourPart<'_>]) -> Step {
        let moved = self.own - self.on_14;
        let mean: f64 =
            flours.iter().map(|part| part.flour.moisture.percent() * part.share_pct / 100.0).sum();
        Step {
            key: Cow::Borrowed("moisture"),
            label: format!("the lot's own moisture, {mean:.1} %"),
            points: moved,
            low: moved,
            high: moved,
            origin: Origin::Physics,
            reason: match moved {
                ..-0.005 => "damper than 14 %: the flour brings water of its own",
                0.005.. => "drier than 14 %: the flour brings less water of its own",
                _ => "as moist as its figure is stated for",
            }
            .into(),
            rule: None,
        }
    }
}

/// Absorption on 14 % and its standard deviation, measured or estimated.
fn absorption(name: &str, flour: &Flour, model: &AbsorptionModel) -> Result<(f64, f64), NoBase> {
    let film = flour.species.has_gluten();
    if let Some(absorption) = flour.absorption_14_pct {
        return Ok((absorption, if film { MEASURED_SD } else { SHEET_SD }));
    }
    if !film {
        return Err(NoBase::NeedsItsSheet(name.into()));
    }
    let composition = flour.composition;
    if composition.protein_14_pct.is_none() && composition.damaged_starch_pct.is_none() {
        return Err(NoBase::NothingStated(name.into()));
    }
    let predicted = model.predict(composition);
    Ok((predicted.mean_pct, predicted.sd_pct))
}

/// A step made of what one rule or another says of each flour, by its share; none where nothing is
/// said. Switched off, it stays as a step of nothing, so that it can be switched on again.
fn ruled(
    key: &'static str,
    flours: &[FlourPart<'_>],
    rules: &Rules,
    says: impl Fn(&Flour) -> Option<(Rule, f64)>,
) -> Option<Step> {
    let mut made: Option<Step> = None;
    for FlourPart { flour, share_pct, .. } in flours {
        let Some((rule, times)) = says(flour).filter(|(_, times)| *times > 0.0) else { continue };
        let ruling = rules.get(rule);
        let value = if ruling.off { Banded::new(0.0, 0.0, 0.0) } else { ruling.value };
        let points = value.times(times * share_pct / 100.0);
        if let Some(step) = &mut made {
            step.points += points.typical;
            step.low += points.low;
            step.high += points.high;
            if step.rule != Some(rule) {
                step.label = format!("{}; {}", step.label, rule.label());
            }
        } else {
            made = Some(Step {
                key: Cow::Borrowed(key),
                label: if ruling.off {
                    format!("{}, switched off", rule.label())
                } else {
                    rule.label().into()
                },
                points: points.typical,
                low: points.low,
                high: points.high,
                origin: ruling.origin,
                reason: ruling.reason.into_owned(),
                rule: Some(rule),
            });
        }
    }
    made
}

fn line(line: &Addition<'_>) -> Option<Step> {
    let Addition { facts, pct } = line;
    let effect = facts.effect.as_ref().filter(|_| *pct != 0.0)?;
    let points = effect.points.times(*pct);
    Some(Step {
        key: facts.ingredient.key(),
        label: format!("{}, {} %", facts.label, (pct * 1000.0).round() / 1000.0),
        points: points.typical,
        low: points.low,
        high: points.high,
        origin: facts.origin,
        reason: effect.reason.clone().into_owned(),
        rule: None,
    })
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
    let (key, reason) = (Cow::Borrowed(key), reason.into());
    let origin = Origin::Choice;
    Step { key, label, points, low: points, high: points, origin, reason, rule: None }
}

/// The W of a mix, by share of what has gluten; none where a flour with gluten does not state it.
fn strength(flours: &[FlourPart<'_>]) -> Option<f64> {
    let film = flours.iter().filter(|part| part.flour.species.has_gluten());
    let (mut sum, mut share) = (0.0, 0.0);
    for part in film {
        sum += part.flour.w? * part.share_pct;
        share += part.share_pct;
    }
    (share > 0.0).then(|| sum / share)
}

/// What the strength can carry, in percent of water: `50 + 0.13·W` folded or long rested, 8 less
/// where a machine divides. House default; W of a mix by share.
fn ceiling(flours: &[FlourPart<'_>], wanted: &Wanted<'_>) -> Option<f64> {
    let rules = wanted.rules;
    let (base, per_w) = (rules.active(Rule::CeilingBase)?, rules.active(Rule::CeilingPerW)?);
    let less = rules.active(Rule::MachineDivided).filter(|_| wanted.machine_divided);
    let added: f64 = wanted.lines.iter().map(|line| carried_by(line) * line.pct).sum();
    Some(base + per_w * strength(flours)? + added - less.unwrap_or(0.0))
}

/// Points that 1 % of an ingredient lets strength carry more, or less: gluten builds film, fibre cuts
/// it (H).
fn carried_by(line: &Addition<'_>) -> f64 {
    match line.facts.ingredient {
        Ingredient::VitalGluten => GLUTEN_CARRIES.typical,
        Ingredient::Bran | Ingredient::OatFibre => FIBRE_CUTS.typical,
        _ => 0.0,
    }
}

/// Where less than no water would be weighed.
fn too_wet(floor_pct: f64, ingredient_water_pct: f64) -> Option<Caution> {
    let says = format!(
        "the other ingredients bring {ingredient_water_pct:.1} % of water, and the dough wants \
         {floor_pct:.1} %: no water is left to weigh. Take less of them, or drier ones"
    );
    (ingredient_water_pct > floor_pct).then_some(Caution { key: "too_wet", says })
}

fn cautions(
    flours: &[FlourPart<'_>],
    rules: &Rules,
    floor_pct: f64,
    ceiling_pct: Option<f64>,
) -> Vec<Caution> {
    let mut cautions = Vec::new();
    let mut say = |key, says: String| cautions.push(Caution { key, says });
    if let Some(ceiling) = ceiling_pct.filter(|ceiling| floor_pct > *ceiling) {
        let w = strength(flours).unwrap_or_default();
        say(
            "strength",
            format!(
                "{floor_pct:.1} % is beyond what W {w:.0} is likely to carry ({ceiling:.1} %): \
                 expect a flat, sticky dough"
            ),
        );
    }
    let critical = rules.active(Rule::CriticalDamagedStarch);
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
    if flours.iter().any(|part| part.flour.age_days.is_some_and(|days| days < GREEN_DAYS)) {
        let says =
            "green flour: its strength comes with two days of age; it needs oxidation or time";
        say("green", says.into());
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
