use std::borrow::Cow;
use std::sync::LazyLock;

use serde::{Deserialize, Serialize};

use super::coefficients as c;
use super::{Allergen, AllergenStatement, Ingredient};
use crate::coefficient::{Coefficients, Origin};
use crate::units::{Estimate, NumberRange, RawNumber, ValidationErrors};

/// What an ingredient is there for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Role {
    Flour,
    Liquid,
    Yeast,
    Salt,
    Sweet,
    Fat,
    Protein,
    Fibre,
    Acid,
    Improver,
    Other,
}

/// Where an ingredient is kept, and so how cold it comes to the mixer.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Storage {
    #[default]
    Room,
    Refrigerator,
    Freezer,
}

impl Storage {
    /// How cold it is there, °C; none where it is the room's own temperature.
    pub fn celsius(self, coefficients: &Coefficients) -> Option<f64> {
        match self {
            Self::Room => None,
            Self::Refrigerator => Some(coefficients.value(&c::REFRIGERATOR_C)),
            Self::Freezer => Some(coefficients.value(&c::FREEZER_C)),
        }
    }
}

/// Points of water on flour for each 1 % of an ingredient.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Effect {
    pub points: Estimate,
    pub reason: Cow<'static, str>,
}

/// All that is known of one ingredient.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct IngredientProperties {
    pub ingredient: Ingredient,
    pub label: Cow<'static, str>,
    pub role: Role,
    /// Water it brings, in percent of itself.
    pub water_pct: f64,
    /// kJ/kg·K.
    pub specific_heat: f64,
    /// What 1 % of it does to the water; none where nothing is to be said, or it is switched off.
    pub effect: Option<Effect>,
    /// Mass of a litre of it as a cup or spoon takes it up, kg.
    pub kg_per_l: Option<Estimate>,
    /// None until somebody states them.
    #[serde(default)]
    pub allergens: Option<AllergenStatement>,
    #[serde(default)]
    pub kept: Storage,
    pub price_per_kg: Option<f64>,
    /// House default, or the plant's own.
    pub origin: Origin,
}

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

/// Specific heat of a dry ingredient, kJ/kg·K.
const DRY: f64 = 1.3;

/// The specific heat of something that is so much water and the rest dry.
fn wet_heat(water_pct: f64) -> f64 {
    let (dry, water) = (c::DRY_SPECIFIC_HEAT.value, c::WATER_SPECIFIC_HEAT.value);
    if water_pct > 0.0 { (dry * (100.0 - water_pct) + water * water_pct) / 100.0 } else { DRY }
}

static UNKNOWN: LazyLock<IngredientProperties> = LazyLock::new(|| {
    bare(Ingredient::Own(0), "ingredient that is no longer on record", Role::Other)
});

fn bare(ingredient: Ingredient, label: &'static str, role: Role) -> IngredientProperties {
    IngredientProperties {
        ingredient,
        label: Cow::Borrowed(label),
        role,
        water_pct: 0.0,
        specific_heat: DRY,
        effect: None,
        kg_per_l: None,
        allergens: None,
        kept: Storage::Room,
        price_per_kg: None,
        origin: Origin::House,
    }
}

impl IngredientProperties {
    fn wet(mut self, water_pct: f64) -> Self {
        self.water_pct = water_pct;
        self.specific_heat = wet_heat(water_pct);
        self
    }

    fn fatty(mut self, water_pct: f64) -> Self {
        self.water_pct = water_pct;
        self.specific_heat = 2.0;
        self
    }

    fn moves(mut self, typical: f64, low: f64, high: f64, reason: &'static str) -> Self {
        let points = Estimate::new(typical, low, high);
        self.effect = Some(Effect { points, reason: Cow::Borrowed(reason) });
        self
    }

    /// Grams that a US cup of 236.6 ml holds.
    fn cup(self, grams: f64, low: f64, high: f64) -> Self {
        self.of_volume(236.588, grams, low, high)
    }

    /// Grams that a teaspoon of 4.93 ml holds.
    fn teaspoon(self, grams: f64, low: f64, high: f64) -> Self {
        self.of_volume(4.928_92, grams, low, high)
    }

    fn of_volume(mut self, ml: f64, grams: f64, low: f64, high: f64) -> Self {
        self.kg_per_l = Some(Estimate::new(grams, low, high).times(1.0 / ml));
        self
    }

    fn contains(mut self, allergens: &[Allergen]) -> Self {
        self.allergens = Some(AllergenStatement::by_nature(allergens));
        self
    }

    const fn cold(mut self) -> Self {
        self.kept = Storage::Refrigerator;
        self
    }
}

const SUGAR: (f64, f64, f64, &str) = (-0.25, -0.5, -0.1, "dissolved sugar slackens the dough");
const FAT: (f64, f64, f64, &str) = (-0.3, -0.5, -0.1, "fat softens in place of water");

