//! The sponge of the selected product, its numbers solved from one another.

use serde::{Deserialize, Serialize};

use super::dough_maturity::maturity_of;
use super::way::{Sponge, Way};
use super::{Chain, HeatLink, Scenario, flour_strength, heat_with_sponge};
use crate::coefficient::Coefficients;
use crate::dough::FLOUR_PCT;
use crate::dough::coefficients::{DOUGH_SPECIFIC_HEAT, SPONGE_FLOUR, SPONGE_WATER};
use crate::ferment::coefficients::SPONGE_SET_C;
use crate::ferment::{FermentingDough, Maturity, Phase, Ripeness, ferment};
use crate::method::coefficients::{MINUTE_BRINGS, SPONGE_ROOM_PCT, USUAL_SPONGE_MIN};
use crate::method::{Conditioning, StageRole, conditioning};
use crate::units::{Estimate, MIN_PER_H, crossing};

/// What of a sponge is to be found.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum SpongeUnknown {
    SetTemperature,
    Room,
    Hours,
    Yeast,
}

impl SpongeUnknown {
    /// Every one.
    pub const ALL: [Self; 4] = [Self::SetTemperature, Self::Room, Self::Hours, Self::Yeast];

    /// Where it is sought: °C, °C, h, and % instant yeast on its own flour.
    const fn range(self) -> (f64, f64) {
        match self {
            Self::SetTemperature => (15.0, 32.0),
            Self::Room => (15.0, 38.0),
            Self::Hours => (0.5, 8.0),
            Self::Yeast => (0.1, 5.0),
        }
    }
}

/// One of its numbers for the end temperature that is wanted, the others as they are.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SpongeFound {
    pub unknown: SpongeUnknown,
    /// In its own unit; none where nothing in its range does it.
    pub value: Option<f64>,
    /// The nearest end temperature to be had, °C.
    pub nearest_c: f64,
}

/// To have it ripe sooner: by mixing it longer, and by a warmer room, with what each brings along.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SpongeAcceleration {
    pub by_min: f64,
    /// Minutes of mixing past clean-up, likely and at least: how many at most nobody knows, for a
    /// minute may bring nothing.
    pub extra_min: f64,
    pub extra_low_min: f64,
    /// Work that puts into the sponge, and how far it warms it.
    pub extra_kj_per_kg: f64,
    pub warms_c: f64,
    /// What the sponge must be set at, to end as warm as now.
    pub set_c: f64,
    /// The room in which it has risen as far by then, °C; none where no room does it.
    pub room_c: Option<f64>,
    /// How warm it is then, and what its dough wants more of ice for that.
    pub room_end_c: Option<f64>,
    pub room_more_ice_kg: Option<f64>,
}

/// What is usual of a sponge (H).
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SpongeUsual {
    /// % of all flour, and % on all flour.
    pub flour_pct: Estimate,
    pub water_pct: Estimate,
    pub set_c: Estimate,
    pub hours: Estimate,
    /// The hottest room that is thought of, °C.
    pub hottest_room_c: f64,
}

impl SpongeUsual {
    fn of(coefficients: &Coefficients) -> Self {
        Self {
            flour_pct: coefficients.band(&SPONGE_FLOUR),
            water_pct: coefficients.band(&SPONGE_WATER),
            set_c: coefficients.band(&SPONGE_SET_C),
            hours: coefficients.band(&USUAL_SPONGE_MIN).times(1.0 / MIN_PER_H),
            hottest_room_c: SpongeUnknown::Room.range().1,
        }
    }
}

/// A temperature this near is the same, K.
const SAME_C: f64 = 0.5;

/// The sponge of one dough.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SpongeView {
    pub name: String,
    /// % of all flour, and kg.
    pub flour_pct: f64,
    pub flour_kg: f64,
    pub water_pct: f64,
    pub water_kg: f64,
    /// Water on its own flour.
    pub hydration_pct: f64,
    pub kg: f64,
    /// Instant yeast, % of its own flour.
    pub yeast_idy_pct: f64,
    pub set_c: f64,
    pub hours: f64,
    pub room_c: f64,
    pub humidity_pct: f64,
    pub end_c: f64,
    pub end_rise_pct: f64,
    pub sugar_left_pct: f64,
    /// When it drops and is ripe, however long it is planned to lie.
    #[serde(flatten)]
    pub ripeness: Ripeness,
    /// How ripe its dough meets the oven.
    pub maturity: Maturity,
    pub troughs: u32,
    pub per_trough_kg: f64,
    /// Left for the dough stage.
    pub dough_flour_kg: f64,
    pub dough_water_kg: f64,
    /// The dough stage's heat balance with the sponge as warm as it will be.
    pub heat: HeatLink,
    /// How warm the formula states it, and whether that is another temperature than its end's.
    pub stated_c: f64,
    pub is_stated_otherwise: bool,
    pub usual: SpongeUsual,
    pub conditioning: [Conditioning; 2],
}

