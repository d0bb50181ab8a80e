use serde::Serialize;

use super::{Method, Mixer, Speed, StageCaution, StageKind, cautions_at};
use crate::coefficient::Coefficients;
use crate::dough::{
    DoughColumn, DoughColumns, Formula, Ingredient, Library, PreparationKind, RoundedMass, Scaled,
    TooMuchPrefermentWater, round_to_resolution, shown,
};
use crate::heat::HeatSolution;
use crate::water::HoldBack;

/// One thing to weigh for a dough.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ToWeigh {
    /// The word on the sheet: an ingredient, a flour, or water, or ice.
    pub name: String,
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
    /// Water that is ice.
    pub is_ice: bool,
}

/// What is made before the final dough, for one dough.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SheetPart {
    pub kind: PreparationKind,
    pub name: String,
    pub kg: f64,
    pub takes: Vec<ToWeigh>,
    pub caution: Option<&'static str>,
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
    /// When each of several sets of folds is, minutes from the first water.
    pub folds_at_min: Vec<f64>,
    /// Minutes under the mixer so far, as a share of all mixing; where this is a mixing stage.
    pub mixing_done_pct: Option<f64>,
    /// The parts made before that go in, by their place in the sheet's parts.
    pub takes_parts: Vec<usize>,
    /// What goes in, in order.
    pub takes: Vec<ToWeigh>,
    pub cautions: Vec<StageCaution>,
}

/// What the whole sheet asks attention for.
#[derive(Debug, Clone, PartialEq)]
pub enum SheetCaution {
    /// Too little for the scale's division, kg.
    FinerScale {
        items: Vec<String>,
        division_kg: f64,
        coarse_kg: f64,
    },
    SmallDough {
        dough_kg: f64,
        mixer: String,
        least_kg: f64,
    },
    /// Points of water on flour, and what they weigh, to be added after some minutes.
    HoldBack {
        points: f64,
        kg: f64,
        low_min: f64,
        high_min: f64,
    },
    /// Minutes before the water is judged.
    Wait {
        low_min: f64,
        high_min: f64,
    },
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
    /// Each ingredient of the dough once, however often it is weighed.
    pub whole: Vec<ToWeigh>,
    /// The same of the final dough.
    pub final_dough: Vec<ToWeigh>,
    /// Sponge, starter and the like, made before.
    pub parts: Vec<SheetPart>,
    pub steps: Vec<SheetStep>,
    pub total_min: f64,
    pub cautions: Vec<SheetCaution>,
}

/// What a sheet is made from.
#[derive(Debug, Clone, Copy)]
pub struct Plan<'a> {
    pub formula: &'a Formula,
    pub library: &'a Library,
    pub coefficients: &'a Coefficients,
    pub method: &'a Method,
    pub mixer: &'a Mixer,
    pub scaled: &'a Scaled,
    /// Water to weigh, ice included, in percent on flour.
    pub added_water_pct: f64,
    pub hold_back: Option<&'a HoldBack>,
    pub heat: &'a HeatSolution,
    pub target_c: f64,
    pub division_kg: f64,
}

