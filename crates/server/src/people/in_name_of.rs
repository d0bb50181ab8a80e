//! What a tablet queued is sent in its author's name, whoever is at it by then.

use axum::http::HeaderMap;
use chrono::{DateTime, Utc};
use ironpeel_store::{Author, Person, PersonRole, StoreError};
use uuid::Uuid;

use super::access::Access;
use crate::caller::Caller;
use crate::problem::{Problem, Result};
use crate::state::App;

/// Who wrote it, by their id, and when.
const BY: &str = "x-written-by";
const AT: &str = "x-written-at";

fn told(headers: &HeaderMap, name: &str) -> Option<String> {
    headers.get(name)?.to_str().ok().map(str::to_owned)
}

/// The caller as the author of what they send: themselves, or whom they send it for, with the
/// floor's role alone. It is verified where its author had shown at this station that it was them.
pub async fn author(app: &App, caller: Caller, headers: &HeaderMap) -> Result<Caller> {
    let Some(by) = told(headers, BY) else { return Ok(caller) };
    let sends = caller.is_by_cookie()
        && (caller.station().is_some() || Access::Record.is_of(&caller.roles));
    if !sends {
        return Ok(caller);
    }
    let id: Uuid = by.parse().map_err(|_| unknown())?;
    if caller.station().is_none() && caller.author.person_id == Some(id) {
        return Ok(caller);
    }
    let at: DateTime<Utc> = match told(headers, AT) {
        Some(at) => at.parse().map_err(|_| Problem::malformed("x-written-at is no time"))?,
        None => Utc::now(),
    };
    let person = match app.store.account_of(id).await {
        Ok(account) => account.person,
        Err(StoreError::NotFound(_)) => return Err(unknown()),
        Err(error) => return Err(error.into()),
    };
    if !Access::Record.is_of(&person.roles) || (person.demo && !app.config.demo) {
        return Err(unknown());
    }
    let verified = match caller.station() {
        Some(station) => app.store.was_at_station(station.id, id, at).await?,
        None => false,
    };
    let Caller { author: sender, credential, .. } = caller;
    let sent_by = (sender.person_id != Some(id)).then_some(sender.name);
    let Person { name, initials, email, .. } = person;
    let author = Author {
        person_id: Some(id),
        station_id: sender.station_id,
        verified,
        sent_by,
        ..Author::called(name, sender.address)
    };
    Ok(Caller { author, initials, email, roles: vec![PersonRole::Floor], credential })
}

fn unknown() -> Problem {
    Problem::unusable("x-written-by is nobody of the floor")
}
