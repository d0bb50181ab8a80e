use serde::{Deserialize, Serialize};

use super::{Limit, MoistureBasis, Property, Readings, Verdict, usual_basis};
use crate::coefficient::Coefficients;

/// Binary fractions are cut off at this.
const MILLIONTHS: f64 = 1e6;
/// Fewest past lots that history is taken from.
const LEAST: usize = 5;

/// A property with its usual minimum, target and maximum.
type TypicalRange = (Property, Option<f64>, Option<f64>, Option<f64>);

/// What a flour is meant for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum IntendedUse {
    PanBread,
    HearthBread,
    Rolls,
    FlatBread,
    WholeGrainBread,
    AncientGrainBread,
    RyeBread,
    GlutenFree,
    General,
}

impl IntendedUse {
    /// Every use.
    pub const ALL: [Self; 9] = [
        Self::PanBread,
        Self::HearthBread,
        Self::Rolls,
        Self::FlatBread,
        Self::WholeGrainBread,
        Self::AncientGrainBread,
        Self::RyeBread,
        Self::GlutenFree,
        Self::General,
    ];

    /// Usual limits (H): property, minimum, target, maximum, on [`usual_basis`].
    #[rustfmt::skip]
    fn usual(self) -> &'static [TypicalRange] {
        use Property::{Absorption, Ash, DamagedStarch, FallingNumber, Moisture, Protein, Stability, W};
        match self {
            Self::PanBread => &[
                (Moisture, None, None, Some(14.8)), (Protein, Some(12.0), Some(12.8), Some(13.6)),
                (Ash, None, Some(0.60), Some(0.65)), (FallingNumber, Some(280.0), Some(340.0), Some(400.0)),
                (DamagedStarch, Some(6.5), Some(8.0), Some(9.5)), (Absorption, Some(60.0), Some(62.0), Some(64.5)),
                (Stability, Some(9.0), Some(12.0), None), (W, Some(260.0), Some(310.0), Some(370.0)),
            ],
            Self::HearthBread => &[
                (Moisture, None, None, Some(15.0)), (Protein, Some(10.5), Some(11.5), Some(12.5)),
                (Ash, None, Some(0.60), Some(0.75)), (FallingNumber, Some(250.0), Some(300.0), Some(380.0)),
                (DamagedStarch, Some(5.0), Some(6.5), Some(8.5)), (W, Some(180.0), Some(230.0), Some(290.0)),
            ],
            Self::Rolls => &[
                (Moisture, None, None, Some(14.8)), (Protein, Some(11.5), Some(12.3), Some(13.2)),
                (FallingNumber, Some(270.0), Some(330.0), Some(400.0)), (DamagedStarch, Some(6.0), Some(7.5), Some(9.5)),
                (Stability, Some(8.0), Some(11.0), None), (W, Some(230.0), Some(280.0), Some(340.0)),
            ],
            Self::FlatBread => &[
                (Moisture, None, None, Some(15.0)), (Protein, Some(10.5), Some(11.8), Some(13.0)),
                (FallingNumber, Some(280.0), Some(330.0), None), (W, Some(200.0), Some(260.0), Some(320.0)),
            ],
            Self::WholeGrainBread => &[
                (Moisture, None, None, Some(14.5)), (Protein, Some(12.0), Some(13.2), None),
                (Ash, Some(1.40), Some(1.60), Some(1.80)), (FallingNumber, Some(250.0), Some(320.0), None),
            ],
            Self::AncientGrainBread => &[
                (Moisture, None, None, Some(14.5)), (Protein, Some(11.0), None, None),
                (FallingNumber, Some(220.0), None, None),
            ],
            Self::RyeBread => &[
                (Moisture, None, None, Some(15.0)), (FallingNumber, Some(120.0), Some(160.0), Some(220.0)),
            ],
            Self::GlutenFree => &[(Moisture, None, None, Some(14.0))],
            Self::General => &[
                (Moisture, None, None, Some(15.0)), (Protein, Some(10.0), None, None),
                (FallingNumber, Some(220.0), None, None),
            ],
        }
    }
}

