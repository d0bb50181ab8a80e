use serde::Serialize;

use super::Process;
use super::coefficients as c;
use crate::coefficient::Coefficients;
use crate::flour::coefficients::{AGED_DAYS, GREEN_DAYS};
use crate::flour::strength;

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
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Conditioning {
    pub help: ConditioningMeans,
    pub need: ConditioningDemand,
    pub because: Vec<String>,
    /// What the trade uses; the dose is the supplier's and the law's.
    pub usual: &'static str,
    /// What does it without a name on the label.
    pub clean_label: &'static str,
    /// Where it goes in.
    pub goes_into: &'static str,
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
    let here = |coefficient| coefficients.value(coefficient);
    let green = flour.age_days.is_some_and(|days| days < here(&GREEN_DAYS));
    let sponge = process == Process::SpongeDough;
    let mut tally = DemandBalance::default();
    match process {
        Process::NoTime => tally.add(2, "no time: nothing but the mixer and the oxidant builds it"),
        Process::Frozen => tally.add(2, "ice and gas both tear the film"),
        Process::StraightBulk => tally.add(1, "some hours of rest do part of it"),
        Process::SpongeDough => tally.add(1, "the sponge's hours do most of it"),
        Process::LongCold => {}
    }
    match flour.w {
        Some(w) if w < here(&c::WEAK_W) => {
            tally.add(1, &format!("W {w:.0} is {}: its film needs help", strength(w)));
        }
        Some(w) if w > here(&c::STRONG_W) => tally.add(-1, &format!("W {w:.0} holds by itself")),
        _ => {}
    }
    if green {
        tally
            .add(1, "green flour, under 48 hours from the mill, does not yet hold what its W says");
    }
    if flour.age_days.is_some_and(|days| days > here(&AGED_DAYS)) {
        tally.add(-1, "flour past two weeks has taken up its air");
    }
    Conditioning {
        help: ConditioningMeans::Oxidation,
        need: ConditioningDemand::of(tally.points),
        because: tally.because,
        usual: "ascorbic acid",
        clean_label: "acerola, glucose oxidase, a sponge, folds, or flour that has aged",
        goes_into: if sponge && green {
            "into the sponge: green flour needs it for all of its time"
        } else if sponge {
            "into the dough; into the sponge only where time to work is wanted, with care for enzymes"
        } else {
            "at the first mixing"
        },
    }
}

fn relaxation(flour: FlourStrength, process: Process, coefficients: &Coefficients) -> Conditioning {
    let here = |coefficient| coefficients.value(coefficient);
    let sponge = process == Process::SpongeDough;
    let mut tally = DemandBalance::default();
    match process {
        Process::NoTime => tally.add(1, "no floor time to relax in"),
        Process::Frozen => tally.add(1, "a straight dough that is shaped at once"),
        _ => {}
    }
    match flour.p_over_l {
        Some(ratio) if ratio > here(&c::TENACIOUS) => {
            tally.add(2, &format!("P/L {ratio:.2} is tenacious"));
        }
        Some(ratio) if ratio < here(&c::GIVING) => {
            tally.add(-1, &format!("P/L {ratio:.2} gives by itself"));
        }
        _ => {}
    }
    if flour.w.is_some_and(|w| w > here(&c::STRONG_W)) {
        tally.add(1, "a very strong flour springs back at the moulder");
    }
    Conditioning {
        help: ConditioningMeans::Relaxation,
        need: ConditioningDemand::of(tally.points),
        because: tally.because,
        usual: "L-cysteine",
        clean_label: "inactivated yeast, protease, a sponge, an autolyse, or a longer floor time",
        goes_into: if sponge { "into the dough, never the sponge" } else { "at the first mixing" },
    }
}

#[derive(Default)]
struct DemandBalance {
    points: i32,
    because: Vec<String>,
}

impl DemandBalance {
    fn add(&mut self, points: i32, because: &str) {
        self.points += points;
        self.because.push(because.to_owned());
    }
}
