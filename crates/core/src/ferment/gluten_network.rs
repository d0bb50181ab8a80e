use super::coefficients as c;
use crate::coefficient::Coefficients;
use crate::flour::Species;

/// A flour of a dough as far as its film goes.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct NetworkFlour {
    pub species: Species,
    pub share_pct: f64,
    /// How much of it counts as whole grain, 0 to 100 %.
    pub whole_grain_pct: f64,
    pub w: Option<f64>,
}

/// Share of the gas kept, by flour share (H).
///
/// ```
/// use ironpeel_core::coefficient::Coefficients;
/// use ironpeel_core::ferment::{NetworkFlour, retention};
/// use ironpeel_core::flour::Species;
/// let flour = |species, share_pct| NetworkFlour { species, share_pct, whole_grain_pct: 0.0, w: None };
/// let mix = [flour(Species::Wheat, 50.0), flour(Species::Rye, 50.0)];
/// assert!((retention(&mix, &Coefficients::default()) - 0.775).abs() < 1e-12);
/// ```
pub fn retention(flours: &[NetworkFlour], coefficients: &Coefficients) -> f64 {
    let of = |species| coefficients.value(c::retention_of(species));
    flours.iter().map(|flour| of(flour.species) * flour.share_pct / 100.0).sum()
}

/// How far a dough rises before its film gives way, % (H): `100 + 0.8·W` where W is stated, else by
/// the grain, by flour share; × (1 − 0.25 · whole grain) × max(0.5, 1 − 0.01·max(0, water − 65)).
///
/// ```
/// use ironpeel_core::coefficient::Coefficients;
/// use ironpeel_core::ferment::{NetworkFlour, rise_limit_pct};
/// use ironpeel_core::flour::Species;
/// let house = Coefficients::default();
/// let strong = NetworkFlour {
///     species: Species::Wheat, share_pct: 100.0, whole_grain_pct: 0.0, w: Some(308.0),
/// };
/// assert!((rise_limit_pct(&[strong], 60.0, &house) - 346.4).abs() < 1e-9);
/// let rye = NetworkFlour { species: Species::Rye, w: None, whole_grain_pct: 100.0, ..strong };
/// assert!((rise_limit_pct(&[rye], 75.0, &house) - 80.0 * 0.75 * 0.9).abs() < 1e-9);
/// ```
pub fn rise_limit_pct(
    flours: &[NetworkFlour],
    hydration_pct: f64,
    coefficients: &Coefficients,
) -> f64 {
    let here = |coefficient| coefficients.value(coefficient);
    let by_share = |of: &dyn Fn(&NetworkFlour) -> f64| -> f64 {
        flours.iter().map(|flour| of(flour) * flour.share_pct / 100.0).sum()
    };
    let (at_w0, per_w) = (here(&c::LIMIT_AT_W0), here(&c::LIMIT_PER_W));
    let gluten_network = by_share(&|flour| {
        flour.w.map_or_else(|| here(c::rise_limit_of(flour.species)), |w| at_w0 + per_w * w)
    });
    let whole = by_share(&|flour| flour.whole_grain_pct / 100.0);
    let beyond = (hydration_pct - here(&c::LIMIT_WET_FROM)).max(0.0);
    let wet = (1.0 - here(&c::LIMIT_WET) * beyond).max(here(&c::LIMIT_WET_LEAST));
    gluten_network * (1.0 - here(&c::LIMIT_BRAN) * whole) * wet
}
