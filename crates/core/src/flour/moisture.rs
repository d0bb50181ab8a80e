use serde::{Deserialize, Serialize};
use thiserror::Error;

use crate::units::{NumberRange, RawNumber, ValidationErrors};

/// A flour's moisture, from 0 to 30 %.
///
/// A type of its own because it stands in the denominator of everything on dry matter.
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd, Serialize)]
#[serde(transparent)]
pub struct Moisture(f64);

/// Moisture outside 0 to 30 %.
#[derive(Debug, Clone, Copy, PartialEq, Error)]
#[error("moisture must be from 0 to 30 %; {0} was given")]
pub struct MoistureError(f64);

/// More is no flour.
const MOST_PCT: f64 = 30.0;

impl Moisture {
    /// Dry matter.
    pub const DRY: Self = Self(0.0);
    /// The moisture flours are compared at.
    pub const FOURTEEN: Self = Self(14.0);

    /// A moisture from 0 to 30 %, or [`MoistureError`].
    pub fn new(percent: f64) -> Result<Self, MoistureError> {
        if (0.0..=MOST_PCT).contains(&percent) {
            Ok(Self(percent))
        } else {
            Err(MoistureError(percent))
        }
    }

    /// In percent.
    pub const fn percent(self) -> f64 {
        self.0
    }
}

/// A share of the flour moved from one moisture to another, in percent.
///
/// `x_to = x_from · (100 − m_to) / (100 − m_from)`. Mass balance; used for protein, ash, gluten
/// and damaged starch.
///
/// ```
/// use ironpeel_core::flour::{Moisture, at_moisture};
/// let protein_14 = at_moisture(13.5, Moisture::DRY, Moisture::FOURTEEN);
/// assert!((protein_14 - 11.61).abs() < 0.005);
/// ```
pub fn at_moisture(value: f64, from: Moisture, to: Moisture) -> f64 {
    value * (100.0 - to.0) / (100.0 - from.0)
}

/// Water absorption moved from one moisture to another, in percent of flour.
///
/// Absorption is *added* water, so the flour's own water counts:
/// `wa_to = (wa_from + 100)(100 − m_to)/(100 − m_from) − 100`.
///
/// ```
/// use ironpeel_core::flour::{Moisture, absorption_at_moisture};
/// let damp = Moisture::new(15.2)?;
/// assert!((absorption_at_moisture(62.0, Moisture::FOURTEEN, damp) - 59.74).abs() < 0.005);
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
pub fn absorption_at_moisture(absorption: f64, from: Moisture, to: Moisture) -> f64 {
    at_moisture(absorption + 100.0, from, to) - 100.0
}

const VALUE: NumberRange = NumberRange::new("value_pct", "value", "%", 0.0, 100.0);
const FROM: NumberRange =
    NumberRange::new("from_moisture_pct", "moisture it is stated at", "%", 0.0, 30.0);
const TO: NumberRange = NumberRange::new("to_moisture_pct", "moisture wanted", "%", 0.0, 30.0);

/// What the `moisture-basis` calculator is asked.
#[derive(Debug, Clone, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct MoistureBasisInput {
    /// Share of the flour, 0 to 100 %.
    #[serde(default)]
    pub value_pct: RawNumber,
    /// Moisture the share is stated at, 0 to 30 %; 0 is dry matter.
    #[serde(default)]
    pub from_moisture_pct: RawNumber,
    /// Moisture wanted, 0 to 30 %.
    #[serde(default)]
    pub to_moisture_pct: RawNumber,
}

/// What the `moisture-basis` calculator answers.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct MoistureBasisAnswer {
    pub value_pct: f64,
    /// Said when the answer is more than the whole.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub note: Option<&'static str>,
}

impl MoistureBasisInput {
    /// Checks every field, then moves the value.
    ///
    /// ```
    /// use ironpeel_core::flour::MoistureBasisInput;
    /// let ash = MoistureBasisInput {
    ///     value_pct: 0.62.into(), from_moisture_pct: 14.0.into(), to_moisture_pct: 0.0.into(),
    /// };
    /// assert!((ash.compute()?.value_pct - 0.7209).abs() < 0.00005);
    /// # Ok::<(), ironpeel_core::units::ValidationErrors>(())
    /// ```
    pub fn compute(&self) -> Result<MoistureBasisAnswer, ValidationErrors> {
        let mut faults = ValidationErrors::default();
        let value = VALUE.check(&self.value_pct, "", &mut faults);
        let from = FROM.check(&self.from_moisture_pct, "", &mut faults);
        let to = TO.check(&self.to_moisture_pct, "", &mut faults);
        faults.or(())?;
        let value_pct = at_moisture(value, Moisture(from), Moisture(to));
        let note = (value_pct > 100.0)
            .then_some("more than the whole: the value cannot have been stated at that moisture");
        Ok(MoistureBasisAnswer { value_pct, note })
    }
}
