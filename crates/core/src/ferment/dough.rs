use crate::flour::liquefaction;
use crate::units::{Coefficient, Derivation, DerivationInput, Origin};

/// A dough as far as its fermentation cares.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FermentingDough {
    /// Instant dry yeast on flour, %; another form in what it is worth.
    pub yeast_idy_pct: f64,
    /// Prefermented flour of the sour, % of all flour.
    pub sour_pct: f64,
    /// How lively the sour is beside a usual one.
    pub sour_activity: f64,
    pub salt_pct: f64,
    pub sugar_pct: f64,
    pub hydration_pct: f64,
    pub damaged_starch_pct: f64,
    pub falling_number_s: f64,
    pub start_c: f64,
    /// Of one mass that keeps its heat together: a trough, a tub, a piece.
    pub mass_kg: f64,
    /// Share of the gas that is kept.
    pub retention: f64,
    /// Speed beside what the house expects; fitted from readings.
    pub rate: f64,
    /// In which the yeast wakes by two thirds, counted from its own wetting.
    pub lag_h: f64,
    /// What the film holds, %; none where nothing is known to end its rise.
    pub rise_limit_pct: Option<f64>,
}

/// What a dough is at a moment: gas, ml, and sugar, damaged starch and culture, g, each per gram
/// of flour, and its temperature.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct State {
    pub gas_ml: f64,
    pub sugar_g: f64,
    pub damaged_g: f64,
    pub culture: f64,
    pub dough_c: f64,
}

impl State {
    pub fn plus(self, slope: Self, hours: f64) -> Self {
        Self {
            gas_ml: self.gas_ml + hours * slope.gas_ml,
            sugar_g: self.sugar_g + hours * slope.sugar_g,
            damaged_g: self.damaged_g + hours * slope.damaged_g,
            culture: self.culture + hours * slope.culture,
            dough_c: self.dough_c + hours * slope.dough_c,
        }
    }
}

/// What stays the same over a fermentation. House defaults, shaped by published kinetics.
#[derive(Debug, Clone, Copy)]
pub(super) struct Constants {
    yeast_pct: f64,
    lag_h: f64,
    /// `rate · 2.22 · f_salt · f_sugar · f_water`, ml gas per g flour, hour and unit of culture.
    gas: f64,
    /// `0.10 · a`, per hour.
    starch: f64,
    /// `rate · 0.42`, per hour.
    growth: f64,
    /// Hours in which the dough comes to within a third of what is around it.
    tau_h: f64,
    /// Warming per ml of gas, °C.
    warming: f64,
    /// Rise for each ml of gas, %.
    pub rise: f64,
}

/// Flour's own sugar, g per g (H).
const OWN_SUGAR: f64 = 0.012;
/// Gas one gram of sugar gives, ml.
const ML_PER_G_SUGAR: f64 = 272.0;
/// Half-saturation of sugar, g per g flour (H).
const HALF_SUGAR: f64 = 0.004;
/// Yeast set into a sponge wakes with this, hours (H).
pub const SPONGE_LAG_H: f64 = 0.25;
/// Culture in a dough for each percent of prefermented flour (H): doughs timed by bakers were ready
/// in half to two thirds of the hours that 0.002 gave.
const CULTURE: f64 = 0.004;

/// Speed at the best temperature beside that at 28.5 °C, and a margin.
const FASTEST: f64 = 1.5;

impl FermentingDough {
    pub(super) fn start(&self) -> State {
        State {
            gas_ml: 0.0,
            sugar_g: OWN_SUGAR + self.sugar_pct / 100.0,
            damaged_g: self.damaged_starch_pct / 100.0,
            culture: self.culture(),
            dough_c: self.start_c,
        }
    }

    /// The culture it begins with: of its most a share for each percent of prefermented flour (H).
    pub(super) fn culture(&self) -> f64 {
        (CULTURE * self.sour_pct * self.sour_activity).min(1.0)
    }

    pub(super) fn constants(&self) -> Constants {
        let salt = (1.0 + 0.09 * (2.0 - self.salt_pct)).max(0.3);
        let sugar = (1.0 - 0.04 * (self.sugar_pct - 5.0).max(0.0)).max(0.3);
        let water = (1.0 + 0.01 * (self.hydration_pct - 62.0)).clamp(0.8, 1.25);
        let flour = 1.0 / (1.0 + (self.hydration_pct + self.salt_pct + self.sugar_pct) / 100.0);
        let amylase = (liquefaction(self.falling_number_s) / 24.0).clamp(0.3, 3.0);
        Constants {
            yeast_pct: self.yeast_idy_pct,
            lag_h: self.lag_h,
            gas: self.rate * GAS * salt * sugar * water,
            starch: STARCH * amylase,
            growth: self.rate * GROWTH,
            tau_h: self.mass_kg.powf(2.0 / 3.0),
            warming: 0.002_39 / (0.002_8 / flour),
            rise: 100.0 * self.retention * 1.15 * flour,
        }
    }
}

