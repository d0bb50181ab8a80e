use serde::{Deserialize, Serialize};

use super::coefficients as c;
use crate::coefficient::Coefficients;
use crate::units::{NumberRange, RawNumber, ValidationErrors};

/// What rounding may tear apart.
const SLACK: f64 = 1e-9;

/// What is lost between the mixer and the cooled loaf, in percent of what goes in. House defaults.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Losses {
    pub scaling_pct: f64,
    pub fermentation_pct: f64,
    pub bake_pct: f64,
    pub cooling_pct: f64,
}

/// Losses as they were typed; the house's where left out.
#[derive(Debug, Clone, Default, PartialEq, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct LossesInput {
    /// 0 to 20 %.
    #[serde(default)]
    pub scaling_pct: RawNumber,
    /// 0 to 20 %.
    #[serde(default)]
    pub fermentation_pct: RawNumber,
    /// 0 to 40 %.
    #[serde(default)]
    pub bake_pct: RawNumber,
    /// 0 to 20 %.
    #[serde(default)]
    pub cooling_pct: RawNumber,
}

const SCALING: NumberRange = NumberRange::new("scaling_pct", "scaling loss", "%", 0.0, 20.0);
const FERMENTATION: NumberRange =
    NumberRange::new("fermentation_pct", "fermentation loss", "%", 0.0, 20.0);
const BAKE: NumberRange = NumberRange::new("bake_pct", "bake loss", "%", 0.0, 40.0);
const COOLING: NumberRange = NumberRange::new("cooling_pct", "cooling loss", "%", 0.0, 20.0);

impl LossesInput {
    /// The losses inside their ranges, or faults under `at`.
    pub fn check(&self, otherwise: Losses, at: &str, faults: &mut ValidationErrors) -> Losses {
        Losses {
            scaling_pct: SCALING.check_or(&self.scaling_pct, otherwise.scaling_pct, at, faults),
            fermentation_pct: FERMENTATION.check_or(
                &self.fermentation_pct,
                otherwise.fermentation_pct,
                at,
                faults,
            ),
            bake_pct: BAKE.check_or(&self.bake_pct, otherwise.bake_pct, at, faults),
            cooling_pct: COOLING.check_or(&self.cooling_pct, otherwise.cooling_pct, at, faults),
        }
    }
}

impl Losses {
    /// Usual losses of a plant: of the house 0.5, 1, 12 and 1.5 %.
    pub fn usual(coefficients: &Coefficients) -> Self {
        Self {
            scaling_pct: coefficients.value(&c::SCALING_LOSS),
            fermentation_pct: coefficients.value(&c::FERMENTATION_LOSS),
            bake_pct: coefficients.value(&c::BAKE_LOSS),
            cooling_pct: coefficients.value(&c::COOLING_LOSS),
        }
    }

    /// The house's.
    pub fn house() -> Self {
        Self::usual(&Coefficients::default())
    }

    /// Share of the dough that reaches the pans as pieces.
    fn to_pieces(self) -> f64 {
        1.0 - self.scaling_pct / 100.0
    }

    /// Share of a scaled piece that is left when cool.
    pub fn to_cooled(self) -> f64 {
        [self.fermentation_pct, self.bake_pct, self.cooling_pct]
            .into_iter()
            .map(|pct| 1.0 - pct / 100.0)
            .product()
    }
}

/// How much is wanted.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(tag = "by", rename_all = "snake_case")]
pub enum Amount {
    /// So many pieces of the product's piece mass.
    Pieces { pieces: f64 },
    /// So many pieces that weigh so much when cool.
    Baked { pieces: f64, cooled_kg: f64 },
    /// So much dough.
    Dough { kg: f64 },
    /// So much flour.
    Flour { kg: f64 },
    /// So many full mixers.
    Mixer { doughs: f64 },
}

/// How much is wanted, as it was typed.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(tag = "by", rename_all = "snake_case")]
pub enum AmountInput {
    Pieces {
        #[serde(default)]
        pieces: RawNumber,
    },
    Baked {
        #[serde(default)]
        pieces: RawNumber,
        /// 0.002 to 20 kg.
        #[serde(default)]
        cooled_kg: RawNumber,
    },
    Dough {
        #[serde(default)]
        kg: RawNumber,
    },
    Flour {
        #[serde(default)]
        kg: RawNumber,
    },
    Mixer {
        #[serde(default)]
        doughs: RawNumber,
    },
}

const PIECES: NumberRange =
    NumberRange::new("amount.pieces", "number of pieces", "", 1.0, 1_000_000.0);
const DOUGH: NumberRange = NumberRange::new("amount.kg", "dough mass", "kg", 0.05, 100_000.0);
const FLOUR: NumberRange = NumberRange::new("amount.kg", "flour", "kg", 0.02, 100_000.0);
const COOLED: NumberRange =
    NumberRange::new("amount.cooled_kg", "a piece when cool", "kg", 0.002, 20.0);
