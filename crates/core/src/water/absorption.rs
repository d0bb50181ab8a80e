use serde::Deserialize;

use super::absorption_model::{ABSORPTION, ASH, DAMAGED, PROTEIN};
use super::coefficients::{PROCESSES, STRAIGHT_BULK};
use super::{
    AbsorptionBuildUp, AbsorptionModel, AbsorptionRequest, Addition, Composition, Flour, FlourPart,
    build_up,
};
use crate::coefficient::Coefficients;
use crate::dough::{Ingredient, Library};
use crate::flour::{Moisture, Species};
use crate::units::{NumberRange, RawNumber, ValidationErrors, quoted};

/// Most lines.
const MOST: usize = 60;

/// The flour of the `absorption` calculator.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AbsorptionFlour {
    /// 0 to 30 %.
    #[serde(default)]
    pub moisture_pct: RawNumber,
    /// 20 to 150 %; where it is left out, protein and damaged starch are needed.
    #[serde(default)]
    pub absorption_14_pct: RawNumber,
    /// 0 to 40 %.
    #[serde(default)]
    pub protein_14_pct: RawNumber,
    /// 0 to 40 %.
    #[serde(default)]
    pub damaged_starch_pct: RawNumber,
    /// 0 to 10 %; may be left out.
    #[serde(default)]
    pub ash_dm_pct: RawNumber,
    /// Wheat, durum, spelt, emmer, einkorn, khorasan, rye, gluten_free or low_starch; wheat if left
    /// out.
    #[serde(default)]
    pub species: Option<String>,
    /// 0 to 100 %; 0 if left out.
    #[serde(default)]
    pub whole_grain_share_pct: RawNumber,
    /// 0 to 3650 days; may be left out.
    #[serde(default)]
    pub age_days: RawNumber,
    /// 10 to 1000; may be left out.
    #[serde(default)]
    pub w: RawNumber,
}

/// One ingredient of the `absorption` calculator.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AbsorptionLine {
    #[serde(default)]
    pub ingredient: String,
    /// 0 to 100 % on flour.
    #[serde(default)]
    pub pct: RawNumber,
}

/// What the `absorption` calculator is asked.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AbsorptionInput {
    #[serde(default)]
    pub flour: AbsorptionFlour,
    /// No_time, straight_bulk, sponge_dough, long_cold or frozen.
    #[serde(default)]
    pub process: Option<String>,
    /// Everything but flour and water, up to 60.
    #[serde(default)]
    pub lines: Vec<AbsorptionLine>,
    /// −20 to 20 points, wetter or drier by style; 0 if left out.
    #[serde(default)]
    pub style_points: RawNumber,
    /// Whether a machine divides, which lowers what strength can carry.
    #[serde(default)]
    pub machine_divided: bool,
}

const MOISTURE: NumberRange =
    NumberRange::new("moisture_pct", "moisture of the flour", "%", 0.0, 30.0);
const WHOLE: NumberRange =
    NumberRange::new("whole_grain_share_pct", "share that is whole grain", "%", 0.0, 100.0);
const AGE: NumberRange = NumberRange::new("age_days", "days since milling", "days", 0.0, 3650.0);
const W: NumberRange = NumberRange::new("w", "W", "10⁻⁴ J", 10.0, 1000.0);
const PCT: NumberRange = NumberRange::new("pct", "percent on flour", "%", 0.0, 100.0);
const STYLE: NumberRange =
    NumberRange::new("style_points", "style", "points of water", -20.0, 20.0);

