//! Stations of the floor: tablets that are signed in for good, and who is at each.

use chrono::{DateTime, Duration, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncPgConnection, RunQueryDsl};
use serde::Serialize;
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::person_role::PersonRole;
use crate::schema::{person, person_role, session, station, station_presence};
use crate::store::{Store, act};
use crate::word::Word;

/// How old the last sight of a station may be before it is noted anew.
const SEEN_EVERY: Duration = Duration::minutes(1);

/// A tablet of the floor.
#[derive(Debug, Clone, PartialEq, Eq, Queryable, Selectable, Serialize)]
#[diesel(table_name = station)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Station {
    pub id: Uuid,
    pub name: String,
    pub made_by: String,
    pub made_at: DateTime<Utc>,
    pub seen_at: DateTime<Utc>,
    /// When it is signed out by itself, unless it is used before.
    pub expires_at: DateTime<Utc>,
    /// After so long without a touch nobody is at it any more, min.
    pub idle_minutes: i32,
}

/// Somebody who may be at a station.
#[derive(Debug, Clone, PartialEq, Eq, Queryable, Selectable, Serialize)]
#[diesel(table_name = person)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct StationPerson {
    pub id: Uuid,
    pub name: String,
    pub initials: String,
}

/// A tablet that becomes a station.
#[derive(Debug, Clone, Copy)]
pub struct NewStation<'a> {
    pub id: Uuid,
    pub name: &'a str,
    pub token_hash: &'a [u8],
    pub made_by: &'a str,
    pub idle_minutes: i32,
    pub lasts: Duration,
    /// The session in which it was made.
    pub ends: Uuid,
}

/// A station that holds, and who is at it.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct StationSession {
    pub station: Station,
    pub person: Option<StationPerson>,
    /// Its end was put off just now.
    pub extended: bool,
}

/// Who records on the floor.
pub(crate) const RECORDS: [Word<PersonRole>; 2] =
    [Word(PersonRole::Floor), Word(PersonRole::Technologist)];

impl Store {
    /// Makes a tablet a station.
    pub async fn add_station(
        &self,
        NewStation { id, name, token_hash, made_by, idle_minutes, lasts, ends }: NewStation<'_>,
    ) -> Result<Station> {
        act!(self, |connection| {
            diesel::delete(session::table.find(ends)).execute(connection).await?;
            diesel::insert_into(station::table)
                .values((
                    station::id.eq(id),
                    station::name.eq(name),
                    station::token_hash.eq(token_hash),
                    station::made_by.eq(made_by),
                    station::idle_minutes.eq(idle_minutes),
                    station::expires_at.eq(Utc::now() + lasts),
                ))
                .returning(Station::as_returning())
                .get_result(connection)
                .await
                .map_err(|error| {
                    let stands = || "a station stands under this id already".into();
                    StoreError::or_conflict(error, stands)
                })?
        })
    }

    /// Stations that are signed in, by name.
    pub async fn stations(&self) -> Result<Vec<Station>> {
        Ok(station::table
            .filter(station::expires_at.gt(Utc::now()))
            .order((station::name, station::id))
            .select(Station::as_select())
            .load(&mut self.connection().await?)
            .await?)
    }

    /// The station of a token, its end put off by use.
    pub async fn station(
        &self,
        token_hash: &[u8],
        lasts: Duration,
    ) -> Result<Option<StationSession>> {
        let now = Utc::now();
        let mut connection = self.connection().await?;
        let present = station_presence::table
            .inner_join(person::table)
            .filter(station_presence::until.is_null())
            .filter(person::active);
        let found: Option<Station> = station::table
            .filter(station::token_hash.eq(token_hash))
            .filter(station::expires_at.gt(now))
            .select(Station::as_select())
            .first(&mut connection)
            .await
            .optional()?;
        let Some(station) = found else { return Ok(None) };
        let person = present
            .filter(station_presence::station_id.eq(station.id))
            .select(StationPerson::as_select())
            .first(&mut connection)
            .await
            .optional()?;
        let extended = now - station.seen_at > SEEN_EVERY;
        if extended {
            diesel::update(station::table.find(station.id))
                .set((station::seen_at.eq(now), station::expires_at.eq(now + lasts)))
                .execute(&mut connection)
                .await?;
        }
        Ok(Some(StationSession { station, person, extended }))
    }

