use std::borrow::Cow;

use nalgebra::{Matrix4, Vector4};
use serde::{Deserialize, Serialize};

use super::coefficients as c;
use crate::coefficient::{Coefficient, Coefficients, Origin};
use crate::units::{Estimate, NumberRange, RawNumber, ValidationErrors};

const MOST_LOTS: usize = 5000;

/// What makes a flour thirsty, as far as its certificate states it.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Composition {
    pub protein_14_pct: Option<f64>,
    pub damaged_starch_pct: Option<f64>,
    pub ash_dm_pct: Option<f64>,
}

impl Composition {
    fn stated(self) -> [Option<f64>; 3] {
        [self.protein_14_pct, self.damaged_starch_pct, self.ash_dm_pct]
    }

    /// `(1, protein − 12, damaged starch − 7.5, ash − 0.60)`, what is not stated at the centre.
    fn row(self) -> Vector4<f64> {
        let [protein, damaged, ash] = self.stated();
        let off = |value: Option<f64>, centre| value.map_or(0.0, |value| value - centre);
        let centre = [&c::CENTRE_PROTEIN, &c::CENTRE_DAMAGED_STARCH, &c::CENTRE_ASH];
        let [at_protein, at_damaged, at_ash] = centre.map(|at| at.value);
        Vector4::new(1.0, off(protein, at_protein), off(damaged, at_damaged), off(ash, at_ash))
    }
}

/// A predicted absorption on 14 %.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Predicted {
    pub mean_pct: f64,
    /// Predictive standard deviation.
    pub sd_pct: f64,
}

/// One coefficient of the model as it stands.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Learned {
    pub key: &'static str,
    pub label: &'static str,
    pub mean: f64,
    pub sd: f64,
}

/// What is believed of how protein, damaged starch and ash make a flour drink: a Bayesian linear
/// model, first the house's, then moved by the plant's own lots.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub struct AbsorptionModel {
    mean: [f64; 4],
    covariance: [[f64; 4]; 4],
    lots: u32,
    /// Standard deviation of a measured absorption about the model, in points.
    #[serde(default = "noise_sd")]
    noise_sd: f64,
    /// How far protein, damaged starch and ash may lie from the centre where they are not stated.
    #[serde(default = "unstated_sd")]
    unstated_sd: [f64; 3],
}

fn noise_sd() -> f64 {
    c::MODEL_SD.value
}

fn unstated_sd() -> [f64; 3] {
    UNSTATED.map(|sd| sd.value)
}

const UNSTATED: [&Coefficient; 3] = [&c::PROTEIN_SD, &c::DAMAGED_STARCH_SD, &c::ASH_SD];
/// Of a point of protein, damaged starch and ash.
const PER_POINT: [&Coefficient; 3] = [&c::PER_PROTEIN, &c::PER_DAMAGED_STARCH, &c::PER_ASH];

impl AbsorptionModel {
    /// What is believed before any lot: each coefficient's value, half its band as the standard
    /// deviation. Of the house: means (60.0, 1.1, 1.4, 4.0), standard deviations (1.5, 0.4, 0.4, 2.0).
    pub fn prior(coefficients: &Coefficients) -> Self {
        let [protein, damaged, ash] = PER_POINT;
        let priors = [&c::AT_CENTRE, protein, damaged, ash].map(|one| coefficients.band(one));
        let sd = priors.map(|prior| (prior.high - prior.low) / 2.0);
        Self {
            mean: priors.map(|prior| prior.typical),
            covariance: Matrix4::from_diagonal(&Vector4::from(sd.map(|sd| sd.powi(2)))).into(),
            lots: 0,
            noise_sd: coefficients.value(&c::MODEL_SD),
            unstated_sd: UNSTATED.map(|sd| coefficients.value(sd)),
        }
    }

    /// How many lots it has learned from.
    pub const fn lots(&self) -> u32 {
        self.lots
    }

