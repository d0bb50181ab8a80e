//! People: who works here, and what each may do.

use chrono::{DateTime, Utc};
use diesel::prelude::*;
use diesel_async::{AsyncPgConnection, RunQueryDsl};
use serde::Serialize;
use uuid::Uuid;

use crate::error::{Result, StoreError};
use crate::person_role::PersonRole;
use crate::schema::{person, person_role};
use crate::store::{Store, act};
use crate::word::Word;

/// Somebody with an account.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[expect(clippy::struct_excessive_bools, reason = "each is a fact of its own")]
pub struct Person {
    pub id: Uuid,
    pub name: String,
    pub initials: String,
    pub email: String,
    pub active: bool,
    /// An account of the demo plant, which opens nothing outside demo mode.
    pub demo: bool,
    /// Whether a password was set.
    pub signs_in: bool,
    /// Whether a PIN was set, to be known by at a station.
    pub has_pin: bool,
    /// Whether signing in takes a code of their authenticator as well.
    pub has_second_factor: bool,
    pub roles: Vec<PersonRole>,
    pub made_at: DateTime<Utc>,
}

/// What is set of a person.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct PersonDetails {
    pub name: String,
    pub initials: String,
    /// In lower case.
    pub email: String,
    pub active: bool,
    pub demo: bool,
    pub roles: Vec<PersonRole>,
}

/// A person as their table has them.
#[derive(Queryable, Selectable)]
#[diesel(table_name = person)]
struct Row {
    id: Uuid,
    name: String,
    initials: String,
    email: String,
    password_hash: Option<String>,
    active: bool,
    demo: bool,
    made_at: DateTime<Utc>,
    pin_hash: Option<String>,
    totp_secret: Option<String>,
}

/// A person with what their password is checked against.
#[derive(Debug, Clone)]
pub struct Account {
    pub person: Person,
    pub password_hash: Option<String>,
    /// What codes of their authenticator are made from, where they have one.
    pub totp_secret: Option<String>,
}

impl Account {
    fn of(row: Row, roles: Vec<PersonRole>) -> Self {
        let person = Person {
            id: row.id,
            name: row.name,
            initials: row.initials,
            email: row.email,
            active: row.active,
            demo: row.demo,
            signs_in: row.password_hash.is_some(),
            has_pin: row.pin_hash.is_some(),
            has_second_factor: row.totp_secret.is_some(),
            roles,
            made_at: row.made_at,
        };
        Self { person, password_hash: row.password_hash, totp_secret: row.totp_secret }
    }
}

async fn roles_of(connection: &mut AsyncPgConnection, id: Uuid) -> QueryResult<Vec<PersonRole>> {
    let roles: Vec<Word<PersonRole>> = person_role::table
        .filter(person_role::person_id.eq(id))
        .order(person_role::role)
        .select(person_role::role)
        .load(connection)
        .await?;
    Ok(roles.into_iter().map(|Word(role)| role).collect())
}

impl Store {
    /// Everybody, by name.
    pub async fn people(&self) -> Result<Vec<Person>> {
        let mut connection = self.connection().await?;
        let rows: Vec<Row> = person::table
            .order((person::name, person::id))
            .select(Row::as_select())
            .load(&mut connection)
            .await?;
        let roles: Vec<(Uuid, Word<PersonRole>)> =
            person_role::table.order(person_role::role).load(&mut connection).await?;
        let of = |row: Row| {
            let own = roles.iter().filter(|(person, _)| *person == row.id);
            let own = own.map(|(_, Word(role))| *role).collect();
            Account::of(row, own).person
        };
        Ok(rows.into_iter().map(of).collect())
    }

    /// Whether anybody has an account that opens something: a plant without has to be set up.
    pub async fn has_people(&self, demo: bool) -> Result<bool> {
        let anybody = person::table.filter(person::demo.eq(false).or(person::demo.eq(demo)));
        Ok(diesel::select(diesel::dsl::exists(anybody))
            .get_result(&mut self.connection().await?)
            .await?)
    }

    /// The account of an e-mail address, whatever the case of its letters.
    pub async fn account(&self, email: &str) -> Result<Option<Account>> {
        let mut connection = self.connection().await?;
        let row: Option<Row> = person::table
            .filter(person::email.eq(email.to_lowercase()))
            .select(Row::as_select())
            .first(&mut connection)
            .await
            .optional()?;
        let Some(row) = row else { return Ok(None) };
        let roles = roles_of(&mut connection, row.id).await?;
        Ok(Some(Account::of(row, roles)))
    }

    /// A person with their password's hash.
    pub async fn account_of(&self, id: Uuid) -> Result<Account> {
        let mut connection = self.connection().await?;
        let row: Option<Row> = person::table
            .find(id)
            .select(Row::as_select())
            .first(&mut connection)
            .await
            .optional()?;
        let row = row.ok_or(StoreError::NotFound("this person"))?;
        let roles = roles_of(&mut connection, id).await?;
        Ok(Account::of(row, roles))
    }

    /// Adds a person, or changes what is set of one; whoever may do nothing any more is signed out.
    pub async fn set_person(&self, id: Uuid, details: &PersonDetails) -> Result<()> {
        let set = (
            person::name.eq(&details.name),
            person::initials.eq(&details.initials),
            person::email.eq(&details.email),
            person::active.eq(details.active),
            person::demo.eq(details.demo),
        );
        let roles: Vec<_> = details
            .roles
            .iter()
            .map(|role| (person_role::person_id.eq(id), person_role::role.eq(Word(*role))))
            .collect();
        act!(self, |connection| {
            diesel::insert_into(person::table)
                .values((person::id.eq(id), set))
                .on_conflict(person::id)
                .do_update()
                .set(set)
                .execute(connection)
                .await
                .map_err(|error| {
                    StoreError::or_conflict(error, || {
                        format!("{} is somebody else's e-mail address here", details.email)
                    })
                })?;
            let theirs = person_role::table.filter(person_role::person_id.eq(id));
            diesel::delete(theirs).execute(connection).await?;
            diesel::insert_into(person_role::table).values(&roles).execute(connection).await?;
            if !details.active {
                crate::session::end_all(connection, id, None).await?;
            }
        })
    }

    /// Sets a password's hash, and ends every session of the person but one.
    pub async fn set_password(&self, id: Uuid, hash: &str, keep: Option<Uuid>) -> Result<()> {
        act!(self, |connection| {
            diesel::update(person::table.find(id))
                .set(person::password_hash.eq(hash))
                .execute(connection)
                .await?;
            crate::session::end_all(connection, id, keep).await?;
        })
    }

    /// Sets what codes of somebody's authenticator are made from, or that none are asked for, and ends
    /// every session of theirs but one.
    pub async fn set_second_factor(
        &self,
        id: Uuid,
        secret: Option<&str>,
        keep: Option<Uuid>,
    ) -> Result<()> {
        act!(self, |connection| {
            diesel::update(person::table.find(id))
                .set((person::totp_secret.eq(secret), person::totp_step.eq(None::<i64>)))
                .execute(connection)
                .await?;
            crate::session::end_all(connection, id, keep).await?;
        })
    }

    /// Takes the code of a step of time, unless that or a later one was taken.
    pub async fn take_step(&self, id: Uuid, step: i64) -> Result<bool> {
        let later = person::totp_step.is_null().or(person::totp_step.lt(step));
        let taken = diesel::update(person::table.find(id).filter(later))
            .set(person::totp_step.eq(step))
            .execute(&mut self.connection().await?)
            .await?;
        Ok(taken == 1)
    }
}
