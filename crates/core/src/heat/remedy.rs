//! What to do where water and ice cannot reach the target.

use serde::Serialize;

/// What hot water and ice ask for at the mixer.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum HeatCaution {
    /// Water hotter than yeast may meet, °C.
    HotForYeast {
        limit_c: f64,
    },
    FlakeIce,
}

/// Why a target cannot be reached, with the dough's temperature at the nearest that can be had, °C.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Unreachable {
    /// No water is left to set it by: all goes in as warm as is stated, or none is wanted.
    NoWater {
        dough_c: f64,
    },
    NoIce {
        coldest_c: f64,
        dough_c: f64,
    },
    /// The most ice, in percent of the water, is not enough.
    MostIce {
        ice_pct: f64,
        dough_c: f64,
    },
    /// Hotter water is not used with dough.
    HottestUsed {
        water_c: f64,
        dough_c: f64,
    },
    /// Hotter water is not to be had here.
    HottestHere {
        water_c: f64,
        dough_c: f64,
    },
}

/// What a remedy changes.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum RemedyMeans {
    Flour,
    Mixing,
    Jacket,
}

/// How much of it there would have to be.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum RemedyAmount {
    FlourCooler {
        k: f64,
    },
    FlourWarmer {
        k: f64,
    },
    /// Less mixing, and the minutes where they are known.
    LessMixing {
        kj_per_kg: f64,
        minutes: Option<f64>,
    },
    JacketOn,
    /// The jacket alone takes so much of what is wanted.
    JacketAndLessMixing {
        jacket_kj_per_kg: f64,
        wanted_kj_per_kg: f64,
    },
    /// A jacket this mixer has not got.
    SomeJacket {
        kj: f64,
    },
}

/// What would reach the target when water and ice cannot.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Remedy {
    #[serde(rename = "remedy")]
    pub means: RemedyMeans,
    #[serde(rename = "says")]
    pub amount: RemedyAmount,
}

/// A target missed by water and ice, and what else there is to move.
#[derive(Debug, Clone, Copy)]
pub(super) struct Shortfall {
    /// kJ to take away; to bring where negative.
    pub over_kj: f64,
    pub flour_kj_per_k: f64,
    pub dough_kg: f64,
    pub mixing_kj_per_kg: f64,
    pub mixing_min: Option<f64>,
    pub jacket_kj_per_kg: Option<f64>,
}

impl Shortfall {
    /// What each way out would have to give alone.
    pub fn remedies(&self) -> Vec<Remedy> {
        let mut remedies = Vec::new();
        if self.flour_kj_per_k > 0.0 {
            let k = self.over_kj / self.flour_kj_per_k;
            let amount = if k > 0.0 {
                RemedyAmount::FlourCooler { k }
            } else {
                RemedyAmount::FlourWarmer { k: -k }
            };
            remedies.push(Remedy { means: RemedyMeans::Flour, amount });
        }
        let kj_per_kg = self.over_kj / self.dough_kg;
        if kj_per_kg > 0.0 && kj_per_kg <= self.mixing_kj_per_kg {
            let share = kj_per_kg / self.mixing_kj_per_kg;
            let minutes = self.mixing_min.map(|minutes| share * minutes);
            let amount = RemedyAmount::LessMixing { kj_per_kg, minutes };
            remedies.push(Remedy { means: RemedyMeans::Mixing, amount });
            let amount = match self.jacket_kj_per_kg {
                Some(jacket) if jacket >= kj_per_kg => RemedyAmount::JacketOn,
                Some(jacket_kj_per_kg) => RemedyAmount::JacketAndLessMixing {
                    jacket_kj_per_kg,
                    wanted_kj_per_kg: kj_per_kg,
                },
                None => RemedyAmount::SomeJacket { kj: self.over_kj },
            };
            remedies.push(Remedy { means: RemedyMeans::Jacket, amount });
        }
        remedies
    }
}
