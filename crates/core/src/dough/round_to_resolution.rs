use serde::Serialize;

use super::coefficients::COARSEST_WEIGHING;
use crate::coefficient::Coefficients;

/// Scales tried, each ten times finer than the last; no bakery has more.
const FINEST: usize = 6;
const TEN_TIMES: f64 = 10.0;
/// Binary fractions are cut off at this share of a kilo.
const PARTS_OF_KG: f64 = 1e9;

/// A mass as a scale can show it.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct RoundedMass {
    pub exact_kg: f64,
    /// A whole number of divisions.
    pub kg: f64,
    /// The scale's, or a finer one where the scale's would be more than 2 % off.
    pub division_kg: f64,
}

/// Rounds masses to the scale's division without changing their total.
///
/// What the scale cannot show to 2 % is taken on a finer one, ten times finer until it can. Of the
/// rest the total is rounded to the division once; each mass is rounded down, and the divisions
/// left over go to the masses that lost most (largest remainder), so none is more than one
/// division off and the sum is within half a division of what was wanted.
///
/// ```
/// use ironpeel_core::{coefficient::Coefficients, dough::round_to_resolution};
/// let weighed = round_to_resolution(&[60.16, 37.416, 1.21, 1.21, 0.004], 0.05, &Coefficients::default());
/// assert_eq!((weighed[4].kg, weighed[4].division_kg), (0.004, 0.00005));
/// let total: f64 = weighed.iter().map(|mass| mass.kg).sum();
/// assert!((total - 100.0).abs() < 0.025);
/// ```
pub fn round_to_resolution(
    exact_kg: &[f64],
    division_kg: f64,
    coefficients: &Coefficients,
) -> Vec<RoundedMass> {
    let coarsest_pct = coefficients.value(&COARSEST_WEIGHING);
    let mut weighed: Vec<RoundedMass> = exact_kg
        .iter()
        .map(|&kg| on_scale(kg, fine_enough(kg, division_kg, coarsest_pct)))
        .collect();
    let on_the_scale = |mass: &&mut RoundedMass| mass.division_kg == division_kg;
    let fine: f64 =
        weighed.iter().filter(|mass| mass.division_kg != division_kg).map(|mass| mass.kg).sum();
    let wanted = ((exact_kg.iter().sum::<f64>() - fine) / division_kg).round();

    let mut whole = 0.0;
    let mut coarse: Vec<(f64, &mut RoundedMass)> = Vec::with_capacity(weighed.len());
    for mass in weighed.iter_mut().filter(on_the_scale) {
        let divisions = mass.exact_kg / division_kg;
        whole += divisions.floor();
        coarse.push((divisions - divisions.floor(), mass));
    }
    coarse.sort_by(|a, b| b.0.total_cmp(&a.0));
    let left = (wanted - whole).max(0.0) as usize;
    for (at, (_, mass)) in coarse.into_iter().enumerate() {
        let divisions = (mass.exact_kg / division_kg).floor() + f64::from(at < left);
        mass.kg = shown(divisions, division_kg);
    }
    weighed
}

fn fine_enough(kg: f64, division_kg: f64, coarsest_pct: f64) -> f64 {
    let finer = std::iter::successors(Some(division_kg), |division| Some(division / TEN_TIMES));
    let shows = |division: &f64| kg <= 0.0 || division / 2.0 <= kg * coarsest_pct / 100.0;
    finer.take(FINEST).find(shows).unwrap_or(division_kg)
}

fn on_scale(exact_kg: f64, division_kg: f64) -> RoundedMass {
    RoundedMass { exact_kg, kg: shown((exact_kg / division_kg).round(), division_kg), division_kg }
}

/// A whole number of divisions, without the tail of binary fractions.
pub(crate) fn shown(divisions: f64, division_kg: f64) -> f64 {
    (divisions * division_kg * PARTS_OF_KG).round() / PARTS_OF_KG
}