    /// Moves the belief by one lot (conjugate update, noise 1.5 points).
    ///
    /// `k = Σx/(xᵀΣx + σ²)`, `β ← β + k(y − xᵀβ)`, `Σ ← Σ − k xᵀΣ`.
    ///
    /// ```
    /// use ironpeel_core::water::{AbsorptionModel, Composition};
    /// let lots = [(12.6, 8.1, 0.60, 63.4), (13.4, 8.8, 0.63, 65.0), (11.2, 6.9, 0.56, 60.1),
    ///     (13.1, 8.2, 1.62, 69.5)];
    /// let model = lots.iter().fold(AbsorptionModel::default(), |model, (protein, damaged, ash, y)| {
    ///     model.learn(Composition { protein_14_pct: Some(*protein), damaged_starch_pct: Some(*damaged), ash_dm_pct: Some(*ash) }, *y)
    /// });
    /// let found = model.predict(Composition { protein_14_pct: Some(13.2), damaged_starch_pct: Some(8.6), ash_dm_pct: Some(0.62) });
    /// assert!((found.mean_pct - 64.50).abs() < 0.005 && (found.sd_pct - 1.70).abs() < 0.005);
    /// ```
    #[must_use]
    pub fn learn(self, lot: Composition, absorption_14_pct: f64) -> Self {
        let (x, mean, covariance) = (lot.row(), self.beliefs(), self.spread());
        let spread = covariance * x;
        let gain = spread / (x.dot(&spread) + self.noise_sd.powi(2));
        let mean = mean + gain * (absorption_14_pct - x.dot(&mean));
        let covariance = covariance - gain * spread.transpose();
        // What rounding tears apart is put together again.
        let covariance = (covariance + covariance.transpose()) / 2.0;
        Self { mean: mean.into(), covariance: covariance.into(), lots: self.lots + 1, ..self }
    }

    /// The absorption on 14 % of a flour, with the predictive standard deviation
    /// `√(xᵀΣx + σ²)`. What the certificate does not state is taken at the centre and widens it.
    pub fn predict(&self, flour: Composition) -> Predicted {
        let (x, mean) = (flour.row(), self.beliefs());
        let unstated: f64 = flour
            .stated()
            .iter()
            .zip(self.unstated_sd)
            .zip(mean.iter().skip(1))
            .filter(|((stated, _), _)| stated.is_none())
            .map(|((_, sd), per)| (sd * per).powi(2))
            .sum();
        let variance = x.dot(&(self.spread() * x)) + self.noise_sd.powi(2) + unstated;
        Predicted { mean_pct: x.dot(&mean), sd_pct: variance.sqrt() }
    }

    /// Each coefficient with its standard deviation.
    pub fn coefficients(&self) -> Vec<Learned> {
        [
            ("centre", "at 12 % protein, 7.5 % damaged starch, 0.60 % ash"),
            ("protein", "per point of protein on 14 %"),
            ("damaged_starch", "per point of damaged starch"),
            ("ash", "per point of ash on dry matter"),
        ]
        .into_iter()
        .enumerate()
        .map(|(at, (key, label))| Learned {
            key,
            label,
            mean: self.mean[at],
            sd: self.covariance[at][at].max(0.0).sqrt(),
        })
        .collect()
    }

    /// Points of water per point of protein, damaged starch and ash, as believed here: before any lot
    /// what the plant or the house says, then what its own lots made of them.
    pub fn per_point(&self) -> [Coefficient; 3] {
        let mut at = 0;
        PER_POINT.map(|house| {
            at += 1;
            let (mean, sd) = (self.mean[at], self.covariance[at][at].max(0.0).sqrt());
            let origin = if self.lots > 0 { Origin::Plant } else { house.origin };
            let source = if self.lots > 0 {
                Cow::Borrowed("learned from the plant's own lots")
            } else {
                house.source.clone()
            };
            house.as_found(Estimate::new(mean, mean - sd, mean + sd), origin, source)
        })
    }

