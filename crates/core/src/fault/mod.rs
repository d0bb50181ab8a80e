//! The fault finder: what a user picks, what of a batch is evidence, which causes compete, and the
//! sum that puts them in order. All of it house judgement, kept as data beside its code.

mod against_plan;
mod answer;
mod cases;
mod change;
pub mod coefficients;
mod diagnose;
mod features;
mod input;
mod knowledge;
mod own;
mod plan;
mod ranking;
mod ratios;
mod reading;
mod watch;
mod weigh;

pub use answer::{DiagnosisAnswer, WouldDecide};
pub use cases::{CaseVerdict, ConfirmedCases, FaultCase, confirmed_cases};
pub use change::PlanChange;
pub use diagnose::{CauseFound, Diagnosis, diagnose};
pub use features::{BakeEvidence, BatchEvidence, FlourEvidence, SeenEvidence, features};
pub use input::{CheckedDiagnosis, DiagnoseInput};
pub use knowledge::{
    Cause, CauseOfFault, Comparison, Evidence, Family, Fault, Feature, Gate, Knowledge, knowledge,
};
pub use own::{fault_coefficient, fault_coefficients};
pub use plan::PlanEvidence;
pub use ratios::{LearnedRatio, LearnedRatios};
pub use reading::{CauseReading, HouseShares};
pub use watch::{DriftSide, FigureDrift, drifting, watched};
