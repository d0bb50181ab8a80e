use std::collections::HashMap;

use chrono::{DateTime, Utc};
use serde::Serialize;
use uuid::Uuid;

use super::corrections::{Corrected, Standing, correct};
use super::refusal::wrong_details;
use super::{
    AdditionReason, BatchState, EndedBy, Event, EventDetails, EventKind, EventRefusal, Quantity,
    RejectReason,
};
use crate::units::RawNumber;

/// What a batch's events come to.
#[derive(Debug, Clone, PartialEq, Default, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BatchRecord {
    pub state: BatchState,
    pub started_at: Option<DateTime<Utc>>,
    /// When it was finished or scrapped.
    pub ended_at: Option<DateTime<Utc>>,
    /// Since when and why, where it is held now.
    pub held_since: Option<DateTime<Utc>>,
    pub held_reason: Option<String>,
    /// Minutes it was held before, all together.
    pub held_min: f64,
    /// Stages that were stamped, in the order they were.
    pub stages: Vec<StageRecord>,
    /// All that found its place, in order.
    pub placed: Vec<Placed>,
    /// What the batch could not take at that time: for a person to look at.
    pub unplaced: Vec<Unplaced>,
    pub withdrawn: Vec<Uuid>,
    /// What can be undone: the last of each stage.
    pub undoable: Vec<Uuid>,
    pub finish: Option<Finish>,
}

/// A stage as it was stamped.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct StageRecord {
    pub stage: Uuid,
    pub begun_at: Option<DateTime<Utc>>,
    pub ended_at: Option<DateTime<Utc>>,
    pub ended_by: Option<EndedBy>,
}

/// Something that happened, as it stands.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Placed {
    pub event: Uuid,
    pub kind: EventKind,
    pub happened_at: DateTime<Utc>,
    /// Whether it was said otherwise before.
    pub corrected: bool,
    #[serde(flatten)]
    pub details: EventDetails,
}

/// Something that found no place.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Unplaced {
    pub event: Uuid,
    pub why: Misplaced,
}

/// Why something found no place.
#[derive(Debug, Clone, PartialEq)]
pub enum Misplaced {
    NotStarted,
    AlreadyStarted,
    Held,
    NotHeld,
    Finished,
    Scrapped,
    StageBegun,
    StageOver,
    NothingToCorrect,
    Impossible(EventRefusal),
}

/// Something added that the sheet does not say.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Added<'a> {
    pub at: DateTime<Utc>,
    pub ingredient: &'a str,
    pub kg: f64,
    pub reason: Option<AdditionReason>,
}

impl Added<'_> {
    /// Whether it is water, or ice.
    pub fn is_water(&self) -> bool {
        matches!(self.ingredient.to_lowercase().as_str(), "water" | "ice")
    }
}

/// What came out of it.
#[derive(Debug, Clone, PartialEq, Default, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Finish {
    pub pieces_good: Option<f64>,
    pub pieces_rejected: Option<f64>,
    /// All pieces together.
    pub mass_kg: Option<f64>,
    pub reasons: Vec<RejectReason>,
}

/// Puts events in order by (`happened_at`, id), corrections done, and says what they come to. The
/// order they are given in, and one given twice, makes no difference.
///
/// ```
/// use ironpeel_core::batch::{BatchState, Event, fold};
/// let event = |text: &str| serde_json::from_str::<Event>(text).unwrap();
/// let start = event(r#"{"id": "0193a1b2-0000-7000-8000-000000000001", "kind": "start",
///     "happened_at": "2026-11-26T22:00:00Z"}"#);
/// let hold = event(r#"{"id": "0193a1b2-0000-7000-8000-000000000002", "kind": "hold",
///     "happened_at": "2026-11-26T22:20:00Z", "reason": "divider"}"#);
/// let undo = event(r#"{"id": "0193a1b2-0000-7000-8000-000000000003", "kind": "correct",
///     "happened_at": "2026-11-26T22:21:00Z", "corrects": "0193a1b2-0000-7000-8000-000000000002"}"#);
/// assert_eq!(fold(&[hold.clone(), start.clone()]).state, BatchState::Held);
/// assert_eq!(fold(&[undo, hold, start]).state, BatchState::Running);
/// ```
pub fn fold(events: &[Event]) -> BatchRecord {
    let Corrected { standing, withdrawn, lost } = correct(events);
    let mut record = BatchRecord { withdrawn, ..BatchRecord::default() };
    record.unplaced = lost
        .into_iter()
        .map(|event| Unplaced { event, why: Misplaced::NothingToCorrect })
        .collect();
    for event in standing {
        match record.take(&event) {
            Some(why) => record.unplaced.push(Unplaced { event: event.id, why }),
            None => record.placed.push(Placed {
                event: event.id,
                kind: event.kind,
                happened_at: event.happened_at,
                corrected: event.corrected,
                details: event.details,
            }),
        }
    }
    record.undoable = record.last_of_stages();
    record
}

