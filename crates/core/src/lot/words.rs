//! The subject's verdicts in words.

use std::fmt::{self, Display, Formatter};

use serde::Serialize;

use super::{AmountOf, Consequence, Corrected, SievedBy};
use crate::flour::StrengthClass;

/// A consequence as it travels.
#[derive(Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub(super) struct ConsequenceWords {
    key: &'static str,
    subject: &'static str,
    message: String,
}

impl From<Consequence> for ConsequenceWords {
    fn from(consequence: Consequence) -> Self {
        let (key, subject) = consequence.key_and_subject();
        Self { key, subject, message: consequence.to_string() }
    }
}

crate::units::words::describe!(Consequence as ConsequenceWords);
crate::units::words::serialize_in_words!(AmountOf, Corrected);

impl Consequence {
    const fn key_and_subject(&self) -> (&'static str, &'static str) {
        match self {
            Self::HoldBack { .. } | Self::DrinksMore { .. } => ("damaged_starch", "water"),
            Self::Strength { .. } => ("strength", "strength"),
            Self::Tenacity { .. } => ("temper", "handling"),
            Self::Mixing { .. } => ("mixing", "mixing"),
            Self::Tolerance { .. } => ("tolerance", "mixing"),
            Self::Amylase { .. } => ("amylase", "fermentation"),
            Self::Ash { .. } => ("ash", "fermentation"),
        }
    }
}

impl Display for Consequence {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        match *self {
            Self::HoldBack { trap, more_points, arrival_pct } => write!(
                f,
                "Hold back {:.1} points: damaged starch is {:.1} above {:.0} %, and \
                 {more_points:.1} points of this lot's water demand are damaged starch more than \
                 before. The dough feels dry early and sticks late; wait, and judge at the divider. \
                 Plan for the core to arrive by {arrival_pct:.0} % of the bake",
                trap.points.typical, trap.over_pct, trap.critical_pct
            ),
            Self::DrinksMore { more_points } => write!(
                f,
                "{more_points:.1} points of this lot's water demand are damaged starch more than \
                 before, below the level at which any is held back: wait before judging the water"
            ),
            Self::Strength { before, after } => write_strength(f, before, after),
            Self::Tenacity { before: (before, was), after: (after, is) } => write!(
                f,
                "P/L {before:.2} → {after:.2}: from {was} to {is}; {}",
                if after > before {
                    "rest it before moulding, or it springs back"
                } else {
                    "handle it less, or it flows"
                }
            ),
            Self::Mixing { before_min, after_min } => write!(
                f,
                "Development {before_min:.1} → {after_min:.1} min: expect {} mixing, by about \
                 {:.0} %; end it on the windowpane",
                if after_min > before_min { "longer" } else { "shorter" },
                100.0 * (after_min / before_min - 1.0).abs()
            ),
            Self::Tolerance { before_min, after_min } => write!(
                f,
                "Stability {before_min:.1} → {after_min:.1} min: {} tolerance to overmixing and to \
                 waiting",
                if after_min > before_min { "more" } else { "less" }
            ),
            Self::Amylase { before_s, after_s } => write!(
                f,
                "Falling number {before_s:.0} → {after_s:.0} s: {}",
                if after_s < before_s {
                    "more amylase, so more sugar: quicker gas, redder crust, stickier crumb if it \
                     goes far"
                } else {
                    "less amylase, so less sugar: slower gas late on, paler crust; malt is the remedy"
                }
            ),
            Self::Ash { before_pct, after_pct } => write!(
                f,
                "Ash {before_pct:.2} → {after_pct:.2} %: {}",
                if after_pct > before_pct {
                    "more of the outer grain: more flavour, absorption and fermentation, a darker \
                     crumb"
                } else {
                    "whiter: less flavour, absorption and fermentation"
                }
            ),
        }
    }
}

fn write_strength(
    f: &mut Formatter<'_>,
    (before, was): (f64, StrengthClass),
    (after, is): (f64, StrengthClass),
) -> fmt::Result {
    write!(f, "W {before:.0} → {after:.0}, ")?;
    match (was == is, after > before) {
        (true, true) => write!(f, "still {is}, with more to spare for water and time"),
        (true, false) => write!(f, "still {is}, with less to spare for water and time"),
        (false, true) => write!(
            f,
            "from {was} to {is}: it carries more water and longer times, and wants more mixing"
        ),
        (false, false) => {
            write!(f, "from {was} to {is}: less water, gentler mixing, shorter times")
        }
    }
}

impl Display for AmountOf {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        f.write_str(match self {
            Self::OnFlour => "on flour",
            Self::TakenOff => "of the flour, taken off",
            Self::Replaced => "of the flour, replaced",
        })
    }
}

impl Display for SievedBy {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        match self {
            Self::LessThanOnePass => f.write_str("less than one pass of 30 mesh takes off"),
            Self::MoreThanAll => f.write_str("more than 30 and 50 mesh take off"),
            Self::About(pass) => write!(f, "about the {}", pass.pass),
        }
    }
}

impl Display for Corrected {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        match *self {
            Self::Protein { gluten_pct, has_pct, wanted_pct } => write!(
                f,
                "{gluten_pct:.1} % vital gluten on flour brings protein from {has_pct:.1} to \
                 {wanted_pct:.1} %: a stronger film, a thirstier dough, and wheat gluten on the \
                 label"
            ),
            Self::FallingNumber { malt_pct, has_s, wanted_s } => write!(
                f,
                "{malt_pct:.2} % diastatic malt flour on flour brings the falling number from \
                 {has_s:.0} to {wanted_s:.0} s: more sugar, gas and colour; too much makes the \
                 crumb sticky"
            ),
            Self::Replaced { share_pct, white_ash_pct, wanted_pct } => write!(
                f,
                "{share_pct:.0} % of the flour replaced by white flour of {white_ash_pct} % ash \
                 leaves {wanted_pct} %: less bran to cut the film, less flavour and fibre"
            ),
            Self::Sieved { taken_off_pct, has_pct, wanted_pct, left_pct, by } => write!(
                f,
                "{taken_off_pct:.1} % of the flour taken off as bran brings ash from {has_pct:.2} \
                 to {wanted_pct:.2} %: {by}; {left_pct:.1} % is left"
            ),
        }
    }
}
