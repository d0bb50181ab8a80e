use serde::Serialize;

/// A mass as the scale can show it.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Weighed {
    pub exact_kg: f64,
    /// A whole number of the scale's divisions.
    pub kg: f64,
}

/// Rounds masses to the scale's division without changing their total.
///
/// The total is rounded to the division once; each mass is rounded down, and the divisions left
/// over go to the masses that lost most (largest remainder), so none is more than one division off.
///
/// ```
/// use ironpeel_core::dough::weigh;
/// let weighed = weigh(&[60.16, 37.42, 1.21, 1.21], 0.05);
/// let total: f64 = weighed.iter().map(|mass| mass.kg).sum();
/// assert!((total - 100.0).abs() < 1e-9);
/// ```
pub fn weigh(exact_kg: &[f64], division_kg: f64) -> Vec<Weighed> {
    let divisions: Vec<f64> = exact_kg.iter().map(|kg| kg / division_kg).collect();
    let mut whole: Vec<f64> = divisions.iter().map(|count| count.floor()).collect();
    let wanted = (exact_kg.iter().sum::<f64>() / division_kg).round();
    let left = (wanted - whole.iter().sum::<f64>()).max(0.0) as usize;

    let mut by_loss: Vec<usize> = (0..divisions.len()).collect();
    by_loss.sort_by(|a, b| {
        (divisions[*b] - whole[*b]).total_cmp(&(divisions[*a] - whole[*a])).then(a.cmp(b))
    });
    for &at in by_loss.iter().take(left) {
        whole[at] += 1.0;
    }
    let shown = |count: f64| (count * division_kg * 1e6).round() / 1e6;
    exact_kg
        .iter()
        .zip(whole)
        .map(|(&exact_kg, count)| Weighed { exact_kg, kg: shown(count) })
        .collect()
}
