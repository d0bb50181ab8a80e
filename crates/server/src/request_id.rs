//! Each request has an id: its log lines carry it, its answer tells it.

use axum::extract::Request;
use axum::http::HeaderValue;
use axum::middleware::Next;
use axum::response::Response;
use tracing::{Span, info_span};
use uuid::Uuid;

const HEADER: &str = "x-request-id";

tokio::task_local! {
    static CURRENT: Uuid;
}

/// The id of the request that is being answered; a new one where none is.
pub fn current() -> Uuid {
    CURRENT.try_with(|id| *id).unwrap_or_else(|_| Uuid::now_v7())
}

/// Gives a request its id.
pub async fn identify(request: Request, next: Next) -> Response {
    let id = Uuid::now_v7();
    let mut response = CURRENT.scope(id, async { next.run(request).await }).await;
    if let Ok(value) = HeaderValue::from_str(&id.to_string()) {
        response.headers_mut().insert(HEADER, value);
    }
    response
}

/// What every log line of a request begins with.
pub fn span(request: &Request) -> Span {
    info_span!("request", id = %current(), method = %request.method(), uri = %request.uri())
}
