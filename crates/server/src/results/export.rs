//! Batches as a table, or as JSON with every event, streamed.

use axum::body::Body;
use axum::extract::State;
use axum::response::Response;
use futures_util::Stream;
use ironpeel_store::{BatchFilter, BatchSummary, StoreError};
use serde::Deserialize;
use serde_json::{Value, json};
use utoipa::IntoParams;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::batches::BatchQuery;
use crate::download::{FileFormat, csv_of};
use crate::problem::{Problem, Result};
use crate::request::Query;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(export))
}

/// Batches read at once.
const PART: i64 = 200;

#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
struct FormatQuery {
    #[param(inline)]
    format: FileFormat,
}

/// Batches, newest planned first: a batch a row, or JSON with every event of each
#[utoipa::path(get, path = "/api/v1/batch-export", security(("session" = ["read"])), tag = "results", params(FormatQuery, BatchQuery),
    responses((status = 200, content((String = "text/csv"), (Vec<serde_json::Value> = "application/json"))), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn export(
    State(app): State<App>,
    Query(FormatQuery { format }): Query<FormatQuery>,
    Query(asked): Query<BatchQuery>,
) -> Result<Response> {
    let parts = parts(app, format, asked.filter()?);
    Ok(format.attachment("batches", Body::from_stream(parts)))
}

const HEAD: [&str; 22] = [
    "batch",
    "state",
    "product",
    "line",
    "flour",
    "lot",
    "planned_for",
    "started_at",
    "ended_at",
    "dough_c",
    "dough_c_d",
    "water_pts",
    "by_feel_pts",
    "consistency",
    "mixing_kj_per_kg",
    "proof_min",
    "bake_min",
    "loss_pct",
    "pieces_good",
    "pieces_rejected",
    "friction_c",
    "unplaced",
];

fn row(batch: &BatchSummary) -> Vec<String> {
    let figures = json!(batch);
    let cell = |name: &str| match &figures[if name == "batch" { "id" } else { name }] {
        Value::Null => String::new(),
        Value::String(text) => text.clone(),
        other => other.to_string(),
    };
    HEAD.iter().map(|name| cell(name)).collect()
}

/// The file, a page of batches at a time. A fault of the records breaks the stream off, so that a
/// half file is not taken for a whole one.
fn parts(
    app: App,
    format: FileFormat,
    filter: BatchFilter,
) -> impl Stream<Item = std::result::Result<String, StoreError>> {
    async_stream::try_stream! {
        yield match format {
            FileFormat::Csv => csv_of([HEAD]),
            FileFormat::Json => "[".to_owned(),
        };
        let (mut after, mut first) = (None, true);
        loop {
            let batches = app.store.batches(&filter, after, PART).await?;
            let Some(last) = batches.last() else { break };
            after = Some((last.planned_for, last.id));
            let mut part = String::new();
            match format {
                FileFormat::Csv => part += &csv_of(batches.iter().map(row)),
                FileFormat::Json => {
                    let ids: Vec<Uuid> = batches.iter().map(|batch| batch.id).collect();
                    let mut events = app.store.events_of(&ids).await?;
                    for batch in batches {
                        part += if first { "\n" } else { ",\n" };
                        first = false;
                        let mut one = json!(batch);
                        one["events"] = json!(events.remove(&batch.id).unwrap_or_default());
                        part += &one.to_string();
                    }
                }
            }
            yield part;
        }
        if format == FileFormat::Json {
            yield "\n]\n".to_owned();
        }
    }
}