/// Gas an instant yeast of 1 % gives at 28.5 °C, ml per g flour and hour (H).
const GAS: f64 = 2.22;
/// Damaged starch turned to sugar, per hour (H), and growth of a sour at its best, per hour (H).
const STARCH: f64 = 0.10;
const GROWTH: f64 = 0.42;

impl FermentingDough {
    /// What a rise of this dough rests on.
    pub fn why(&self) -> Derivation {
        let house = |name, value: f64, low: f64, high: f64, unit, source| {
            Coefficient::house(name, value, low, high, unit, source)
        };
        Derivation {
            formula: "dG/dt = rate · 2.22 · (yeast · r(T) · (1 − e^(−t/lag)) + sour · r(T)) · \
                      s/(0.004 + s) · salt · sugar · water; rise = 100 · retention · G / (0.87 ml/g \
                      of dough), up to what the film holds; then it drops to 0.6 of that",
            inputs: vec![
                DerivationInput::new("yeast, as instant", self.yeast_idy_pct, "% of its flour"),
                DerivationInput::new("flour of the sour", self.sour_pct, "% of the flour"),
                DerivationInput::new("salt", self.salt_pct, "%"),
                DerivationInput::new("sugar", self.sugar_pct, "%"),
                DerivationInput::new("water", self.hydration_pct, "%"),
                DerivationInput::new("damaged starch", self.damaged_starch_pct, "%"),
                DerivationInput::new("falling number", self.falling_number_s, "s"),
                DerivationInput::new("begins at", self.start_c, "°C"),
                DerivationInput::new("keeps its heat as one mass of", self.mass_kg, "kg"),
            ],
            coefficients: vec![
                house(
                    "gas",
                    GAS,
                    1.8,
                    2.7,
                    "ml/g·h",
                    "shaped by published kinetics; your jar corrects it",
                ),
                house(
                    "damaged starch to sugar",
                    STARCH,
                    0.05,
                    0.2,
                    "1/h",
                    "shaped by published kinetics",
                ),
                house("growth of a sour", GROWTH, 0.3, 0.55, "1/h", "shaped by published kinetics"),
                house(
                    "gas kept",
                    self.retention,
                    self.retention - 0.1,
                    (self.retention + 0.1).min(1.0),
                    "",
                    "by the grain, by flour share",
                ),
                house(
                    "lag of the yeast",
                    self.lag_h,
                    self.lag_h * 0.6,
                    self.lag_h * 1.6,
                    "h",
                    "0.5 fresh in the dough, 0.35 with a head start, 0.25 in a sponge, 0.05 carried in",
                ),
                house(
                    "culture for each % of sour",
                    CULTURE,
                    0.002,
                    0.006,
                    "",
                    "three sour doughs timed by bakers",
                ),
                Coefficient::fixed(
                    "gas of a gram of sugar",
                    ML_PER_G_SUGAR,
                    "ml",
                    Origin::Physics,
                    "stoichiometry at room temperature",
                ),
                Coefficient::fixed(
                    "best temperature of yeast",
                    36.0,
                    "°C",
                    Origin::Standard,
                    "cardinal temperature model, Rosso 1993",
                ),
                Coefficient::fixed(
                    "best temperature of a sour",
                    31.0,
                    "°C",
                    Origin::Standard,
                    "cardinal temperature model, Rosso 1993",
                ),
            ],
        }
    }
}

impl Constants {
    /// The fastest that anything can change, per hour: sugar running out, or the temperature.
    pub fn stiffness(&self, culture: f64) -> f64 {
        let living = (self.yeast_pct + culture) * FASTEST;
        self.gas * living / (ML_PER_G_SUGAR * HALF_SUGAR) + 1.0 / self.tau_h
    }

    /// How fast everything changes, per hour, `at_h` hours after the yeast met water.
    pub fn slope(&self, at_h: f64, now: &State, ambient_c: f64) -> State {
        use super::Culture::{Sour, Yeast};
        let yeast = Yeast.speed(now.dough_c);
        let awake = if self.lag_h > 0.0 { 1.0 - (-at_h / self.lag_h).exp() } else { 1.0 };
        let living = self.yeast_pct * yeast * awake + now.culture * Sour.speed(now.dough_c);
        let sugar = now.sugar_g.max(0.0);
        let gas_ml = self.gas * living * sugar / (HALF_SUGAR + sugar);
        let damaged_g = -self.starch * now.damaged_g * yeast;
        State {
            gas_ml,
            sugar_g: -damaged_g - gas_ml / ML_PER_G_SUGAR,
            damaged_g,
            culture: self.growth * Sour.growth(now.dough_c) * now.culture * (1.0 - now.culture),
            dough_c: (ambient_c - now.dough_c) / self.tau_h + self.warming * gas_ml,
        }
    }
}
