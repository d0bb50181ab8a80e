//! A dough on the clock: forward from a start or back from when it must be out, around the hours
//! nobody is there; a run of doughs at its line's cadence.

mod cadence;
mod feed;
mod flow;
mod hours;
mod lay;
mod line;
mod plan;
mod request;
mod run;
mod seek;
mod spare;

pub use cadence::{Cadence, EachDough, Pace, Place, cadence};
pub use feed::{FeedAt, feed_before};
pub use hours::{Refused, RefusedInput, spans};
pub use line::{RunWanted, Shift, Stop};
pub use plan::{Anchor, DayPlan, FoldSet, NoDay, PlannedStage, plan_day};
pub use request::{AnchorInput, DayInput, DayWanted, time_zone};
pub use run::{Fullest, NoRun, RunDough, RunPlan, RunStage, TroughsInUse, plan_run};
pub use spare::{Spare, SpareInput};
