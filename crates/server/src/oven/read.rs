use ironpeel_core::batch::StagePlan;
use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::fault::BakeEvidence;
use ironpeel_core::method::{BakePhase, StageKind};
use ironpeel_core::oven::{
    BakeChange, BakeTrace, BakeTraceInput, CoreLevels, LoggerProbe, MovedCrossing, ProbeInput,
    SteamPrediction, SteamedBake,
};
use ironpeel_core::water::arrival_target_pct;
use ironpeel_store::{BakeMark, BakeSummary, BakeTraceRecord, Word};
use serde::Serialize;
use utoipa::ToSchema;
use uuid::Uuid;

use crate::batches::batch_view;
use crate::heavy::heavy;
use crate::planned_batch::PlannedBatch;
use crate::problem::{Problem, Result};
use crate::state::App;

/// Points a probe is drawn with at most.
const DRAWN: usize = 600;
/// Earlier bakes drawn beneath, and asked for steam.
const EARLIER: usize = 4;
const STEAMED: i64 = 20;

/// A bake with what its trace says.
#[derive(Debug, Serialize, ToSchema)]
pub struct ReadBake {
    pub bake: BakeSummary,
    /// Why the target is what it is, where damaged starch moved it.
    pub damaged_starch: Option<String>,
    pub read: BakeTrace,
    /// Crossings that stand where a person moved them.
    pub moves: Vec<BakeMark>,
    /// The core temperatures it is read at.
    pub levels: CoreLevels,
    /// Thinned, so that it can be drawn.
    pub t_min: Vec<f64>,
    pub probes: Vec<LoggerProbe>,
    /// The bake in which the slowest core would arrive by the target, and what it costs.
    pub wanted: Option<BakeChange>,
    /// When steam goes off, by this product's other bakes.
    pub steam: Option<SteamPrediction>,
    /// What the oven was set to.
    pub programme: Vec<BakePhase>,
    /// The core temperature the method bakes to.
    pub core_c: Option<f64>,
    /// Earlier bakes of the product, newest first.
    pub earlier: Vec<EarlierBake>,
}

/// An earlier bake: its slowest core.
#[derive(Debug, Serialize, ToSchema)]
pub struct EarlierBake {
    pub bake: BakeSummary,
    pub t_min: Vec<f64>,
    pub core_c: Vec<f64>,
}

/// What is asked of a trace of a batch: by damaged starch its core has to arrive sooner.
pub fn asked_of(planned: &PlannedBatch, coefficients: &Coefficients) -> BakeTraceInput {
    let target = arrival_target_pct(planned.damaged_starch.is_some(), coefficients);
    BakeTraceInput { target_arrival_pct: target.into(), ..BakeTraceInput::default() }
}

pub async fn trace_read(
    planned: &PlannedBatch,
    trace: &BakeTraceRecord,
    marks: &[BakeMark],
    coefficients: &Coefficients,
) -> Result<BakeTrace> {
    let probe = |probe: &LoggerProbe| ProbeInput {
        name: probe.name.clone(),
        core_c: probe.core_c.clone().into(),
    };
    let asked = BakeTraceInput {
        bake_min: trace.bake_min.into(),
        t_min: trace.t_min.clone().into(),
        probes: trace.probes.iter().map(probe).collect(),
        ..asked_of(planned, coefficients)
    };
    let coefficients = coefficients.clone();
    let moved: Vec<MovedCrossing> = marks.iter().filter_map(moved).collect();
    let bake_min = trace.bake_min;
    let read = heavy(move || asked.compute(&coefficients)).await?;
    Ok(read.moved(&moved, bake_min))
}

/// A mark that stands where a person put it.
fn moved(mark: &BakeMark) -> Option<MovedCrossing> {
    let BakeMark { probe, crossing: Word(crossing), minute, .. } = mark;
    Some(MovedCrossing { probe: probe.clone(), crossing: *crossing, minute: (*minute)? })
}

