//! Bakes: what loggers wrote of them, what that says, and what another bake would need.

mod file;
mod read;

use axum::body::Bytes;
use axum::extract::{DefaultBodyLimit, State};
use chrono::Utc;
use ironpeel_core::oven::{
    BakeTrace, BakeTraceInput, Crossing, LoggerProbe, LoggerUnit, ProbeInput, ProbeReading,
    scaled_bake_min,
};
use ironpeel_core::units::{Estimate, NumberRange, RawNumber, Series, ValidationErrors};
use ironpeel_core::water::arrival_target_pct;
use ironpeel_instruments::{Bake, run_oven_logger};
use ironpeel_store::{BakeMark, BakeSummary, BakeTraceRecord, NewBakeTrace, TraceSource, Word};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use file::{BakeFile, BakeFileFault};
pub use read::bake_evidence;
use read::{ReadBake, asked_of, read_bake, trace_read};

use crate::page::{Cursor, PAGE, PageQuery, paginate};
use crate::planned_batch::PlannedBatch;
use crate::problem::{Problem, Result};
use crate::request::{Json, Marks, Path, Query, Recorded};
use crate::state::App;

const MOST_BYTES: usize = 16 * 1024 * 1024;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(parse))
        .routes(routes!(bakes))
        .routes(routes!(save))
        .routes(routes!(run_logger))
        .routes(routes!(bake))
        .routes(routes!(scaled))
        .routes(routes!(move_mark))
        .layer(DefaultBodyLimit::max(MOST_BYTES))
}

#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
struct UnitQuery {
    /// What the temperatures are in, where the file does not say.
    #[param(inline)]
    unit: Option<LoggerUnit>,
}

#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
struct BakesQuery {
    /// By its word in addresses.
    product: Option<String>,
    batch: Option<Uuid>,
}

#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
struct ScaledQuery {
    /// Dough in one piece, 0.005 to 20 kg.
    piece_kg: f64,
}

/// How long a piece of another mass would bake.
#[derive(Debug, Serialize, ToSchema)]
struct ScaledBake {
    /// What the piece of this bake weighs as dough.
    from_kg: f64,
    /// This bake's minutes, or those in which its slowest core would arrive by the target.
    from_min: f64,
    minutes: Estimate,
}

const PIECE: NumberRange = NumberRange::new("piece_kg", "another piece", "kg", 0.005, 20.0);

/// A crossing, moved or put back.
#[derive(Debug, Deserialize, ToSchema)]
struct BakeMarkInput {
    /// By its name.
    probe: String,
    crossing: Crossing,
    /// Minutes from oven entry; left out, it is put back where it was read.
    #[serde(default)]
    #[schema(value_type = Option<f64>)]
    minute: RawNumber,
}

const MINUTE: NumberRange = NumberRange::new("minute", "the crossing", "min", 0.0, 600.0);

/// A page of bakes with a trace, newest planned first.
#[derive(Debug, Serialize, ToSchema)]
struct BakePage {
    bakes: Vec<BakeSummary>,
    /// Where the next page begins; none on the last.
    next: Option<Cursor>,
}

/// A bake trace to be recorded.
#[derive(Debug, Default, Deserialize, ToSchema)]
struct NewBakeInput {
    /// 1 to 600 min; from oven entry to exit.
    #[serde(default)]
    #[schema(value_type = f64)]
    bake_min: RawNumber,
    /// Minutes from oven entry, rising.
    #[serde(default)]
    #[schema(value_type = Vec<f64>)]
    t_min: Series,
    #[serde(default)]
    probes: Vec<ProbeInput>,
}

/// A simulated logger to be sent through the oven.
#[derive(Debug, Deserialize, ToSchema)]
struct LoggerInput {}

