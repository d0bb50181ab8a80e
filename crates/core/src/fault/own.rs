//! The weights, thresholds, ratios and limits of the knowledge as coefficients: a plant may have its
//! own of each.

use std::borrow::Cow;
use std::sync::LazyLock;

use super::{CauseOfFault, Comparison, DriftSide, Evidence, Fault, Feature, knowledge};
use crate::batch::observation;
use crate::coefficient::{Coefficient, Coefficients};

/// Where a number stands in the knowledge, by the places of the cause and of its evidence.
#[derive(Debug, Clone, Copy, PartialEq)]
enum Place {
    Weight(usize),
    Threshold(usize, usize),
    RatioTrue(usize, usize),
    RatioFalse(usize, usize),
}

impl Place {
    fn of(self, fault: &mut Fault) -> &mut f64 {
        match self {
            Self::Weight(cause) => &mut fault.causes[cause].weight,
            Self::Threshold(cause, at) => &mut fault.causes[cause].evidence[at].threshold,
            Self::RatioTrue(cause, at) => &mut fault.causes[cause].evidence[at].ratio_true,
            Self::RatioFalse(cause, at) => &mut fault.causes[cause].evidence[at].ratio_false,
        }
    }
}

/// How far a plant's own may lie from the house's judgement: a weight between a quarter of a rare
/// cause's and four times a common one's, a ratio as far as any may speak.
const WEIGHTS: (f64, f64) = (0.25, 16.0);
const RATIOS: (f64, f64) = (0.05, 20.0);
/// The house's judgement is thought right within this factor, and a threshold within its ramp.
const WEIGHT_WITHIN: f64 = 2.0;
const RATIO_WITHIN: f64 = 1.5;
/// Bands of judgement are told to the hundredth.
const HUNDREDTHS: f64 = 100.0;
/// A threshold and a limit may be moved by so many ramps.
const RAMPS: f64 = 10.0;

static NUMBERS: LazyLock<Vec<(&'static Fault, Place, Coefficient)>> = LazyLock::new(|| {
    let of = |fault: &'static Fault| {
        let causes = fault.causes.iter().enumerate();
        causes.flat_map(move |(at, cause)| of_cause(fault, at, cause))
    };
    knowledge().faults.iter().flat_map(of).collect()
});

static LIMITS: LazyLock<Vec<(&'static Feature, DriftSide, Coefficient)>> = LazyLock::new(|| {
    let of = |feature: &'static Feature| {
        let (name, unit) = said(feature);
        let limit = move |side, [word, beyond]: [&str; 2]| {
            let limit = feature.house_limit(side).filter(|_| feature.ramp > 0.0)?;
            let key = format!("fault_limit.{}.{word}", feature.key);
            let name = format!("{name}: unusual {beyond}");
            Some((feature, side, about(key, name, limit, feature.ramp, unit)))
        };
        [limit(DriftSide::Below, ["low", "below"]), limit(DriftSide::Above, ["high", "above"])]
    };
    knowledge().features.iter().flat_map(of).flatten().collect()
});

fn of_cause(
    fault: &'static Fault,
    at: usize,
    cause: &'static CauseOfFault,
) -> Vec<(&'static Fault, Place, Coefficient)> {
    let name = knowledge().cause(&cause.cause).map_or(&*cause.cause, |cause| &cause.name);
    let key = format!("fault.{}.{}", fault.key, cause.cause);
    let weight = times(
        format!("{key}.weight"),
        format!("{name}: weight among the causes"),
        (cause.weight, WEIGHT_WITHIN, WEIGHTS),
        "4 common, 2 possible, 1 rare",
    );
    let mut numbers = vec![(fault, Place::Weight(at), weight)];
    for (place, evidence) in cause.evidence.iter().enumerate() {
        let Some(feature) = knowledge().feature(&evidence.feature) else { continue };
        let key = format!("{key}.{}", evidence.key());
        let (what, unit) = said(feature);
        let asked = format!("{name}, {what} {} {}", evidence.comparison.sign(), evidence.threshold);
        let what = format!("{name}, {what} {}: threshold", evidence.comparison.sign());
        if feature.ramp > 0.0 {
            let threshold =
                about(format!("{key}.threshold"), what, evidence.threshold, feature.ramp, unit);
            numbers.push((fault, Place::Threshold(at, place), threshold));
        }
        let ratio = |word: &str, ratio, says: &str| {
            let of = (ratio, RATIO_WITHIN, RATIOS);
            let source = "how often with this cause, over how often in an ordinary batch";
            times(format!("{key}.{word}"), format!("{asked}: ratio where it {says}"), of, source)
        };
        let met = ratio("true", evidence.ratio_true, "is so");
        let missed = ratio("false", evidence.ratio_false, "is not");
        numbers.push((fault, Place::RatioTrue(at, place), met));
        numbers.push((fault, Place::RatioFalse(at, place), missed));
    }
    numbers
}

