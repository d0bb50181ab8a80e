//! The front end: static files, cached by their hashed names, under a strict policy.

use std::path::Path;

use axum::extract::OriginalUri;
use axum::http::{HeaderValue, Request, header};
use axum::middleware::{Next, from_fn};
use axum::response::Response;
use axum::{Router, body::Body};
use tower_http::services::{ServeDir, ServeFile};

use crate::state::App;

/// Nothing is loaded from elsewhere, nothing runs that did not ship with the application.
const POLICY: &str = "default-src 'none'; script-src 'self'; style-src 'self'; font-src 'self'; \
    img-src 'self' data:; connect-src 'self'; manifest-src 'self'; base-uri 'none'; \
    form-action 'self'; frame-ancestors 'none'";

/// Serves the built front end; any address it does not know is the application's own.
pub fn routes(dist: &Path) -> Router<App> {
    let index = ServeFile::new(dist.join("index.html")).precompressed_br().precompressed_gzip();
    let files = ServeDir::new(dist).precompressed_br().precompressed_gzip().fallback(index);
    // A hashed file that is not there is of another version, never the application's page.
    let assets = ServeDir::new(dist.join("assets")).precompressed_br().precompressed_gzip();
    Router::new().nest_service("/assets", assets).fallback_service(files).layer(from_fn(headers))
}

async fn headers(request: Request<Body>, next: Next) -> Response {
    // Nested, it has lost its prefix; the whole of it is kept beside.
    let whole = request.extensions().get::<OriginalUri>();
    let path = whole.map_or(request.uri().path(), |uri| uri.path());
    let hashed = path.starts_with("/assets/");
    let mut response = next.run(request).await;
    let found =
        response.status().is_success() || response.status() == axum::http::StatusCode::NOT_MODIFIED;
    let html = response
        .headers()
        .get(header::CONTENT_TYPE)
        .is_some_and(|kind| kind.as_bytes().starts_with(b"text/html"));
    let cache =
        if hashed && found && !html { "public, max-age=31536000, immutable" } else { "no-cache" };
    let headers = response.headers_mut();
    for (name, value) in [
        (header::CACHE_CONTROL, cache),
        (header::CONTENT_SECURITY_POLICY, POLICY),
        (header::X_CONTENT_TYPE_OPTIONS, "nosniff"),
        (header::REFERRER_POLICY, "same-origin"),
    ] {
        headers.insert(name, HeaderValue::from_static(value));
    }
    response
}
