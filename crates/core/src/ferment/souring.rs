use super::Kinetics;

impl Kinetics {
    /// pH of a dough whose culture has come so far (H): of all it can be a share of 0 to 1,
    /// `pH = flour − (flour − ripe)·ln(1 + k·x)/ln(1 + k)`, as pH falls with the logarithm of the
    /// acid and the acid grows with the culture. None without a culture: what yeast alone does to
    /// the pH is little, and is not computed.
    ///
    /// ```
    /// use ironpeel_core::ferment::Kinetics;
    /// let house = Kinetics::default();
    /// assert_eq!(house.ph(0.0), None);
    /// // With 15 % of the flour in a ripe starter, and ripe itself.
    /// assert!((house.ph(0.06).unwrap() - 5.48).abs() < 0.01);
    /// assert!((house.ph(1.0).unwrap() - 3.7).abs() < 1e-9);
    /// ```
    pub fn ph(&self, culture: f64) -> Option<f64> {
        let sour = (self.sours_early * culture).ln_1p() / self.sours_early.ln_1p();
        (culture > 0.0).then_some(self.flour_ph - (self.flour_ph - self.ripe_ph) * sour)
    }
}
