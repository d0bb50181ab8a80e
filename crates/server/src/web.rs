//! The front end: static files, cached by their hashed names, under a strict policy.

use std::path::Path;

use axum::extract::OriginalUri;
use axum::http::{HeaderMap, HeaderValue, Request, StatusCode, Uri, header};
use axum::middleware::{Next, from_fn};
use axum::response::{IntoResponse, Response};
use axum::routing::get;
use axum::{Router, body::Body};
use rust_embed::{Embed, EmbeddedFile};
use tower_http::services::{ServeDir, ServeFile};

use crate::state::App;

/// Nothing is loaded from elsewhere, nothing runs that did not ship with the application.
const POLICY: &str = "default-src 'none'; script-src 'self'; style-src 'self'; font-src 'self'; \
    img-src 'self' data: blob:; connect-src 'self'; worker-src 'self'; manifest-src 'self'; base-uri 'none'; \
    form-action 'self'; frame-ancestors 'none'";

/// The page every address that is no file's shows.
const PAGE: &str = "index.html";

/// The front end as it was built before the server; a debug build reads it from its folder.
#[derive(Embed)]
#[folder = "../../web/dist"]
#[allow_missing = true]
struct Inside;

/// Serves the built front end of a folder, or the one inside; none where it was never built. Any
/// address it does not know is the application's own.
pub fn routes(folder: Option<&Path>) -> Option<Router<App>> {
    let routes = match folder {
        Some(folder) => of_folder(folder),
        None if Inside::get(PAGE).is_some() => Router::new().fallback_service(get(inside)),
        None => return None,
    };
    Some(routes.layer(from_fn(headers)))
}

fn of_folder(dist: &Path) -> Router<App> {
    let page = ServeFile::new(dist.join(PAGE)).precompressed_br().precompressed_gzip();
    let files = ServeDir::new(dist).precompressed_br().precompressed_gzip().fallback(page);
    // A hashed file that is not there is of another version, never the application's page.
    let assets = ServeDir::new(dist.join("assets")).precompressed_br().precompressed_gzip();
    Router::new().nest_service("/assets", assets).fallback_service(files)
}

async fn inside(uri: Uri, headers: HeaderMap) -> Response {
    let path = uri.path().trim_start_matches('/');
    let path = if path.starts_with("assets/") || Inside::get(path).is_some() { path } else { PAGE };
    let Some((encoding, file)) = packed(path, &headers).or_else(|| Some(("", Inside::get(path)?)))
    else {
        return StatusCode::NOT_FOUND.into_response();
    };
    let tag = format!("\"{}\"", hex::encode(file.metadata.sha256_hash()));
    let known =
        headers.get(header::IF_NONE_MATCH).is_some_and(|known| known.as_bytes() == tag.as_bytes());
    if known {
        return (StatusCode::NOT_MODIFIED, [(header::ETAG, tag)]).into_response();
    }
    let kind = mime_guess::from_path(path).first_or_octet_stream().to_string();
    let told = [
        (header::CONTENT_TYPE, kind),
        (header::ETAG, tag),
        (header::VARY, "accept-encoding".into()),
    ];
    let mut response = (told, file.data).into_response();
    if !encoding.is_empty() {
        let encoding = HeaderValue::from_static(encoding);
        response.headers_mut().insert(header::CONTENT_ENCODING, encoding);
    }
    response
}

/// A file as it was packed when it was built, where the browser can unpack it.
fn packed(path: &str, headers: &HeaderMap) -> Option<(&'static str, EmbeddedFile)> {
    let accepted = headers.get(header::ACCEPT_ENCODING)?.to_str().ok()?;
    let accepts = |wanted: &str| accepted.split(',').any(|one| one.trim() == wanted);
    [("br", "br"), ("gzip", "gz")]
        .into_iter()
        .filter(|(name, _)| accepts(name))
        .find_map(|(name, ending)| Some((name, Inside::get(&format!("{path}.{ending}"))?)))
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
