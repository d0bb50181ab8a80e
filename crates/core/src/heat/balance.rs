use std::borrow::Cow;

use serde::{Deserialize, Serialize};

use super::coefficients as c;
use super::remedy::{Remedy, Shortfall, Unreachable};
use crate::coefficient::{Derivation, DerivationInput};
use crate::dough::coefficients::{DRY_SPECIFIC_HEAT, WATER_SPECIFIC_HEAT};
use crate::flour::Moisture;

/// The hottest water a dough may meet.
pub const HOTTEST_WATER_C: f64 = c::HOTTEST_WATER.value;
/// The hottest water yeast may meet.
pub const YEAST_WATER_C: f64 = c::YEAST_WATER.value;
pub(super) const WATER: f64 = WATER_SPECIFIC_HEAT.value;
pub(super) const MELTING: f64 = c::MELTING.value;
pub(super) const ICE: f64 = c::ICE.value;
pub(super) const WETTING: f64 = c::WETTING.value;

/// Without water to set it by, a dough this near is on target, °C.
const CLOSE_C: f64 = 0.05;
/// What rounding may tear apart.
const SLACK: f64 = 1e-9;

/// Specific heat of flour at its moisture: `(1.45(100 − m) + 4.186 m)/100` kJ/kg·K.
///
/// ```
/// use ironpeel_core::{flour::Moisture, heat::flour_specific_heat};
/// assert!((flour_specific_heat(Moisture::FOURTEEN) - 1.833).abs() < 0.0005);
/// ```
pub fn flour_specific_heat(moisture: Moisture) -> f64 {
    (DRY_SPECIFIC_HEAT.value * (100.0 - moisture.percent()) + WATER * moisture.percent()) / 100.0
}

/// Whose temperature something goes by.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum HeatSource {
    /// The lever that is most at hand.
    Flour,
    /// A dough made before.
    Preferment,
    /// All else, which stands in the room.
    Other,
    /// What is kept in a refrigerator or freezer, or whose temperature was typed.
    Kept,
}

/// Something that goes into the mixer besides water.
#[derive(Debug, Clone, PartialEq)]
pub struct HeatPart {
    pub name: Cow<'static, str>,
    pub kg: f64,
    pub temperature_c: f64,
    /// kJ/kg·K.
    pub specific_heat: f64,
    pub is: HeatSource,
}

/// The heat balance of a mixer; masses are not negative, and something is mixed.
#[derive(Debug, Clone, PartialEq)]
pub struct Balance {
    pub parts: Vec<HeatPart>,
    pub water_kg: f64,
    pub tap_c: f64,
    pub target_c: f64,
    /// Of whole dough.
    pub mixing_kj_per_kg: f64,
    /// How long that takes, where a minute's worth is to be told.
    pub mixing_min: Option<f64>,
    /// What a jacket that is off could take of that.
    pub jacket_kj_per_kg: Option<f64>,
    /// As-is flour that meets water for the first time.
    pub flour_wetted_kg: f64,
    /// What the room takes while it rests between two mixings, kJ.
    pub rested_kj: f64,
    /// The coldest water without ice, and the hottest.
    pub chilled_min_c: f64,
    pub hottest_c: f64,
    pub ice_c: f64,
    pub max_ice_pct: f64,
    /// What vessel and room take meanwhile; nothing of a mixer, whose learned power has it in.
    pub surroundings: Option<Surroundings>,
}

/// A vessel and a room that warm with what is in them.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Surroundings {
    /// For each degree that they are colder, kJ/K.
    pub kj_per_k: f64,
    pub temperature_c: f64,
}

/// Heat brought in (+) or taken away (−) on the way to the target.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Term {
    pub name: Cow<'static, str>,
    pub kj: f64,
}

/// What one small change would give.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Sensitivity {
    #[serde(rename = "lever")]
    pub measure: &'static str,
    pub label: &'static str,
    /// By how much the water may be warmer, °C.
    pub water_c: f64,
    /// Change of the ice, kg.
    pub ice_kg: f64,
    /// Change of the dough's temperature, °C.
    pub dough_c: f64,
}

