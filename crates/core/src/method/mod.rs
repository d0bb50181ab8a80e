//! The stages of a dough, the mixer they run on, and the sheet the floor works from.

mod caution;
mod mixer;
mod sheet;
mod stage;

pub use caution::cautions_at;
pub use mixer::Mixer;
pub use sheet::{Plan, Sheet, SheetStep, ToWeigh, sheet};
pub use stage::{Method, MethodFault, Speed, Stage, StageKind};
