use serde::Serialize;

use super::coefficients as c;
use super::{Method, Mixer, Speed};
use crate::coefficient::{Coefficient, Coefficients};
use crate::dough::coefficients::DOUGH_SPECIFIC_HEAT;
use crate::units::Estimate;

/// How much work a dough gets.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum MixingClass {
    HandFolds,
    Short,
    Improved,
    Intensive,
}

impl MixingClass {
    /// Every class, the least work first.
    pub const ALL: [Self; 4] = [Self::HandFolds, Self::Short, Self::Improved, Self::Intensive];

    /// Energy to full development, kJ/kg.
    pub const fn kj_per_kg(self) -> &'static Coefficient {
        match self {
            Self::HandFolds => &c::HAND_FOLDS,
            Self::Short => &c::SHORT_MIX,
            Self::Improved => &c::IMPROVED_MIX,
            Self::Intensive => &c::INTENSIVE_MIX,
        }
    }

    /// The class that so much work belongs to: the one whose band is nearest.
    ///
    /// ```
    /// use ironpeel_core::{coefficient::Coefficients, method::MixingClass};
    /// assert_eq!(MixingClass::of(12.0, &Coefficients::default()), MixingClass::Short);
    /// assert_eq!(MixingClass::of(29.0, &Coefficients::default()), MixingClass::Intensive);
    /// ```
    pub fn of(kj_per_kg: f64, coefficients: &Coefficients) -> Self {
        let off = |class: &Self| {
            let band = coefficients.band(class.kj_per_kg());
            (band.low - kj_per_kg).max(kj_per_kg - band.high)
        };
        let nearest = Self::ALL.into_iter().min_by(|one, other| off(one).total_cmp(&off(other)));
        nearest.unwrap_or(Self::Short)
    }
}

/// What a class of mixing takes on a mixer, after the slow minutes the method has.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Development {
    pub class: MixingClass,
    pub kj_per_kg: Estimate,
    /// Minutes at fast speed; none where the mixer gives nothing at it.
    pub fast_min: Option<Estimate>,
    /// How far it warms the dough, °C.
    pub warms_c: Estimate,
}

/// What each class of mixing takes on this mixer: energy per kilo is power times minutes, and all
/// of it ends as heat in the dough, `ΔT = energy / 2.8`.
///
/// ```
/// use ironpeel_core::coefficient::Coefficients;
/// use ironpeel_core::method::{Method, Mixer, MixingClass, Process, Speed, Stage, StageKind, developments};
/// let slow = Stage { speed: Some(Speed::Slow), ..Stage::new(StageKind::Mix, "Pick-up", 2.0) };
/// let method = Method {
///     process: Process::NoTime, target_c: 27.0, sponge_c: None, machine_divided: true,
///     stages: vec![slow],
/// };
/// let mixer = Mixer {
///     name: "Mixer".into(), kind: "horizontal".into(), min_kg: 150.0, max_kg: 500.0,
///     slow_kj_per_kg_min: 1.5, fast_kj_per_kg_min: 3.0, jacket_kj_per_kg_min: None,
/// };
/// let intensive = developments(&method, &mixer, &Coefficients::default())[3];
/// assert_eq!(intensive.class, MixingClass::Intensive);
/// // 36 kJ/kg, of which two slow minutes give 3.
/// assert_eq!(intensive.fast_min.map(|band| band.typical), Some(11.0));
/// ```
pub fn developments(
    method: &Method,
    mixer: &Mixer,
    coefficients: &Coefficients,
) -> Vec<Development> {
    let slow: f64 = method
        .stages
        .iter()
        .filter(|stage| stage.mixes_dough() && stage.speed != Some(Speed::Fast))
        .map(|stage| stage.minutes * mixer.slow_kj_per_kg_min)
        .sum();
    MixingClass::ALL
        .into_iter()
        .map(|class| {
            let energy = coefficients.band(class.kj_per_kg());
            let minutes = |kj: f64| ((kj - slow) / mixer.fast_kj_per_kg_min).max(0.0);
            Development {
                class,
                kj_per_kg: energy,
                fast_min: (mixer.fast_kj_per_kg_min > 0.0).then(|| {
                    Estimate::new(
                        minutes(energy.typical),
                        minutes(energy.low),
                        minutes(energy.high),
                    )
                }),
                warms_c: energy.times(1.0 / DOUGH_SPECIFIC_HEAT.value),
            }
        })
        .collect()
}
