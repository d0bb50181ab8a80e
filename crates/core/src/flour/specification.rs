use std::borrow::Cow;

use serde::{Deserialize, Serialize};
use thiserror::Error;

use super::property::folded;
use super::{BasisConversion, Censored, MoistureBasis, Property, Reading, Readings, Repeatability};
use crate::coefficient::Coefficients;

/// What a specification wants of one property: any of minimum, target and maximum, on one basis.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Limit {
    pub property: Property,
    pub basis: Option<MoistureBasis>,
    pub min: Option<f64>,
    pub target: Option<f64>,
    pub max: Option<f64>,
    /// Must, or only should: a lot is never out for what it only should have.
    #[serde(default = "must")]
    pub must: bool,
    /// The method it is to be measured by, where that matters.
    #[serde(default)]
    pub method: Option<String>,
}

const fn must() -> bool {
    true
}

/// A limit that cannot be kept.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub enum LimitFault {
    #[error("{0} needs a minimum, a target or a maximum")]
    Empty(&'static str),
    #[error("{0}: minimum, target and maximum must rise")]
    NotRising(&'static str),
    #[error("{0} needs the basis its limits are on")]
    NoBasis(&'static str),
}

impl Limit {
    /// Whether it can be kept at all.
    pub fn check(&self) -> Result<(), LimitFault> {
        let label = self.property.label();
        let given: Vec<f64> = [self.min, self.target, self.max].into_iter().flatten().collect();
        if given.is_empty() {
            return Err(LimitFault::Empty(label));
        }
        if !given.is_sorted() || given.iter().any(|value| !value.is_finite()) {
            return Err(LimitFault::NotRising(label));
        }
        if self.basis.is_none() && self.property.basis_conversion() != BasisConversion::None {
            return Err(LimitFault::NoBasis(label));
        }
        Ok(())
    }

    /// A value against these limits.
    ///
    /// Within the method's repeatability of a limit, on either side, it is borderline: the
    /// laboratory could as well have found it on the other.
    ///
    /// ```
    /// use ironpeel_core::coefficient::Coefficients;
    /// use ironpeel_core::flour::{Limit, MoistureBasis, Property, Verdict};
    /// let house = Coefficients::default();
    /// let ash = Limit {
    ///     property: Property::Ash, basis: Some(MoistureBasis::DryMatter),
    ///     min: None, target: Some(0.60), max: Some(0.64), must: true, method: None,
    /// };
    /// assert_eq!(ash.judge(0.60, &house), Verdict::In);
    /// assert_eq!(ash.judge(0.65, &house), Verdict::Borderline);
    /// assert_eq!(ash.judge(0.67, &house), Verdict::Out);
    /// ```
    pub fn judge(&self, value: f64, coefficients: &Coefficients) -> Verdict {
        // Two decimals more than any laboratory states, so that 0.66 − 0.64 is 0.02.
        const SLACK: f64 = 1e-9;
        let repeats = self.property.repeatability(coefficients);
        let fringe = |limit: f64| repeats.at(limit) + SLACK;
        let beyond = |limit: f64, distance: f64| {
            if distance > fringe(limit) {
                Verdict::Out
            } else if distance >= -fringe(limit) && fringe(limit) > SLACK {
                Verdict::Borderline
            } else {
                Verdict::In
            }
        };
        let below = self.min.map_or(Verdict::In, |min| beyond(min, min - value));
        let above = self.max.map_or(Verdict::In, |max| beyond(max, value - max));
        below.max(above)
    }

    /// As [`Self::judge`], of a value of which only a side may be known. Such a bound is out where
    /// everything on its side is beyond a limit, in where everything on its side keeps both, and
    /// borderline where it does not decide.
    ///
    /// ```
    /// use ironpeel_core::coefficient::Coefficients;
    /// use ironpeel_core::flour::{Censored, Limit, Property, Verdict};
    /// let house = Coefficients::default();
    /// let limit = |min, max| Limit {
    ///     property: Property::FallingNumber, basis: None, min, target: None, max, must: true,
    ///     method: None,
    /// };
    /// let below_300 = |limit: Limit| limit.judge_reading(300.0, Some(Censored::Below), &house);
    /// assert_eq!(below_300(limit(None, Some(350.0))), Verdict::In);
    /// assert_eq!(below_300(limit(Some(350.0), None)), Verdict::Out);
    /// assert_eq!(below_300(limit(Some(250.0), None)), Verdict::Borderline);
    /// assert_eq!(below_300(limit(None, Some(250.0))), Verdict::Borderline);
    /// ```
    pub fn judge_reading(
        &self,
        value: f64,
        censored: Option<Censored>,
        coefficients: &Coefficients,
    ) -> Verdict {
        let one_side = |min, max| Self { min, max, ..self.clone() }.judge(value, coefficients);
        let (nearest, farther) = match censored {
            None => return self.judge(value, coefficients),
            Some(Censored::Below) => (one_side(self.min, None), self.min.is_some()),
            Some(Censored::Above) => (one_side(None, self.max), self.max.is_some()),
        };
        if nearest == Verdict::Out {
            Verdict::Out
        } else if farther || self.judge(value, coefficients) != Verdict::In {
            Verdict::Borderline
        } else {
            Verdict::In
        }
    }

    /// What a rule's verdict counts for the lot.
    fn counts(&self, verdict: Verdict) -> Verdict {
        if self.must { verdict } else { verdict.min(Verdict::Borderline) }
    }
}

/// A lot that has what a specification aims at: each target as a reading.
pub fn targets(limits: &[Limit]) -> Readings {
    let reading = |limit: &Limit| {
        Some(Reading {
            property: limit.property,
            value: limit.target?,
            basis: limit.basis,
            method: None,
            censored: None,
        })
    };
    Readings(limits.iter().filter_map(reading).collect())
}

/// How a reading, or a lot, stands to its specification; the later, the worse.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Verdict {
    In,
    /// Within the method's repeatability of a limit.
    Borderline,
    /// Asked for and not on the certificate, or not to be had on the basis asked for.
    Missing,
    Out,
}

/// One property of a specification with what the lot has.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct RequirementCheck {
    #[serde(flatten)]
    pub limit: Limit,
    pub label: &'static str,
    pub unit: &'static str,
    /// The lot's value on the limit's basis.
    pub value: Option<f64>,
    /// The fringe around each limit, in the property's unit.
    pub fringe_min: f64,
    pub fringe_max: f64,
    pub verdict: Verdict,
    /// The verdict in words.
    pub message: Cow<'static, str>,
    /// Measured by another method than was asked for: the figures may not agree.
    pub other_method: bool,
}

