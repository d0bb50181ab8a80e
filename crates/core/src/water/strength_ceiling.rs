use super::coefficients as c;
use super::{AbsorptionRequest, FlourPart};
use crate::coefficient::Coefficient;
use crate::dough::Ingredient;

/// The W of a mix, by share of what has gluten; none where a flour with gluten does not state it.
pub(super) fn strength(flours: &[FlourPart<'_>]) -> Option<f64> {
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
pub(super) fn ceiling(flours: &[FlourPart<'_>], wanted: &AbsorptionRequest<'_>) -> Option<f64> {
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
