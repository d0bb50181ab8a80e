use serde::Serialize;

use super::{AlveographAnswer, FarinographAnswer, Property, Readings, Repeatability, usual_basis};

/// Share of the value within which figures agree where no repeatability is on record (H), %.
const AGREE_PCT: f64 = 10.0;

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

/// What a farinogram says of each property a certificate may state; absorption on 14 %.
pub fn from_farinogram(read: &FarinographAnswer) -> Vec<(Property, f64)> {
    let maybe = [
        (Property::Absorption, Some(read.absorption_14_pct)),
        (Property::Development, Some(read.development_min)),
        (Property::Stability, read.stability_min),
        (Property::Softening, read.softening_fu),
    ];
    maybe.into_iter().filter_map(|(property, value)| Some((property, value?))).collect()
}

/// What an alveogram says of each property a certificate may state.
pub fn from_alveogram(read: &AlveographAnswer) -> Vec<(Property, f64)> {
    let maybe = [
        (Property::P, Some(read.p_mmh2o)),
        (Property::L, Some(read.l_mm)),
        (Property::W, Some(read.w)),
        (Property::POverL, read.p_over_l),
        (Property::Ie, read.ie_pct),
    ];
    maybe.into_iter().filter_map(|(property, value)| Some((property, value?))).collect()
}

/// Holds a certificate's figures against the lot's own curve.
///
/// Two figures agree within twice the method's repeatability, each being off by up to one; within
/// a tenth of the value where none is on record.
pub fn check_against_curve(stated: &Readings, curve: &[(Property, f64)]) -> Vec<CurveCheck> {
    let check = |(property, from_curve): &(Property, f64)| {
        let within = match property.repeatability() {
            Repeatability::Unknown => from_curve * AGREE_PCT / 100.0,
            known => 2.0 * known.at(*from_curve),
        };
        let stated = stated.value(*property, usual_basis(*property));
        CurveCheck {
            property: *property,
            label: property.label(),
            unit: property.unit(),
            stated,
            from_curve: *from_curve,
            within,
            agrees: stated.is_none_or(|stated| (stated - from_curve).abs() <= within),
        }
    };
    curve.iter().map(check).collect()
}
