//! Numbers as they arrive, the ranges they must keep, and their bands.

mod bisect;
mod conversion;
mod estimate;
mod number;
mod number_range;
mod quoted;
mod raw_number;
mod scalar_filter;
mod series;
pub mod timestamp;
pub(crate) mod words;

pub use bisect::{bisect, crossing};
pub use conversion::{
    DAYS_PER_WEEK, G_PER_KG, H_PER_DAY, MIN_PER_H, S_PER_MIN, celsius_of_fahrenheit,
};
pub use estimate::{Estimate, NINE_TENTHS};
pub use number::{DecimalMark, NumberError, decimal_mark_of, parse_number, spelt_out};
pub(crate) use number::{groups, is_range};
pub use number_range::{FieldError, NumberRange, ValidationErrors};
pub use quoted::quoted;
pub use raw_number::RawNumber;
pub use scalar_filter::{Estimated, ScalarFilter};
pub use series::{Series, check_equal, check_rising};
pub(crate) use words::serialize_in_words;
