use serde::Serialize;

use super::coefficients as c;
use super::{
    AmbientPoint, BakePhase, Dilution, EndFigure, Method, Mixer, Portion, Speed, StageCaution,
    StageKind, cautions_at,
};
use crate::coefficient::Coefficients;
use crate::dough::{
    DoughColumn, DoughColumns, Formula, Ingredient, Library, PreparationKind, RoundedMass, Scaled,
    TooMuchPrefermentWater, round_to_resolution, shown,
};
use crate::heat::HeatSolution;
use crate::units::Estimate;
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
    /// How warm it goes in, where that is known.
    pub temperature_c: Option<f64>,
}

/// What is made before the final dough, for one dough.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SheetPart {
    pub kind: PreparationKind,
    pub name: String,
    pub kg: f64,
    pub takes: Vec<ToWeigh>,
    /// How warm it is when it is made, °C.
    pub made_c: f64,
    /// When it is cool enough for yeast, and how cool that is; none where it is made so.
    pub cool_after_min: Option<Estimate>,
    pub cool_c: f64,
    pub caution: Option<&'static str>,
}

/// What a preparation's heat comes to, for one dough.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PreparationMade {
    pub water_c: f64,
    /// Of its water.
    pub ice_kg: f64,
    pub made_c: f64,
    pub cool_c: f64,
    pub cool_after_min: Option<Estimate>,
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
    /// How what is around it changes from its beginning on; left out where it does not.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    #[cfg_attr(feature = "openapi", schema(required = false))]
    pub ambient_curve: Vec<AmbientPoint>,
    pub humidity_pct: Option<f64>,
    pub ends_when: String,
    /// The number it ends at, and what that is of.
    pub ends_at: Option<f64>,
    pub end_figure: Option<EndFigure>,
    /// The stage from whose end its clock counts, by its name.
    pub ends_after: Option<String>,
    /// When each of several sets of folds is, minutes from the first water.
    pub folds_at_min: Vec<f64>,
    /// Of a sponge: between when it is ripe, minutes from the first water; none where it never is.
    pub ripe_at_min: Option<[f64; 2]>,
    /// Minutes under the mixer so far, as a share of all mixing; where this is a mixing stage.
    pub mixing_done_pct: Option<f64>,
    /// The parts that are made at it, by their place in the sheet's parts.
    pub makes_parts: Vec<usize>,
    /// What the oven does, phase after phase; left out where nothing is stated.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    #[cfg_attr(feature = "openapi", schema(required = false))]
    pub programme: Vec<BakePhase>,
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
    /// So little yeast goes in as part of a solution.
    Dilution(Dilution),
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
    /// Of each preparation, in the formula's order.
    pub preparations: &'a [PreparationMade],
    pub target_c: f64,
    pub division_kg: f64,
}

