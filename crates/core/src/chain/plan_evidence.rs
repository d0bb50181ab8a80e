//! What of a dough's own plan is evidence of a fault: its formula, its flours, and what was computed.

use super::way::Way;
use super::{Chain, Scenario};
use crate::dough::{Ingredient, PreparationKind};
use crate::fault::PlanEvidence;
use crate::fault::coefficients::{RYE_DOUGH_PCT, SOFTENING_FAT_PCT};
use crate::flour::{Property, Species};
use crate::method::Process;

/// What the plan says by itself: water over what the lots carry, the load of salt and sugar, sugar left
/// at the oven, what was put in that softens, sweetens or binds, and what the heat was reckoned with.
///
/// An ingredient of the plant's own may be anything: then what only it could be is missing, not nothing.
pub fn plan_evidence(scenario: &Scenario<'_>, chain: &Chain) -> PlanEvidence {
    let coefficients = scenario.coefficients();
    let formula = &scenario.formula.formula;
    let of = |ingredients: &[Ingredient]| -> f64 {
        ingredients.iter().map(|one| formula.pct_of(*one)).sum()
    };
    let all_known = !formula.lines().iter().any(|one| matches!(one.ingredient, Ingredient::Own(_)));
    let told = |present: bool| (present || all_known).then(|| f64::from(u8::from(present)));
    let ryes = || scenario.flours.iter().filter(|flour| flour.species == Species::Rye);
    let rye_pct: f64 = ryes().map(|flour| flour.share_pct).sum();
    let rye = rye_pct >= coefficients.value(&RYE_DOUGH_PCT);
    let main_rye = ryes().max_by(|one, other| one.share_pct.total_cmp(&other.share_pct));
    let sours = || formula.parts().iter().filter(|part| part.kind == PreparationKind::Starter);
    let soured: f64 = sours().map(|part| part.flour_pct).sum();
    let fat = of(&[Ingredient::Fat, Ingredient::Oil, Ingredient::Butter]);
    let by_hand = chain.water.as_ref().map(|water| water.by_hand_pts().unwrap_or(0.0));
    let over_strength = chain
        .water
        .as_ref()
        .zip(chain.dough.as_ref())
        .and_then(|(water, dough)| Some(dough.effective_hydration_pct - water.ceiling_pct?));
    let way = Way::of(scenario, chain).ok();
    let sugar_left = way.as_ref().and_then(|way| {
        let (_, curve) = way.follow(way.dough.yeast_idy_pct);
        curve.last().map(|at_the_oven| at_the_oven.sugar_pct)
    });
    let capped = chain.heat.as_ref().map(|heat| f64::from(u8::from(!heat.answer.reachable)));
    let figures = [
        ("rye_fn_s", main_rye.and_then(|one| one.readings.value(Property::FallingNumber, None))),
        ("water_vs_floor_pts", by_hand),
        ("over_strength_pts", over_strength),
        ("osmotic_load", way.as_ref().map(|way| way.dough.osmotic_load())),
        ("sugar_left_pct", sugar_left),
        ("ice_capped", capped),
        ("amylase_added", told(of(&[Ingredient::MaltFlour]) > 0.0)),
        ("softener_on", told(fat >= coefficients.value(&SOFTENING_FAT_PCT))),
        ("bean_flour", told(of(&[Ingredient::SoyFlour]) > 0.0)),
        ("preserver_pct", all_known.then_some(0.0)),
        ("binder_pct", all_known.then(|| of(&[Ingredient::Psyllium, Ingredient::Xanthan]))),
        ("sour_share_pct", (rye || sours().next().is_some()).then_some(soured)),
    ];
    let heat = chain.heat.as_ref();
    let sponge = chain.preparations.iter().find(|part| part.kind == PreparationKind::Sponge);
    PlanEvidence {
        figures: figures.into_iter().filter_map(|(key, value)| Some((key, value?))).collect(),
        flour_c: heat.map(|heat| heat.flour_c),
        room_c: heat.map(|heat| heat.room_c),
        sponge_c: sponge.and_then(|part| part.target_c),
        no_time: scenario.method.process == Process::NoTime,
        rye,
    }
}
