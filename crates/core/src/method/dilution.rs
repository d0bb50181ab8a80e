use super::coefficients as c;
use crate::coefficient::Coefficients;
use crate::dough::shown;

/// A scale of a bench shows this or less, kg; a plant has another for its yeast.
const BENCH_SCALE_KG: f64 = 0.005;
/// Divisions of a scale under which nothing is weighed well.
const LEAST_WEIGHED: f64 = 10.0;

/// Yeast that is less than a scale shows, weighed as part of a solution: `take = yeast · (stock +
/// water)/stock`, the stock as many of the scale's divisions as the house says, the water enough for
/// what is taken to be some divisions as well, both whole divisions.
#[derive(Debug, Clone, PartialEq)]
pub struct Dilution {
    pub yeast: String,
    /// Yeast and water that are stirred together.
    pub stock_kg: f64,
    pub water_kg: f64,
    /// Taken of it, and the water of the dough that comes with it.
    pub take_kg: f64,
    pub counts_as_water_kg: f64,
}

impl Dilution {
    /// Of so much yeast by a scale of this division; none where it can be weighed, or the scale is a
    /// plant's, which has another for its yeast.
    ///
    /// ```
    /// use ironpeel_core::{coefficient::Coefficients, method::Dilution};
    /// let house = Coefficients::default();
    /// let found = Dilution::wanted("instant yeast", 0.0005, 0.001, &house).unwrap();
    /// let grams = |kg: f64| (kg * 1000.0).round();
    /// assert_eq!((grams(found.stock_kg), grams(found.water_kg)), (10.0, 390.0));
    /// assert_eq!(grams(found.take_kg), 20.0);
    /// assert_eq!(Dilution::wanted("instant yeast", 0.012, 0.001, &house), None);
    /// ```
    pub fn wanted(
        yeast: impl Into<String>,
        exact_kg: f64,
        division_kg: f64,
        coefficients: &Coefficients,
    ) -> Option<Self> {
        let too_little = exact_kg > 0.0 && exact_kg < division_kg * LEAST_WEIGHED;
        if !too_little || division_kg > BENCH_SCALE_KG {
            return None;
        }
        let divisions = |of| coefficients.value(of) * division_kg;
        let (stock_kg, least_kg) = (divisions(&c::DILUTED), divisions(&c::TAKEN));
        let whole = |kg: f64| shown((kg / division_kg).round(), division_kg);
        let all_kg = whole((stock_kg * least_kg / exact_kg).max(stock_kg + least_kg));
        let take_kg = whole(exact_kg * all_kg / stock_kg);
        Some(Self {
            yeast: yeast.into(),
            stock_kg,
            water_kg: all_kg - stock_kg,
            take_kg,
            counts_as_water_kg: take_kg * (all_kg - stock_kg) / all_kg,
        })
    }
}
