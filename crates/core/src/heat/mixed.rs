use serde::{Deserialize, Serialize};

use super::balance::{WATER, WETTING};
use super::{Balance, HeatSource, Temperatures};

/// One dough as it was mixed: what went in and what the jacket took, so that it is judged by its own
/// masses whatever is planned later.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct MixedDough {
    pub parts: Vec<MixedPart>,
    /// Ice included.
    pub water_kg: f64,
    /// As-is flour that met water for the first time.
    pub flour_wetted_kg: f64,
    /// What the jacket took while it was mixed.
    pub jacket_kj_per_kg: f64,
    /// What vessel and room took for each degree; nothing of a mixer.
    #[serde(default)]
    pub surroundings_kj_per_k: f64,
    /// What the room took while it rested between two mixings, kJ.
    #[serde(default)]
    pub rested_kj: f64,
}

/// Something that went into the mixer besides water.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub struct MixedPart {
    pub kg: f64,
    /// kJ/kg·K.
    pub specific_heat: f64,
    pub is: HeatSource,
    /// As planned; counts where it was not measured.
    pub temperature_c: f64,
}

impl MixedDough {
    /// A dough's masses and its jacket, to be kept beside what was measured of it.
    pub fn of(balance: &Balance, jacket_kj_per_kg: f64) -> Self {
        let parts = balance.parts.iter();
        Self {
            parts: parts
                .map(|part| MixedPart {
                    kg: part.kg,
                    specific_heat: part.specific_heat,
                    is: part.is,
                    temperature_c: part.temperature_c,
                })
                .collect(),
            water_kg: balance.water_kg,
            flour_wetted_kg: balance.flour_wetted_kg,
            jacket_kj_per_kg,
            surroundings_kj_per_k: balance.surroundings.map_or(0.0, |around| around.kj_per_k),
            rested_kj: balance.rested_kj,
        }
    }

    /// Mixing energy, kJ/kg, that explains what was measured of it; none where nothing was mixed.
    ///
    /// `(Σ kg·c·(T − own) + water·4.186·(T − T_eq) + k·(T − room) + lost at rest − 15.1·flour wetted)/kg + jacket`,
    /// T_eq the ice-free water that cools as its water and ice did, k what vessel and room took.
    pub fn mixing_kj_per_kg(&self, measured: &Temperatures) -> Option<f64> {
        let Temperatures { flour_c, room_c, preferment_c, dough_c, .. } = *measured;
        let parts: f64 = self
            .parts
            .iter()
            .map(|part| {
                let own = match part.is {
                    HeatSource::Flour => flour_c,
                    HeatSource::Preferment => preferment_c.unwrap_or(part.temperature_c),
                    HeatSource::Other => room_c,
                    HeatSource::Kept => part.temperature_c,
                };
                part.kg * part.specific_heat * (dough_c - own)
            })
            .sum();
        let water = self.water_kg * WATER * (dough_c - measured.equivalent_water_c());
        let kg = self.parts.iter().map(|part| part.kg).sum::<f64>() + self.water_kg;
        let lost = self.surroundings_kj_per_k * (dough_c - room_c) + self.rested_kj;
        let given = parts + water + lost - WETTING * self.flour_wetted_kg;
        (kg > 0.0).then(|| given / kg + self.jacket_kj_per_kg)
    }
}
