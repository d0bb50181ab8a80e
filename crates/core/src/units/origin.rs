use serde::{Deserialize, Serialize};

/// Where a coefficient comes from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Origin {
    /// A published standard method or national regulation.
    Standard,
    /// A physical constant or a balance of mass or heat.
    Physics,
    /// A house default: plausible, to be calibrated by the plant, shown with its low and high.
    House,
    /// The plant's own, in place of a house default, with its reason on record.
    Plant,
    /// Somebody's choice for this dough, not a finding.
    Choice,
}

/// A number a computation rests on, with its band and origin, so that the screen can say why.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Coefficient {
    pub name: &'static str,
    pub value: f64,
    pub low: f64,
    pub high: f64,
    pub unit: &'static str,
    pub origin: Origin,
    /// The standard, paper or reasoning it was taken from.
    pub source: &'static str,
}

impl Coefficient {
    /// A constant of physics or of a standard: its band is itself.
    pub const fn fixed(
        name: &'static str,
        value: f64,
        unit: &'static str,
        origin: Origin,
        source: &'static str,
    ) -> Self {
        Self { name, value, low: value, high: value, unit, origin, source }
    }

    /// A house default with the band it is believed to lie in.
    pub const fn house(
        name: &'static str,
        value: f64,
        low: f64,
        high: f64,
        unit: &'static str,
        source: &'static str,
    ) -> Self {
        Self { name, value, low, high, unit, origin: Origin::House, source }
    }
}
