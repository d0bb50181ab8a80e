use serde::Serialize;

use super::line::ScenarioLine;
use crate::heat::WaterSources;
use crate::method::{Equipment, MIXER_KINDS, Mixer};

/// A line to begin from: what is usual of such a place (H), each figure to be put right by whoever
/// stands there.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct LineTemplate {
    pub name: &'static str,
    /// What such a place has.
    pub about: &'static str,
    pub line: ScenarioLine,
}

const BENCH: Equipment = Equipment {
    turn_min: 5.0,
    troughs: 2,
    trough_kg: 3.0,
    trough_m2: 0.1,
    divider_per_min: 2.0,
    proofer_pieces: 12.0,
    oven_pieces: 4.0,
};
const HOME: Equipment = Equipment {
    turn_min: 5.0,
    troughs: 2,
    trough_kg: 5.0,
    trough_m2: 0.1,
    divider_per_min: 3.0,
    proofer_pieces: 24.0,
    oven_pieces: 12.0,
};
const BAKERY: Equipment = Equipment {
    turn_min: 8.0,
    troughs: 6,
    trough_kg: 40.0,
    trough_m2: 0.5,
    divider_per_min: 15.0,
    proofer_pieces: 600.0,
    oven_pieces: 120.0,
};
const PLANT: Equipment = Equipment {
    turn_min: 6.0,
    troughs: 12,
    trough_kg: 250.0,
    trough_m2: 1.2,
    divider_per_min: 120.0,
    proofer_pieces: 6000.0,
    oven_pieces: 3000.0,
};

/// A tap, a refrigerator and ice.
const KITCHEN: WaterSources = WaterSources {
    chilled_c: None,
    refrigerator_c: Some(4.0),
    hot_c: Some(50.0),
    max_ice_pct: 60.0,
};
/// A chiller and ice.
const CHILLER: WaterSources = WaterSources {
    chilled_c: Some(3.0),
    refrigerator_c: None,
    hot_c: Some(60.0),
    max_ice_pct: 60.0,
};

/// The places a line may begin from, the smallest first; a mixer's power is its kind's usual one.
///
/// ```
/// let templates = ironpeel_core::chain::line_templates();
/// assert!(templates.windows(2).all(|two| two[0].line.mixer.max_kg < two[1].line.mixer.max_kg));
/// ```
pub fn line_templates() -> Vec<LineTemplate> {
    let of = |name, about, mixer, equipment, division_kg, water| LineTemplate {
        name,
        about,
        line: ScenarioLine {
            mixer,
            equipment,
            division_kg,
            tap_c: 14.0,
            flour_c: 20.0,
            room_c: 22.0,
            water,
        },
    };
    vec![
        of(
            "Bench with a bowl",
            "mixed by hand, a home oven, a scale that shows 1\u{a0}g",
            mixer("Bowl", "hand", 0.3, 3.0),
            BENCH,
            0.001,
            KITCHEN,
        ),
        of(
            "Small mixer and a home oven",
            "a small spiral, an oven of two trays, a scale that shows 1\u{a0}g",
            mixer("Small spiral", "small spiral", 0.5, 5.0),
            HOME,
            0.001,
            KITCHEN,
        ),
        of(
            "Bakery with a deck oven",
            "a spiral, trolleys or a proofer, a scale that shows 10\u{a0}g",
            mixer("Spiral", "spiral", 8.0, 80.0),
            BAKERY,
            0.01,
            KITCHEN,
        ),
        of(
            "Plant line",
            "a horizontal mixer, a chiller, a tunnel oven, a scale that shows 100\u{a0}g",
            mixer("Horizontal", "horizontal", 100.0, 500.0),
            PLANT,
            0.1,
            CHILLER,
        ),
    ]
}

/// A mixer of a kind, with what is usual of it.
fn mixer(name: &str, kind: &str, min_kg: f64, max_kg: f64) -> Mixer {
    let usual = MIXER_KINDS.iter().find(|one| one.kind == kind);
    let [slow, fast] = usual.map_or([0.0; 2], |usual| [usual.slow.typical, usual.fast.typical]);
    Mixer {
        name: name.into(),
        kind: kind.into(),
        min_kg,
        max_kg,
        slow_kj_per_kg_min: slow,
        fast_kj_per_kg_min: fast,
        jacket_kj_per_kg_min: None,
    }
}

#[cfg(test)]
mod tests {
    use super::super::line::LineDraft;
    use super::*;
    use crate::units::ValidationErrors;

    #[test]
    fn each_is_a_line_that_may_be_recorded_as_it_is() {
        for LineTemplate { name, line, .. } in line_templates() {
            assert!(line.mixer.fast_kj_per_kg_min > 0.0, "{name}: its kind is known");
            let mut faults = ValidationErrors::default();
            let recorded = LineDraft::default().over(Some(&line), "", &mut faults);
            assert_eq!(faults.or(()), Ok(()), "{name}");
            assert_eq!(recorded, line, "{name}");
        }
    }
}