    /// Signs a station out; nobody is at it any more.
    pub async fn end_station(&self, id: Uuid) -> Result<()> {
        act!(self, |connection| {
            leave(connection, id).await?;
            let ended = diesel::update(station::table.find(id))
                .set(station::expires_at.eq(diesel::dsl::now))
                .execute(connection)
                .await?;
            if ended == 0 {
                return Err(StoreError::NotFound("this station"));
            }
        })
    }

    /// Who may be at a station: whoever records and has a PIN.
    pub async fn station_people(&self, demo: bool) -> Result<Vec<StationPerson>> {
        let records = person_role::table
            .filter(person_role::role.eq_any(RECORDS))
            .select(person_role::person_id);
        Ok(person::table
            .filter(person::active)
            .filter(person::pin_hash.is_not_null())
            .filter(person::demo.eq(false).or(person::demo.eq(demo)))
            .filter(person::id.eq_any(records))
            .order((person::name, person::id))
            .select(StationPerson::as_select())
            .load(&mut self.connection().await?)
            .await?)
    }

    /// Somebody is at a station from now on, and whoever was before no longer.
    pub async fn enter_station(&self, station_id: Uuid, person_id: Uuid) -> Result<()> {
        act!(self, |connection| {
            // One after the other, whichever server is asked.
            let this = station::table.find(station_id).select(station::id).for_update();
            this.first::<Uuid>(connection).await?;
            leave(connection, station_id).await?;
            diesel::insert_into(station_presence::table)
                .values((
                    station_presence::id.eq(Uuid::now_v7()),
                    station_presence::station_id.eq(station_id),
                    station_presence::person_id.eq(person_id),
                ))
                .execute(connection)
                .await?;
        })
    }

    /// Nobody is at a station any more.
    pub async fn leave_station(&self, station_id: Uuid) -> Result<()> {
        act!(self, |connection| { leave(connection, station_id).await? })
    }

    /// Whether somebody had shown that it was them at a station at this time.
    pub async fn was_at_station(
        &self,
        station_id: Uuid,
        person_id: Uuid,
        at: DateTime<Utc>,
    ) -> Result<bool> {
        let then = station_presence::table
            .filter(station_presence::station_id.eq(station_id))
            .filter(station_presence::person_id.eq(person_id))
            .filter(station_presence::since.le(at))
            .filter(station_presence::until.is_null().or(station_presence::until.ge(at)));
        Ok(diesel::select(diesel::dsl::exists(then))
            .get_result(&mut self.connection().await?)
            .await?)
    }

    /// What somebody's PIN is checked against; none where they have none.
    pub async fn pin_hash(&self, person_id: Uuid) -> Result<Option<String>> {
        let hash: Option<Option<String>> = person::table
            .find(person_id)
            .filter(person::active)
            .select(person::pin_hash)
            .first(&mut self.connection().await?)
            .await
            .optional()?;
        Ok(hash.flatten())
    }

    /// Sets a PIN's hash.
    pub async fn set_pin(&self, person_id: Uuid, hash: &str) -> Result<()> {
        act!(self, |connection| {
            diesel::update(person::table.find(person_id))
                .set(person::pin_hash.eq(hash))
                .execute(connection)
                .await?;
        })
    }
}

/// Who is at a station now.
#[diesel::dsl::auto_type]
fn now_at(station_id: Uuid) -> _ {
    station_presence::table
        .filter(station_presence::station_id.eq(station_id))
        .filter(station_presence::until.is_null())
}

/// Whoever is at a station no longer is.
async fn leave(connection: &mut AsyncPgConnection, station_id: Uuid) -> QueryResult<()> {
    diesel::update(now_at(station_id))
        .set(station_presence::until.eq(diesel::dsl::now))
        .execute(connection)
        .await
        .map(drop)
}
