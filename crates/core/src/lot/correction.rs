use serde::{Deserialize, Serialize};
use thiserror::Error;

use crate::coefficient::{Coefficient, Coefficients, Derivation, DerivationInput, Origin};
use crate::dough::Ingredient;
use crate::flour::coefficients::{
    GLUTEN_PROTEIN, LESS_ASH, LESS_FALLING_NUMBER, MALT_LIQUEFACTION, MORE_PROTEIN, WHITE_ASH,
};
use crate::flour::{
    LEAST_FALLING_NUMBER_S, MoistureBasis, Property, Readings, SIEVE_PASSES, SievePass, Sift,
    SiftMiss, SiftTarget, liquefaction,
};
use crate::plant::PlantParameters;

/// A way of mending a flour, and what it is to reach.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(tag = "remedy", rename_all = "snake_case")]
pub enum CorrectionInput {
    VitalGluten {
        protein_14_pct: f64,
    },
    Malt {
        falling_number_s: f64,
    },
    Sieve {
        ash_dm_pct: f64,
    },
    /// White flour of this ash in place of part of this one.
    PartWhite {
        ash_dm_pct: f64,
        white_ash_dm_pct: f64,
    },
}

/// Why a flour cannot be mended that way.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum CorrectionError {
    #[error(
        "vital gluten raises protein from {has:.1} % up to below {most:.0} %; {wanted} % is not between"
    )]
    Protein { has: f64, most: f64, wanted: f64 },
    #[error(
        "malt lowers the falling number from {has:.0} s down to above {LEAST_FALLING_NUMBER_S} s; {wanted} s is not between"
    )]
    FallingNumber { has: f64, wanted: f64 },
    #[error("{0}")]
    Sieve(SiftMiss),
    #[error(
        "{wanted} % of ash does not lie between the white flour's {white} % and this one's {has:.2} %"
    )]
    Ash { has: f64, white: f64, wanted: f64 },
}

/// What a correction is begun with: a little beyond what the lot has; none where the lot does not
/// state it.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CorrectionTargets {
    pub protein_14_pct: Option<f64>,
    pub falling_number_s: Option<f64>,
    pub ash_dm_pct: Option<f64>,
    /// Of the white flour that would take its place in part.
    pub white_ash_dm_pct: f64,
}

impl CorrectionTargets {
    /// Protein so much higher, falling number so much lower, ash a share of what it is (H).
    pub fn of(readings: &Readings, coefficients: &Coefficients) -> Self {
        let here = |coefficient| coefficients.value(coefficient);
        let round = |value: f64, parts: f64| (value * parts).round() / parts;
        let has = |property, basis| readings.value(property, basis);
        Self {
            protein_14_pct: has(Property::Protein, Some(MoistureBasis::Fourteen))
                .map(|protein| round(protein + here(&MORE_PROTEIN), TENTHS)),
            falling_number_s: has(Property::FallingNumber, None)
                .map(|falling| round(falling - here(&LESS_FALLING_NUMBER), 1.0)),
            ash_dm_pct: has(Property::Ash, Some(MoistureBasis::DryMatter))
                .map(|ash| round(ash * here(&LESS_ASH) / 100.0, HUNDREDTHS)),
            white_ash_dm_pct: here(&WHITE_ASH),
        }
    }
}

/// How finely a target is begun.
const TENTHS: f64 = 10.0;
const HUNDREDTHS: f64 = 100.0;

/// How much of a remedy, and what comes with it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Correction {
    pub amount_of: AmountOf,
    pub amount_pct: f64,
    pub low_pct: f64,
    pub high_pct: f64,
    /// Flour left of 100 put in; above 100 where something is added.
    pub yield_pct: f64,
    /// What the water does, in points.
    pub water_points: f64,
    pub water_low: f64,
    pub water_high: f64,
    pub message: Corrected,
    pub passes: Vec<SievePass>,
    pub why: Derivation,
}

/// What the figure of a correction counts.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum AmountOf {
    OnFlour,
    TakenOff,
    Replaced,
}

/// What a correction does; percents, the falling number in s.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Corrected {
    Protein { gluten_pct: f64, has_pct: f64, wanted_pct: f64 },
    FallingNumber { malt_pct: f64, has_s: f64, wanted_s: f64 },
    Replaced { share_pct: f64, white_ash_pct: f64, wanted_pct: f64 },
    Sieved { taken_off_pct: f64, has_pct: f64, wanted_pct: f64, left_pct: f64, by: SievedBy },
}

