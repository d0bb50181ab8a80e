//! The floor's own friction factor method beside the heat balance.

use serde::Serialize;

use super::{Chain, Scenario, balance};
use crate::dough::PreparationKind;
use crate::heat::coefficients::{ENERGIES_DISAGREE, ICE_RULE, METHODS_DISAGREE};
use crate::heat::{Friction, MixedDough, Temperatures};
use crate::units::Estimate;

/// Temperatures the method counts: flour, room and water.
const MEASURED: u32 = 3;

/// A dough as it was measured, with its own masses where they were kept.
#[derive(Debug, Clone, PartialEq)]
pub struct Measured {
    pub temperatures: Temperatures,
    pub mixed: Option<MixedDough>,
}

/// The masses and the jacket of the selected product, to be kept beside what is measured of it.
pub fn mixed_dough(scenario: &Scenario<'_>, chain: &Chain) -> Option<MixedDough> {
    let dough = chain.dough.as_ref()?;
    let energy = chain.method.mixing_kj_per_kg;
    let balance = balance(scenario, scenario.moisture()?, dough, energy);
    Some(MixedDough::of(&balance, energy - balance.mixing_kj_per_kg))
}

/// Water by the friction factor method and by the heat balance.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FrictionFactor {
    pub friction: Friction,
    /// Doughs it was learned from.
    pub doughs: usize,
    /// Temperatures the rule counts: three, and four with a sponge or starter.
    pub counts: u32,
    /// By the rule, with the friction's band; below nothing where only ice does it.
    pub water_c: Estimate,
    /// By the heat balance, before ice.
    pub balance_c: f64,
    pub disagree: bool,
    /// `water · (tap − wanted) / (tap + 80)`, where that is more than nothing, kg.
    pub classic_ice_kg: f64,
    /// Mixing energy the measured doughs say, kJ/kg; none without one.
    pub measured_kj_per_kg: Option<f64>,
    /// Energies of the line's mixer that would say the same; none where they do already.
    pub agreeing: Option<MixerEnergies>,
}

/// What a mixer puts into a dough, kJ/kg a minute.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct MixerEnergies {
    pub slow_kj_per_kg_min: f64,
    pub fast_kj_per_kg_min: f64,
}

/// Both for the selected product, friction learned from doughs in the order they were mixed. None
/// where the chain stops before the mixer.
///
/// `Tw = n · target − flour − room (− preferment) − friction`.
pub fn friction_factor(
    scenario: &Scenario<'_>,
    chain: &Chain,
    measured: &[Measured],
) -> Option<FrictionFactor> {
    let coefficients = scenario.coefficients();
    let (dough, heat) = (chain.dough.as_ref()?, chain.heat.as_ref()?);
    let balance = balance(scenario, scenario.moisture()?, dough, chain.method.mixing_kj_per_kg);
    let early = chain
        .preparations
        .iter()
        .find(|part| matches!(part.kind, PreparationKind::Sponge | PreparationKind::Starter));
    let preferment_c = early.map(|part| part.meets_c);
    let friction = measured.iter().fold(Friction::prior(coefficients), |learned, one| {
        learned.learn(one.temperatures.friction_c(), coefficients)
    });
    let counts = MEASURED + u32::from(preferment_c.is_some());
    let water = |friction_c: f64| {
        f64::from(counts) * heat.target_c
            - heat.flour_c
            - heat.room_c
            - preferment_c.unwrap_or(0.0)
            - friction_c
    };
    let water_c = Estimate::new(
        water(friction.friction_c),
        water(friction.friction_c + friction.sd_c),
        water(friction.friction_c - friction.sd_c),
    );
    let balance_c = balance.wanted_water_c();
    let ice = balance.water_kg * (heat.tap_c - water_c.typical) / (heat.tap_c + ICE_RULE.value);
    let energies: Vec<f64> = measured
        .iter()
        .filter_map(|one| one.mixed.as_ref()?.mixing_kj_per_kg(&one.temperatures))
        .collect();
    let measured_kj_per_kg =
        (!energies.is_empty()).then(|| energies.iter().sum::<f64>() / energies.len() as f64);
    let stated = chain.method.mixing_kj_per_kg;
    let off = coefficients.value(&ENERGIES_DISAGREE) / 100.0;
    let mixer = &scenario.line.mixer;
    let agreeing = measured_kj_per_kg
        .map(|measured| measured / stated)
        .filter(|ratio| stated > 0.0 && (ratio - 1.0).abs() > off)
        .map(|ratio| MixerEnergies {
            slow_kj_per_kg_min: ratio * mixer.slow_kj_per_kg_min,
            fast_kj_per_kg_min: ratio * mixer.fast_kj_per_kg_min,
        });
    Some(FrictionFactor {
        friction,
        doughs: measured.len(),
        counts,
        water_c,
        balance_c,
        disagree: (water_c.typical - balance_c).abs() > coefficients.value(&METHODS_DISAGREE),
        classic_ice_kg: ice.max(0.0),
        measured_kj_per_kg,
        agreeing,
    })
}
