//! Who may ask what. Every operation of the API's document states what it takes; one that states
//! nothing is nobody's.

use std::collections::HashMap;
use std::sync::Arc;

use axum::extract::{MatchedPath, Request, State};
use axum::http::request::Parts;
use axum::http::{HeaderMap, Method, StatusCode, header};
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};
use chrono::{TimeDelta, Utc};
use ironpeel_store::AuditedAct;
use utoipa::openapi::path::{Operation, PathItem};
use utoipa::openapi::security::SecurityRequirement;
use utoipa::openapi::{Content, OpenApi as Document, Ref, RefOr, ResponseBuilder};

use super::access::Access;
use super::{credentials, in_name_of};
use crate::caller::{Address, Caller, Credential};
use crate::metrics;
use crate::problem::{Problem, Result};
use crate::state::App;

/// What an operation takes.
#[derive(Debug, Clone, PartialEq, Eq)]
struct Rule {
    /// One of these; everybody, known or not, where it is none.
    any_of: Option<Vec<Access>>,
    /// Whether whoever is signed in must have given their password a short while ago.
    confirmed: bool,
    /// What a body may be.
    content_types: Vec<String>,
}

/// The rules of every operation, read off the document.
#[derive(Debug, Clone)]
pub struct Rules(Arc<HashMap<(Method, String), Rule>>);

/// The schemes of the document.
pub const SESSION: &str = "session";
pub const KEY: &str = "key";

/// The word of an operation that takes the password given a short while ago.
const CONFIRMED: &str = "confirmed";
/// That while.
const CONFIRMED_FOR: TimeDelta = TimeDelta::minutes(15);

impl Rules {
    pub fn of(document: &Document) -> Self {
        let mut rules = HashMap::new();
        for (path, item) in &document.paths.paths {
            for (method, operation) in operations(item) {
                if let Some(rule) = Rule::of(operation) {
                    rules.insert((method, path.clone()), rule);
                }
            }
        }
        Self(Arc::new(rules))
    }

    fn of_request(&self, head: &Parts) -> Option<&Rule> {
        let path = head.extensions.get::<MatchedPath>().map_or("", MatchedPath::as_str);
        let method = if head.method == Method::HEAD { Method::GET } else { head.method.clone() };
        self.0.get(&(method, path.to_owned()))
    }
}

/// The operations of a path, by their methods.
pub fn operations(item: &PathItem) -> Vec<(Method, &Operation)> {
    let all = [
        (Method::GET, &item.get),
        (Method::PUT, &item.put),
        (Method::POST, &item.post),
        (Method::DELETE, &item.delete),
    ];
    all.into_iter().filter_map(|(method, operation)| Some((method, operation.as_ref()?))).collect()
}

impl Rule {
    /// Whether something may be stored by it: a file may be read under whatever it is called.
    fn writes(&self, method: &Method) -> bool {
        let reads = self.any_of.as_ref().is_some_and(|any_of| any_of.contains(&Access::Read));
        method != Method::POST || !reads
    }

    /// Whether it is a record of the floor.
    fn records(&self) -> bool {
        self.any_of.as_ref().is_some_and(|any_of| any_of.contains(&Access::Record))
    }

    /// None where the operation does not say.
    fn of(operation: &Operation) -> Option<Self> {
        let stated = operation.security.as_ref()?;
        let mut any_of = Vec::new();
        let (mut open, mut confirmed) = (false, false);
        for requirement in stated {
            let words = words(requirement);
            open |= words.is_empty();
            confirmed |= words.iter().any(|word| word == CONFIRMED);
            any_of.extend(
                Access::ALL.into_iter().filter(|one| words.iter().any(|word| word == one.word())),
            );
        }
        let content_types = match &operation.request_body {
            Some(RefOr::T(body)) => body.content.keys().cloned().collect(),
            _ => Vec::new(),
        };
        Some(Self { any_of: (!open).then_some(any_of), confirmed, content_types })
    }
}

/// What opens an operation with a session opens it with a key as well, and who has neither is refused.
pub fn open_to_keys(operation: &mut Operation) {
    let stated = operation.security.as_deref().unwrap_or_default();
    let words = stated.iter().map(words).filter(|words| !words.is_empty());
    let keys: Vec<_> = words.map(|words| SecurityRequirement::new(KEY, words)).collect();
    if !keys.is_empty() {
        let told = Content::new(Some(Ref::from_schema_name("Problem")));
        let refusal = ResponseBuilder::new().content("application/problem+json", told).build();
        operation.responses.responses.entry("4XX".into()).or_insert(RefOr::T(refusal));
    }
    operation.security.get_or_insert_default().extend(keys);
}

/// What a requirement asks for.
fn words(requirement: &SecurityRequirement) -> Vec<String> {
    let value = serde_json::to_value(requirement).unwrap_or_default();
    let words = value.as_object().into_iter().flat_map(|all| all.values());
    words
        .flat_map(|words| serde_json::from_value::<Vec<String>>(words.clone()).unwrap_or_default())
        .collect()
}

/// What the layer goes by.
#[derive(Debug, Clone)]
pub struct Guard {
    pub app: App,
    pub rules: Rules,
}

