use super::coefficients::{
    STRENGTH_LOW, STRENGTH_MEDIUM, STRENGTH_STRONG, STRENGTH_VERY_STRONG, TENACITY_BALANCED,
    TENACITY_HIGH, TENACITY_OVER,
};
use crate::coefficient::Coefficients;

/// What W says of a flour's strength (H).
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum StrengthClass {
    Weak,
    Low,
    Medium,
    Strong,
    VeryStrong,
}

impl StrengthClass {
    /// Of a W, 10⁻⁴ J.
    ///
    /// ```
    /// use ironpeel_core::{coefficient::Coefficients, flour::StrengthClass};
    /// let house = Coefficients::default();
    /// assert_eq!(StrengthClass::of(119.9, &house), StrengthClass::Weak);
    /// assert_eq!(StrengthClass::of(260.0, &house), StrengthClass::Strong);
    /// ```
    pub fn of(w: f64, coefficients: &Coefficients) -> Self {
        let here = |coefficient| coefficients.value(coefficient);
        if w < here(&STRENGTH_LOW) {
            Self::Weak
        } else if w < here(&STRENGTH_MEDIUM) {
            Self::Low
        } else if w < here(&STRENGTH_STRONG) {
            Self::Medium
        } else if w <= here(&STRENGTH_VERY_STRONG) {
            Self::Strong
        } else {
            Self::VeryStrong
        }
    }
}

/// What P/L says of how a dough handles (H).
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum TenacityClass {
    Extensible,
    Balanced,
    BalancedToTenacious,
    Tenacious,
}

impl TenacityClass {
    /// Of a P/L.
    ///
    /// ```
    /// use ironpeel_core::{coefficient::Coefficients, flour::TenacityClass};
    /// assert_eq!(TenacityClass::of(0.6, &Coefficients::default()), TenacityClass::Balanced);
    /// ```
    pub fn of(p_over_l: f64, coefficients: &Coefficients) -> Self {
        let here = |coefficient| coefficients.value(coefficient);
        if p_over_l < here(&TENACITY_BALANCED) {
            Self::Extensible
        } else if p_over_l <= here(&TENACITY_HIGH) {
            Self::Balanced
        } else if p_over_l <= here(&TENACITY_OVER) {
            Self::BalancedToTenacious
        } else {
            Self::Tenacious
        }
    }
}