/// Lays one dough's masses, water and ice over its parts and the stages of its method.
///
/// Masses are rounded together to the scale's division, so that they still sum to the dough.
/// Liquid goes in before powder at the first mixing; what a stage names waits for it.
pub fn sheet(plan: &Plan<'_>) -> Result<Sheet, TooMuchPrefermentWater> {
    let (parts, to_weigh) = weigh_out(plan)?;
    let cautions = cautions(plan, &to_weigh);
    let method = plan.method;
    let mut waiting = portioned(plan, to_weigh);
    let parts_join = method.parts_join_at();
    let early_kg: f64 = parts.iter().map(|part| part.kg).sum();
    let final_kg: f64 = waiting.iter().map(|(_, item)| item.kg).sum();
    let dough_kg = early_kg + final_kg;
    let all_mixing = method.mixing_min();

    let mut at_min = 0.0;
    let mut mixed = 0.0;
    let mut steps = Vec::with_capacity(method.stages.len());
    for (number, stage) in method.stages.iter().enumerate() {
        let takes: Vec<ToWeigh> =
            waiting.extract_if(.., |(at, _)| *at == number).map(|(_, item)| item).collect();
        let ingredients: Vec<Ingredient> = takes.iter().map(|item| item.ingredient).collect();
        let is_mix = stage.mixes_dough();
        let made = parts
            .iter()
            .enumerate()
            .filter(|(_, part)| stage.kind == StageKind::Mix && stage.makes == Some(part.kind));
        steps.push(SheetStep {
            at_min,
            kind: stage.kind,
            label: stage.label.clone(),
            minutes: stage.minutes,
            speed: stage.speed,
            temperature_c: stage.temperature_c,
            ambient_curve: stage.ambient_curve.clone(),
            humidity_pct: stage.humidity_pct,
            ends_when: stage.ends_when.clone(),
            ends_at: stage.ends_at,
            end_figure: stage.end_figure(),
            ends_after: stage.ends_after.and_then(|id| {
                let after = method.stages.iter().find(|one| one.id == Some(id));
                after.map(|one| one.label.clone())
            }),
            folds_at_min: match stage.sets() {
                0 | 1 => Vec::new(),
                _ => stage.folds(stage.minutes).iter().map(|set| at_min + set.from_min).collect(),
            },
            ripe_at_min: None,
            mixing_done_pct: (is_mix && all_mixing > 0.0).then(|| 100.0 * mixed / all_mixing),
            cautions: cautions_at(stage, &ingredients),
            makes_parts: made.map(|(part, _)| part).collect(),
            programme: stage.programme.clone(),
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
            let water = item.ingredient == Ingredient::Water;
            let name = if water { "water".into() } else { item.name.clone() };
            all.push(ToWeigh { name, is_ice: false, temperature_c: None, ..item.clone() });
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

/// What is weighed with the stage it goes in at: an ingredient in several goes on the scale's
/// division. What rounding leaves, and of water the ice, is with the first whose temperature is not
/// stated.
fn portioned(plan: &Plan<'_>, to_weigh: Vec<ToWeigh>) -> Vec<(usize, ToWeigh)> {
    let ice_kg: f64 = to_weigh.iter().filter(|item| item.is_ice).map(|item| item.kg).sum();
    let mut all = Vec::with_capacity(to_weigh.len());
    let mut waits = None;
    for item in to_weigh {
        let portions = plan.method.portions(item.ingredient);
        let open = portions.iter().position(|one| one.temperature_c.is_none()).unwrap_or(0);
        if item.is_ice {
            all.extend(portions.get(open).map(|one| (one.at, item)));
            continue;
        }
        let is_water = item.ingredient == Ingredient::Water;
        let mut goes = goes(&item, &portions, open, item.kg + if is_water { ice_kg } else { 0.0 });
        if is_water {
            let open_at = portions.get(open).map(|one| one.at);
            let held = goes.iter_mut().find(|(at, _)| open_at == Some(*at));
            let held = held.and_then(|(_, water)| held_back(plan, water));
            waits = held.map(|held| (plan.method.last_mix(), held));
        }
        all.extend(goes);
    }
    all.extend(waits);
    all
}

/// What of the water waits to be judged, taken out of it; none where none is held back.
fn held_back(plan: &Plan<'_>, water: &mut ToWeigh) -> Option<ToWeigh> {
    let points = plan.hold_back?.points;
    let wanted_kg = points * flour_kg_per_pct(plan);
    let kg = shown((wanted_kg / water.division_kg).round(), water.division_kg);
    if kg <= 0.0 || kg >= water.kg {
        return None;
    }
    let share = kg / water.kg;
    let held = ToWeigh {
        name: "water held back".into(),
        pct: water.pct * share,
        exact_kg: water.exact_kg * share,
        kg,
        ..water.clone()
    };
    water.pct -= held.pct;
    water.exact_kg -= held.exact_kg;
    water.kg = shown(((water.kg - kg) / water.division_kg).round(), water.division_kg);
    Some(held)
}

/// Flour of a dough that is 1 % of all of it, kg.
fn flour_kg_per_pct(plan: &Plan<'_>) -> f64 {
    plan.scaled.dough_kg / plan.formula.total_pct(plan.added_water_pct)
}

/// One thing in as many goes as it has portions, of so much with its ice; `open` takes what is left.
fn goes(item: &ToWeigh, portions: &[Portion], open: usize, of_kg: f64) -> Vec<(usize, ToWeigh)> {
    let on_scale = |kg: f64| shown((kg / item.division_kg).round(), item.division_kg);
    let mut left_kg = item.kg;
    let mut kg = vec![0.0; portions.len()];
    // What has a temperature of its own is no ice: it is poured whole.
    let (stated, others): (Vec<usize>, Vec<usize>) = (0..portions.len())
        .filter(|at| *at != open)
        .partition(|at| portions[*at].temperature_c.is_some());
    for at in stated.into_iter().chain(others) {
        kg[at] = on_scale((of_kg * portions[at].share).min(left_kg));
        left_kg = on_scale(left_kg - kg[at]);
    }
    kg[open] = left_kg;
    let of = |(portion, kg): (&Portion, f64)| {
        let share = if item.kg > 0.0 { kg / item.kg } else { 1.0 };
        let temperature_c = portion.temperature_c.or(item.temperature_c);
        let boils = item.ingredient == Ingredient::Water
            && temperature_c.is_some_and(|celsius| celsius >= BOILS_C);
        let name = if boils { "boiling water".into() } else { item.name.clone() };
        let (pct, exact_kg) = (item.pct * share, item.exact_kg * share);
        (portion.at, ToWeigh { name, pct, exact_kg, kg, temperature_c, ..item.clone() })
    };
    let goes = portions.iter().zip(kg).map(of);
    goes.filter(|(_, go)| go.kg > 0.0 || go.exact_kg > 0.0).collect()
}

/// Water is said to boil from here on, °C.
const BOILS_C: f64 = c::BOILS_C.value;

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
    let flour_kg = flour_kg_per_pct(plan) * 100.0;
    let DoughColumns { parts, final_dough, .. } = plan.formula.columns(plan.added_water_pct)?;
    let ice_pct = (plan.heat.ice_kg / flour_kg * 100.0).min(final_dough.water_pct);
    let mut groups: Vec<Vec<Item>> = parts
        .iter()
        .zip(plan.preparations)
        .map(|(part, made)| {
            let ice_pct = (made.ice_kg / flour_kg * 100.0).min(part.water_pct);
            items(plan, part, part.water_pct - ice_pct, ice_pct)
        })
        .collect();
    groups.push(items(plan, &final_dough, final_dough.water_pct - ice_pct, ice_pct));

    let exact: Vec<f64> = groups.iter().flatten().map(|item| item.pct * flour_kg / 100.0).collect();
    let mut weighed = round_to_resolution(&exact, plan.division_kg, plan.coefficients).into_iter();
    let mut out: Vec<Vec<ToWeigh>> = groups
        .into_iter()
        .map(|items| items.into_iter().zip(weighed.by_ref()).map(to_weigh).collect())
        .collect();
    let mut last = out.pop().unwrap_or_default();
    pour_at(&mut last, plan.heat.water_c);
    let made = parts.into_iter().zip(out).zip(plan.preparations);
    let parts = made.map(|((part, mut takes), made)| {
        pour_at(&mut takes, made.water_c);
        SheetPart {
            kind: part.kind.unwrap_or(PreparationKind::Sponge),
            name: part.name,
            kg: takes.iter().map(|item| item.kg).sum(),
            made_c: made.made_c,
            cool_after_min: made.cool_after_min,
            cool_c: made.cool_c,
            caution: part.kind.and_then(PreparationKind::caution),
            takes,
        }
    });
    Ok((parts.collect(), last))
}

/// States how warm the liquid water goes in.
fn pour_at(takes: &mut [ToWeigh], water_c: f64) {
    for item in takes.iter_mut().filter(|item| item.ingredient == Ingredient::Water && !item.is_ice)
    {
        item.temperature_c = Some(water_c);
        if water_c >= BOILS_C {
            item.name = "boiling water".into();
        }
    }
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
    let temperature_c = None;
    ToWeigh { name, ingredient, pct, exact_kg, kg, division_kg, off_pct, is_ice, temperature_c }
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
    let yeasts = fine.iter().filter(|item| item.ingredient.is_yeast());
    cautions.extend(yeasts.filter_map(|item| {
        let (coarse, house) = (plan.division_kg, plan.coefficients);
        let dilution = Dilution::wanted(&*item.name, item.exact_kg, coarse, house)?;
        Some(SheetCaution::Dilution(dilution))
    }));
    if plan.scaled.dough_kg < plan.mixer.min_kg {
        cautions.push(SheetCaution::SmallDough {
            dough_kg: plan.scaled.dough_kg,
            mixer: plan.mixer.name.clone(),
            least_kg: plan.mixer.min_kg,
        });
    }
    if let Some(held) = plan.hold_back {
        let flour_kg = flour_kg_per_pct(plan);
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
