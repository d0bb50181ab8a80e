use serde::Deserialize;
use uuid::Uuid;

use super::ambient::check_ambient;
use super::bake_phase::check_programme;
use super::{
    AdditionInput, AmbientPointInput, BakePhaseInput, EndFigure, EndPoint, Method, OptionalStep,
    Process, Speed, Stage, StageKind, StageRole, TimeTolerance,
};
use crate::dough::{Ingredient, PreparationKind};
use crate::units::{NumberRange, RawNumber, ValidationErrors};

/// Most stages of a method.
const MOST: usize = 40;
/// Most that goes in at one stage.
const MOST_ADDITIONS: usize = 20;
/// Shares of one ingredient together, with what rounding adds.
const ALL_OF_IT: f64 = 100.0 + 1e-6;
/// Longest texts, letters.
const LONGEST_LABEL: usize = 80;
const LONGEST_TEXT: usize = 300;

const TARGET: NumberRange = NumberRange::new("target_c", "dough off the mixer", "°C", 0.0, 60.0);
const SPONGE: NumberRange = NumberRange::new("sponge_c", "sponge off the mixer", "°C", 5.0, 40.0);
const MINUTES: NumberRange = NumberRange::new("minutes", "the stage", "min", 0.0, 14_400.0);
const LOW: NumberRange =
    NumberRange::new("low_min", "the shortest it may be", "min", 0.0, 14_400.0);
const HIGH: NumberRange =
    NumberRange::new("high_min", "the longest it may be", "min", 0.0, 28_800.0);
const TEMPERATURE: NumberRange =
    NumberRange::new("temperature_c", "temperature around it", "°C", -40.0, 500.0);
const BEGINS_AT: NumberRange =
    NumberRange::new("begins_at_mm", "the height it begins at", "mm", 5.0, 500.0);
const SETS: NumberRange = NumberRange::new("fold_sets", "sets of folds", "", 1.0, 12.0);
const HUMIDITY: NumberRange = NumberRange::new("humidity_pct", "humidity", "%", 0.0, 100.0);

/// A method as it was typed.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct MethodDraft {
    pub process: Process,
    /// 0 to 60 °C.
    #[serde(default)]
    pub target_c: RawNumber,
    /// 5 to 40 °C; the house's 24 if left out.
    #[serde(default)]
    pub sponge_c: RawNumber,
    #[serde(default)]
    pub machine_divided: bool,
    /// 1 to 40, in order.
    #[serde(default)]
    pub stages: Vec<StageInput>,
}

/// One stage as it was typed.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct StageInput {
    /// As it was recorded; left out of a new one.
    #[serde(default)]
    pub id: Option<Uuid>,
    #[serde(default)]
    pub optional_step: Option<OptionalStep>,
    pub kind: StageKind,
    #[serde(default)]
    pub label: String,
    /// 0 to 14 400 min.
    #[serde(default)]
    pub minutes: RawNumber,
    #[serde(default)]
    pub speed: Option<Speed>,
    /// −40 to 500 °C.
    #[serde(default)]
    pub temperature_c: RawNumber,
    /// How that changes from then on, up to 12 points; from the mixer to the oven.
    #[serde(default)]
    pub ambient_curve: Vec<AmbientPointInput>,
    /// 0 to 100 %.
    #[serde(default)]
    pub humidity_pct: RawNumber,
    #[serde(default)]
    pub ends_when: String,
    #[serde(default, alias = "ends_by")]
    pub end_point: EndPoint,
    /// Where its end point is read as a number: a rise, 5 to 400 % of its volume at first; a dough
    /// temperature, −30 to 60 °C; a core temperature, −30 to 110 °C; a height, 5 to 500 mm; a pH, 3
    /// to 7; minutes after another stage, 0 to 14 400.
    #[serde(default, alias = "ends_at_rise_pct")]
    pub ends_at: RawNumber,
    /// Where it ends at a height, 5 to 500 mm: how high the piece stands as it begins.
    #[serde(default)]
    pub begins_at_mm: RawNumber,
    /// The id of an earlier stage from whose end the clock counts.
    #[serde(default)]
    pub ends_after: Option<Uuid>,
    #[serde(default)]
    pub reason: String,
    #[serde(default, alias = "window")]
    pub tolerance: Option<TimeToleranceInput>,
    #[serde(default)]
    pub adds: Vec<AdditionInput>,
    /// Of folds, 1 to 12, each with a rest after it.
    #[serde(default)]
    pub fold_sets: RawNumber,
    /// Of a mixing or a rest before the dough is mixed: the kind of preparation it is of.
    #[serde(default)]
    pub makes: Option<PreparationKind>,
    /// Of a bake, up to 12 phases.
    #[serde(default)]
    pub programme: Vec<BakePhaseInput>,
}

