/// What makes the gas.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Culture {
    /// Baker's yeast.
    Yeast,
    /// The lactic bacteria and wild yeasts of a sour.
    Sour,
}

/// What both are held against, °C.
const REFERENCE_C: f64 = 28.5;

impl Culture {
    /// Lowest, best and highest temperature, °C (H, shaped by published kinetics).
    const fn cardinal(self) -> (f64, f64, f64) {
        match self {
            Self::Yeast => (-2.0, 36.0, 46.0),
            Self::Sour => (2.0, 31.0, 40.0),
        }
    }

    /// Growth at a temperature beside the best one, 0 to 1: the cardinal model (S, Rosso 1993)
    /// `γ = (T−hi)(T−lo)² / ((opt−lo)((opt−lo)(T−opt) − (opt−hi)(opt+lo−2T)))`, nothing outside
    /// its lowest and highest.
    ///
    /// ```
    /// use ironpeel_core::ferment::Culture;
    /// assert!((Culture::Yeast.growth(36.0) - 1.0).abs() < 1e-12);
    /// assert_eq!((Culture::Yeast.growth(-5.0), Culture::Sour.growth(41.0)), (0.0, 0.0));
    /// ```
    pub fn growth(self, celsius: f64) -> f64 {
        let (lowest, best, highest) = self.cardinal();
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
    /// use ironpeel_core::ferment::Culture;
    /// assert!((Culture::Sour.speed(28.5) - 1.0).abs() < 1e-12);
    /// assert!(Culture::Yeast.speed(4.0) < 0.1);
    /// ```
    pub fn speed(self, celsius: f64) -> f64 {
        self.growth(celsius) / self.growth(REFERENCE_C)
    }
}
