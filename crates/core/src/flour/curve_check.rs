use serde::Serialize;

use super::coefficients::CURVE_AGREES;
use super::{AlveographAnswer, FarinographAnswer, Property, Readings, Repeatability, usual_basis};
use crate::coefficient::Coefficients;

/// A certificate's figure beside what the lot's own curve says.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CurveCheck {
    pub property: Property,
    pub label: &'static str,
    pub unit: &'static str,
    /// None where the certificate does not state it.
    pub stated: Option<f64>,
    pub from_curve: f64,
    /// Within how much they would agree.
    pub within: f64,
    pub agrees: bool,
}

/// What a curve says of one property.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FromCurve {
    pub property: Property,
    pub value: f64,
    /// How far off it can be for the curve's own shape.
    pub unsure: f64,
}

/// What a farinogram says of each property a certificate may state; absorption on 14 %.
pub fn from_farinogram(read: &FarinographAnswer) -> Vec<FromCurve> {
    let maybe = [
        (Property::Absorption, Some(read.absorption_14_pct), 0.0),
        (Property::Development, Some(read.development_min), read.development_within_min),
        (Property::Stability, read.stability_min, 0.0),
        (Property::Softening, read.softening_fu, 0.0),
    ];
    let found = |(property, value, unsure): (_, Option<f64>, _)| {
        Some(FromCurve { property, value: value?, unsure })
    };
    maybe.into_iter().filter_map(found).collect()
}

/// What an alveogram says of each property a certificate may state.
pub fn from_alveogram(read: &AlveographAnswer) -> Vec<FromCurve> {
    let maybe = [
        (Property::P, Some(read.p_mmh2o)),
        (Property::L, Some(read.l_mm)),
        (Property::W, Some(read.w)),
        (Property::POverL, read.p_over_l),
        (Property::Ie, read.ie_pct),
    ];
    let found = |(property, value): (_, Option<f64>)| {
        Some(FromCurve { property, value: value?, unsure: 0.0 })
    };
    maybe.into_iter().filter_map(found).collect()
}

/// Holds a certificate's figures against the lot's own curve.
///
/// Two figures agree within twice the method's repeatability, each being off by up to one; within
/// a tenth of the value where none is on record; and at least within what the curve itself leaves
/// open.
pub fn check_against_curve(
    stated: &Readings,
    curve: &[FromCurve],
    coefficients: &Coefficients,
) -> Vec<CurveCheck> {
    let agrees_pct = coefficients.value(&CURVE_AGREES);
    let check = |&FromCurve { property, value: from_curve, unsure }: &FromCurve| {
        let within = match property.repeatability(coefficients) {
            Repeatability::AtLeast(_) => from_curve * agrees_pct / 100.0,
            known => 2.0 * known.at(from_curve),
        }
        .max(unsure);
        let stated = stated.value(property, usual_basis(property));
        CurveCheck {
            property,
            label: property.label(),
            unit: property.unit(),
            stated,
            from_curve,
            within,
            agrees: stated.is_none_or(|stated| (stated - from_curve).abs() <= within),
        }
    };
    curve.iter().map(check).collect()
}
