//! A batch on the floor that waits: how far it is past its time, and the ways out of it.

use chrono::{DateTime, Utc};

use super::stoppage::{DelayedBatch, late};
use super::{Chain, Scenario};
use crate::batch::{BatchReport, StagePlan, as_timed};
use crate::schedule::{RunStage, ScheduledBatch};

/// A batch's stages, and how it stands to them by a moment.
#[derive(Debug, Clone, Copy)]
pub struct BatchDelay<'a> {
    pub stages: &'a [StagePlan],
    pub report: &'a BatchReport,
    pub now: DateTime<Utc>,
}

impl BatchDelay<'_> {
    /// The dough as a run has it: it waits where it is open for longer than planned.
    fn scheduled(&self) -> ScheduledBatch {
        let open = self.report.next.and_then(|next| next.stage);
        let stages = self.stages.iter().zip(&self.report.times).enumerate();
        let stages: Vec<RunStage> = stages
            .map(|(at, (stage, times))| {
                let lasted = times.lasted_min.filter(|_| open == Some(stage.stage));
                let over = |than: f64| match lasted {
                    Some(lasted) => (lasted - than).max(0.0),
                    None => 0.0,
                };
                RunStage {
                    stage: at,
                    label: stage.label.clone(),
                    kind: stage.kind,
                    role: stage.role,
                    place: None,
                    starts_at: times.expected_begin,
                    ends_at: times.expected_end,
                    waits_min: over(stage.minutes),
                    past_min: over(stage.high_min),
                    folds: Vec::new(),
                }
            })
            .collect();
        let begins = stages.first().map_or(self.now, |stage| stage.starts_at);
        let out = stages.last().map_or(self.now, |stage| stage.ends_at);
        ScheduledBatch { number: 1, stages, starts_at: begins, out_at: out }
    }
}

/// What to do with a batch that waits; none while it is within the time that was planned for it.
///
/// No sponge is set after it that could take a part of it: what others can, the production run says.
pub fn batch_delay(
    scenario: &Scenario<'_>,
    chain: &Chain,
    batch: BatchDelay<'_>,
) -> Option<DelayedBatch> {
    let method = as_timed(scenario.method, &batch.report.times, |planned, _| planned);
    let scenario = Scenario { method: &method, ..*scenario };
    late(&scenario, chain, &[batch.scheduled()], batch.now).pop()
}
