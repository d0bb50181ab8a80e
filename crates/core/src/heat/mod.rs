//! Heat: what the water must do so that the dough comes off the mixer where it should.

mod balance;
mod dough_temperature;

pub(crate) use balance::Closed;
pub use balance::{
    Answer, Balance, HOTTEST_WATER_C, Lever, Part, Remedy, Term, YEAST_WATER_C, flour_specific_heat,
};
pub use dough_temperature::{DoughTemperatureInput, PartInput};
