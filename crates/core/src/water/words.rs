//! The subject's verdicts in words.

use std::fmt::{self, Display, Formatter};

use super::{Caution, ExcessWaterEffect, HoldBackReason, UsualComposition};
use crate::flour::Property;
use crate::units::serialize_in_words;

serialize_in_words!(HoldBackReason, ExcessWaterEffect, UsualComposition);
serialize_in_words!(keyed Caution);

impl Display for Caution {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        match self {
            Self::TooWet { brought_pct, wanted_pct } => write!(
                f,
                "the other ingredients bring {brought_pct:.1} % of water, and the dough wants \
                 {wanted_pct:.1} %: no water is left to weigh. Take less of them, or drier ones"
            ),
            Self::Strength { dough_absorption_pct, w, ceiling_pct } => write!(
                f,
                "{dough_absorption_pct:.1} % is beyond what W {w:.0} is likely to carry \
                 ({ceiling_pct:.1} %): expect a flat, sticky dough"
            ),
            Self::DamagedStarch { damaged_pct } => write!(
                f,
                "damaged starch is {damaged_pct:.1} %: the dough will feel dry early and stick \
                 late. Do not add water for feel; wait, and judge at the divider"
            ),
            Self::Green(age) => write!(f, "a flour is {age}"),
            Self::NoGluten => f.write_str(
                "no gluten film: add the water in stages, mix softly, one rise. Keep it apart from \
                 wheat: flour dust, tins and hands carry gluten over",
            ),
        }
    }
}

impl Display for HoldBackReason {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        match self {
            Self::Bran { whole_grain_pct } => {
                write!(f, "{whole_grain_pct:.0} % of the flour is whole grain: bran drinks slowly")
            }
            Self::WeakFilm(species) => {
                write!(f, "{}: a weak film, wetter than it feels", species.label())
            }
            Self::NoGluten => f.write_str(
                "no gluten: fibres and starches swell slowly, so add the water in stages",
            ),
            Self::Pentosans => f.write_str("rye: pentosans swell slowly"),
            Self::DamagedStarch { over_pct, critical_pct } => write!(
                f,
                "{over_pct:.1} points of damaged starch above {critical_pct:.0} %: dry early, \
                 sticky late"
            ),
        }
    }
}

impl Display for ExcessWaterEffect {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        match self {
            Self::GlutenDiluted { from_pct, to_pct } => write!(
                f,
                "the protein's share of the water falls from {from_pct:.1} to {to_pct:.1} %: the \
                 gluten is diluted"
            ),
            Self::Sticks => {
                f.write_str("divider, rounder and moulder stick; dusting flour goes into the crumb")
            }
            Self::LateRelease => f.write_str(
                "the damaged starch lets go of its water late: gummy crumb, smeared slicer blades, \
                 a reddish crust",
            ),
            Self::WetCrumb { to_drive_out_kg } => write!(
                f,
                "the bake must drive out {to_drive_out_kg:.1} kg more for 100 kg of flour, or the \
                 crumb stays wet"
            ),
        }
    }
}

impl Display for UsualComposition {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        let Self { property, pct, species } = self;
        let on = match property {
            Property::Protein => " on 14 %",
            Property::Ash => " on dry matter, a white flour's",
            _ => "",
        };
        let (property, grain) = (property.label(), species.label());
        write!(f, "{property} {pct} %{on}, of the {grain}")
    }
}
