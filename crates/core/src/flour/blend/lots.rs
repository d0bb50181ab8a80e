//! Lots mixed by their shares: what they make, against what is wanted.

use serde::Serialize;

use super::{BlendProperty, BlendTargetInput, Mixture};
use crate::flour::{MoistureBasis, Property, Readings, Row};
use crate::units::RawNumber;

/// What rounding may tear apart.
const SLACK: f64 = 1e-6;
/// Shares together this near 100 % make a whole.
const WHOLE_WITHIN: f64 = 0.5;
/// Shares are kept to this.
const PARTS_OF_PCT: f64 = 100.0;

/// Shares of a blend as they are set, in percent of as-is mass.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BlendShares {
    pub total_pct: f64,
    /// Whether they make a whole, near enough.
    pub is_whole: bool,
    /// What they leave for another lot.
    pub left_pct: f64,
    /// The same shares made to add up to 100; none where they add up to nothing.
    pub of_100_pct: Option<Vec<f64>>,
}

impl BlendShares {
    /// ```
    /// use ironpeel_core::flour::BlendShares;
    /// let shares = BlendShares::of(&[30.0, 20.0]);
    /// assert_eq!((shares.left_pct, shares.of_100_pct), (50.0, Some(vec![60.0, 40.0])));
    /// ```
    pub fn of(shares_pct: &[f64]) -> Self {
        let total_pct: f64 = shares_pct.iter().sum();
        let kept = |pct: f64| (pct * PARTS_OF_PCT).round() / PARTS_OF_PCT;
        let scaled = |pct: &f64| kept(100.0 * pct / total_pct);
        Self {
            total_pct,
            is_whole: (total_pct - 100.0).abs() <= WHOLE_WITHIN,
            left_pct: kept((100.0 - total_pct).max(0.0)),
            of_100_pct: (total_pct > 0.0).then(|| shares_pct.iter().map(scaled).collect()),
        }
    }
}

/// A property of a blend against its target.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BlendCheck {
    pub property: BlendProperty,
    pub label: &'static str,
    pub unit: &'static str,
    pub value: Option<f64>,
    pub min: Option<f64>,
    pub max: Option<f64>,
    pub kept: bool,
    /// What each part has of it.
    pub parts: Vec<f64>,
}

impl BlendCheck {
    /// Every property of the blend, in order; one without a target is kept where the blend has it.
    pub fn all(
        mixed: Option<&Mixture>,
        parts: &[Mixture],
        targets: &[BlendTargetInput],
    ) -> Vec<Self> {
        let of = |property| Self::of(property, mixed, parts, targets);
        BlendProperty::ALL.into_iter().map(of).collect()
    }

    fn of(
        property: BlendProperty,
        mixed: Option<&Mixture>,
        parts: &[Mixture],
        targets: &[BlendTargetInput],
    ) -> Self {
        let named =
            |target: &&BlendTargetInput| BlendProperty::named(&target.property) == Some(property);
        let target = targets.iter().find(named);
        let side = |given: fn(&BlendTargetInput) -> &RawNumber| match target.map(given) {
            Some(RawNumber::Number(value)) => Some(*value),
            _ => None,
        };
        let (min, max) = (side(|target| &target.min), side(|target| &target.max));
        let value = mixed.map(|mixed| mixed.get(property));
        let within = |value: f64| {
            min.is_none_or(|min| value >= min - SLACK) && max.is_none_or(|max| value <= max + SLACK)
        };
        Self {
            property,
            label: property.label(),
            unit: property.unit(),
            kept: value.is_some_and(within),
            value,
            min,
            max,
            parts: parts.iter().map(|part| part.get(property)).collect(),
        }
    }
}

/// What a tonne of a blend costs by its shares; none while a part of it has no price.
pub fn blend_price(prices_per_t: &[Option<f64>], shares_pct: &[f64]) -> Option<f64> {
    let total: f64 = shares_pct.iter().sum();
    let parts = prices_per_t.iter().zip(shares_pct);
    let sum: Option<f64> = parts.map(|(price, share)| Some((*price)? * share)).sum();
    sum.filter(|_| total > 0.0).map(|sum| sum / total)
}

/// What a lot brings to a blend, and what of it was taken from other lots of its flour.
#[derive(Debug, Clone, PartialEq)]
pub struct LotInBlend {
    pub has: Mixture,
    pub assumed: Vec<Property>,
}

impl LotInBlend {
    /// By its certificate; what that lacks is the mean of the flour's other lots. The properties
    /// neither states where there are any.
    pub fn of(readings: &Readings, others: &[Readings]) -> Result<Self, Vec<Property>> {
        let (mut assumed, mut lacks) = (Vec::new(), Vec::new());
        let mut of = |property: Property, basis: Option<MoistureBasis>| {
            if let Some(value) = readings.value(property, basis) {
                return value;
            }
            let known: Vec<f64> =
                others.iter().filter_map(|other| other.value(property, basis)).collect();
            if known.is_empty() {
                lacks.push(property);
                return property.range().0;
            }
            assumed.push(property);
            known.iter().sum::<f64>() / known.len() as f64
        };
        let has = Mixture {
            moisture_pct: of(Property::Moisture, None),
            protein_14_pct: of(Property::Protein, Some(MoistureBasis::Fourteen)),
            ash_dm_pct: of(Property::Ash, Some(MoistureBasis::DryMatter)),
            damaged_starch_pct: of(Property::DamagedStarch, Some(MoistureBasis::AsIs)),
            w: of(Property::W, None),
            falling_number_s: of(Property::FallingNumber, None),
        };
        if lacks.is_empty() { Ok(Self { has, assumed }) } else { Err(lacks) }
    }
}

/// The certificate of a blended lot, computed from its parts: each what it has, its readings and its
/// share. Absorption mixes by dry matter where every part has it.
pub fn blended_certificate(parts: &[(Mixture, &Readings, f64)]) -> Vec<Row> {
    let blend = Mixture::of(parts.iter().map(|(has, _, share)| (*has, *share)));
    let row = |property: Property, value: String, basis: &str| Row {
        property: property.label().into(),
        value,
        unit: property.unit().into(),
        basis: basis.into(),
        method: "computed from the blend".into(),
    };
    let mut rows = vec![
        row(Property::Moisture, format!("{:.2}", blend.moisture_pct), "as is"),
        row(Property::Protein, format!("{:.2}", blend.protein_14_pct), "14 %"),
        row(Property::Ash, format!("{:.3}", blend.ash_dm_pct), "dry matter"),
        row(Property::DamagedStarch, format!("{:.2}", blend.damaged_starch_pct), "as is"),
        row(Property::FallingNumber, format!("{:.0}", blend.falling_number_s), ""),
        row(Property::W, format!("{:.0}", blend.w), ""),
    ];
    let fourteen = Some(MoistureBasis::Fourteen);
    let absorption: Option<Vec<(f64, f64)>> = parts
        .iter()
        .map(|(has, readings, share)| {
            let dry = share * (100.0 - has.moisture_pct);
            Some((readings.value(Property::Absorption, fourteen)?, dry))
        })
        .collect();
    if let Some(known) = absorption {
        let (sum, dry) = known
            .iter()
            .fold((0.0, 0.0), |(sum, all), (value, dry)| (sum + value * dry, all + dry));
        rows.push(row(Property::Absorption, format!("{:.1}", sum / dry), "14 %"));
    }
    rows
}
