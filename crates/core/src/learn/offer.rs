use chrono::{DateTime, Utc};
use serde::Serialize;
use uuid::Uuid;

use super::{LearnedNumber, NotLearned, Settings};
use crate::units::{Estimate, Estimated, NINE_TENTHS};

/// What one batch told, or why it told nothing.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Lesson {
    pub batch: Uuid,
    pub at: DateTime<Utc>,
    /// A value and its scatter.
    pub told: Result<(f64, f64), NotLearned>,
}

/// One step of a learned number's history.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct OfferStep {
    pub batch: Uuid,
    pub at: DateTime<Utc>,
    /// What it told; none where it was left out.
    pub value: Option<f64>,
    /// Why it was left out, if it was.
    pub left_out: Option<NotLearned>,
    /// What is believed after it, nine times in ten.
    pub believed: Estimate,
}

/// A learned number as it is offered.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Offer {
    /// What is believed before any batch, nine times in ten.
    pub prior: Estimate,
    pub mean: f64,
    pub sd: f64,
    /// Between these nine times in ten.
    pub low: f64,
    pub high: f64,
    /// How many batches moved it.
    pub used: usize,
    /// Of the last fifty that told something, how many lay where nine in ten were expected to.
    pub hits: HitRate,
    pub history: Vec<OfferStep>,
    /// Three in a row were rejected on one side: it changed at the first of them.
    pub changed_since: Option<DateTime<Utc>>,
}

/// How often a prediction held.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct HitRate {
    pub inside: usize,
    pub of: usize,
}

/// So many of the last batches are counted.
const COUNTED: usize = 50;

/// So many rejections in a row on one side are a change.
const CHANGE: usize = 3;

/// Learns a number from what batches told, in order, from a moment on where a person began again.
pub fn offer(settings: Settings, lessons: &[Lesson]) -> Offer {
    let told = lessons.iter().filter_map(|lesson| lesson.told.ok());
    let LearnedNumber { mean, sd, used, rejected, history: steps } =
        LearnedNumber::of(settings.prior, settings.filter, told);
    let mut steps = steps.into_iter().enumerate();
    let mut before = settings.prior;
    let mut history = Vec::with_capacity(lessons.len());
    let mut inside = Vec::new();
    for lesson in lessons {
        let left_out = match lesson.told {
            Err(why) => Some(why),
            Ok((value, sd)) => steps.next().and_then(|(at, after)| {
                let expected = before.sd.hypot(settings.filter.walk_sd).hypot(sd);
                inside.push((value - before.mean).abs() <= NINE_TENTHS * expected);
                before = after;
                rejected.contains(&at).then_some(NotLearned::Outlier)
            }),
        };
        history.push(OfferStep {
            batch: lesson.batch,
            at: lesson.at,
            value: lesson.told.ok().map(|(value, _)| value),
            left_out,
            believed: banded(before),
        });
    }
    let Estimate { low, high, .. } = Estimate::nine_tenths(mean, sd);
    Offer {
        prior: banded(settings.prior),
        mean,
        sd,
        low,
        high,
        used,
        hits: {
            let last = &inside[inside.len().saturating_sub(COUNTED)..];
            HitRate { inside: last.iter().filter(|held| **held).count(), of: last.len() }
        },
        changed_since: changed_since(&history),
        history,
    }
}

fn banded(Estimated { mean, sd }: Estimated) -> Estimate {
    Estimate::nine_tenths(mean, sd)
}

/// When the last observations began to be rejected on one side, three or more of them.
fn changed_since(history: &[OfferStep]) -> Option<DateTime<Utc>> {
    let told = history.iter().rev().filter(|step| step.value.is_some());
    let mut since = None;
    let (mut count, mut side) = (0, None);
    for step in told {
        let above = step.value.is_some_and(|value| value > step.believed.typical);
        if step.left_out != Some(NotLearned::Outlier) || side.is_some_and(|side| side != above) {
            break;
        }
        side = Some(above);
        count += 1;
        since = Some(step.at);
    }
    since.filter(|_| count >= CHANGE)
}