/// Lays one dough's masses, water and ice over its parts and the stages of its method.
///
/// Masses are rounded together to the scale's division, so that they still sum to the dough.
/// Liquid goes in before powder at the first mixing; what a stage names waits for it.
pub fn sheet(plan: &Plan<'_>) -> Result<Sheet, TooMuchPrefermentWater> {
    let (parts, mut to_weigh) = weigh_out(plan)?;
    let method = plan.method;
    let later_water = split_water(method, &mut to_weigh);
    let parts_join = method.parts_join_at();
    let early_kg: f64 = parts.iter().map(|part| part.kg).sum();
    let final_kg: f64 =
        to_weigh.iter().chain(later_water.iter().map(|(_, item)| item)).map(|item| item.kg).sum();
    let dough_kg = early_kg + final_kg;
    let cautions = cautions(plan, &to_weigh);
    let all_mixing = method.mixing_min();

    let mut at_min = 0.0;
    let mut mixed = 0.0;
    let mut steps = Vec::with_capacity(method.stages.len());
    for (number, stage) in method.stages.iter().enumerate() {
        let mut takes: Vec<ToWeigh> =
            to_weigh.extract_if(.., |item| method.joins_at(item.ingredient) == number).collect();
        let waited = later_water.iter().filter(|(at, _)| *at == number);
        takes.extend(waited.map(|(_, item)| item.clone()));
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
            folds_at_min: match stage.sets() {
                0 | 1 => Vec::new(),
                _ => stage.folds(stage.minutes).iter().map(|set| at_min + set.from_min).collect(),
            },
            mixing_done_pct: (is_mix && all_mixing > 0.0).then(|| 100.0 * mixed / all_mixing),
            cautions: cautions_at(stage, &ingredients),
            takes_parts: if number == parts_join { (0..parts.len()).collect() } else { Vec::new() },
            takes,
        });
        at_min += stage.minutes;
        mixed += if is_mix { stage.minutes } else { 0.0 };
    }
    let final_dough = together(steps.iter().flat_map(|step| &step.takes));
    Ok(Sheet {
        whole: together(parts.iter().flat_map(|part| &part.takes).chain(&final_dough)),
        final_dough,
        doughs: plan.scaled.doughs,
        dough_kg,
        division_kg: plan.division_kg,
        target_c: plan.target_c,
        parts,
        steps,
        total_min: at_min,
        cautions,
    })
}

/// What is weighed in several goes, each ingredient and each flour once; ice is water.
fn together<'a>(items: impl Iterator<Item = &'a ToWeigh>) -> Vec<ToWeigh> {
    let mut all: Vec<ToWeigh> = Vec::new();
    for item in items {
        let same = |one: &&mut ToWeigh| {
            one.ingredient == item.ingredient
                && (item.ingredient != Ingredient::Flour || one.name == item.name)
        };
        let Some(one) = all.iter_mut().find(same) else {
            all.push(ToWeigh { is_ice: false, ..item.clone() });
            continue;
        };
        one.pct += item.pct;
        one.exact_kg += item.exact_kg;
        one.kg += item.kg;
        one.division_kg = one.division_kg.min(item.division_kg);
        one.off_pct = 100.0 * (one.kg - one.exact_kg) / one.exact_kg;
    }
    all
}

/// Takes off the water what waits for a later stage, on the scale's division.
fn split_water(method: &Method, to_weigh: &mut [ToWeigh]) -> Vec<(usize, ToWeigh)> {
    let is_water = |item: &&mut ToWeigh| item.ingredient == Ingredient::Water && !item.is_ice;
    let Some(water) = to_weigh.iter_mut().find(is_water) else {
        return Vec::new();
    };
    let whole = water.clone();
    let shares = method.stages.iter().enumerate();
    shares
        .filter_map(|(at, stage)| Some((at, stage.water_share_pct? / 100.0)))
        .map(|(at, share)| {
            let divisions = (whole.kg * share / whole.division_kg).round();
            let kg = shown(divisions, whole.division_kg);
            water.kg = shown(((water.kg - kg) / whole.division_kg).round(), whole.division_kg);
            water.pct -= whole.pct * share;
            water.exact_kg -= whole.exact_kg * share;
            let (pct, exact_kg) = (whole.pct * share, whole.exact_kg * share);
            (at, ToWeigh { pct, exact_kg, kg, ..whole.clone() })
        })
        .collect()
}

/// A line of the sheet before it is weighed.
struct Item {
    name: String,
    ingredient: Ingredient,
    pct: f64,
    is_ice: bool,
}

impl Item {
    const fn new(name: String, ingredient: Ingredient, pct: f64) -> Self {
        Self { name, ingredient, pct, is_ice: false }
    }
}

