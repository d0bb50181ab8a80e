//! One dough used over several days: each portion in the cold until its own hour.

use std::fmt::{self, Display, Formatter};

use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};

use super::dough_maturity::maturity_of;
use super::way::Way;
use super::{Chain, Scenario};
use crate::dough::coefficients::{FREEZER_C, REFRIGERATOR_C};
use crate::ferment::{Maturity, cooling_h};
use crate::method::coefficients::{USUAL_COLD_MIN, WARM_CORE_C};
use crate::method::{Method, Stage, StageKind, StageRole};
use crate::schedule::coefficients::{KEEP_WEEKS, THAW_H};
use crate::schedule::minutes;
use crate::units::{
    DAYS_PER_WEEK, H_PER_DAY, MIN_PER_H, NumberRange, RawNumber, S_PER_MIN, ValidationErrors,
    serialize_in_words, timestamp,
};

/// Where a portion lies until its hour.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum PortionStorage {
    Refrigerator,
    Freezer,
}

/// A portion as it is asked for.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct PortionInput {
    /// 1 to 100 000.
    #[serde(default)]
    pub pieces: RawNumber,
    pub kept: PortionStorage,
    /// When it is to be out of the oven.
    #[serde(deserialize_with = "timestamp::within")]
    pub out_of_oven_at: DateTime<Utc>,
}

/// Portions of a dough that begins at a moment.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct PortionsInput {
    #[serde(deserialize_with = "timestamp::within")]
    pub starts_at: DateTime<Utc>,
    /// 1 to 12.
    pub portions: Vec<PortionInput>,
}

/// One portion on the clock.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Portion {
    pub pieces: u32,
    pub kept: PortionStorage,
    /// From the freezer into the refrigerator.
    pub thaw_at: Option<DateTime<Utc>>,
    /// Out of the refrigerator.
    pub out_at: DateTime<Utc>,
    /// Its core is warm enough to be worked.
    pub warm_at: DateTime<Utc>,
    pub warm_c: f64,
    pub bake_at: DateTime<Utc>,
    pub out_of_oven_at: DateTime<Utc>,
    /// In the cold, thawing included, h.
    pub kept_h: f64,
    /// Where it meets the oven; none where nothing makes gas.
    pub rise_pct: Option<f64>,
    pub maturity: Option<Maturity>,
    pub caution: Option<PortionCaution>,
}

/// A portion that lies longer than it keeps.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum PortionCaution {
    TooLongInRefrigerator { days: f64 },
    TooLongFrozen { weeks: f64 },
}

serialize_in_words!(PortionCaution);

impl Display for PortionCaution {
    fn fmt(&self, f: &mut Formatter<'_>) -> fmt::Result {
        match self {
            Self::TooLongInRefrigerator { days } => {
                write!(
                    f,
                    "a dough of this kind keeps {days:.0} days in the refrigerator: freeze it"
                )
            }
            Self::TooLongFrozen { weeks } => write!(f, "frozen dough keeps {weeks:.0} weeks"),
        }
    }
}

/// A dough's portions, and what is left of it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Portions {
    /// When the pieces are divided and go into the cold.
    pub divided_at: DateTime<Utc>,
    /// The whole run makes so many.
    pub pieces: u32,
    /// Of these nobody has asked for so many.
    pub left_pieces: u32,
    pub portions: Vec<Portion>,
}

/// Most portions of a dough, and the longest one is looked ahead for.
const MOST: usize = 12;
const MOST_DAYS: f64 = 90.0;
const PIECES: NumberRange =
    NumberRange::new("pieces", "pieces of this portion", "", 1.0, 100_000.0);

/// Puts each portion on the clock, back from when it is to be out of the oven.
///
/// After the cold come the method's own stages up to the oven, and before them as long as the core
/// takes to be warm where the method has no cold of its own:
/// `m^⅔ h · ln((room − cold)/(room − warm))`. The rise and the maturity are the model's for the hours
/// each lies. Faults where more pieces are asked for than there are, or sooner than they can be.
pub fn portions(
    scenario: &Scenario<'_>,
    chain: &Chain,
    asked: &PortionsInput,
) -> Result<Portions, ValidationErrors> {
    let mut faults = ValidationErrors::default();
    let method = scenario.method;
    let roles = method.roles();
    let (Some(dough), Some(divided)) =
        (&chain.dough, roles.iter().rposition(|role| *role == StageRole::Dividing))
    else {
        faults.push("portions", "a dough is divided before it can be used in portions");
        return Err(faults);
    };
    if asked.portions.is_empty() || asked.portions.len() > MOST {
        faults.push("portions", format!("1 to {MOST} portions"));
    }
    let before_min: f64 = method.stages[..=divided].iter().map(|stage| stage.minutes).sum();
    let divided_at = asked.starts_at + minutes(before_min);
    let place = Divided {
        scenario,
        chain,
        at: divided,
        into_cold_at: divided_at,
        piece_kg: dough.scaled.piece_kg,
    };
    let found: Vec<Portion> = (0..)
        .zip(asked.portions.iter().take(MOST))
        .map(|(at, one): (usize, _)| place.portion(one, &format!("portions[{at}]."), &mut faults))
        .collect();
    let pieces = dough.scaled.pieces;
    let wanted: u32 = found.iter().map(|one| one.pieces).fold(0, u32::saturating_add);
    if wanted > pieces {
        let message = format!("{wanted} pieces are asked for and the dough makes {pieces}");
        faults.push("portions", message);
    }
    faults.or(Portions {
        divided_at,
        pieces,
        left_pieces: pieces.saturating_sub(wanted),
        portions: found,
    })
}

