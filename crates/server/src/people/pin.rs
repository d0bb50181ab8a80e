//! PINs: what somebody is known by at a station of the floor.

use axum::extract::State;
use axum::http::StatusCode;
use ironpeel_store::AuditedAct;
use serde::Deserialize;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use super::account::act;
use super::session::confirmed;
use crate::caller::Caller;
use crate::password;
use crate::problem::{Problem, Result};
use crate::request::{Json, Path};
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(set_own_pin)).routes(routes!(set_pin))
}

/// A PIN somebody is given.
#[derive(Debug, Deserialize, ToSchema)]
struct PinInput {
    /// 4 to 6 digits.
    #[serde(default)]
    pin: String,
}

/// One's own PIN, to be set.
#[derive(Debug, Deserialize, ToSchema)]
struct OwnPinInput {
    /// The password of the account.
    #[serde(default)]
    current: String,
    /// 4 to 6 digits.
    #[serde(default)]
    pin: String,
}

/// Refuses what is no PIN, and what anybody tries first.
fn check(pin: &str) -> Result<()> {
    let digits = pin.as_bytes();
    if !(4..=6).contains(&digits.len()) || !digits.iter().all(u8::is_ascii_digit) {
        return Err(Problem::field("pin", "a PIN is four to six digits"));
    }
    let steps = |step: u8| digits.windows(2).all(|pair| pair[0].wrapping_add(step) == pair[1]);
    if [0, 1, u8::MAX].into_iter().any(steps) {
        return Err(Problem::field("pin", "one digit over and over, or a row of them, is guessed"));
    }
    Ok(())
}

/// Sets one's own PIN
#[utoipa::path(put, path = "/api/v1/session/pin", tag = "session", security(("session" = ["read"])), request_body = OwnPinInput,
    responses((status = 204), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn set_own_pin(
    State(app): State<App>,
    caller: Caller,
    Json(OwnPinInput { current, pin }): Json<OwnPinInput>,
) -> Result<StatusCode> {
    check(&pin)?;
    let (person_id, _) = confirmed(&app, &caller, current).await?;
    let store = app.store.audited(&caller.author, AuditedAct::new("own PIN", "/api/v1/session"));
    store.set_pin(person_id, &password::hash(pin).await?).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Gives a person a PIN
#[utoipa::path(put, path = "/api/v1/people/{person_id}/pin", tag = "people", security(("session" = ["administer", "confirmed"])),
    params(("person_id" = Uuid, Path)), request_body = PinInput,
    responses((status = 204), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn set_pin(
    State(app): State<App>,
    caller: Caller,
    Path(id): Path<Uuid>,
    Json(PinInput { pin }): Json<PinInput>,
) -> Result<StatusCode> {
    check(&pin)?;
    app.store.account_of(id).await?;
    let store = app.store.audited(&caller.author, act("PIN", id));
    store.set_pin(id, &password::hash(pin).await?).await?;
    Ok(StatusCode::NO_CONTENT)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_pin_is_four_to_six_digits_nobody_tries_first() {
        for pin in ["4071", "90210", "271828"] {
            assert!(check(pin).is_ok(), "{pin}");
        }
        for pin in ["", "123", "4071x", "1234567", "0000", "3456", "98765", "４０７１"] {
            assert!(check(pin).is_err(), "{pin}");
        }
    }
}
