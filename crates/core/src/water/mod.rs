//! How much water the flour wants on the floor, step by step, and who holds it.

mod absorption;
mod absorption_difference;
mod absorption_model;
mod build_up;
pub mod coefficients;
mod flour;
mod grain;
mod hold_back;
mod water_distribution;

pub use absorption::{AbsorptionFlour, AbsorptionInput, AbsorptionLine};
pub use absorption_difference::{
    AbsorptionDifference, AbsorptionDifferencePart, absorption_difference,
};
pub use absorption_model::{
    AbsorptionModel, AbsorptionModelAnswer, AbsorptionModelInput, Composition, CompositionInput,
    Learned, Predicted,
};
pub use build_up::{
    AbsorptionBuildUp, AbsorptionRequest, AbsorptionUnknown, Addition, Adjustment, Caution,
    build_up,
};
pub use flour::{Flour, FlourPart};
pub use grain::{Grain, GrainShare, MixOfGrains, mix_of_grains};
pub use hold_back::{HoldBack, StarchTrap, arrival_target_pct, hold_back};
pub use water_distribution::{ExcessWater, WaterDistribution, WaterShares, excess_water};
