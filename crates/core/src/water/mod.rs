//! How much water the flour wants on the floor, step by step.

mod process;
mod species;
mod stair;

pub use process::Process;
pub use species::Species;
pub use stair::{Caution, Flour, NoBase, Stair, Step, Wanted, stair};
