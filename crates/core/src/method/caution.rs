use super::{Stage, StageKind};
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
        StageKind::Proof if stage.humidity_pct.is_some_and(|humidity| humidity >= 80.0) => {
            cautions.push("Wet floor by the proofer: it is slippery.");
        }
        _ => {}
    }
    cautions
}
