//! What happens to batches: appended to, each event once under the id its client made.

use std::collections::HashMap;

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncConnection, AsyncPgConnection, RunQueryDsl};
use ironpeel_core::batch::{BatchState, Event, EventKind};
use serde::Serialize;
use serde_json::Value;
use uuid::Uuid;

use crate::batch_state::{BatchProjection, this_write};
use crate::error::{Result, StoreError};
use crate::schema::{batch_event, batch_state, person, person_role};
use crate::station::RECORDS;
use crate::store::{PageKey, Store, past, worth_again};
use crate::word::Word;

/// Who an event is of.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct EventAuthor {
    pub person_id: Option<Uuid>,
    pub who: String,
    pub station_id: Option<Uuid>,
    pub api_key_id: Option<Uuid>,
    pub verified: bool,
}

/// An event to be put on record.
#[derive(Debug, Clone, PartialEq)]
pub struct NewBatchEvent {
    pub id: Uuid,
    pub kind: EventKind,
    pub stage_id: Option<Uuid>,
    pub happened_at: DateTime<Utc>,
    pub claimed_at: Option<DateTime<Utc>>,
    pub author: EventAuthor,
    pub corrects: Option<Uuid>,
    pub body: Value,
    pub body_hash: Vec<u8>,
}

/// What became of an event that was sent.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Recorded {
    Stored,
    /// The same was stored before.
    Already,
    /// Something else stands under its id.
    Conflict,
}

/// An event on record.
#[derive(Debug, Clone, PartialEq, Queryable, Selectable, Serialize)]
#[diesel(table_name = batch_event)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BatchEvent {
    pub id: Uuid,
    #[serde(skip)]
    pub batch_id: Uuid,
    #[cfg_attr(feature = "openapi", schema(value_type = EventKind))]
    pub kind: Word<EventKind>,
    pub happened_at: DateTime<Utc>,
    /// As the sender's clock said it, where that was off.
    pub claimed_at: Option<DateTime<Utc>>,
    pub recorded_at: DateTime<Utc>,
    pub person_id: Option<Uuid>,
    /// As they were called then.
    pub who: String,
    pub station_id: Option<Uuid>,
    /// Whether its author showed that it was them.
    pub verified: bool,
    /// As it was sent.
    #[cfg_attr(feature = "openapi", schema(value_type = Object))]
    pub body: Value,
}

impl BatchEvent {
    /// The event as the fold takes it, its moments by the server's clock; none of what no version
    /// wrote.
    pub fn event(&self) -> Option<Event> {
        let mut event: Event = serde_json::from_value(self.body.clone()).ok()?;
        let shift = self.claimed_at.map(|claimed| self.happened_at - claimed);
        event.happened_at = self.happened_at;
        if let (Some(shift), Some(at)) = (shift, &mut event.new_happened_at) {
            *at += shift;
        }
        Some(event)
    }
}

async fn of_batch(connection: &mut AsyncPgConnection, id: Uuid) -> QueryResult<Vec<BatchEvent>> {
    batch_event::table
        .filter(batch_event::batch_id.eq(id))
        .order((batch_event::happened_at, batch_event::id))
        .select(BatchEvent::as_select())
        .load(connection)
        .await
}

/// A row of an event.
#[derive(Insertable)]
#[diesel(table_name = batch_event)]
struct EventRow<'a> {
    id: Uuid,
    batch_id: Uuid,
    kind: Word<EventKind>,
    stage_id: Option<Uuid>,
    happened_at: DateTime<Utc>,
    claimed_at: Option<DateTime<Utc>>,
    person_id: Option<Uuid>,
    who: &'a str,
    station_id: Option<Uuid>,
    api_key_id: Option<Uuid>,
    verified: bool,
    corrects: Option<Uuid>,
    body: &'a Value,
    body_hash: &'a [u8],
}

/// Rows of one statement: it takes so many values and no more.
const ROWS: usize = 2000;

/// Inserts events of a batch.
pub(crate) async fn insert_events<'a>(
    connection: &mut AsyncPgConnection,
    batch_id: Uuid,
    events: impl IntoIterator<Item = &'a NewBatchEvent>,
) -> QueryResult<()> {
    let row = |new: &'a NewBatchEvent| EventRow {
        id: new.id,
        batch_id,
        kind: Word(new.kind),
        stage_id: new.stage_id,
        happened_at: new.happened_at,
        claimed_at: new.claimed_at,
        person_id: new.author.person_id,
        who: &new.author.who,
        station_id: new.author.station_id,
        api_key_id: new.author.api_key_id,
        verified: new.author.verified,
        corrects: new.corrects,
        body: &new.body,
        body_hash: &new.body_hash,
    };
    let rows: Vec<EventRow<'_>> = events.into_iter().map(row).collect();
    for part in rows.chunks(ROWS) {
        diesel::insert_into(batch_event::table).values(part).execute(connection).await?;
    }
    Ok(())
}

