use serde::Serialize;

use super::AbsorptionModel;
use crate::coefficient::Coefficient;
use crate::flour::{MoistureBasis, Property, Readings};

/// Part of a change in absorption.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AbsorptionDifferencePart {
    pub key: &'static str,
    pub label: &'static str,
    /// Of the property, between the two lots; none for the rest.
    pub change: Option<f64>,
    /// Points of water on 14 %.
    pub points: f64,
    pub low: f64,
    pub high: f64,
}

/// Why one lot drinks more, or less, than another.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AbsorptionDifference {
    /// Measured change of absorption on 14 %; none where either was not measured.
    pub measured: Option<f64>,
    /// What protein, damaged starch and ash explain together.
    pub explained: f64,
    /// Each property that was measured on both, and what is left unexplained.
    pub parts: Vec<AbsorptionDifferencePart>,
    pub coefficients: Vec<Coefficient>,
}

/// Shares out the change of absorption between two lots over protein, damaged starch and ash.
///
/// `Δ = 1.1 Δprotein₁₄ + 1.4 Δdamaged starch + 4.0 Δash_dm + unexplained` (H), in points on 14 %;
/// with the plant's own coefficients where its lots taught them.
///
/// ```
/// use ironpeel_core::flour::{MoistureBasis::{AsIs, DryMatter, Fourteen}, Property, Reading, Readings};
/// use ironpeel_core::water::{AbsorptionModel, absorption_difference};
/// let lot = |damaged, absorption| Readings(vec![
///     Reading { property: Property::DamagedStarch, value: damaged, basis: Some(AsIs), method: None, censored: None },
///     Reading { property: Property::Absorption, value: absorption, basis: Some(Fourteen), method: None, censored: None },
/// ]);
/// let change = absorption_difference(&lot(8.2, 62.0), &lot(10.9, 65.4), &AbsorptionModel::default());
/// assert!((change.explained - 3.78).abs() < 1e-9);
/// assert!((change.parts[1].points + 0.38).abs() < 1e-9); // the unexplained rest
/// ```
pub fn absorption_difference(
    before: &Readings,
    after: &Readings,
    model: &AbsorptionModel,
) -> AbsorptionDifference {
    let change =
        |property, basis| Some(after.value(property, basis)? - before.value(property, basis)?);
    let coefficients = model.per_point();
    let mut parts: Vec<AbsorptionDifferencePart> = [
        (Property::Protein, Some(MoistureBasis::Fourteen)),
        (Property::DamagedStarch, Some(MoistureBasis::AsIs)),
        (Property::Ash, Some(MoistureBasis::DryMatter)),
    ]
    .into_iter()
    .zip(&coefficients)
    .filter_map(|((property, basis), per)| {
        let change = change(property, basis)?;
        let (one, other) = (per.low * change, per.high * change);
        Some(AbsorptionDifferencePart {
            key: property.key(),
            label: property.label(),
            change: Some(change),
            points: per.value * change,
            low: one.min(other),
            high: one.max(other),
        })
    })
    .collect();
    let explained = parts.iter().map(|part| part.points).sum();
    let measured = change(Property::Absorption, Some(MoistureBasis::Fourteen));
    if let Some(measured) = measured {
        let rest = measured - explained;
        parts.push(AbsorptionDifferencePart {
            key: "unexplained",
            label: "unexplained",
            change: None,
            points: rest,
            low: rest,
            high: rest,
        });
    }
    AbsorptionDifference { measured, explained, parts, coefficients: coefficients.into() }
}
