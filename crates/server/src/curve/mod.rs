//! Curves of lots: imported or run on a simulated instrument, read, and their marks moved.

mod file;
mod instrument;
mod read;

use axum::body::Bytes;
use axum::extract::{DefaultBodyLimit, State};
use chrono::Utc;
use ironpeel_core::flour::{AlveographInput, FarinographInput};
use ironpeel_core::units::{NumberRange, RawNumber, ValidationErrors};
use ironpeel_store::{Trace, TraceKind, TraceMark, TraceSource, TraceSummary, Word};
use serde::Deserialize;
use serde_json::Value;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

pub use file::CurveFile;
use read::{MARKS, ReadCurve};

use crate::problem::{Problem, Result};
use crate::request::{Json, Marks, Path, Query, Recorded, from_value};
use crate::revision::SignedInput;
use crate::state::App;

const MOST_BYTES: usize = 16 * 1024 * 1024;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(parse))
        .routes(routes!(curves))
        .routes(routes!(save))
        .routes(routes!(curve))
        .routes(routes!(move_mark))
        .layer(DefaultBodyLimit::max(MOST_BYTES))
        .merge(instrument::routes())
}

/// A curve to be recorded: what the calculator of its instrument is asked.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct CurveInput {
    /// farinograph or alveograph.
    pub kind: String,
    #[schema(value_type = Object)]
    pub input: Value,
    pub signed: SignedInput,
}

/// A mark, moved or put back.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct MarkInput {
    /// arrival, development or departure.
    pub mark: String,
    /// Minutes from the first water; null puts it back where it was read.
    #[serde(default)]
    pub minute: RawNumber,
    pub signed: SignedInput,
}

const MINUTE: NumberRange = NumberRange::new("minute", "the mark", "min", 0.0, 1440.0);

/// Takes a curve file apart
#[utoipa::path(post, path = "/api/v1/curves/read", security(("session" = ["read"])), tag = "curve", params(Marks),
    request_body(content = String, content_type = "text/csv"),
    responses((status = 200, body = CurveFile), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn parse(
    Query(marks): Query<Marks>,
    bytes: std::result::Result<Bytes, axum::extract::rejection::BytesRejection>,
) -> Result<Json<CurveFile>> {
    CurveFile::read(&bytes?, marks.decimal_mark)
        .map(Json)
        .map_err(|fault| Problem::unusable(fault.to_string()))
}

/// The curves of a lot, newest first
#[utoipa::path(get, path = "/api/v1/lots/{lot_id}/curves", security(("session" = ["read"])), tag = "curve", params(("lot_id" = Uuid, Path)),
    responses((status = 200, body = Vec<TraceSummary>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn curves(
    State(app): State<App>,
    Path(lot_id): Path<Uuid>,
) -> Result<Json<Vec<TraceSummary>>> {
    Ok(Json(app.store.traces(lot_id).await?))
}

/// Records a curve of a lot; sent twice, it is stored once
#[utoipa::path(put, path = "/api/v1/lots/{lot_id}/curves/{curve_id}", security(("session" = ["change"])), tag = "curve",
    params(("lot_id" = Uuid, Path), ("curve_id" = Uuid, Path)), request_body = CurveInput,
    responses((status = 200, body = ReadCurve), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn save(
    State(app): State<App>,
    Path((lot_id, id)): Path<(Uuid, Uuid)>,
    Recorded { input: asked, write }: Recorded<CurveInput>,
) -> Result<Json<ReadCurve>> {
    let mut faults = ValidationErrors::default();
    let signed = asked.signed.check(&write.author, false, &mut faults);
    let Some(kind) = Word::<TraceKind>::named(&asked.kind) else {
        faults.push("kind", "a curve is of a farinograph or an alveograph");
        return Err(faults.into());
    };
    let checked = match kind {
        TraceKind::Farinograph => {
            from_value::<FarinographInput>(asked.input.clone())?.check().map(drop)
        }
        TraceKind::Alveograph => {
            from_value::<AlveographInput>(asked.input.clone())?.check().map(drop)
        }
    };
    if let Err(ValidationErrors(more)) = checked {
        faults.0.extend(more);
    }
    faults.or(())?;
    let trace = new_trace(id, lot_id, kind, TraceSource::Imported, asked.input, signed.by);
    write.of(&app, id).add_trace(&trace).await?;
    curve(State(app), Path(id)).await
}

fn new_trace(
    id: Uuid,
    lot_id: Uuid,
    kind: TraceKind,
    source: TraceSource,
    input: Value,
    made_by: String,
) -> Trace {
    let (kind, source) = (Word(kind), Word(source));
    Trace { id, lot_id, kind, source, input, made_by, made_at: Utc::now() }
}

/// A curve with what it says, where its marks stand, and whether the certificate agrees
#[utoipa::path(get, path = "/api/v1/curves/{curve_id}", security(("session" = ["read"])), tag = "curve", params(("curve_id" = Uuid, Path)),
    responses((status = 200, body = ReadCurve), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn curve(State(app): State<App>, Path(id): Path<Uuid>) -> Result<Json<ReadCurve>> {
    let (trace, marks) = app.store.trace(id).await?;
    let lot = app.store.lot(trace.lot_id).await?;
    let plant = app.parameters().await?;
    ReadCurve::of(trace, marks, &lot, &plant.coefficients).map(Json)
}

/// Moves a mark, or puts it back; the reading follows and the move is kept
#[utoipa::path(put, path = "/api/v1/curves/{curve_id}/marks/{mark_id}", security(("session" = ["change"])), tag = "curve",
    params(("curve_id" = Uuid, Path), ("mark_id" = Uuid, Path)), request_body = MarkInput,
    responses((status = 200, body = ReadCurve), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn move_mark(
    State(app): State<App>,
    Path((trace_id, id)): Path<(Uuid, Uuid)>,
    Recorded { input: asked, write }: Recorded<MarkInput>,
) -> Result<Json<ReadCurve>> {
    let mut faults = ValidationErrors::default();
    if !MARKS.contains(&asked.mark.as_str()) {
        faults.push("mark", format!("a mark is one of {}", MARKS.join(", ")));
    }
    let minute = MINUTE.check_opt(&asked.minute, "", &mut faults);
    let signed = asked.signed.check(&write.author, false, &mut faults);
    faults.or(())?;
    let made_at = Utc::now();
    let mark = TraceMark { id, trace_id, mark: asked.mark, minute, made_by: signed.by, made_at };
    write.of(&app, id).add_mark(&mark).await?;
    curve(State(app), Path(trace_id)).await
}
