use super::coefficients::{AGED_DAYS, GREEN_DAYS};
use crate::coefficient::Coefficients;

/// What a flour's days since milling mean for the dough, with the days that bound it (H).
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum FlourAge {
    /// Too fresh from the mill.
    Green {
        until_days: f64,
    },
    Aged {
        from_days: f64,
    },
}

impl FlourAge {
    /// Of so many days; none in between.
    ///
    /// ```
    /// use ironpeel_core::{coefficient::Coefficients, flour::FlourAge};
    /// let house = Coefficients::default();
    /// assert_eq!(FlourAge::of(1.9, &house), Some(FlourAge::Green { until_days: 2.0 }));
    /// assert_eq!(FlourAge::of(7.0, &house), None);
    /// ```
    pub fn of(days: f64, coefficients: &Coefficients) -> Option<Self> {
        let (until_days, from_days) =
            (coefficients.value(&GREEN_DAYS), coefficients.value(&AGED_DAYS));
        if days < until_days {
            Some(Self::Green { until_days })
        } else {
            (days > from_days).then_some(Self::Aged { from_days })
        }
    }
}
