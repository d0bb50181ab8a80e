//! How much water the flour wants on the floor, step by step, and who holds it.

mod absorption;
mod absorption_model;
mod flour;
mod grain;
mod hold_back;
mod holders;
mod process;
mod rule;
mod stair;
mod thirst;

pub use absorption::{AbsorptionFlour, AbsorptionInput, AbsorptionLine};
pub use absorption_model::{
    AT_CENTRE, AbsorptionModel, AbsorptionModelAnswer, AbsorptionModelInput, Composition,
    CompositionInput, Learned, Predicted,
};
pub use flour::{Flour, FlourPart};
pub use grain::{Grain, GrainShare, MixOfGrains, mix_of_grains};
pub use hold_back::{HoldBack, StarchTrap, arrival_target_pct, hold_back};
pub use holders::{AddedByFeel, Holders, WaterShares, added_by_feel};
pub use process::Process;
pub use rule::{Override, OverrideInput, Rule, Rules, Ruling};
pub use stair::{Addition, Caution, NoBase, Stair, Step, Wanted, stair};
pub use thirst::{
    CRITICAL_DAMAGED_STARCH, PER_ASH, PER_DAMAGED_STARCH, PER_PROTEIN, Thirst, ThirstPart, thirst,
};