/// Water and ice that close the balance, or the nearest that can be had.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct HeatSolution {
    /// Temperature of the liquid water.
    pub water_c: f64,
    /// Liquid water; with the ice it is all the water.
    pub water_kg: f64,
    pub ice_kg: f64,
    pub dough_c: f64,
    pub reachable: bool,
    /// Why the target cannot be reached.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub reason: Option<Unreachable>,
    pub remedies: Vec<Remedy>,
    #[serde(rename = "levers")]
    pub sensitivities: Vec<Sensitivity>,
    pub terms: Vec<Term>,
}

/// The balance closed, and nothing told about it yet.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Solution {
    pub(crate) water_c: f64,
    pub(crate) ice_kg: f64,
    pub(crate) dough_c: f64,
    reachable: bool,
}

impl Balance {
    /// Closes the heat balance at the end of mixing.
    ///
    /// `water·4.186·(Tw − target) = Σ kg·c·(target − T) − mixing·m_dough − 15.1·flour_wetted`, and
    /// `+ k·(target − T)` for vessel and room where they take heat, and what is lost at rest between
    /// two mixings.
    /// Water down to `chilled_min_c` needs no ice; below it tap water and ice (334 kJ/kg, 2.05
    /// kJ/kg·K) close the balance, up to the cap. Water above 60 °C is refused.
    pub fn solve(&self) -> HeatSolution {
        let solved = self.close();
        let (reason, remedies) =
            if solved.reachable { (None, Vec::new()) } else { self.explain(&solved) };
        HeatSolution {
            water_c: solved.water_c,
            water_kg: self.water_kg - solved.ice_kg,
            ice_kg: solved.ice_kg,
            dough_c: solved.dough_c,
            reachable: solved.reachable,
            reason,
            remedies,
            sensitivities: self.sensitivities(&solved),
            terms: self.terms(&solved),
        }
    }

    /// Water and ice alone.
    pub(crate) fn close(&self) -> Solution {
        let with = |water_c, ice_kg, reachable| Solution {
            water_c,
            ice_kg,
            dough_c: if reachable {
                self.target_c
            } else {
                self.final_temperature(water_c, ice_kg)
            },
            reachable,
        };
        if self.water_kg <= 0.0 {
            let dough_c = self.final_temperature(self.tap_c, 0.0);
            let reachable = (dough_c - self.target_c).abs() < CLOSE_C;
            return Solution { water_c: self.tap_c, ice_kg: 0.0, dough_c, reachable };
        }
        let water_c = self.target_c + self.wanted_from_water() / (self.water_kg * WATER);
        if water_c > self.hottest_c.max(self.tap_c) + SLACK {
            return with(self.hottest_c.max(self.tap_c), 0.0, false);
        }
        // Tap water colder than what is wanted needs warming, never ice.
        if water_c >= self.chilled_min_c.min(self.tap_c) {
            return with(water_c, 0.0, true);
        }
        if self.max_ice_pct <= 0.0 {
            return with(self.chilled_min_c.min(self.tap_c), 0.0, false);
        }
        let from_tap = self.water_kg * WATER * (self.tap_c - self.target_c);
        let ice_kg = (from_tap - self.wanted_from_water()) / (WATER * self.tap_c + self.to_melt());
        let cap = self.water_kg * self.max_ice_pct / 100.0;
        with(self.tap_c, ice_kg.min(cap), ice_kg <= cap)
    }

    /// The temperature the water would have to have if it could be anything; nothing is iced.
    pub fn wanted_water_c(&self) -> f64 {
        self.target_c + self.wanted_from_water() / (self.water_kg.max(f64::MIN_POSITIVE) * WATER)
    }

    /// kJ the water must bring, counted from the target; negative when it must cool.
    fn wanted_from_water(&self) -> f64 {
        let parts = self.parts.iter();
        parts
            .map(|part| part.kg * part.specific_heat * (self.target_c - part.temperature_c))
            .sum::<f64>()
            - self.given_off()
            + self
                .surroundings
                .map_or(0.0, |around| around.kj_per_k * (self.target_c - around.temperature_c))
    }

    fn given_off(&self) -> f64 {
        self.mixing_kj_per_kg * self.dough_kg() + self.wetting_kj() - self.rested_kj
    }

    /// What wetting its flour gives, kJ.
    pub(crate) fn wetting_kj(&self) -> f64 {
        WETTING * self.flour_wetted_kg
    }

