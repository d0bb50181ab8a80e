use serde::Serialize;

use super::Speed;

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
