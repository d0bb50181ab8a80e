//! Variants of a dough: what somebody wants of the bread, the interventions the trade uses for it, and
//! the doughs side by side; and a plan with a fault's action made.

mod action;
mod dough;
mod intervention;
mod kept;
mod set;

pub use action::{ChangedPlan, PlannedBefore, changed};
pub use intervention::{Intervention, QualityGoal};
pub use kept::kept_variant;
pub use set::{OfferedIntervention, TrialSet, Variant, interventions_for, trial_set};
