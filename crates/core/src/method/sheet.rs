use serde::Serialize;

use super::{Method, Mixer, Speed, StageKind, cautions_at};
use crate::dough::{Formula, Ingredient, Scaled, Weighed, weigh};
use crate::heat::Answer;

/// One thing to weigh for a dough.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ToWeigh {
    /// The word on the sheet: an ingredient, or water, or ice.
    pub name: &'static str,
    pub ingredient: Ingredient,
    /// In percent on flour.
    pub pct: f64,
    pub exact_kg: f64,
    /// As the scale shows it.
    pub kg: f64,
    /// The scale's division, or the finer one this needs.
    pub division_kg: f64,
    /// How far the scale's division takes it from its percentage, in percent of itself.
    pub off_pct: f64,
}

/// One step on the mixing sheet.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SheetStep {
    /// Minutes from the first water.
    pub at_min: f64,
    pub kind: StageKind,
    pub label: String,
    pub minutes: f64,
    pub speed: Option<Speed>,
    pub temperature_c: Option<f64>,
    pub humidity_pct: Option<f64>,
    pub ends_when: String,
    /// Minutes under the mixer so far, as a share of all mixing; where this is a mixing stage.
    pub mixing_done_pct: Option<f64>,
    /// What goes in, in order.
    pub takes: Vec<ToWeigh>,
    pub cautions: Vec<&'static str>,
}

/// What the floor works from: for each dough, what goes in when, and for how long.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Sheet {
    pub doughs: u32,
    /// The rounded masses of one dough together.
    pub dough_kg: f64,
    pub division_kg: f64,
    pub target_c: f64,
    pub steps: Vec<SheetStep>,
    pub total_min: f64,
    pub cautions: Vec<String>,
}

/// What a sheet is made from.
#[derive(Debug, Clone, Copy)]
pub struct Plan<'a> {
    pub formula: &'a Formula,
    pub method: &'a Method,
    pub mixer: &'a Mixer,
    pub scaled: &'a Scaled,
    /// Water to weigh, ice included, in percent on flour.
    pub weigh_pct: f64,
    pub heat: &'a Answer,
    pub target_c: f64,
    pub division_kg: f64,
}

/// Lays one dough's masses, water and ice over the stages of its method.
///
/// Masses are rounded together to the scale's division, so that they still sum to the dough.
/// Liquid goes in before powder at the first mixing; what a stage names waits for it.
pub fn sheet(plan: &Plan<'_>) -> Sheet {
    let mut to_weigh = weigh_out(plan);
    let method = plan.method;
    let first_mix =
        method.stages.iter().position(|stage| stage.kind == StageKind::Mix).unwrap_or(0);
    let dough_kg = to_weigh.iter().map(|item| item.kg).sum();
    let cautions = cautions(plan, &to_weigh);
    let all_mixing = method.mixing_min();

    let mut at_min = 0.0;
    let mut mixed = 0.0;
    let mut steps = Vec::with_capacity(method.stages.len());
    for (number, stage) in method.stages.iter().enumerate() {
        let named_later = |ingredient: &Ingredient| {
            method
                .stages
                .iter()
                .enumerate()
                .any(|(later, other)| later != number && other.adds.contains(ingredient))
        };
        let takes: Vec<ToWeigh> = to_weigh
            .extract_if(.., |item| {
                stage.adds.contains(&item.ingredient)
                    || (number == first_mix && !named_later(&item.ingredient))
            })
            .collect();
        let ingredients: Vec<Ingredient> = takes.iter().map(|item| item.ingredient).collect();
        let is_mix = stage.kind == StageKind::Mix;
        steps.push(SheetStep {
            at_min,
            kind: stage.kind,
            label: stage.label.clone(),
            minutes: stage.minutes,
            speed: stage.speed,
            temperature_c: stage.temperature_c,
            humidity_pct: stage.humidity_pct,
            ends_when: stage.ends_when.clone(),
            mixing_done_pct: (is_mix && all_mixing > 0.0).then(|| 100.0 * mixed / all_mixing),
            cautions: cautions_at(stage, &ingredients),
            takes,
        });
        at_min += stage.minutes;
        mixed += if is_mix { stage.minutes } else { 0.0 };
    }
    Sheet {
        doughs: plan.scaled.doughs,
        dough_kg,
        division_kg: plan.division_kg,
        target_c: plan.target_c,
        steps,
        total_min: at_min,
        cautions,
    }
}

/// Water, ice, then the formula's lines in their order.
fn weigh_out(plan: &Plan<'_>) -> Vec<ToWeigh> {
    let flour_kg = plan.scaled.dough_kg / plan.formula.total_pct(plan.weigh_pct) * 100.0;
    let share = |kg: f64| kg / flour_kg * 100.0;
    let water_kg = plan.weigh_pct / 100.0 * flour_kg;
    let ice_kg = plan.heat.ice_kg / (plan.heat.ice_kg + plan.heat.water_kg).max(f64::MIN_POSITIVE)
        * water_kg;
    let mut items = vec![("water", Ingredient::Water, share(water_kg - ice_kg))];
    if ice_kg > 0.0 {
        items.push(("ice", Ingredient::Water, share(ice_kg)));
    }
    items.extend(
        plan.formula
            .lines()
            .iter()
            .map(|line| (line.ingredient.label(), line.ingredient, line.pct)),
    );
    let exact: Vec<f64> = items.iter().map(|(.., pct)| pct * flour_kg / 100.0).collect();
    let weighed = weigh(&exact, plan.division_kg);
    items
        .into_iter()
        .zip(weighed)
        .filter(|((.., pct), _)| *pct > 0.0)
        .map(|((name, ingredient, pct), Weighed { exact_kg, kg, division_kg })| ToWeigh {
            name,
            ingredient,
            pct,
            exact_kg,
            kg,
            division_kg,
            off_pct: 100.0 * (kg - exact_kg) / exact_kg,
        })
        .collect()
}

fn cautions(plan: &Plan<'_>, to_weigh: &[ToWeigh]) -> Vec<String> {
    let mut cautions: Vec<String> = to_weigh
        .iter()
        .filter(|item| item.division_kg < plan.division_kg)
        .map(|item| {
            format!(
                "Weigh {} on a scale that shows {} g: this one's {} g is too coarse for it.",
                item.name,
                item.division_kg * 1000.0,
                plan.division_kg * 1000.0
            )
        })
        .collect();
    if plan.scaled.dough_kg < plan.mixer.min_kg {
        cautions.push(format!(
            "{:.1} kg is less than {} mixes well ({:.0} kg).",
            plan.scaled.dough_kg, plan.mixer.name, plan.mixer.min_kg
        ));
    }
    cautions
}
