use serde::{Deserialize, Serialize};

use super::NINETEEN_IN_TWENTY;
use crate::units::{NumberRange, RawNumber, ValidationErrors};

/// Two variants that were judged, and how far their marks scatter.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ScoreDifferenceInput {
    /// One variant's mean mark less the other's, −100 to 100.
    #[serde(default)]
    pub difference: RawNumber,
    /// Batches of each, 1 to 100.
    #[serde(default)]
    pub batches: RawNumber,
    /// Loaves of each batch, 1 to 100.
    #[serde(default)]
    pub loaves: RawNumber,
    /// 0 to 4.
    #[serde(default)]
    pub sd_loaf: RawNumber,
    /// 0 to 4.
    #[serde(default)]
    pub sd_judge: RawNumber,
    /// 0 to 4; left out where the plant does not know it.
    #[serde(default)]
    pub sd_batch: RawNumber,
}

/// Whether a difference is real.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ScoreDifference {
    /// The least difference that is significant at 95 %.
    pub lsd: f64,
    pub real: bool,
    pub says: DifferenceVerdict,
}

/// What a difference lets one say.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum DifferenceVerdict {
    /// One variant is judged higher than the other.
    VariantsDiffer,
    /// These doughs differ; whether the variants do is not known without the scatter of batches.
    DoughsDiffer,
    /// Not shown: a smaller difference would not be seen.
    NotShown,
}

const DIFFERENCE: NumberRange = NumberRange::new("difference", "the difference", "", -100.0, 100.0);
const BATCHES: NumberRange = NumberRange::new("batches", "batches of each", "", 1.0, 100.0);
const LOAVES: NumberRange = NumberRange::new("loaves", "loaves of each batch", "", 1.0, 100.0);
const SD_LOAF: NumberRange = NumberRange::new("sd_loaf", "scatter of loaves", "marks", 0.0, 4.0);
const SD_JUDGE: NumberRange = NumberRange::new("sd_judge", "scatter of judging", "marks", 0.0, 4.0);
const SD_BATCH: NumberRange = NumberRange::new("sd_batch", "scatter of batches", "marks", 0.0, 4.0);

impl ScoreDifferenceInput {
    /// Checks every field, then holds the difference against
    /// `lsd = 1.96·√(2·(σ_B²/r + σ_L²/(r·n) + σ_J²/(r·n)))`. Without the scatter of batches it tells
    /// doughs apart, never variants.
    ///
    /// ```
    /// use ironpeel_core::judging::{DifferenceVerdict, ScoreDifferenceInput};
    /// let of = |text: &str| serde_json::from_str::<ScoreDifferenceInput>(text).unwrap();
    /// let known = of(r#"{"difference": 0.8, "batches": 3, "loaves": 3, "sd_batch": 0.3,
    ///     "sd_loaf": 0.35, "sd_judge": 0.3}"#).compute()?;
    /// assert!((known.lsd - 0.642).abs() < 5e-4 && known.real);
    /// let unknown = of(r#"{"difference": 0.8, "batches": 1, "loaves": 6, "sd_batch": null,
    ///     "sd_loaf": 0.35, "sd_judge": 0.3}"#).compute()?;
    /// assert!((unknown.lsd - 0.522).abs() < 5e-4);
    /// assert_eq!(unknown.says, DifferenceVerdict::DoughsDiffer);
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    pub fn compute(&self) -> Result<ScoreDifference, ValidationErrors> {
        let mut faults = ValidationErrors::default();
        let difference = DIFFERENCE.check(&self.difference, "", &mut faults);
        let batches = whole("batches", BATCHES, &self.batches, &mut faults);
        let loaves = whole("loaves", LOAVES, &self.loaves, &mut faults);
        let sd_loaf = SD_LOAF.check(&self.sd_loaf, "", &mut faults);
        let sd_judge = SD_JUDGE.check(&self.sd_judge, "", &mut faults);
        let sd_batch = SD_BATCH.check_opt(&self.sd_batch, "", &mut faults);
        faults.or(())?;
        let lsd = NINETEEN_IN_TWENTY
            * Scatter { batches, loaves, sd_loaf, sd_judge, sd_batch }.of_difference();
        let real = difference.abs() > lsd;
        let says = verdict(real, sd_batch.is_some());
        Ok(ScoreDifference { lsd, real, says })
    }
}

/// How far the marks of two variants scatter, so many batches and loaves of each.
#[derive(Clone, Copy)]
pub(super) struct Scatter {
    pub batches: f64,
    pub loaves: f64,
    pub sd_loaf: f64,
    pub sd_judge: f64,
    /// None where the plant does not know it.
    pub sd_batch: Option<f64>,
}

impl Scatter {
    /// `√(2·(σ_B²/r + σ_L²/(r·n) + σ_J²/(r·n)))`.
    pub fn of_difference(&self) -> f64 {
        let within = (self.sd_loaf.powi(2) + self.sd_judge.powi(2)) / (self.batches * self.loaves);
        let between = self.sd_batch.map_or(0.0, |sd| sd.powi(2) / self.batches);
        (2.0 * (between + within)).sqrt()
    }
}

/// What may be said of a difference: of variants only where the scatter of batches is in it.
pub(super) const fn verdict(real: bool, knows_batches: bool) -> DifferenceVerdict {
    match (real, knows_batches) {
        (false, _) => DifferenceVerdict::NotShown,
        (true, false) => DifferenceVerdict::DoughsDiffer,
        (true, true) => DifferenceVerdict::VariantsDiffer,
    }
}

fn whole(field: &str, range: NumberRange, given: &RawNumber, faults: &mut ValidationErrors) -> f64 {
    let value = range.check(given, "", faults);
    if value.fract() != 0.0 {
        faults.push(field, format!("batches and loaves are whole; {value} was given"));
    }
    value
}
