use std::collections::BTreeSet;

use serde::{Deserialize, Serialize};

use super::{Characteristic, MARKS, ProductStandard, ScoreMark, Sign};
use crate::coefficient::Coefficients;
use crate::units::{NumberRange, RawNumber, ValidationErrors};

/// What one judge says of one loaf.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ScoreInput {
    /// 1 to 12, each characteristic once.
    #[serde(default)]
    pub marks: Vec<ScoreMarkInput>,
}

/// A mark as it is sent, or what was measured instead.
#[derive(Debug, Clone, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ScoreMarkInput {
    pub of: Characteristic,
    /// 1 to 5 in halves.
    #[serde(default)]
    pub mark: RawNumber,
    /// On which side a two-sided one lies, wherever it is under 5.
    #[serde(default)]
    pub sign: Option<Sign>,
    /// In the measure's unit; then the mark follows from it.
    #[serde(default)]
    pub measured: RawNumber,
}

/// A mark on record.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ScoredMark {
    #[serde(flatten)]
    pub mark: ScoreMark,
    /// What it was measured as.
    pub measured: Option<f64>,
}

const MARK: NumberRange = NumberRange::new("mark", "a mark", "", MARKS.0, MARKS.1);
const MEASURED: NumberRange =
    NumberRange::new("measured", "what was measured", "", -10_000.0, 10_000.0);

impl ScoreInput {
    /// Checks every mark against the sheet and the product's standard.
    ///
    /// ```
    /// use ironpeel_core::coefficient::Coefficients;
    /// use ironpeel_core::judging::{ProductStandard, ScoreInput};
    /// let check = |json| {
    ///     let input: ScoreInput = serde_json::from_str(json).unwrap();
    ///     input.check(&ProductStandard::default(), &Coefficients::default())
    /// };
    /// assert!(check(r#"{"marks": [{"of": "flavour", "mark": 4.5}]}"#).is_ok());
    /// assert!(check(r#"{"marks": [{"of": "flavour", "mark": 6}]}"#).is_err());
    /// assert!(check(r#"{"marks": [{"of": "volume", "mark": 3}]}"#).is_err(), "which side?");
    /// ```
    pub fn check(
        &self,
        standard: &ProductStandard,
        coefficients: &Coefficients,
    ) -> Result<Vec<ScoredMark>, ValidationErrors> {
        let mut faults = ValidationErrors::default();
        if self.marks.is_empty() {
            faults.push("marks", "nothing is marked yet");
        }
        let mut known = BTreeSet::new();
        let mut marks = Vec::new();
        for (number, given) in self.marks.iter().enumerate() {
            let at = format!("marks[{number}].");
            if !known.insert(given.of) {
                faults.push(format!("{at}of"), "it is marked twice on this sheet");
                continue;
            }
            marks.push(if given.measured.is_missing() {
                given.marked(&at, &mut faults)
            } else {
                given.measured(&at, standard, coefficients, &mut faults)
            });
        }
        faults.or(marks)
    }
}

impl ScoreMarkInput {
    fn marked(&self, at: &str, faults: &mut ValidationErrors) -> ScoredMark {
        let mark = MARK.check(&self.mark, at, faults);
        if (2.0 * mark).fract() != 0.0 {
            faults.push(format!("{at}mark"), format!("marks go in halves; {mark} was given"));
        }
        let off = mark < MARKS.1;
        if self.of.is_two_sided() && off && self.sign.is_none() {
            faults.push(format!("{at}sign"), "say whether it is too little or too much");
        }
        if !self.of.is_two_sided() && self.sign.is_some() {
            faults.push(format!("{at}sign"), "it has one side only");
        }
        let sign = self.sign.filter(|_| off);
        ScoredMark { mark: ScoreMark { of: self.of, mark, sign }, measured: None }
    }

    fn measured(
        &self,
        at: &str,
        standard: &ProductStandard,
        coefficients: &Coefficients,
        faults: &mut ValidationErrors,
    ) -> ScoredMark {
        let measured = MEASURED.check(&self.measured, at, faults);
        let found = standard.mark(self.of, measured, self.sign, coefficients);
        let mark = found.unwrap_or_else(|| {
            let message = match self.of.measure(coefficients) {
                Some(_) => "the product states no target for it yet; mark it, or state one",
                None => "nothing is measured of it; it is marked",
            };
            faults.push(format!("{at}measured"), message);
            ScoreMark { of: self.of, mark: MARKS.0, sign: None }
        });
        ScoredMark { mark, measured: Some(measured) }
    }
}
