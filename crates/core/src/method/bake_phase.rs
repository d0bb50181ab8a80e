use serde::{Deserialize, Serialize};

use crate::units::{NumberRange, RawNumber, ValidationErrors};

/// What gives a home oven the heat or the steam it lacks.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum OvenAid {
    /// A heated pot with its lid: bottom heat, and the dough's own steam.
    HotVessel,
    /// A heated stone or steel: bottom heat.
    Stone,
    /// A tray of boiling water on the floor: steam.
    TrayOfWater,
}

/// What an oven does for some minutes of a bake.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BakePhase {
    pub minutes: f64,
    /// Heat from above, °C.
    pub top_c: f64,
    /// Heat from below, °C; as from above where none is stated.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub bottom_c: Option<f64>,
    /// Seconds of steam at its beginning.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub steam_s: Option<f64>,
    /// The core temperature with which the steam ends, °C; with the phase where none is stated.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub steam_until_core_c: Option<f64>,
    /// Whether the steam may leave.
    #[serde(default)]
    pub damper_open: bool,
    /// Whether a lid lies on the tin or the vessel.
    #[serde(default, skip_serializing_if = "is_not")]
    pub lid: bool,
    /// Whether the bread bakes on out of its tin.
    #[serde(default, skip_serializing_if = "is_not")]
    pub tin_out: bool,
    /// What helps a home oven.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub aid: Option<OvenAid>,
}

#[allow(clippy::trivially_copy_pass_by_ref, reason = "serde asks by reference")]
const fn is_not(so: &bool) -> bool {
    !*so
}

/// The same as it was typed.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BakePhaseInput {
    /// 0.1 to 600 min; all phases last as long as the bake.
    #[serde(default)]
    pub minutes: RawNumber,
    /// 50 to 500 °C.
    #[serde(default)]
    pub top_c: RawNumber,
    /// 50 to 500 °C; as from above if left out.
    #[serde(default)]
    pub bottom_c: RawNumber,
    /// 0 to 600 s.
    #[serde(default)]
    pub steam_s: RawNumber,
    /// 40 to 99 °C; to the end of the phase if left out.
    #[serde(default)]
    pub steam_until_core_c: RawNumber,
    #[serde(default)]
    pub damper_open: bool,
    #[serde(default)]
    pub lid: bool,
    #[serde(default)]
    pub tin_out: bool,
    #[serde(default)]
    pub aid: Option<OvenAid>,
}

/// Most phases of a bake.
const MOST: usize = 12;
/// What rounding may tear apart.
const SLACK: f64 = 1e-6;
const MINUTES: NumberRange = NumberRange::new("minutes", "the phase", "min", 0.1, 600.0);
const TOP: NumberRange = NumberRange::new("top_c", "heat from above", "°C", 50.0, 500.0);
const BOTTOM: NumberRange = NumberRange::new("bottom_c", "heat from below", "°C", 50.0, 500.0);
const STEAM: NumberRange = NumberRange::new("steam_s", "steam", "s", 0.0, 600.0);
const STEAM_UNTIL: NumberRange =
    NumberRange::new("steam_until_core_c", "the core at which steam ends", "°C", 40.0, 99.0);

/// The phases of a bake of so many minutes, which they add up to.
pub(super) fn check_programme(
    phases: &[BakePhaseInput],
    minutes: f64,
    at: &str,
    faults: &mut ValidationErrors,
) -> Vec<BakePhase> {
    if phases.len() > MOST {
        faults.push(format!("{at}programme"), format!("up to {MOST} phases"));
    }
    let phases = phases.iter().take(MOST).enumerate();
    let checked: Vec<BakePhase> = phases
        .map(|(number, phase)| {
            let at = format!("{at}programme[{number}].");
            BakePhase {
                minutes: MINUTES.check(&phase.minutes, &at, faults),
                top_c: TOP.check(&phase.top_c, &at, faults),
                bottom_c: BOTTOM.check_opt(&phase.bottom_c, &at, faults),
                steam_s: STEAM.check_opt(&phase.steam_s, &at, faults).filter(|steam| *steam > 0.0),
                steam_until_core_c: STEAM_UNTIL.check_opt(&phase.steam_until_core_c, &at, faults),
                damper_open: phase.damper_open,
                lid: phase.lid,
                tin_out: phase.tin_out,
                aid: phase.aid,
            }
        })
        .collect();
    for (number, pair) in checked.windows(2).enumerate() {
        let at = format!("{at}programme[{}].", number + 1);
        if pair[0].tin_out && !pair[1].tin_out {
            faults.push(format!("{at}tin_out"), "once out of its tin, a bread is not put back");
        }
    }
    let all: f64 = checked.iter().map(|phase| phase.minutes).sum();
    if !checked.is_empty() && (all - minutes).abs() > SLACK {
        let message = format!("the phases last {all} min, the bake {minutes}");
        faults.push(format!("{at}programme"), message);
    }
    checked
}
