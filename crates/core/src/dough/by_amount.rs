use serde::{Deserialize, Serialize};

use super::coefficients as c;
use super::{Ingredient, Library, StarterConvention, StarterShare, StarterShares, read_quantity};
use crate::coefficient::Coefficients;
use crate::flour::Species;
use crate::units::{DecimalMark, Estimate, NumberRange, RawNumber, ValidationErrors};

/// Most lines.
const MOST: usize = 60;

/// One ingredient with its quantity as it was written.
#[derive(Debug, Clone, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AmountLine {
    pub ingredient: Ingredient,
    /// Of a flour: which, by its name; the product's own if left out.
    #[serde(default)]
    pub flour: Option<String>,
    /// As people write it: 500 g, 2 1/3 cup, 1½ tsp, 3 lb 4 oz.
    #[serde(default)]
    pub amount: String,
}

/// A starter with its quantity as it was written, or its share in some convention.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct StarterAmount {
    #[serde(default)]
    pub amount: String,
    /// In place of an amount: more than 0, up to 400 %, by `convention`.
    #[serde(default)]
    pub pct: RawNumber,
    #[serde(default)]
    pub convention: Option<StarterConvention>,
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
    /// Whether the water that is stated is all of it, the starter's among it.
    #[serde(default)]
    pub water_is_total: bool,
    /// What a mark that could be either is: the one before the decimals; refused if left out.
    #[serde(default)]
    pub decimal_mark: Option<DecimalMark>,
}

/// What a flour is as far as a cup goes.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct CupFlour {
    pub species: Species,
    pub whole: bool,
}

impl CupFlour {
    /// By its grain, and how much of that it is.
    pub fn of(species: Species, extraction_pct: Option<f64>) -> Self {
        let whole = extraction_pct.is_some_and(|pct| pct >= c::WHOLE_FROM.value);
        Self { species, whole }
    }

    /// A litre of it as a cup takes it up, kg; none where it is as the library says of white wheat.
    fn kg_per_l(self, coefficients: &Coefficients) -> Option<Estimate> {
        let grams = match self.species {
            Species::Wheat if self.whole => &c::CUP_WHOLE_WHEAT,
            Species::Wheat => return None,
            Species::Rye => &c::CUP_RYE,
            Species::Spelt => &c::CUP_SPELT,
            Species::Durum | Species::Khorasan => &c::CUP_DURUM,
            Species::Emmer | Species::Einkorn => &c::CUP_OLD_WHEAT,
            Species::GlutenFree | Species::LowStarch => &c::CUP_GLUTEN_FREE,
        };
        Some(coefficients.band(grams).times(1.0 / CUP_ML))
    }
}

/// One of several flours understood.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FlourRead {
    pub name: String,
    /// Of the flour that is weighed; a starter's is of the first.
    pub share_pct: f64,
}

/// One ingredient understood.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AmountRead {
    pub ingredient: Ingredient,
    /// Of a flour, which.
    pub flour: Option<String>,
    pub label: String,
    /// Kilos, with what they may be; what stands twice is added up.
    pub kg: Estimate,
    /// Percent on all flour, the starter's counted in.
    pub pct: f64,
}

/// A dough by amounts as baker's percent, with how sure that is.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AmountsRead {
    pub lines: Vec<AmountRead>,
    /// The flours where any is named, the one there is most of first.
    pub flours: Vec<FlourRead>,
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

/// A US cup, ml.
const CUP_ML: f64 = 236.588;
const SHARE: NumberRange =
    NumberRange::new("starter.pct", "share of the starter", "%", 0.01, 400.0);
const HYDRATION: NumberRange =
    NumberRange::new("starter.hydration_pct", "hydration of the starter", "%", 0.0, 500.0);

/// A line with its mass.
struct ReadLine {
    ingredient: Ingredient,
    flour: Option<String>,
    kg: Estimate,
}

