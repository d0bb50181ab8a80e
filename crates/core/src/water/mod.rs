//! How much water the flour wants on the floor, step by step.

mod process;
mod species;
mod stair;
mod thirst;

pub use process::Process;
pub use species::Species;
pub use stair::{Caution, Flour, NoBase, Stair, Step, Wanted, stair};
pub use thirst::{
    CRITICAL_DAMAGED_STARCH, PER_ASH, PER_DAMAGED_STARCH, PER_PROTEIN, Thirst, ThirstPart, thirst,
};
