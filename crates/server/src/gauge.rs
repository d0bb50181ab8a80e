//! How many of something there are at a moment.

use metrics::Gauge;

/// Work off the answering threads.
pub const HEAVY: &str = "ironpeel_heavy_work";

/// One of what a gauge counts, for as long as it lives: a request that is given up counts no longer.
#[derive(Debug)]
pub struct Counted(Gauge);

impl Counted {
    pub fn of(gauge: Gauge) -> Self {
        gauge.increment(1);
        Self(gauge)
    }
}

impl Drop for Counted {
    fn drop(&mut self) {
        self.0.decrement(1);
    }
}