/// The effect of an ingredient of which only a part acts so.
fn part_of(
    properties: IngredientProperties,
    (typical, low, high, reason): (f64, f64, f64, &'static str),
    share: f64,
) -> IngredientProperties {
    properties.moves(typical * share, low * share, high * share, reason)
}

/// The house's library, in the order of [`Ingredient::ALL`]. Water contents and volumes are usual
/// ones, allergens what a thing is by its nature (H); where suppliers differ, nothing is stated.
static HOUSE: LazyLock<Vec<IngredientProperties>> = LazyLock::new(|| {
    use Ingredient as I;
    vec![
        bare(I::Flour, "flour", Role::Flour).cup(125.0, 85.0, 170.0),
        bare(I::Water, "water", Role::Liquid).contains(&[]).wet(100.0).cup(236.6, 230.0, 243.0),
        bare(I::InstantYeast, "instant yeast", Role::Yeast).contains(&[]).teaspoon(3.1, 2.8, 3.4),
        bare(I::ActiveDryYeast, "active dry yeast", Role::Yeast)
            .contains(&[])
            .teaspoon(3.1, 2.7, 3.5),
        bare(I::FreshYeast, "fresh yeast", Role::Yeast).cold().contains(&[]).wet(70.0),
        bare(I::Salt, "salt", Role::Salt)
            .contains(&[])
            .moves(-0.6, -0.9, -0.4, "salt tightens the film and frees water")
            .teaspoon(5.9, 5.0, 6.5),
        part_of(bare(I::Sugar, "sugar", Role::Sweet).contains(&[]), SUGAR, 1.0)
            .cup(200.0, 185.0, 215.0),
        part_of(bare(I::Fat, "fat", Role::Fat).fatty(0.0), FAT, 1.0).cup(191.0, 175.0, 205.0),
        part_of(bare(I::Oil, "oil", Role::Fat).fatty(0.0), FAT, 1.0).cup(217.0, 210.0, 222.0),
        part_of(bare(I::Butter, "butter", Role::Fat).cold().fatty(16.0), FAT, 0.8)
            .cup(227.0, 220.0, 240.0)
            .contains(&[Allergen::Milk]),
        bare(I::VitalGluten, "vital gluten", Role::Protein)
            .moves(1.3, 1.0, 1.6, "gluten drinks more than its weight")
            .cup(130.0, 110.0, 150.0)
            .contains(&[Allergen::Gluten, Allergen::Wheat]),
        bare(I::SkimMilkPowder, "skim milk powder", Role::Protein)
            .moves(0.8, 0.5, 1.0, "milk solids take up water")
            .cup(120.0, 90.0, 145.0)
            .contains(&[Allergen::Milk]),
        bare(I::SoyFlour, "soy flour", Role::Protein)
            .moves(1.0, 0.8, 1.2, "soy takes up its own weight")
            .cup(85.0, 75.0, 105.0)
            .contains(&[Allergen::Soy]),
        bare(I::OatFibre, "oat fibre", Role::Fibre)
            .moves(2.0, 1.5, 3.0, "fibre holds water")
            .contains(&[Allergen::Gluten]),
        bare(I::Psyllium, "psyllium", Role::Fibre)
            .contains(&[])
            .moves(6.0, 4.0, 8.0, "psyllium gels")
            .teaspoon(4.0, 2.5, 5.5),
        bare(I::Inulin, "inulin", Role::Fibre).contains(&[]).moves(
            -0.5,
            -1.0,
            0.0,
            "inulin slackens like a sugar",
        ),
        bare(I::Bran, "bran", Role::Fibre)
            .moves(0.9, 0.6, 1.2, "bran drinks, slowly")
            .cup(58.0, 40.0, 75.0)
            .contains(&[Allergen::Gluten, Allergen::Wheat]),
        bare(I::Milk, "milk", Role::Liquid)
            .cold()
            .wet(87.5)
            .cup(244.0, 238.0, 250.0)
            .contains(&[Allergen::Milk]),
        bare(I::Egg, "egg", Role::Liquid)
            .cold()
            .wet(75.0)
            .cup(243.0, 235.0, 250.0)
            .contains(&[Allergen::Egg]),
        bare(I::EggWhite, "egg white", Role::Liquid)
            .cold()
            .wet(88.0)
            .cup(243.0, 235.0, 250.0)
            .contains(&[Allergen::Egg]),
        part_of(bare(I::Honey, "honey", Role::Sweet).contains(&[]).wet(17.0), SUGAR, 0.83)
            .cup(340.0, 325.0, 350.0),
        part_of(bare(I::Molasses, "molasses", Role::Sweet).wet(22.0), SUGAR, 0.78)
            .cup(330.0, 315.0, 340.0),
        part_of(bare(I::MaltSyrup, "malt syrup", Role::Sweet).wet(20.0), SUGAR, 0.8)
            .cup(320.0, 305.0, 335.0)
            .contains(&[Allergen::Gluten]),
        bare(I::MaltFlour, "diastatic malt flour", Role::Improver)
            .teaspoon(2.8, 2.2, 3.4)
            .contains(&[Allergen::Gluten]),
        bare(I::Vinegar, "vinegar", Role::Acid).wet(94.0).cup(239.0, 235.0, 243.0),
        bare(I::AscorbicAcid, "ascorbic acid", Role::Improver).contains(&[]),
        bare(I::Seeds, "seeds", Role::Other).cup(140.0, 120.0, 160.0),
        bare(I::PotatoFlakes, "potato flakes", Role::Other)
            .moves(2.5, 1.5, 3.5, "cooked starch drinks several times its weight")
            .cup(60.0, 45.0, 75.0),
        bare(I::Xanthan, "xanthan", Role::Fibre)
            .contains(&[])
            .moves(8.0, 4.0, 12.0, "a gum that binds free water")
            .teaspoon(2.9, 2.3, 3.5),
    ]
});
