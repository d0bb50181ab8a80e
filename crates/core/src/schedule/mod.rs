//! A dough on the clock: forward from a start or back from when it must be out, around the hours
//! nobody is there; a run of doughs at its line's cadence.

mod cadence;
pub mod coefficients;
mod feed;
mod find_start;
mod flow;
mod frozen_reserve;
mod hours;
mod layout;
mod line;
mod plan;
mod request;
mod run;
mod words;

pub use cadence::{Cadence, EachDough, Pace, PaceCause, Place, cadence};
pub use feed::{FeedAt, StarterWanted, feed_before};
pub(crate) use find_start::minutes;
pub use frozen_reserve::{FrozenReserve, FrozenReserveInput};
pub use hours::{ClosedHours, ClosedHoursInput, spans};
pub use line::{RunRequest, Shift, Stop};
pub use plan::{
    FoldSet, NightPlace, PlannedStage, ScheduleChange, ScheduleError, SchedulePlan, plan_schedule,
};
pub use request::{Anchor, AnchorInput, ScheduleInput, ScheduleRequest, time_zone};
pub use run::{
    Fullest, RunCaution, RunError, RunPlan, RunStage, ScheduledBatch, TroughsInUse, WindowOverrun,
    plan_run,
};
