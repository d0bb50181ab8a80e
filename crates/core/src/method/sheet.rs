use serde::Serialize;

use super::to_weigh::{Plan, SheetPart, ToWeigh};
use super::weighing::{flour_kg_per_pct, portioned, together, weigh_out};
use super::{
    AmbientPoint, BakePhase, Dilution, EndFigure, Speed, StageCaution, StageKind, cautions_at,
};
use crate::dough::{Ingredient, TooMuchPrefermentWater};

/// One step on the mixing sheet.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SheetStep {
    /// Minutes from the first water.
    pub at_min: f64,
    pub kind: StageKind,
    pub label: String,
    pub minutes: f64,
    pub speed: Option<Speed>,
    pub temperature_c: Option<f64>,
    /// How what is around it changes from its beginning on; left out where it does not.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    #[cfg_attr(feature = "openapi", schema(required = false))]
    pub ambient_curve: Vec<AmbientPoint>,
    pub humidity_pct: Option<f64>,
    pub ends_when: String,
    /// The number it ends at, and what that is of.
    pub ends_at: Option<f64>,
    pub end_figure: Option<EndFigure>,
    /// The stage from whose end its clock counts, by its name.
    pub ends_after: Option<String>,
    /// When each of several sets of folds is, minutes from the first water.
    pub folds_at_min: Vec<f64>,
    /// Of a sponge: between when it is ripe, minutes from the first water; none where it never is.
    pub ripe_at_min: Option<[f64; 2]>,
    /// Of a rest between two mixings: how warm the dough is as it begins, and as it ends.
    pub dough_c: Option<[f64; 2]>,
    /// Minutes under the mixer so far, as a share of all mixing; where this is a mixing stage.
    pub mixing_done_pct: Option<f64>,
    /// The parts that are made at it, by their place in the sheet's parts.
    pub makes_parts: Vec<usize>,
    /// What the oven does, phase after phase; left out where nothing is stated.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    #[cfg_attr(feature = "openapi", schema(required = false))]
    pub programme: Vec<BakePhase>,
    /// The parts made before that go in, by their place in the sheet's parts.
    pub takes_parts: Vec<usize>,
    /// What goes in, in order.
    pub takes: Vec<ToWeigh>,
    pub cautions: Vec<StageCaution>,
}

/// What the whole sheet asks attention for.
#[derive(Debug, Clone, PartialEq)]
pub enum SheetCaution {
    /// Too little for the scale's division, kg.
    FinerScale {
        items: Vec<String>,
        division_kg: f64,
        coarse_kg: f64,
    },
    /// So little yeast goes in as part of a solution.
    Dilution(Dilution),
    SmallDough {
        dough_kg: f64,
        mixer: String,
        least_kg: f64,
    },
    /// Points of water on flour, and what they weigh, to be added after some minutes.
    HoldBack {
        points: f64,
        kg: f64,
        low_min: f64,
        high_min: f64,
    },
    /// Minutes before the water is judged.
    Wait {
        low_min: f64,
        high_min: f64,
    },
}

/// What the floor works from: for each dough, what goes in when, and for how long.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Sheet {
    pub doughs: u32,
    /// The rounded masses of one dough together.
    pub dough_kg: f64,
    pub division_kg: f64,
    pub target_c: f64,
    /// Each ingredient of the dough once, however often it is weighed.
    pub whole: Vec<ToWeigh>,
    /// The same of the final dough.
    pub final_dough: Vec<ToWeigh>,
    /// Sponge, starter and the like, made before.
    pub parts: Vec<SheetPart>,
    pub steps: Vec<SheetStep>,
    pub total_min: f64,
    pub cautions: Vec<SheetCaution>,
}

