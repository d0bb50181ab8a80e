use serde::Serialize;

use super::coefficients::LOSS_PER_PCT;
use crate::coefficient::Coefficients;

/// What another bake time brings and costs, the oven as it is.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BakeChange {
    pub bake_min: f64,
    /// Longer than now, %.
    pub longer_pct: f64,
    /// Pieces an hour, % of now: `100·(now/then − 1)`.
    pub capacity_pct: f64,
    /// More loss of weight, points.
    pub loss_pts: f64,
}

impl BakeChange {
    /// From one bake time to another, min, both above nothing.
    ///
    /// ```
    /// use ironpeel_core::{coefficient::Coefficients, oven::BakeChange};
    /// let change = BakeChange::between(21.0, 24.0, &Coefficients::default());
    /// assert!((change.longer_pct - 14.3).abs() < 0.05);
    /// assert!((change.capacity_pct + 12.5).abs() < 1e-9);
    /// ```
    pub fn between(now_min: f64, then_min: f64, coefficients: &Coefficients) -> Self {
        let longer_pct = 100.0 * (then_min / now_min - 1.0);
        Self {
            bake_min: then_min,
            longer_pct,
            capacity_pct: 100.0 * (now_min / then_min - 1.0),
            loss_pts: longer_pct * coefficients.value(&LOSS_PER_PCT),
        }
    }
}
