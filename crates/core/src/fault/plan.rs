//! What a plan is evidence of before anything happens.

use std::collections::BTreeMap;

/// What a batch's plan itself says, before anything happens, and what its figures were calculated with.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct PlanEvidence {
    /// Features that the formula, the flours and the computation have by themselves, by their keys.
    pub figures: BTreeMap<&'static str, f64>,
    /// How warm the flour and the room were taken to be, °C.
    pub flour_c: Option<f64>,
    pub room_c: Option<f64>,
    /// How warm the sponge is to leave the mixer, °C.
    pub sponge_c: Option<f64>,
    /// A dough that goes to the divider at once counts as older there, and one of rye as cut sooner.
    pub no_time: bool,
    pub rye: bool,
}
