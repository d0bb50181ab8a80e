//! Signing in and out, and one's own password.

use axum::extract::State;
use axum::http::StatusCode;
use axum_extra::extract::CookieJar;
use chrono::Utc;
use ironpeel_core::units::ValidationErrors;
use ironpeel_store::{Account, AuditedAct, Author, PersonRole, Station};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use super::access::Access;
use super::{lockout, second_factor};
use crate::caller::{Anybody, Caller, Credential};
use crate::password;
use crate::problem::{Problem, Result};
use crate::request::Json;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(who, sign_in, sign_out))
        .routes(routes!(sign_out_everywhere))
        .routes(routes!(set_own_password))
        .routes(routes!(confirm))
}

/// Who signs in.
#[derive(Debug, Deserialize, ToSchema)]
pub struct SignInInput {
    #[serde(default)]
    pub email: String,
    #[serde(default)]
    pub password: String,
    /// What an authenticator shows, where the account has one: 6 digits.
    #[serde(default)]
    pub code: String,
}

/// Who is signed in, and what they may do.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct SessionView {
    /// None where nobody is.
    pub person: Option<SessionPerson>,
    pub roles: Vec<PersonRole>,
    pub may: Vec<Access>,
    /// The station of the floor this browser is.
    pub station: Option<SessionStation>,
}

/// A station as its own browser needs it.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct SessionStation {
    pub id: Uuid,
    pub name: String,
    /// After so long without a touch nobody is at it any more, min.
    pub idle_minutes: i32,
}

impl From<Station> for SessionStation {
    fn from(Station { id, name, idle_minutes, .. }: Station) -> Self {
        Self { id, name, idle_minutes }
    }
}

/// Somebody as their own session says.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct SessionPerson {
    /// None of a key.
    pub id: Option<Uuid>,
    pub name: String,
    pub initials: String,
    pub email: String,
}

/// One's own password, given again.
#[derive(Debug, Deserialize, ToSchema)]
struct ConfirmationInput {
    #[serde(default)]
    current: String,
}

/// One's own password, to be changed.
#[derive(Debug, Deserialize, ToSchema)]
struct OwnPasswordInput {
    #[serde(default)]
    current: String,
    /// 12 to 128 letters.
    #[serde(default)]
    password: String,
}

impl SessionView {
    pub const NOBODY: Self =
        Self { person: None, roles: Vec::new(), may: Vec::new(), station: None };
}

impl From<Caller> for SessionView {
    fn from(caller: Caller) -> Self {
        let station = caller.station().cloned().map(Into::into);
        let Author { person_id: id, name, .. } = caller.author;
        // Nobody is at a station until somebody says so.
        let known = id.is_some() || caller.credential == Credential::Key;
        let person = known.then_some(SessionPerson {
            id,
            name,
            initials: caller.initials,
            email: caller.email,
        });
        Self { person, may: Access::of(&caller.roles), roles: caller.roles, station }
    }
}

/// Who is signed in
#[utoipa::path(get, path = "/api/v1/session", tag = "session", security(()),
    responses((status = 200, body = SessionView)))]
async fn who(Anybody { caller, .. }: Anybody) -> Json<SessionView> {
    Json(caller.map_or(SessionView::NOBODY, Into::into))
}