/// How short and how long a stage may be, as it was typed.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TimeToleranceInput {
    /// 0 to 14 400 min.
    #[serde(default)]
    pub low_min: RawNumber,
    /// 0 to 28 800 min.
    #[serde(default)]
    pub high_min: RawNumber,
}

impl MethodDraft {
    /// The method, or what is wrong with it under `at`: it mixes, every number is in its range,
    /// every stage has a name, and its minutes lie within what it is allowed.
    ///
    /// ```
    /// use ironpeel_core::method::MethodDraft;
    /// use ironpeel_core::units::ValidationErrors;
    /// let draft: MethodDraft = serde_json::from_str(
    ///     r#"{"process": "no_time", "target_c": 27, "stages": [
    ///         {"kind": "proof", "label": "Proof", "minutes": 55}]}"#)?;
    /// let mut faults = ValidationErrors::default();
    /// draft.check("", &mut faults);
    /// assert_eq!(faults.0[0].message, "a method needs a mixing stage");
    /// # Ok::<(), serde_json::Error>(())
    /// ```
    pub fn check(&self, at: &str, faults: &mut ValidationErrors) -> Method {
        let count = self.stages.len();
        if count > MOST {
            faults.push(format!("{at}stages"), format!("up to {MOST} stages; {count} were given"));
        }
        let mixes_dough =
            |stage: &StageInput| stage.kind == StageKind::Mix && stage.makes.is_none();
        if !self.stages.iter().any(mixes_dough) {
            faults.push(format!("{at}stages"), "a method needs a mixing stage");
        }
        let ids: Vec<Uuid> = self.stages.iter().take(MOST).filter_map(|stage| stage.id).collect();
        let twice = ids.iter().enumerate().find(|(at, id)| ids[..*at].contains(id));
        if twice.is_some() {
            faults.push(
                format!("{at}stages"),
                "one stage stands twice: a copy is a stage of its own",
            );
        }
        let stages = self.stages.iter().take(MOST).enumerate();
        let method = Method {
            process: self.process,
            target_c: TARGET.check(&self.target_c, at, faults),
            sponge_c: SPONGE.check_opt(&self.sponge_c, at, faults),
            machine_divided: self.machine_divided,
            stages: stages
                .map(|(number, stage)| stage.check(&format!("{at}stages[{number}]."), faults))
                .collect(),
        };
        check_shares(&method, at, faults);
        check_order(&method, at, faults);
        method
    }
}

/// No more of an ingredient goes in than there is of it.
fn check_shares(method: &Method, at: &str, faults: &mut ValidationErrors) {
    let mut taken: Vec<(Ingredient, f64)> = Vec::new();
    for (number, stage) in method.stages.iter().enumerate() {
        for (place, add) in stage.adds.iter().enumerate() {
            let Some(share) = add.share_pct else { continue };
            let known = taken.iter().position(|(one, _)| *one == add.ingredient);
            let known = known.unwrap_or_else(|| {
                taken.push((add.ingredient, 0.0));
                taken.len() - 1
            });
            taken[known].1 += share;
            let all = taken[known].1;
            if all > ALL_OF_IT {
                let message = format!("{all:.0} % of the {} would go in", add.ingredient);
                faults.push(format!("{at}stages[{number}].adds[{place}].share_pct"), message);
            }
        }
    }
}

/// The clock counts from an earlier stage, the room is followed from the mixer to the oven, and what
/// is made before is made before.
fn check_order(method: &Method, at: &str, faults: &mut ValidationErrors) {
    let roles = method.roles();
    for (number, stage) in method.stages.iter().enumerate() {
        let at = format!("{at}stages[{number}].");
        let before = &method.stages[..number];
        if stage.ends_after.is_some_and(|id| before.iter().all(|one| one.id != Some(id))) {
            faults.push(format!("{at}ends_after"), "the clock counts from a stage before this one");
        }
        let prepares = matches!(stage.kind, StageKind::Mix | StageKind::Rest);
        if stage.makes.is_some() && (!prepares || number > method.first_mix()) {
            let message = "a preparation is mixed, and rests, before the dough is mixed";
            faults.push(format!("{at}makes"), message);
        }
        let is_left_alone = number < method.first_mix() && roles[number] != StageRole::Sponge;
        if !stage.ambient_curve.is_empty() && (is_left_alone || !stage.rises()) {
            let message = "what is around it is followed as it changes while a sponge lies, and in a \
                           rest, folds or a proof from the mixer on";
            faults.push(format!("{at}ambient_curve"), message);
        }
    }
}

