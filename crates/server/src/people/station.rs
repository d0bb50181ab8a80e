//! Stations of the floor: a tablet is signed in once, and whoever is at it says so by a PIN.

use axum::extract::State;
use axum::http::StatusCode;
use axum_extra::extract::CookieJar;
use ironpeel_core::units::ValidationErrors;
use ironpeel_store::{AuditedAct, Author, NewStation, PersonRole, Station, StationPerson};
use serde::Deserialize;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use super::lockout;
use super::session::SessionView;
use crate::caller::{Caller, Credential};
use crate::password;
use crate::problem::{Problem, Result};
use crate::request::{Json, Path};
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(stations))
        .routes(routes!(make, end))
        .routes(routes!(people))
        .routes(routes!(enter, leave))
}

const NAME_MAX: usize = 80;
const IDLE_MINUTES: std::ops::RangeInclusive<i32> = 1..=720;

/// A tablet that becomes a station.
#[derive(Debug, Deserialize, ToSchema)]
struct StationInput {
    /// Where it stands.
    #[serde(default)]
    name: String,
    /// After so long without a touch nobody is at it any more, min.
    #[serde(default = "quarter_of_an_hour")]
    idle_minutes: i32,
}

const fn quarter_of_an_hour() -> i32 {
    15
}

/// Who is at a station.
#[derive(Debug, Deserialize, ToSchema)]
struct EnterInput {
    person_id: Uuid,
    #[serde(default)]
    pin: String,
}

fn act(action: &str, id: Uuid) -> AuditedAct {
    AuditedAct { record_id: Some(id), ..AuditedAct::new(action, format!("/api/v1/stations/{id}")) }
}

/// Stations that are signed in
#[utoipa::path(get, path = "/api/v1/stations", tag = "people", security(("session" = ["change", "administer"])),
    responses((status = 200, body = Vec<Station>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn stations(State(app): State<App>) -> Result<Json<Vec<Station>>> {
    Ok(Json(app.store.stations().await?))
}

/// Makes this browser a station of the floor; whoever is signed in here is no longer
#[utoipa::path(put, path = "/api/v1/stations/{station_id}", tag = "people", security(("session" = ["change", "administer"])),
    params(("station_id" = Uuid, Path)), request_body = StationInput,
    responses((status = 200, body = SessionView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn make(
    State(app): State<App>,
    caller: Caller,
    jar: CookieJar,
    Path(id): Path<Uuid>,
    Json(StationInput { name, idle_minutes }): Json<StationInput>,
) -> Result<(CookieJar, Json<SessionView>)> {
    let Credential::Session { id: session, .. } = caller.credential else {
        return Err(Problem::unusable("a station is made in the browser that becomes it"));
    };
    let name = name.trim().to_owned();
    let mut faults = ValidationErrors::default();
    if name.is_empty() || name.chars().count() > NAME_MAX {
        faults.push("name", format!("where does this tablet stand? up to {NAME_MAX} letters"));
    }
    if !IDLE_MINUTES.contains(&idle_minutes) {
        faults.push("idle_minutes", "1 to 720 minutes");
    }
    faults.or(())?;
    let token = password::secret();
    let hash = password::hash_of_secret(&token);
    let lasts = app.config.station_lasts();
    let store = app.store.audited(&caller.author, act("station made", id));
    let new = NewStation {
        id,
        name: &name,
        token_hash: &hash,
        made_by: &caller.author.name,
        idle_minutes,
        lasts,
        ends: session,
    };
    let station = store.add_station(new).await?;
    let cookie = app.config.session_cookie(&token, lasts);
    let nobody = SessionView { station: Some(station.into()), ..SessionView::NOBODY };
    Ok((jar.add(cookie), Json(nobody)))
}

/// Signs a station out
#[utoipa::path(delete, path = "/api/v1/stations/{station_id}", tag = "people", security(("session" = ["change", "administer"])),
    params(("station_id" = Uuid, Path)),
    responses((status = 204), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn end(State(app): State<App>, caller: Caller, Path(id): Path<Uuid>) -> Result<StatusCode> {
    app.store.audited(&caller.author, act("station signed out", id)).end_station(id).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Who may be at a station
#[utoipa::path(get, path = "/api/v1/session/people", tag = "session", security(("session" = ["read"])),
    responses((status = 200, body = Vec<StationPerson>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn people(State(app): State<App>) -> Result<Json<Vec<StationPerson>>> {
    Ok(Json(app.store.station_people(app.config.demo).await?))
}

/// Says who is at this station from now on
#[utoipa::path(put, path = "/api/v1/session/person", tag = "session", security(("session" = ["read"])), request_body = EnterInput,
    responses((status = 200, body = SessionView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn enter(
    State(app): State<App>,
    caller: Caller,
    Json(EnterInput { person_id, pin }): Json<EnterInput>,
) -> Result<Json<SessionView>> {
    let station = at_station(&caller)?;
    let (account, place) = (format!("pin {person_id}"), format!("station {}", station.id));
    let attempt = lockout::attempt(&app, &account, &place).await?;
    let person = app
        .store
        .station_people(app.config.demo)
        .await?
        .into_iter()
        .find(|one| one.id == person_id);
    let hash = app.store.pin_hash(person_id).await?.filter(|_| person.is_some());
    let right = password::is_right(pin, hash).await;
    let (Some(person), true) = (person, right) else {
        app.store.audit(&caller.author, &act("PIN refused", station.id)).await?;
        return Err(Problem::field("pin", "this is not their PIN"));
    };
    attempt.succeeded(&app).await?;
    let StationPerson { name, initials, .. } = person;
    let author = Author { person_id: Some(person_id), name, ..caller.author.clone() };
    let store = app.store.audited(&author, act("at the station", station.id));
    store.enter_station(station.id, person_id).await?;
    Ok(Json(Caller { author, initials, roles: vec![PersonRole::Floor], ..caller }.into()))
}

/// Nobody is at this station any more
#[utoipa::path(delete, path = "/api/v1/session/person", tag = "session", security(("session" = ["read"])),
    responses((status = 200, body = SessionView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn leave(State(app): State<App>, caller: Caller) -> Result<Json<SessionView>> {
    let station = at_station(&caller)?;
    let store = app.store.audited(&caller.author, act("left the station", station.id));
    store.leave_station(station.id).await?;
    let nobody = SessionView { station: Some(station.clone().into()), ..SessionView::NOBODY };
    Ok(Json(nobody))
}

fn at_station(caller: &Caller) -> Result<&Station> {
    caller.station().ok_or_else(|| Problem::unusable("this browser is no station"))
}
