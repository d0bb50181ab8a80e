use serde::{Deserialize, Serialize};

use super::coefficients::{DROPS_AT, LAG_SPONGE, RETENTION_WHEAT};
use super::{FermentationPoint, FermentingDough, Kinetics, Phase, ferment};
use crate::coefficient::Coefficients;
use crate::flour::LEAST_FALLING_NUMBER_S;
use crate::units::{NumberRange, RawNumber, ValidationErrors};

/// A fermentation to be followed.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FermentationInput {
    /// 1 to 20.
    #[serde(default)]
    pub phases: Vec<PhaseInput>,
    #[serde(default)]
    pub dough: FermentingInput,
    /// Share of the gas that is kept, 0.1 to 1; 0.85 if left out.
    #[serde(default)]
    pub retention: RawNumber,
    /// Speed beside the house's, 0.05 to 20; 1 if left out.
    #[serde(default)]
    pub rate: RawNumber,
    /// Rises to be told the time of, up to 20, each 0 to 2000 %.
    #[serde(default)]
    pub rise_targets_pct: Vec<RawNumber>,
    /// In which the yeast wakes, counted from its own wetting, 0 to 2 h; 0.25 if left out.
    #[serde(default)]
    pub lag_h: RawNumber,
    /// What the film holds, 10 to 2000 %; without it the rise has no end.
    #[serde(default)]
    pub rise_limit_pct: RawNumber,
}

/// A stretch of time somewhere.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct PhaseInput {
    /// More than 0, up to 240 h.
    #[serde(default)]
    pub hours: RawNumber,
    /// −30 to 60 °C.
    #[serde(default)]
    pub ambient_c: RawNumber,
}

/// A dough as far as its fermentation cares.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FermentingInput {
    /// 0 to 20 % of flour; 0 if left out.
    #[serde(default)]
    pub yeast_idy_pct: RawNumber,
    /// Prefermented flour, 0 to 100 % of all flour; 0 if left out.
    #[serde(default)]
    pub sour_pct: RawNumber,
    /// 0 to 5; 1 if left out.
    #[serde(default)]
    pub sour_activity: RawNumber,
    /// 0 to 10 % of flour; 0 if left out.
    #[serde(default)]
    pub salt_pct: RawNumber,
    /// 0 to 60 % of flour; 0 if left out.
    #[serde(default)]
    pub sugar_pct: RawNumber,
    /// 20 to 200 % of flour.
    #[serde(default)]
    pub hydration_pct: RawNumber,
    /// 0 to 40 % of flour.
    #[serde(default)]
    pub damaged_starch_pct: RawNumber,
    /// 62 to 1000 s.
    #[serde(default)]
    pub falling_number_s: RawNumber,
    /// −5 to 55 °C.
    #[serde(default)]
    pub start_c: RawNumber,
    /// 0.01 to 10 000 kg.
    #[serde(default)]
    pub mass_kg: RawNumber,
}

/// When it has risen so far.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct RiseReached {
    pub rise_pct: f64,
    /// None if it never does in the time given.
    pub at_h: Option<f64>,
}

/// How a dough rises.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FermentationAnswer {
    pub times: Vec<RiseReached>,
    /// At least every five minutes.
    pub series: Vec<FermentationPoint>,
    /// Where a limit of the rise was given.
    #[serde(flatten)]
    pub ripeness: Option<Ripeness>,
}

/// When a dough drops, and when a sponge is then ripe: it drops at two thirds of its time (H).
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Ripeness {
    /// None if the film never gives way in the time given.
    pub drop_h: Option<f64>,
    pub ripe_h: Option<f64>,
    pub ripe_low_h: Option<f64>,
    pub ripe_high_h: Option<f64>,
}

impl Ripeness {
    /// Of a dough that drops then.
    ///
    /// ```
    /// use ironpeel_core::{coefficient::Coefficients, ferment::Ripeness};
    /// let ripe = Ripeness::of(Some(2.480), &Coefficients::default());
    /// assert!((ripe.ripe_h.unwrap() - 3.758).abs() < 0.001);
    /// ```
    pub fn of(drop_h: Option<f64>, coefficients: &Coefficients) -> Self {
        let drops_at = coefficients.band(&DROPS_AT);
        let at = |share: f64| drop_h.map(|drop| drop / share);
        Self {
            drop_h,
            ripe_h: at(drops_at.typical),
            ripe_low_h: at(drops_at.high),
            ripe_high_h: at(drops_at.low),
        }
    }
}

const MOST_PHASES: usize = 20;
const MOST_TARGETS: usize = 20;
const HOURS: NumberRange = NumberRange::new("hours", "time", "h", 0.001, 240.0);
const AMBIENT: NumberRange = NumberRange::new("ambient_c", "what is around it", "°C", -30.0, 60.0);
const RETENTION: NumberRange = NumberRange::new("retention", "share of the gas kept", "", 0.1, 1.0);
const RATE: NumberRange =
    NumberRange::new("rate", "fermentation rate, relative to default", "", 0.05, 20.0);
const LAG: NumberRange = NumberRange::new("lag_h", "lag of the yeast", "h", 0.0, 2.0);
const LIMIT: NumberRange =
    NumberRange::new("rise_limit_pct", "what the film holds", "%", 10.0, 2000.0);
const TARGET: NumberRange = NumberRange::new("", "rise", "%", 0.0, 2000.0);
const YEAST: NumberRange =
    NumberRange::new("yeast_idy_pct", "instant yeast", "% of flour", 0.0, 20.0);
