use chrono::{DateTime, TimeDelta, Utc};
use uuid::Uuid;

use super::{AdditionReason, Event, EventDetails, EventKind, observation};
use crate::units::{NumberRange, RawNumber, ValidationErrors};

/// What an event is held against, besides itself.
#[derive(Debug, Clone, Copy)]
pub struct Acceptance<'a> {
    /// The stages of the batch's method.
    pub stages: &'a [Uuid],
    /// When the batch was planned.
    pub planned_at: DateTime<Utc>,
    /// When the event is told.
    pub now: DateTime<Utc>,
}

/// Why an event is no event of the batch, whatever else happened.
#[derive(Debug, Clone, PartialEq)]
pub enum EventRefusal {
    /// A field of its kind is not said.
    Missing(&'static str),
    /// A number that cannot be, in words, and what was likely meant.
    Impossible {
        message: String,
        likely_meant: Option<f64>,
    },
    /// A word that is none of those it can be.
    Unknown {
        field: &'static str,
        given: String,
    },
    TooLong {
        field: &'static str,
        most: usize,
    },
    /// Of another method.
    StrangeStage,
    CorrectsItself,
    Future,
    BeforePlanned,
}

/// Ahead of the server's clock by so much is still now.
const AHEAD: TimeDelta = TimeDelta::minutes(2);
/// The most letters of a text and of a name.
const MOST_TEXT: usize = 2000;
const MOST_NAME: usize = 120;
/// The most reasons for rejected pieces.
const MOST_REASONS: usize = 20;

const CONSISTENCY: NumberRange = NumberRange::new("value", "the consistency", "", -2.0, 2.0);
const KG: NumberRange = NumberRange::new("kg", "what was added", "kg", 0.0, 100_000.0);
const GOOD: NumberRange = NumberRange::new("pieces_good", "the good pieces", "", 0.0, 1_000_000.0);
const REJECTED: NumberRange =
    NumberRange::new("pieces_rejected", "the rejected pieces", "", 0.0, 1_000_000.0);
const MASS: NumberRange =
    NumberRange::new("mass_kg", "the mass of all pieces", "kg", 0.0, 1_000_000.0);

impl Event {
    /// Why it cannot be an event of the batch; none where it can. What the batch's state takes is
    /// for the fold to say: events arrive in any order.
    ///
    /// ```
    /// use chrono::{TimeDelta, TimeZone, Utc};
    /// use ironpeel_core::batch::{Acceptance, Event};
    /// let now = Utc.with_ymd_and_hms(2026, 11, 26, 22, 10, 0).unwrap();
    /// let against = Acceptance { stages: &[], planned_at: now - TimeDelta::hours(2), now };
    /// let event: Event = serde_json::from_str(r#"{"id": "0193a1b2-0000-7000-8000-000000000001",
    ///     "kind": "reading", "happened_at": "2026-11-26T22:09:00Z", "quantity": "dough_c", "value": 79.7}"#)?;
    /// assert_eq!(event.refusal(&against).unwrap().to_string(),
    ///     "the dough temperature must be from -5 to 50 °C; 79.7 was given: 26.5?");
    /// # Ok::<(), serde_json::Error>(())
    /// ```
    pub fn refusal(&self, against: &Acceptance<'_>) -> Option<EventRefusal> {
        self.untimely(against).or_else(|| match self.kind {
            EventKind::Correct => self.wrong_correction(against),
            kind => {
                wrong_details(kind, &self.details).or_else(|| strange_stage(&self.details, against))
            }
        })
    }

    fn untimely(&self, against: &Acceptance<'_>) -> Option<EventRefusal> {
        let moments = [Some(self.happened_at), self.new_happened_at];
        moments.into_iter().flatten().find_map(|at| {
            if at > against.now + AHEAD {
                Some(EventRefusal::Future)
            } else if at < against.planned_at {
                Some(EventRefusal::BeforePlanned)
            } else {
                None
            }
        })
    }

