//! Variants of a dough: what somebody wants of the bread, the levers the trade uses for it, and
//! the doughs side by side.

mod dough;
mod lever;
mod set;

pub use lever::{Lever, Wish};
pub use set::{LeverOffered, TrialSet, Variant, levers_for, trial_set};
