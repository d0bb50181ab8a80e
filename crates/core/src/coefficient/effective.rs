use std::borrow::Cow;

use serde::{Deserialize, Serialize};

use super::{Coefficient, Origin, Override};
use crate::units::Estimate;

/// The coefficients as they hold at a plant: the house's, but where it has its own.
///
/// ```
/// use ironpeel_core::coefficient::{Coefficients, Override};
/// use ironpeel_core::{units::Estimate, water::coefficients::RYE_OFFSET};
/// let own = Override {
///     key: "rye_offset".into(), off: false, value: Estimate::new(9.0, 8.0, 10.0),
///     reason: "weighed for a year".into(),
/// };
/// assert_eq!(Coefficients::default().value(&RYE_OFFSET), 8.0);
/// assert_eq!(Coefficients(vec![own]).value(&RYE_OFFSET), 9.0);
/// ```
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
pub struct Coefficients(pub Vec<Override>);

/// A coefficient as it holds here.
#[derive(Debug, Clone, PartialEq)]
pub struct EffectiveCoefficient<'a> {
    pub value: Estimate,
    pub origin: Origin,
    pub reason: Cow<'a, str>,
    pub off: bool,
}

impl Coefficients {
    /// What the plant has in place of the house's; none where the house's holds.
    pub fn own(&self, coefficient: &Coefficient) -> Option<&Override> {
        self.0.iter().find(|own| own.key == coefficient.key)
    }

    /// The coefficient as it holds here.
    pub fn get(&self, coefficient: &Coefficient) -> EffectiveCoefficient<'_> {
        match self.own(coefficient) {
            Some(own) => EffectiveCoefficient {
                value: own.value,
                origin: Origin::Plant,
                reason: Cow::Borrowed(&own.reason),
                off: own.off,
            },
            None => EffectiveCoefficient {
                value: coefficient.band(),
                origin: coefficient.origin,
                reason: coefficient.source.clone(),
                off: false,
            },
        }
    }

    /// Its value here.
    pub fn value(&self, coefficient: &Coefficient) -> f64 {
        self.own(coefficient).map_or(coefficient.value, |own| own.value.typical)
    }

    /// Its value here with its band.
    pub fn band(&self, coefficient: &Coefficient) -> Estimate {
        self.own(coefficient).map_or(coefficient.band(), |own| own.value)
    }

    /// Its value; none where it is switched off, so that its effect is left out and nothing else.
    pub fn active(&self, coefficient: &Coefficient) -> Option<f64> {
        match self.own(coefficient) {
            Some(own) => (!own.off).then_some(own.value.typical),
            None => Some(coefficient.value),
        }
    }

    /// The coefficient as it holds here, to answer “why?” with.
    pub fn effective(&self, coefficient: &Coefficient) -> Coefficient {
        let EffectiveCoefficient { value, origin, reason, .. } = self.get(coefficient);
        coefficient.as_found(value, origin, reason.into_owned())
    }
}
