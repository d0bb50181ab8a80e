use super::coefficients as c;
use crate::batch::BatchState;
use crate::coefficient::Coefficients;

/// What one batch says of the water its flour takes.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct WaterLesson {
    pub state: BatchState,
    /// Water weighed and added over the plan, points.
    pub over_plan_pts: f64,
    /// Of it, by feel.
    pub by_feel_pts: f64,
    /// Whether every line of water was ticked.
    pub complete: bool,
    /// From −2 much too slack to +2 much too stiff.
    pub consistency: Option<f64>,
    /// What the plan held of the standing correction, points.
    pub standing_pts: f64,
    /// Whether the caution of damaged starch was open.
    pub damaged_starch_caution: bool,
    pub planned_water: PlannedWater,
    /// Whether its crumb was judged below what the plant learns from.
    pub crumb_is_low: bool,
}

/// How the water that was planned came about.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum PlannedWater {
    Computed,
    /// Overridden, or changed by style.
    Set,
}

/// Why nothing is learned from a batch.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum NotLearned {
    /// It is not over yet.
    NotFinished,
    Scrapped,
    /// Water by feel on damaged starch: learning it would make a habit of the fault.
    DamagedStarch,
    WaterSet,
    /// Nobody ticked what was weighed, added any or judged the dough.
    NothingSaid,
    /// Too far off all others.
    Outlier,
    /// Its crumb was judged below the plant's least.
    LowScore,
}

/// The observation of the filter, points and their scatter: `added − planned + 0.8·consistency`, the
/// plan without any standing correction, and `√(0.5² + (0.4·consistency)²)` (H).
///
/// ```
/// use ironpeel_core::batch::BatchState;
/// use ironpeel_core::coefficient::Coefficients;
/// use ironpeel_core::learn::{PlannedWater, WaterLesson, water_lesson};
/// let batch = WaterLesson { state: BatchState::Finished, over_plan_pts: 0.5, by_feel_pts: 0.5,
///     complete: true, consistency: Some(1.0), standing_pts: 0.6, damaged_starch_caution: false,
///     planned_water: PlannedWater::Computed, crumb_is_low: false };
/// let (value, sd) = water_lesson(&batch, &Coefficients::default()).unwrap();
/// assert!((value - 1.9).abs() < 1e-9 && (sd - 0.6403).abs() < 1e-4);
/// ```
pub fn water_lesson(
    batch: &WaterLesson,
    coefficients: &Coefficients,
) -> Result<(f64, f64), NotLearned> {
    match batch.state {
        BatchState::Finished => {}
        BatchState::Scrapped => return Err(NotLearned::Scrapped),
        _ => return Err(NotLearned::NotFinished),
    }
    if batch.damaged_starch_caution && batch.by_feel_pts > 0.0 {
        return Err(NotLearned::DamagedStarch);
    }
    if batch.planned_water == PlannedWater::Set {
        return Err(NotLearned::WaterSet);
    }
    if batch.crumb_is_low {
        return Err(NotLearned::LowScore);
    }
    if !batch.complete && batch.over_plan_pts == 0.0 && batch.consistency.is_none() {
        return Err(NotLearned::NothingSaid);
    }
    let consistency = batch.consistency.unwrap_or(0.0);
    let by_hand = coefficients.value(&c::CONSISTENCY_POINTS) * consistency;
    let hand_sd = coefficients.value(&c::CONSISTENCY_SD) * consistency;
    let value = batch.over_plan_pts + batch.standing_pts + by_hand;
    Ok((value, coefficients.value(&c::WATER_SD).hypot(hand_sd)))
}
