//! The audit trail, read and exported.

use axum::body::Body;
use axum::extract::State;
use axum::response::Response;
use chrono::{DateTime, Utc};
use futures_util::Stream;
use ironpeel_core::units::timestamp;
use ironpeel_store::{AuditEntry, AuditFilter, StoreError};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::download::{CSV, attachment, csv_of};
use crate::page::{Cursor, PAGE, PageQuery, paginate};
use crate::problem::{Problem, Result};
use crate::request::{Json, Query};
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(entries)).routes(routes!(export))
}

/// Entries read at once.
const PART: i64 = 500;

/// Which entries are wanted; all where nothing is said.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
struct Wanted {
    person_id: Option<Uuid>,
    /// Part of who, of what was done or of its address.
    q: Option<String>,
    #[serde(default, deserialize_with = "timestamp::maybe")]
    from: Option<DateTime<Utc>>,
    #[serde(default, deserialize_with = "timestamp::maybe")]
    to: Option<DateTime<Utc>>,
}

/// A page of the audit trail, newest first.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct AuditPage {
    entries: Vec<AuditEntry>,
    /// Where the next page begins; none on the last.
    next: Option<Cursor>,
}

impl From<Wanted> for AuditFilter {
    fn from(Wanted { person_id, q, from, to }: Wanted) -> Self {
        let text = q.map(|text| text.trim().to_owned()).filter(|text| !text.is_empty());
        Self { person_id, text, from, to }
    }
}

/// Who did what, newest first
#[utoipa::path(get, path = "/api/v1/audit", tag = "people", params(Wanted, PageQuery),
    security(("session" = ["change"]), ("session" = ["administer"])),
    responses((status = 200, body = AuditPage), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn entries(
    State(app): State<App>,
    Query(wanted): Query<Wanted>,
    Query(page): Query<PageQuery>,
) -> Result<Json<AuditPage>> {
    let mut entries = app.store.audit_entries(&wanted.into(), page.key(), PAGE + 1).await?;
    let next = paginate(&mut entries, |entry| (entry.at, entry.id));
    Ok(Json(AuditPage { entries, next }))
}

/// Who did what, newest first, as a table
#[utoipa::path(get, path = "/api/v1/audit/csv", tag = "people", params(Wanted),
    security(("session" = ["change"]), ("session" = ["administer"])),
    responses((status = 200, body = String, content_type = "text/csv"), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn export(State(app): State<App>, Query(wanted): Query<Wanted>) -> Response {
    attachment("audit trail", "csv", CSV, Body::from_stream(parts(app, wanted.into())))
}

const HEAD: [&str; 10] = [
    "at",
    "who",
    "verified",
    "from",
    "action",
    "address",
    "record",
    "revision before",
    "revision after",
    "details",
];

/// The table, a part of the trail at a time; a fault of the records breaks the stream off.
fn parts(
    app: App,
    filter: AuditFilter,
) -> impl Stream<Item = std::result::Result<String, StoreError>> {
    async_stream::try_stream! {
        yield csv_of([HEAD]);
        let mut after = None;
        loop {
            let entries = app.store.audit_entries(&filter, after, PART).await?;
            let Some(last) = entries.last() else { break };
            after = Some((last.at, last.id));
            yield csv_of(entries.into_iter().map(row));
        }
    }
}

fn row(entry: AuditEntry) -> [String; 10] {
    let number = |number: Option<i32>| number.map(|number| number.to_string()).unwrap_or_default();
    [
        entry.at.to_rfc3339(),
        entry.who,
        if entry.verified { "yes" } else { "no" }.into(),
        entry.address,
        entry.action,
        entry.subject,
        entry.record_id.map(|id| id.to_string()).unwrap_or_default(),
        number(entry.revision_before),
        number(entry.revision_after),
        entry.details.map(|details| details.to_string()).unwrap_or_default(),
    ]
}
