//! Who a request's credentials are of.

use axum::http::request::Parts;
use axum::http::{HeaderMap, header};
use axum_extra::extract::CookieJar;
use ironpeel_store::{ApiKey, Author, Word};

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
    let headers = &head.headers;
    let address = head.extensions.get::<Address>().cloned();
    let address = address.map_or_else(String::new, |Address(address)| address);
    if let Some(key) = bearer(headers) {
        let found = app.store.api_key(&hash_of_secret(key)).await?;
        return Ok(found.map(|ApiKey { id, name, role: Word(role), .. }| Caller {
            author: Author { person_id: None, api_key_id: Some(id), name, address },
            initials: String::new(),
            email: String::new(),
            roles: vec![role],
            credential: Credential::Key,
        }));
    }
    let jar = CookieJar::from_headers(headers);
    let Some(token) = jar.get(app.config.cookie_name()).map(|cookie| cookie.value().to_owned())
    else {
        return Ok(None);
    };
    let found = app.store.session(&hash_of_secret(&token), app.config.session_lasts()).await?;
    // The demo plant's accounts open nothing elsewhere.
    let found = found.filter(|session| app.config.demo || !session.demo);
    Ok(found.map(|session| Caller {
        author: Author {
            person_id: Some(session.person_id),
            api_key_id: None,
            name: session.name,
            address,
        },
        initials: session.initials,
        email: session.email,
        roles: session.roles,
        credential: Credential::Session {
            id: session.id,
            extended: session.extended.then_some(token),
        },
    }))
}