impl BatchRecord {
    /// Takes what happened; why not, where it finds no place.
    fn take(&mut self, event: &Standing) -> Option<Misplaced> {
        if !self.state.takes(event.kind) {
            return Some(self.misplaced(event.kind));
        }
        if let Some(refusal) = wrong_details(event.kind, &event.details) {
            return Some(Misplaced::Impossible(refusal));
        }
        let at = event.happened_at;
        match event.kind {
            EventKind::Start => {
                self.state = BatchState::Running;
                self.started_at = Some(at);
            }
            EventKind::StageBegin => return self.begin(event),
            EventKind::StageEnd => return self.end(event),
            EventKind::Hold => {
                self.state = BatchState::Held;
                self.held_since = Some(at);
                self.held_reason.clone_from(&event.details.reason);
            }
            EventKind::Resume => {
                self.state = BatchState::Running;
                self.end_hold(at);
            }
            EventKind::Finish | EventKind::Scrap => {
                self.end_hold(at);
                self.ended_at = Some(at);
                let finished = event.kind == EventKind::Finish;
                self.state = if finished { BatchState::Finished } else { BatchState::Scrapped };
                self.finish = finished.then(|| Finish::of(&event.details));
            }
            EventKind::Reading
            | EventKind::Observation
            | EventKind::Addition
            | EventKind::Consistency
            | EventKind::Note
            | EventKind::Correct => {}
        }
        None
    }

    const fn misplaced(&self, kind: EventKind) -> Misplaced {
        match (self.state, kind) {
            (BatchState::Planned, _) => Misplaced::NotStarted,
            (BatchState::Finished, _) => Misplaced::Finished,
            (BatchState::Scrapped, _) => Misplaced::Scrapped,
            (_, EventKind::Start) => Misplaced::AlreadyStarted,
            (BatchState::Held, _) => Misplaced::Held,
            (BatchState::Running, _) => Misplaced::NotHeld,
        }
    }

    /// Held no longer.
    fn end_hold(&mut self, at: DateTime<Utc>) {
        if let Some(since) = self.held_since.take() {
            self.held_min += minutes(since, at);
        }
        self.held_reason = None;
    }

    fn stage(&mut self, stage: Uuid) -> &mut StageRecord {
        let at = self.stages.iter().position(|one| one.stage == stage).unwrap_or_else(|| {
            let new = StageRecord { stage, begun_at: None, ended_at: None, ended_by: None };
            self.stages.push(new);
            self.stages.len() - 1
        });
        &mut self.stages[at]
    }

    fn begin(&mut self, event: &Standing) -> Option<Misplaced> {
        let record = self.stage(event.details.stage?);
        if record.ended_at.is_some() {
            return Some(Misplaced::StageOver);
        }
        if record.begun_at.is_some() {
            return Some(Misplaced::StageBegun);
        }
        record.begun_at = Some(event.happened_at);
        None
    }

    fn end(&mut self, event: &Standing) -> Option<Misplaced> {
        let record = self.stage(event.details.stage?);
        if record.ended_at.is_some() {
            return Some(Misplaced::StageOver);
        }
        record.ended_at = Some(event.happened_at);
        record.ended_by = event.details.ended_by;
        None
    }

    /// The last of each stage, and the last that is of none.
    fn last_of_stages(&self) -> Vec<Uuid> {
        let mut last: HashMap<Option<Uuid>, Uuid> = HashMap::new();
        for placed in &self.placed {
            last.insert(placed.details.stage, placed.event);
        }
        let lasts =
            self.placed.iter().filter(|one| last.get(&one.details.stage) == Some(&one.event));
        lasts.map(|one| one.event).collect()
    }

    /// The readings of a quantity, in order: when, what, of what.
    pub fn readings(
        &self,
        quantity: Quantity,
    ) -> impl Iterator<Item = (DateTime<Utc>, f64, &EventDetails)> {
        let of_it = move |placed: &&Placed| {
            placed.kind == EventKind::Reading && placed.details.quantity == Some(quantity)
        };
        self.placed.iter().filter(of_it).filter_map(|placed| {
            let RawNumber::Number(value) = placed.details.value else { return None };
            Some((placed.happened_at, value, &placed.details))
        })
    }

    /// The last consistency that was judged, from −2 much too slack to +2 much too stiff.
    pub fn consistency(&self) -> Option<f64> {
        let judged = self.placed.iter().rev().find(|one| one.kind == EventKind::Consistency)?;
        match judged.details.value {
            RawNumber::Number(value) => Some(value),
            _ => None,
        }
    }

    /// What was added that the sheet does not say.
    pub fn additions(&self) -> impl Iterator<Item = Added<'_>> {
        let added = self.placed.iter().filter(|one| one.kind == EventKind::Addition);
        added.filter_map(|one| match (&one.details.ingredient, &one.details.kg) {
            (Some(ingredient), RawNumber::Number(kg)) => Some(Added {
                at: one.happened_at,
                ingredient,
                kg: *kg,
                reason: one.details.reason.as_deref().and_then(AdditionReason::named),
            }),
            _ => None,
        })
    }
}

impl Finish {
    fn of(details: &EventDetails) -> Self {
        let number = |given: &RawNumber| match given {
            RawNumber::Number(value) => Some(*value),
            _ => None,
        };
        Self {
            pieces_good: number(&details.pieces_good),
            pieces_rejected: number(&details.pieces_rejected),
            mass_kg: number(&details.mass_kg),
            reasons: details.reasons.clone().unwrap_or_default(),
        }
    }
}

/// Minutes from one moment to another.
pub(crate) fn minutes(from: DateTime<Utc>, to: DateTime<Utc>) -> f64 {
    (to - from).as_seconds_f64() / crate::units::S_PER_MIN
}