const DOUGHS: NumberRange =
    NumberRange::new("amount.doughs", "number of full mixers", "", 1.0, 500.0);

impl AmountInput {
    /// The amount inside its range, or faults under `at`; pieces and mixers are whole.
    pub fn check(&self, at: &str, faults: &mut ValidationErrors) -> Amount {
        match self {
            Self::Pieces { pieces } => {
                Amount::Pieces { pieces: PIECES.check(pieces, at, faults).round() }
            }
            Self::Baked { pieces, cooled_kg } => Amount::Baked {
                pieces: PIECES.check(pieces, at, faults).round(),
                cooled_kg: COOLED.check(cooled_kg, at, faults),
            },
            Self::Dough { kg } => Amount::Dough { kg: DOUGH.check(kg, at, faults) },
            Self::Flour { kg } => Amount::Flour { kg: FLOUR.check(kg, at, faults) },
            Self::Mixer { doughs } => {
                Amount::Mixer { doughs: DOUGHS.check(doughs, at, faults).round() }
            }
        }
    }
}

/// A run scaled to equal doughs.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Scaled {
    /// All the dough of the run.
    pub total_kg: f64,
    pub doughs: u32,
    pub dough_kg: f64,
    /// Pieces the run makes, after scaling loss.
    pub pieces: u32,
    /// Of the run's dough, too little for another piece.
    pub left_over_kg: f64,
    pub piece_kg: f64,
    /// A piece when cool, after fermentation, bake and cooling loss.
    pub cooled_piece_kg: f64,
    /// Lost of the dough from the divider to the cooled bread.
    pub process_loss_pct: f64,
}

/// An amount to be scaled to doughs.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ScaleRequest {
    pub amount: Amount,
    /// A piece as it is divided, where the amount does not say it.
    pub piece_kg: f64,
    pub mixer_max_kg: f64,
    pub losses: Losses,
    /// The dough that 100 of flour make.
    pub total_pct: f64,
}

impl ScaleRequest {
    /// Scales the amount to equal doughs that fit the mixer.
    ///
    /// Pieces → dough: `pieces · piece / (1 − scaling loss)`; pieces of a wanted cool weight are
    /// scaled back through fermentation, bake and cooling loss first; flour → dough by `total_pct`.
    /// The run is split into the fewest equal doughs not above the mixer's most.
    ///
    /// ```
    /// use ironpeel_core::dough::{Amount, Losses, ScaleRequest};
    /// let asked = ScaleRequest {
    ///     amount: Amount::Pieces { pieces: 4000.0 }, piece_kg: 0.060, mixer_max_kg: 150.0,
    ///     losses: Losses::house(), total_pct: 165.0,
    /// };
    /// let run = asked.scale();
    /// assert_eq!(run.doughs, 2);
    /// assert!((run.dough_kg - 120.603).abs() < 0.001 && run.left_over_kg < 1e-6);
    /// let baked = Amount::Baked { pieces: 10.0, cooled_kg: 0.8 };
    /// let back = ScaleRequest { amount: baked, ..asked }.scale();
    /// assert!((back.piece_kg - 0.932).abs() < 0.001 && (back.cooled_piece_kg - 0.8).abs() < 1e-9);
    /// ```
    pub fn scale(self) -> Scaled {
        let Self { amount, piece_kg, mixer_max_kg, losses, total_pct } = self;
        let piece_kg = match amount {
            Amount::Baked { cooled_kg, .. } => cooled_kg / losses.to_cooled(),
            _ => piece_kg,
        };
        let total_kg = match amount {
            Amount::Pieces { pieces } | Amount::Baked { pieces, .. } => {
                pieces * piece_kg / losses.to_pieces()
            }
            Amount::Dough { kg } => kg,
            Amount::Flour { kg } => kg * total_pct / 100.0,
            Amount::Mixer { doughs } => doughs * mixer_max_kg,
        };
        // A hair of slack, so that a mixer filled to the brim is one dough and not two.
        let doughs = (total_kg / mixer_max_kg - SLACK).ceil().max(1.0);
        let divided_kg = total_kg * losses.to_pieces();
        let pieces = (divided_kg / piece_kg + SLACK).floor();
        Scaled {
            total_kg,
            doughs: doughs as u32,
            dough_kg: total_kg / doughs,
            pieces: pieces as u32,
            left_over_kg: (divided_kg - pieces * piece_kg).max(0.0),
            piece_kg,
            cooled_piece_kg: piece_kg * losses.to_cooled(),
            process_loss_pct: 100.0 * (1.0 - losses.to_pieces() * losses.to_cooled()),
        }
    }
}
