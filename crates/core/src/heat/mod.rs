//! Heat: what the water must do so that the dough comes off the mixer where it should.

mod balance;
pub mod coefficients;
mod dough_temperature;
mod friction;
mod mixed;
mod remedy;
mod sources;
mod words;

pub(crate) use balance::Solution;
pub use balance::{
    Balance, HOTTEST_WATER_C, HeatPart, HeatSolution, HeatSource, Sensitivity, Surroundings, Term,
    YEAST_WATER_C, flour_specific_heat,
};
pub use dough_temperature::{DoughTemperatureInput, HeatPartInput};
pub use friction::{Friction, FrictionInput, Temperatures, TemperaturesInput};
pub use mixed::{MixedDough, MixedPart};
pub use remedy::{HeatCaution, Remedy, RemedyAmount, RemedyMeans, Unreachable};
pub use sources::{WantedWater, WaterFrom, WaterSource, WaterSources};
