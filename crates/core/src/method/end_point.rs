use serde::{Deserialize, Serialize};

use crate::units::NumberRange;

/// What says that a stage is over. The clock is only one of them, and seldom the best.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum EndPoint {
    /// How it looks and feels.
    #[default]
    Look,
    /// The clock, from the end of another stage where one is named.
    Time,
    Temperature,
    Rise,
    Jar,
    /// It has risen as far as its film holds, and falls.
    Drop,
    Windowpane,
    ClearsBowl,
    Poke,
    PullAndTap,
    Height,
    Cracks,
    CoreTemperature,
    Ph,
}

impl EndPoint {
    /// Every sign.
    pub const ALL: [Self; 14] = [
        Self::Look,
        Self::Time,
        Self::Temperature,
        Self::Rise,
        Self::Jar,
        Self::Drop,
        Self::Windowpane,
        Self::ClearsBowl,
        Self::Poke,
        Self::PullAndTap,
        Self::Height,
        Self::Cracks,
        Self::CoreTemperature,
        Self::Ph,
    ];

    /// What is read for it in a stage that rises or does not: its name, unit and range; none where a
    /// sign is only seen.
    ///
    /// ```
    /// use ironpeel_core::method::{EndFigure, EndPoint};
    /// assert_eq!(EndPoint::Cracks.figure(true), Some(EndFigure::Rise));
    /// assert_eq!(EndPoint::CoreTemperature.figure(false), Some(EndFigure::CoreTemperature));
    /// assert_eq!(EndPoint::Windowpane.figure(false), None);
    /// ```
    pub const fn figure(self, rises: bool) -> Option<EndFigure> {
        match self {
            Self::Temperature => Some(EndFigure::DoughTemperature),
            Self::CoreTemperature => Some(EndFigure::CoreTemperature),
            Self::Height => Some(EndFigure::Height),
            Self::Ph => Some(EndFigure::Ph),
            Self::Time => Some(EndFigure::MinutesAfter),
            Self::Look | Self::Rise | Self::Jar | Self::Poke | Self::Cracks if rises => {
                Some(EndFigure::Rise)
            }
            _ => None,
        }
    }
}

/// What the number at which a stage ends is of.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum EndFigure {
    /// Over the volume it had at first, %.
    Rise,
    /// °C.
    DoughTemperature,
    /// °C.
    CoreTemperature,
    /// Of the piece, mm.
    Height,
    Ph,
    /// Since the end of another stage, min.
    MinutesAfter,
}

const RISE: NumberRange = NumberRange::new("ends_at", "the rise it ends at", "%", 5.0, 400.0);
const DOUGH: NumberRange =
    NumberRange::new("ends_at", "the dough temperature it ends at", "°C", -30.0, 60.0);
const CORE: NumberRange =
    NumberRange::new("ends_at", "the core temperature it ends at", "°C", -30.0, 110.0);
const HEIGHT: NumberRange = NumberRange::new("ends_at", "the height it ends at", "mm", 5.0, 500.0);
const PH: NumberRange = NumberRange::new("ends_at", "the pH it ends at", "", 3.0, 7.0);
const AFTER: NumberRange =
    NumberRange::new("ends_at", "the time after that stage", "min", 0.0, 14_400.0);

impl EndFigure {
    /// The range it must keep, in its unit.
    pub(super) const fn range(self) -> NumberRange {
        match self {
            Self::Rise => RISE,
            Self::DoughTemperature => DOUGH,
            Self::CoreTemperature => CORE,
            Self::Height => HEIGHT,
            Self::Ph => PH,
            Self::MinutesAfter => AFTER,
        }
    }
}
