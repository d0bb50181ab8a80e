//! The subject's verdicts in words.

use std::fmt::{self, Display, Formatter};

use serde::Serialize;

use super::{
    CalculationError, ChangeReason, DelayedMaterial, Link, RecoveryAdvice, RecoveryCaution,
    RiseAssumption, RiseMiss,
};
use crate::units::serialize_in_words;

serialize_in_words!(
    ChangeReason,
    DelayedMaterial,
    RecoveryAdvice,
    RecoveryCaution,
    RiseAssumption,
    RiseMiss
);

/// Why the chain cannot go on, as it travels.
#[derive(Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub(super) struct CalculationErrorWords {
    link: Link,
    message: String,
}

impl From<CalculationError> for CalculationErrorWords {
    fn from(error: CalculationError) -> Self {
        Self { link: error.link(), message: error.to_string() }
    }
}

crate::units::words::describe!(CalculationError as CalculationErrorWords);

impl Display for CalculationError {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        match self {
            Self::AbsorptionUnknown(unknown) => unknown.fmt(f),
            Self::TooWet(caution) => caution.fmt(f),
            Self::PrefermentWater(early) => early.fmt(f),
        }
    }
}

impl Display for ChangeReason {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        f.write_str(match self {
            Self::Adjustment { label, .. } => label,
            Self::Hydration => "water on flour",
            Self::DoughInOneMix => "dough in one mix",
            Self::TotalDough => "total dough",
            Self::Batches => "batches",
            Self::DoughYield => "dough from 100 of flour",
            Self::Method => "the method",
            Self::Masses => "masses and the flour's moisture",
            Self::Temperatures => "flour, room and sponge temperature",
            Self::Tap => "tap temperature",
            Self::Mixing => "mixing",
            Self::Target => "target",
            Self::HottestWater => "hottest water",
            Self::ColdestWater => "coldest water",
            Self::Surroundings => "vessel and room",
            Self::MostIce => "most ice",
        })
    }
}

impl Display for RiseAssumption {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        match self {
            Self::SpongeHours(hours) => {
                write!(f, "a sponge of {hours} h: the method has no stage for it")
            }
            Self::DamagedStarch(pct) => write!(f, "damaged starch {pct} %"),
            Self::FallingNumber(s) => write!(f, "falling number {s} s"),
        }
    }
}

impl Display for RiseMiss {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        let Self { wanted_pct, predicted_pct } = self;
        write!(
            f,
            "it is to end at +{wanted_pct:.0} %: the model has it at {predicted_pct:+.0} % by then. \
             Change its minutes, its temperature or the yeast, or trust the dough."
        )
    }
}

impl Display for RecoveryAdvice {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        f.write_str(match self {
            Self::WithinWindow => "within what it may be: go on with it, and look before you do",
            Self::HoldCold { hardly_cools: false } => {
                "into the refrigerator from when it should have gone on"
            }
            Self::HoldCold { hardly_cools: true } => {
                "into the refrigerator from when it should have gone on: a mass this big hardly \
                 cools; spread it thin"
            }
            Self::SpreadInThirds { after_run } => {
                f.write_str(
                    "a third of it into each of the next three sponges, their own flour, water and \
                     yeast less by what it brings",
                )?;
                return match after_run {
                    0 => Ok(()),
                    missing => write!(
                        f,
                        "; {missing} of them are set after this run: hold that much of it cold till \
                         then"
                    ),
                };
            }
            Self::Revive => {
                "fresh flour, water and yeast mixed in, half an hour, and on; for skilled hands"
            }
            Self::BakeOffSponge => "bake it off in tins as it is and discard the bread",
            Self::BakeOffDough => "bake it off as it is: too old to be this bread",
        })
    }
}

impl Display for RecoveryCaution {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        f.write_str(match self {
            Self::LiveDough => {
                "Live dough goes on growing: never into a bin or drain as it is. Bake it first, let \
                 it cool, and discard it by your local rules."
            }
            Self::HeavyTrough => {
                "A trough of dough is heavy: tip it with the hoist, not by hand."
            }
        })
    }
}

impl Display for DelayedMaterial {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        f.write_str(match self {
            Self::OldSpongeEach => "old sponge into each",
            Self::FlourEach => "flour in each then",
            Self::WaterEach => "water in each then",
            Self::YeastEach => "yeast in each then",
            Self::Flour => "flour",
            Self::Water => "water",
            Self::Yeast => "yeast",
            Self::Sponge => "sponge",
            Self::Dough => "dough",
        })
    }
}
