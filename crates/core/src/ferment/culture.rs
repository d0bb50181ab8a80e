use super::coefficients::SPEED_AT_C;

/// Between which temperatures yeast, or the lactic bacteria and wild yeasts of a sour, live, °C.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct CardinalTemperatures {
    pub lowest: f64,
    pub best: f64,
    pub highest: f64,
}

impl CardinalTemperatures {
    /// Growth at a temperature beside the best one, 0 to 1: the cardinal model (S, Rosso 1993)
    /// `γ = (T−hi)(T−lo)² / ((opt−lo)((opt−lo)(T−opt) − (opt−hi)(opt+lo−2T)))`, nothing outside
    /// its lowest and highest.
    ///
    /// ```
    /// use ironpeel_core::ferment::CardinalTemperatures;
    /// let yeast = CardinalTemperatures { lowest: -2.0, best: 36.0, highest: 46.0 };
    /// assert!((yeast.growth(36.0) - 1.0).abs() < 1e-12);
    /// assert_eq!((yeast.growth(-5.0), yeast.growth(47.0)), (0.0, 0.0));
    /// ```
    pub fn growth(self, celsius: f64) -> f64 {
        let Self { lowest, best, highest } = self;
        if celsius <= lowest || celsius >= highest {
            return 0.0;
        }
        let rise = best - lowest;
        let above = (celsius - highest) * (celsius - lowest).powi(2);
        let below =
            rise * (rise * (celsius - best) - (best - highest) * (best + lowest - 2.0 * celsius));
        above / below
    }

    /// Speed beside that at 28.5 °C.
    ///
    /// ```
    /// use ironpeel_core::ferment::CardinalTemperatures;
    /// let yeast = CardinalTemperatures { lowest: -2.0, best: 36.0, highest: 46.0 };
    /// assert!((yeast.speed(28.5) - 1.0).abs() < 1e-12);
    /// assert!(yeast.speed(4.0) < 0.1);
    /// ```
    pub fn speed(self, celsius: f64) -> f64 {
        self.growth(celsius) / self.growth(SPEED_AT_C.value)
    }
}