/// A lot against a specification.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Assessment {
    pub verdict: Verdict,
    pub checks: Vec<RequirementCheck>,
}

/// Holds a lot's readings against the limits: the verdict is the worst of its readings.
///
/// Holding or rejecting stays a person's act.
pub fn assess(limits: &[Limit], readings: &Readings, coefficients: &Coefficients) -> Assessment {
    let checks: Vec<RequirementCheck> =
        limits.iter().map(|limit| rule(limit, readings, coefficients)).collect();
    Assessment { verdict: worst(&checks), checks }
}

/// As [`assess`], with only the rules that are not simply in: what a what-if looks at.
pub fn nonconformities(
    limits: &[Limit],
    readings: &Readings,
    coefficients: &Coefficients,
) -> Assessment {
    let not_in = |limit: &&Limit| judged(limit, readings, coefficients).1 != Verdict::In;
    let checks: Vec<RequirementCheck> =
        limits.iter().filter(not_in).map(|limit| rule(limit, readings, coefficients)).collect();
    Assessment { verdict: worst(&checks), checks }
}

/// The verdict of the lot, each rule's as far as it counts.
fn worst(checks: &[RequirementCheck]) -> Verdict {
    checks.iter().map(|rule| rule.limit.counts(rule.verdict)).max().unwrap_or(Verdict::In)
}

fn judged(
    limit: &Limit,
    readings: &Readings,
    coefficients: &Coefficients,
) -> (Option<f64>, Verdict) {
    let value = readings.value(limit.property, limit.basis);
    let censored = readings.get(limit.property).and_then(|reading| reading.censored);
    (
        value,
        value.map_or(Verdict::Missing, |value| limit.judge_reading(value, censored, coefficients)),
    )
}

fn rule(limit: &Limit, readings: &Readings, coefficients: &Coefficients) -> RequirementCheck {
    let reading = readings.get(limit.property);
    let (value, verdict) = judged(limit, readings, coefficients);
    let repeats = limit.property.repeatability(coefficients);
    let message = match (value, reading) {
        (Some(_), Some(Reading { censored: Some(_), .. })) if verdict == Verdict::Borderline => {
            "only a bound is stated, and it does not decide against the limit".into()
        }
        (Some(value), _) => words(limit, value, verdict, repeats),
        (None, Some(_)) => {
            "cannot be moved to this basis: the lot's moisture is not on the certificate".into()
        }
        (None, None) => "asked for, and not on the certificate".into(),
    };
    let fringe = |bound: Option<f64>| bound.map_or(0.0, |at| repeats.at(at));
    RequirementCheck {
        limit: limit.clone(),
        label: limit.property.label(),
        unit: limit.property.unit(),
        value,
        fringe_min: fringe(limit.min),
        fringe_max: fringe(limit.max),
        verdict,
        message,
        other_method: limit.method.as_deref().is_some_and(|wanted| {
            reading.is_some_and(|reading| {
                reading.method.as_deref().is_some_and(|method| folded(method) != folded(wanted))
            })
        }),
    }
}

fn words(limit: &Limit, value: f64, verdict: Verdict, repeats: Repeatability) -> Cow<'static, str> {
    let nearest = [("minimum", limit.min), ("maximum", limit.max)]
        .into_iter()
        .filter_map(|(name, bound)| bound.map(|at| (name, at, value - at)))
        .min_by(|a, b| a.2.abs().total_cmp(&b.2.abs()));
    let Some((name, at, distance)) = nearest else {
        return "no limit, only a target".into();
    };
    let side = if distance < 0.0 { "below" } else { "above" };
    let far = round3(distance.abs());
    match verdict {
        Verdict::In => "inside its limits".into(),
        Verdict::Borderline => {
            let repeats = match repeats {
                Repeatability::AtLeast(step) => format!("the step it is stated to ({step})"),
                known => format!("what the method repeats to ({})", round3(known.at(at))),
            };
            format!("{far} {side} the {name} of {at}: within {repeats}").into()
        }
        Verdict::Missing | Verdict::Out => format!("{far} {side} the {name} of {at}").into(),
    }
}

/// How finely a repeatability is said.
const THOUSANDTHS: f64 = 1000.0;

fn round3(value: f64) -> f64 {
    (value * THOUSANDTHS).round() / THOUSANDTHS
}
