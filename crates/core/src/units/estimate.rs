use serde::{Deserialize, Serialize};

/// A typical value and the band it is believed to lie in.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Estimate {
    pub typical: f64,
    pub low: f64,
    pub high: f64,
}

impl Estimate {
    /// A typical value with its low and high.
    pub const fn new(typical: f64, low: f64, high: f64) -> Self {
        Self { typical, low, high }
    }

    /// So many times it; a negative factor turns the band round.
    #[must_use]
    pub fn times(self, factor: f64) -> Self {
        let (one, other) = (self.low * factor, self.high * factor);
        Self { typical: self.typical * factor, low: one.min(other), high: one.max(other) }
    }
}
