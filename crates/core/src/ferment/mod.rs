//! How a dough ferments: its gas, its sugar, its culture and its temperature over time.

pub mod coefficients;
mod culture;
mod curve;
mod dough;
mod fermentation;
mod fit;
mod gluten_network;
mod kinetics;
mod maturity;
mod phase;
mod rate_fit;
mod refreshment;
mod solve;
mod souring;

pub use culture::CardinalTemperatures;
pub use curve::{FermentationCurve, FermentationPoint, ferment, ferment_on};
pub use dough::{FermentingDough, cooling_h};
pub use fermentation::{
    FermentationAnswer, FermentationInput, FermentingInput, PhaseInput, Ripeness, RiseReached,
};
pub use fit::{FittedRate, JarReading, fit_rate};
pub use gluten_network::{NetworkFlour, retention, rise_limit_pct};
pub use kinetics::Kinetics;
pub use maturity::{
    MaturedBy, Maturity, MaturityInput, MaturityVerdict, WettedFlour, WettedFlourInput, maturity,
};
pub use phase::{Phase, ResidualSubstrate, Within};
pub use rate_fit::{RateFit, RateFitInput, RiseReadingInput, RiseTime};
pub use refreshment::{Refreshment, RefreshmentInput};
pub use solve::{NotReachable, yeast_for};
