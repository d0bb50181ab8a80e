//! What happens to a batch: events, each once, and what became of each.

use std::collections::HashMap;

use axum::extract::State;
use chrono::{DateTime, TimeDelta, Utc};
use ironpeel_core::batch::{Acceptance, BatchState, Event};
use ironpeel_core::units::{ValidationErrors, timestamp};
use ironpeel_store::{BatchEvent, EventAuthor, NewBatchEvent, Recorded as Outcome};
use serde::{Deserialize, Serialize};
use serde_json::Value;
use sha2::{Digest, Sha256};
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::caller::Caller;
use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Query};
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(events, record))
}

/// The most events of one request, and of one page.
const MOST: usize = 500;
/// A clock that is off by less is right.
const CLOCK: TimeDelta = TimeDelta::seconds(60);

/// Events of one batch.
#[derive(Debug, Deserialize, ToSchema)]
struct EventsInput {
    /// By the sender's clock: where that is off, every moment is moved by as much.
    #[serde(default, deserialize_with = "timestamp::maybe")]
    sent_at: Option<DateTime<Utc>>,
    /// 1 to 500.
    #[schema(value_type = Vec<Event>)]
    events: Vec<Value>,
}

/// What became of an event.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
enum EventOutcome {
    Stored,
    /// The same was stored before.
    Already,
    /// Something else stands under its id.
    Conflict,
    Refused,
}

/// An event's answer.
#[derive(Debug, Serialize, ToSchema)]
struct EventAnswer {
    /// As it was given.
    #[schema(value_type = Option<String>)]
    id: Value,
    outcome: EventOutcome,
    /// Why it was refused, or what it met.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(required = false)]
    message: Option<String>,
}

impl EventAnswer {
    fn refused(id: Value, message: impl Into<String>) -> Self {
        Self { id, outcome: EventOutcome::Refused, message: Some(message.into()) }
    }
}

/// What became of each event, in the order they were sent, and where the batch stands by them.
#[derive(Debug, Serialize, ToSchema)]
struct EventsAnswer {
    events: Vec<EventAnswer>,
    state: BatchState,
}

/// A page of events, in order.
#[derive(Debug, Serialize, ToSchema)]
struct EventPage {
    events: Vec<BatchEvent>,
    /// The event after which the next page begins; none on the last.
    next: Option<Uuid>,
}

/// Where a page of events begins.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
struct EventQuery {
    /// After this event; from the first if left out.
    after: Option<Uuid>,
}

