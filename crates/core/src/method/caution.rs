use super::coefficients as c;
use super::{Addition, Method, Stage, StageKind};
use crate::dough::Ingredient;

/// A usual caution at a stage; local code, the maker and licensed practice go before.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum StageCaution {
    FlourDust,
    MixerGuard,
    DividerGuard,
    Steam,
    Slicer,
    WetFloor,
    Freezer,
    HotWater,
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
        StageKind::Slice => cautions.push(StageCaution::Slicer),
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
    let hot = |add: &Addition| add.temperature_c.is_some_and(|celsius| celsius >= SCALDS_C);
    if stage.adds.iter().any(hot) {
        cautions.push(StageCaution::HotWater);
    }
    cautions
}

/// From here up what goes in scalds, °C.
const SCALDS_C: f64 = c::SCALDS_C.value;
/// From here down a stage is a freezer's, °C.
const FROZEN_C: f64 = c::FROZEN_C.value;

/// The usual cautions of each stage of a method.
pub fn cautions_of(method: &Method) -> Vec<Vec<StageCaution>> {
    let flour_in = method.portions(Ingredient::Flour).first().map(|one| one.at);
    let stages = method.stages.iter().enumerate();
    stages
        .map(|(at, stage)| {
            let flour = [Ingredient::Flour];
            cautions_at(stage, if flour_in == Some(at) { &flour } else { &[] })
        })
        .collect()
}
