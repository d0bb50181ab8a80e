use std::borrow::Cow;

use serde::{Deserialize, Serialize};

use super::house_ingredients::{HOUSE, UNKNOWN};
use super::ingredient_properties::{Effect, IngredientProperties, Role, Storage, wet_heat};
use super::{AllergenStatement, Ingredient};
use crate::coefficient::Origin;
use crate::units::{Estimate, NumberRange, RawNumber, ValidationErrors};

/// What is known of ingredients: the house's, but where the plant has its own.
#[derive(Debug, Clone, PartialEq)]
pub struct Library {
    house: Cow<'static, [IngredientProperties]>,
    own: Vec<IngredientProperties>,
}

/// What a kilo of an ingredient costs the plant.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct IngredientPrice {
    pub ingredient: Ingredient,
    pub price_per_kg: f64,
}

impl Library {
    /// The house's library with what a plant changed or added.
    pub fn with(own: Vec<IngredientProperties>) -> Self {
        Self { house: Cow::Borrowed(HOUSE.as_slice()), own }
    }

    /// With what the plant pays for the house's ingredients.
    #[must_use]
    pub fn priced(mut self, prices: &[IngredientPrice]) -> Self {
        for price in prices {
            if let Some(properties) = self.house.to_mut().get_mut(price.ingredient.index()) {
                properties.price_per_kg = Some(price.price_per_kg);
            }
        }
        self
    }

    /// What is known of an ingredient. Of a plant's own ingredient that this library lacks nothing
    /// is known but its word.
    ///
    /// ```
    /// use ironpeel_core::dough::{Ingredient, Library};
    /// assert_eq!(Library::default().properties(Ingredient::Milk).water_pct, 87.5);
    /// ```
    pub fn properties(&self, ingredient: Ingredient) -> &IngredientProperties {
        self.own
            .iter()
            .find(|own| own.ingredient == ingredient)
            .or_else(|| self.house.get(ingredient.index()))
            .unwrap_or(&UNKNOWN)
    }

    /// Everything a line may be made of, the plant's own last.
    pub fn all(&self) -> impl Iterator<Item = &IngredientProperties> {
        let own = self.own.iter().filter(|own| matches!(own.ingredient, Ingredient::Own(_)));
        self.house.iter().map(|house| self.properties(house.ingredient)).chain(own)
    }

    /// Whether it is on record here.
    pub fn knows(&self, ingredient: Ingredient) -> bool {
        !std::ptr::eq(self.properties(ingredient), &raw const *UNKNOWN)
    }
}

impl Default for Library {
    fn default() -> Self {
        Self::with(Vec::new())
    }
}

/// An ingredient's facts as they were typed.
#[derive(Debug, Clone, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct IngredientPropertiesInput {
    pub ingredient: Ingredient,
    #[serde(default)]
    pub label: String,
    pub role: Role,
    /// 0 to 100 %.
    #[serde(default)]
    pub water_pct: RawNumber,
    /// 0.5 to 4.3 kJ/kg·K; from its water if left out.
    #[serde(default)]
    pub specific_heat: RawNumber,
    /// −20 to 20 points of water for each 1 %; no effect if left out.
    #[serde(default)]
    pub points: RawNumber,
    #[serde(default)]
    pub points_low: RawNumber,
    #[serde(default)]
    pub points_high: RawNumber,
    /// 0.05 to 3 kg; no volumes are understood if left out.
    #[serde(default)]
    pub kg_per_l: RawNumber,
    #[serde(default)]
    pub kg_per_l_low: RawNumber,
    #[serde(default)]
    pub kg_per_l_high: RawNumber,
    /// Unknown if left out.
    #[serde(default)]
    pub allergens: Option<AllergenStatement>,
    /// Where it is kept; the house's if left out.
    #[serde(default)]
    pub kept: Option<Storage>,
    /// 0 to 10 000 for a kilo.
    #[serde(default)]
    pub price_per_kg: RawNumber,
}

const WATER: NumberRange = NumberRange::new("water_pct", "water content", "%", 0.0, 100.0);
const HEAT: NumberRange = NumberRange::new("specific_heat", "specific heat", "kJ/kg·K", 0.5, 4.3);
const PRICE: NumberRange = NumberRange::new("price_per_kg", "price", "for a kilo", 0.0, 10_000.0);
/// Longest name kept.
const MOST_LETTERS: usize = 60;

impl IngredientPropertiesInput {
    /// The facts, if each lies in its range.
    pub fn check(&self, at: &str, faults: &mut ValidationErrors) -> IngredientProperties {
        let label = self.label.trim();
        if label.is_empty() || label.chars().count() > MOST_LETTERS {
            let message = format!("the ingredient needs a name, up to {MOST_LETTERS} letters");
            faults.push(format!("{at}label"), message);
        }
        let water_pct = WATER.check(&self.water_pct, at, faults);
        let specific_heat = HEAT.check_or(&self.specific_heat, wet_heat(water_pct), at, faults);
        let points = banded(
            [
                ("points", &self.points),
                ("points_low", &self.points_low),
                ("points_high", &self.points_high),
            ],
            ("effect on water", "points", -20.0, 20.0),
            at,
            faults,
        );
        let kg_per_l = banded(
            [
                ("kg_per_l", &self.kg_per_l),
                ("kg_per_l_low", &self.kg_per_l_low),
                ("kg_per_l_high", &self.kg_per_l_high),
            ],
            ("mass of a litre", "kg", 0.05, 3.0),
            at,
            faults,
        );
        let house = Library::default();
        let house = house.properties(self.ingredient);
        let reason = house.effect.clone();
        let reason = reason.map_or(Cow::Borrowed("the plant's own finding"), |house| house.reason);
        IngredientProperties {
            ingredient: self.ingredient,
            label: Cow::Owned(label.to_owned()),
            role: self.role,
            water_pct,
            specific_heat,
            effect: points.map(|points| Effect { points, reason }),
            kg_per_l,
            allergens: self.allergens.clone().map(AllergenStatement::tidy),
            kept: self.kept.unwrap_or(house.kept),
            price_per_kg: PRICE.check_opt(&self.price_per_kg, at, faults),
            origin: Origin::Plant,
        }
    }
}

/// A value with its low and high, which are itself where they are left out; none where the value is.
fn banded(
    [typical, low, high]: [(&'static str, &RawNumber); 3],
    (words, unit, min, max): (&'static str, &'static str, f64, f64),
    at: &str,
    faults: &mut ValidationErrors,
) -> Option<Estimate> {
    let bound = |field| NumberRange::new(field, words, unit, min, max);
    let value = bound(typical.0).check_opt(typical.1, at, faults)?;
    let low = bound(low.0).check_or(low.1, value, at, faults);
    let high = bound(high.0).check_or(high.1, value, at, faults);
    if !(low..=high).contains(&value) {
        let message = format!("{words}: {value} does not lie between {low} and {high}");
        faults.push(format!("{at}{}", typical.0), message);
    }
    Some(Estimate::new(value, low, high))
}
