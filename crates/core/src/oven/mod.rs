//! The oven: what a bake's core temperatures say, and what another piece would need.

mod bake_trace;
pub mod coefficients;
mod crossing;
mod scaled_bake;
mod words;

pub use bake_trace::{BakeTrace, BakeTraceInput, BakeTraceNote, ProbeInput, ProbeReading};
pub use scaled_bake::scaled_bake_min;
