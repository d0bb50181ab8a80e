use serde::Serialize;

use super::{Mixer, Process, Stage, StageKind};
use crate::dough::Ingredient;

/// How a dough is made: ordered stages and where the dough should come off the mixer.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Method {
    pub process: Process,
    /// Dough off the mixer.
    pub target_c: f64,
    /// A sponge off the mixer; the house's 24 °C if none.
    pub sponge_c: Option<f64>,
    pub machine_divided: bool,
    pub stages: Vec<Stage>,
}

impl Method {
    /// Where the final dough begins: what lies before belongs to the parts made before it.
    pub fn first_mix(&self) -> usize {
        self.stages.iter().position(|stage| stage.kind == StageKind::Mix).unwrap_or(0)
    }

    /// The stage at which an ingredient goes in: the one that names it, else the first mixing.
    pub fn joins_at(&self, ingredient: Ingredient) -> usize {
        let named = self.stages.iter().position(|stage| stage.adds.contains(&ingredient));
        named.unwrap_or_else(|| self.first_mix())
    }

    /// Minutes under the mixer, rests left out.
    pub fn mixing_min(&self) -> f64 {
        self.mixing().map(|stage| stage.minutes).sum()
    }

    /// Energy the mixer gives the dough: minutes at each speed times its power at that speed.
    pub fn mixing_kj_per_kg(&self, mixer: &Mixer) -> f64 {
        self.mixing().map(|stage| stage.minutes * mixer.kj_per_kg_min(stage.speed)).sum()
    }

    /// From the first water to the end of the last stage.
    pub fn total_min(&self) -> f64 {
        self.stages.iter().map(|stage| stage.minutes).sum()
    }

    fn mixing(&self) -> impl Iterator<Item = &Stage> {
        self.stages.iter().filter(|stage| stage.kind == StageKind::Mix)
    }
}
