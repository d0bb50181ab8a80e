//! The stages of a dough, the mixer they run on, and the sheet the floor works from.

mod addition;
mod ambient;
mod bake_phase;
mod caution;
pub mod coefficients;
mod conditioning;
mod dilution;
mod draft;
mod end_point;
mod energy;
mod equipment;
mod mixer;
mod optional_step;
mod optional_steps;
mod process;
mod process_comparison;
mod role;
mod sheet;
mod stage;
mod stages;
mod to_weigh;
mod weighing;
mod words;

pub use addition::{Addition, AdditionInput, Portion};
pub use ambient::{AmbientPoint, AmbientPointInput, AmbientSpan};
pub use bake_phase::{BakePhase, BakePhaseInput, OvenAid};
pub use caution::{StageCaution, cautions_at, cautions_of};
pub use conditioning::{
    AdditionPoint, Conditioning, ConditioningDemand, ConditioningMeans, ConditioningReason,
    FlourStrength, conditioning,
};
pub use dilution::Dilution;
pub use draft::{MethodDraft, StageInput, TimeToleranceInput};
pub use end_point::{EndFigure, EndPoint};
pub use energy::{Development, MixingClass, developments};
pub use equipment::Equipment;
pub use mixer::{BY_HAND, MIXER_KINDS, Mixer, MixerKind};
pub use optional_step::OptionalStep;
pub use optional_steps::Optional;
pub use process::Process;
pub use role::{StageRole, TypicalRange};
pub use sheet::{Sheet, SheetCaution, SheetStep, sheet};
pub(crate) use stage::FOLD_MIN;
pub use stage::{COLD_C, Handled, Speed, Stage, StageKind, TimeTolerance};
pub use stages::Method;
pub use to_weigh::{Plan, PreparationMade, SheetPart, ToWeigh};
