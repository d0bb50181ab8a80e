use serde::Serialize;

use super::{AbsorptionModel, CorrectionFactor, CorrectionFactors, FlourPart};
use crate::flour::Species;
use crate::units::Estimate;

/// Held back from whole grain and added after it has drunk, in points for 100 % (H).
const BRAN: Estimate = Estimate::new(2.0, 1.0, 3.0);
/// Held back from a blend without gluten, in points (H).
const NO_FILM: Estimate = Estimate::new(5.0, 3.0, 8.0);
/// Whole grain and rye, so many minutes before judging (H).
const BRAN_WAITS_MIN: (f64, f64) = (10.0, 15.0);
/// A weak film (H).
const WEAK_WAITS_MIN: (f64, f64) = (10.0, 20.0);
/// Fibres and gums of a blend without gluten (H).
const NO_FILM_WAITS_MIN: (f64, f64) = (10.0, 20.0);
/// Damaged starch drinks at once; what it took is seen after so long (H).
const DAMAGED_WAITS_MIN: (f64, f64) = (5.0, 10.0);
/// Less bran than this needs no waiting, in percent of all flour.
const LITTLE_BRAN_PCT: f64 = 10.0;

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
    pub because: Vec<String>,
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
        correction_factors: &CorrectionFactors,
        model: &AbsorptionModel,
    ) -> Option<Self> {
        let critical_pct = correction_factors.active(CorrectionFactor::CriticalDamagedStarch)?;
        let over_pct =
            damaged_pct.map(|damaged| damaged - critical_pct).filter(|over| *over > 0.0)?;
        let [_, per, _] = model.per_point();
        let points = Estimate::new(per.value, per.low, per.high).times(over_pct);
        Some(Self { over_pct, critical_pct, points })
    }

    fn message(&self) -> String {
        format!(
            "{:.1} points of damaged starch above {:.0} %: dry early, sticky late",
            self.over_pct, self.critical_pct
        )
    }
}

/// When the core should arrive, in percent of the bake: sooner where damaged starch lies above its
/// critical level (H).
pub const fn arrival_target_pct(trapped: bool) -> f64 {
    if trapped { 80.0 } else { 85.0 }
}

/// What bran, weak grains and damaged starch ask the mixer to hold back; none for a plain white
/// flour. Each part of a mix asks by its share; the longest wait counts. House defaults.
pub fn hold_back(
    flours: &[FlourPart<'_>],
    correction_factors: &CorrectionFactors,
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
    if whole >= LITTLE_BRAN_PCT {
        let message = format!("{whole:.0} % of the flour is whole grain: bran drinks slowly");
        held.take(BRAN.times(whole / 100.0), BRAN_WAITS_MIN, &message);
    }
    for FlourPart { flour, share_pct, .. } in flours {
        let share = share_pct / 100.0;
        if let Some(rule) = CorrectionFactor::held_back_of(flour.species) {
            let ruling = correction_factors.get(rule);
            if !ruling.off {
                let message =
                    format!("{}: a weak film, wetter than it feels", flour.species.label());
                held.take(ruling.value.times(-share), WEAK_WAITS_MIN, &message);
            }
        }
        if !flour.species.has_gluten() {
            let message = "no gluten: fibres and starches swell slowly, so add the water in stages";
            held.take(NO_FILM.times(share), NO_FILM_WAITS_MIN, message);
        } else if flour.species == Species::Rye {
            held.wait(BRAN_WAITS_MIN, "rye: pentosans swell slowly");
        }
    }
    if let Some(trap) = StarchTrap::of(damaged_starch(flours), correction_factors, model) {
        held.take(trap.points, DAMAGED_WAITS_MIN, &trap.message());
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
    fn take(&mut self, points: Estimate, waits: (f64, f64), message: &str) {
        self.points += points.typical;
        self.low += points.low;
        self.high += points.high;
        self.wait(waits, message);
    }

    fn wait(&mut self, (low, high): (f64, f64), message: &str) {
        self.wait_min_low = self.wait_min_low.max(low);
        self.wait_min_high = self.wait_min_high.max(high);
        self.because.push(message.to_owned());
    }
}
