use serde::{Deserialize, Serialize};

use super::coefficients as c;
use crate::coefficient::{Coefficient, Coefficients};
use crate::heat::coefficients as heat;
use crate::units::{Estimated, ScalarFilter};
use crate::water::coefficients::ARRIVAL;

/// A number that batches teach.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum LearnedSubject {
    /// Points of water on flour, of a flour and a product on a line.
    WaterCorrection,
    /// Of a mixer and a product, °C on the friction factor method.
    Friction,
    /// Of a product on a line, %.
    BakeLoss,
    /// When the slowest core of a product is set, % of its bake.
    Arrival,
}

/// How a number is learned.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Settings {
    pub prior: Estimated,
    pub measurement_sd: f64,
    pub filter: ScalarFilter,
}

impl LearnedSubject {
    /// Every number.
    pub const ALL: [Self; 4] =
        [Self::WaterCorrection, Self::Friction, Self::BakeLoss, Self::Arrival];

    /// How it is learned; the bake loss begins from the formula's.
    pub fn settings(self, coefficients: &Coefficients, formula_loss_pct: f64) -> Settings {
        let value = |one: &Coefficient| coefficients.value(one);
        let (mean, [prior_sd, measurement_sd, walk_sd]) = match self {
            Self::WaterCorrection => (0.0, [&c::WATER_PRIOR_SD, &c::WATER_SD, &c::WATER_WALK_SD]),
            Self::Friction => (
                value(&heat::FRICTION),
                [&heat::FRICTION_SD, &heat::FRICTION_MEASURED_SD, &heat::FRICTION_WALK_SD],
            ),
            Self::BakeLoss => {
                (formula_loss_pct, [&c::LOSS_PRIOR_SD, &c::LOSS_SD, &c::LOSS_WALK_SD])
            }
            Self::Arrival => {
                (value(&ARRIVAL), [&c::ARRIVAL_PRIOR_SD, &c::ARRIVAL_SD, &c::ARRIVAL_WALK_SD])
            }
        };
        Settings {
            prior: Estimated { mean, sd: value(prior_sd) },
            measurement_sd: value(measurement_sd),
            filter: ScalarFilter { walk_sd: value(walk_sd), gate_sigma: value(&c::GATE_SIGMA) },
        }
    }
}