    /// The temperature at which water without ice would act as the water and ice that close it:
    /// `((1 − s)·4.186·Tw − s·(334 − 2.05·Ti))/4.186`.
    pub(crate) fn water_acts_as_c(&self) -> f64 {
        let Solution { water_c, ice_kg, .. } = self.close();
        let ice = ice_kg / self.water_kg.max(f64::MIN_POSITIVE);
        (1.0 - ice) * water_c - ice * self.to_melt() / WATER
    }

    fn dough_kg(&self) -> f64 {
        self.parts.iter().map(|part| part.kg).sum::<f64>() + self.water_kg
    }

    /// kJ to bring a kilo of ice to water at 0 °C.
    fn to_melt(&self) -> f64 {
        MELTING + ICE * -self.ice_c
    }

    /// kJ per degree of everything in the mixer.
    fn capacity(&self) -> f64 {
        self.parts.iter().map(|part| part.kg * part.specific_heat).sum::<f64>()
            + self.water_kg * WATER
            + self.surroundings.map_or(0.0, |around| around.kj_per_k)
    }

    /// The dough's temperature with this water and ice.
    fn final_temperature(&self, water_c: f64, ice_kg: f64) -> f64 {
        let parts = self.parts.iter();
        let brought =
            parts.map(|part| part.kg * part.specific_heat * part.temperature_c).sum::<f64>()
                + (self.water_kg - ice_kg) * WATER * water_c
                - ice_kg * self.to_melt()
                + self.given_off()
                + self.surroundings.map_or(0.0, |around| around.kj_per_k * around.temperature_c);
        brought / self.capacity()
    }

    fn flour_capacity(&self) -> f64 {
        let flour = self.parts.iter().filter(|part| part.is == HeatSource::Flour);
        flour.map(|part| part.kg * part.specific_heat).sum()
    }

    fn explain(&self, solved: &Solution) -> (Option<Unreachable>, Vec<Remedy>) {
        let &Solution { water_c, dough_c, .. } = solved;
        let over_kj = (dough_c - self.target_c) * self.capacity();
        let reason = if self.water_kg <= 0.0 {
            Unreachable::NoWater { dough_c }
        } else if over_kj > 0.0 && self.max_ice_pct <= 0.0 {
            Unreachable::NoIce { coldest_c: water_c, dough_c }
        } else if over_kj > 0.0 {
            Unreachable::MostIce { ice_pct: self.max_ice_pct, dough_c }
        } else if water_c >= HOTTEST_WATER_C {
            Unreachable::HottestUsed { water_c, dough_c }
        } else {
            Unreachable::HottestHere { water_c, dough_c }
        };
        let shortfall = Shortfall {
            over_kj,
            flour_kj_per_k: self.flour_capacity(),
            dough_kg: self.dough_kg(),
            mixing_kj_per_kg: self.mixing_kj_per_kg,
            mixing_min: self.mixing_min,
            jacket_kj_per_kg: self.jacket_kj_per_kg,
        };
        (Some(reason), shortfall.remedies())
    }

    /// Solves again with one thing changed.
    fn changed(
        &self,
        now: &Solution,
        measure: &'static str,
        label: &'static str,
        edit: &dyn Fn(&mut Self),
    ) -> Sensitivity {
        let mut other = self.clone();
        edit(&mut other);
        let then = other.close();
        Sensitivity {
            measure,
            label,
            water_c: then.water_c - now.water_c,
            ice_kg: then.ice_kg - now.ice_kg,
            dough_c: then.dough_c - now.dough_c,
        }
    }

    /// What else a plant has at hand: chilled water before the ice, a kilo more of it ice, the
    /// mixer's jacket.
    pub fn available_measures(&self) -> Vec<Sensitivity> {
        let now = &self.close();
        let changed =
            |measure, label, edit: &dyn Fn(&mut Self)| self.changed(now, measure, label, edit);
        let mut sensitivities = Vec::new();
        if self.tap_c > self.chilled_min_c && now.ice_kg > 0.0 {
            sensitivities.push(changed("chilled", "water chilled before the ice", &|other| {
                other.tap_c = other.chilled_min_c;
            }));
        }
        if self.max_ice_pct > 0.0 && self.water_kg > now.ice_kg + 1.0 {
            sensitivities.push(Sensitivity {
                measure: "ice",
                label: "1 kg more of it ice",
                water_c: 0.0,
                ice_kg: 1.0,
                dough_c: self.final_temperature(now.water_c, now.ice_kg + 1.0)
                    - self.final_temperature(now.water_c, now.ice_kg),
            });
        }
        if let Some(jacket) = self.jacket_kj_per_kg {
            sensitivities.push(changed("jacket", "the mixer's jacket on", &|other| {
                other.mixing_kj_per_kg = (other.mixing_kj_per_kg - jacket).max(0.0);
            }));
        }
        sensitivities
    }

