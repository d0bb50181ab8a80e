use serde::Serialize;

use super::coefficients as c;
use super::{AbsorptionModel, FlourPart};
use crate::coefficient::Coefficients;
use crate::flour::Species;
use crate::units::Estimate;

/// How much of the water to hold back at first, and how long to wait before judging.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct HoldBack {
    /// Points of water on flour.
    pub points: f64,
    pub low: f64,
    pub high: f64,
    pub wait_min_low: f64,
    pub wait_min_high: f64,
    pub because: Vec<HoldBackReason>,
}

/// What asks for water to be held back, or for a wait.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum HoldBackReason {
    /// Whole grain, in percent of the flour: bran drinks slowly.
    Bran {
        whole_grain_pct: f64,
    },
    /// A grain whose gluten is weak.
    WeakFilm(Species),
    NoGluten,
    /// Rye's pentosans swell slowly.
    Pentosans,
    /// Damaged starch, points above its critical level.
    DamagedStarch {
        over_pct: f64,
        critical_pct: f64,
    },
}

/// Damaged starch above the critical level, and the water it asks to hold back: the one figure for it
/// everywhere.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct StarchTrap {
    /// Points above the critical level, and that level, %.
    pub over_pct: f64,
    pub critical_pct: f64,
    /// Points of water.
    pub points: Estimate,
}

impl StarchTrap {
    /// `(damaged − critical) · water per point of damaged starch`; none where it is below, not
    /// stated, or the level is switched off.
    pub fn of(
        damaged_pct: Option<f64>,
        coefficients: &Coefficients,
        model: &AbsorptionModel,
    ) -> Option<Self> {
        let critical_pct = coefficients.active(&c::CRITICAL_DAMAGED_STARCH)?;
        let over_pct =
            damaged_pct.map(|damaged| damaged - critical_pct).filter(|over| *over > 0.0)?;
        let [_, per, _] = model.per_point();
        let points = Estimate::new(per.value, per.low, per.high).times(over_pct);
        Some(Self { over_pct, critical_pct, points })
    }
}

/// When the core should arrive, in percent of the bake: sooner where damaged starch lies above its
/// critical level (H).
pub fn arrival_target_pct(trapped: bool, coefficients: &Coefficients) -> f64 {
    coefficients.value(if trapped { &c::ARRIVAL_TRAPPED } else { &c::ARRIVAL })
}

/// What bran, weak grains and damaged starch ask the mixer to hold back; none for a plain white
/// flour. Each part of a mix asks by its share; the longest wait counts. House defaults.
pub fn hold_back(
    flours: &[FlourPart<'_>],
    coefficients: &Coefficients,
    model: &AbsorptionModel,
) -> Option<HoldBack> {
    let mut held = HoldBack {
        points: 0.0,
        low: 0.0,
        high: 0.0,
        wait_min_low: 0.0,
        wait_min_high: 0.0,
        because: Vec::new(),
    };
    let whole: f64 =
        flours.iter().map(|part| part.flour.whole_grain_pct * part.share_pct / 100.0).sum();
    let waits = |coefficient| coefficients.band(coefficient);
    if whole >= coefficients.value(&c::LITTLE_BRAN) {
        let points = coefficients.band(&c::BRAN_HELD_BACK).times(whole / 100.0);
        let reason = HoldBackReason::Bran { whole_grain_pct: whole };
        held.take(points, waits(&c::BRAN_WAITS), reason);
    }
    for FlourPart { flour, share_pct, .. } in flours {
        let share = share_pct / 100.0;
        if let Some(rule) = c::held_back_of(flour.species) {
            let ruling = coefficients.get(rule);
            if !ruling.off {
                let reason = HoldBackReason::WeakFilm(flour.species);
                held.take(ruling.value.times(-share), waits(&c::WEAK_FILM_WAITS), reason);
            }
        }
        if !flour.species.has_gluten() {
            let points = coefficients.band(&c::NO_FILM_HELD_BACK).times(share);
            held.take(points, waits(&c::NO_FILM_WAITS), HoldBackReason::NoGluten);
        } else if flour.species == Species::Rye {
            held.wait(waits(&c::BRAN_WAITS), HoldBackReason::Pentosans);
        }
    }
    let trap = StarchTrap::of(damaged_starch(flours), coefficients, model);
    if let Some(StarchTrap { over_pct, critical_pct, points }) = trap {
        let reason = HoldBackReason::DamagedStarch { over_pct, critical_pct };
        held.take(points, waits(&c::DAMAGED_STARCH_WAITS), reason);
    }
    (!held.because.is_empty()).then_some(held)
}

/// Damaged starch of a mix of flours with gluten, where any states it.
pub(super) fn damaged_starch(flours: &[FlourPart<'_>]) -> Option<f64> {
    let stated = flours
        .iter()
        .filter(|part| part.flour.species.has_gluten())
        .filter_map(|part| Some((part.flour.composition.damaged_starch_pct?, part.share_pct)));
    let (sum, share) =
        stated.fold((0.0, 0.0), |(sum, all), (pct, share)| (sum + pct * share, all + share));
    (share > 0.0).then(|| sum / share)
}

impl HoldBack {
    fn take(&mut self, points: Estimate, waits: Estimate, reason: HoldBackReason) {
        self.points += points.typical;
        self.low += points.low;
        self.high += points.high;
        self.wait(waits, reason);
    }

    fn wait(&mut self, Estimate { low, high, .. }: Estimate, reason: HoldBackReason) {
        self.wait_min_low = self.wait_min_low.max(low);
        self.wait_min_high = self.wait_min_high.max(high);
        self.because.push(reason);
    }
}
