//! Who is signed in, and the keys machines come with.

use chrono::{DateTime, Duration, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncPgConnection, RunQueryDsl};
use serde::Serialize;
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::person_role::PersonRole;
use crate::schema::{api_key, person, person_role, session, setup_code, sign_in_failure};
use crate::store::Store;
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
    /// Its end was put off just now.
    pub extended: bool,
}

/// A key as it is listed: what it is itself was shown once.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ApiKey {
    pub id: Uuid,
    pub name: String,
    pub role: PersonRole,
    pub made_by: String,
    pub made_at: DateTime<Utc>,
    pub revoked_at: Option<DateTime<Utc>>,
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
        let mut connection = self.connection().await?;
        let over = session::table.filter(session::expires_at.lt(Utc::now()));
        diesel::delete(over).execute(&mut connection).await?;
        let long_ago = Utc::now() - Duration::days(1);
        let over = sign_in_failure::table.filter(sign_in_failure::failed_at.lt(long_ago));
        diesel::delete(over).execute(&mut connection).await?;
        let id = Uuid::now_v7();
        diesel::insert_into(session::table)
            .values((
                session::id.eq(id),
                session::token_hash.eq(token_hash),
                session::person_id.eq(person_id),
                session::expires_at.eq(Utc::now() + lasts),
            ))
            .execute(&mut connection)
            .await?;
        Ok(id)
    }

    /// The session of a token, its end put off by use.
    pub async fn session(&self, token_hash: &[u8], lasts: Duration) -> Result<Option<Session>> {
        type Row = (Uuid, DateTime<Utc>, Uuid, String, String, String, bool, Word<PersonRole>);
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
                session::id,
                session::seen_at,
                person::id,
                person::name,
                person::initials,
                person::email,
                person::demo,
                person_role::role,
            ))
            .load(&mut connection)
            .await?;
        let roles = rows.iter().map(|row| row.7.0).collect();
        let Some((id, seen_at, person_id, name, initials, email, demo, _)) =
            rows.into_iter().next()
        else {
            return Ok(None);
        };
        let extended = now - seen_at > SEEN_EVERY;
        if extended {
            diesel::update(session::table.find(id))
                .set((session::seen_at.eq(now), session::expires_at.eq(now + lasts)))
                .execute(&mut connection)
                .await?;
        }
        Ok(Some(Session { id, person_id, name, initials, email, demo, roles, extended }))
    }

    /// Signs out here.
    pub async fn end_session(&self, id: Uuid) -> Result<()> {
        diesel::delete(session::table.find(id)).execute(&mut self.connection().await?).await?;
        Ok(())
    }

    /// Signs a person out everywhere.
    pub async fn end_sessions(&self, person_id: Uuid) -> Result<()> {
        Ok(end_all(&mut *self.connection().await?, person_id, None).await?)
    }

    /// Every key, newest first.
    pub async fn api_keys(&self) -> Result<Vec<ApiKey>> {
        type Row = (Uuid, String, Word<PersonRole>, String, DateTime<Utc>, Option<DateTime<Utc>>);
        let rows: Vec<Row> = api_key::table
            .order((api_key::made_at.desc(), api_key::id))
            .select((
                api_key::id,
                api_key::name,
                api_key::role,
                api_key::made_by,
                api_key::made_at,
                api_key::revoked_at,
            ))
            .load(&mut self.connection().await?)
            .await?;
        let of = |(id, name, Word(role), made_by, made_at, revoked_at): Row| ApiKey {
            id,
            name,
            role,
            made_by,
            made_at,
            revoked_at,
        };
        Ok(rows.into_iter().map(of).collect())
    }

    /// Keeps a new key by its hash.
    pub async fn add_api_key(&self, key: &ApiKey, hash: &[u8]) -> Result<()> {
        diesel::insert_into(api_key::table)
            .values((
                api_key::id.eq(key.id),
                api_key::name.eq(&key.name),
                api_key::key_hash.eq(hash),
                api_key::role.eq(Word(key.role)),
                api_key::made_by.eq(&key.made_by),
            ))
            .execute(&mut self.connection().await?)
            .await
            .map_err(|error| {
                StoreError::or_conflict(error, || "a key stands under this id already".into())
            })?;
        Ok(())
    }

    /// The key of a hash that was not revoked: its id, name and role.
    pub async fn api_key(&self, hash: &[u8]) -> Result<Option<(Uuid, String, PersonRole)>> {
        let found: Option<(Uuid, String, Word<PersonRole>)> = api_key::table
            .filter(api_key::key_hash.eq(hash))
            .filter(api_key::revoked_at.is_null())
            .select((api_key::id, api_key::name, api_key::role))
            .first(&mut self.connection().await?)
            .await
            .optional()?;
        Ok(found.map(|(id, name, Word(role))| (id, name, role)))
    }

    /// Lets a key open nothing any more.
    pub async fn revoke_api_key(&self, id: Uuid) -> Result<()> {
        let changed = diesel::update(api_key::table.find(id))
            .set(api_key::revoked_at.eq(diesel::dsl::now))
            .execute(&mut self.connection().await?)
            .await?;
        if changed == 0 { Err(StoreError::NotFound("this key")) } else { Ok(()) }
    }

    /// Puts the code the first administrator is made with, in place of any before.
    pub async fn set_setup_code(&self, hash: &[u8]) -> Result<()> {
        let set = (setup_code::code_hash.eq(hash), setup_code::made_at.eq(diesel::dsl::now));
        diesel::insert_into(setup_code::table)
            .values(set)
            .on_conflict(setup_code::singleton)
            .do_update()
            .set(set)
            .execute(&mut self.connection().await?)
            .await?;
        Ok(())
    }

    /// Takes the setup code away, and says whether it was this one.
    pub async fn take_setup_code(&self, hash: &[u8]) -> Result<bool> {
        let this = setup_code::table.filter(setup_code::code_hash.eq(hash));
        Ok(diesel::delete(this).execute(&mut self.connection().await?).await? == 1)
    }
}