/// Signs in
#[utoipa::path(post, path = "/api/v1/session", tag = "session", security(()), request_body = SignInInput,
    responses((status = 200, body = SessionView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn sign_in(
    State(app): State<App>,
    Anybody { address, .. }: Anybody,
    jar: CookieJar,
    Json(SignInInput { email, password, code }): Json<SignInInput>,
) -> Result<(CookieJar, Json<SessionView>)> {
    let email = email.trim().to_lowercase();
    let attempt = lockout::attempt(&app, &email, &address).await?;
    let account = app.store.account(&email).await?;
    let account = account.filter(|account| app.config.demo || !account.person.demo);
    let hash = account.as_ref().and_then(|account| account.password_hash.clone());
    let right = password::is_right(password, hash).await;
    match account {
        Some(account) if right && account.person.active => {
            if let Err(problem) = second_factor::check(&app, &account, &code).await {
                if code.trim().is_empty() {
                    // Nothing was guessed: it is the first half of signing in.
                    attempt.taken_back(&app).await?;
                } else {
                    refused(&app, email, address).await?;
                }
                return Err(problem);
            }
            attempt.succeeded(&app).await?;
            begin(&app, account, address, jar).await
        }
        _ => {
            refused(&app, email, address).await?;
            Err(wrong())
        }
    }
}

async fn refused(app: &App, email: String, address: String) -> Result<()> {
    let nobody = Author::called(email, address);
    Ok(app.store.audit(&nobody, &act("sign-in refused")).await?)
}

/// The same whether or not there is such an account.
fn wrong() -> Problem {
    Problem::new(
        StatusCode::UNAUTHORIZED,
        "Not signed in",
        "this e-mail address and password do not go together; after several tries it takes a while \
         until the next",
    )
}

fn act(action: &str) -> AuditedAct {
    AuditedAct::new(action, "/api/v1/session")
}

/// Begins a session of somebody who is who they say.
pub async fn begin(
    app: &App,
    Account { person, .. }: Account,
    address: String,
    jar: CookieJar,
) -> Result<(CookieJar, Json<SessionView>)> {
    let token = password::secret();
    let hash = password::hash_of_secret(&token);
    let author = Author { person_id: Some(person.id), ..Author::called(person.name, address) };
    let store = app.store.audited(&author, act("sign-in"));
    let id = store.begin_session(person.id, &hash, app.config.session_lasts()).await?;
    let caller = Caller {
        author,
        initials: person.initials,
        email: person.email,
        roles: person.roles,
        credential: Credential::Session { id, confirmed_at: Utc::now(), extended: None },
    };
    Ok((
        jar.add(app.config.session_cookie(&token, app.config.session_lasts())),
        Json(caller.into()),
    ))
}

/// Signs out here
#[utoipa::path(delete, path = "/api/v1/session", tag = "session", security(()),
    responses((status = 204), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn sign_out(
    State(app): State<App>,
    Anybody { caller, .. }: Anybody,
    jar: CookieJar,
) -> Result<(StatusCode, CookieJar)> {
    if let Some(Caller { author, credential, .. }) = caller {
        let store = app.store.audited(&author, act("sign-out"));
        match credential {
            Credential::Session { id, .. } => store.end_session(id).await?,
            Credential::Station { station, .. } => store.end_station(station.id).await?,
            Credential::Key => {}
        }
    }
    Ok((
        StatusCode::NO_CONTENT,
        jar.remove(app.config.session_cookie("", app.config.session_lasts())),
    ))
}

/// Signs out here and everywhere else
#[utoipa::path(delete, path = "/api/v1/session/all", tag = "session", security(("session" = ["read"])),
    responses((status = 204), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn sign_out_everywhere(
    State(app): State<App>,
    caller: Caller,
    jar: CookieJar,
) -> Result<(StatusCode, CookieJar)> {
    if let Some(person_id) = caller.author.person_id {
        let store = app.store.audited(&caller.author, act("sign-out everywhere"));
        store.end_sessions(person_id).await?;
    }
    Ok((
        StatusCode::NO_CONTENT,
        jar.remove(app.config.session_cookie("", app.config.session_lasts())),
    ))
}

/// The person and the session of a caller who has just given their password again.
pub async fn confirmed(app: &App, caller: &Caller, current: String) -> Result<(Uuid, Uuid)> {
    let (person_id, session_id) = caller.signed_in()?;
    let attempt = lockout::attempt(app, &caller.email, &caller.author.address).await?;
    let account = app.store.account_of(person_id).await?;
    if !password::is_right(current, account.password_hash).await {
        return Err(Problem::field("current", "this is not the password so far"));
    }
    attempt.succeeded(app).await?;
    Ok((person_id, session_id))
}

/// Gives one's password again, before what takes that
#[utoipa::path(post, path = "/api/v1/session/confirmation", tag = "session", security(("session" = ["read"])), request_body = ConfirmationInput,
    responses((status = 204), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn confirm(
    State(app): State<App>,
    caller: Caller,
    Json(ConfirmationInput { current }): Json<ConfirmationInput>,
) -> Result<StatusCode> {
    let (_, session_id) = confirmed(&app, &caller, current).await?;
    app.store.confirm_session(session_id).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Changes one's own password, and signs out everywhere else
#[utoipa::path(put, path = "/api/v1/session/password", tag = "session", security(("session" = ["read"])), request_body = OwnPasswordInput,
    responses((status = 204), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn set_own_password(
    State(app): State<App>,
    caller: Caller,
    Json(OwnPasswordInput { current, password }): Json<OwnPasswordInput>,
) -> Result<StatusCode> {
    let (person_id, session_id) = confirmed(&app, &caller, current).await?;
    let mut faults = ValidationErrors::default();
    password::check("password", &password, &[&caller.author.name, &caller.email], &mut faults);
    faults.or(())?;
    let store = app.store.audited(&caller.author, act("own password"));
    store.set_password(person_id, &password::hash(password).await?, Some(session_id)).await?;
    Ok(StatusCode::NO_CONTENT)
}
