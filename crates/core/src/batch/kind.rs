use serde::{Deserialize, Serialize};

use crate::method::EndPoint;

/// Where a batch stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum BatchState {
    #[default]
    Planned,
    Running,
    Held,
    Finished,
    Scrapped,
}

impl BatchState {
    /// Whether what happens at this state can be of such a kind. Corrections are of any time.
    ///
    /// ```
    /// use ironpeel_core::batch::{BatchState, EventKind};
    /// assert!(BatchState::Planned.takes(EventKind::Start));
    /// assert!(!BatchState::Running.takes(EventKind::Start));
    /// assert!(BatchState::Held.takes(EventKind::Resume));
    /// assert!(BatchState::Scrapped.takes(EventKind::Note));
    /// ```
    pub const fn takes(self, kind: EventKind) -> bool {
        use EventKind as K;
        match (self, kind) {
            (_, K::Correct | K::Note) => true,
            (Self::Planned, kind) => {
                matches!(kind, K::Start | K::Reading | K::Observation | K::Scrap)
            }
            (Self::Running, kind) => !matches!(kind, K::Start | K::Resume),
            (Self::Held, kind) => matches!(
                kind,
                K::Resume | K::Reading | K::Observation | K::Addition | K::Finish | K::Scrap
            ),
            (Self::Finished, kind) => matches!(kind, K::Reading | K::Observation),
            (Self::Scrapped, _) => false,
        }
    }

    /// Whether it is over.
    pub const fn is_over(self) -> bool {
        matches!(self, Self::Finished | Self::Scrapped)
    }
}

/// What an event says.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum EventKind {
    Start,
    StageBegin,
    StageEnd,
    Reading,
    Observation,
    Addition,
    Consistency,
    Hold,
    Resume,
    Note,
    Finish,
    Scrap,
    Correct,
}

/// By what somebody saw that a stage was over.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum EndedBy {
    Clock,
    Rise,
    Jar,
    Temperature,
    Windowpane,
    ClearsBowl,
    Poke,
    Height,
    Pull,
    Tap,
    Drop,
    Cracks,
    Core,
    Look,
}

impl From<EndPoint> for EndedBy {
    /// The sign that a method names.
    fn from(end: EndPoint) -> Self {
        match end {
            EndPoint::Look | EndPoint::Ph => Self::Look,
            EndPoint::Time => Self::Clock,
            EndPoint::Temperature => Self::Temperature,
            EndPoint::Rise => Self::Rise,
            EndPoint::Jar => Self::Jar,
            EndPoint::Drop => Self::Drop,
            EndPoint::Windowpane => Self::Windowpane,
            EndPoint::ClearsBowl => Self::ClearsBowl,
            EndPoint::Poke => Self::Poke,
            EndPoint::PullAndTap => Self::Pull,
            EndPoint::Height => Self::Height,
            EndPoint::Cracks => Self::Cracks,
            EndPoint::CoreTemperature => Self::Core,
        }
    }
}

/// Why something was added that the sheet does not say.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum AdditionReason {
    /// By the feel of the dough.
    Feel,
    Correction,
    Forgotten,
}

impl AdditionReason {
    /// A reason by its word.
    pub fn named(word: &str) -> Option<Self> {
        match word {
            "feel" => Some(Self::Feel),
            "correction" => Some(Self::Correction),
            "forgotten" => Some(Self::Forgotten),
            _ => None,
        }
    }
}
