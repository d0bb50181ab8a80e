//! The subject's verdicts in words.

use std::fmt::{self, Display, Formatter};

use super::{HeatCaution, RemedyAmount, Unreachable};
use crate::units::serialize_in_words;

serialize_in_words!(HeatCaution, RemedyAmount, Unreachable);

impl Display for Unreachable {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        match self {
            Self::NoWater { dough_c } => write!(
                f,
                "no water is left to set the temperature with: what goes in, as warm as it is, gives a \
                 dough of {dough_c:.1} °C"
            ),
            Self::NoIce { coldest_c, dough_c } => write!(
                f,
                "the coldest water here is {coldest_c:.1} °C and there is no ice: the dough comes \
                 off at {dough_c:.1} °C"
            ),
            Self::MostIce { ice_pct, dough_c } => write!(
                f,
                "even with {ice_pct:.0} % of the water as ice the dough comes off at {dough_c:.1} °C"
            ),
            Self::HottestUsed { water_c, dough_c } => write!(
                f,
                "water hotter than {water_c:.0} °C is not used; at that the dough comes off at \
                 {dough_c:.1} °C"
            ),
            Self::HottestHere { water_c, dough_c } => write!(
                f,
                "water hotter than {water_c:.0} °C is not to be had here; at that the dough comes \
                 off at {dough_c:.1} °C"
            ),
        }
    }
}

impl Display for RemedyAmount {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        match self {
            Self::FlourCooler { k } => write!(f, "flour {k:.1} K cooler"),
            Self::FlourWarmer { k } => write!(f, "flour {k:.1} K warmer"),
            Self::LessMixing { kj_per_kg, minutes: Some(minutes) } => write!(
                f,
                "{minutes:.1} minutes less mixing ({kj_per_kg:.1} kJ/kg), if the dough is ready by \
                 then"
            ),
            Self::LessMixing { kj_per_kg, minutes: None } => {
                write!(f, "{kj_per_kg:.1} kJ/kg less mixing, if the dough is ready by then")
            }
            Self::JacketOn => f.write_str("the mixer's jacket on"),
            Self::JacketAndLessMixing { jacket_kj_per_kg, wanted_kj_per_kg } => write!(
                f,
                "the mixer's jacket on, and {:.1} kJ/kg less mixing: alone it takes \
                 {jacket_kj_per_kg:.1} of {wanted_kj_per_kg:.1}",
                wanted_kj_per_kg - jacket_kj_per_kg
            ),
            Self::SomeJacket { kj } => {
                write!(f, "a jacket that takes {kj:.0} kJ out of each dough while it mixes")
            }
        }
    }
}

impl Display for HeatCaution {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        match self {
            Self::HotForYeast { limit_c } => write!(
                f,
                "Water above {limit_c:.0} °C must not touch the yeast: flour and water first."
            ),
            Self::FlakeIce => {
                f.write_str("Flake the ice; no lump may be left when development starts.")
            }
        }
    }
}