/// Lets a request of the API through to whom it is for, before anything else of it is looked at.
pub async fn enforce(
    State(Guard { app, rules }): State<Guard>,
    request: Request,
    next: Next,
) -> Response {
    if !request.uri().path().starts_with("/api/") {
        return next.run(request).await;
    }
    let (mut head, body) = request.into_parts();
    head.extensions.insert(Address::of(&app.config.trusted_proxies, &head));
    let caller = match admitted(&app, &rules, &head).await {
        Ok(caller) => caller,
        Err(problem) => return problem.into_response(),
    };
    let extended = caller.as_ref().and_then(Caller::extended);
    let lasts = match caller.as_ref().and_then(Caller::station) {
        Some(_) => app.config.station_lasts(),
        None => app.config.session_lasts(),
    };
    let writes = !head.method.is_safe()
        && rules.of_request(&head).is_some_and(|rule| rule.writes(&head.method));
    if let Some(caller) = caller {
        head.extensions.insert(caller);
    }
    let mut response = next.run(Request::from_parts(head, body)).await;
    if writes && response.status().is_success() {
        metrics::recorded();
    }
    // What the handler set stands: it may have signed out.
    if let Some(token) = extended
        && !response.headers().contains_key(header::SET_COOKIE)
        && let Ok(cookie) = app.config.session_cookie(&token, lasts).to_string().parse()
    {
        response.headers_mut().insert(header::SET_COOKIE, cookie);
    }
    response
}

/// Who asks, if it is for them; none where it is for anybody.
async fn admitted(app: &App, rules: &Rules, head: &Parts) -> Result<Option<Caller>> {
    let path = head.uri.path();
    let rule = rules.of_request(head);
    let open = rule.is_some_and(|rule| rule.any_of.is_none());
    // The calculators are for anything that can send JSON.
    if open && path.starts_with("/api/v1/calc/") || path == "/api/openapi.json" {
        return Ok(None);
    }
    let found = credentials::of(app, head).await?;
    let found = match found {
        Some(caller) if rule.is_some_and(Rule::records) && !head.method.is_safe() => {
            Some(in_name_of::author(app, caller, &head.headers).await?)
        }
        found => found,
    };
    if !open {
        let caller = found.as_ref().ok_or_else(not_signed_in)?;
        let any_of = rule.and_then(|rule| rule.any_of.as_deref()).unwrap_or(&[Access::Read]);
        if !any_of.iter().any(|access| access.is_of(&caller.roles)) {
            if !head.method.is_safe() {
                let refused = AuditedAct::new(format!("refused {}", head.method), path);
                app.store.audit(&caller.author, &refused).await?;
            }
            return Err(not_theirs(caller, any_of));
        }
        if let Credential::Session { confirmed_at, .. } = caller.credential
            && rule.is_some_and(|rule| rule.confirmed)
            && Utc::now() - confirmed_at > CONFIRMED_FOR
        {
            return Err(to_be_confirmed());
        }
    }
    if !head.method.is_safe() {
        let by_cookie = found.as_ref().is_some_and(Caller::is_by_cookie);
        own_origin(app, &head.headers, by_cookie)?;
        if let Some(rule) = rule.filter(|rule| rule.writes(&head.method)) {
            documented(rule, &head.headers)?;
        }
    }
    Ok(found)
}

fn not_signed_in() -> Problem {
    Problem::new(StatusCode::UNAUTHORIZED, "Not signed in", "sign in first; nothing was done")
}

fn not_theirs(caller: &Caller, any_of: &[Access]) -> Problem {
    if caller.station().is_some() && caller.author.person_id.is_none() {
        let detail = "say who is at this station first; nothing was done";
        return Problem::new(StatusCode::FORBIDDEN, "Nobody is at this station", detail);
    }
    let whose = any_of.last().map_or("nobody's", |access| access.whose());
    let detail = format!("this is {whose} to do; nothing was done");
    Problem::new(StatusCode::FORBIDDEN, "Not yours to do", detail)
}

fn to_be_confirmed() -> Problem {
    let detail = "give your password again, in case this screen was left open; nothing was done";
    Problem::new(StatusCode::FORBIDDEN, "Your password again", detail).at("current")
}

/// Refuses what a page of somebody else's sends with a session of ours.
fn own_origin(app: &App, headers: &HeaderMap, needed: bool) -> Result<()> {
    let stated = headers.get(header::ORIGIN).map(|origin| origin.to_str().unwrap_or_default());
    let host = headers.get(header::HOST).and_then(|host| host.to_str().ok()).unwrap_or_default();
    let right = match (stated, &app.config.base_url) {
        (None, _) => !needed,
        (Some(origin), Some(base)) => origin == base.trim_end_matches('/'),
        (Some(origin), None) => {
            origin.split_once("://").is_some_and(|(_, authority)| authority == host)
        }
    };
    if right {
        return Ok(());
    }
    let detail = "this was sent by another site's page, or by a program with a session instead of a \
                  key; nothing was done";
    Err(Problem::new(StatusCode::FORBIDDEN, "From another site", detail))
}

/// Refuses a body of another kind than the document says.
fn documented(rule: &Rule, headers: &HeaderMap) -> Result<()> {
    let empty = headers.get(header::CONTENT_LENGTH).is_some_and(|length| length == "0")
        || !headers.contains_key(header::CONTENT_LENGTH)
            && !headers.contains_key(header::TRANSFER_ENCODING);
    let kind = headers.get(header::CONTENT_TYPE).and_then(|kind| kind.to_str().ok());
    let kind = kind.unwrap_or_default().split(';').next().unwrap_or_default().trim();
    let known = rule.content_types.iter().any(|one| one.eq_ignore_ascii_case(kind));
    if empty && kind.is_empty() || known || rule.content_types.is_empty() {
        return Ok(());
    }
    let detail = format!("this takes {}", rule.content_types.join(" or "));
    Err(Problem::new(StatusCode::UNSUPPORTED_MEDIA_TYPE, "Another kind of body", detail))
}