    /// Solves again with one thing changed a little.
    fn sensitivities(&self, now: &Solution) -> Vec<Sensitivity> {
        let changed =
            |measure, label, edit: &dyn Fn(&mut Self)| self.changed(now, measure, label, edit);
        let mut sensitivities = Vec::new();
        if self.flour_capacity() > 0.0 {
            sensitivities.push(changed("flour", "flour 1 K cooler", &|other| {
                for part in other.parts.iter_mut().filter(|part| part.is == HeatSource::Flour) {
                    part.temperature_c -= 1.0;
                }
            }));
        }
        sensitivities.push(match self.mixing_min.filter(|minutes| *minutes > 0.0) {
            Some(minutes) => changed("mixing", "1 minute less mixing", &|other| {
                other.mixing_kj_per_kg = (other.mixing_kj_per_kg * (1.0 - 1.0 / minutes)).max(0.0);
            }),
            None => changed("mixing", "1 kJ/kg less mixing", &|other| {
                other.mixing_kj_per_kg = (other.mixing_kj_per_kg - 1.0).max(0.0);
            }),
        });
        sensitivities.push(changed("tap", "tap 1 K colder", &|other| other.tap_c -= 1.0));
        sensitivities
    }

    fn terms(&self, solved: &Solution) -> Vec<Term> {
        let from = |c: f64| c - solved.dough_c;
        let mut terms: Vec<Term> = self
            .parts
            .iter()
            .map(|part| Term {
                name: part.name.clone(),
                kj: part.kg * part.specific_heat * from(part.temperature_c),
            })
            .collect();
        terms.extend(self.surroundings.map(|around| Term {
            name: "vessel and room".into(),
            kj: around.kj_per_k * from(around.temperature_c),
        }));
        terms.extend(
            (self.rested_kj != 0.0)
                .then(|| Term { name: "rest between mixings".into(), kj: -self.rested_kj }),
        );
        let water_kg = self.water_kg - solved.ice_kg;
        let ice = -solved.ice_kg * (self.to_melt() + WATER * solved.dough_c);
        for (name, kj) in [
            ("mixing", self.mixing_kj_per_kg * self.dough_kg()),
            ("wetting the flour", self.wetting_kj()),
            ("water", water_kg * WATER * from(solved.water_c)),
            ("ice", ice),
        ] {
            terms.push(Term { name: name.into(), kj });
        }
        terms
    }

    /// What the water's temperature rests on.
    pub fn why(&self) -> Derivation {
        Derivation {
            formula: "water · 4.186 · (Tw − target) = Σ kg · c · (target − T) − mixing · dough − 15.1 · flour wetted \
                      + vessel and room · (target − room) + lost at rest",
            inputs: vec![
                DerivationInput::new("dough", self.dough_kg(), "kg"),
                DerivationInput::new("all the water", self.water_kg, "kg"),
                DerivationInput::new("target", self.target_c, "°C"),
                DerivationInput::new("tap", self.tap_c, "°C"),
                DerivationInput::new("mixing", self.mixing_kj_per_kg, "kJ/kg"),
                DerivationInput::new("flour wetted", self.flour_wetted_kg, "kg"),
                DerivationInput::new("lost at rest between mixings", self.rested_kj, "kJ"),
                DerivationInput::new(
                    "vessel and room",
                    self.surroundings.map_or(0.0, |around| around.kj_per_k),
                    "kJ/K",
                ),
            ],
            coefficients: vec![
                WATER_SPECIFIC_HEAT.clone(),
                c::MELTING.clone(),
                c::ICE.clone(),
                c::WETTING.clone(),
                c::MOST_ICE.valued(self.max_ice_pct),
            ],
        }
    }
}
