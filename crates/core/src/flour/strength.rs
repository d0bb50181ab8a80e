use super::coefficients::{
    BALANCED_FROM, BALANCED_TO, LOW_FROM, MEDIUM_FROM, STRONG_FROM, TENACIOUS_FROM,
    VERY_STRONG_FROM,
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
        if w < here(&LOW_FROM) {
            Self::Weak
        } else if w < here(&MEDIUM_FROM) {
            Self::Low
        } else if w < here(&STRONG_FROM) {
            Self::Medium
        } else if w <= here(&VERY_STRONG_FROM) {
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
        if p_over_l < here(&BALANCED_FROM) {
            Self::Extensible
        } else if p_over_l <= here(&BALANCED_TO) {
            Self::Balanced
        } else if p_over_l <= here(&TENACIOUS_FROM) {
            Self::BalancedToTenacious
        } else {
            Self::Tenacious
        }
    }
}
