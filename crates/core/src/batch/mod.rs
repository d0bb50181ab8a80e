//! A batch on the floor: what happened, as append-only events, and what that comes to.
//!
//! Nothing is overwritten: an error is corrected by an event that names the one it corrects, and a
//! batch is a fold over its events, whatever the order they arrived in. [`Event::refusal`] looks
//! at one event alone; [`fold`] puts all of them in order; [`report`] holds them against the plan.

mod comparison;
mod corrections;
mod event;
mod fold;
mod kind;
mod observation;
mod quantity;
mod refusal;
mod report;
mod stage_times;
mod weighed;
mod words;

pub use comparison::{ComparedBatch, ComparisonRow, compare};
pub use event::{Event, EventDetails, RejectReason};
pub(crate) use fold::minutes;
pub use fold::{Added, BatchRecord, Finish, Misplaced, Placed, StageRecord, Unplaced, fold};
pub use kind::{AdditionReason, BatchState, EndedBy, EventKind};
pub use observation::{OBSERVATIONS, ObservationName, observation};
pub use quantity::Quantity;
pub use refusal::{Acceptance, EventRefusal};
pub(crate) use report::AFTER_A_STAGE;
pub use report::{
    BatchPlan, BatchReport, PlanDifference, PlannedFigures, SlicerCore, report, slicer_limit_c,
};
pub use stage_times::{FOLDS, NextFold, NextStage, StagePlan, StageTimes, as_timed, stage_times};
pub use weighed::{PlannedLine, WaterReport, WeighedLine, water, weighed};
