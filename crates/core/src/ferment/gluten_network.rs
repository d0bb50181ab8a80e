use crate::flour::Species;
use crate::units::Estimate;

/// A flour of a dough as far as its film goes.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct NetworkFlour {
    pub species: Species,
    pub share_pct: f64,
    /// How much of it counts as whole grain, 0 to 100 %.
    pub whole_grain_pct: f64,
    pub w: Option<f64>,
}

/// Share of the gas a dough of one grain keeps (H, ± 0.1).
const fn retention_of(species: Species) -> Estimate {
    let typical = match species {
        Species::Wheat => 0.85,
        Species::Durum | Species::Khorasan => 0.80,
        Species::Spelt => 0.75,
        Species::Emmer | Species::Rye => 0.70,
        Species::Einkorn => 0.65,
        Species::GlutenFree | Species::LowStarch => 0.60,
    };
    Estimate::new(typical, typical - 0.1, typical + 0.1)
}

/// What the film of a grain holds where its strength is not stated, % of rise (H).
const fn limit_of(species: Species) -> f64 {
    match species {
        Species::Wheat => 340.0,
        Species::Durum | Species::Khorasan => 250.0,
        Species::Spelt => 150.0,
        Species::Emmer => 120.0,
        Species::Einkorn => 100.0,
        Species::Rye => 80.0,
        Species::GlutenFree | Species::LowStarch => 60.0,
    }
}

/// Share of the gas kept, by flour share (H).
///
/// ```
/// use ironpeel_core::ferment::{NetworkFlour, retention};
/// use ironpeel_core::flour::Species;
/// let flour = |species, share_pct| NetworkFlour { species, share_pct, whole_grain_pct: 0.0, w: None };
/// let mix = [flour(Species::Wheat, 50.0), flour(Species::Rye, 50.0)];
/// assert!((retention(&mix) - 0.775).abs() < 1e-12);
/// ```
pub fn retention(flours: &[NetworkFlour]) -> f64 {
    flours.iter().map(|flour| retention_of(flour.species).typical * flour.share_pct / 100.0).sum()
}

/// How far a dough rises before its film gives way, % (H): `100 + 0.8·W` where W is stated, else by
/// the grain, by flour share; × (1 − 0.25 · whole grain) × max(0.5, 1 − 0.01·max(0, water − 65)).
///
/// ```
/// use ironpeel_core::ferment::{NetworkFlour, rise_limit_pct};
/// use ironpeel_core::flour::Species;
/// let strong = NetworkFlour {
///     species: Species::Wheat, share_pct: 100.0, whole_grain_pct: 0.0, w: Some(308.0),
/// };
/// assert!((rise_limit_pct(&[strong], 60.0) - 346.4).abs() < 1e-9);
/// let rye = NetworkFlour { species: Species::Rye, w: None, whole_grain_pct: 100.0, ..strong };
/// assert!((rise_limit_pct(&[rye], 75.0) - 80.0 * 0.75 * 0.9).abs() < 1e-9);
/// ```
pub fn rise_limit_pct(flours: &[NetworkFlour], hydration_pct: f64) -> f64 {
    let by_share = |of: &dyn Fn(&NetworkFlour) -> f64| -> f64 {
        flours.iter().map(|flour| of(flour) * flour.share_pct / 100.0).sum()
    };
    let gluten_network =
        by_share(&|flour| flour.w.map_or(limit_of(flour.species), |w| 100.0 + 0.8 * w));
    let whole = by_share(&|flour| flour.whole_grain_pct / 100.0);
    let wet = (1.0 - 0.01 * (hydration_pct - 65.0).max(0.0)).max(0.5);
    gluten_network * (1.0 - 0.25 * whole) * wet
}
