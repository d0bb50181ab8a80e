//! Judging: the sheet with its total, judges beside one another, and whether a difference is real.

pub mod coefficients;
mod difference;
mod judges;
mod sheet;

pub use difference::{DifferenceVerdict, ScoreDifference, ScoreDifferenceInput};
pub use judges::{JointMark, JudgeLevel, Judges, JudgesInput};
pub use sheet::{Characteristic, ScoreMark, ScoreTotal, Sign, measured_mark, total};

/// From a normal distribution's σ to the half of what holds 95 %.
pub(crate) const NINETEEN_IN_TWENTY: f64 = 1.96;
/// The least and the most of a mark.
pub(crate) const MARKS: (f64, f64) = (1.0, 5.0);
