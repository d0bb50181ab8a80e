use serde::{Deserialize, Serialize};

use super::FermentationInput;
use super::coefficients::{RATE_SD, RISE_READ_SD, RISE_STRAY};
use super::fit::{BelievedReading, fit, strays};
use super::{FermentingDough, ferment};
use crate::coefficient::Coefficients;
use crate::units::{NINE_TENTHS, NumberRange, RawNumber, ValidationErrors};

/// Readings of a jar or of a dough, to find how fast it goes.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct RateFitInput {
    /// The dough and its phases, up to 2000 h together; its `rate` is what is believed before.
    #[serde(flatten)]
    pub fermentation: FermentationInput,
    /// 1 to 200.
    #[serde(default)]
    pub readings: Vec<RiseReadingInput>,
    /// How far a reading is believed where it does not say itself, 1 to 50 %; 6 if left out.
    #[serde(default)]
    pub read_sd_pct: RawNumber,
    /// How far the rate is believed before, 0.01 to 2; 0.25 if left out.
    #[serde(default)]
    pub prior_sd: RawNumber,
}

/// A rise as it was read.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct RiseReadingInput {
    /// From the beginning, 0 to 4800 h.
    #[serde(default)]
    pub at_h: RawNumber,
    /// −20 to 2000 %.
    #[serde(default)]
    pub rise_pct: RawNumber,
    /// How far it is believed, 1 to 50 %.
    #[serde(default)]
    pub read_sd_pct: RawNumber,
}

/// How fast a dough goes by its readings, and when it will stand where.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct RateFit {
    pub rate: f64,
    pub sd: f64,
    pub times: Vec<RiseTime>,
    /// Readings more than 4 of their σ off the fit of the others, by their place; not counted.
    pub left_out: Vec<usize>,
}

/// When a rise is reached, with its band of 90 %; none where it never is in the time given.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct RiseTime {
    pub rise_pct: f64,
    pub at_h: Option<f64>,
    pub earliest_h: Option<f64>,
    pub latest_h: Option<f64>,
}

const MOST_READINGS: usize = 200;
const MOST_HOURS: f64 = 2000.0;
/// No dough is believed to stand still.
const SLOWEST: f64 = 0.01;
const AT: NumberRange = NumberRange::new("at_h", "when it was read", "h", 0.0, 4800.0);
const RISE: NumberRange =
    NumberRange::new("rise_pct", "the rise that was read", "%", -20.0, 2000.0);
const READ_SD: NumberRange =
    NumberRange::new("read_sd_pct", "how far a reading is believed", "%", 1.0, 50.0);
const PRIOR_SD: NumberRange =
    NumberRange::new("prior_sd", "how far the rate is believed before", "", 0.01, 2.0);

impl RateFitInput {
    /// Checks every field, then finds the rate in 0.2 to 4 that minimises
    /// `Σ((rise(rate) − read)/read_sd)² + ((rate − rate₀)/prior_sd)²`, its sd
    /// `(Σ(∂rise/∂rate / read_sd)² + prior_sd⁻²)^(−1/2)`, and the times at rate ± 1.645 sd.
    ///
    /// ```
    /// use ironpeel_core::ferment::RateFitInput;
    /// let input: RateFitInput = serde_json::from_str(r#"{
    ///     "phases": [{"hours": 6, "ambient_c": 24}],
    ///     "dough": {"yeast_idy_pct": 0.8, "salt_pct": 2, "hydration_pct": 62, "damaged_starch_pct": 7.5,
    ///               "falling_number_s": 300, "start_c": 26, "mass_kg": 20},
    ///     "readings": [{"at_h": 0.927, "rise_pct": 50}], "rise_targets_pct": [100]}"#)?;
    /// let found = input.compute()?;
    /// // It stands where it was expected: the rate is what was believed, and surer.
    /// assert!((found.rate - 1.0).abs() < 0.02 && found.sd < 0.25);
    /// let at = found.times[0];
    /// assert!(at.earliest_h < at.at_h && at.at_h < at.latest_h);
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    pub fn compute(&self) -> Result<RateFit, ValidationErrors> {
        let mut faults = ValidationErrors::default();
        let (dough, phases, targets) = self.fermentation.check(&mut faults);
        let hours: f64 = phases.iter().map(|phase| phase.hours).sum();
        if hours > MOST_HOURS {
            let message = format!("{hours} h together; up to {MOST_HOURS} h are followed");
            faults.push("phases", message);
        }
        let count = self.readings.len();
        if !(1..=MOST_READINGS).contains(&count) {
            faults.push("readings", format!("1 to {MOST_READINGS} readings; {count} were given"));
        }
        let house = Coefficients::default();
        let usual_sd =
            READ_SD.check_or(&self.read_sd_pct, house.value(&RISE_READ_SD), "", &mut faults);
        let prior_sd = PRIOR_SD.check_or(&self.prior_sd, house.value(&RATE_SD), "", &mut faults);
        let readings: Vec<BelievedReading> = self
            .readings
            .iter()
            .take(MOST_READINGS)
            .enumerate()
            .map(|(at, one)| {
                let at = format!("readings[{at}].");
                BelievedReading {
                    t_h: AT.check(&one.at_h, &at, &mut faults),
                    rise_pct: RISE.check(&one.rise_pct, &at, &mut faults),
                    sd_pct: READ_SD.check_or(&one.read_sd_pct, usual_sd, &at, &mut faults),
                }
            })
            .collect();
        faults.or(())?;
        // What the film holds ends the rise, and says nothing of the speed.
        let unlimited = FermentingDough { rise_limit_pct: None, ..dough };
        let left_out = strays(&unlimited, &phases, &readings, prior_sd, house.value(&RISE_STRAY));
        let kept = readings.iter().enumerate().filter(|(at, _)| !left_out.contains(at));
        let kept: Vec<BelievedReading> = kept.map(|(_, one)| *one).collect();
        let found = fit(&unlimited, &phases, &kept, prior_sd);
        let band = NINE_TENTHS * found.sd;
        let [likely, quick, slow] =
            [found.rate, found.rate + band, (found.rate - band).max(SLOWEST)]
                .map(|rate| ferment(&FermentingDough { rate, ..dough }, &phases));
        let times = targets.into_iter().map(|rise_pct| RiseTime {
            rise_pct,
            at_h: likely.reaches(rise_pct),
            earliest_h: quick.reaches(rise_pct),
            latest_h: slow.reaches(rise_pct),
        });
        Ok(RateFit { rate: found.rate, sd: found.sd, times: times.collect(), left_out })
    }
}

