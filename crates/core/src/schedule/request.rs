use chrono::{DateTime, Utc};
use chrono_tz::Tz;
use serde::Deserialize;

use super::{ClosedHours, ClosedHoursInput};
use crate::units::{ValidationErrors, timestamp};

/// Most stretches of closed hours in a day.
const MOST: usize = 6;

/// What a plan is held to, as it was asked.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(tag = "by", rename_all = "snake_case")]
pub enum AnchorInput {
    /// Not begun before.
    From {
        #[serde(deserialize_with = "timestamp::within")]
        at: DateTime<Utc>,
    },
    /// Out of the oven not after.
    OutBy {
        #[serde(deserialize_with = "timestamp::within")]
        at: DateTime<Utc>,
    },
}

/// What a plan is held to.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Anchor {
    /// Not begun before.
    From(DateTime<Utc>),
    /// Out of the oven not after.
    OutBy(DateTime<Utc>),
}

/// A dough to be put on the clock.
#[derive(Debug, Clone, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ScheduleInput {
    pub anchor: AnchorInput,
    /// Hours of every day in which nobody is there, up to 6.
    #[serde(default, alias = "refused")]
    pub closed_hours: Vec<ClosedHoursInput>,
    /// Nothing can begin before this: now.
    #[serde(default, deserialize_with = "timestamp::maybe")]
    pub not_before: Option<DateTime<Utc>>,
    /// The clock on the wall, by its name in the time zone database; the plant's if left out.
    #[serde(default)]
    pub zone: String,
}

/// A dough to be put on the clock; any of its values can be planned by.
#[derive(Debug, Clone, PartialEq)]
pub struct ScheduleRequest {
    pub anchor: Anchor,
    pub closed_hours: Vec<ClosedHours>,
    pub zone: Tz,
    pub not_before: Option<DateTime<Utc>>,
}

impl ScheduleInput {
    /// What is wanted by the plant's clock, or what is wrong with it under `at`.
    pub fn check(&self, plant: Tz, at: &str, faults: &mut ValidationErrors) -> ScheduleRequest {
        if self.closed_hours.len() > MOST {
            let message = format!("up to {MOST} stretches; {} were given", self.closed_hours.len());
            faults.push(format!("{at}closed_hours"), message);
        }
        let stretches = self.closed_hours.iter().take(MOST).enumerate();
        let closed_hours: Vec<ClosedHours> = stretches
            .filter_map(|(number, one)| one.check(&format!("{at}closed_hours[{number}]."), faults))
            .collect();
        let name = self.zone.trim();
        let zone = if name.is_empty() { Some(plant) } else { time_zone(name, "zone", at, faults) };
        let anchor = match self.anchor {
            AnchorInput::From { at } => Anchor::From(at),
            AnchorInput::OutBy { at } => Anchor::OutBy(at),
        };
        ScheduleRequest {
            anchor,
            closed_hours,
            zone: zone.unwrap_or(plant),
            not_before: self.not_before,
        }
    }
}

/// A clock on a wall by its name in the time zone database, or a fault at its field.
pub fn time_zone(name: &str, field: &str, at: &str, faults: &mut ValidationErrors) -> Option<Tz> {
    let zone = name.trim().parse();
    if zone.is_err() {
        let message = "this time zone is not known here; its name is like UTC or Europe/London";
        faults.push(format!("{at}{field}"), message);
    }
    zone.ok()
}
