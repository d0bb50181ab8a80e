use serde::Serialize;

use super::Coefficient;

/// One number that went into a figure.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct DerivationInput {
    pub name: &'static str,
    pub value: f64,
    pub unit: &'static str,
}

impl DerivationInput {
    /// A number by name, with its unit.
    pub const fn new(name: &'static str, value: f64, unit: &'static str) -> Self {
        Self { name, value, unit }
    }
}

/// The answer to "why?" for one figure: its formula, its inputs and what it rests on.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Derivation {
    pub formula: &'static str,
    pub inputs: Vec<DerivationInput>,
    pub coefficients: Vec<Coefficient>,
}
