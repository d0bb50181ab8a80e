//! Who asks, as a request's credentials say.

use std::net::SocketAddr;

use axum::extract::{ConnectInfo, FromRequestParts};
use axum::http::request::Parts;
use axum::http::{Extensions, HeaderMap, header};
use axum_extra::extract::CookieJar;
use ironpeel_store::{Author, PersonRole};
use uuid::Uuid;

use super::password::hash_of_secret;
use crate::problem::{Problem, Result};
use crate::state::App;

/// Somebody known, or a machine with a key.
#[derive(Debug, Clone)]
pub struct Caller {
    pub author: Author,
    pub initials: String,
    pub email: String,
    pub roles: Vec<PersonRole>,
    pub way: Way,
}

/// How somebody is known.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Way {
    Session {
        id: Uuid,
        /// The token, where the session's end was put off just now.
        extended: Option<String>,
    },
    Key,
}

impl Caller {
    /// The token to hand on with a later end.
    pub fn extended(&self) -> Option<String> {
        match &self.way {
            Way::Session { extended, .. } => extended.clone(),
            Way::Key => None,
        }
    }
}

/// A key, as `Authorization: Bearer` brings it.
fn bearer(headers: &HeaderMap) -> Option<&str> {
    headers.get(header::AUTHORIZATION)?.to_str().ok()?.strip_prefix("Bearer ")
}

/// Where a request comes from.
pub fn address(extensions: &Extensions) -> String {
    let from = extensions.get::<ConnectInfo<SocketAddr>>();
    from.map_or_else(|| "unknown".into(), |ConnectInfo(from)| from.ip().to_string())
}

/// Who sent it; none where nobody is known by it.
pub async fn of(app: &App, head: &Parts) -> Result<Option<Caller>> {
    let headers = &head.headers;
    let address = address(&head.extensions);
    if let Some(key) = bearer(headers) {
        let found = app.store.api_key(&hash_of_secret(key)).await?;
        return Ok(found.map(|(id, name, role)| Caller {
            author: Author { person_id: None, api_key_id: Some(id), name, address },
            initials: String::new(),
            email: String::new(),
            roles: vec![role],
            way: Way::Key,
        }));
    }
    let jar = CookieJar::from_headers(headers);
    let Some(token) = jar.get(app.config.cookie_name()).map(|cookie| cookie.value().to_owned())
    else {
        return Ok(None);
    };
    let found = app.store.session(&hash_of_secret(&token), app.config.session_lasts).await?;
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
        way: Way::Session { id: session.id, extended: session.extended.then_some(token) },
    }))
}

/// The caller the layer let in.
impl<S: Send + Sync> FromRequestParts<S> for Caller {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, _: &S) -> Result<Self> {
        let caller = parts.extensions.get::<Self>().cloned();
        caller.ok_or_else(|| Problem::fault("a route for somebody known was open to nobody"))
    }
}

/// Somebody who may be nobody.
#[derive(Debug)]
pub struct Anybody {
    pub caller: Option<Caller>,
    pub address: String,
}

impl<S: Send + Sync> FromRequestParts<S> for Anybody {
    type Rejection = std::convert::Infallible;

    async fn from_request_parts(
        parts: &mut Parts,
        _: &S,
    ) -> std::result::Result<Self, Self::Rejection> {
        let caller = parts.extensions.get::<Caller>().cloned();
        Ok(Self { caller, address: address(&parts.extensions) })
    }
}
