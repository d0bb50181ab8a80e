//! People and their roles.

use axum::extract::State;
use axum::http::StatusCode;
use ironpeel_core::units::ValidationErrors;
use ironpeel_store::{AuditedAct, Person, PersonDetails, PersonRole, StoreError};
use serde::Deserialize;
use serde_json::json;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::caller::Caller;
use crate::password;
use crate::problem::{Problem, Result};
use crate::request::{Json, Path};
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(people))
        .routes(routes!(save))
        .routes(routes!(set_password))
        .routes(routes!(forget_second_factor))
        .routes(routes!(sign_out))
}

const NAME_MAX: usize = 80;
const INITIALS_MAX: usize = 6;
const EMAIL_MAX: usize = 254;

/// A person as they were typed.
#[derive(Debug, Clone, Default, Deserialize, ToSchema)]
pub struct PersonInput {
    #[serde(default)]
    pub name: String,
    /// Up to 6 letters.
    #[serde(default)]
    pub initials: String,
    #[serde(default)]
    pub email: String,
    /// One at least.
    #[serde(default)]
    pub roles: Vec<PersonRole>,
    #[serde(default)]
    pub active: bool,
}

/// A password somebody is given.
#[derive(Debug, Deserialize, ToSchema)]
struct PasswordInput {
    /// 12 to 128 letters.
    #[serde(default)]
    password: String,
}

impl PersonInput {
    pub fn check(&self, faults: &mut ValidationErrors) -> PersonDetails {
        let mut text = |field: &'static str, value: &str, most: usize, wanted: &str| {
            let value = value.trim();
            if value.is_empty() || value.chars().count() > most {
                faults.push(field, format!("{wanted}, up to {most} letters"));
            }
            value.to_owned()
        };
        let name = text("name", &self.name, NAME_MAX, "what is this person called?");
        let initials = text("initials", &self.initials, INITIALS_MAX, "initials");
        let email = text("email", &self.email, EMAIL_MAX, "the e-mail address to sign in with");
        let email = email.to_lowercase();
        let whole = email.split_once('@').is_some_and(|(name, place)| {
            !name.is_empty() && !place.is_empty() && !email.contains(char::is_whitespace)
        });
        if !email.is_empty() && !whole {
            faults.push("email", "this is no e-mail address");
        }
        if self.roles.is_empty() {
            faults.push("roles", "what is this person here for? one role at least");
        }
        let mut roles = self.roles.clone();
        roles.sort();
        roles.dedup();
        PersonDetails { name, initials, email, active: self.active, demo: false, roles }
    }
}

/// What is done to somebody's account.
pub fn act(action: &str, id: Uuid) -> AuditedAct {
    AuditedAct { record_id: Some(id), ..AuditedAct::new(action, format!("/api/v1/people/{id}")) }
}

/// Everybody with an account
#[utoipa::path(get, path = "/api/v1/people", tag = "people", security(("session" = ["administer"])),
    responses((status = 200, body = Vec<Person>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn people(State(app): State<App>) -> Result<Json<Vec<Person>>> {
    let everybody = app.store.people().await?;
    Ok(Json(everybody.into_iter().filter(|person| app.config.demo || !person.demo).collect()))
}

/// Adds a person, or changes one
#[utoipa::path(put, path = "/api/v1/people/{person_id}", tag = "people", security(("session" = ["administer", "confirmed"])),
    params(("person_id" = Uuid, Path)), request_body = PersonInput,
    responses((status = 200, body = Person), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn save(
    State(app): State<App>,
    caller: Caller,
    Path(id): Path<Uuid>,
    Json(input): Json<PersonInput>,
) -> Result<Json<Person>> {
    let mut faults = ValidationErrors::default();
    let mut details = input.check(&mut faults);
    faults.or(())?;
    let before = match app.store.account_of(id).await {
        Ok(account) => Some(account.person),
        Err(StoreError::NotFound(_)) => None,
        Err(error) => return Err(error.into()),
    };
    let administers = details.active && details.roles.contains(&PersonRole::Administrator);
    if caller.author.person_id == Some(id) && !administers {
        let message = "you would not be an administrator any more; another one can do that";
        return Err(Problem::field("roles", message));
    }
    details.demo = before.as_ref().is_some_and(|before| before.demo);
    let of = |details: &PersonDetails| {
        let PersonDetails { name, initials, email, active, roles, .. } = details;
        json!({"name": name, "initials": initials, "email": email, "active": active, "roles": roles})
    };
    let before = before.map(|Person { name, initials, email, active, demo, roles, .. }| {
        PersonDetails { name, initials, email, active, demo, roles }
    });
    let entry = json!({"before": before.as_ref().map(of), "after": of(&details)});
    let act = AuditedAct { details: Some(entry), ..act("person", id) };
    app.store.audited(&caller.author, act).set_person(id, &details).await?;
    Ok(Json(app.store.account_of(id).await?.person))
}

/// Gives a person a password, and signs them out everywhere
#[utoipa::path(put, path = "/api/v1/people/{person_id}/password", tag = "people", security(("session" = ["administer", "confirmed"])),
    params(("person_id" = Uuid, Path)), request_body = PasswordInput,
    responses((status = 204), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn set_password(
    State(app): State<App>,
    caller: Caller,
    Path(id): Path<Uuid>,
    Json(PasswordInput { password }): Json<PasswordInput>,
) -> Result<StatusCode> {
    let Person { name, email, .. } = app.store.account_of(id).await?.person;
    let mut faults = ValidationErrors::default();
    password::check("password", &password, &[&name, &email], &mut faults);
    faults.or(())?;
    let store = app.store.audited(&caller.author, act("password", id));
    store.set_password(id, &password::hash(password).await?, None).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Asks a person for no code of an authenticator any more, and signs them out everywhere
#[utoipa::path(delete, path = "/api/v1/people/{person_id}/second-factor", tag = "people", security(("session" = ["administer", "confirmed"])),
    params(("person_id" = Uuid, Path)),
    responses((status = 204), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn forget_second_factor(
    State(app): State<App>,
    caller: Caller,
    Path(id): Path<Uuid>,
) -> Result<StatusCode> {
    app.store.account_of(id).await?;
    let store = app.store.audited(&caller.author, act("second factor removed", id));
    store.set_second_factor(id, None, None).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Signs a person out everywhere
#[utoipa::path(delete, path = "/api/v1/people/{person_id}/sessions", tag = "people", security(("session" = ["administer"])),
    params(("person_id" = Uuid, Path)),
    responses((status = 204), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn sign_out(
    State(app): State<App>,
    caller: Caller,
    Path(id): Path<Uuid>,
) -> Result<StatusCode> {
    app.store.account_of(id).await?;
    let store = app.store.audited(&caller.author, act("sign-out everywhere", id));
    store.end_sessions(id).await?;
    Ok(StatusCode::NO_CONTENT)
}
