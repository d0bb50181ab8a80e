use super::coefficients as c;
use super::{Method, Stage, StageKind};
use crate::dough::Ingredient;

/// A usual caution at a stage; local code, the maker and licensed practice go before.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum StageCaution {
    FlourDust,
    MixerGuard,
    DividerGuard,
    Steam,
    WetFloor,
    Freezer,
}

/// The usual cautions at a stage with what goes in there.
pub fn cautions_at(stage: &Stage, takes: &[Ingredient]) -> Vec<StageCaution> {
    let mut cautions = Vec::new();
    if takes.contains(&Ingredient::Flour) {
        cautions.push(StageCaution::FlourDust);
    }
    match stage.kind {
        StageKind::Mix => cautions.push(StageCaution::MixerGuard),
        StageKind::Divide => cautions.push(StageCaution::DividerGuard),
        StageKind::Bake => cautions.push(StageCaution::Steam),
        StageKind::Proof
            if stage.humidity_pct.is_some_and(|humidity| humidity >= c::WET_FLOOR.value) =>
        {
            cautions.push(StageCaution::WetFloor);
        }
        _ => {}
    }
    if stage.temperature_c.is_some_and(|celsius| celsius <= FROZEN_C) {
        cautions.push(StageCaution::Freezer);
    }
    cautions
}

/// From here down a stage is a freezer's, °C.
const FROZEN_C: f64 = c::FROZEN_C.value;

/// The usual cautions of each stage of a method, the flour going in at the first mixing.
pub fn cautions_of(method: &Method) -> Vec<Vec<StageCaution>> {
    let first = method.first_mix();
    let stages = method.stages.iter().enumerate();
    stages
        .map(|(at, stage)| {
            let flour = [Ingredient::Flour];
            cautions_at(stage, if at == first { &flour } else { &stage.adds })
        })
        .collect()
}