    /// Of those, what a point of ash is worth.
    pub fn per_ash(&self) -> Coefficient {
        let [.., ash] = self.per_point();
        ash
    }

    fn beliefs(&self) -> Vector4<f64> {
        Vector4::from(self.mean)
    }

    fn spread(&self) -> Matrix4<f64> {
        Matrix4::from(self.covariance)
    }
}

impl Default for AbsorptionModel {
    fn default() -> Self {
        Self::prior(&Coefficients::default())
    }
}

/// A lot the model is to learn from, or the flour it is to predict.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CompositionInput {
    /// 0 to 40 %.
    #[serde(default)]
    pub protein_14_pct: RawNumber,
    /// 0 to 40 %.
    #[serde(default)]
    pub damaged_starch_pct: RawNumber,
    /// 0 to 10 %.
    #[serde(default)]
    pub ash_dm_pct: RawNumber,
    /// 20 to 150 %; of a lot only.
    #[serde(default)]
    pub absorption_14_pct: RawNumber,
}

/// What the `absorption-model` calculator is asked.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AbsorptionModelInput {
    /// Up to 5000 measured lots, in the order they came.
    #[serde(default)]
    pub lots: Option<Vec<CompositionInput>>,
    #[serde(default)]
    pub flour: CompositionInput,
}

/// What the model says of a flour.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AbsorptionModelAnswer {
    #[serde(flatten)]
    pub predicted: Predicted,
    pub coefficients: Vec<Learned>,
    /// How many lots it learned from.
    pub lots: u32,
}

pub(super) const PROTEIN: NumberRange =
    NumberRange::new("protein_14_pct", "protein on 14 % moisture", "%", 0.0, 40.0);
pub(super) const DAMAGED: NumberRange =
    NumberRange::new("damaged_starch_pct", "damaged starch", "%", 0.0, 40.0);
pub(super) const ASH: NumberRange =
    NumberRange::new("ash_dm_pct", "ash on dry matter", "%", 0.0, 10.0);
pub(super) const ABSORPTION: NumberRange =
    NumberRange::new("absorption_14_pct", "absorption on 14 % moisture", "%", 20.0, 150.0);

impl CompositionInput {
    fn check(&self, at: &str, faults: &mut ValidationErrors) -> Composition {
        Composition {
            protein_14_pct: Some(PROTEIN.check(&self.protein_14_pct, at, faults)),
            damaged_starch_pct: Some(DAMAGED.check(&self.damaged_starch_pct, at, faults)),
            ash_dm_pct: Some(ASH.check(&self.ash_dm_pct, at, faults)),
        }
    }
}

impl AbsorptionModelInput {
    /// Checks every field, learns the lots, predicts the flour.
    pub fn compute(&self) -> Result<AbsorptionModelAnswer, ValidationErrors> {
        let mut faults = ValidationErrors::default();
        let lots = self.lots.as_deref().unwrap_or_default();
        if self.lots.is_none() {
            faults.push("lots", "the list of measured lots is missing; it may be empty");
        }
        if lots.len() > MOST_LOTS {
            let message = format!("up to {MOST_LOTS} lots; {} were given", lots.len());
            faults.push("lots", message);
        }
        let mut model = AbsorptionModel::default();
        for (at, lot) in lots.iter().take(MOST_LOTS).enumerate() {
            let at = format!("lots[{at}].");
            let composition = lot.check(&at, &mut faults);
            let absorption = ABSORPTION.check(&lot.absorption_14_pct, &at, &mut faults);
            model = model.learn(composition, absorption);
        }
        let flour = self.flour.check("flour.", &mut faults);
        faults.or(AbsorptionModelAnswer {
            predicted: model.predict(flour),
            coefficients: model.coefficients(),
            lots: model.lots(),
        })
    }
}