impl SpongeView {
    /// The sponge of the selected product; none where it has none.
    pub fn of(scenario: &Scenario<'_>, chain: &Chain) -> Option<Self> {
        let way = Way::of(scenario, chain).ok()?;
        let ripeness = way.sponge_ripens()?;
        let maturity = maturity_of(scenario, chain, &way);
        let sponge = way.sponge?;
        let dough = chain.dough.as_ref()?;
        let kg = |pct: f64| dough.flour_kg * pct / FLOUR_PCT;
        let part = sponge.part;
        let curve = ferment(&sponge.dough, &sponge.phases);
        let end = curve.last()?;
        let stage = scenario.method.roles().iter().position(|role| *role == StageRole::Sponge)?;
        let mass = kg(part.total_pct());
        let stated_c = part.meets_c(scenario.coefficients());
        let troughs = (mass / scenario.line.equipment.trough_kg).ceil().max(1.0);
        let all_early: f64 =
            scenario.formula.formula.parts().iter().map(|part| part.flour_pct).sum();
        Some(Self {
            name: part.name.clone(),
            flour_pct: part.flour_pct,
            flour_kg: kg(part.flour_pct),
            water_pct: part.water_pct,
            water_kg: kg(part.water_pct),
            hydration_pct: part.hydration_pct().unwrap_or(0.0),
            kg: mass,
            yeast_idy_pct: sponge.dough.yeast_idy_pct,
            set_c: sponge.dough.start_c,
            hours: sponge.hours(),
            room_c: sponge.ambient_c().0,
            humidity_pct: scenario.method.stages[stage]
                .humidity_pct
                .unwrap_or_else(|| scenario.coefficients().value(&SPONGE_ROOM_PCT)),
            end_c: end.dough_c,
            end_rise_pct: end.rise_pct,
            sugar_left_pct: end.sugar_pct,
            ripeness,
            maturity,
            troughs: troughs as u32,
            per_trough_kg: mass / troughs,
            dough_flour_kg: kg(FLOUR_PCT - all_early),
            dough_water_kg: dough.final_water_kg,
            heat: heat_with_sponge(scenario, chain, end.dough_c)?,
            stated_c,
            is_stated_otherwise: (stated_c - end.dough_c).abs() > SAME_C,
            usual: SpongeUsual::of(scenario.coefficients()),
            conditioning: conditioning(
                flour_strength(scenario),
                scenario.method.process,
                scenario.coefficients(),
            ),
        })
    }
}

/// Each number of the sponge that alone would bring it to an end temperature, the others as they
/// are. Most of each makes it warmer; hours cool one that is set warmer than its room.
pub fn sponge_for(scenario: &Scenario<'_>, chain: &Chain, end_c: f64) -> Option<Vec<SpongeFound>> {
    let sponge = Way::of(scenario, chain).ok()?.sponge?;
    let found = SpongeUnknown::ALL.map(|unknown| {
        let (low, high) = unknown.range();
        let at = |value: f64| end_of(&sponge, unknown, value);
        match crossing(low, high, end_c, at) {
            Ok(value) => SpongeFound { unknown, value: Some(value), nearest_c: end_c },
            Err(nearest_c) => SpongeFound { unknown, value: None, nearest_c },
        }
    });
    Some(found.to_vec())
}

/// How to have it ripe so much sooner: mixing first, and what a warmer room would bring along.
///
/// Each minute of mixing past clean-up brings maturity forward 6 % (0 to 10, H), so
/// `extra = ln(1 − acceleration/planned) / ln(1 − 0.06)`.
pub fn sponge_acceleration(
    scenario: &Scenario<'_>,
    chain: &Chain,
    by_min: f64,
) -> Option<SpongeAcceleration> {
    let sponge = Way::of(scenario, chain).ok()?.sponge?;
    let planned_min = sponge.hours() * MIN_PER_H;
    let left = 1.0 - by_min / planned_min;
    if left <= 0.0 {
        return None;
    }
    let extra = |pct: f64| left.ln() / (1.0 - pct / 100.0).ln();
    let brings = scenario.coefficients().band(&MINUTE_BRINGS);
    let extra_min = extra(brings.typical);
    let extra_kj_per_kg = extra_min * scenario.line.mixer.slow_kj_per_kg_min;
    let warms_c = extra_kj_per_kg / DOUGH_SPECIFIC_HEAT.value;
    let after = |phases: &[Phase]| {
        let dough = FermentingDough { rise_limit_pct: None, ..sponge.dough };
        let curve = ferment(&dough, phases);
        curve.last().map_or((0.0, 0.0), |end| (end.rise_pct, end.dough_c))
    };
    let risen = |room_c: f64, hours: f64| after(&[Phase::rest(hours, room_c)]);
    let (wanted, end_c) = after(&sponge.phases);
    let hours = sponge.hours() * left;
    let (_, warmest) = SpongeUnknown::Room.range();
    let room_c = crossing(sponge.ambient_c().0, warmest, wanted, |room| risen(room, hours).0).ok();
    let room_end_c = room_c.map(|room| risen(room, hours).1);
    let ice = |end_c| heat_with_sponge(scenario, chain, end_c).map(|heat| heat.answer.ice_kg);
    Some(SpongeAcceleration {
        by_min,
        extra_min,
        extra_low_min: extra(brings.high),
        extra_kj_per_kg,
        warms_c,
        set_c: sponge.dough.start_c - warms_c,
        room_c,
        room_end_c,
        room_more_ice_kg: room_end_c.and_then(|end| Some(ice(end)? - ice(end_c)?)),
    })
}

/// How warm it ends with one number changed.
fn end_of(sponge: &Sponge<'_>, unknown: SpongeUnknown, value: f64) -> f64 {
    let (mut dough, mut phases) = (sponge.dough, sponge.phases.clone());
    match unknown {
        SpongeUnknown::SetTemperature => dough.start_c = value,
        SpongeUnknown::Room => phases = vec![Phase::rest(sponge.hours(), value)],
        SpongeUnknown::Hours => phases = Phase::lasting(&phases, value),
        SpongeUnknown::Yeast => dough.yeast_idy_pct = value,
    }
    ferment(&dough, &phases).last().map_or(dough.start_c, |end| end.dough_c)
}