    fn wrong_correction(&self, against: &Acceptance<'_>) -> Option<EventRefusal> {
        match self.corrects {
            None => return Some(EventRefusal::Missing("corrects")),
            Some(id) if id == self.id => return Some(EventRefusal::CorrectsItself),
            Some(_) => {}
        }
        if self.new_kind == Some(EventKind::Correct) {
            return Some(EventRefusal::Unknown { field: "new_kind", given: "correct".into() });
        }
        let whole = self.new_kind.and_then(|kind| wrong_details(kind, &self.details));
        // Of a quantity that is named the number can be judged; else the corrected event names it.
        let number = || {
            let quantity = self.details.quantity.filter(|_| !self.details.value.is_missing())?;
            impossible(&quantity.range(), &self.details.value, |value| quantity.likely_meant(value))
        };
        whole.or_else(number).or_else(|| strange_stage(&self.details, against))
    }
}

fn strange_stage(details: &EventDetails, against: &Acceptance<'_>) -> Option<EventRefusal> {
    let strange = details.stage.is_some_and(|stage| !against.stages.contains(&stage));
    strange.then_some(EventRefusal::StrangeStage)
}

/// What is wrong with what an event of a kind says.
pub(super) fn wrong_details(kind: EventKind, details: &EventDetails) -> Option<EventRefusal> {
    match kind {
        EventKind::Start | EventKind::Correct => None,
        EventKind::StageBegin | EventKind::StageEnd => {
            details.stage.is_none().then_some(EventRefusal::Missing("stage"))
        }
        EventKind::Reading => wrong_reading(details),
        EventKind::Observation => wrong_observation(details),
        EventKind::Addition => wrong_addition(details),
        EventKind::Consistency => impossible(&CONSISTENCY, &details.value, |_| None),
        EventKind::Hold | EventKind::Resume | EventKind::Scrap => {
            too_long("reason", details.reason.as_deref(), MOST_TEXT)
        }
        EventKind::Note => wrong_text("text", details.text.as_deref(), MOST_TEXT)
            .or_else(|| too_long("of", details.of.as_deref(), MOST_NAME)),
        EventKind::Finish => wrong_finish(details),
    }
}

fn wrong_reading(details: &EventDetails) -> Option<EventRefusal> {
    let Some(quantity) = details.quantity else { return Some(EventRefusal::Missing("quantity")) };
    impossible(&quantity.range(), &details.value, |value| quantity.likely_meant(value))
        .or_else(|| too_long("of", details.of.as_deref(), MOST_NAME))
}

fn wrong_observation(details: &EventDetails) -> Option<EventRefusal> {
    let Some(name) = details.name.as_deref() else { return Some(EventRefusal::Missing("name")) };
    let Some(known) = observation(name) else {
        return Some(EventRefusal::Unknown { field: "name", given: cut(name) });
    };
    impossible(&known.range, &details.value, |_| None).or_else(|| {
        let RawNumber::Number(value) = details.value else { return None };
        let between = !known.choices.is_empty() && value.fract() != 0.0;
        let message = || format!("{} is one of few, by its number; {value} was given", known.label);
        between.then(|| EventRefusal::Impossible { message: message(), likely_meant: None })
    })
}

fn wrong_addition(details: &EventDetails) -> Option<EventRefusal> {
    wrong_text("ingredient", details.ingredient.as_deref(), MOST_NAME)
        .or_else(|| impossible(&KG, &details.kg, |_| None))
        .or_else(|| {
            let reason = details.reason.as_deref()?;
            let unknown = || EventRefusal::Unknown { field: "reason", given: cut(reason) };
            AdditionReason::named(reason).is_none().then(unknown)
        })
}

fn wrong_finish(details: &EventDetails) -> Option<EventRefusal> {
    let given = [
        (&GOOD, &details.pieces_good),
        (&REJECTED, &details.pieces_rejected),
        (&MASS, &details.mass_kg),
    ];
    let mut stated = given.into_iter().filter(|(_, number)| !number.is_missing());
    stated.find_map(|(range, number)| impossible(range, number, |_| None)).or_else(|| {
        let reasons = details.reasons.as_deref().unwrap_or_default();
        let long =
            reasons.iter().find_map(|one| too_long("reasons", Some(one.reason()), MOST_NAME));
        let many = reasons.len() > MOST_REASONS;
        long.or_else(|| {
            many.then_some(EventRefusal::TooLong { field: "reasons", most: MOST_REASONS })
        })
    })
}

fn impossible(
    range: &NumberRange,
    given: &RawNumber,
    likely_meant: impl Fn(f64) -> Option<f64>,
) -> Option<EventRefusal> {
    let mut faults = ValidationErrors::default();
    range.check(given, "", &mut faults);
    let message = faults.0.pop()?.message;
    let likely_meant = match given {
        RawNumber::Number(value) => likely_meant(*value),
        _ => None,
    };
    Some(EventRefusal::Impossible { message, likely_meant })
}

fn wrong_text(field: &'static str, text: Option<&str>, most: usize) -> Option<EventRefusal> {
    match text {
        Some(text) if !text.trim().is_empty() => too_long(field, Some(text), most),
        _ => Some(EventRefusal::Missing(field)),
    }
}

fn too_long(field: &'static str, text: Option<&str>, most: usize) -> Option<EventRefusal> {
    let long = text.is_some_and(|text| text.chars().count() > most);
    long.then_some(EventRefusal::TooLong { field, most })
}

fn cut(text: &str) -> String {
    text.chars().take(MOST_NAME).collect()
}
