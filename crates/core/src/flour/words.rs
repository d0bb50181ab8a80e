//! The subject's verdicts in words.

use std::fmt::{self, Display, Formatter};

use super::alveograph::STRAY;
use super::farinograph::{AIM_FU, FALLEN_FU, OFF_AIM_FU};
use super::{AlveogramNote, FarinogramNote, LateMark};
use crate::units::serialize_in_words;

serialize_in_words!(AlveogramNote, FarinogramNote);

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
