//! How ripe the dough is when it is made up.

use serde::Serialize;

use super::way::{SpongeRise, Way};
use super::{Chain, Scenario, flour_strength};
use crate::dough::FLOUR_PCT;
use crate::ferment::{
    FermentationCurve, MaturedBy, Maturity, WettedFlour, coefficients as c, maturity,
};
use crate::method::StageKind;

/// The dough as it comes to the divider, or where nothing divides it, to its last proof.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct MakeUp {
    /// From the first mixing, h.
    pub at_h: f64,
    pub by: MaturedBy,
    #[serde(flatten)]
    pub maturity: Maturity,
    /// Young, ripe and past from here on.
    pub from: [f64; 3],
}

/// Flour of a sponge counts from its setting, all other from the first mixing: how long a starter has
/// stood is not known here.
pub(super) fn make_up(
    scenario: &Scenario<'_>,
    chain: &Chain,
    way: &Way<'_>,
    sponge: Option<&SpongeRise>,
    curve: &FermentationCurve,
) -> MakeUp {
    let stages = &way.stages;
    let divided = stages.iter().position(|one| one.stage.kind == StageKind::Divide);
    let proofed = || stages.iter().rposition(|one| one.stage.kind == StageKind::Proof);
    let before = &stages[..divided.or_else(proofed).unwrap_or(stages.len())];
    let at_h: f64 = before.iter().map(|one| one.phase.hours).sum();
    let folds = before.iter().filter(|one| one.stage.kind == StageKind::Fold).count();
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
    MakeUp { at_h, by, maturity, from }
}
