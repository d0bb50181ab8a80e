//! Numbers as they arrive, the ranges they must keep, and where coefficients come from.

mod banded;
mod bound;
mod given;
mod halving;
pub mod moment;
mod number;
mod origin;
mod series;
mod why;

pub use banded::Banded;
pub use bound::{Bound, Faults, FieldError};
pub use given::Given;
pub use halving::{crossing, halved};
pub use number::{DecimalMark, NumberError, decimal_mark_of, parse_number, spelt_out};
pub(crate) use number::{groups, is_range};
pub use origin::{Coefficient, Origin};
pub use series::{Series, check_equal, check_rising};
pub use why::{Input, Why};
