use super::ScenarioLine;
use crate::coefficient::Coefficients;
use crate::dough::{
    AllergenFlour, AllergenStatement, Amount, FLOUR_PCT, Formula, Ingredient, Losses,
};
use crate::ferment::NetworkFlour;
use crate::flour::coefficients::WHITE_EXTRACTION;
use crate::flour::{Limit, Moisture, MoistureBasis, Property, Readings, Species};
use crate::method::{FlourStrength, Method};
use crate::plant::PlantParameters;
use crate::water::{Composition, Flour, FlourPart};

/// A flour of the dough: a lot as its certificate states it, and its share of all flour.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ScenarioFlour<'a> {
    pub name: &'a str,
    pub species: Species,
    /// Flour got from 100 of grain, where it is known.
    pub extraction_pct: Option<f64>,
    pub readings: &'a Readings,
    pub limits: &'a [Limit],
    /// Days from milling to mixing.
    pub age_days: Option<f64>,
    pub share_pct: f64,
    pub price_per_kg: Option<f64>,
    /// None until somebody stated them.
    pub allergens: Option<&'a AllergenStatement>,
}

impl<'a> ScenarioFlour<'a> {
    /// How much of it counts as whole grain, by its extraction, %.
    fn whole_grain_pct(&self, coefficients: &Coefficients) -> f64 {
        let white = coefficients.value(&WHITE_EXTRACTION);
        self.extraction_pct.map_or(0.0, |extraction| {
            ((extraction - white) / (100.0 - white)).clamp(0.0, 1.0) * 100.0
        })
    }

    /// The flour as its allergens go.
    pub(super) const fn allergens(&self) -> AllergenFlour<'a> {
        AllergenFlour { name: self.name, species: self.species, stated: self.allergens }
    }

    /// The flour as its film goes.
    pub(super) fn gluten_network(&self, coefficients: &Coefficients) -> NetworkFlour {
        NetworkFlour {
            species: self.species,
            share_pct: self.share_pct,
            whole_grain_pct: self.whole_grain_pct(coefficients),
            w: self.readings.value(Property::W, None),
        }
    }

    /// The flour as the absorption build-up wants it; none without its moisture.
    pub fn part(&self, coefficients: &Coefficients) -> Option<FlourPart<'a>> {
        let readings = self.readings;
        let on = |property, basis| readings.value(property, basis);
        let whole_grain_pct = self.whole_grain_pct(coefficients);
        Some(FlourPart {
            name: self.name,
            share_pct: self.share_pct,
            flour: Flour {
                moisture: readings.moisture()?,
                absorption_14_pct: on(Property::Absorption, Some(MoistureBasis::Fourteen)),
                composition: Composition {
                    protein_14_pct: on(Property::Protein, Some(MoistureBasis::Fourteen)),
                    damaged_starch_pct: on(Property::DamagedStarch, Some(MoistureBasis::AsIs)),
                    ash_dm_pct: on(Property::Ash, Some(MoistureBasis::DryMatter)),
                },
                species: self.species,
                whole_grain_pct,
                age_days: self.age_days,
                w: on(Property::W, None),
            },
        })
    }
}

/// A formula with what scaling it needs.
#[derive(Debug, Clone, PartialEq)]
pub struct ScenarioFormula {
    pub formula: Formula,
    pub style_points: f64,
    pub piece_kg: f64,
    pub losses: Losses,
    /// Its own water, % on flour; none where it takes what the flour takes.
    pub hydration_pct: Option<f64>,
    /// Its usual batch, kg of dough.
    pub batch_kg: Option<f64>,
}

impl ScenarioFormula {
    /// How much of it is made where nobody says: its usual batch, or one full mixer.
    pub fn usual_amount(&self) -> Amount {
        self.batch_kg.map_or(Amount::Mixer { doughs: 1.0 }, |kg| Amount::Dough { kg })
    }
}

/// What is set for tonight; what is left out comes from the line or the method.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct RunSettings<'a> {
    /// The formula's usual one if none.
    pub amount: Option<Amount>,
    pub division_kg: Option<f64>,
    /// The floor water set by hand, instead of where the build-up ends.
    pub hydration_pct: Option<f64>,
    pub target_c: Option<f64>,
    pub flour_c: Option<f64>,
    pub room_c: Option<f64>,
    pub tap_c: Option<f64>,
    /// The mixer's jacket runs.
    pub jacket: bool,
    /// Ingredients whose temperature was typed, °C.
    pub ingredients_c: &'a [(Ingredient, f64)],
    /// Speed of tonight's fermentation beside the model's, as readings said; the model's if none.
    pub rate: Option<f64>,
}

impl RunSettings<'_> {
    /// The temperature typed for an ingredient.
    pub(super) fn ingredient_c(&self, ingredient: Ingredient) -> Option<f64> {
        self.ingredients_c.iter().find(|(one, _)| *one == ingredient).map(|(_, celsius)| *celsius)
    }
}

/// The selected product: a product's formula, method and line, a lot of each of its flours, the
/// plant's own numbers, and what is set for tonight.
#[derive(Debug, Clone, Copy)]
pub struct Scenario<'a> {
    /// The main one first; their shares together 100.
    pub flours: &'a [ScenarioFlour<'a>],
    pub formula: &'a ScenarioFormula,
    pub method: &'a Method,
    pub line: &'a ScenarioLine,
    pub plant: &'a PlantParameters,
    pub run_settings: RunSettings<'a>,
}

impl<'a> Scenario<'a> {
    /// The coefficients as the plant has them.
    pub fn coefficients(&self) -> &'a Coefficients {
        &self.plant.coefficients
    }

    pub(crate) fn division_kg(&self) -> f64 {
        self.run_settings.division_kg.unwrap_or(self.line.division_kg)
    }

    /// The flours as the absorption build-up wants them; the name of the first that states no moisture.
    pub fn parts(&self) -> Result<Vec<FlourPart<'a>>, &'a str> {
        let coefficients = self.coefficients();
        self.flours.iter().map(|flour| flour.part(coefficients).ok_or(flour.name)).collect()
    }

    /// The flours' moisture by their shares; none where one does not state it.
    pub(super) fn moisture(&self) -> Option<Moisture> {
        let mut percent = 0.0;
        for flour in self.flours {
            percent += flour.readings.moisture()?.percent() * flour.share_pct / FLOUR_PCT;
        }
        Moisture::new(percent).ok().filter(|_| !self.flours.is_empty())
    }
}

/// What the main flour says of its strength and age.
pub fn flour_strength(scenario: &Scenario<'_>) -> FlourStrength {
    let of =
        |property| scenario.flours.first().and_then(|main| main.readings.value(property, None));
    FlourStrength {
        w: of(Property::W),
        p_over_l: of(Property::POverL),
        age_days: scenario.flours.first().and_then(|main| main.age_days),
    }
}
