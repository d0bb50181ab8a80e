//! Who asks, as a request's credentials say.

use std::net::{IpAddr, SocketAddr};

use axum::extract::{ConnectInfo, FromRequestParts};
use axum::http::request::Parts;
use chrono::{DateTime, Utc};
use ipnet::IpNet;
use ironpeel_store::{Author, PersonRole, Station};
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
        /// When they last gave their password here.
        confirmed_at: DateTime<Utc>,
        /// The token, where the session's end was put off just now.
        extended: Option<String>,
    },
    /// A tablet of the floor, whoever is at it.
    Station {
        station: Station,
        extended: Option<String>,
    },
    Key,
}

impl Caller {
    /// The token to hand on with a later end.
    pub fn extended(&self) -> Option<String> {
        match &self.credential {
            Credential::Session { extended, .. } | Credential::Station { extended, .. } => {
                extended.clone()
            }
            Credential::Key => None,
        }
    }

    /// The tablet it comes from.
    pub const fn station(&self) -> Option<&Station> {
        match &self.credential {
            Credential::Station { station, .. } => Some(station),
            _ => None,
        }
    }

    /// The person and the session of whoever is signed in with a password.
    pub fn signed_in(&self) -> Result<(Uuid, Uuid)> {
        match (self.author.person_id, &self.credential) {
            (Some(person_id), Credential::Session { id, .. }) => Ok((person_id, *id)),
            _ => Err(Problem::unusable("this is for whoever is signed in with a password")),
        }
    }

    /// Whether a browser sends its credential by itself, whatever page asks it to.
    pub fn is_by_cookie(&self) -> bool {
        self.credential != Credential::Key
    }
}

/// Where a request comes from.
#[derive(Debug, Clone)]
pub struct Address(pub String);

/// What a proxy says of whom it asks for, each proxy after the one before it.
const FORWARDED: &str = "x-forwarded-for";

impl Address {
    /// The address that asks, or the one a trusted proxy says: the last of them that is no trusted
    /// proxy itself.
    pub fn of(trusted: &[IpNet], head: &Parts) -> Self {
        let from = head.extensions.get::<ConnectInfo<SocketAddr>>();
        let Some(ConnectInfo(from)) = from else { return Self("unknown".into()) };
        let told = head.headers.get_all(FORWARDED).iter().filter_map(|told| told.to_str().ok());
        let told = told.flat_map(|told| told.split(',')).map(|one| one.trim().parse::<IpAddr>());
        let mut address = from.ip().to_canonical();
        for one in told.collect::<Vec<_>>().into_iter().rev() {
            let Ok(one) = one else { break };
            if !trusted.iter().any(|network| network.contains(&address)) {
                break;
            }
            address = one.to_canonical();
        }
        Self(address.to_string())
    }
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
        let address = parts.extensions.get::<Address>();
        let address = address.map_or_else(String::new, |Address(address)| address.clone());
        Ok(Self { caller, address })
    }
}