#[cfg(test)]
mod tests {
    use serde_json::{Value, json};

    use super::*;
    use crate::ferment::FermentationInput;

    fn asked(readings: &Value) -> RateFitInput {
        serde_json::from_value(json!({
            "phases": [{"hours": 6, "ambient_c": 24}],
            "dough": {"yeast_idy_pct": 0.8, "salt_pct": 2, "hydration_pct": 62, "damaged_starch_pct": 7.5,
                "falling_number_s": 300, "start_c": 26, "mass_kg": 20},
            "readings": readings, "rise_targets_pct": [50, 100, 1900],
        }))
        .expect("the contract's shape")
    }

    /// What a dough at this rate shows at these hours.
    fn shown(rate: f64, hours: &[f64]) -> Vec<(f64, f64)> {
        let input: FermentationInput = serde_json::from_value(json!({
            "phases": [{"hours": 6, "ambient_c": 24}], "rate": rate,
            "dough": {"yeast_idy_pct": 0.8, "salt_pct": 2, "hydration_pct": 62, "damaged_starch_pct": 7.5,
                "falling_number_s": 300, "start_c": 26, "mass_kg": 20},
        }))
        .expect("the contract's shape");
        let series = input.compute().expect("it ferments").series;
        let at = |hour: f64| series.iter().find(|point| point.t_h >= hour - 1e-9).expect("in it");
        hours.iter().map(|hour| (at(*hour).t_h, at(*hour).rise_pct)).collect()
    }

    fn readings(shown: &[(f64, f64)]) -> Value {
        shown.iter().map(|(at_h, rise_pct)| json!({"at_h": at_h, "rise_pct": rise_pct})).collect()
    }

    #[test]
    fn readings_of_a_slow_dough_give_its_rate_and_a_band_that_narrows() {
        let slow = shown(0.7, &[0.5, 1.0, 1.5, 2.0, 2.5, 3.0]);
        let [few, many] = [&slow[..2], &slow[..]]
            .map(|read| asked(&readings(read)).compute().expect("it can be found"));
        assert!((many.rate - 0.7).abs() < 0.02, "{many:?}");
        assert!(many.sd < few.sd && few.sd < 0.25, "{few:?} {many:?}");
        assert!(many.left_out.is_empty());
        let [half, double, never] = many.times[..] else { panic!("{many:?}") };
        assert!(half.earliest_h < half.at_h && half.at_h < half.latest_h);
        assert!(double.at_h > half.at_h && never.at_h.is_none());
    }

    #[test]
    fn a_reading_far_off_the_others_is_named_and_left_out_unless_there_are_few() {
        let mut read = shown(1.2, &[0.5, 1.0, 1.5, 2.0]);
        read[2].1 += 60.0;
        let found = asked(&readings(&read)).compute().expect("it can be found");
        assert_eq!(found.left_out, [2]);
        assert!((found.rate - 1.2).abs() < 0.05, "{found:?}");
        let two = [read[1], read[2]];
        let found = asked(&readings(&two)).compute().expect("it can be found");
        assert!(found.left_out.is_empty(), "of two nobody knows which");
    }

    #[test]
    fn what_cannot_be_used_is_told_at_its_place() {
        let mut input =
            asked(&json!([{"at_h": 1}, {"at_h": 1, "rise_pct": 50, "read_sd_pct": 99}]));
        input.prior_sd = 5.0.into();
        input.fermentation.phases.clear();
        let ValidationErrors(faults) = input.compute().expect_err("refused");
        let fields: Vec<&str> = faults.iter().map(|fault| &*fault.field).collect();
        assert_eq!(
            fields,
            ["phases", "prior_sd", "readings[0].rise_pct", "readings[1].read_sd_pct"]
        );
        let none = asked(&json!([])).compute().expect_err("refused");
        assert_eq!(none.0[0].field, "readings");
    }
}
