//! A dough on the clock: forward from a start or back from when it must be out, around the hours
//! nobody is there.

mod hours;
mod plan;
mod request;

pub use hours::{Refused, RefusedInput};
pub use plan::{Anchor, DayPlan, NoDay, PlannedStage, plan_day};
pub use request::{AnchorInput, DayInput, DayWanted};