/// Takes a logger's file apart
#[utoipa::path(post, path = "/api/v1/bake-traces/read", security(("session" = ["read"])), tag = "oven", params(Marks, UnitQuery),
    request_body(content = String, content_type = "text/csv"),
    responses((status = 200, body = BakeFile), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn parse(
    State(app): State<App>,
    Query(marks): Query<Marks>,
    Query(UnitQuery { unit }): Query<UnitQuery>,
    bytes: std::result::Result<Bytes, axum::extract::rejection::BytesRejection>,
) -> Result<Json<BakeFile>> {
    let plant = app.parameters().await?;
    BakeFile::read(&bytes?, marks.decimal_mark, unit, &plant.coefficients).map(Json).map_err(
        |fault| match fault {
            BakeFileFault::Unit(_) => Problem::field("unit", fault.to_string()),
            _ => Problem::unusable(fault.to_string()),
        },
    )
}

/// Bakes with a trace, newest planned first
#[utoipa::path(get, path = "/api/v1/bakes", security(("session" = ["read"])), tag = "oven", params(BakesQuery, PageQuery),
    responses((status = 200, body = BakePage), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn bakes(
    State(app): State<App>,
    Query(asked): Query<BakesQuery>,
    Query(page): Query<PageQuery>,
) -> Result<Json<BakePage>> {
    let product = asked.product.as_deref();
    let mut bakes = app.store.bakes(product, asked.batch, page.key(), PAGE + 1).await?;
    let next = paginate(&mut bakes, |bake| (bake.planned_for, bake.id));
    Ok(Json(BakePage { bakes, next }))
}

/// Records a bake trace of a batch; sent twice, it is stored once
#[utoipa::path(put, path = "/api/v1/batches/{batch_id}/bake-traces/{trace_id}", security(("session" = ["record"])), tag = "oven",
    params(("batch_id" = Uuid, Path), ("trace_id" = Uuid, Path)), request_body = NewBakeInput,
    responses((status = 200, body = ReadBake), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn save(
    State(app): State<App>,
    Path((batch_id, id)): Path<(Uuid, Uuid)>,
    Recorded { input, write }: Recorded<NewBakeInput>,
) -> Result<Json<ReadBake>> {
    let planned = app.revisions.batch(batch_id).await?;
    let plant = app.parameters().await?;
    let NewBakeInput { bake_min, t_min, probes } = input;
    let asked =
        BakeTraceInput { bake_min, t_min, probes, ..asked_of(&planned, &plant.coefficients) };
    let read = asked.compute(&plant.coefficients)?;
    let by = write.author.name.clone();
    let new = new_trace(id, batch_id, TraceSource::Imported, asked, &read, by)?;
    write.of(&app, id).add_bake_trace(&new).await?;
    bake(State(app), Path(id)).await
}

/// Sends a simulated logger through the oven with a batch and records what it writes; sent twice, it
/// is stored once
#[utoipa::path(put, path = "/api/v1/batches/{batch_id}/oven-logger/{trace_id}", security(("session" = ["record"])), tag = "oven",
    params(("batch_id" = Uuid, Path), ("trace_id" = Uuid, Path)), request_body = LoggerInput,
    responses((status = 200, body = ReadBake), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn run_logger(
    State(app): State<App>,
    Path((batch_id, id)): Path<(Uuid, Uuid)>,
    Recorded { write, .. }: Recorded<LoggerInput>,
) -> Result<Json<ReadBake>> {
    let planned = app.revisions.batch(batch_id).await?;
    let plant = app.parameters().await?;
    let bake_min = planned
        .bake()
        .map(|stage| stage.minutes)
        .ok_or_else(|| Problem::unusable("this batch's method bakes nothing"))?;
    // The oven and the loaf set the core when they do, however long the bake is planned.
    let earlier = app.store.bakes(Some(&planned.slug), None, None, ALIKE).await?;
    let arrivals = earlier.iter().filter_map(|one| Some(one.arrival_pct? / 100.0 * one.bake_min));
    let arrivals: Vec<f64> = arrivals.collect();
    let target = arrival_target_pct(planned.damaged_starch.is_some(), &plant.coefficients);
    let arrival_pct = if arrivals.is_empty() {
        target
    } else {
        let mean_min = arrivals.iter().sum::<f64>() / arrivals.len() as f64;
        (100.0 * mean_min / bake_min).min(LATEST_PCT)
    };
    let seed = id.as_u64_pair().0;
    let bake_of = Logged { bake_min, arrival_pct, seed, by: write.author.name.clone() };
    let new = logged(id, &planned, bake_of, &plant.coefficients)?;
    write.of(&app, id).add_bake_trace(&new).await?;
    bake(State(app), Path(id)).await
}

/// Earlier bakes of the product that the next is like.
const ALIKE: i64 = 5;
/// A loaf that left the oven was set, just.
const LATEST_PCT: f64 = 98.0;

/// A bake as a simulated logger goes through it.
#[derive(Debug, Clone)]
pub struct Logged {
    pub bake_min: f64,
    /// Of the slowest core.
    pub arrival_pct: f64,
    pub seed: u64,
    /// Who sent it through.
    pub by: String,
}

/// A sample every so many minutes, by so many probes.
const EVERY_MIN: f64 = 0.5;
const PROBES: usize = 5;
/// From the first core that is set to the last, min.
const SPREAD_MIN: f64 = 0.8;

/// What a simulated logger writes of a batch's bake, read.
pub fn logged(
    id: Uuid,
    planned: &PlannedBatch,
    Logged { bake_min, arrival_pct, seed, by }: Logged,
    coefficients: &ironpeel_core::coefficient::Coefficients,
) -> Result<NewBakeTrace> {
    let start_c = planned.plan.figures.target_c + 2.0;
    let bake = Bake { bake_min, start_c, arrival_pct, spread_min: SPREAD_MIN };
    let drawn = run_oven_logger(bake, PROBES, EVERY_MIN, seed);
    let probes = drawn.probes.into_iter();
    let asked = BakeTraceInput {
        bake_min: bake_min.into(),
        t_min: drawn.t_min.into(),
        probes: probes.map(|(name, core_c)| ProbeInput { name, core_c: core_c.into() }).collect(),
        ..asked_of(planned, coefficients)
    };
    let read = asked.compute(coefficients)?;
    new_trace(id, planned.id, TraceSource::Instrument, asked, &read, by)
}

fn new_trace(
    id: Uuid,
    batch_id: Uuid,
    source: TraceSource,
    asked: BakeTraceInput,
    read: &BakeTrace,
    made_by: String,
) -> Result<NewBakeTrace> {
    let checked = "a trace that was read is of numbers";
    let (RawNumber::Number(bake_min), Series::Numbers(t_min)) = (asked.bake_min, asked.t_min)
    else {
        return Err(Problem::fault(checked));
    };
    let mut probes = Vec::with_capacity(asked.probes.len());
    for ProbeInput { name, core_c } in asked.probes {
        let Series::Numbers(core_c) = core_c else { return Err(Problem::fault(checked)) };
        probes.push(LoggerProbe { name, core_c });
    }
    let made_at = Utc::now();
    Ok(NewBakeTrace {
        trace: BakeTraceRecord { id, batch_id, source, bake_min, t_min, probes, made_by, made_at },
        arrival_pct: read.slowest_probe().and_then(|probe| probe.arrival_pct),
        steam_until_min: read.steam_until_min,
    })
}

/// A bake with what its trace says, beside earlier ones of the product
#[utoipa::path(get, path = "/api/v1/bake-traces/{trace_id}", security(("session" = ["read"])), tag = "oven", params(("trace_id" = Uuid, Path)),
    responses((status = 200, body = ReadBake), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn bake(State(app): State<App>, Path(id): Path<Uuid>) -> Result<Json<ReadBake>> {
    read_bake(&app, id).await.map(Json)
}

/// How long a piece of another mass would bake, its shape and the oven the same
#[utoipa::path(get, path = "/api/v1/bake-traces/{trace_id}/scaled", security(("session" = ["read"])), tag = "oven",
    params(("trace_id" = Uuid, Path), ScaledQuery),
    responses((status = 200, body = ScaledBake), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn scaled(
    State(app): State<App>,
    Path(id): Path<Uuid>,
    Query(ScaledQuery { piece_kg }): Query<ScaledQuery>,
) -> Result<Json<ScaledBake>> {
    let mut faults = ValidationErrors::default();
    let to_kg = PIECE.check(&piece_kg.into(), "", &mut faults);
    faults.or(())?;
    let trace = app.store.bake_trace(id).await?;
    let planned = app.revisions.batch(trace.batch_id).await?;
    let from_kg = planned.plan.figures.piece_kg;
    if from_kg <= 0.0 {
        return Err(Problem::unusable("the batch was planned without a piece mass"));
    }
    let coefficients = app.parameters().await?.coefficients;
    let marks = app.store.bake_marks(id).await?;
    let read = trace_read(&planned, &trace, &marks, &coefficients).await?;
    let from_min = read.bake_min_for_target.unwrap_or(trace.bake_min);
    let minutes = scaled_bake_min(from_min, from_kg, to_kg, &coefficients);
    Ok(Json(ScaledBake { from_kg, from_min, minutes }))
}

/// Moves a crossing of a probe, or puts it back; the reading follows and the move is kept
#[utoipa::path(put, path = "/api/v1/bake-traces/{trace_id}/marks/{id}", security(("session" = ["change"])), tag = "oven",
    params(("trace_id" = Uuid, Path), ("id" = Uuid, Path)), request_body = BakeMarkInput,
    responses((status = 200, body = ReadBake), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn move_mark(
    State(app): State<App>,
    Path((trace_id, id)): Path<(Uuid, Uuid)>,
    Recorded { input, write }: Recorded<BakeMarkInput>,
) -> Result<Json<ReadBake>> {
    let records = write.of(&app, id);
    if !records.was_written().await? {
        let BakeMarkInput { probe, crossing, minute } = input;
        let trace = app.store.bake_trace(trace_id).await?;
        let mut faults = ValidationErrors::default();
        let minute = MINUTE.check_opt(&minute, "", &mut faults);
        if trace.probes.iter().all(|one| one.name != probe) {
            faults.push("probe", "the trace has no such probe");
        }
        faults.or(())?;
        let (crossing, made_by) = (Word(crossing), write.author.name.clone());
        let made_at = Utc::now();
        let arrival_pct = None;
        let mut new =
            BakeMark { id, trace_id, probe, crossing, minute, arrival_pct, made_by, made_at };
        let mut marks = app.store.bake_marks(trace_id).await?;
        marks.retain(|one| (&one.probe, one.crossing) != (&new.probe, new.crossing));
        marks.push(new.clone());
        let planned = app.revisions.batch(trace.batch_id).await?;
        let coefficients = app.parameters().await?.coefficients;
        let read = trace_read(&planned, &trace, &marks, &coefficients).await?;
        if !read.probes.iter().filter(|one| one.name == new.probe).all(ProbeReading::rises) {
            let message = "a core comes to the lower temperature before the higher one";
            return Err(Problem::field("minute", message));
        }
        new.arrival_pct = read.slowest_probe().and_then(|probe| probe.arrival_pct);
        records.add_bake_mark(&new).await?;
    }
    read_bake(&app, trace_id).await.map(Json)
}
