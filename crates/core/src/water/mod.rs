//! How much water the flour wants on the floor, step by step, and who holds it.

mod absorption;
mod absorption_difference;
mod absorption_model;
mod adjustment;
mod base_absorption;
mod build_up;
mod cautions;
pub mod coefficients;
mod flour;
mod grain;
mod hold_back;
mod looking_back;
mod request;
mod strength_ceiling;
mod water_distribution;
mod words;

pub use absorption::{AbsorptionFlour, AbsorptionInput, AbsorptionLine};
pub use absorption_difference::{
    AbsorptionDifference, AbsorptionDifferencePart, absorption_difference,
};
pub use absorption_model::{
    AbsorptionModel, AbsorptionModelAnswer, AbsorptionModelInput, Composition, CompositionInput,
    Learned, Predicted,
};
pub use adjustment::Adjustment;
pub use build_up::{AbsorptionBuildUp, build_up};
pub use cautions::Caution;
pub use flour::{Flour, FlourPart};
pub use grain::{Grain, GrainShare, MixOfGrains, mix_of_grains};
pub use hold_back::{HoldBack, HoldBackReason, StarchTrap, arrival_target_pct, hold_back};
pub use looking_back::{LookingBack, measured_absorption};
pub use request::{AbsorptionRequest, AbsorptionUnknown, Addition};
pub use water_distribution::{
    ExcessWater, ExcessWaterEffect, UsualComposition, WaterDistribution, WaterShares, excess_water,
};
