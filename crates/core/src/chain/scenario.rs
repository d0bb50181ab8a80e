use serde::Serialize;

use super::ScenarioLine;
use crate::coefficient::Coefficients;
use crate::dough::{
    AllergenFlour, AllergenStatement, Amount, FLOUR_PCT, Formula, Ingredient, Losses,
};
use crate::ferment::NetworkFlour;
use crate::flour::coefficients::{
    USUAL_DAMAGED_STARCH, USUAL_MOISTURE, USUAL_PROTEIN, WHITE_EXTRACTION,
};
use crate::flour::{Limit, Moisture, MoistureBasis, Property, Readings, Species};
use crate::method::{FlourStrength, Method};
use crate::plant::PlantParameters;
use crate::units::Estimate;
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

    /// Its moisture; a usual one where none is stated.
    fn moisture(&self, coefficients: &Coefficients) -> Moisture {
        let usual = || Moisture::new(coefficients.value(&USUAL_MOISTURE)).ok();
        self.readings.moisture().or_else(usual).unwrap_or(Moisture::FOURTEEN)
    }

    /// What neither certificate nor bag states of it and is taken as usual.
    pub(super) fn assumed(&self, coefficients: &Coefficients) -> Vec<AssumedReading> {
        let has = |property| self.readings.get(property).is_some();
        let estimated = !has(Property::Absorption) && self.species.has_gluten();
        let usual = [
            (Property::Moisture, &USUAL_MOISTURE, true),
            (Property::Protein, &USUAL_PROTEIN, estimated),
            (Property::DamagedStarch, &USUAL_DAMAGED_STARCH, estimated),
        ];
        let wanted = usual.into_iter().filter(|(property, _, wanted)| *wanted && !has(*property));
        wanted
            .map(|(property, usual, _)| AssumedReading {
                flour: self.name.into(),
                property,
                label: property.label(),
                unit: property.unit(),
                value: coefficients.band(usual),
            })
            .collect()
    }

    /// The flour as the absorption build-up wants it.
    pub fn part(&self, coefficients: &Coefficients) -> FlourPart<'a> {
        let readings = self.readings;
        let moisture = self.moisture(coefficients);
        let stated = readings.moisture().is_some();
        let band = coefficients.band(&USUAL_MOISTURE);
        let on = |property, basis| {
            readings.get(property).and_then(|reading| reading.on(basis, Some(moisture)))
        };
        let whole_grain_pct = self.whole_grain_pct(coefficients);
        FlourPart {
            name: self.name,
            share_pct: self.share_pct,
            flour: Flour {
                moisture,
                usual_moisture: (!stated).then_some([band.low, band.high]),
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
        }
    }
}

/// What is taken of a flour where nobody stated it, with its band.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AssumedReading {
    pub flour: String,
    pub property: Property,
    pub label: &'static str,
    pub unit: &'static str,
    pub value: Estimate,
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
    /// What batches taught of its water on this line, and somebody took over, points.
    pub water_correction: Option<Estimate>,
}

impl<'a> Scenario<'a> {
    /// The coefficients as the plant has them.
    pub fn coefficients(&self) -> &'a Coefficients {
        &self.plant.coefficients
    }

    /// How warm the flour is, °C.
    pub(super) fn flour_c(&self) -> f64 {
        self.run_settings.flour_c.unwrap_or(self.line.flour_c)
    }

    /// How warm the room is, °C.
    pub(super) fn room_c(&self) -> f64 {
        self.run_settings.room_c.unwrap_or(self.line.room_c)
    }

    /// How warm the tap water is, °C.
    pub(super) fn tap_c(&self) -> f64 {
        self.run_settings.tap_c.unwrap_or(self.line.tap_c)
    }

    pub(crate) fn division_kg(&self) -> f64 {
        self.run_settings.division_kg.unwrap_or(self.line.division_kg)
    }

    /// The flours as the absorption build-up wants them.
    pub fn parts(&self) -> Vec<FlourPart<'a>> {
        self.flours.iter().map(|flour| flour.part(self.coefficients())).collect()
    }

    /// The flours' moisture by their shares; none without a flour.
    pub(super) fn moisture(&self) -> Option<Moisture> {
        let of = |flour: &ScenarioFlour<'_>| {
            flour.moisture(self.coefficients()).percent() * flour.share_pct / FLOUR_PCT
        };
        let percent = self.flours.iter().map(of).sum();
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
