//! The numbers a computation rests on: each declared once by its subject, with its band and where it
//! comes from, and replaced by a plant's own where it has one.

mod declaration;
mod derivation;
mod effective;
mod overriding;

pub(crate) use declaration::coefficients;
pub use declaration::{Coefficient, Origin};
pub use derivation::{Derivation, DerivationInput};
pub use effective::{Coefficients, EffectiveCoefficient};
pub use overriding::{Override, OverrideInput};