impl ByAmount {
    /// Reads the amounts, counts a starter into flour and water, and carries what a cup may hold
    /// through to hydration: its low is the least water on the most flour. `flour_of` knows the
    /// plant's flours by their names.
    pub fn read(
        &self,
        library: &Library,
        coefficients: &Coefficients,
        flour_of: &dyn Fn(&str) -> Option<CupFlour>,
    ) -> Result<AmountsRead, ValidationErrors> {
        let mut faults = ValidationErrors::default();
        if self.lines.len() > MOST {
            faults.push("lines", format!("up to {MOST} lines; {} were given", self.lines.len()));
            return Err(faults);
        }
        let mut read = self.read_lines(library, coefficients, flour_of, &mut faults);
        let weighed = read.iter().fold(NOTHING.0, |all, line| plus(all, line.kg));
        let flour_in = total(&read, Ingredient::Flour);
        let starter = self.starter.as_ref().and_then(|starter| {
            let basis = StarterBasis { flour: flour_in, weighed, mark: self.decimal_mark };
            read_starter(starter, &basis, coefficients, &mut faults)
        });
        let (early_flour, preferment_water) = starter.map_or(NOTHING, |(kg, hydration)| {
            let swollen = 1.0 + hydration / 100.0;
            (kg.times(1.0 / swollen), kg.times(hydration / 100.0 / swollen))
        });
        if self.water_is_total {
            self.take_off_starter_water(&mut read, preferment_water, &mut faults);
        }
        let flour_kg = plus(flour_in, early_flour);
        if faults.0.is_empty() && flour_kg.low <= 0.0 {
            faults.push("lines", "there is no flour, so nothing is in percent of it");
        }
        faults.or(())?;

        let water = plus(total(&read, Ingredient::Water), preferment_water);
        let effective = read.iter().fold(preferment_water, |all, line| {
            plus(all, line.kg.times(library.properties(line.ingredient).water_pct / 100.0))
        });
        let all = starter.map_or(NOTHING.0, |(kg, _)| kg);
        let dough_kg = read.iter().fold(all, |all, line| plus(all, line.kg));
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
        let label = |ingredient| library.properties(ingredient).label.to_string();
        Ok(AmountsRead {
            flours: flours(&read, flour_in.typical),
            lines: read
                .iter()
                .map(|ReadLine { ingredient, flour, kg }| AmountRead {
                    ingredient: *ingredient,
                    label: flour.clone().unwrap_or_else(|| label(*ingredient)),
                    flour: flour.clone(),
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

    /// Each ingredient with its mass, what stands twice added up; what cannot be read is a fault.
    fn read_lines(
        &self,
        library: &Library,
        coefficients: &Coefficients,
        flour_of: &dyn Fn(&str) -> Option<CupFlour>,
        faults: &mut ValidationErrors,
    ) -> Vec<ReadLine> {
        let mut read: Vec<ReadLine> = Vec::with_capacity(self.lines.len());
        for (at, line) in self.lines.iter().enumerate() {
            let mut properties = library.properties(line.ingredient).clone();
            let flour = line
                .flour
                .clone()
                .filter(|name| line.ingredient == Ingredient::Flour && !name.trim().is_empty());
            if let Some(name) = &flour {
                if let Some(kind) = flour_of(name) {
                    properties.kg_per_l = kind.kg_per_l(coefficients).or(properties.kg_per_l);
                } else {
                    let message = format!("no flour here is called {name}");
                    faults.push(format!("lines[{at}].flour"), message);
                }
            }
            match read_quantity(&line.amount, &properties, self.decimal_mark) {
                Ok(kg) => {
                    let same = |one: &&mut ReadLine| {
                        one.ingredient == line.ingredient && one.flour == flour
                    };
                    match read.iter_mut().find(same) {
                        Some(one) => one.kg = plus(one.kg, kg),
                        None => read.push(ReadLine { ingredient: line.ingredient, flour, kg }),
                    }
                }
                Err(error) => faults.push(format!("lines[{at}].amount"), error.to_string()),
            }
        }
        read
    }

    /// What of the stated water is poured beside the starter's.
    fn take_off_starter_water(
        &self,
        read: &mut [ReadLine],
        starter: Estimate,
        faults: &mut ValidationErrors,
    ) {
        let at = self.lines.iter().position(|line| line.ingredient == Ingredient::Water);
        let water = read.iter_mut().find(|line| line.ingredient == Ingredient::Water);
        match (water, at) {
            (Some(water), _) if water.kg.typical >= starter.typical => {
                let kg = water.kg;
                water.kg = Estimate::new(
                    kg.typical - starter.typical,
                    (kg.low - starter.high).max(0.0),
                    kg.high - starter.low,
                );
            }
            (Some(_), Some(at)) => faults.push(
                format!("lines[{at}].amount"),
                format!("the starter alone brings {:.3} kg of water", starter.typical),
            ),
            _ => {}
        }
    }
}

fn total(read: &[ReadLine], of: Ingredient) -> Estimate {
    let all = read.iter().filter(|line| line.ingredient == of);
    all.fold(NOTHING.0, |sum, line| plus(sum, line.kg))
}

/// The shares of the flours where any is named; what is not is the product's own, without a name.
fn flours(read: &[ReadLine], all_kg: f64) -> Vec<FlourRead> {
    let weighed = read.iter().filter(|line| line.ingredient == Ingredient::Flour);
    let mut flours: Vec<FlourRead> = weighed
        .map(|line| FlourRead {
            name: line.flour.clone().unwrap_or_default(),
            share_pct: 100.0 * line.kg.typical / all_kg,
        })
        .collect();
    if flours.iter().all(|flour| flour.name.is_empty()) {
        return Vec::new();
    }
    flours.sort_by(|one, other| other.share_pct.total_cmp(&one.share_pct));
    flours
}

const NOTHING: (Estimate, Estimate) = (Estimate::new(0.0, 0.0, 0.0), Estimate::new(0.0, 0.0, 0.0));

/// What a starter's share is of.
struct StarterBasis {
    flour: Estimate,
    weighed: Estimate,
    mark: Option<DecimalMark>,
}

impl StarterBasis {
    /// So much starter, kg: a share of the flour, of the flour weighed beside it, or of the dough.
    fn kg(&self, convention: StarterConvention, pct: f64, hydration_pct: f64) -> Option<Estimate> {
        let (share, swollen) = (pct / 100.0, 1.0 + hydration_pct / 100.0);
        match convention {
            StarterConvention::OnFinalFlour => Some(self.flour.times(share)),
            StarterConvention::PrefermentedFlour if share < 1.0 => {
                Some(self.flour.times(share * swollen / (1.0 - share)))
            }
            StarterConvention::OfDough if share < 1.0 => {
                Some(self.weighed.times(share / (1.0 - share)))
            }
            _ => None,
        }
    }
}

fn read_starter(
    starter: &StarterAmount,
    basis: &StarterBasis,
    coefficients: &Coefficients,
    faults: &mut ValidationErrors,
) -> Option<(Estimate, f64)> {
    let hydration = HYDRATION.check_or(&starter.hydration_pct, 100.0, "", faults);
    if let Some(pct) = SHARE.check_opt(&starter.pct, "", faults) {
        let convention = starter.convention.unwrap_or(StarterConvention::OnFinalFlour);
        let kg = basis.kg(convention, pct, hydration);
        if kg.is_none() {
            faults.push("starter.pct", format!("{pct} % leaves no flour beside the starter"));
        }
        return kg.map(|kg| (kg, hydration));
    }
    let mut properties = Library::default().properties(Ingredient::Flour).clone();
    properties.kg_per_l = Some(coefficients.band(&c::STARTER_KG_PER_L));
    match read_quantity(&starter.amount, &properties, basis.mark) {
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
