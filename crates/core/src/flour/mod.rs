//! What a certificate says of a flour, on which basis, and whether it is in specification.

mod certificate;
mod moisture;
mod property;
mod reading;
mod specification;

pub use certificate::{Column, Row, RowFault, read_rows};
pub use moisture::{
    Moisture, MoistureBasisAnswer, MoistureBasisInput, absorption_at_moisture, at_moisture,
};
pub use property::{Movement, Property, Repeatability};
pub use reading::{MoistureBasis, OnBases, Reading, Readings};
pub use specification::{Assessment, Limit, LimitFault, Rule, Verdict, assess};
