//! Numbers as they arrive, the ranges they must keep, and where coefficients come from.

mod bisect;
mod derivation;
mod estimate;
mod number;
mod number_range;
mod origin;
mod raw_number;
mod series;
pub mod timestamp;

pub use bisect::{bisect, crossing};
pub use derivation::{Derivation, DerivationInput};
pub use estimate::Estimate;
pub use number::{DecimalMark, NumberError, decimal_mark_of, parse_number, spelt_out};
pub(crate) use number::{groups, is_range};
pub use number_range::{FieldError, NumberRange, ValidationErrors};
pub use origin::{Coefficient, Origin};
pub use raw_number::RawNumber;
pub use series::{Series, check_equal, check_rising};