/// Which passes take off about as much.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum SievedBy {
    LessThanOnePass,
    MoreThanAll,
    About(SievePass),
}

impl CorrectionInput {
    /// The property it mends, and the basis it counts on.
    pub const fn property(self) -> (Property, Option<MoistureBasis>) {
        match self {
            Self::VitalGluten { .. } => (Property::Protein, Some(MoistureBasis::Fourteen)),
            Self::Malt { .. } => (Property::FallingNumber, None),
            Self::Sieve { .. } | Self::PartWhite { .. } => {
                (Property::Ash, Some(MoistureBasis::DryMatter))
            }
        }
    }

    /// Computes the remedy for a flour that has so much of its property, by mass balance.
    ///
    /// Vital gluten: `x = (wanted − has)/(gluten − wanted)` of protein on 14 %, on flour. Malt: the
    /// same of liquefaction plant. Sieving: see [`Sift::balance`]. Part white:
    /// `x = (ash − wanted)/(ash − white)`. What rests on a house default has its range; the water
    /// goes by what the plant knows of ash and of gluten.
    ///
    /// ```
    /// use ironpeel_core::{lot::CorrectionInput, plant::PlantParameters};
    /// let plant = PlantParameters::default();
    /// let gluten = CorrectionInput::VitalGluten { protein_14_pct: 14.0 }.of(12.0, &plant)?;
    /// assert!((gluten.amount_pct - 100.0 * 2.0 / 61.0).abs() < 1e-9);
    /// # Ok::<(), ironpeel_core::lot::CorrectionError>(())
    /// ```
    pub fn of(self, has: f64, plant: &PlantParameters) -> Result<Correction, CorrectionError> {
        match self {
            Self::VitalGluten { protein_14_pct } => vital_gluten(has, protein_14_pct, plant),
            Self::Malt { falling_number_s } => malt(has, falling_number_s, plant),
            Self::Sieve { ash_dm_pct } => sieve(has, ash_dm_pct, plant),
            Self::PartWhite { ash_dm_pct, white_ash_dm_pct } => {
                part_white(has, ash_dm_pct, white_ash_dm_pct, &plant.model.per_ash())
            }
        }
    }
}

fn vital_gluten(
    has: f64,
    wanted: f64,
    plant: &PlantParameters,
) -> Result<Correction, CorrectionError> {
    let protein = plant.coefficients.effective(&GLUTEN_PROTEIN);
    let most = protein.low;
    if !(wanted > has && wanted < most) {
        return Err(CorrectionError::Protein { has, most, wanted });
    }
    let on_flour = |gluten: f64| 100.0 * (wanted - has) / (gluten - wanted);
    let amount = [protein.value, protein.high, protein.low].map(on_flour);
    let message = Corrected::Protein { gluten_pct: amount[0], has_pct: has, wanted_pct: wanted };
    let gluten_water = gluten_water(plant);
    let water = gluten_water.as_ref().map_or([0.0; 3], |per| points(per, amount[0]));
    let why = Derivation {
        formula: "gluten on flour = (wanted − has) / (protein of gluten − wanted)",
        inputs: vec![
            DerivationInput::new("protein on 14 %", has, "%"),
            DerivationInput::new("protein wanted", wanted, "%"),
        ],
        coefficients: std::iter::once(protein).chain(gluten_water).collect(),
    };
    Ok(Correction {
        yield_pct: 100.0 + amount[0],
        ..mended(AmountOf::OnFlour, amount, water, message, why)
    })
}

