//! Who asks, as a request's credentials say.

use std::net::SocketAddr;

use axum::extract::{ConnectInfo, FromRequestParts};
use axum::http::Extensions;
use axum::http::request::Parts;
use ironpeel_store::{Author, PersonRole};
use uuid::Uuid;

use crate::problem::{Problem, Result};

/// Somebody known, or a machine with a key.
#[derive(Debug, Clone)]
pub struct Caller {
    pub author: Author,
    pub initials: String,
    pub email: String,
    pub roles: Vec<PersonRole>,
    pub credential: Credential,
}

/// What somebody is known by.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Credential {
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
        match &self.credential {
            Credential::Session { extended, .. } => extended.clone(),
            Credential::Key => None,
        }
    }
}

/// Where a request comes from.
pub fn address(extensions: &Extensions) -> String {
    let from = extensions.get::<ConnectInfo<SocketAddr>>();
    from.map_or_else(|| "unknown".into(), |ConnectInfo(from)| from.ip().to_string())
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