/// Each part's masses and the final dough's, rounded together.
fn weigh_out(plan: &Plan<'_>) -> Result<(Vec<SheetPart>, Vec<ToWeigh>), TooMuchPrefermentWater> {
    let flour_kg = plan.scaled.dough_kg / plan.formula.total_pct(plan.added_water_pct) * 100.0;
    let DoughColumns { parts, final_dough, .. } = plan.formula.columns(plan.added_water_pct)?;
    let mixed = (plan.heat.ice_kg + plan.heat.water_kg).max(f64::MIN_POSITIVE);
    let ice_pct = plan.heat.ice_kg / mixed * final_dough.water_pct;
    let mut groups: Vec<Vec<Item>> =
        parts.iter().map(|part| items(plan, part, part.water_pct, 0.0)).collect();
    groups.push(items(plan, &final_dough, final_dough.water_pct - ice_pct, ice_pct));

    let exact: Vec<f64> = groups.iter().flatten().map(|item| item.pct * flour_kg / 100.0).collect();
    let mut weighed = round_to_resolution(&exact, plan.division_kg, plan.coefficients).into_iter();
    let mut out: Vec<Vec<ToWeigh>> = groups
        .into_iter()
        .map(|items| items.into_iter().zip(weighed.by_ref()).map(to_weigh).collect())
        .collect();
    let last = out.pop().unwrap_or_default();
    let parts = parts.into_iter().zip(out).map(|(part, takes)| SheetPart {
        kind: part.kind.unwrap_or(PreparationKind::Sponge),
        name: part.name,
        kg: takes.iter().map(|item| item.kg).sum(),
        caution: part.kind.and_then(PreparationKind::caution),
        takes,
    });
    Ok((parts.collect(), last))
}

/// Water, ice, each flour, then the lines in the formula's order.
fn items(plan: &Plan<'_>, column: &DoughColumn, water_pct: f64, ice_pct: f64) -> Vec<Item> {
    let mut items = vec![
        Item::new("water".into(), Ingredient::Water, water_pct),
        Item { is_ice: true, ..Item::new("ice".into(), Ingredient::Water, ice_pct) },
    ];
    if column.flours.is_empty() {
        items.push(Item::new("flour".into(), Ingredient::Flour, column.flour_pct));
    } else {
        let flours = column.flours.iter();
        items.extend(
            flours.map(|one| Item::new(one.name.clone(), Ingredient::Flour, one.share_pct)),
        );
    }
    let label = |ingredient| plan.library.properties(ingredient).label.to_string();
    let lines = column.lines.iter();
    items.extend(lines.map(|line| Item::new(label(line.ingredient), line.ingredient, line.pct)));
    items.retain(|item| item.pct > 0.0);
    items
}

fn to_weigh((item, weighed): (Item, RoundedMass)) -> ToWeigh {
    let Item { name, ingredient, pct, is_ice } = item;
    let RoundedMass { exact_kg, kg, division_kg } = weighed;
    let off_pct = 100.0 * (kg - exact_kg) / exact_kg;
    ToWeigh { name, ingredient, pct, exact_kg, kg, division_kg, off_pct, is_ice }
}

fn cautions(plan: &Plan<'_>, to_weigh: &[ToWeigh]) -> Vec<SheetCaution> {
    let mut cautions = Vec::new();
    let fine: Vec<&ToWeigh> =
        to_weigh.iter().filter(|item| item.division_kg < plan.division_kg).collect();
    if let Some(least) = fine.iter().map(|item| item.division_kg).min_by(f64::total_cmp) {
        cautions.push(SheetCaution::FinerScale {
            items: fine.iter().map(|item| item.name.clone()).collect(),
            division_kg: least,
            coarse_kg: plan.division_kg,
        });
    }
    if plan.scaled.dough_kg < plan.mixer.min_kg {
        cautions.push(SheetCaution::SmallDough {
            dough_kg: plan.scaled.dough_kg,
            mixer: plan.mixer.name.clone(),
            least_kg: plan.mixer.min_kg,
        });
    }
    if let Some(held) = plan.hold_back {
        let flour_kg = plan.scaled.dough_kg / plan.formula.total_pct(plan.added_water_pct);
        let (low_min, high_min) = (held.wait_min_low, held.wait_min_high);
        cautions.push(if held.points > 0.0 {
            SheetCaution::HoldBack {
                points: held.points,
                kg: held.points * flour_kg,
                low_min,
                high_min,
            }
        } else {
            SheetCaution::Wait { low_min, high_min }
        });
    }
    cautions
}