fn said(feature: &Feature) -> (&'static str, &'static str) {
    observation(&feature.key).map_or(("", ""), |one| (one.label, one.range.unit()))
}

/// A number thought right within a factor.
fn times(
    key: String,
    name: String,
    (value, factor, (least, most)): (f64, f64, (f64, f64)),
    source: &'static str,
) -> Coefficient {
    let near = |number: f64| (number * HUNDREDTHS).round() / HUNDREDTHS;
    let band = (value, near(value / factor), near(value * factor));
    Coefficient::house(key.leak(), name.leak(), band, "", source).within(least, most)
}

/// A number thought right within its ramp.
fn about(key: String, name: String, value: f64, ramp: f64, unit: &'static str) -> Coefficient {
    let band = (value, value - ramp, value + ramp);
    let far = RAMPS * ramp;
    Coefficient::house(key.leak(), name.leak(), band, unit, "where it begins to count")
        .within(value - far, value + far)
}

/// What the diagnosis of a fault rests on: the weight of each cause, the threshold and the ratios of
/// each piece of its evidence, and the limits of the figures it is told by. House judgement, each of
/// them a plant's own where it has one.
///
/// ```
/// use ironpeel_core::fault::fault_coefficients;
/// let found: Vec<_> = fault_coefficients("smearing").collect();
/// assert_eq!(found[0].key, "fault.smearing.ds_trap_water.weight");
/// assert_eq!(fault_coefficients("no such fault").count(), 0);
/// ```
pub fn fault_coefficients(fault: &str) -> impl Iterator<Item = &'static Coefficient> {
    let features = knowledge().fault(fault).map(Fault::features).unwrap_or_default();
    let limits = LIMITS.iter().filter(move |(of, ..)| features.contains(&&*of.key));
    let numbers = NUMBERS.iter().filter(move |(of, ..)| of.key == fault);
    numbers.map(|(.., one)| one).chain(limits.map(|(.., one)| one))
}

/// The coefficient of a key among those of the knowledge.
pub fn fault_coefficient(key: &str) -> Option<&'static Coefficient> {
    let numbers = NUMBERS.iter().map(|(.., one)| one);
    numbers.chain(LIMITS.iter().map(|(.., one)| one)).find(|one| one.key == key)
}

impl Fault {
    /// It with the plant's own numbers in place of the house's.
    ///
    /// ```
    /// use ironpeel_core::coefficient::{Coefficients, Override};
    /// use ironpeel_core::{fault::knowledge, units::Estimate};
    /// let own = Override {
    ///     key: "fault.smearing.ds_trap_water.weight".into(), off: false,
    ///     value: Estimate::new(2.0, 1.0, 4.0), reason: "no such lots here".into(),
    /// };
    /// let held = knowledge().fault("smearing").unwrap().held(&Coefficients(vec![own])).into_owned();
    /// assert_eq!(held.causes[0].weight, 2.0);
    /// ```
    pub fn held(&self, coefficients: &Coefficients) -> Cow<'_, Self> {
        let mut held = Cow::Borrowed(self);
        for own in coefficients.0.iter().filter(|own| own.key.starts_with("fault.")) {
            let number =
                NUMBERS.iter().find(|(of, _, one)| of.key == self.key && one.key == own.key);
            if let Some((_, place, _)) = number {
                *place.of(held.to_mut()) = own.value.typical;
            }
        }
        held
    }
}

impl Feature {
    /// From where on it is unusual on a side, as it holds at the plant; none where it never is.
    pub fn limit(&self, side: DriftSide, coefficients: &Coefficients) -> Option<f64> {
        let of_side = LIMITS.iter().find(|(of, on, _)| of.key == self.key && *on == side);
        of_side.map(|(.., one)| coefficients.value(one)).or(self.house_limit(side))
    }

    const fn house_limit(&self, side: DriftSide) -> Option<f64> {
        match side {
            DriftSide::Below => self.low,
            DriftSide::Above => self.high,
        }
    }
}

impl Evidence {
    /// What it is told apart by from the other evidence of its cause.
    fn key(&self) -> String {
        format!("{}_{}_{}", self.feature, self.comparison.word(), self.threshold)
    }
}

impl Comparison {
    const fn word(self) -> &'static str {
        match self {
            Self::Gt => "gt",
            Self::Ge => "ge",
            Self::Lt => "lt",
            Self::Le => "le",
            Self::Eq => "eq",
        }
    }

    const fn sign(self) -> &'static str {
        match self {
            Self::Gt => "over",
            Self::Ge => "from",
            Self::Lt => "under",
            Self::Le => "up to",
            Self::Eq => "is",
        }
    }
}
