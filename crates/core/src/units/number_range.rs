use serde::Serialize;

use super::RawNumber;

/// What is wrong with one field, in the words of the job.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FieldError {
    /// The field's path in the request, such as `parts[2].kg`.
    pub field: String,
    pub message: String,
}

/// All that is wrong with a request, gathered before answering.
#[derive(Debug, Clone, PartialEq, Eq, Default, thiserror::Error)]
#[error("{} field(s) cannot be used", .0.len())]
pub struct ValidationErrors(pub Vec<FieldError>);

impl ValidationErrors {
    /// Notes what is wrong with one field.
    pub fn push(&mut self, field: impl Into<String>, message: impl Into<String>) {
        self.0.push(FieldError { field: field.into(), message: message.into() });
    }

    /// `value` if nothing was found wrong, else everything that was.
    pub fn or<T>(self, value: T) -> Result<T, Self> {
        if self.0.is_empty() { Ok(value) } else { Err(self) }
    }
}

/// The name, unit and allowed range of a number.
///
/// ```
/// use ironpeel_core::units::{NumberRange, ValidationErrors, RawNumber};
/// const MOISTURE: NumberRange = NumberRange::new("flour_moisture_pct", "flour moisture", "%", 0.0, 30.0);
/// let mut faults = ValidationErrors::default();
/// MOISTURE.check(&RawNumber::Number(130.0), "", &mut faults);
/// assert_eq!(faults.0[0].message, "flour moisture must be from 0 to 30 %; 130 was given");
/// ```
#[derive(Debug, Clone, Copy)]
pub struct NumberRange {
    pub(super) field: &'static str,
    pub(super) words: &'static str,
    unit: &'static str,
    pub(super) min: f64,
    pub(super) max: f64,
}

impl NumberRange {
    /// A number's field, its name in words, its unit and the range it must keep.
    pub const fn new(
        field: &'static str,
        words: &'static str,
        unit: &'static str,
        min: f64,
        max: f64,
    ) -> Self {
        Self { field, words, unit, min, max }
    }

    /// Its least and its most.
    pub const fn bounds(&self) -> (f64, f64) {
        (self.min, self.max)
    }

    pub const fn unit(&self) -> &'static str {
        self.unit
    }

    /// Whether a number keeps it.
    pub fn holds(&self, value: f64) -> bool {
        value.is_finite() && (self.min..=self.max).contains(&value)
    }

    /// The number, or a fault recorded under `at` + the field's name. The value returned beside a
    /// fault is a placeholder inside the range and is never used: [`ValidationErrors::or`] refuses it.
    pub fn check(&self, given: &RawNumber, at: &str, faults: &mut ValidationErrors) -> f64 {
        match given {
            RawNumber::Number(value) if self.holds(*value) => return *value,
            RawNumber::Missing => faults.push(
                format!("{at}{}", self.field),
                format!("{} is missing; {}", self.words, self.range()),
            ),
            RawNumber::Number(_) => faults.push(
                format!("{at}{}", self.field),
                format!("{} must be {}; {given} was given", self.words, self.range()),
            ),
            RawNumber::Other(_) => faults.push(
                format!("{at}{}", self.field),
                format!("{} must be a number {}; {given} was given", self.words, self.range()),
            ),
        }
        self.min
    }

    /// As [`Self::check`], with a value for when nothing was given.
    pub fn check_or(
        &self,
        given: &RawNumber,
        default: f64,
        at: &str,
        faults: &mut ValidationErrors,
    ) -> f64 {
        if given.is_missing() { default } else { self.check(given, at, faults) }
    }

    /// As [`Self::check`], when the number may be left out.
    pub fn check_opt(
        &self,
        given: &RawNumber,
        at: &str,
        faults: &mut ValidationErrors,
    ) -> Option<f64> {
        (!given.is_missing()).then(|| self.check(given, at, faults))
    }

    pub(super) fn range(&self) -> String {
        let unit = if self.unit.is_empty() { String::new() } else { format!(" {}", self.unit) };
        format!("from {} to {}{unit}", self.min, self.max)
    }
}
