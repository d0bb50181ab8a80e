use serde::Serialize;

use super::Speed;
use crate::units::Estimate;

/// A mixer's size and what it gives the dough.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Mixer {
    pub name: String,
    /// Horizontal, spiral, fork, hand, …
    pub kind: String,
    pub min_kg: f64,
    pub max_kg: f64,
    /// Power per kilo of dough at slow speed, kJ/kg·min. House default until learned.
    pub slow_kj_per_kg_min: f64,
    /// As above, at fast speed.
    pub fast_kj_per_kg_min: f64,
    /// What its jacket takes away while it runs, kJ/kg·min; none where it has none.
    pub jacket_kj_per_kg_min: Option<f64>,
}

impl Mixer {
    /// Power per kilo at a speed; slow where none is stated.
    pub const fn kj_per_kg_min(&self, speed: Option<Speed>) -> f64 {
        match speed {
            Some(Speed::Fast) => self.fast_kj_per_kg_min,
            Some(Speed::Slow) | None => self.slow_kj_per_kg_min,
        }
    }
}

/// Power of a kind of mixer, kJ/kg·min, until doughs teach it.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct MixerKind {
    pub kind: &'static str,
    pub slow: Estimate,
    pub fast: Estimate,
}

/// The kind of a bowl and two hands, which nothing but hands drives.
pub const BY_HAND: &str = "hand";

/// The kinds of mixers the house knows, with what is usual of each (H).
///
/// ```
/// use ironpeel_core::method::MIXER_KINDS;
/// let power = |kind| MIXER_KINDS.iter().find(|one| one.kind == kind).unwrap().fast.typical;
/// assert!(power("horizontal") > power("spiral") && power("fork") > power("hand"));
/// ```
pub const MIXER_KINDS: [MixerKind; 7] = [
    kind("horizontal", (1.4, 1.0, 1.9), (3.6, 2.6, 4.6)),
    kind("spiral", (1.2, 0.8, 1.6), (2.6, 1.8, 3.4)),
    kind("small spiral", (0.9, 0.6, 1.3), (2.0, 1.4, 2.8)),
    kind("counter-rotating", (1.0, 0.7, 1.4), (2.2, 1.5, 3.0)),
    kind("planetary", (0.8, 0.5, 1.2), (1.9, 1.2, 2.8)),
    kind("fork", (0.5, 0.3, 0.8), (1.0, 0.6, 1.5)),
    kind(BY_HAND, (0.1, 0.03, 0.2), (0.2, 0.1, 0.4)),
];

const fn kind(kind: &'static str, slow: (f64, f64, f64), fast: (f64, f64, f64)) -> MixerKind {
    MixerKind {
        kind,
        slow: Estimate::new(slow.0, slow.1, slow.2),
        fast: Estimate::new(fast.0, fast.1, fast.2),
    }
}
