//! The subject's verdicts in words.

use std::fmt::{self, Display, Formatter};

use serde::Serialize;

use super::alveograph::STRAY;
use super::blend::{Conflict, ConflictOf, Side};
use super::farinograph::{AIM_FU, FALLEN_FU, OFF_AIM_FU};
use super::{
    AlveogramNote, Barred, FarinogramNote, FlourAge, FlourName, LateMark, NameKind, NameProtein,
    NameStanding, SiftMiss, StrengthClass, TenacityClass,
};
use crate::units::words::{describe, serialize_in_words};

serialize_in_words!(AlveogramNote, FarinogramNote, Barred, FlourAge, SiftMiss);
describe!(FlourName as FlourNameWords);
describe!(Conflict as ConflictWords);

/// A flour's name as it travels.
#[derive(Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub(super) struct FlourNameWords {
    /// Country of the system: FR, DE, IT, US.
    system: &'static str,
    kind: NameKind,
    /// The name, or what stands for one: “between T55 and T65”.
    name: String,
    /// Which rule gave it, with the figure it was read from.
    message: String,
}

impl From<FlourName> for FlourNameWords {
    fn from(named: FlourName) -> Self {
        let (system, kind, name) = (named.system, named.kind(), named.name());
        Self { system, kind, name, message: named.to_string() }
    }
}

impl FlourName {
    /// The name, or what stands for one.
    pub fn name(&self) -> String {
        match self.standing {
            NameStanding::NoClass | NameStanding::UnknownAsh => "–".into(),
            NameStanding::Class { class, asks, .. } if asks.is_short() => {
                format!("{class} by ash only")
            }
            NameStanding::Class { asks: NameProtein::Use { patent, found: Some(by) }, .. } => {
                if patent {
                    format!("{}, patent", by.used)
                } else {
                    by.used.into()
                }
            }
            NameStanding::Class { class, .. } => class.into(),
            NameStanding::Between { below, above, .. } => format!("between {below} and {above}"),
            NameStanding::Above { last, .. } => format!("above {last}"),
            NameStanding::Below { .. } => "below every class".into(),
        }
    }
}

/// Which rule gave the name, with the figure it was read from.
impl Display for FlourName {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        let (ash_pct, asks) = match self.standing {
            NameStanding::NoClass => return f.write_str("no class for this grain"),
            NameStanding::UnknownAsh => {
                return f.write_str("its ash, or the moisture to move it by, is not known");
            }
            NameStanding::Class { ash_pct, asks, .. } => (ash_pct, asks),
            NameStanding::Between { ash_pct, .. }
            | NameStanding::Above { ash_pct, .. }
            | NameStanding::Below { ash_pct } => (ash_pct, NameProtein::Nothing),
        };
        let rule = match self.system {
            "DE" => "DIN 10355, ash on dry matter",
            "US" => "descriptive, ash on 14 %",
            _ => "ash on dry matter",
        };
        write!(f, "{rule}: {ash_pct:.2} %")?;
        match asks {
            NameProtein::Nothing => Ok(()),
            NameProtein::Least { least_pct, has_pct: None } => {
                write!(f, "; it also asks for protein of {least_pct:.1} %, not known here")
            }
            NameProtein::Least { least_pct, has_pct: Some(has) } if has < least_pct => {
                write!(f, "; protein {has:.1} % is below its {least_pct:.1} %")
            }
            NameProtein::Least { least_pct, has_pct: Some(has) } => {
                write!(f, "; protein {has:.1} % of at least {least_pct:.1} %")
            }
            NameProtein::Use { found: None, .. } => {
                f.write_str("; its use goes by protein on 14 %, not known here")
            }
            NameProtein::Use { found: Some(by), .. } => {
                write!(f, "; for {} by protein {:.1} % on 14 % (H)", by.used, by.protein_14_pct)
            }
        }
    }
}

impl Display for FlourAge {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        match self {
            Self::Green { until_days } => write!(
                f,
                "green: its strength comes with {until_days:.0} days of age; it needs oxidation or \
                 time"
            ),
            Self::Aged { .. } => {
                f.write_str("aged: it takes a little more water and acts stronger")
            }
        }
    }
}

impl Display for StrengthClass {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        f.write_str(match self {
            Self::Weak => "weak",
            Self::Low => "low",
            Self::Medium => "medium",
            Self::Strong => "strong",
            Self::VeryStrong => "very strong",
        })
    }
}

impl Display for TenacityClass {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        f.write_str(match self {
            Self::Extensible => "extensible",
            Self::Balanced => "balanced",
            Self::BalancedToTenacious => "between balanced and tenacious",
            Self::Tenacious => "tenacious",
        })
    }
}

