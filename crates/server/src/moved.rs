//! Addresses of earlier versions: what is queued in a browser or kept in a script goes where its
//! subject is now.

use axum::http::{StatusCode, Uri, header};
use axum::response::{IntoResponse, Response};

use crate::problem::Problem;

/// What an address held, and what stands in its place; the first that is in it counts.
const MOVED: [(&str, &str); 19] = [
    ("/api/v1/blends/bench", "/api/v1/blends/calculation"),
    ("/api/v1/certificates/judge", "/api/v1/certificates/assessment"),
    ("/api/v1/chain/change", "/api/v1/chain/weight-adjustment"),
    ("/api/v1/chain/day", "/api/v1/chain/schedule"),
    ("/api/v1/chain/followed", "/api/v1/chain/fermentation-tracking"),
    ("/api/v1/chain/holders", "/api/v1/chain/water-distribution"),
    ("/api/v1/chain/rise", "/api/v1/chain/fermentation"),
    ("/api/v1/chain/run", "/api/v1/chain/production-run"),
    ("/api/v1/chain/two-ways", "/api/v1/chain/process-comparison"),
    ("/api/v1/chain/why", "/api/v1/chain/derivations"),
    ("/api/v1/levers", "/api/v1/interventions"),
    ("/api/v1/method-choice", "/api/v1/optional-step"),
    ("/api/v1/numbers", "/api/v1/plant/parameters"),
    ("/api/v1/plant/clock", "/api/v1/plant/settings"),
    ("/api/v1/wishes", "/api/v1/quality-goals"),
    ("/decisions/", "/dispositions/"),
    ("/drift", "/control-chart"),
    ("/mend", "/correction"),
    ("/change", "/comparison"),
];

/// Sends an address that moved to where it is now, with its method and body; any other leads
/// nowhere.
pub async fn moved(uri: Uri) -> Response {
    let asked = uri.path_and_query().map_or("", |whole| whole.as_str());
    match MOVED.iter().find(|(was, _)| uri.path().contains(was)) {
        Some((was, is)) => {
            let location = asked.replacen(was, is, 1);
            (StatusCode::PERMANENT_REDIRECT, [(header::LOCATION, location)]).into_response()
        }
        None => Problem::not_found("this address leads nowhere in the API").into_response(),
    }
}
