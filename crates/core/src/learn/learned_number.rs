use serde::{Deserialize, Serialize};

use super::coefficients::GATE_SIGMA;
use crate::coefficient::Coefficients;
use crate::units::{Estimated, NumberRange, RawNumber, ScalarFilter, ValidationErrors};

/// Observations to learn one number from, and what is believed before them.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct LearnedNumberInput {
    #[serde(default)]
    pub prior_mean: RawNumber,
    /// Over 0.
    #[serde(default)]
    pub prior_sd: RawNumber,
    /// Over 0: how far one observation scatters.
    #[serde(default)]
    pub measurement_sd: RawNumber,
    /// From 0: how far the number wanders between observations.
    #[serde(default)]
    pub walk_sd: RawNumber,
    /// 0 to 10; 3 if left out, and 0 takes every observation.
    #[serde(default)]
    pub gate_sigma: RawNumber,
    /// Up to 5000, in order.
    #[serde(default)]
    pub observations: Option<Vec<ObservationInput>>,
}

/// One observation.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ObservationInput {
    #[serde(default)]
    pub value: RawNumber,
    /// Its own scatter, over 0; the measurement's if left out.
    #[serde(default)]
    pub sd: RawNumber,
}

/// What observations come to.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct LearnedNumber {
    pub mean: f64,
    pub sd: f64,
    /// How many were taken.
    pub used: usize,
    /// Which were left out, by their place.
    pub rejected: Vec<usize>,
    /// After each observation.
    pub history: Vec<LearnedStep>,
}

/// What is believed after an observation.
pub type LearnedStep = Estimated;

const MOST: usize = 5000;
const HUGE: f64 = 1e9;
const TINY: f64 = 1e-9;
const PRIOR_MEAN: NumberRange =
    NumberRange::new("prior_mean", "what is believed before", "", -HUGE, HUGE);
const PRIOR_SD: NumberRange =
    NumberRange::new("prior_sd", "how far it may lie before", "", TINY, HUGE);
const MEASUREMENT_SD: NumberRange =
    NumberRange::new("measurement_sd", "how far an observation scatters", "", TINY, HUGE);
const WALK_SD: NumberRange =
    NumberRange::new("walk_sd", "how far the number wanders between observations", "", 0.0, HUGE);
const GATE: NumberRange =
    NumberRange::new("gate_sigma", "an observation is left out beyond", "σ", 0.0, 10.0);
const VALUE: NumberRange = NumberRange::new("value", "the observation", "", -HUGE, HUGE);
const SD: NumberRange = NumberRange::new("sd", "how far the observation scatters", "", TINY, HUGE);

impl LearnedNumber {
    /// Learns from observations (value and scatter, in order), one after another.
    pub fn of(
        prior: Estimated,
        filter: ScalarFilter,
        observations: impl IntoIterator<Item = (f64, f64)>,
    ) -> Self {
        let mut believed = prior;
        let (mut history, mut rejected) = (Vec::new(), Vec::new());
        for (at, (value, sd)) in observations.into_iter().enumerate() {
            if at > 0 {
                filter.walk(&mut believed);
            }
            if !filter.learn(&mut believed, value, sd) {
                rejected.push(at);
            }
            history.push(believed);
        }
        let Estimated { mean, sd } = believed;
        Self { mean, sd, used: history.len() - rejected.len(), rejected, history }
    }
}

impl LearnedNumberInput {
    /// Checks every field, then learns: between observations the variance grows by walk²; one
    /// farther than gate·√(variance + sd²) from the mean is rejected and changes nothing but the
    /// time.
    ///
    /// ```
    /// use ironpeel_core::learn::LearnedNumberInput;
    /// let input: LearnedNumberInput = serde_json::from_str(r#"{"prior_mean": 0, "prior_sd": 1.5,
    ///     "measurement_sd": 0.5, "walk_sd": 0.15,
    ///     "observations": [{"value": 0.8}, {"value": 1.1}, {"value": 6.0}, {"value": 1.2}]}"#)?;
    /// let found = input.compute()?;
    /// assert!((found.mean - 1.0266).abs() < 5e-5 && (found.sd - 0.3178).abs() < 5e-5);
    /// assert_eq!((found.used, &*found.rejected), (3, &[2][..]));
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    pub fn compute(&self) -> Result<LearnedNumber, ValidationErrors> {
        let mut faults = ValidationErrors::default();
        let prior = Estimated {
            mean: PRIOR_MEAN.check(&self.prior_mean, "", &mut faults),
            sd: PRIOR_SD.check(&self.prior_sd, "", &mut faults),
        };
        let usual_sd = MEASUREMENT_SD.check(&self.measurement_sd, "", &mut faults);
        let house = Coefficients::default().value(&GATE_SIGMA);
        let filter = ScalarFilter {
            walk_sd: WALK_SD.check(&self.walk_sd, "", &mut faults),
            gate_sigma: GATE.check_or(&self.gate_sigma, house, "", &mut faults),
        };
        let given = self.observations.as_deref().unwrap_or_default();
        if self.observations.is_none() {
            faults.push("observations", "the list of observations is missing; it may be empty");
        }
        if given.len() > MOST {
            let message = format!("up to {MOST} observations; {} were given", given.len());
            faults.push("observations", message);
        }
        let observations: Vec<(f64, f64)> = given
            .iter()
            .take(MOST)
            .enumerate()
            .map(|(at, one)| {
                let at = format!("observations[{at}].");
                let value = VALUE.check(&one.value, &at, &mut faults);
                (value, SD.check_or(&one.sd, usual_sd, &at, &mut faults))
            })
            .collect();
        faults.or(())?;
        Ok(LearnedNumber::of(prior, filter, observations))
    }
}