impl Display for Barred {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        f.write_str(match self {
            Self::Held => "it is held",
            Self::Rejected => "it was rejected",
            Self::ReleasedForEarlier => {
                "it was released for an earlier certificate or specification, and is out of this \
                 one"
            }
            Self::OutOfSpecification => {
                "it is out of its specification and nobody has released it with a note"
            }
        })
    }
}

impl Display for SiftMiss {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        match self {
            Self::MoreAshThanThere { removed_pct, bran_ash_pct, most_pct } => write!(
                f,
                "{removed_pct} % of bran at {bran_ash_pct} % ash is more ash than the flour has; \
                 at most {most_pct:.1} % can be bran"
            ),
            Self::NotLower { wanted_pct, has_pct } => write!(
                f,
                "sieving only lowers ash: {wanted_pct} % is above the flour's {has_pct} %; \
                 nothing is removed"
            ),
        }
    }
}

/// A conflict as it travels.
#[derive(Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub(super) struct ConflictWords {
    /// A property, or `share` where the shares themselves cannot add up to 100 %.
    property: &'static str,
    side: Side,
    wanted: f64,
    /// The nearest that can be had while the targets it conflicts with are kept.
    best_reachable: f64,
    says: String,
}

impl From<Conflict> for ConflictWords {
    fn from(conflict: Conflict) -> Self {
        let says = conflict.to_string();
        let Conflict { of, side, wanted, best_reachable, .. } = conflict;
        Self { property: of.key(), side, wanted, best_reachable, says }
    }
}

impl Display for Conflict {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        let Self { of, side, wanted, best_reachable, kept } = self;
        let property = match (of, side) {
            (ConflictOf::Property(property), _) => property,
            (ConflictOf::Shares, Side::Max) => {
                return write!(f, "the smallest shares add up to {best_reachable:.1} %, above 100");
            }
            (ConflictOf::Shares, Side::Min) => {
                return write!(f, "the largest shares add up to {best_reachable:.1} %, below 100");
            }
        };
        let (word, bound) = match side {
            Side::Min => ("at most", "minimum"),
            Side::Max => ("at least", "maximum"),
        };
        let (label, unit) = (property.label(), property.unit());
        write!(f, "{label} can be {word} {best_reachable:.2} {unit} ")?;
        if kept.is_empty() {
            f.write_str("from these flours within their shares")?;
        } else {
            let kept: Vec<_> = kept.iter().map(|other| other.label()).collect();
            write!(f, "while {} is kept", kept.join(" and "))?;
        }
        write!(f, "; the {bound} is {wanted}")
    }
}

impl Display for FarinogramNote {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        match self {
            Self::EndsBefore { mark, ends_min, after_peak_min } => {
                let none = match mark {
                    LateMark::Mti => "no MTI",
                    LateMark::Softening => "no softening",
                };
                write!(
                    f,
                    "the trace ends at {ends_min:.1} min, less than {after_peak_min} min after the \
                     peak: {none}"
                )
            }
            Self::NoQualityNumber => write!(
                f,
                "the trace ends before the centre has fallen {FALLEN_FU} FU: no quality number"
            ),
            Self::EndsAtTop => {
                f.write_str("the trace ends at its highest point: it may have risen further")
            }
            Self::PeakOffAim { peak_fu } => write!(
                f,
                "the peak is at {peak_fu:.0} FU, more than {OFF_AIM_FU} off {AIM_FU}: repeat the \
                 titration with other water; arrival and departure are read at the peak's height"
            ),
            Self::NoBand => f.write_str(
                "no width of the band was given: arrival, departure and MTI are read on the centre \
                 line",
            ),
            Self::NoArrival { line_fu } => {
                write!(f, "the upper edge never reaches the {line_fu:.0} FU line")
            }
            Self::NoDeparture { line_fu } => write!(
                f,
                "the trace ends before the upper edge leaves the {line_fu:.0} FU line: no departure \
                 and no stability"
            ),
        }
    }
}

impl Display for AlveogramNote {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        match self {
            Self::NoRupture { curve } => {
                write!(f, "curve {curve} ends before its bubble bursts: it is read to its end")
            }
            Self::LeftOut { curve, l_mm, median_mm } => write!(
                f,
                "curve {curve} is left out: it burst at {l_mm:.1} mm, more than {:.0} % from the \
                 median of {median_mm:.1} mm",
                100.0 * STRAY
            ),
            Self::CurvesDisagree => {
                f.write_str("the curves disagree too much to leave one out: repeat the test")
            }
        }
    }
}
