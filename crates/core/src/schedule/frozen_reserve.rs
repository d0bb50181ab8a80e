use chrono::{DateTime, Duration, Utc};
use serde::{Deserialize, Serialize};

use super::coefficients::{BEFORE_CLOSING_MIN, COLD_THROUGH_H, KEEP_WEEKS, THAW_H};
use super::find_start::Shut;
use super::hours::spans;
use super::{SchedulePlan, ScheduleRequest};
use crate::coefficient::Coefficients;
use crate::method::{Method, StageRole};
use crate::units::{
    DAYS_PER_WEEK, H_PER_DAY, MIN_PER_H, NumberRange, RawNumber, ValidationErrors, timestamp,
};

const PIECES: NumberRange = NumberRange::new("pieces", "surplus pieces", "", 1.0, 100_000.0);

/// Pieces that are kept frozen for another day, as they were asked for.
#[derive(Debug, Clone, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FrozenReserveInput {
    /// 1 to 100 000.
    #[serde(default)]
    pub pieces: RawNumber,
    /// When they are to be used.
    #[serde(deserialize_with = "timestamp::within")]
    pub on: DateTime<Utc>,
}

/// Pieces kept frozen for another day.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FrozenReserve {
    pub pieces: u32,
    pub freeze_at: DateTime<Utc>,
    /// From the freezer into the refrigerator.
    pub thaw_at: DateTime<Utc>,
    /// Out of the refrigerator.
    pub out_at: DateTime<Utc>,
    pub use_at: DateTime<Utc>,
    pub keep_until: DateTime<Utc>,
}

impl FrozenReserveInput {
    /// Puts spare pieces on the clock, each step at an hour when somebody is there: frozen once they
    /// are cold through, a day to thaw, and out as
    /// long before use as the others. A fault where the method has no cold to freeze them from, or
    /// they would be used before they can be.
    pub fn plan(
        &self,
        method: &Method,
        day: &SchedulePlan,
        wanted: &ScheduleRequest,
        coefficients: &Coefficients,
        at: &str,
        faults: &mut ValidationErrors,
    ) -> Option<FrozenReserve> {
        let pieces = PIECES.check(&self.pieces, at, faults);
        let lasts =
            |of, unit_min: f64| super::find_start::minutes(coefficients.value(of) * unit_min);
        let keeps = lasts(&KEEP_WEEKS, DAYS_PER_WEEK * H_PER_DAY * MIN_PER_H);
        let before = lasts(&BEFORE_CLOSING_MIN, 1.0);
        let roles = method.roles();
        let divided = roles.iter().position(|role| *role == StageRole::Dividing);
        let cold = roles.iter().rposition(|role| *role == StageRole::Cold);
        let (Some(divided), Some(cold)) = (divided, cold) else {
            faults.push(
                format!("{at}pieces"),
                "this method has no pieces lying in the cold to freeze",
            );
            return None;
        };
        if cold < divided {
            faults.push(
                format!("{at}pieces"),
                "this method's cold comes before the dough is divided",
            );
            return None;
        }
        let cold_through = day.stages.get(cold)?.starts_at + lasts(&COLD_THROUGH_H, MIN_PER_H);
        let far = Duration::days(2);
        let until = self.on.min(cold_through + keeps + Duration::weeks(1)) + far;
        let shut = spans(&wanted.closed_hours, cold_through - far, until, wanted.zone);
        // Later than it could be where they freeze, earlier where they thaw and warm.
        let freeze_at = open_from(&shut, cold_through);
        let out_min: f64 = method
            .stages
            .iter()
            .zip(&roles)
            .skip(cold + 1)
            .take_while(|(_, role)| **role != StageRole::Bake)
            .map(|(stage, _)| stage.minutes)
            .sum();
        let out_at = open_until(&shut, before, self.on - super::find_start::minutes(out_min));
        let thaw_at = open_until(&shut, before, out_at - lasts(&THAW_H, MIN_PER_H));
        let keep_until = freeze_at + keeps;
        if thaw_at < freeze_at {
            faults.push(format!("{at}on"), "before then they cannot be frozen and thawed again");
        }
        if self.on > keep_until {
            let message = format!(
                "frozen dough keeps {:.0} weeks, and this is later",
                coefficients.value(&KEEP_WEEKS)
            );
            faults.push(format!("{at}on"), message);
        }
        Some(FrozenReserve {
            pieces: pieces.round() as u32,
            freeze_at,
            thaw_at,
            out_at,
            use_at: self.on,
            keep_until,
        })
    }
}

/// A moment, or the end of the closed hours in which it falls; hours may adjoin.
fn open_from(shut: &Shut, timestamp: DateTime<Utc>) -> DateTime<Utc> {
    let within = shut.iter().find(|(from, to)| *from <= timestamp && timestamp < *to);
    within.map_or(timestamp, |(_, to)| open_from(shut, *to))
}

/// A moment, or one just before the closed hours in which it falls.
fn open_until(shut: &Shut, before: Duration, timestamp: DateTime<Utc>) -> DateTime<Utc> {
    let within = shut.iter().find(|(from, to)| *from <= timestamp && timestamp < *to);
    within.map_or(timestamp, |(from, _)| open_until(shut, before, *from - before))
}
