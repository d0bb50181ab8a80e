use super::coefficients::{self as c};
use super::culture::CardinalTemperatures;
use crate::coefficient::Coefficients;

/// The numbers of fermentation as they hold at a plant, taken together once so that a dough can be
/// followed step by step without looking them up.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Kinetics {
    pub(super) gas: f64,
    pub(super) starch: f64,
    pub(super) sour_growth: f64,
    pub(super) own_sugar: f64,
    pub(super) gas_of_sugar: f64,
    pub(super) half_sugar: f64,
    pub(super) culture_per_sour: f64,
    pub(super) flour_ph: f64,
    pub(super) ripe_ph: f64,
    pub(super) sours_early: f64,
    pub(super) salt_slows: f64,
    pub(super) sugar_slows: f64,
    pub(super) sugar_from: f64,
    pub(super) slowest: f64,
    pub(super) water_quickens: f64,
    pub(super) water_least: f64,
    pub(super) water_most: f64,
    pub(super) amylase_least: f64,
    pub(super) amylase_most: f64,
    pub(super) density: f64,
    pub(super) specific_heat: f64,
    pub(super) film_keeps: f64,
    pub(super) film_falls_h: f64,
    pub(super) yeast: CardinalTemperatures,
    pub(super) sour: CardinalTemperatures,
}

impl Kinetics {
    /// As they hold at a plant.
    pub fn of(coefficients: &Coefficients) -> Self {
        let of = |coefficient| coefficients.value(coefficient);
        Self {
            gas: of(&c::GAS),
            starch: of(&c::STARCH),
            sour_growth: of(&c::SOUR_GROWTH),
            own_sugar: of(&c::OWN_SUGAR),
            gas_of_sugar: of(&c::GAS_OF_SUGAR),
            half_sugar: of(&c::HALF_SUGAR),
            culture_per_sour: of(&c::CULTURE_PER_SOUR),
            flour_ph: of(&c::FLOUR_PH),
            ripe_ph: of(&c::RIPE_PH),
            sours_early: of(&c::SOURS_EARLY),
            salt_slows: of(&c::SALT_SLOWS),
            sugar_slows: of(&c::SUGAR_SLOWS),
            sugar_from: of(&c::SUGAR_FROM),
            slowest: of(&c::SLOWEST),
            water_quickens: of(&c::WATER_QUICKENS),
            water_least: of(&c::WATER_LEAST),
            water_most: of(&c::WATER_MOST),
            amylase_least: of(&c::AMYLASE_LEAST),
            amylase_most: of(&c::AMYLASE_MOST),
            density: of(&c::DENSITY),
            specific_heat: of(&crate::dough::coefficients::DOUGH_SPECIFIC_HEAT),
            film_keeps: of(&c::FILM_KEEPS),
            film_falls_h: of(&c::FILM_FALLS_H),
            yeast: CardinalTemperatures {
                lowest: of(&c::YEAST_LOWEST_C),
                best: of(&c::YEAST_BEST_C),
                highest: of(&c::YEAST_HIGHEST_C),
            },
            sour: CardinalTemperatures {
                lowest: of(&c::SOUR_LOWEST_C),
                best: of(&c::SOUR_BEST_C),
                highest: of(&c::SOUR_HIGHEST_C),
            },
        }
    }
}

impl Default for Kinetics {
    /// The house's.
    fn default() -> Self {
        Self::of(&Coefficients::default())
    }
}
