//! Numbers as they arrive, the ranges they must keep, and where coefficients come from.

mod bound;
mod given;
mod number;
mod origin;
mod why;

pub use bound::{Bound, Faults, FieldError};
pub use given::Given;
pub use number::{NumberError, parse_number};
pub use origin::{Coefficient, Origin};
pub use why::{Input, Why};
