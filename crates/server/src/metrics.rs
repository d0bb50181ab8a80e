//! What the server counts of itself, as Prometheus reads it.

use std::sync::LazyLock;
use std::time::Instant;

use axum::extract::{MatchedPath, Request, State};
use axum::http::{Method, header};
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};
use metrics::{counter, describe_counter, describe_gauge, describe_histogram, gauge, histogram};
use metrics_exporter_prometheus::{Matcher, PrometheusBuilder, PrometheusHandle};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::gauge::{Counted, HEAVY};
use crate::state::App;

const REQUESTS: &str = "ironpeel_request_seconds";
const UNDER_WAY: &str = "ironpeel_requests_under_way";
const RECORDS: &str = "ironpeel_records_total";
const CONNECTIONS: &str = "ironpeel_database_connections";
/// From a calculator's microseconds to the longest a request may take.
const BUCKETS: [f64; 10] = [0.001, 0.0025, 0.005, 0.01, 0.025, 0.05, 0.1, 0.5, 2.5, 15.0];

/// One a process: several servers in one count together.
static COUNTED: LazyLock<PrometheusHandle> = LazyLock::new(|| {
    let builder = PrometheusBuilder::new()
        .set_buckets_for_metric(Matcher::Full(REQUESTS.into()), &BUCKETS)
        .expect("there are buckets");
    let handle = builder.install_recorder().expect("nothing else counts here");
    describe_histogram!(REQUESTS, "Time to the head of an answer, by method, path and status.");
    describe_gauge!(UNDER_WAY, "Requests that are being answered.");
    describe_counter!(RECORDS, "Writes of clients that were acknowledged.");
    describe_gauge!(CONNECTIONS, "Connections to the database, by what they do.");
    describe_gauge!(HEAVY, "Work off the answering threads, by whether it runs or waits.");
    handle
});

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(metrics))
}

/// What the server counts of itself
#[utoipa::path(get, path = "/metrics", security(()), tag = "health", responses((status = 200, body = str)))]
async fn metrics(State(app): State<App>) -> Response {
    let [idle, used, waiting] = app.store.connections();
    for (what, count) in [("idle", idle), ("used", used), ("waited for", waiting)] {
        gauge!(CONNECTIONS, "state" => what).set(count as f64);
    }
    COUNTED.run_upkeep();
    let kind = "text/plain; version=0.0.4; charset=utf-8";
    ([(header::CONTENT_TYPE, kind)], COUNTED.render()).into_response()
}

/// Counts a record that was acknowledged.
pub fn recorded() {
    counter!(RECORDS).increment(1);
}

/// Counts a request and times its answer.
pub async fn count(request: Request, next: Next) -> Response {
    LazyLock::force(&COUNTED);
    let method = match request.method() {
        method @ (&Method::GET | &Method::PUT | &Method::POST | &Method::DELETE) => method.clone(),
        _ => Method::OPTIONS,
    };
    let path = request.extensions().get::<MatchedPath>().map_or("other", MatchedPath::as_str);
    let path = path.to_owned();
    let begun = Instant::now();
    let under_way = Counted::of(gauge!(UNDER_WAY));
    let response = next.run(request).await;
    drop(under_way);
    let status = response.status().as_str().to_owned();
    histogram!(REQUESTS, "method" => method.to_string(), "path" => path, "status" => status)
        .record(begun.elapsed());
    response
}
