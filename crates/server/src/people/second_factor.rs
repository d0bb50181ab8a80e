//! A second factor: codes of an authenticator (RFC 6238, time-based one-time passwords), beside the
//! password.

use crate::caller::Caller;
use crate::password;
use crate::problem::{Problem, Result};
use crate::request::Json;
use crate::state::App;
use axum::extract::State;
use axum::http::StatusCode;
use ironpeel_store::{Account, AuditedAct};
use qrcode::QrCode;
use qrcode::render::svg;
use serde::{Deserialize, Serialize};
use totp_rs::{Builder, Secret, Totp};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(is_set, offer, set, remove))
}

/// Whether signing in takes a code of an authenticator.
#[derive(Debug, Serialize, ToSchema)]
struct SecondFactor {
    set: bool,
}

/// A secret an authenticator may be given, not kept until one of its codes is shown.
#[derive(Debug, Serialize, ToSchema)]
struct SecondFactorOffer {
    /// In base 32, to be typed.
    secret: String,
    /// The same as an address of an authenticator, and a picture of it to be scanned (SVG).
    address: String,
    picture: String,
}

/// The secret an authenticator was given, and its code.
#[derive(Debug, Deserialize, ToSchema)]
struct SecondFactorInput {
    #[serde(default)]
    secret: String,
    /// 6 digits.
    #[serde(default)]
    code: String,
}

/// Codes of 6 digits, each for 30 s, one before and one after taken as well.
fn codes_of(secret: Secret, account: &str) -> Option<Totp> {
    // A colon would end the name in the address.
    let account = account.replace(':', " ");
    Builder::new()
        .with_secret(secret)
        .with_issuer(Some("Ironpeel"))
        .with_account_name(account)
        .build()
        .ok()
}

/// The step of time a code is of; none where it is none of this secret's now.
fn step_of(secret: &str, code: &str) -> Option<i64> {
    let secret = Secret::try_from_base32(secret.trim()).ok()?;
    let code: String = code.chars().filter(|letter| !letter.is_whitespace()).collect();
    let step = codes_of(secret, "")?.check_current(&code)?;
    i64::try_from(step).ok()
}

/// Refuses an account with a second factor without a code of it that was not taken before.
pub async fn check(app: &App, account: &Account, code: &str) -> Result<()> {
    let Some(secret) = &account.totp_secret else { return Ok(()) };
    let refused =
        |detail| Err(Problem::new(StatusCode::UNAUTHORIZED, "A code is wanted", detail).at("code"));
    if code.trim().is_empty() {
        return refused("type the six digits your authenticator shows");
    }
    match step_of(secret, code) {
        Some(step) if app.store.take_step(account.person.id, step).await? => Ok(()),
        _ => refused("this is not the code your authenticator shows now, or it was used before"),
    }
}

/// Whether one's own account has a second factor
#[utoipa::path(get, path = "/api/v1/session/second-factor", tag = "session", security(("session" = ["read"])),
    responses((status = 200, body = SecondFactor), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn is_set(State(app): State<App>, caller: Caller) -> Result<Json<SecondFactor>> {
    let (person_id, _) = caller.signed_in()?;
    let account = app.store.account_of(person_id).await?;
    Ok(Json(SecondFactor { set: account.totp_secret.is_some() }))
}

/// Offers a secret for an authenticator
#[utoipa::path(post, path = "/api/v1/session/second-factor", tag = "session", security(("session" = ["read"])),
    responses((status = 200, body = SecondFactorOffer), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn offer(caller: Caller) -> Result<Json<SecondFactorOffer>> {
    caller.signed_in()?;
    let secret = Secret::new(password::secret_bytes()[..20].into());
    let told = secret.to_base32();
    let codes = codes_of(secret, &caller.email).ok_or_else(|| {
        Problem::unusable("an authenticator knows an account by its e-mail address")
    })?;
    let address = codes.to_url().map_err(Problem::fault)?;
    let picture = QrCode::new(&address).map_err(Problem::fault)?.render::<svg::Color<'_>>().build();
    Ok(Json(SecondFactorOffer { secret: told, address, picture }))
}

/// Asks for a code of this authenticator at each sign-in from now on, and signs out everywhere else
#[utoipa::path(put, path = "/api/v1/session/second-factor", tag = "session", security(("session" = ["read", "confirmed"])), request_body = SecondFactorInput,
    responses((status = 204), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn set(
    State(app): State<App>,
    caller: Caller,
    Json(SecondFactorInput { secret, code }): Json<SecondFactorInput>,
) -> Result<StatusCode> {
    let (person_id, session_id) = caller.signed_in()?;
    if step_of(&secret, &code).is_none() {
        return Err(Problem::field("code", "this is not the code your authenticator shows now"));
    }
    let act = AuditedAct::new("second factor set", "/api/v1/session");
    app.store
        .audited(&caller.author, act)
        .set_second_factor(person_id, Some(secret.trim()), Some(session_id))
        .await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Asks for no code at signing in any more, and signs out everywhere else
#[utoipa::path(delete, path = "/api/v1/session/second-factor", tag = "session", security(("session" = ["read", "confirmed"])),
    responses((status = 204), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn remove(State(app): State<App>, caller: Caller) -> Result<StatusCode> {
    let (person_id, session_id) = caller.signed_in()?;
    let act = AuditedAct::new("second factor removed", "/api/v1/session");
    let store = app.store.audited(&caller.author, act);
    store.set_second_factor(person_id, None, Some(session_id)).await?;
    Ok(StatusCode::NO_CONTENT)
}