/// What a proposed limit comes from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum SuggestedFrom {
    /// The flour's own past lots.
    History,
    /// What the use asks for; a house default.
    Use,
}

/// A limit to consider, and what it would have done to past lots.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SuggestedLimit {
    pub limit: Limit,
    pub label: &'static str,
    pub unit: &'static str,
    pub from: SuggestedFrom,
    /// Past lots that had the property.
    pub lots: usize,
    pub mean: Option<f64>,
    pub sd: Option<f64>,
    /// Share of them that would have been out.
    pub would_fail_pct: f64,
    /// Share of them that would have been borderline.
    pub would_be_borderline_pct: f64,
}

/// Proposes limits from what the flour is meant for and from its own past lots.
///
/// From history: mean ± k standard deviations, rounded to what a certificate states, where there
/// are at least five lots; only the side that matters for each property. From the use: usual
/// limits (H). Each says which part of the past lots it would have put out.
pub fn suggest_limits(
    intended: IntendedUse,
    history: &[Readings],
    k: f64,
    coefficients: &Coefficients,
) -> Vec<SuggestedLimit> {
    let mut suggestions = Vec::new();
    for property in Property::ALL {
        let basis = usual_basis(property);
        let values: Vec<f64> =
            history.iter().filter_map(|lot| lot.value(property, basis)).collect();
        let usual = intended.usual().iter().find(|(one, ..)| *one == property);
        if let Some((_, min, target, max)) = usual {
            let limit = limit(property, basis, *min, *target, *max);
            suggestions.push(proposal(limit, SuggestedFrom::Use, &values, coefficients));
        }
        if values.len() >= LEAST {
            let (mean, sd) = mean_and_sd(&values);
            let (low, high) = sides(property);
            let round = |value: f64| {
                let step = property.resolution();
                // Whole steps, without the tail of binary fractions.
                ((value / step).round() * step * MILLIONTHS).round() / MILLIONTHS
            };
            let min = low.then(|| round((mean - k * sd).max(property.range().0)));
            let max = high.then(|| round(mean + k * sd));
            let limit = limit(property, basis, min, Some(round(mean)), max);
            suggestions.push(proposal(limit, SuggestedFrom::History, &values, coefficients));
        }
    }
    suggestions
}

/// Whether a lower and an upper limit make sense.
const fn sides(property: Property) -> (bool, bool) {
    match property {
        Property::Moisture | Property::Ash | Property::Softening | Property::Age => (false, true),
        Property::Stability | Property::GlutenIndex | Property::WetGluten | Property::Ie => {
            (true, false)
        }
        _ => (true, true),
    }
}

const fn limit(
    property: Property,
    basis: Option<MoistureBasis>,
    min: Option<f64>,
    target: Option<f64>,
    max: Option<f64>,
) -> Limit {
    Limit { property, basis, min, target, max, must: true, method: None }
}

fn proposal(
    limit: Limit,
    from: SuggestedFrom,
    values: &[f64],
    coefficients: &Coefficients,
) -> SuggestedLimit {
    let share = |verdict: Verdict| {
        let counted =
            values.iter().filter(|value| limit.judge(**value, coefficients) == verdict).count();
        if values.is_empty() { 0.0 } else { 100.0 * counted as f64 / values.len() as f64 }
    };
    let known = (values.len() > 1).then(|| mean_and_sd(values));
    SuggestedLimit {
        label: limit.property.label(),
        unit: limit.property.unit(),
        from,
        lots: values.len(),
        mean: known.map(|(mean, _)| mean),
        sd: known.map(|(_, sd)| sd),
        would_fail_pct: share(Verdict::Out),
        would_be_borderline_pct: share(Verdict::Borderline),
        limit,
    }
}

fn mean_and_sd(values: &[f64]) -> (f64, f64) {
    let count = values.len() as f64;
    let mean = values.iter().sum::<f64>() / count;
    let spread: f64 = values.iter().map(|value| (value - mean).powi(2)).sum();
    (mean, (spread / (count - 1.0)).sqrt())
}
