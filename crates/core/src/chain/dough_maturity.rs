//! How ripe the dough is where it meets the oven.

use serde::Serialize;

use super::way::{OnTheWay, SpongeRise, Way};
use super::{Chain, Scenario, flour_strength};
use crate::dough::FLOUR_PCT;
use crate::ferment::{
    FermentationCurve, MaturedBy, Maturity, WettedFlour, coefficients as c, maturity,
};
use crate::method::StageKind;

/// A dough's maturity where it meets the oven, and what it comes of.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct DoughMaturity {
    /// From the first mixing, h.
    pub at_h: f64,
    pub by: MaturedBy,
    #[serde(flatten)]
    pub maturity: Maturity,
    /// Young, ripe and past from here on.
    pub from: [f64; 3],
}

/// How ripe the dough is where it meets the oven; none where nothing makes gas or there is no way there.
pub(crate) fn maturity_at_oven(scenario: &Scenario<'_>, chain: &Chain) -> Option<Maturity> {
    Way::of(scenario, chain).ok().map(|way| maturity_of(scenario, chain, &way))
}

/// How ripe a dough meets the oven that goes a way of its own there.
pub(super) fn maturity_of(scenario: &Scenario<'_>, chain: &Chain, way: &Way<'_>) -> Maturity {
    let (sponge, curve) = way.follow(way.dough.yeast_idy_pct);
    dough_maturity(scenario, chain, way, sponge.as_ref(), &curve).maturity
}

/// Flour of a sponge counts from its setting, all other from the first mixing: how long a starter has
/// stood is not known here.
pub(super) fn dough_maturity(
    scenario: &Scenario<'_>,
    chain: &Chain,
    way: &Way<'_>,
    sponge: Option<&SpongeRise>,
    curve: &FermentationCurve,
) -> DoughMaturity {
    let at_h: f64 = way.stages.iter().map(|one| one.phase.hours).sum();
    let is_set =
        |one: &&OnTheWay<'_>| one.stage.kind == StageKind::Fold && one.phase.let_go_pct > 0.0;
    let folds = way.stages.iter().filter(is_set).count();
    let set_pct = way.sponge.as_ref().map_or(0.0, |sponge| sponge.part.flour_pct);
    let (sponge_h, sponge_c, sponge_ml) =
        sponge.map_or((0.0, 0.0, 0.0), |sponge| (sponge.hours, sponge.mean_c, sponge.gas_ml_per_g));
    let set = set_pct / FLOUR_PCT;
    let fresh = WettedFlour { flour_share_pct: FLOUR_PCT - set_pct, hours: at_h };
    let early = WettedFlour { flour_share_pct: set_pct, hours: sponge_h + at_h };
    let warmth = curve.warmth_until(at_h) + set * sponge_h * sponge_c;
    let time = at_h + set * sponge_h;
    let by = MaturedBy {
        work_kj_per_kg: chain.method.mixing_kj_per_kg,
        fold_sets: folds as f64,
        flour_w: flour_strength(scenario).w,
        parts: [early, fresh].into_iter().filter(|part| part.flour_share_pct > 0.0).collect(),
        mean_c: if time > 0.0 { warmth / time } else { way.dough.start_c },
        gas_ml_per_g: curve.gas_at(at_h) + set * sponge_ml,
    };
    let maturity = maturity(&by, way.dough.retention, scenario.coefficients());
    let from = [&c::MATURITY_YOUNG, &c::MATURITY_RIPE, &c::MATURITY_PAST]
        .map(|one| scenario.coefficients().value(one));
    DoughMaturity { at_h, by, maturity, from }
}
