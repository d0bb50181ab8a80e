use serde::Serialize;

use super::{Mixer, Portion, Process, Stage, StageKind};
use crate::dough::{Ingredient, PreparationKind};

/// A share smaller than this is none.
const SLACK: f64 = 1e-9;

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
        self.stages.iter().position(Stage::mixes_dough).unwrap_or(0)
    }

    /// Where an ingredient of the final dough goes in, in the order of the stages: the shares that
    /// are stated, and the rest where a stage names it without one, else at the first mixing.
    ///
    /// ```
    /// use ironpeel_core::dough::Ingredient;
    /// use ironpeel_core::method::{Addition, Method, Process, Stage, StageKind};
    /// let adds = |share_pct| vec![Addition { share_pct, ..Addition::rest_of(Ingredient::Water) }];
    /// let mix = |share_pct| Stage { adds: adds(share_pct), ..Stage::new(StageKind::Mix, "Mix", 4.0) };
    /// let method = Method {
    ///     process: Process::StraightBulk, target_c: 25.0, sponge_c: None, machine_divided: false,
    ///     stages: vec![Stage::new(StageKind::Mix, "Mix", 4.0), mix(Some(25.0)), mix(Some(12.5))],
    /// };
    /// let goes: Vec<_> = method.portions(Ingredient::Water).iter().map(|one| (one.at, one.share)).collect();
    /// assert_eq!(goes, [(0, 0.625), (1, 0.25), (2, 0.125)]);
    /// assert_eq!(method.portions(Ingredient::Salt)[0].share, 1.0);
    /// ```
    pub fn portions(&self, ingredient: Ingredient) -> Vec<Portion> {
        let (mut left, mut rest) = (1.0, (self.first_mix(), None));
        let mut portions = Vec::new();
        let mut named = false;
        for (at, stage) in self.stages.iter().enumerate() {
            for one in stage.adds.iter().filter(|one| one.ingredient == ingredient) {
                let temperature_c = one.temperature_c;
                if let Some(pct) = one.share_pct {
                    let share = (pct / 100.0).min(left);
                    left -= share;
                    portions.push(Portion { at, share, temperature_c });
                } else if !named {
                    (rest, named) = ((at, temperature_c), true);
                }
            }
        }
        if left > SLACK {
            portions.push(Portion { at: rest.0, share: left, temperature_c: rest.1 });
        }
        portions.sort_by_key(|one| one.at);
        portions
    }

    /// How much of an ingredient is in the dough once a stage has begun, 0 to 1.
    pub fn share_in(&self, ingredient: Ingredient, at: usize) -> f64 {
        self.portions(ingredient).iter().filter(|one| one.at <= at).map(|one| one.share).sum()
    }

    /// The last stage under the mixer.
    pub fn last_mix(&self) -> usize {
        self.stages.iter().rposition(Stage::mixes_dough).unwrap_or(0)
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

    /// How long a kind of preparation is mixed, and at what power that is on a mixer, kJ/kg; none
    /// where no stage mixes it.
    pub fn preparation_mixing(&self, kind: PreparationKind, mixer: &Mixer) -> Option<(f64, f64)> {
        let of = |stage: &&Stage| stage.kind == StageKind::Mix && stage.makes == Some(kind);
        let stages = self.stages.iter().filter(of);
        stages
            .map(|stage| (stage.minutes, stage.minutes * mixer.kj_per_kg_min(stage.speed)))
            .reduce(|(minutes, kj), (more, with)| (minutes + more, kj + with))
    }

    /// The stages in which a kind of preparation rests.
    pub fn preparation_rests(&self, kind: PreparationKind) -> impl Iterator<Item = &Stage> {
        self.stages
            .iter()
            .filter(move |stage| stage.kind == StageKind::Rest && stage.makes == Some(kind))
    }

    fn mixing(&self) -> impl Iterator<Item = &Stage> {
        self.stages.iter().filter(|stage| stage.mixes_dough())
    }
}
