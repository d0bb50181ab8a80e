//! Who a request's credentials are of.

use axum::http::request::Parts;
use axum::http::{HeaderMap, header};
use axum_extra::extract::CookieJar;
use ironpeel_store::{ApiKey, Author, PersonRole, StationSession, Word};

use crate::caller::{Address, Caller, Credential};
use crate::password::hash_of_secret;
use crate::problem::Result;
use crate::state::App;

/// A key, as `Authorization: Bearer` brings it.
fn bearer(headers: &HeaderMap) -> Option<&str> {
    headers.get(header::AUTHORIZATION)?.to_str().ok()?.strip_prefix("Bearer ")
}

/// Who sent it; none where nobody is known by it.
pub async fn of(app: &App, head: &Parts) -> Result<Option<Caller>> {
    let address = head.extensions.get::<Address>().cloned();
    let address = address.map_or_else(String::new, |Address(address)| address);
    if let Some(key) = bearer(&head.headers) {
        return of_key(app, key, address).await;
    }
    let jar = CookieJar::from_headers(&head.headers);
    let Some(token) = jar.get(app.config.cookie_name()).map(|cookie| cookie.value().to_owned())
    else {
        return Ok(None);
    };
    match of_session(app, &token, &address).await? {
        None => of_station(app, token, address).await,
        found => Ok(found),
    }
}

async fn of_key(app: &App, key: &str, address: String) -> Result<Option<Caller>> {
    let found = app.store.api_key(&hash_of_secret(key)).await?;
    Ok(found.map(|ApiKey { id, name, role: Word(role), .. }| Caller {
        author: Author { api_key_id: Some(id), ..Author::called(name, address) },
        initials: String::new(),
        email: String::new(),
        roles: vec![role],
        credential: Credential::Key,
    }))
}

async fn of_session(app: &App, token: &str, address: &str) -> Result<Option<Caller>> {
    let found = app.store.session(&hash_of_secret(token), app.config.session_lasts()).await?;
    // The demo plant's accounts open nothing elsewhere.
    let found = found.filter(|session| app.config.demo || !session.demo);
    Ok(found.map(|session| Caller {
        author: Author {
            person_id: Some(session.person_id),
            ..Author::called(session.name, address)
        },
        initials: session.initials,
        email: session.email,
        roles: session.roles,
        credential: Credential::Session {
            id: session.id,
            confirmed_at: session.confirmed_at,
            extended: session.extended.then(|| token.to_owned()),
        },
    }))
}

/// A tablet of the floor: whoever is at it records as the floor does; without anybody it reads.
async fn of_station(app: &App, token: String, address: String) -> Result<Option<Caller>> {
    let found = app.store.station(&hash_of_secret(&token), app.config.station_lasts()).await?;
    Ok(found.map(|StationSession { station, person, extended }| {
        let (name, initials) = person.as_ref().map_or_else(
            || (station.name.clone(), String::new()),
            |person| (person.name.clone(), person.initials.clone()),
        );
        let role = if person.is_some() { PersonRole::Floor } else { PersonRole::Visitor };
        Caller {
            author: Author {
                person_id: person.map(|person| person.id),
                station_id: Some(station.id),
                ..Author::called(name, address)
            },
            initials,
            email: String::new(),
            roles: vec![role],
            credential: Credential::Station { station, extended: extended.then_some(token) },
        }
    }))
}
