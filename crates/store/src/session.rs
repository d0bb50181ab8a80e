//! Who is signed in.

use chrono::{DateTime, Duration, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncPgConnection, RunQueryDsl};
use uuid::Uuid;

use crate::error::Result;
use crate::person_role::PersonRole;
use crate::schema::{person, person_role, session, sign_in_failure};
use crate::store::{Store, act};
use crate::word::Word;

/// How old the last sight of a session may be before it is noted anew.
const SEEN_EVERY: Duration = Duration::minutes(1);

/// A session that holds.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Session {
    pub id: Uuid,
    pub person_id: Uuid,
    pub name: String,
    pub initials: String,
    pub email: String,
    /// Of the demo plant.
    pub demo: bool,
    pub roles: Vec<PersonRole>,
    /// When they last gave their password here.
    pub confirmed_at: DateTime<Utc>,
    /// Its end was put off just now.
    pub extended: bool,
}

/// Ends every session of a person but one.
pub(crate) async fn end_all(
    connection: &mut AsyncPgConnection,
    person_id: Uuid,
    keep: Option<Uuid>,
) -> QueryResult<()> {
    let theirs = session::table
        .filter(session::person_id.eq(person_id))
        .filter(session::id.ne(keep.unwrap_or_default()));
    diesel::delete(theirs).execute(connection).await.map(drop)
}

impl Store {
    /// Begins a session of a person; those that are over are cleared away.
    pub async fn begin_session(
        &self,
        person_id: Uuid,
        token_hash: &[u8],
        lasts: Duration,
    ) -> Result<Uuid> {
        act!(self, |connection| {
            let over = session::table.filter(session::expires_at.lt(Utc::now()));
            diesel::delete(over).execute(connection).await?;
            let long_ago = Utc::now() - Duration::days(1);
            let over = sign_in_failure::table.filter(sign_in_failure::failed_at.lt(long_ago));
            diesel::delete(over).execute(connection).await?;
            let id = Uuid::now_v7();
            diesel::insert_into(session::table)
                .values((
                    session::id.eq(id),
                    session::token_hash.eq(token_hash),
                    session::person_id.eq(person_id),
                    session::expires_at.eq(Utc::now() + lasts),
                ))
                .execute(connection)
                .await?;
            id
        })
    }

    /// Whoever is signed in here gave their password anew.
    pub async fn confirm_session(&self, id: Uuid) -> Result<()> {
        diesel::update(session::table.find(id))
            .set(session::confirmed_at.eq(diesel::dsl::now))
            .execute(&mut self.connection().await?)
            .await?;
        Ok(())
    }

    /// The session of a token, its end put off by use.
    pub async fn session(&self, token_hash: &[u8], lasts: Duration) -> Result<Option<Session>> {
        type Row = (
            (Uuid, DateTime<Utc>, DateTime<Utc>),
            (Uuid, String, String, String, bool),
            Word<PersonRole>,
        );
        let now = Utc::now();
        let mut connection = self.connection().await?;
        let rows: Vec<Row> = session::table
            .inner_join(person::table)
            .inner_join(person_role::table.on(person_role::person_id.eq(session::person_id)))
            .filter(session::token_hash.eq(token_hash))
            .filter(session::expires_at.gt(now))
            .filter(person::active)
            .order(person_role::role)
            .select((
                (session::id, session::seen_at, session::confirmed_at),
                (person::id, person::name, person::initials, person::email, person::demo),
                person_role::role,
            ))
            .load(&mut connection)
            .await?;
        let roles = rows.iter().map(|row| row.2.0).collect();
        let Some((session, person, _)) = rows.into_iter().next() else { return Ok(None) };
        let (id, seen_at, confirmed_at) = session;
        let (person_id, name, initials, email, demo) = person;
        let extended = now - seen_at > SEEN_EVERY;
        if extended {
            diesel::update(session::table.find(id))
                .set((session::seen_at.eq(now), session::expires_at.eq(now + lasts)))
                .execute(&mut connection)
                .await?;
        }
        Ok(Some(Session {
            id,
            person_id,
            name,
            initials,
            email,
            demo,
            roles,
            confirmed_at,
            extended,
        }))
    }

    /// Signs out here.
    pub async fn end_session(&self, id: Uuid) -> Result<()> {
        act!(self, |connection| {
            diesel::delete(session::table.find(id)).execute(connection).await?;
        })
    }

    /// Signs a person out everywhere.
    pub async fn end_sessions(&self, person_id: Uuid) -> Result<()> {
        act!(self, |connection| { end_all(connection, person_id, None).await? })
    }
}
