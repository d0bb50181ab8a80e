use serde::{Deserialize, Serialize};

use super::coefficients::{JUDGE_SD, JUDGE_SD_COUNTS, LEVEL_COUNTS};
use super::{MARKS, NINETEEN_IN_TWENTY};
use crate::coefficient::Coefficients;
use crate::units::{NumberRange, Series, ValidationErrors};

/// What two judges marked, one trait.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct JudgesInput {
    /// Loaves both marked, the last 60 of which count: the first's mark and the second's, 1 to 5.
    #[serde(default)]
    pub marks: Option<Vec<Series>>,
    /// Differences of loaves the first judge met twice without knowing, −4 to 4; up to 1000.
    #[serde(default)]
    pub repeats_1: Series,
    /// The same of the second.
    #[serde(default)]
    pub repeats_2: Series,
    /// Their marks of the loaf in question.
    #[serde(default)]
    pub now: Series,
}

/// Two judges beside one another.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Judges {
    pub judges: [JudgeLevel; 2],
    /// Their levelled marks disagree beyond it.
    pub limit: f64,
    /// None where no loaf is in question.
    pub now: Option<JointMark>,
}

/// How a judge marks.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct JudgeLevel {
    /// How far above the mean of both; taken off each mark.
    pub level: f64,
    /// Repeatability, 1 σ.
    pub sd: f64,
}

/// Both marks together.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct JointMark {
    pub mark: f64,
    pub sd: f64,
    /// Where they do not, both look once more, blind.
    pub agree: bool,
}

const MOST: usize = 1000;
/// So many of the last loaves say a judge's level.
pub(super) const LAST: usize = 60;
const JUDGES: usize = 2;
const WIDEST: f64 = MARKS.1 - MARKS.0;

const fn marks_of(field: &'static str) -> NumberRange {
    NumberRange::new(field, "the marks of both judges", "", MARKS.0, MARKS.1)
}

const fn repeats_of(field: &'static str) -> NumberRange {
    NumberRange::new(field, "differences of repeats", "marks", -WIDEST, WIDEST)
}

impl JudgesInput {
    /// Checks every field, then finds each judge's level and repeatability, and their joint mark.
    ///
    /// `b = Σ(m − mean of both)/(n + 10)`, `σ² = (6·0.5² + Σd²/2)/(6 + v)`,
    /// `m = Σ(m'/σ²)/Σ(1/σ²)`; they disagree beyond `1.96·√(σ₁² + σ₂²)`.
    ///
    /// ```
    /// use ironpeel_core::{coefficient::Coefficients, judging::JudgesInput};
    /// let input: JudgesInput = serde_json::from_str(r#"{"marks": [], "now": [4, 3],
    ///     "repeats_1": [0.5, 0.5, 0.5, 0.5, 0.5, 0, 0, 0],
    ///     "repeats_2": [1, 1, 1, 0, 0, 0, 0, 0]}"#)?;
    /// let found = input.compute(&Coefficients::default())?;
    /// assert!((found.judges[0].sd - 0.39).abs() < 0.005);
    /// assert!((found.judges[1].sd - 0.46).abs() < 0.005);
    /// let now = found.now.unwrap();
    /// assert!((now.mark - 3.59).abs() < 0.005 && (now.sd - 0.30).abs() < 0.005 && now.agree);
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    pub fn compute(&self, coefficients: &Coefficients) -> Result<Judges, ValidationErrors> {
        let mut faults = ValidationErrors::default();
        let given = self.marks.as_deref().unwrap_or_default();
        if self.marks.is_none() {
            faults.push("marks", "the list of loaves both marked is missing; it may be empty");
        }
        if given.len() > MOST {
            let message = format!("up to {MOST} loaves; {} were given", given.len());
            faults.push("marks", message);
        }
        let marks: Vec<&[f64]> = given
            .iter()
            .take(MOST)
            .enumerate()
            .map(|(at, pair)| {
                let range = marks_of("");
                range.check_all(pair, JUDGES..=JUDGES, &format!("marks[{at}]"), &mut faults)
            })
            .collect();
        let mut repeats = |field, given: &Series| match given {
            Series::Missing => Vec::new(),
            given => repeats_of(field).check_all(given, 0..=MOST, "", &mut faults).to_vec(),
        };
        let repeats =
            [repeats("repeats_1", &self.repeats_1), repeats("repeats_2", &self.repeats_2)];
        let now = match &self.now {
            Series::Missing => None,
            given => Some(marks_of("now").check_all(given, JUDGES..=JUDGES, "", &mut faults)),
        };
        faults.or(())?;
        let last = &marks[marks.len().saturating_sub(LAST)..];
        let judges = [0, 1].map(|judge| JudgeLevel {
            level: level(last.iter().map(|pair| above(pair, judge)), coefficients),
            sd: repeatability(&repeats[judge], coefficients),
        });
        let limit = NINETEEN_IN_TWENTY * judges[0].sd.hypot(judges[1].sd);
        Ok(Judges { judges, limit, now: now.map(|marks| joint(&judges, marks, limit)) })
    }
}

fn above(pair: &[f64], judge: usize) -> f64 {
    pair[judge] - f64::midpoint(pair[0], pair[1])
}

/// A judge's level, from how far each of their marks lay above the mean of all who marked that loaf.
pub(super) fn level(above: impl Iterator<Item = f64>, coefficients: &Coefficients) -> f64 {
    let (sum, count) = above.fold((0.0, 0.0), |(sum, count), one| (sum + one, count + 1.0));
    sum / (count + coefficients.value(&LEVEL_COUNTS))
}

pub(super) fn repeatability(repeats: &[f64], coefficients: &Coefficients) -> f64 {
    let (sd, counts) = (coefficients.value(&JUDGE_SD), coefficients.value(&JUDGE_SD_COUNTS));
    let squares: f64 = repeats.iter().map(|d| d * d / 2.0).sum();
    ((counts * sd * sd + squares) / (counts + repeats.len() as f64)).sqrt()
}

fn joint(judges: &[JudgeLevel; 2], marks: &[f64], limit: f64) -> JointMark {
    let levelled = [0, 1].map(|judge| marks[judge] - judges[judge].level);
    let (mark, sd) = by_precision(levelled.into_iter().zip(judges.map(|judge| judge.sd)));
    JointMark { mark, sd, agree: (levelled[0] - levelled[1]).abs() <= limit }
}

/// Marks with their scatter as one: `Σ(m/σ²)/Σ(1/σ²)` and `(Σ 1/σ²)^(−½)`.
pub(super) fn by_precision(marks: impl Iterator<Item = (f64, f64)>) -> (f64, f64) {
    let (sum, all) = marks.fold((0.0, 0.0), |(sum, all), (mark, sd)| {
        let precision = sd.powi(-2);
        (sum + mark * precision, all + precision)
    });
    (sum / all, all.powf(-1.0 / 2.0))
}
