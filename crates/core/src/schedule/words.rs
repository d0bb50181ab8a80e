//! The subject's verdicts in words.

use std::fmt::{self, Display, Formatter};

use super::{NightPlace, PaceCause, RunCaution, ScheduleChange, WindowOverrun};
use crate::units::MIN_PER_H;
use crate::units::serialize_in_words;

serialize_in_words!(PaceCause, RunCaution, ScheduleChange, WindowOverrun);

impl Display for PaceCause {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        match self {
            Self::Troughs { stays, .. } if stays.is_empty() => {
                f.write_str("nothing lies in troughs")
            }
            Self::Troughs { stays, there_are } => {
                let stay =
                    |(troughs, minutes): &(u32, f64)| format!("{troughs} for {minutes:.0} min");
                let stays: Vec<String> = stays.iter().map(stay).collect();
                write!(f, "a dough takes {}; there are {there_are}", stays.join(", then "))
            }
            Self::Mixer { mixing_min, turn_min, sponge_waits_min } => {
                write!(f, "{mixing_min:.0} min in the bowl and {turn_min:.0} to turn round")?;
                match sponge_waits_min {
                    None => Ok(()),
                    Some(0.0) => f.write_str(", each sponge between the doughs before"),
                    Some(longer) => write!(
                        f,
                        ", each sponge between the doughs before; it lies {longer:.0} min longer for \
                         that"
                    ),
                }
            }
            Self::Divider { pieces, per_min } => {
                write!(f, "{pieces:.0} pieces at {per_min:.0} a minute")
            }
            Self::Through { pieces, minutes, at_once } => {
                write!(f, "{pieces:.0} pieces for {minutes:.0} min, {at_once:.0} at once")
            }
        }
    }
}

impl Display for RunCaution {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        match self {
            Self::DividedTooLong { divide_min, limit_min, most_kg } => write!(
                f,
                "A dough is divided in {divide_min:.0} min, and after {limit_min:.0} it is too old: \
                 make doughs of {most_kg:.0} kg at most, or feed the oven faster."
            ),
            Self::TooFewTroughs { wanted, there_are } => {
                write!(f, "{wanted} troughs are wanted at once and there are {there_are}.")
            }
        }
    }
}

impl Display for WindowOverrun {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        let Self { dough, label, past_min, .. } = self;
        write!(f, "Dough {dough}: {label} goes {past_min:.0} min past what it may be.")
    }
}

impl Display for ScheduleChange {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        match self {
            Self::ColdStretched { minutes } => write!(
                f,
                "the cold is {:.1} h {} than the method says",
                minutes.abs() / MIN_PER_H,
                if *minutes > 0.0 { "longer" } else { "shorter" }
            ),
            Self::NightAdded { hours, at } => {
                write!(f, "{hours:.0} h in the cold {at}: nothing else fits")
            }
        }
    }
}

impl Display for NightPlace {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        f.write_str(match self {
            Self::BeforeProof => "before the proof",
            Self::AfterBulk => "after the bulk",
            Self::HalfwayThroughBulk => "halfway through the bulk",
        })
    }
}
