use serde::Serialize;

use super::Process;
use crate::coefficient::Coefficients;
use crate::flour::{FlourAge, StrengthClass, TenacityClass};

/// What a dough may need besides flour, water, yeast and salt.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum ConditioningMeans {
    /// Stronger film: an oxidant.
    Oxidation,
    /// A dough that gives: a reducer or time.
    Relaxation,
}

/// How much of it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum ConditioningDemand {
    None,
    Little,
    Usual,
    Much,
}

impl ConditioningDemand {
    const fn of(points: i32) -> Self {
        match points {
            i32::MIN..=0 => Self::None,
            1 => Self::Little,
            2 => Self::Usual,
            _ => Self::Much,
        }
    }
}

/// One need with its reasons and what meets it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Conditioning {
    pub help: ConditioningMeans,
    pub need: ConditioningDemand,
    pub because: Vec<ConditioningReason>,
    /// What the trade uses; the dose is the supplier's and the law's.
    pub usual: &'static str,
    /// What does it without a name on the label.
    pub clean_label: &'static str,
    pub goes_into: AdditionPoint,
}

/// What speaks for or against oxidation or relaxation.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum ConditioningReason {
    /// What the process leaves to be done.
    Process(ConditioningMeans, Process),
    WeakW(f64, StrengthClass),
    StrongW(f64),
    Age(FlourAge),
    TenaciousPOverL(f64),
    GivingPOverL(f64),
    /// A very strong flour springs back.
    SpringsBack,
}

/// Where in the method an addition goes in.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum AdditionPoint {
    FirstMixing,
    /// Green flour needs it for all of its time.
    Sponge,
    /// Into the sponge only where time to work is wanted.
    DoughRatherThanSponge,
    DoughNeverSponge,
}

/// What the flour says of itself, as far as it is known.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct FlourStrength {
    pub w: Option<f64>,
    pub p_over_l: Option<f64>,
    /// Days from milling to mixing.
    pub age_days: Option<f64>,
}

/// Oxidation and relaxation a dough needs by its flour's strength and age and by the time its
/// process gives it. House judgement; no doses.
///
/// ```
/// use ironpeel_core::coefficient::Coefficients;
/// use ironpeel_core::method::{ConditioningDemand, FlourStrength, Process, conditioning};
/// let house = Coefficients::default();
/// let green = FlourStrength { w: Some(200.0), age_days: Some(1.0), ..FlourStrength::default() };
/// assert_eq!(conditioning(green, Process::NoTime, &house)[0].need, ConditioningDemand::Much);
/// let old = FlourStrength { w: Some(320.0), age_days: Some(20.0), ..FlourStrength::default() };
/// assert_eq!(conditioning(old, Process::LongCold, &house)[0].need, ConditioningDemand::None);
/// ```
pub fn conditioning(
    flour: FlourStrength,
    process: Process,
    coefficients: &Coefficients,
) -> [Conditioning; 2] {
    [oxidation(flour, process, coefficients), relaxation(flour, process, coefficients)]
}

fn oxidation(flour: FlourStrength, process: Process, coefficients: &Coefficients) -> Conditioning {
    let help = ConditioningMeans::Oxidation;
    let age = flour.age_days.and_then(|days| FlourAge::of(days, coefficients));
    let green = matches!(age, Some(FlourAge::Green { .. }));
    let mut tally = DemandBalance::default();
    let by_process = ConditioningReason::Process(help, process);
    match process {
        Process::NoTime | Process::Frozen => tally.add(2, by_process),
        Process::StraightBulk | Process::SpongeDough => tally.add(1, by_process),
        Process::LongCold => {}
    }
    if let Some(w) = flour.w {
        match StrengthClass::of(w, coefficients) {
            class @ (StrengthClass::Weak | StrengthClass::Low) => {
                tally.add(1, ConditioningReason::WeakW(w, class));
            }
            StrengthClass::VeryStrong => tally.add(-1, ConditioningReason::StrongW(w)),
            StrengthClass::Medium | StrengthClass::Strong => {}
        }
    }
    match age {
        Some(green @ FlourAge::Green { .. }) => tally.add(1, ConditioningReason::Age(green)),
        Some(aged @ FlourAge::Aged { .. }) => tally.add(-1, ConditioningReason::Age(aged)),
        None => {}
    }
    Conditioning {
        help,
        need: ConditioningDemand::of(tally.points),
        because: tally.because,
        usual: "ascorbic acid",
        clean_label: "acerola, glucose oxidase, a sponge, folds, or flour that has aged",
        goes_into: match process {
            Process::SpongeDough if green => AdditionPoint::Sponge,
            Process::SpongeDough => AdditionPoint::DoughRatherThanSponge,
            _ => AdditionPoint::FirstMixing,
        },
    }
}

fn relaxation(flour: FlourStrength, process: Process, coefficients: &Coefficients) -> Conditioning {
    let help = ConditioningMeans::Relaxation;
    let mut tally = DemandBalance::default();
    if matches!(process, Process::NoTime | Process::Frozen) {
        tally.add(1, ConditioningReason::Process(help, process));
    }
    if let Some(ratio) = flour.p_over_l {
        match TenacityClass::of(ratio, coefficients) {
            TenacityClass::Tenacious => tally.add(2, ConditioningReason::TenaciousPOverL(ratio)),
            TenacityClass::Extensible => tally.add(-1, ConditioningReason::GivingPOverL(ratio)),
            TenacityClass::Balanced | TenacityClass::BalancedToTenacious => {}
        }
    }
    let very_strong = |w| StrengthClass::of(w, coefficients) == StrengthClass::VeryStrong;
    if flour.w.is_some_and(very_strong) {
        tally.add(1, ConditioningReason::SpringsBack);
    }
    Conditioning {
        help,
        need: ConditioningDemand::of(tally.points),
        because: tally.because,
        usual: "L-cysteine",
        clean_label: "inactivated yeast, protease, a sponge, an autolyse, or a longer floor time",
        goes_into: if process == Process::SpongeDough {
            AdditionPoint::DoughNeverSponge
        } else {
            AdditionPoint::FirstMixing
        },
    }
}

#[derive(Default)]
struct DemandBalance {
    points: i32,
    because: Vec<ConditioningReason>,
}

impl DemandBalance {
    fn add(&mut self, points: i32, because: ConditioningReason) {
        self.points += points;
        self.because.push(because);
    }
}
