//! The oven: what a bake's core temperatures say, and what another piece would need.

mod bake_change;
mod bake_trace;
pub mod coefficients;
mod crossing;
mod logger;
mod moved;
mod scaled_bake;
mod steam;
mod words;

pub use bake_change::BakeChange;
pub use bake_trace::{
    BakeTrace, BakeTraceInput, BakeTraceNote, CoreLevels, ProbeInput, ProbeReading,
};
pub use logger::{LoggerColumn, LoggerFault, LoggerProbe, LoggerProbes, LoggerUnit, ProbeLeftOut};
pub use moved::{Crossing, MovedCrossing};
pub use scaled_bake::scaled_bake_min;
pub use steam::{SteamPrediction, SteamedBake};
