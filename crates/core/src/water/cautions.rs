use super::FlourPart;
use super::coefficients as c;
use super::hold_back::damaged_starch;
use super::strength_ceiling::strength;
use crate::coefficient::Coefficients;
use crate::flour::FlourAge;

/// Something to know before going on.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Caution {
    /// The ingredients bring more water than the dough wants, in percent on flour.
    TooWet {
        brought_pct: f64,
        wanted_pct: f64,
    },
    /// More water than the flour's strength carries.
    Strength {
        dough_absorption_pct: f64,
        w: f64,
        ceiling_pct: f64,
    },
    /// Damaged starch above its critical level.
    DamagedStarch {
        damaged_pct: f64,
    },
    Green(FlourAge),
    NoGluten,
}

impl Caution {
    /// Its word on the wire.
    pub const fn key(&self) -> &'static str {
        match self {
            Self::TooWet { .. } => "too_wet",
            Self::Strength { .. } => "strength",
            Self::DamagedStarch { .. } => "damaged_starch",
            Self::Green(_) => "green",
            Self::NoGluten => "no_gluten",
        }
    }
}

/// Where less than no water would be weighed.
pub(super) fn too_wet(wanted_pct: f64, brought_pct: f64) -> Option<Caution> {
    (brought_pct > wanted_pct).then_some(Caution::TooWet { brought_pct, wanted_pct })
}

pub(super) fn cautions(
    flours: &[FlourPart<'_>],
    coefficients: &Coefficients,
    dough_absorption_pct: f64,
    ceiling_pct: Option<f64>,
) -> Vec<Caution> {
    let mut cautions = Vec::new();
    if let Some(ceiling_pct) = ceiling_pct.filter(|ceiling| dough_absorption_pct > *ceiling) {
        let w = strength(flours).unwrap_or_default();
        cautions.push(Caution::Strength { dough_absorption_pct, w, ceiling_pct });
    }
    let critical = coefficients.active(&c::CRITICAL_DAMAGED_STARCH);
    let damaged = damaged_starch(flours);
    if let Some(damaged_pct) = damaged.filter(|pct| critical.is_some_and(|most| *pct > most)) {
        cautions.push(Caution::DamagedStarch { damaged_pct });
    }
    let ages = flours.iter().filter_map(|part| FlourAge::of(part.flour.age_days?, coefficients));
    cautions.extend(
        ages.filter(|age| matches!(age, FlourAge::Green { .. })).map(Caution::Green).next(),
    );
    if flours.iter().any(|part| !part.flour.species.has_gluten()) {
        cautions.push(Caution::NoGluten);
    }
    cautions
}
