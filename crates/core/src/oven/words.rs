//! The subject's verdicts in words.

use std::fmt::{self, Display, Formatter};

use super::{BakeTraceNote, ProbeLeftOut};
use crate::units::serialize_in_words;

serialize_in_words!(BakeTraceNote, ProbeLeftOut);

impl Display for BakeTraceNote {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        match self {
            Self::BeginsAbove { probe, level_c } => {
                write!(f, "{probe} begins above {level_c:.0} °C: no crossing of it was seen")
            }
            Self::NeverArrives { probe, arrival_c, highest_c } => write!(
                f,
                "{probe} never arrives at {arrival_c:.0} °C; it comes to {highest_c:.1}: look whether \
                 it sat in the core"
            ),
            Self::EndsEarly { last_min, bake_min } => write!(
                f,
                "the trace ends after {last_min:.1} of {bake_min:.1} min; the end's temperature is \
                 that of its last sample"
            ),
        }
    }
}

impl Display for ProbeLeftOut {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        match self {
            Self::Silent { probe, from_min } => {
                write!(f, "{probe} wrote nothing at {from_min:.1} min: it is left out")
            }
            Self::NoCore { probe, from_min, read_c } => write!(
                f,
                "{probe} read {read_c:.0} °C at {from_min:.1} min: it fell out of the loaf, and is left out"
            ),
        }
    }
}
