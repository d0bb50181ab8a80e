use serde::Serialize;

use super::FlourPart;
use super::coefficients as c;
use super::hold_back::damaged_starch;
use super::strength_ceiling::strength;
use crate::coefficient::Coefficients;
use crate::flour::coefficients::GREEN_DAYS;

/// Something to know before going on.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Caution {
    pub key: &'static str,
    #[serde(rename = "says")]
    pub message: String,
}

/// Where less than no water would be weighed.
pub(super) fn too_wet(dough_absorption_pct: f64, ingredient_water_pct: f64) -> Option<Caution> {
    let message = format!(
        "the other ingredients bring {ingredient_water_pct:.1} % of water, and the dough wants \
         {dough_absorption_pct:.1} %: no water is left to weigh. Take less of them, or drier ones"
    );
    (ingredient_water_pct > dough_absorption_pct).then_some(Caution { key: "too_wet", message })
}

pub(super) fn cautions(
    flours: &[FlourPart<'_>],
    coefficients: &Coefficients,
    dough_absorption_pct: f64,
    ceiling_pct: Option<f64>,
) -> Vec<Caution> {
    let mut cautions = Vec::new();
    let mut say = |key, message: String| cautions.push(Caution { key, message });
    if let Some(ceiling) = ceiling_pct.filter(|ceiling| dough_absorption_pct > *ceiling) {
        let w = strength(flours).unwrap_or_default();
        say(
            "strength",
            format!(
                "{dough_absorption_pct:.1} % is beyond what W {w:.0} is likely to carry ({ceiling:.1} %): \
                 expect a flat, sticky dough"
            ),
        );
    }
    let critical = coefficients.active(&c::CRITICAL_DAMAGED_STARCH);
    let damaged = damaged_starch(flours);
    if let Some(damaged) = damaged.filter(|pct| critical.is_some_and(|critical| *pct > critical)) {
        say(
            "damaged_starch",
            format!(
                "damaged starch is {damaged:.1} %: the dough will feel dry early and stick late. \
                 Do not add water for feel; wait, and judge at the divider"
            ),
        );
    }
    let green = coefficients.value(&GREEN_DAYS);
    if flours.iter().any(|part| part.flour.age_days.is_some_and(|days| days < green)) {
        let message =
            "green flour: its strength comes with two days of age; it needs oxidation or time";
        say("green", message.into());
    }
    if flours.iter().any(|part| !part.flour.species.has_gluten()) {
        say(
            "no_gluten",
            "no gluten film: add the water in stages, mix softly, one rise. Keep it apart from \
             wheat: flour dust, tins and hands carry gluten over"
                .into(),
        );
    }
    cautions
}
