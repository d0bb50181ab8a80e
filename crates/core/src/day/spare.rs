use chrono::{DateTime, Duration, Utc};
use serde::{Deserialize, Serialize};

use super::DayPlan;
use crate::method::{Method, StageRole};
use crate::units::{Bound, Faults, Given, moment};

/// Pieces go into the freezer when they are cold through; thawing, and how long they keep (H).
const COLD_THROUGH_H: i64 = 2;
const THAW_H: i64 = 24;
const KEEP_WEEKS: i64 = 6;

const PIECES: Bound = Bound::new("pieces", "spare pieces", "", 1.0, 100_000.0);

/// Pieces that are kept frozen for another day, as they were asked for.
#[derive(Debug, Clone, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SpareInput {
    /// 1 to 100 000.
    #[serde(default)]
    pub pieces: Given,
    /// When they are to be used.
    #[serde(deserialize_with = "moment::within")]
    pub on: DateTime<Utc>,
}

/// Pieces kept frozen for another day.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Spare {
    pub pieces: u32,
    pub freeze_at: DateTime<Utc>,
    /// From the freezer into the refrigerator.
    pub thaw_at: DateTime<Utc>,
    /// Out of the refrigerator.
    pub out_at: DateTime<Utc>,
    pub use_at: DateTime<Utc>,
    pub keep_until: DateTime<Utc>,
}

impl SpareInput {
    /// Puts spare pieces on the clock: frozen once they are cold through, a day to thaw, and out as
    /// long before use as the others. A fault where the method has no cold to freeze them from, or
    /// they would be used before they can be.
    pub fn plan(
        &self,
        method: &Method,
        day: &DayPlan,
        at: &str,
        faults: &mut Faults,
    ) -> Option<Spare> {
        let pieces = PIECES.check(&self.pieces, at, faults);
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
        let freeze_at = day.stages.get(cold)?.starts_at + Duration::hours(COLD_THROUGH_H);
        let out_min: f64 = method
            .stages
            .iter()
            .zip(&roles)
            .skip(cold + 1)
            .take_while(|(_, role)| **role != StageRole::Bake)
            .map(|(stage, _)| stage.minutes)
            .sum();
        let out_at = self.on - super::seek::minutes(out_min);
        let thaw_at = out_at - Duration::hours(THAW_H);
        let keep_until = freeze_at + Duration::weeks(KEEP_WEEKS);
        if thaw_at < freeze_at {
            faults.push(format!("{at}on"), "before then they cannot be frozen and thawed again");
        }
        if self.on > keep_until {
            let message = format!("frozen dough keeps {KEEP_WEEKS} weeks, and this is later");
            faults.push(format!("{at}on"), message);
        }
        Some(Spare {
            pieces: pieces.round() as u32,
            freeze_at,
            thaw_at,
            out_at,
            use_at: self.on,
            keep_until,
        })
    }
}