fn malt(has: f64, wanted: f64, plant: &PlantParameters) -> Result<Correction, CorrectionError> {
    if !(wanted < has && wanted > LEAST_FALLING_NUMBER_S) {
        return Err(CorrectionError::FallingNumber { has, wanted });
    }
    let number = plant.coefficients.effective(&MALT_LIQUEFACTION);
    let (has_ln, wanted_ln) = (liquefaction(has), liquefaction(wanted));
    let on_flour = |malt: f64| 100.0 * (wanted_ln - has_ln) / (malt - wanted_ln);
    let amount = [number.value, number.high, number.low].map(on_flour);
    let message = Corrected::FallingNumber { malt_pct: amount[0], has_s: has, wanted_s: wanted };
    let why = Derivation {
        formula: "LN = 6000/(FN − 50); malt on flour = (LN wanted − LN) / (LN of malt − LN wanted)",
        inputs: vec![
            DerivationInput::new("falling number", has, "s"),
            DerivationInput::new("falling number wanted", wanted, "s"),
        ],
        coefficients: vec![number],
    };
    Ok(Correction {
        yield_pct: 100.0 + amount[0],
        ..mended(AmountOf::OnFlour, amount, [0.0; 3], message, why)
    })
}

fn part_white(
    has: f64,
    wanted: f64,
    white: f64,
    per_ash: &Coefficient,
) -> Result<Correction, CorrectionError> {
    if !(white < wanted && wanted < has) {
        return Err(CorrectionError::Ash { has, white, wanted });
    }
    let share = 100.0 * (has - wanted) / (has - white);
    let message =
        Corrected::Replaced { share_pct: share, white_ash_pct: white, wanted_pct: wanted };
    let water = points(per_ash, wanted - has);
    let why = Derivation {
        formula: "share replaced = (ash − wanted) / (ash − white flour's ash)",
        inputs: vec![
            DerivationInput::new("ash on dry matter", has, "%"),
            DerivationInput::new("ash wanted", wanted, "%"),
            DerivationInput::new("white flour's ash", white, "%"),
        ],
        coefficients: vec![per_ash.clone()],
    };
    Ok(mended(AmountOf::Replaced, [share; 3], water, message, why))
}

fn sieve(has: f64, wanted: f64, plant: &PlantParameters) -> Result<Correction, CorrectionError> {
    let sifted =
        Sift { ash_dm_pct: has, bran_ash_dm_pct: None, wanted: SiftTarget::AshDmPct(wanted) };
    let sifted = sifted.balance(&plant.coefficients);
    let per_ash = plant.model.per_ash();
    if let Some(reason) = sifted.reason {
        return Err(CorrectionError::Sieve(reason));
    }
    let by = match sifted.passes.as_slice() {
        [] if sifted.removed_pct < SIEVE_PASSES[0].removed_low_pct => SievedBy::LessThanOnePass,
        [] => SievedBy::MoreThanAll,
        [pass, ..] => SievedBy::About(*pass),
    };
    let message = Corrected::Sieved {
        taken_off_pct: sifted.removed_pct,
        has_pct: has,
        wanted_pct: wanted,
        left_pct: sifted.extraction_pct,
        by,
    };
    let water = points(&per_ash, wanted - has);
    let mut why = sifted.why;
    why.coefficients.push(per_ash);
    let amount = [sifted.removed_pct, sifted.low_pct, sifted.high_pct];
    Ok(Correction {
        yield_pct: sifted.extraction_pct,
        passes: sifted.passes,
        ..mended(AmountOf::TakenOff, amount, water, message, why)
    })
}

/// Points of water that go with a change: typical, low, high.
fn points(per: &Coefficient, change: f64) -> [f64; 3] {
    [per.value, per.low, per.high].map(|per| per * change)
}

/// Water 1 % of vital gluten takes, by the library; none where that is switched off.
fn gluten_water(plant: &PlantParameters) -> Option<Coefficient> {
    let properties = plant.library.properties(Ingredient::VitalGluten);
    let points = properties.effect.as_ref()?.points;
    let source = match properties.origin {
        Origin::Plant => "the plant's own",
        _ => "usual in practice",
    };
    let band = (points.typical, points.low, points.high);
    let name = "water per 1 % vital gluten";
    let house = Coefficient::house("vital_gluten_water", name, band, "points", source);
    Some(house.as_found(points, properties.origin, source))
}

fn mended(
    amount_of: AmountOf,
    [amount_pct, one, other]: [f64; 3],
    [water_points, wet, dry]: [f64; 3],
    message: Corrected,
    why: Derivation,
) -> Correction {
    Correction {
        amount_of,
        amount_pct,
        low_pct: one.min(other),
        high_pct: one.max(other),
        yield_pct: 100.0,
        water_points,
        water_low: wet.min(dry),
        water_high: wet.max(dry),
        message,
        passes: Vec::new(),
        why,
    }
}