impl AbsorptionInput {
    /// Checks every field, then climbs the build-up by the house's rules.
    ///
    /// ```
    /// use ironpeel_core::water::AbsorptionInput;
    /// let input: AbsorptionInput = serde_json::from_str(r#"{
    ///     "flour": {"moisture_pct": 14, "absorption_14_pct": 62}, "process": "sponge_dough",
    ///     "lines": [{"ingredient": "salt", "pct": 2}]}"#)?;
    /// assert!((input.compute()?.dough_absorption_pct - 63.8).abs() < 1e-9);
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    pub fn compute(&self) -> Result<AbsorptionBuildUp, ValidationErrors> {
        let mut faults = ValidationErrors::default();
        let flour = self.flour.check(&mut faults);
        let known = |key: &str| PROCESSES.into_iter().find(|process| process.key == key);
        let keys = PROCESSES.map(|process| process.key);
        let process = word(self.process.as_deref(), known, None, &keys).unwrap_or_else(|message| {
            faults.push("process", message);
            &STRAIGHT_BULK
        });
        if self.lines.len() > MOST {
            faults.push("lines", format!("up to {MOST} lines; {} were given", self.lines.len()));
            return Err(faults);
        }
        let library = Library::default();
        let mut lines: Vec<Addition<'_>> = Vec::with_capacity(self.lines.len());
        for (at, line) in self.lines.iter().enumerate() {
            let pct = PCT.check(&line.pct, &format!("lines[{at}]."), &mut faults);
            let known = Ingredient::from_key(&line.ingredient).filter(|known| {
                library.knows(*known) && !matches!(known, Ingredient::Flour | Ingredient::Water)
            });
            let Some(ingredient) = known else {
                let short = quoted(&line.ingredient);
                let words: Vec<_> = Ingredient::ALL[2..].iter().map(|known| known.key()).collect();
                let message = format!(
                    "“{short}” is no ingredient known here; use one of {}",
                    words.join(", ")
                );
                faults.push(format!("lines[{at}].ingredient"), message);
                continue;
            };
            lines.push(Addition { properties: library.properties(ingredient), pct });
        }
        let style_points = STYLE.check_or(&self.style_points, 0.0, "", &mut faults);
        faults.or(())?;
        let (coefficients, model) = (Coefficients::default(), AbsorptionModel::default());
        let wanted = AbsorptionRequest {
            process,
            lines: &lines,
            style_points,
            learned: None,
            override_pct: None,
            machine_divided: self.machine_divided,
            coefficients: &coefficients,
            model: &model,
        };
        let flours = [FlourPart { name: "the flour", flour, share_pct: 100.0 }];
        build_up(&flours, &wanted).map_err(|no_base| {
            let mut faults = ValidationErrors::default();
            faults.push("flour.absorption_14_pct", no_base.to_string());
            faults
        })
    }
}

impl AbsorptionFlour {
    fn check(&self, faults: &mut ValidationErrors) -> Flour {
        let at = "flour.";
        let species = word(
            self.species.as_deref(),
            Species::from_key,
            Some(Species::Wheat),
            &Species::ALL.map(Species::key),
        );
        let species = species.unwrap_or_else(|message| {
            faults.push("flour.species", message);
            Species::Wheat
        });
        let absorption_14_pct = ABSORPTION.check_opt(&self.absorption_14_pct, at, faults);
        let needs_composition = absorption_14_pct.is_none()
            && self.absorption_14_pct.is_missing()
            && species.has_gluten();
        let mut part = |bound: &NumberRange, given: &RawNumber| {
            if needs_composition {
                Some(bound.check(given, at, faults))
            } else {
                bound.check_opt(given, at, faults)
            }
        };
        let protein_14_pct = part(&PROTEIN, &self.protein_14_pct);
        let damaged_starch_pct = part(&DAMAGED, &self.damaged_starch_pct);
        let percent = MOISTURE.check(&self.moisture_pct, at, faults);
        Flour {
            moisture: Moisture::new(percent).unwrap_or(Moisture::FOURTEEN),
            usual_moisture: None,
            absorption_14_pct,
            composition: Composition {
                protein_14_pct,
                damaged_starch_pct,
                ash_dm_pct: ASH.check_opt(&self.ash_dm_pct, at, faults),
            },
            species,
            whole_grain_pct: WHOLE.check_or(&self.whole_grain_share_pct, 0.0, at, faults),
            age_days: AGE.check_opt(&self.age_days, at, faults),
            w: W.check_opt(&self.w, at, faults),
        }
    }
}

/// One of a few words; the default where it was left out, a message where it is none of them.
fn word<T>(
    given: Option<&str>,
    of: impl Fn(&str) -> Option<T>,
    default: Option<T>,
    words: &[&str],
) -> Result<T, String> {
    let wanted = || format!("use one of {}", words.join(", "));
    match given {
        None => default.ok_or_else(|| format!("it is missing; {}", wanted())),
        Some(text) => of(text).ok_or_else(|| {
            let short = quoted(text);
            format!("“{short}” is not known here; {}", wanted())
        }),
    }
}
