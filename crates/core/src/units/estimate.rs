use serde::{Deserialize, Serialize};

/// A typical value and the band it is believed to lie in.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Estimate {
    pub typical: f64,
    pub low: f64,
    pub high: f64,
}

/// Nine in ten of a normal distribution lie within so many σ.
pub const NINE_TENTHS: f64 = 1.645;

impl Estimate {
    /// A typical value with its low and high.
    pub const fn new(typical: f64, low: f64, high: f64) -> Self {
        Self { typical, low, high }
    }

    /// A mean with the band in which a normal variable lies nine times in ten.
    ///
    /// ```
    /// use ironpeel_core::units::Estimate;
    /// let band = Estimate::nine_tenths(0.6, 0.2);
    /// assert!((band.low - 0.271).abs() < 1e-9 && (band.high - 0.929).abs() < 1e-9);
    /// ```
    pub fn nine_tenths(mean: f64, sd: f64) -> Self {
        Self::new(mean, mean - NINE_TENTHS * sd, mean + NINE_TENTHS * sd)
    }

    /// So many times it; a negative factor turns the band round.
    #[must_use]
    pub fn times(self, factor: f64) -> Self {
        let (one, other) = (self.low * factor, self.high * factor);
        Self { typical: self.typical * factor, low: one.min(other), high: one.max(other) }
    }
}
