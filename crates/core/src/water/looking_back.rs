use super::{AbsorptionModel, Composition, Predicted};
use crate::flour::{MoistureBasis, Property, Readings};

/// What a lot that states all four teaches: its composition and its absorption on 14 %.
pub fn measured_absorption(readings: &Readings) -> Option<(Composition, f64)> {
    let on = |property, basis| readings.value(property, Some(basis));
    let composition = Composition {
        protein_14_pct: Some(on(Property::Protein, MoistureBasis::Fourteen)?),
        damaged_starch_pct: Some(on(Property::DamagedStarch, MoistureBasis::AsIs)?),
        ash_dm_pct: Some(on(Property::Ash, MoistureBasis::DryMatter)?),
    };
    Some((composition, on(Property::Absorption, MoistureBasis::Fourteen)?))
}

/// A model after lots, and what it foretold of each from those before it alone.
#[derive(Debug, Clone, PartialEq)]
pub struct LookingBack {
    pub model: AbsorptionModel,
    /// In the order of the lots: foretold, and measured.
    pub foretold: Vec<(Predicted, f64)>,
}

impl LookingBack {
    /// Teaches a model its lots one after another.
    pub fn over(
        prior: AbsorptionModel,
        lots: impl IntoIterator<Item = (Composition, f64)>,
    ) -> Self {
        let mut model = prior;
        let mut foretold = Vec::new();
        for (composition, measured_pct) in lots {
            foretold.push((model.predict(composition), measured_pct));
            model = model.learn(composition, measured_pct);
        }
        Self { model, foretold }
    }

    /// How far predictions were off: the root of the mean square, in points; none without lots.
    pub fn off_pct(&self) -> Option<f64> {
        let count = self.foretold.len();
        let square = |(one, measured): &(Predicted, f64)| (measured - one.mean_pct).powi(2);
        (count > 0).then(|| (self.foretold.iter().map(square).sum::<f64>() / count as f64).sqrt())
    }
}
