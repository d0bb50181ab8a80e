use chrono::{DateTime, TimeDelta, Utc};
use serde::Serialize;

use super::{
    BatchRecord, NextStage, PlannedLine, Quantity, StagePlan, StageTimes, WaterReport, WeighedLine,
    stage_times, water, weighed,
};
use crate::coefficient::Coefficients;
use crate::method::coefficients::SLICER_CORE_C;
use crate::method::{StageKind, StageRole};

/// What a batch was planned as, one dough of it.
#[derive(Debug, Clone, PartialEq)]
pub struct BatchPlan {
    pub planned_for: DateTime<Utc>,
    pub stages: Vec<StagePlan>,
    pub lines: Vec<PlannedLine>,
    pub figures: PlannedFigures,
}

/// The figures of the plan that what happened is held against.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct PlannedFigures {
    pub doughs: f64,
    pub flour_kg: f64,
    pub target_c: f64,
    pub mixing_kj_per_kg: f64,
    pub pieces: f64,
    /// Dough in one piece.
    pub piece_kg: f64,
    pub bake_loss_pct: f64,
    /// Water the standing correction of the line put in, points on flour.
    pub standing_correction_pts: f64,
    /// How warm a core may come to the slicer: what its cooling ends at, or the house's.
    pub slicer_core_c: f64,
}

/// A figure as it was planned and as it was.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct PlanDifference {
    pub planned: f64,
    pub actual: f64,
    pub difference: f64,
}

impl PlanDifference {
    fn of(planned: f64, actual: f64) -> Self {
        Self { planned, actual, difference: actual - planned }
    }
}

/// A core at the slicer, and how warm it may be there.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SlicerCore {
    pub core_c: f64,
    pub limit_c: f64,
    /// Too warm to be sliced: the crumb smears and tears.
    pub over: bool,
}

/// A batch against its plan.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BatchReport {
    pub times: Vec<StageTimes>,
    pub next: Option<NextStage>,
    pub lines: Vec<WeighedLine>,
    pub water: Option<WaterReport>,
    /// From −2 much too slack to +2 much too stiff.
    pub consistency: Option<f64>,
    pub dough_c: Option<PlanDifference>,
    /// Minutes under the mixer as they were, times what it puts in.
    pub mixing_kj_per_kg: Option<PlanDifference>,
    pub proof_min: Option<PlanDifference>,
    pub bake_min: Option<PlanDifference>,
    /// By the last core that was read after the bake.
    pub slicer_core: Option<SlicerCore>,
    /// From dough in pieces to cold loaves.
    pub loss_pct: Option<PlanDifference>,
    pub pieces: Option<PlanDifference>,
    pub rejected_pct: Option<f64>,
}

/// Holds what happened against what was planned, by now.
pub fn report(plan: &BatchPlan, record: &BatchRecord, now: DateTime<Utc>) -> BatchReport {
    let (times, next) = stage_times(&plan.stages, plan.planned_for, record, now);
    let lines = weighed(&plan.lines, record);
    let figures = plan.figures;
    let dough_c = record.readings(Quantity::DoughC).next();
    let finish = record.finish.clone().unwrap_or_default();
    let all = finish.pieces_good.map(|good| good + finish.pieces_rejected.unwrap_or(0.0));
    let all = all.filter(|pieces| *pieces > 0.0);
    let loss = all.zip(finish.mass_kg).filter(|_| figures.piece_kg > 0.0);
    BatchReport {
        dough_c: dough_c.map(|(_, value, _)| PlanDifference::of(figures.target_c, value)),
        mixing_kj_per_kg: mixing(&plan.stages, &times)
            .map(|actual| PlanDifference::of(figures.mixing_kj_per_kg, actual)),
        proof_min: lasted(plan, &times, |stage| stage.role == StageRole::Proof),
        bake_min: lasted(plan, &times, |stage| stage.kind == StageKind::Bake),
        slicer_core: slicer_core(plan, &times, record),
        loss_pct: loss.map(|(pieces, kg)| {
            let actual = 100.0 * (1.0 - kg / (pieces * figures.piece_kg));
            PlanDifference::of(figures.bake_loss_pct, actual)
        }),
        pieces: all.map(|pieces| PlanDifference::of(figures.pieces, pieces)),
        rejected_pct: all.map(|all| 100.0 * finish.pieces_rejected.unwrap_or(0.0) / all),
        water: water(&lines, record, figures.flour_kg),
        consistency: record.consistency(),
        times,
        next,
        lines,
    }
}

/// How warm a core may come to the slicer, °C: what its cooling ends at, or the house's.
///
/// ```
/// use ironpeel_core::{batch::slicer_limit_c, coefficient::Coefficients};
/// assert_eq!(slicer_limit_c(&[], &Coefficients::default()), 38.0);
/// ```
pub fn slicer_limit_c(stages: &[StagePlan], coefficients: &Coefficients) -> f64 {
    let cooling = stages.iter().rfind(|stage| stage.kind == StageKind::Cool);
    cooling.and_then(StagePlan::core_c).unwrap_or_else(|| coefficients.value(&SLICER_CORE_C))
}

/// The last core that was read once the last bake was over, and out of its minutes of grace.
fn slicer_core(plan: &BatchPlan, times: &[StageTimes], record: &BatchRecord) -> Option<SlicerCore> {
    let bake = plan.stages.iter().rposition(|stage| stage.kind == StageKind::Bake)?;
    let out_at = times.get(bake)?.ended_at? + AFTER_A_STAGE;
    let after = record.readings(Quantity::CoreC).filter(|(at, ..)| *at > out_at);
    let (_, core_c, _) = after.last()?;
    let limit_c = plan.figures.slicer_core_c;
    Some(SlicerCore { core_c, limit_c, over: core_c > limit_c })
}

/// A reading so long after a stage is still of it.
pub(crate) const AFTER_A_STAGE: TimeDelta = TimeDelta::minutes(5);

/// kJ/kg of the mixing stages that are over, once all of them are.
fn mixing(stages: &[StagePlan], times: &[StageTimes]) -> Option<f64> {
    let mixing = stages.iter().zip(times).filter(|(stage, _)| stage.kj_per_kg_min > 0.0);
    let mut all = 0.0;
    let mut any = false;
    for (stage, times) in mixing {
        all += times.lasted_min.filter(|_| times.ended_at.is_some())? * stage.kj_per_kg_min;
        any = true;
    }
    any.then_some(all)
}

/// Minutes of the stages of one kind that are over, together.
fn lasted(
    plan: &BatchPlan,
    times: &[StageTimes],
    is_it: impl Fn(&StagePlan) -> bool,
) -> Option<PlanDifference> {
    let all: Vec<_> = plan.stages.iter().zip(times).filter(|(stage, _)| is_it(stage)).collect();
    let actual: Option<f64> =
        all.iter().map(|(_, times)| times.lasted_min.filter(|_| times.ended_at.is_some())).sum();
    let planned: f64 = all.iter().map(|(stage, _)| stage.minutes).sum();
    actual.filter(|_| !all.is_empty()).map(|actual| PlanDifference::of(planned, actual))
}