/// The events of a batch, in order
#[utoipa::path(get, path = "/api/v1/batches/{batch_id}/events", security(("session" = ["read"])), tag = "batch",
    params(("batch_id" = Uuid, Path), EventQuery),
    responses((status = 200, body = EventPage), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn events(
    State(app): State<App>,
    Path(id): Path<Uuid>,
    Query(asked): Query<EventQuery>,
) -> Result<Json<EventPage>> {
    app.revisions.batch(id).await?;
    let most = i64::try_from(MOST).map_err(Problem::fault)?;
    let mut found = app.store.batch_events(id, asked.after, most + 1).await?;
    let more = found.len() > MOST;
    found.truncate(MOST);
    let next = found.last().filter(|_| more).map(|event| event.id);
    Ok(Json(EventPage { events: found, next }))
}

/// Records what happened to a batch
///
/// Each event is stored once under its own id; one that cannot be stored stops none of the others.
/// What the batch's state at that time could not take is stored and stands as unplaced.
#[utoipa::path(post, path = "/api/v1/batches/{batch_id}/events", security(("session" = ["record"])), tag = "batch",
    params(("batch_id" = Uuid, Path)), request_body = EventsInput,
    responses((status = 200, body = EventsAnswer), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn record(
    State(app): State<App>,
    Path(id): Path<Uuid>,
    caller: Caller,
    Json(input): Json<EventsInput>,
) -> Result<Json<EventsAnswer>> {
    let mut faults = ValidationErrors::default();
    let many = input.events.len();
    if !(1..=MOST).contains(&many) {
        faults.push("events", format!("1 to {MOST} events; {many} were given"));
    }
    faults.or(())?;
    let planned = app.revisions.batch(id).await?;
    let now = Utc::now();
    let off = input.sent_at.map(|sent_at| now - sent_at).filter(|off| off.abs() > CLOCK);
    let stages = planned.stages();
    let against = Acceptance { stages: &stages, planned_at: planned.saved_at, now };

    let read: Vec<_> = input.events.into_iter().map(|sent| Sent::read(sent, off)).collect();
    let authors = Authors::load(&app, &caller, &read).await?;
    let mut answers = Vec::with_capacity(many);
    let (mut new, mut places) = (Vec::new(), Vec::new());
    for sent in read {
        let Sent { id, event } = sent;
        match event.and_then(|event| event.new_event(&against, &authors)) {
            Ok(event) => {
                places.push(answers.len());
                answers.push(EventAnswer { id, outcome: EventOutcome::Stored, message: None });
                new.push(event);
            }
            Err(message) => answers.push(EventAnswer::refused(id, message)),
        }
    }
    let (recorded, state) =
        app.store.add_batch_events(id, &new, |events| planned.project(events)).await?;
    for (place, outcome) in places.into_iter().zip(recorded) {
        let answer = &mut answers[place];
        match outcome {
            Outcome::Stored => {}
            Outcome::Already => answer.outcome = EventOutcome::Already,
            Outcome::Conflict => {
                answer.outcome = EventOutcome::Conflict;
                answer.message = Some(
                    "something else was recorded under this id; look at what is there, and send \
                     this under an id of its own"
                        .into(),
                );
            }
        }
    }
    Ok(Json(EventsAnswer { events: answers, state }))
}

/// An event as it was sent.
struct Sent {
    id: Value,
    event: std::result::Result<SentEvent, String>,
}

struct SentEvent {
    event: Event,
    claimed_at: Option<DateTime<Utc>>,
    body: Value,
    body_hash: Vec<u8>,
}

impl Sent {
    fn read(body: Value, off: Option<TimeDelta>) -> Self {
        let id = body.get("id").cloned().unwrap_or_default();
        let read = serde_path_to_error::deserialize::<_, Event>(&body).map_err(|error| {
            let path = error.path().to_string();
            let message = error.into_inner().to_string();
            if path == "." { message } else { format!("{path}: {message}") }
        });
        let event = read.map(|mut event| {
            let claimed_at = off.map(|_| event.happened_at);
            for at in [Some(&mut event.happened_at), event.new_happened_at.as_mut()] {
                if let (Some(at), Some(off)) = (at, off) {
                    *at += off;
                }
            }
            SentEvent { body_hash: hash_of(&body), event, claimed_at, body }
        });
        Self { id, event }
    }
}

impl SentEvent {
    fn new_event(
        self,
        against: &Acceptance<'_>,
        authors: &Authors,
    ) -> std::result::Result<NewBatchEvent, String> {
        let Self { event, claimed_at, body, body_hash } = self;
        if let Some(refusal) = event.refusal(against) {
            return Err(refusal.to_string());
        }
        Ok(NewBatchEvent {
            id: event.id,
            kind: event.kind,
            stage_id: event.details.stage,
            happened_at: event.happened_at,
            claimed_at,
            author: authors.of(&event)?,
            corrects: event.corrects,
            body,
            body_hash,
        })
    }
}

/// What an event says, whatever way its numbers and moments are written.
fn hash_of(body: &Value) -> Vec<u8> {
    Sha256::digest(said(body).to_string()).to_vec()
}

fn said(value: &Value) -> Value {
    match value {
        Value::Object(fields) => {
            let stated = fields.iter().filter(|(_, value)| !value.is_null());
            stated
                .map(|(name, value)| {
                    let moment = name.ends_with("happened_at").then(|| value.as_str()).flatten();
                    let moment = moment.and_then(|at| at.parse::<DateTime<Utc>>().ok());
                    let value =
                        moment.map_or_else(|| said(value), |at| Value::from(at.to_rfc3339()));
                    (name.clone(), value)
                })
                .collect()
        }
        Value::Array(values) => values.iter().map(said).collect(),
        Value::Number(number) => number.as_f64().map_or_else(|| value.clone(), Value::from),
        _ => value.clone(),
    }
}

/// Whose events are: the session's person, or at a station whoever each says.
struct Authors {
    caller: EventAuthor,
    /// At a station: who worked here at that time, and whether they had shown that it was them.
    people: Option<HashMap<(Uuid, DateTime<Utc>), Worker>>,
}

/// Somebody who worked here at a time.
struct Worker {
    name: String,
    verified: bool,
}

impl Authors {
    async fn load(app: &App, caller: &Caller, sent: &[Sent]) -> Result<Self> {
        let author = &caller.author;
        let own = EventAuthor {
            person_id: author.person_id,
            who: author.name.clone(),
            station_id: author.station_id,
            api_key_id: author.api_key_id,
            verified: author.verified,
        };
        let Some(station) = caller.station() else { return Ok(Self { caller: own, people: None }) };
        let events = sent.iter().filter_map(|sent| sent.event.as_ref().ok());
        let asked: Vec<(Uuid, DateTime<Utc>)> =
            events.filter_map(|sent| Some((sent.event.person?, sent.event.happened_at))).collect();
        let mut people = HashMap::new();
        for (id, at) in asked {
            if people.contains_key(&(id, at)) {
                continue;
            }
            if let Some(name) = app.store.active_at(id, at).await? {
                let verified = app.store.was_at_station(station.id, id, at).await?;
                people.insert((id, at), Worker { name, verified });
            }
        }
        Ok(Self { caller: own, people: Some(people) })
    }

    fn of(&self, event: &Event) -> std::result::Result<EventAuthor, String> {
        let (Some(people), Some(id)) = (&self.people, event.person) else {
            return Ok(self.caller.clone());
        };
        let Worker { name, verified } = people
            .get(&(id, event.happened_at))
            .ok_or("nobody who records on the floor was that person at that time")?;
        Ok(EventAuthor {
            person_id: Some(id),
            who: name.clone(),
            verified: *verified,
            ..self.caller.clone()
        })
    }
}