impl StageInput {
    fn check(&self, at: &str, faults: &mut ValidationErrors) -> Stage {
        let label = self.label.trim();
        if label.is_empty() || label.chars().count() > LONGEST_LABEL {
            let message = format!("what is this stage called? up to {LONGEST_LABEL} letters");
            faults.push(format!("{at}label"), message);
        }
        for (field, text) in [("ends_when", &self.ends_when), ("reason", &self.reason)] {
            if text.chars().count() > LONGEST_TEXT {
                faults.push(format!("{at}{field}"), format!("up to {LONGEST_TEXT} letters"));
            }
        }
        let minutes = MINUTES.check(&self.minutes, at, faults);
        let tolerance = self.check_tolerance(minutes, at, faults);
        let sets = SETS.check_opt(&self.fold_sets, at, faults);
        if let Some(sets) = sets.filter(|sets| sets.fract() != 0.0) {
            let message = format!("sets of folds are whole: 3, not {sets}");
            faults.push(format!("{at}fold_sets"), message);
        }
        let fold_sets = sets.filter(|_| self.kind == StageKind::Fold).map(|sets| sets as u8);
        if self.adds.len() > MOST_ADDITIONS {
            faults
                .push(format!("{at}adds"), format!("up to {MOST_ADDITIONS} things go in at once"));
        }
        let adds = self.adds.iter().take(MOST_ADDITIONS).enumerate();
        let adds = adds.map(|(one, add)| add.check(&format!("{at}adds[{one}]."), faults)).collect();
        let stage = Stage::new(self.kind, label, minutes);
        let figure = self.end_point.figure(stage.rises());
        let ends_at = figure.and_then(|figure| figure.range().check_opt(&self.ends_at, at, faults));
        let begins_at_mm = BEGINS_AT
            .check_opt(&self.begins_at_mm, at, faults)
            .filter(|_| figure == Some(EndFigure::Height));
        if let Some((begins, ends)) =
            begins_at_mm.zip(ends_at).filter(|(begins, ends)| begins > ends)
        {
            let message =
                format!("it stands at {begins} mm at first, above the {ends} mm it ends at");
            faults.push(format!("{at}begins_at_mm"), message);
        }
        Stage {
            id: self.id,
            optional_step: self.optional_step,
            fold_sets,
            speed: self.speed.filter(|_| self.kind == StageKind::Mix),
            temperature_c: TEMPERATURE.check_opt(&self.temperature_c, at, faults),
            ambient_curve: check_ambient(&self.ambient_curve, at, faults),
            humidity_pct: HUMIDITY.check_opt(&self.humidity_pct, at, faults),
            ends_when: self.ends_when.trim().into(),
            end_point: self.end_point,
            ends_at,
            begins_at_mm,
            ends_after: self.ends_after.filter(|_| self.end_point == EndPoint::Time),
            reason: self.reason.trim().into(),
            tolerance,
            adds,
            makes: self.makes,
            programme: if self.kind == StageKind::Bake {
                check_programme(&self.programme, minutes, at, faults)
            } else {
                Vec::new()
            },
            ..stage
        }
    }

    /// How short and how long it may be, which its minutes keep.
    fn check_tolerance(
        &self,
        minutes: f64,
        at: &str,
        faults: &mut ValidationErrors,
    ) -> Option<TimeTolerance> {
        let tolerance = self.tolerance.as_ref().map(|tolerance| {
            let at = format!("{at}tolerance.");
            let low_min = LOW.check(&tolerance.low_min, &at, faults);
            let high_min = HIGH.check(&tolerance.high_min, &at, faults);
            if low_min > high_min {
                let message = format!("the longest ({high_min}) is shorter than the shortest");
                faults.push(format!("{at}high_min"), message);
            }
            TimeTolerance { low_min, high_min }
        });
        if let Some(TimeTolerance { low_min, high_min }) =
            tolerance.filter(|tolerance| tolerance.low_min <= tolerance.high_min)
            && !(low_min..=high_min).contains(&minutes)
        {
            let message =
                format!("{minutes} min are planned, and {low_min} to {high_min} are allowed here");
            faults.push(format!("{at}minutes"), message);
        }
        tolerance
    }
}
