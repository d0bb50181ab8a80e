//! How a dough ferments: its gas, its sugar, its culture and its temperature over time.

mod culture;
mod dough;
mod fermentation;
mod solve;
mod track;

pub use culture::Culture;
pub use dough::FermentingDough;
pub use fermentation::{
    FermentationAnswer, FermentationInput, FermentingInput, PhaseInput, RiseReached,
};
pub use solve::{NotReachable, yeast_for};
pub use track::{Begun, Phase, Point, Track, ferment, ferment_on};
