use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::{EndedBy, EventKind, Quantity};
use crate::units::{RawNumber, timestamp};

/// What happened, as a client says it: one thing, at one moment, under an id the client made.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Event {
    pub id: Uuid,
    pub kind: EventKind,
    #[serde(deserialize_with = "timestamp::within")]
    pub happened_at: DateTime<Utc>,
    /// Whose it is, at a station of the floor; left out, whoever is signed in.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub person: Option<Uuid>,
    /// The event it corrects; with nothing else said, that event is withdrawn.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub corrects: Option<Uuid>,
    /// Of a correction: another kind; as it was where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub new_kind: Option<EventKind>,
    /// Of a correction: another moment; as it was where left out.
    #[serde(
        default,
        deserialize_with = "timestamp::maybe",
        skip_serializing_if = "Option::is_none"
    )]
    pub new_happened_at: Option<DateTime<Utc>>,
    #[serde(flatten)]
    pub details: EventDetails,
}

/// Why pieces were rejected, and how many.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(untagged)]
pub enum RejectReason {
    Counted { reason: String, pieces: Option<f64> },
    Named(String),
}

/// What an event says, each field of one kind or a few.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct EventDetails {
    /// The stage of the method, by its id.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub stage: Option<Uuid>,
    /// Of `stage_end`: by what it was seen.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ended_by: Option<EndedBy>,
    /// Of `reading`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub quantity: Option<Quantity>,
    /// Of `reading`, `observation` and `consistency`: −2 much too slack to +2 much too stiff.
    #[serde(default, skip_serializing_if = "RawNumber::is_missing")]
    pub value: RawNumber,
    /// Of `reading`: what of, where that is not plain, such as a line of the sheet that was weighed;
    /// of `note`: what it stands for, such as a set of folds that was done.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub of: Option<String>,
    /// Of `observation`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub name: Option<String>,
    /// Of `addition`, by its word.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ingredient: Option<String>,
    /// Of `addition`.
    #[serde(default, skip_serializing_if = "RawNumber::is_missing")]
    pub kg: RawNumber,
    /// Of `addition` feel, correction or forgotten; of `hold`, `resume` and `scrap` in words.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reason: Option<String>,
    /// Of `note`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub text: Option<String>,
    /// Of `finish`.
    #[serde(default, skip_serializing_if = "RawNumber::is_missing")]
    pub pieces_good: RawNumber,
    /// Of `finish`.
    #[serde(default, skip_serializing_if = "RawNumber::is_missing")]
    pub pieces_rejected: RawNumber,
    /// Of `finish`: all pieces together, as they come from the cooler.
    #[serde(default, skip_serializing_if = "RawNumber::is_missing")]
    pub mass_kg: RawNumber,
    /// Of `finish`: why pieces were rejected.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reasons: Option<Vec<RejectReason>>,
}

impl EventDetails {
    /// What was said, with what `over` says in its place.
    #[must_use]
    pub(super) fn with(&self, over: &Self) -> Self {
        let number = |over: &RawNumber, under: &RawNumber| {
            if over.is_missing() { under.clone() } else { over.clone() }
        };
        let text = |over: &Option<String>, under: &Option<String>| over.clone().or(under.clone());
        Self {
            stage: over.stage.or(self.stage),
            ended_by: over.ended_by.or(self.ended_by),
            quantity: over.quantity.or(self.quantity),
            value: number(&over.value, &self.value),
            of: text(&over.of, &self.of),
            name: text(&over.name, &self.name),
            ingredient: text(&over.ingredient, &self.ingredient),
            kg: number(&over.kg, &self.kg),
            reason: text(&over.reason, &self.reason),
            text: text(&over.text, &self.text),
            pieces_good: number(&over.pieces_good, &self.pieces_good),
            pieces_rejected: number(&over.pieces_rejected, &self.pieces_rejected),
            mass_kg: number(&over.mass_kg, &self.mass_kg),
            reasons: over.reasons.clone().or_else(|| self.reasons.clone()),
        }
    }
}

impl RejectReason {
    /// In words.
    pub fn reason(&self) -> &str {
        match self {
            Self::Counted { reason, .. } | Self::Named(reason) => reason,
        }
    }
}
