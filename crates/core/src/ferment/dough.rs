use super::Kinetics;
use super::coefficients as c;
use crate::coefficient::{Coefficients, Derivation, DerivationInput};
use crate::dough::coefficients::DOUGH_SPECIFIC_HEAT;
use crate::flour::liquefaction;
use crate::units::G_PER_KG;

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
    /// The plant's numbers of fermentation.
    pub kinetics: Kinetics,
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
    kinetics: Kinetics,
    yeast_pct: f64,
    lag_h: f64,
    /// `rate · gas · f_salt · f_sugar · f_water`, ml gas per g flour, hour and unit of culture.
    gas: f64,
    /// `starch · a`, per hour.
    starch: f64,
    /// `rate · growth`, per hour.
    growth: f64,
    /// Hours in which the dough comes to within a third of what is around it.
    tau_h: f64,
    /// Warming per ml of gas, °C.
    warming: f64,
    /// Rise for each ml of gas, %.
    pub rise: f64,
}

/// Speed at the best temperature beside that at 28.5 °C, and a margin.
const FASTEST: f64 = 1.5;
/// A body's surface grows with this power of its mass.
const SURFACE: f64 = 2.0 / 3.0;

/// The hours in which a dough of so many kilos comes two thirds of the way to what is around it:
/// `m^⅔`.
///
/// ```
/// use ironpeel_core::ferment::cooling_h;
/// assert!((cooling_h(8.0) - 4.0).abs() < 1e-9);
/// ```
pub fn cooling_h(mass_kg: f64) -> f64 {
    mass_kg.powf(SURFACE)
}

impl FermentingDough {
    pub(super) fn start(&self) -> State {
        State {
            gas_ml: 0.0,
            sugar_g: self.kinetics.own_sugar + self.sugar_pct / 100.0,
            damaged_g: self.damaged_starch_pct / 100.0,
            culture: self.culture(),
            dough_c: self.start_c,
        }
    }

    /// The culture it begins with: of its most a share for each percent of prefermented flour (H).
    pub(super) fn culture(&self) -> f64 {
        (self.kinetics.culture_per_sour * self.sour_pct * self.sour_activity).min(1.0)
    }

    /// What salt and sugar leave of the yeast's speed: `f_salt·f_sugar`.
    pub fn osmotic_load(&self) -> f64 {
        let k = &self.kinetics;
        let salt = (1.0 + k.salt_slows * (c::SALT_AT.value - self.salt_pct)).max(k.slowest);
        let sweet = (self.sugar_pct - k.sugar_from).max(0.0);
        salt * (1.0 - k.sugar_slows * sweet).max(k.slowest)
    }

    pub(super) fn constants(&self) -> Constants {
        let k = &self.kinetics;
        let wet = 1.0 + k.water_quickens * (self.hydration_pct - c::WATER_AT.value);
        let water = wet.max(k.water_least).min(k.water_most);
        let flour = 1.0 / (1.0 + (self.hydration_pct + self.salt_pct + self.sugar_pct) / 100.0);
        let amylase = (liquefaction(self.falling_number_s) / c::AMYLASE_AT.value)
            .max(k.amylase_least)
            .min(k.amylase_most);
        Constants {
            kinetics: self.kinetics,
            yeast_pct: self.yeast_idy_pct,
            lag_h: self.lag_h,
            gas: self.rate * k.gas * self.osmotic_load() * water,
            starch: k.starch * amylase,
            growth: self.rate * k.sour_growth,
            tau_h: cooling_h(self.mass_kg),
            warming: c::HEAT_OF_GAS.value / (k.specific_heat / G_PER_KG / flour),
            rise: 100.0 * self.retention * k.density * flour,
        }
    }
}

impl FermentingDough {
    /// What a rise of this dough rests on.
    pub fn why(&self, coefficients: &Coefficients) -> Derivation {
        let here = |coefficient| coefficients.effective(coefficient);
        Derivation {
            formula: "dG/dt = rate · gas · (yeast · r(T) · (1 − e^(−t/lag)) + sour · r(T)) · \
                      s/(half-saturation + s) · salt · sugar · water; rise = 100 · retention · G · \
                      density, up to what the film holds; then it drops to what it keeps",
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
                DerivationInput::new("gas kept, by flour share", self.retention, ""),
                DerivationInput::new("lag of the yeast", self.lag_h, "h"),
            ],
            coefficients: [
                &c::GAS,
                &c::STARCH,
                &c::SOUR_GROWTH,
                &c::CULTURE_PER_SOUR,
                &c::HALF_SUGAR,
                &c::GAS_OF_SUGAR,
                &c::DENSITY,
                &c::FILM_KEEPS,
                &c::YEAST_BEST_C,
                &c::SOUR_BEST_C,
                &DOUGH_SPECIFIC_HEAT,
            ]
            .map(here)
            .into(),
        }
    }
}

impl Constants {
    /// The fastest that anything can change, per hour: sugar running out, or the temperature.
    pub fn stiffness(&self, culture: f64) -> f64 {
        let living = (self.yeast_pct + culture) * FASTEST;
        self.gas * living / (self.kinetics.gas_of_sugar * self.kinetics.half_sugar)
            + 1.0 / self.tau_h
    }

    /// How fast everything changes, per hour, `at_h` hours after the yeast met water.
    pub fn slope(&self, at_h: f64, now: &State, ambient_c: f64) -> State {
        let Kinetics { yeast, sour, half_sugar, gas_of_sugar, .. } = self.kinetics;
        let yeast = yeast.speed(now.dough_c);
        let awake = if self.lag_h > 0.0 { 1.0 - (-at_h / self.lag_h).exp() } else { 1.0 };
        let living = self.yeast_pct * yeast * awake + now.culture * sour.speed(now.dough_c);
        let sugar = now.sugar_g.max(0.0);
        let gas_ml = self.gas * living * sugar / (half_sugar + sugar);
        let damaged_g = -self.starch * now.damaged_g * yeast;
        State {
            gas_ml,
            sugar_g: -damaged_g - gas_ml / gas_of_sugar,
            damaged_g,
            culture: self.growth * sour.growth(now.dough_c) * now.culture * (1.0 - now.culture),
            dough_c: (ambient_c - now.dough_c) / self.tau_h + self.warming * gas_ml,
        }
    }
}
