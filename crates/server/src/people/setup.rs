//! The first administrator of a plant, made once with a code its first start prints.

use axum::extract::State;
use axum::http::StatusCode;
use axum_extra::extract::CookieJar;
use ironpeel_core::units::ValidationErrors;
use ironpeel_store::{PersonRole, Store};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use super::account::PersonInput;
use super::lockout;
use super::session::{SessionView, begin};
use crate::caller::Anybody;
use crate::demo;
use crate::password;
use crate::problem::{Problem, Result};
use crate::request::Json;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(about)).routes(routes!(set_up))
}

/// What this is, for whoever is about to sign in.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct About {
    version: &'static str,
    /// Nobody has an account yet: the first administrator is made with the code that was printed.
    set_up: bool,
    /// In demo mode, the accounts that open it, and the password of each.
    demo: Option<DemoAccounts>,
}

/// The accounts of the demo plant.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct DemoAccounts {
    accounts: Vec<DemoAccount>,
    password: &'static str,
}

/// An account of the demo plant.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct DemoAccount {
    name: &'static str,
    email: &'static str,
    role: PersonRole,
    /// What they are known by at a station of the floor.
    pin: &'static str,
}

/// The first administrator, with the code that was printed.
#[derive(Debug, Deserialize, ToSchema)]
struct SetupInput {
    #[serde(default)]
    code: String,
    #[serde(default)]
    name: String,
    #[serde(default)]
    initials: String,
    #[serde(default)]
    email: String,
    /// 12 to 128 letters.
    #[serde(default)]
    password: String,
}

/// What this is
#[utoipa::path(get, path = "/api/v1/about", tag = "session", security(()),
    responses((status = 200, body = About)))]
async fn about(State(app): State<App>) -> Result<Json<About>> {
    let account = |one: &demo::DemoPerson| DemoAccount {
        name: one.name,
        email: one.email,
        role: one.role,
        pin: one.pin,
    };
    let demo = app.config.demo.then(|| DemoAccounts {
        accounts: demo::PEOPLE.iter().map(account).collect(),
        password: demo::PASSWORD,
    });
    let set_up = !app.store.has_people(app.config.demo).await?;
    Ok(Json(About { version: env!("CARGO_PKG_VERSION"), set_up, demo }))
}

/// Makes the first administrator and signs them in; closed once there is anybody
#[utoipa::path(post, path = "/api/v1/setup", tag = "session", security(()), request_body = SetupInput,
    responses((status = 200, body = SessionView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn set_up(
    State(app): State<App>,
    Anybody { address, .. }: Anybody,
    jar: CookieJar,
    Json(SetupInput { code, name, initials, email, password }): Json<SetupInput>,
) -> Result<(CookieJar, Json<SessionView>)> {
    if app.store.has_people(app.config.demo).await? {
        let detail = "this plant is set up; its administrator makes accounts";
        return Err(Problem::new(StatusCode::CONFLICT, "Set up already", detail));
    }
    let mut faults = ValidationErrors::default();
    let roles = vec![PersonRole::Administrator, PersonRole::Technologist];
    let details = PersonInput { name, initials, email, roles, active: true }.check(&mut faults);
    password::check("password", &password, &[&details.name, &details.email], &mut faults);
    faults.or(())?;
    let attempt = lockout::attempt(&app, "set-up", &address).await?;
    let hash = password::hash(password).await?;
    let code: String = code.chars().filter(char::is_ascii_alphanumeric).collect();
    if !app.store.is_setup_code(&password::hash_of_secret(&code.to_lowercase())).await? {
        return Err(Problem::field(
            "code",
            "this is not the code the server printed when it started",
        ));
    }
    attempt.succeeded(&app).await?;
    let id = Uuid::now_v7();
    app.store.set_person(id, &details).await?;
    app.store.set_password(id, &hash, None).await?;
    app.store.forget_setup_codes().await?;
    begin(&app, app.store.account_of(id).await?, address, jar).await
}

/// A new code where nobody has an account yet; those of other servers hold as well.
pub async fn setup_code(store: &Store, demo: bool) -> anyhow::Result<Option<String>> {
    if store.has_people(demo).await? {
        return Ok(None);
    }
    let secret = password::secret();
    let code: Vec<&str> = [0, 4, 8, 12].map(|at| &secret[at..at + 4]).into();
    store.add_setup_code(&password::hash_of_secret(&code.concat())).await?;
    Ok(Some(code.join("-")))
}