/// A dough that is divided.
struct Divided<'a> {
    scenario: &'a Scenario<'a>,
    chain: &'a Chain,
    /// The place of its dividing in the method, and when that is over.
    at: usize,
    into_cold_at: DateTime<Utc>,
    piece_kg: f64,
}

impl Divided<'_> {
    fn portion(&self, asked: &PortionInput, at: &str, faults: &mut ValidationErrors) -> Portion {
        let here = |coefficient| self.scenario.coefficients().value(coefficient);
        let method = self.scenario.method;
        let roles = method.roles();
        let after = || method.stages.iter().zip(&roles).skip(self.at + 1);
        let cold = after().find(|(_, role)| **role == StageRole::Cold).map(|(stage, _)| stage);
        let cold_c = cold.and_then(|stage| stage.temperature_c).unwrap_or_else(|| {
            self.scenario.line.water.refrigerator_c.unwrap_or_else(|| here(&REFRIGERATOR_C))
        });
        let bakes = |role: &StageRole| *role == StageRole::Bake;
        let to_oven: Vec<&Stage> = after()
            .take_while(|(_, role)| !bakes(role))
            .filter(|(_, role)| **role != StageRole::Cold)
            .map(|(stage, _)| stage)
            .collect();
        let bake_min: f64 =
            after().filter(|(_, role)| bakes(role)).map(|(stage, _)| stage.minutes).sum();
        let room_c = self.scenario.room_c();
        let warm_c = here(&WARM_CORE_C).min(room_c - 1.0);
        let warm_min = cooling_h(self.piece_kg)
            * MIN_PER_H
            * ((room_c - cold_c) / (room_c - warm_c)).ln().max(0.0);
        let own_min: f64 = to_oven.iter().map(|stage| stage.minutes).sum();
        let first_min = if cold.is_some() { (warm_min - own_min).max(0.0) } else { warm_min };

        let bake_at = asked.out_of_oven_at - minutes(bake_min);
        let out_at = bake_at - minutes(own_min + first_min);
        let thaw_min = here(&THAW_H) * MIN_PER_H;
        let thaw_at = (asked.kept == PortionStorage::Freezer).then(|| out_at - minutes(thaw_min));
        let kept_min = (out_at - self.into_cold_at).num_seconds() as f64 / S_PER_MIN;
        let frozen_min = thaw_at.map(|_| kept_min - thaw_min);
        let most_min = MOST_DAYS * H_PER_DAY * MIN_PER_H;
        if kept_min > most_min {
            let message = format!("up to {MOST_DAYS} days after the dough is divided");
            faults.push(format!("{at}out_of_oven_at"), message);
        }
        if frozen_min.unwrap_or(kept_min) < 0.0 {
            let soonest = own_min + first_min + bake_min + thaw_at.map_or(0.0, |_| thaw_min);
            let message =
                format!("at the earliest {:.1} h after the dough is divided", soonest / MIN_PER_H);
            faults.push(format!("{at}out_of_oven_at"), message);
        }
        let lies = |around_c: f64, minutes: f64| Stage {
            temperature_c: Some(around_c),
            ..Stage::new(StageKind::Rest, "Kept", minutes.clamp(0.0, most_min))
        };
        let kept = match frozen_min {
            Some(frozen) => vec![lies(here(&FREEZER_C), frozen), lies(cold_c, thaw_min)],
            None => vec![lies(cold_c, kept_min)],
        };
        let warms = Stage::new(StageKind::Rest, "Warms", first_min);
        let way = Method {
            stages: method.stages[..=self.at]
                .iter()
                .cloned()
                .chain(kept)
                .chain((first_min > 0.0).then_some(warms))
                .chain(to_oven.into_iter().cloned())
                .chain(after().skip_while(|(_, role)| !bakes(role)).map(|(stage, _)| stage.clone()))
                .collect(),
            ..method.clone()
        };
        let (rise_pct, maturity) = self.at_oven(&way);
        Portion {
            pieces: PIECES.check(&asked.pieces, at, faults).round() as u32,
            kept: asked.kept,
            thaw_at,
            out_at,
            warm_at: out_at + minutes(warm_min),
            warm_c,
            bake_at,
            out_of_oven_at: asked.out_of_oven_at,
            kept_h: kept_min / MIN_PER_H,
            rise_pct,
            maturity,
            caution: self.caution(kept_min, frozen_min),
        }
    }

    /// The rise and the maturity of the dough made so, where it meets the oven.
    fn at_oven(&self, method: &Method) -> (Option<f64>, Option<Maturity>) {
        let scenario = Scenario { method, ..*self.scenario };
        let Ok(way) = Way::of(&scenario, self.chain) else { return (None, None) };
        let rise_pct = way.end_rise(way.dough.yeast_idy_pct);
        (Some(rise_pct), Some(maturity_of(&scenario, self.chain, &way)))
    }

    fn caution(&self, kept_min: f64, frozen_min: Option<f64>) -> Option<PortionCaution> {
        let coefficients = self.scenario.coefficients();
        let day_min = H_PER_DAY * MIN_PER_H;
        if let Some(frozen) = frozen_min {
            let weeks = coefficients.value(&KEEP_WEEKS);
            let caution = PortionCaution::TooLongFrozen { weeks };
            return (frozen > weeks * DAYS_PER_WEEK * day_min).then_some(caution);
        }
        let most = coefficients.band(&USUAL_COLD_MIN).high;
        let caution = PortionCaution::TooLongInRefrigerator { days: most / day_min };
        (kept_min > most).then_some(caution)
    }
}
