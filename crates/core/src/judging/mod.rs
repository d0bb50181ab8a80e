//! Judging: the sheet with its total, judges beside one another, and whether a difference is real.

pub mod coefficients;
mod difference;
mod judges;
mod measure;
mod panel;
mod photograph;
mod score;
mod sheet;
mod standard;
mod variants;
mod words;

pub use difference::{DifferenceVerdict, ScoreDifference, ScoreDifferenceInput};
pub use judges::{JointMark, JudgeLevel, Judges, JudgesInput};
pub use measure::Measure;
pub use panel::{Panel, PanelJudge, PanelMark, PanelTrait, Sheet, panel};
pub use photograph::PhotographView;
pub use score::{ScoreInput, ScoreMarkInput, ScoredMark};
pub use sheet::{Characteristic, ScoreMark, ScoreTotal, Sign, measured_mark, total};
pub use standard::{MeasuredTarget, ProductStandard, StandardInput, TargetInput};
pub use variants::{
    TestedDifference, TraitDifference, TrialVerdict, VariantDifference, VariantSheets, variants,
};

/// From a normal distribution's σ to the half of what holds 95 %.
pub(crate) const NINETEEN_IN_TWENTY: f64 = 1.96;
/// The least and the most of a mark.
pub(crate) const MARKS: (f64, f64) = (1.0, 5.0);