impl Store {
    /// Records events of a batch, each once, and what they come to with them: all or nothing. What
    /// became of each, in the order they were given, and where the batch stands by them.
    pub async fn add_batch_events(
        &self,
        batch_id: Uuid,
        new: &[NewBatchEvent],
        project: impl Fn(&[BatchEvent]) -> BatchProjection + Send + Sync,
    ) -> Result<(Vec<Recorded>, BatchState)> {
        let mut connection = self.connection().await?;
        let mut tries = 0;
        loop {
            tries += 1;
            let done = connection
                .transaction::<_, diesel::result::Error, _>(async |connection| {
                    record(connection, batch_id, new, &project).await
                })
                .await;
            match done {
                Ok(Some(recorded)) => return Ok(recorded),
                Ok(None) => return Err(StoreError::NotFound("this batch")),
                // An id that somebody else wrote at this moment is found on record the next time.
                Err(error) if worth_again(&error, tries) || tries == 1 && is_taken(&error) => {}
                Err(error) => return Err(error.into()),
            }
        }
    }

    /// Events of a batch in order, from after one of them.
    pub async fn batch_events(
        &self,
        batch_id: Uuid,
        after: Option<Uuid>,
        most: i64,
    ) -> Result<Vec<BatchEvent>> {
        let mut connection = self.connection().await?;
        let key: Option<PageKey> = match after {
            Some(after) => Some(
                batch_event::table
                    .find(after)
                    .select((batch_event::happened_at, batch_event::id))
                    .first(&mut connection)
                    .await
                    .optional()?
                    .ok_or(StoreError::NotFound("the event this page begins after"))?,
            ),
            None => None,
        };
        let mut query = batch_event::table
            .filter(batch_event::batch_id.eq(batch_id))
            .order((batch_event::happened_at, batch_event::id))
            .select(BatchEvent::as_select())
            .limit(most)
            .into_boxed();
        if let Some(key) = key {
            query = query.filter(past!("batch_event.happened_at, batch_event.id", ">", key));
        }
        Ok(query.load(&mut connection).await?)
    }

    /// All events of some batches, each batch's in order.
    pub async fn events_of(&self, batches: &[Uuid]) -> Result<HashMap<Uuid, Vec<BatchEvent>>> {
        let found: Vec<BatchEvent> = batch_event::table
            .filter(batch_event::batch_id.eq_any(batches))
            .order((batch_event::happened_at, batch_event::id))
            .select(BatchEvent::as_select())
            .load(&mut self.connection().await?)
            .await?;
        let mut of: HashMap<Uuid, Vec<BatchEvent>> = HashMap::new();
        for event in found {
            of.entry(event.batch_id).or_default().push(event);
        }
        Ok(of)
    }

    /// Somebody of the floor by their name, if they worked here at a time.
    pub async fn active_at(&self, id: Uuid, at: DateTime<Utc>) -> Result<Option<String>> {
        let records = person_role::table
            .filter(person_role::role.eq_any(RECORDS))
            .select(person_role::person_id);
        Ok(person::table
            .find(id)
            .filter(person::deactivated_at.is_null().or(person::deactivated_at.ge(at)))
            .filter(person::id.eq_any(records))
            .select(person::name)
            .first(&mut self.connection().await?)
            .await
            .optional()?)
    }
}

fn is_taken(error: &diesel::result::Error) -> bool {
    use diesel::result::{DatabaseErrorKind, Error};
    matches!(error, Error::DatabaseError(DatabaseErrorKind::UniqueViolation, _))
}

/// None where there is no such batch.
async fn record(
    connection: &mut AsyncPgConnection,
    batch_id: Uuid,
    new: &[NewBatchEvent],
    project: &(impl Fn(&[BatchEvent]) -> BatchProjection + Sync),
) -> QueryResult<Option<(Vec<Recorded>, BatchState)>> {
    // One after the other, whichever server is asked.
    let this = batch_state::table.find(batch_id).select(batch_state::state).for_update();
    let now: Option<Word<BatchState>> = this.first(connection).await.optional()?;
    let Some(Word(now)) = now else { return Ok(None) };
    let ids: Vec<Uuid> = new.iter().map(|one| one.id).collect();
    let known: Vec<(Uuid, Uuid, Vec<u8>)> = batch_event::table
        .filter(batch_event::id.eq_any(&ids))
        .select((batch_event::id, batch_event::batch_id, batch_event::body_hash))
        .load(connection)
        .await?;
    let mut known: HashMap<Uuid, (Uuid, Vec<u8>)> =
        known.into_iter().map(|(id, batch, hash)| (id, (batch, hash))).collect();
    let mut recorded = Vec::with_capacity(new.len());
    let mut added: Vec<&NewBatchEvent> = Vec::new();
    for one in new {
        recorded.push(match known.get(&one.id) {
            Some((batch, hash)) if *batch == batch_id && *hash == one.body_hash => {
                Recorded::Already
            }
            Some(_) => Recorded::Conflict,
            None => {
                known.insert(one.id, (batch_id, one.body_hash.clone()));
                added.push(one);
                Recorded::Stored
            }
        });
    }
    if added.is_empty() {
        return Ok(Some((recorded, now)));
    }
    insert_events(connection, batch_id, added).await?;
    let BatchProjection { state, started_at, ended_at, events, unplaced, figures } =
        project(&of_batch(connection, batch_id).await?);
    diesel::update(batch_state::table.find(batch_id))
        .set((
            batch_state::state.eq(Word(state)),
            batch_state::started_at.eq(started_at),
            batch_state::ended_at.eq(ended_at),
            batch_state::events.eq(events),
            batch_state::unplaced.eq(unplaced),
            figures,
            batch_state::changed_in.eq(this_write()),
        ))
        .execute(connection)
        .await?;
    Ok(Some((recorded, state)))
}
