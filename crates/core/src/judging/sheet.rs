use serde::{Deserialize, Serialize};

use super::MARKS;
use super::coefficients as c;
use crate::coefficient::Coefficients;

/// A characteristic of a loaf that is marked.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Characteristic {
    Volume,
    Shape,
    CrustColour,
    CrustCharacter,
    Break,
    Openness,
    Evenness,
    CrumbColour,
    Texture,
    Stickiness,
    Slicing,
    Flavour,
}

impl Characteristic {
    /// Every one, in the order of the sheet.
    pub const ALL: [Self; 12] = [
        Self::Volume,
        Self::Shape,
        Self::CrustColour,
        Self::CrustCharacter,
        Self::Break,
        Self::Openness,
        Self::Evenness,
        Self::CrumbColour,
        Self::Texture,
        Self::Stickiness,
        Self::Slicing,
        Self::Flavour,
    ];

    /// Its word in addresses and fields.
    pub const fn key(self) -> &'static str {
        match self {
            Self::Volume => "volume",
            Self::Shape => "shape",
            Self::CrustColour => "crust_colour",
            Self::CrustCharacter => "crust_character",
            Self::Break => "break",
            Self::Openness => "openness",
            Self::Evenness => "evenness",
            Self::CrumbColour => "crumb_colour",
            Self::Texture => "texture",
            Self::Stickiness => "stickiness",
            Self::Slicing => "slicing",
            Self::Flavour => "flavour",
        }
    }

    /// Its weight where a product states none; all together 100.
    pub fn weight(self, coefficients: &Coefficients) -> f64 {
        coefficients.value(match self {
            Self::Volume => &c::WEIGHT_VOLUME,
            Self::Shape => &c::WEIGHT_SHAPE,
            Self::CrustColour => &c::WEIGHT_CRUST_COLOUR,
            Self::CrustCharacter => &c::WEIGHT_CRUST_CHARACTER,
            Self::Break => &c::WEIGHT_BREAK,
            Self::Openness => &c::WEIGHT_OPENNESS,
            Self::Evenness => &c::WEIGHT_EVENNESS,
            Self::CrumbColour => &c::WEIGHT_CRUMB_COLOUR,
            Self::Texture => &c::WEIGHT_TEXTURE,
            Self::Stickiness => &c::WEIGHT_STICKINESS,
            Self::Slicing => &c::WEIGHT_SLICING,
            Self::Flavour => &c::WEIGHT_FLAVOUR,
        })
    }

    /// Whether a mark under the best says on which side it lies.
    pub const fn is_two_sided(self) -> bool {
        matches!(self, Self::Volume | Self::CrustColour | Self::Break | Self::Openness)
    }

    /// Whether a low mark of it is a stop whatever the total is.
    const fn stops(self) -> bool {
        matches!(self, Self::Volume | Self::Stickiness | Self::Flavour)
    }
}

/// On which side of the standard a loaf lies.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Sign {
    TooLittle,
    TooMuch,
}

impl Sign {
    pub(super) const fn other(self) -> Self {
        match self {
            Self::TooLittle => Self::TooMuch,
            Self::TooMuch => Self::TooLittle,
        }
    }
}

/// A mark of one characteristic, 1 to 5, 5 the product's standard.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ScoreMark {
    pub of: Characteristic,
    pub mark: f64,
    pub sign: Option<Sign>,
}

impl ScoreMark {
    /// As the fault finder takes a two-sided one: below nothing where there is too little.
    ///
    /// ```
    /// use ironpeel_core::judging::{Characteristic, ScoreMark, Sign};
    /// let pale =
    ///     ScoreMark { of: Characteristic::CrustColour, mark: 3.0, sign: Some(Sign::TooLittle) };
    /// assert_eq!(pale.signed(), Some(-2.0));
    /// ```
    pub fn signed(&self) -> Option<f64> {
        let off = MARKS.1 - self.mark;
        match self.sign {
            _ if !self.of.is_two_sided() => None,
            Some(Sign::TooLittle) => Some(-off),
            Some(Sign::TooMuch) => Some(off),
            None => (off == 0.0).then_some(0.0),
        }
    }
}

/// What a sheet comes to.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ScoreTotal {
    /// 0 to 100; none where too little is marked.
    pub total: Option<f64>,
    /// Weight that is marked, of 100.
    pub weight: f64,
    /// Marked so low that no total buys it back.
    pub stops: Vec<Characteristic>,
}

/// The total of a sheet: `Q = 100·Σ w(m − 1)/4 / Σ w` over what is marked; none if less than a
/// weight of 70 is. Weights are a product's own, or the house's.
///
/// ```
/// use ironpeel_core::{coefficient::Coefficients, judging::{Characteristic, ScoreMark, total}};
/// let marks = Characteristic::ALL.map(|of| ScoreMark { of, mark: 3.0, sign: None });
/// let house = Coefficients::default();
/// let found = total(&marks, |of| of.weight(&house), &house);
/// assert_eq!(found.total, Some(50.0));
/// ```
pub fn total(
    marks: &[ScoreMark],
    weight: impl Fn(Characteristic) -> f64,
    coefficients: &Coefficients,
) -> ScoreTotal {
    let marked: f64 = marks.iter().map(|mark| weight(mark.of)).sum();
    let (least, most) = MARKS;
    let sum: f64 =
        marks.iter().map(|mark| weight(mark.of) * (mark.mark - least) / (most - least)).sum();
    let enough = marked > 0.0 && marked >= coefficients.value(&c::LEAST_WEIGHT);
    let stop = coefficients.value(&c::STOP_MARK);
    let stops = marks.iter().filter(|mark| mark.of.stops() && mark.mark <= stop);
    ScoreTotal {
        total: enough.then(|| 100.0 * sum / marked),
        weight: marked,
        stops: stops.map(|mark| mark.of).collect(),
    }
}

/// The mark a measurement stands for, not rounded: `max(1, 5 − 4·|x − T|/R)`, T the product's
/// target and R the range over which it falls to the worst.
///
/// ```
/// use ironpeel_core::judging::{Characteristic, Sign, measured_mark};
/// let small = measured_mark(Characteristic::Volume, 3.76, 4.0, 1.0);
/// assert!((small.mark - 4.04).abs() < 1e-9);
/// assert_eq!(small.sign, Some(Sign::TooLittle));
/// ```
pub fn measured_mark(of: Characteristic, measured: f64, target: f64, range: f64) -> ScoreMark {
    let (least, most) = MARKS;
    let off = measured - target;
    let mark = (most - (most - least) * off.abs() / range).max(least);
    let sign = if off < 0.0 { Sign::TooLittle } else { Sign::TooMuch };
    ScoreMark { of, mark, sign: (of.is_two_sided() && off != 0.0).then_some(sign) }
}
