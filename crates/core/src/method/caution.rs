use super::coefficients as c;
use super::{Method, Stage, StageKind};
use crate::dough::Ingredient;

/// The usual cautions at a stage, short; local code, the maker and licensed practice go before.
pub fn cautions_at(stage: &Stage, takes: &[Ingredient]) -> Vec<&'static str> {
    let mut cautions = Vec::new();
    if takes.contains(&Ingredient::Flour) {
        cautions.push("Tip flour low and slowly: dust harms lungs and can explode.");
    }
    match stage.kind {
        StageKind::Mix => cautions.push("Guard shut; locked out before any hand goes in."),
        StageKind::Divide => cautions.push("Guards on; do not taste raw dough."),
        StageKind::Bake => cautions.push("Steam and hot metal burn: stand aside, dry gloves."),
        StageKind::Proof
            if stage.humidity_pct.is_some_and(|humidity| humidity >= c::WET_FLOOR.value) =>
        {
            cautions.push("Wet floor by the proofer: it is slippery.");
        }
        _ => {}
    }
    if stage.temperature_c.is_some_and(|celsius| celsius <= FROZEN_C) {
        cautions.push("Frozen metal burns skin: gloves, and nobody alone behind a freezer's door.");
    }
    cautions
}

/// From here down a stage is a freezer's, °C.
const FROZEN_C: f64 = c::FROZEN_C.value;

/// The usual cautions of each stage of a method, the flour going in at the first mixing.
pub fn cautions_of(method: &Method) -> Vec<Vec<&'static str>> {
    let first = method.first_mix();
    let stages = method.stages.iter().enumerate();
    stages
        .map(|(at, stage)| {
            let flour = [Ingredient::Flour];
            cautions_at(stage, if at == first { &flour } else { &stage.adds })
        })
        .collect()
}
