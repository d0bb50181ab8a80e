use serde::{Deserialize, Serialize};

use super::coefficients::STARTER_KG_PER_L;
use super::{
    Ingredient, Library, Line, StarterConvention, StarterShare, StarterShares, read_quantity,
};
use crate::coefficient::Coefficients;
use crate::units::{DecimalMark, Estimate, NumberRange, RawNumber, ValidationErrors};

/// Most lines.
const MOST: usize = 60;

/// One ingredient with its quantity as it was written.
#[derive(Debug, Clone, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AmountLine {
    pub ingredient: Ingredient,
    /// As people write it: 500 g, 2 1/3 cup, 1½ tsp, 3 lb 4 oz.
    #[serde(default)]
    pub amount: String,
}

/// A starter with its quantity as it was written.
#[derive(Debug, Clone, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct StarterAmount {
    #[serde(default)]
    pub amount: String,
    /// Water over flour in it, 0 to 500 %; 100 if left out.
    #[serde(default)]
    pub hydration_pct: RawNumber,
}

/// A dough written down by amounts.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ByAmount {
    /// Water and flour too; up to 60.
    #[serde(default)]
    pub lines: Vec<AmountLine>,
    #[serde(default)]
    pub starter: Option<StarterAmount>,
    /// What a mark that could be either is: the one before the decimals; refused if left out.
    #[serde(default)]
    pub decimal_mark: Option<DecimalMark>,
}

/// One ingredient understood.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AmountRead {
    pub ingredient: Ingredient,
    pub label: String,
    /// Kilos, with what they may be.
    pub kg: Estimate,
    /// Percent on all flour, the starter's counted in.
    pub pct: f64,
}

/// A dough by amounts as baker's percent, with how sure that is.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AmountsRead {
    pub lines: Vec<AmountRead>,
    pub starter_kg: Option<Estimate>,
    pub starter: Option<StarterShares>,
    /// All flour, kg.
    pub flour_kg: Estimate,
    /// Water weighed, the starter's counted in, over all flour.
    pub hydration_pct: Estimate,
    /// With the water that milk, eggs and the like bring.
    pub effective_hydration_pct: Estimate,
    pub dough_kg: Estimate,
}

const HYDRATION: NumberRange =
    NumberRange::new("starter.hydration_pct", "hydration of the starter", "%", 0.0, 500.0);

impl ByAmount {
    /// Reads the amounts, counts a starter into flour and water, and carries what a cup may hold
    /// through to hydration: its low is the least water on the most flour.
    pub fn read(
        &self,
        library: &Library,
        coefficients: &Coefficients,
    ) -> Result<AmountsRead, ValidationErrors> {
        let mut faults = ValidationErrors::default();
        if self.lines.len() > MOST {
            faults.push("lines", format!("up to {MOST} lines; {} were given", self.lines.len()));
            return Err(faults);
        }
        let read = self.read_lines(library, &mut faults);
        let starter = self.starter.as_ref().and_then(|starter| {
            read_starter(starter, self.decimal_mark, coefficients, &mut faults)
        });
        let sum = |of: Ingredient| {
            read.iter()
                .find(|(line, _)| line.ingredient == of)
                .map_or(Estimate::new(0.0, 0.0, 0.0), |(_, kg)| *kg)
        };
        let (early_flour, preferment_water) = starter.map_or(NOTHING, |(kg, hydration)| {
            let swollen = 1.0 + hydration / 100.0;
            (kg.times(1.0 / swollen), kg.times(hydration / 100.0 / swollen))
        });
        let flour_kg = plus(sum(Ingredient::Flour), early_flour);
        if faults.0.is_empty() && flour_kg.low <= 0.0 {
            faults.push("lines", "there is no flour, so nothing is in percent of it");
        }
        faults.or(())?;

        let water = plus(sum(Ingredient::Water), preferment_water);
        let effective = read.iter().fold(preferment_water, |all, (line, kg)| {
            plus(all, kg.times(library.properties(line.ingredient).water_pct / 100.0))
        });
        let all = starter.map_or(NOTHING.0, |(kg, _)| kg);
        let dough_kg = read.iter().fold(all, |all, (_, kg)| plus(all, *kg));
        let on_flour = |kg: f64| 100.0 * kg / flour_kg.typical;
        let shares = starter.and_then(|(_, hydration)| {
            StarterShare {
                convention: StarterConvention::PrefermentedFlour,
                pct: on_flour(early_flour.typical),
                hydration_pct: hydration,
                dough_pct: on_flour(dough_kg.typical),
            }
            .shares()
        });
        Ok(AmountsRead {
            lines: read
                .iter()
                .map(|(line, kg)| AmountRead {
                    ingredient: line.ingredient,
                    label: library.properties(line.ingredient).label.to_string(),
                    kg: *kg,
                    pct: on_flour(kg.typical),
                })
                .collect(),
            starter_kg: starter.map(|(kg, _)| kg),
            starter: shares,
            flour_kg,
            hydration_pct: over(water, flour_kg),
            effective_hydration_pct: over(effective, flour_kg),
            dough_kg,
        })
    }

    /// Each line with its mass; what cannot be read is a fault.
    fn read_lines(
        &self,
        library: &Library,
        faults: &mut ValidationErrors,
    ) -> Vec<(Line, Estimate)> {
        let mut read: Vec<(Line, Estimate)> = Vec::with_capacity(self.lines.len());
        for (at, line) in self.lines.iter().enumerate() {
            if read.iter().any(|(seen, _)| seen.ingredient == line.ingredient) {
                let message = format!("{} stands twice; add them up", line.ingredient);
                faults.push(format!("lines[{at}].ingredient"), message);
            }
            let properties = library.properties(line.ingredient);
            match read_quantity(&line.amount, properties, self.decimal_mark) {
                Ok(kg) => read.push((Line { ingredient: line.ingredient, pct: 0.0 }, kg)),
                Err(error) => faults.push(format!("lines[{at}].amount"), error.to_string()),
            }
        }
        read
    }
}

const NOTHING: (Estimate, Estimate) = (Estimate::new(0.0, 0.0, 0.0), Estimate::new(0.0, 0.0, 0.0));

fn read_starter(
    starter: &StarterAmount,
    mark: Option<DecimalMark>,
    coefficients: &Coefficients,
    faults: &mut ValidationErrors,
) -> Option<(Estimate, f64)> {
    let hydration = HYDRATION.check_or(&starter.hydration_pct, 100.0, "", faults);
    let mut properties = Library::default().properties(Ingredient::Flour).clone();
    properties.kg_per_l = Some(coefficients.band(&STARTER_KG_PER_L));
    match read_quantity(&starter.amount, &properties, mark) {
        Ok(kg) => Some((kg, hydration)),
        Err(error) => {
            faults.push("starter.amount", error.to_string());
            None
        }
    }
}

fn plus(a: Estimate, b: Estimate) -> Estimate {
    Estimate::new(a.typical + b.typical, a.low + b.low, a.high + b.high)
}

/// One over the other, in percent: the least over the most, and the most over the least.
fn over(part: Estimate, whole: Estimate) -> Estimate {
    Estimate::new(part.typical / whole.typical, part.low / whole.high, part.high / whole.low)
        .times(100.0)
}
