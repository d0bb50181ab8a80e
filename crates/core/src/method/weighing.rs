//! One dough's masses, rounded together to the scale's division, and the stage each goes in at.

use super::Portion;
use super::coefficients as c;
use super::to_weigh::{Plan, SheetPart, ToWeigh};
use crate::dough::{
    DoughColumn, DoughColumns, Ingredient, PreparationKind, RoundedMass, TooMuchPrefermentWater,
    round_to_resolution, shown,
};

/// Each part's masses and the final dough's, rounded together.
pub(super) fn weigh_out(
    plan: &Plan<'_>,
) -> Result<(Vec<SheetPart>, Vec<ToWeigh>), TooMuchPrefermentWater> {
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

/// What is weighed with the stage it goes in at: an ingredient in several goes on the scale's
/// division. What rounding leaves, and of water the ice, is with the first whose temperature is not
/// stated.
pub(super) fn portioned(plan: &Plan<'_>, to_weigh: Vec<ToWeigh>) -> Vec<(usize, ToWeigh)> {
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

/// What is weighed in several goes, each ingredient and each flour once; ice is water.
pub(super) fn together<'a>(items: impl Iterator<Item = &'a ToWeigh>) -> Vec<ToWeigh> {
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
pub(super) fn flour_kg_per_pct(plan: &Plan<'_>) -> f64 {
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
