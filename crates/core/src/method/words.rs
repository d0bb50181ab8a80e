//! The subject's verdicts in words.

use std::fmt::{self, Display, Formatter};

use super::{
    AdditionPoint, ConditioningMeans, ConditioningReason, Dilution, Process, SheetCaution,
    StageCaution,
};
use crate::flour::FlourAge;
use crate::units::G_PER_KG;
use crate::units::serialize_in_words;

serialize_in_words!(AdditionPoint, ConditioningReason, SheetCaution, StageCaution);

impl Display for StageCaution {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        f.write_str(match self {
            Self::FlourDust => "Tip flour low and slowly: dust harms lungs and can explode.",
            Self::MixerGuard => "Guard shut; locked out before any hand goes in.",
            Self::DividerGuard => "Guards on; do not taste raw dough.",
            Self::Steam => "Steam and hot metal burn: stand aside, dry gloves.",
            Self::Slicer => "Blades cut: guards closed; locked out before a hand goes in.",
            Self::WetFloor => "Wet floor by the proofer: it is slippery.",
            Self::HotWater => "Hot water scalds: pour low and away from you, and never onto yeast.",
            Self::Freezer => {
                "Frozen metal burns skin: gloves, and nobody alone behind a freezer's door."
            }
        })
    }
}

impl Display for SheetCaution {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        match self {
            Self::FinerScale { items, division_kg, coarse_kg } => write!(
                f,
                "Weigh {} on a scale that shows {} g: this one's {} g is too coarse.",
                items.join(", "),
                division_kg * G_PER_KG,
                coarse_kg * G_PER_KG
            ),
            Self::Dilution(Dilution { yeast, stock_kg, water_kg, take_kg, counts_as_water_kg }) => {
                let grams = |kg: &f64| kg * G_PER_KG;
                write!(
                    f,
                    "Or stir {:.0} g of {yeast} into {:.0} g of water and take {:.0} g of it, which brings \
                     {:.0} g of the dough's water.",
                    grams(stock_kg),
                    grams(water_kg),
                    grams(take_kg),
                    grams(counts_as_water_kg)
                )
            }
            Self::SmallDough { dough_kg, mixer, least_kg } => {
                write!(f, "{dough_kg:.1} kg is less than {mixer} mixes well ({least_kg:.0} kg).")
            }
            Self::HoldBack { points, kg, low_min, high_min } => write!(
                f,
                "Hold back {points:.1} points of the water ({kg:.2} kg) and add it as the dough \
                 asks after {low_min:.0} to {high_min:.0} min."
            ),
            Self::Wait { low_min, high_min } => {
                write!(f, "Wait {low_min:.0} to {high_min:.0} min before judging the water.")
            }
        }
    }
}

impl Display for ConditioningReason {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        match self {
            Self::Process(means, process) => f.write_str(left_to_do(*means, *process)),
            Self::WeakW(w, class) => write!(f, "W {w:.0} is {class}: its film needs help"),
            Self::StrongW(w) => write!(f, "W {w:.0} holds by itself"),
            Self::Age(FlourAge::Green { until_days }) => write!(
                f,
                "green flour, under {until_days:.0} days from the mill, does not yet hold what its \
                 W says"
            ),
            Self::Age(FlourAge::Aged { from_days }) => {
                write!(f, "flour past {from_days:.0} days has taken up its air")
            }
            Self::TenaciousPOverL(ratio) => write!(f, "P/L {ratio:.2} is tenacious"),
            Self::GivingPOverL(ratio) => write!(f, "P/L {ratio:.2} gives by itself"),
            Self::SpringsBack => f.write_str("a very strong flour springs back at the moulder"),
        }
    }
}

const fn left_to_do(means: ConditioningMeans, process: Process) -> &'static str {
    match (means, process) {
        (ConditioningMeans::Oxidation, Process::NoTime) => {
            "no time: nothing but the mixer and the oxidant builds it"
        }
        (ConditioningMeans::Oxidation, Process::Frozen) => "ice and gas both tear the film",
        (ConditioningMeans::Oxidation, Process::StraightBulk) => "some hours of rest do part of it",
        (ConditioningMeans::Oxidation, Process::SpongeDough) => "the sponge's hours do most of it",
        (ConditioningMeans::Oxidation, Process::LongCold) => "a night in the cold does all of it",
        (ConditioningMeans::Relaxation, Process::NoTime) => "no floor time to relax in",
        (ConditioningMeans::Relaxation, Process::Frozen) => {
            "a straight dough that is shaped at once"
        }
        (ConditioningMeans::Relaxation, _) => "time to relax in",
    }
}

impl Display for AdditionPoint {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        f.write_str(match self {
            Self::FirstMixing => "at the first mixing",
            Self::Sponge => "into the sponge: green flour needs it for all of its time",
            Self::DoughRatherThanSponge => {
                "into the dough; into the sponge only where time to work is wanted, with care for \
                 enzymes"
            }
            Self::DoughNeverSponge => "into the dough, never the sponge",
        })
    }
}
