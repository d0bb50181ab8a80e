use super::Characteristic;
use super::coefficients as c;
use crate::coefficient::{Coefficient, Coefficients};

/// How a characteristic is measured where somebody measures instead of marking.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Measure {
    /// What is measured.
    pub words: &'static str,
    pub unit: &'static str,
    /// The usual target; none where each product has its own.
    pub target: Option<f64>,
    range: Range,
    /// Whether a larger figure is less of the characteristic: more cells are a closer crumb.
    pub is_inverse: bool,
    /// Whether the figure says on which side it lies; a distance of colours does not.
    pub says_side: bool,
}

#[derive(Debug, Clone, Copy, PartialEq)]
enum Range {
    /// Per cent of the target.
    Share(f64),
    /// In the measure's own unit.
    Own(f64),
}

impl Measure {
    /// The range over which the mark falls to the worst, where a product states none.
    pub fn range(&self, target: f64) -> f64 {
        match self.range {
            Range::Share(share_pct) => target * share_pct / 100.0,
            Range::Own(range) => range,
        }
    }
}

impl Characteristic {
    /// How it is measured, if it can be; the ranges are house defaults.
    ///
    /// ```
    /// use ironpeel_core::{coefficient::Coefficients, judging::Characteristic};
    /// let volume = Characteristic::Volume.measure(&Coefficients::default()).unwrap();
    /// assert_eq!((volume.unit, volume.target, volume.range(4.0)), ("ml/g", None, 1.0));
    /// assert!(Characteristic::Flavour.measure(&Coefficients::default()).is_none());
    /// ```
    pub fn measure(self, coefficients: &Coefficients) -> Option<Measure> {
        let of = |coefficient: &Coefficient| coefficients.value(coefficient);
        let share = |coefficient| Range::Share(of(coefficient));
        let own = |coefficient| Range::Own(of(coefficient));
        let measure = |words, unit, target, range| Measure {
            words,
            unit,
            target,
            range,
            is_inverse: self == Self::Openness,
            says_side: self != Self::CrustColour,
        };
        Some(match self {
            Self::Volume => measure("specific volume", "ml/g", None, share(&c::RANGE_VOLUME)),
            Self::Shape => measure("height left less right", "mm", Some(0.0), own(&c::RANGE_SHAPE)),
            Self::CrustColour => {
                measure("distance from the colour chip", "ΔE", Some(0.0), own(&c::RANGE_CRUST))
            }
            Self::CrustCharacter => {
                measure("blisters over 4 mm", "", Some(0.0), own(&c::RANGE_BLISTERS))
            }
            Self::Break => {
                measure("spring from oven entry to exit", "mm", None, share(&c::RANGE_SPRING))
            }
            Self::Openness => measure("cells", "per cm²", None, share(&c::RANGE_CELLS)),
            Self::Evenness => measure(
                "largest hole not of the style",
                "mm",
                Some(of(&c::TARGET_HOLE)),
                own(&c::RANGE_HOLE),
            ),
            Self::CrumbColour => {
                measure("distance from the colour chip", "ΔE", Some(0.0), own(&c::RANGE_CRUMB))
            }
            Self::Texture => {
                measure("recovery in 5 s after 25 % press", "%", Some(100.0), own(&c::RANGE_PRESS))
            }
            Self::Slicing => {
                measure("crumbs in the tray per loaf", "g", None, share(&c::RANGE_TRAY))
            }
            Self::Stickiness | Self::Flavour => return None,
        })
    }
}
