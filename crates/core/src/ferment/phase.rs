/// A stretch of time somewhere.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Phase {
    pub hours: f64,
    pub ambient_c: f64,
    /// What is around it at its end, changing evenly until then.
    pub ambient_end_c: f64,
    /// The mass that keeps its heat together from here on; the dough's where nothing is said.
    pub mass_kg: Option<f64>,
    /// Of the gas held, so much is let go as it begins, %: a fold, a divider.
    pub let_go_pct: f64,
    /// What of the dough's yeast, sour and salt is in it by then.
    pub within: Within,
}

/// Share of a dough's yeast, sour and salt that is in it, 0 to 1.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Within {
    pub yeast: f64,
    pub sour: f64,
    pub salt: f64,
}

impl Within {
    /// All of it.
    pub const ALL: Self = Self { yeast: 1.0, sour: 1.0, salt: 1.0 };
}

impl Phase {
    /// The dough left alone somewhere.
    pub const fn rest(hours: f64, ambient_c: f64) -> Self {
        Self::changing(hours, ambient_c, ambient_c)
    }

    /// The dough left alone where it grows warmer or colder evenly.
    pub const fn changing(hours: f64, ambient_c: f64, ambient_end_c: f64) -> Self {
        let within = Within::ALL;
        Self { hours, ambient_c, ambient_end_c, mass_kg: None, let_go_pct: 0.0, within }
    }

    /// Its first hours alone.
    #[must_use]
    pub fn cut(&self, hours: f64) -> Self {
        let hours = self.hours.min(hours.max(0.0));
        let share = if self.hours > 0.0 { hours / self.hours } else { 0.0 };
        Self { hours, ambient_end_c: self.ambient_at(share), ..*self }
    }

    /// The dough left alone as it is at the end, for so many hours more.
    #[must_use]
    pub const fn going_on(&self, hours: f64) -> Self {
        let (mass_kg, within) = (self.mass_kg, self.within);
        Self { mass_kg, within, ..Self::rest(hours, self.ambient_end_c) }
    }

    /// These phases for so many hours together: cut off there, or going on as they end.
    ///
    /// ```
    /// use ironpeel_core::ferment::Phase;
    /// let night = [Phase::rest(2.0, 27.0), Phase::changing(4.0, 27.0, 21.0)];
    /// let hours = |hours| Phase::lasting(&night, hours).iter().map(|one| one.hours).collect::<Vec<_>>();
    /// assert_eq!((hours(1.0), hours(3.0), hours(7.0)), (vec![1.0], vec![2.0, 1.0], vec![2.0, 4.0, 1.0]));
    /// ```
    pub fn lasting(phases: &[Self], hours: f64) -> Vec<Self> {
        let mut left = hours;
        let mut lasting: Vec<Self> = Vec::with_capacity(phases.len() + 1);
        for phase in phases {
            if left <= 0.0 {
                break;
            }
            lasting.push(phase.cut(left));
            left -= phase.hours;
        }
        if left > 0.0 {
            lasting.extend(phases.last().map(|last| last.going_on(left)));
        }
        lasting
    }

    /// What is around it after a share of its hours, 0 to 1.
    pub(super) fn ambient_at(&self, share: f64) -> f64 {
        self.ambient_c + share * (self.ambient_end_c - self.ambient_c)
    }
}

/// What a dough brings along from a part that fermented before it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ResidualSubstrate {
    /// Sugar and damaged starch, g per g of all flour.
    pub sugar_g: f64,
    pub damaged_g: f64,
}