/// A bake as evidence of what went wrong; none without a trace.
pub async fn bake_evidence(
    app: &App,
    planned: &PlannedBatch,
    coefficients: &Coefficients,
) -> Result<Option<BakeEvidence>> {
    let Some(newest) = app.store.bakes(None, Some(planned.id), None, 1).await?.pop() else {
        return Ok(None);
    };
    let trace = app.store.bake_trace(newest.id).await?;
    let marks = app.store.bake_marks(newest.id).await?;
    let read = trace_read(planned, &trace, &marks, coefficients).await?;
    Ok(read.slowest_probe().map(|slowest| BakeEvidence {
        arrival_pct: slowest.arrival_pct,
        target_arrival_pct: read.target_arrival_pct,
        kill_pct: slowest.yeast_kill_min.map(|min| 100.0 * min / trace.bake_min),
        spread_min: read.spread_min,
        end_c: slowest.end_c,
    }))
}

/// Every so many samples, as many as can be drawn.
fn thin(samples: &[f64]) -> Vec<f64> {
    samples.iter().copied().step_by(samples.len().div_ceil(DRAWN).max(1)).collect()
}

/// A bake with what its trace says.
pub async fn read_bake(app: &App, id: Uuid) -> Result<ReadBake> {
    let trace = app.store.bake_trace(id).await?;
    let planned = app.revisions.batch(trace.batch_id).await?;
    let plant = app.parameters().await?;
    let marks = app.store.bake_marks(id).await?;
    let read = trace_read(&planned, &trace, &marks, &plant.coefficients).await?;
    let of_product = app.store.bakes(Some(&planned.slug), None, None, STEAMED).await?;
    let own = app.store.bakes(None, Some(trace.batch_id), None, STEAMED).await?;
    let bake = own.into_iter().find(|bake| bake.id == id);
    let bake = bake.ok_or_else(|| Problem::not_found("this bake trace"))?;
    let others = of_product.into_iter().filter(|other| other.batch_id != trace.batch_id);
    let others: Vec<BakeSummary> =
        others.filter(|other| other.planned_for <= bake.planned_for).collect();
    let steamed = others.iter().filter_map(|other| {
        let steam_until_min = other.steam_until_min?;
        Some(SteamedBake { steam_until_min, bake_min: other.bake_min })
    });
    let steam = SteamPrediction::of(&steamed.collect::<Vec<_>>(), bake.bake_min);
    let mut earlier = Vec::new();
    for bake in others.into_iter().take(EARLIER) {
        let trace = app.store.bake_trace(bake.id).await?;
        let marks = app.store.bake_marks(bake.id).await?;
        let slowest = trace_read(&planned, &trace, &marks, &plant.coefficients).await?.slowest;
        let slowest = trace.probes.iter().find(|probe| Some(&probe.name) == slowest.as_ref());
        earlier.push(EarlierBake {
            t_min: thin(&trace.t_min),
            core_c: slowest.map(|probe| thin(&probe.core_c)).unwrap_or_default(),
            bake,
        });
    }
    let view = batch_view(app, trace.batch_id).await?;
    let method = app.revisions.method(view.revision_refs.method_revision_id).await?;
    let baked = method.method.stages.iter().rfind(|stage| stage.kind == StageKind::Bake);
    Ok(ReadBake {
        damaged_starch: planned.damaged_starch.clone(),
        wanted: read
            .bake_min_for_target
            .map(|then| BakeChange::between(trace.bake_min, then, &plant.coefficients)),
        steam,
        programme: baked.map(|stage| stage.programme.clone()).unwrap_or_default(),
        core_c: planned.bake().and_then(StagePlan::core_c),
        t_min: thin(&trace.t_min),
        probes: trace
            .probes
            .into_iter()
            .map(|LoggerProbe { name, core_c }| LoggerProbe { name, core_c: thin(&core_c) })
            .collect(),
        earlier,
        levels: CoreLevels::of(&plant.coefficients),
        read,
        moves: marks,
        bake,
    })
}
