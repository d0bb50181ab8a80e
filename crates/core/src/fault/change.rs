use serde::Deserialize;

use crate::dough::Ingredient;
use crate::method::StageRole;

/// One change of a plan, in figures. Sizes are the catalogue's: house judgement.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize)]
#[serde(tag = "of", rename_all = "snake_case", deny_unknown_fields)]
pub enum PlanChange {
    /// Points of water beside what was planned; none is back to the plan.
    Water { points: f64 },
    /// Points of an ingredient on flour; never under nothing.
    Ingredient { ingredient: Ingredient, points: f64 },
    /// Every yeast of the dough and of what is made before it, by so many per cent of itself.
    Yeast { pct: f64 },
    /// The dough off the mixer, °C.
    DoughTemperature { by_c: f64 },
    /// The sponge off the mixer, °C.
    SpongeTemperature { by_c: f64 },
    /// The longest stage for something, min.
    Minutes { stage: StageRole, by: f64 },
    /// The same, by so many per cent of itself.
    Time { stage: StageRole, pct: f64 },
    /// What is around that stage, °C; where its method says nothing of it, there is nothing to change.
    Around { stage: StageRole, by_c: f64 },
    /// The bake, so long that the slowest core arrives when it should.
    BakeToArrival,
}