/// Lays one dough's masses, water and ice over its parts and the stages of its method.
///
/// Masses are rounded together to the scale's division, so that they still sum to the dough.
/// Liquid goes in before powder at the first mixing; what a stage names waits for it.
pub fn sheet(plan: &Plan<'_>) -> Result<Sheet, TooMuchPrefermentWater> {
    let (parts, to_weigh) = weigh_out(plan)?;
    let cautions = cautions(plan, &to_weigh);
    let method = plan.method;
    let mut waiting = portioned(plan, to_weigh);
    let parts_join = method.parts_join_at();
    let early_kg: f64 = parts.iter().map(|part| part.kg).sum();
    let final_kg: f64 = waiting.iter().map(|(_, item)| item.kg).sum();
    let dough_kg = early_kg + final_kg;
    let all_mixing = method.mixing_min();

    let mut at_min = 0.0;
    let mut mixed = 0.0;
    let mut steps = Vec::with_capacity(method.stages.len());
    for (number, stage) in method.stages.iter().enumerate() {
        let takes: Vec<ToWeigh> =
            waiting.extract_if(.., |(at, _)| *at == number).map(|(_, item)| item).collect();
        let ingredients: Vec<Ingredient> = takes.iter().map(|item| item.ingredient).collect();
        let is_mix = stage.mixes_dough();
        let made = parts
            .iter()
            .enumerate()
            .filter(|(_, part)| stage.kind == StageKind::Mix && stage.makes == Some(part.kind));
        steps.push(SheetStep {
            at_min,
            kind: stage.kind,
            label: stage.label.clone(),
            minutes: stage.minutes,
            speed: stage.speed,
            temperature_c: stage.temperature_c,
            ambient_curve: stage.ambient_curve.clone(),
            humidity_pct: stage.humidity_pct,
            ends_when: stage.ends_when.clone(),
            ends_at: stage.ends_at,
            end_figure: stage.end_figure(),
            ends_after: stage.ends_after.and_then(|id| {
                let after = method.stages.iter().find(|one| one.id == Some(id));
                after.map(|one| one.label.clone())
            }),
            folds_at_min: match stage.sets() {
                0 | 1 => Vec::new(),
                _ => stage.folds(stage.minutes).iter().map(|set| at_min + set.from_min).collect(),
            },
            ripe_at_min: None,
            dough_c: None,
            mixing_done_pct: (is_mix && all_mixing > 0.0).then(|| 100.0 * mixed / all_mixing),
            cautions: cautions_at(stage, &ingredients),
            makes_parts: made.map(|(part, _)| part).collect(),
            programme: stage.programme.clone(),
            takes_parts: if number == parts_join { (0..parts.len()).collect() } else { Vec::new() },
            takes,
        });
        at_min += stage.minutes;
        mixed += if is_mix { stage.minutes } else { 0.0 };
    }
    let final_dough = together(steps.iter().flat_map(|step| &step.takes));
    Ok(Sheet {
        whole: together(parts.iter().flat_map(|part| &part.takes).chain(&final_dough)),
        final_dough,
        doughs: plan.scaled.doughs,
        dough_kg,
        division_kg: plan.division_kg,
        target_c: plan.target_c,
        parts,
        steps,
        total_min: at_min,
        cautions,
    })
}

fn cautions(plan: &Plan<'_>, to_weigh: &[ToWeigh]) -> Vec<SheetCaution> {
    let mut cautions = Vec::new();
    let fine: Vec<&ToWeigh> =
        to_weigh.iter().filter(|item| item.division_kg < plan.division_kg).collect();
    if let Some(least) = fine.iter().map(|item| item.division_kg).min_by(f64::total_cmp) {
        cautions.push(SheetCaution::FinerScale {
            items: fine.iter().map(|item| item.name.clone()).collect(),
            division_kg: least,
            coarse_kg: plan.division_kg,
        });
    }
    let yeasts = fine.iter().filter(|item| item.ingredient.is_yeast());
    cautions.extend(yeasts.filter_map(|item| {
        let (coarse, house) = (plan.division_kg, plan.coefficients);
        let dilution = Dilution::wanted(&*item.name, item.exact_kg, coarse, house)?;
        Some(SheetCaution::Dilution(dilution))
    }));
    if plan.scaled.dough_kg < plan.mixer.min_kg {
        cautions.push(SheetCaution::SmallDough {
            dough_kg: plan.scaled.dough_kg,
            mixer: plan.mixer.name.clone(),
            least_kg: plan.mixer.min_kg,
        });
    }
    if let Some(held) = plan.hold_back {
        let flour_kg = flour_kg_per_pct(plan);
        let (low_min, high_min) = (held.wait_min_low, held.wait_min_high);
        cautions.push(if held.points > 0.0 {
            SheetCaution::HoldBack {
                points: held.points,
                kg: held.points * flour_kg,
                low_min,
                high_min,
            }
        } else {
            SheetCaution::Wait { low_min, high_min }
        });
    }
    cautions
}
