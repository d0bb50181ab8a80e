//! The stages of a dough, the mixer they run on, and the sheet the floor works from.

mod caution;
mod conditioning;
mod draft;
mod energy;
mod equipment;
mod mixer;
mod role;
mod school;
mod sheet;
mod stage;
mod two_ways;

pub use caution::{cautions_at, cautions_of};
pub use conditioning::{Conditioning, FlourSays, Help, Need, conditioning};
pub use draft::{MethodDraft, StageInput, WindowInput};
pub use energy::{Development, MixingClass, developments};
pub use equipment::Equipment;
pub use mixer::{MIXER_KINDS, Mixer, MixerKind};
pub use role::{StageRole, Usual};
pub use school::{Choice, Optional};
pub use sheet::{Plan, Sheet, SheetStep, ToWeigh, sheet};
pub(crate) use stage::FOLD_MIN;
pub use stage::{COLD_C, EndsBy, Handled, Method, Speed, Stage, StageKind, Window};