const SOUR: NumberRange =
    NumberRange::new("sour_pct", "prefermented flour", "% of flour", 0.0, 100.0);
const ACTIVITY: NumberRange =
    NumberRange::new("sour_activity", "activity of the sour", "", 0.0, 5.0);
const SALT: NumberRange = NumberRange::new("salt_pct", "salt", "% of flour", 0.0, 10.0);
const SUGAR: NumberRange = NumberRange::new("sugar_pct", "sugar", "% of flour", 0.0, 60.0);
const HYDRATION: NumberRange =
    NumberRange::new("hydration_pct", "hydration", "% of flour", 20.0, 200.0);
const DAMAGED: NumberRange =
    NumberRange::new("damaged_starch_pct", "damaged starch", "%", 0.0, 40.0);
const FALLING: NumberRange =
    NumberRange::new("falling_number_s", "falling number", "s", LEAST_FALLING_NUMBER_S, 1000.0);
const START: NumberRange =
    NumberRange::new("start_c", "dough temperature at the start", "°C", -5.0, 55.0);
const MASS: NumberRange = NumberRange::new("mass_kg", "mass of the dough", "kg", 0.01, 10_000.0);

impl FermentingInput {
    fn check(&self, retention: f64, rate: f64, faults: &mut ValidationErrors) -> FermentingDough {
        let at = "dough.";
        FermentingDough {
            yeast_idy_pct: YEAST.check_or(&self.yeast_idy_pct, 0.0, at, faults),
            sour_pct: SOUR.check_or(&self.sour_pct, 0.0, at, faults),
            sour_activity: ACTIVITY.check_or(&self.sour_activity, 1.0, at, faults),
            salt_pct: SALT.check_or(&self.salt_pct, 0.0, at, faults),
            sugar_pct: SUGAR.check_or(&self.sugar_pct, 0.0, at, faults),
            hydration_pct: HYDRATION.check(&self.hydration_pct, at, faults),
            damaged_starch_pct: DAMAGED.check(&self.damaged_starch_pct, at, faults),
            falling_number_s: FALLING.check(&self.falling_number_s, at, faults),
            start_c: START.check(&self.start_c, at, faults),
            mass_kg: MASS.check(&self.mass_kg, at, faults),
            retention,
            rate,
            lag_h: LAG_SPONGE.value,
            rise_limit_pct: None,
            kinetics: Kinetics::default(),
        }
    }
}

impl FermentationInput {
    /// Checks every field, then follows the dough.
    ///
    /// ```
    /// use ironpeel_core::ferment::FermentationInput;
    /// let input: FermentationInput = serde_json::from_str(r#"{
    ///     "phases": [{"hours": 10, "ambient_c": 23}],
    ///     "dough": {"sour_pct": 15, "salt_pct": 2, "hydration_pct": 78, "damaged_starch_pct": 8,
    ///               "falling_number_s": 330, "start_c": 25, "mass_kg": 1.2},
    ///     "rise_targets_pct": [50, 100]}"#)?;
    /// let found = input.compute()?;
    /// assert!((found.times[0].at_h.unwrap() - 4.37).abs() < 0.04);
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    pub fn compute(&self) -> Result<FermentationAnswer, ValidationErrors> {
        let mut faults = ValidationErrors::default();
        let (dough, phases, targets) = self.check(&mut faults);
        faults.or(())?;
        let curve = ferment(&dough, &phases);
        let times = targets
            .into_iter()
            .map(|rise_pct| RiseReached { rise_pct, at_h: curve.reaches(rise_pct) })
            .collect();
        let ripeness =
            dough.rise_limit_pct.map(|_| Ripeness::of(curve.drop_h, &Coefficients::default()));
        Ok(FermentationAnswer { times, series: curve.points, ripeness })
    }

    /// The dough, its phases and the rises that are asked for, or what is wrong with them.
    pub(super) fn check(
        &self,
        faults: &mut ValidationErrors,
    ) -> (FermentingDough, Vec<Phase>, Vec<f64>) {
        let count = self.phases.len();
        if !(1..=MOST_PHASES).contains(&count) {
            let message = format!("1 to {MOST_PHASES} phases, each with hours; {count} were given");
            faults.push("phases", message);
        }
        let phases: Vec<Phase> = self
            .phases
            .iter()
            .take(MOST_PHASES)
            .enumerate()
            .map(|(at, phase)| {
                let at = format!("phases[{at}].");
                let hours = HOURS.check(&phase.hours, &at, faults);
                Phase::rest(hours, AMBIENT.check(&phase.ambient_c, &at, faults))
            })
            .collect();
        let retention = RETENTION.check_or(&self.retention, RETENTION_WHEAT.value, "", faults);
        let rate = RATE.check_or(&self.rate, 1.0, "", faults);
        let dough = FermentingDough {
            lag_h: LAG.check_or(&self.lag_h, LAG_SPONGE.value, "", faults),
            rise_limit_pct: LIMIT.check_opt(&self.rise_limit_pct, "", faults),
            ..self.dough.check(retention, rate, faults)
        };
        if self.rise_targets_pct.len() > MOST_TARGETS {
            let count = self.rise_targets_pct.len();
            let message = format!("up to {MOST_TARGETS} rises; {count} were given");
            faults.push("rise_targets_pct", message);
        }
        let targets: Vec<f64> = self
            .rise_targets_pct
            .iter()
            .take(MOST_TARGETS)
            .enumerate()
            .map(|(at, target)| TARGET.check(target, &format!("rise_targets_pct[{at}]"), faults))
            .collect();
        (dough, phases, targets)
    }
}
