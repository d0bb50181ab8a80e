use std::borrow::Cow;
use std::sync::LazyLock;

use super::ingredient_properties::{DRY, Effect, IngredientProperties, Role, Storage, wet_heat};
use super::{Allergen, AllergenStatement, Ingredient};
use crate::coefficient::Origin;
use crate::units::Estimate;

/// What is known of an ingredient that is on record no longer.
pub(super) static UNKNOWN: LazyLock<IngredientProperties> = LazyLock::new(|| {
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
pub(super) static HOUSE: LazyLock<Vec<IngredientProperties>> = LazyLock::new(|| {
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
