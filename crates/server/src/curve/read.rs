use chrono::{DateTime, Utc};
use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::flour::{
    AlveographAnswer, AlveographInput, CurveCheck, FarinographAnswer, FarinographInput, MovedMarks,
    check_against_curve, from_alveogram, from_farinogram, read_curves,
};
use ironpeel_store::{Lot, Trace, TraceKind, TraceMark, TraceSource};
use serde::Serialize;
use serde_json::Value;
use utoipa::ToSchema;
use uuid::Uuid;

use crate::problem::{Problem, Result};
use crate::request::from_value;

/// The marks a person may move.
pub const MARKS: [&str; 3] = ["arrival", "development", "departure"];

/// A curve with what it says, where its marks stand, and whether the certificate agrees.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct ReadCurve {
    pub id: Uuid,
    pub lot_id: Uuid,
    pub code: String,
    pub flour: String,
    pub kind: TraceKind,
    pub source: TraceSource,
    pub made_by: String,
    pub made_at: DateTime<Utc>,
    /// As it was recorded.
    #[schema(value_type = Object)]
    pub input: Value,
    /// What a farinogram says, its marks where they stand now.
    pub farinograph: Option<FarinographAnswer>,
    pub alveograph: Option<AlveographAnswer>,
    pub marks: Vec<Mark>,
    pub moves: Vec<MarkMove>,
    /// The certificate's figures beside the curve's.
    pub checks: Vec<CurveCheck>,
}

/// A mark: where the reading put it, and where it stands.
#[derive(Debug, Clone, Serialize, ToSchema)]
#[expect(clippy::struct_field_names, reason = "the contract's own words")]
pub struct Mark {
    pub mark: &'static str,
    pub read_min: Option<f64>,
    pub stands_min: Option<f64>,
    pub moved: bool,
}

/// A mark that was moved, or put back.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct MarkMove {
    pub mark: String,
    pub minute: Option<f64>,
    pub made_by: String,
    pub made_at: DateTime<Utc>,
}

impl ReadCurve {
    pub fn of(
        trace: Trace,
        moves: Vec<TraceMark>,
        lot: &Lot,
        coefficients: &Coefficients,
    ) -> Result<Self> {
        // Recorded curves were checked before they were recorded.
        let unreadable =
            |_| Problem::unusable("this curve was recorded in a form no version reads");
        let mut marks = Vec::new();
        let (mut farinograph, mut alveograph) = (None, None);
        let figures = if trace.kind.0 == TraceKind::Farinograph {
            let input: FarinographInput = from_value(trace.input.clone())?;
            let gram = input.check().map_err(unreadable)?;
            let put = |mark: &str| moves.iter().rev().find(|one| one.mark == mark)?.minute;
            let [arrival_min, development_min, departure_min] = MARKS.map(put);
            let read = gram.read();
            let stands = gram.read_at(MovedMarks { arrival_min, development_min, departure_min });
            let at = |answer: &FarinographAnswer| {
                [answer.arrival_min, Some(answer.development_min), answer.departure_min]
            };
            for ((mark, read_min), stands_min) in MARKS.into_iter().zip(at(&read)).zip(at(&stands))
            {
                marks.push(Mark { mark, read_min, stands_min, moved: put(mark).is_some() });
            }
            let figures = from_farinogram(&stands);
            farinograph = Some(stands);
            figures
        } else {
            let input: AlveographInput = from_value(trace.input.clone())?;
            let answer = read_curves(&input.check().map_err(unreadable)?);
            let figures = from_alveogram(&answer);
            alveograph = Some(answer);
            figures
        };
        Ok(Self {
            checks: check_against_curve(&lot.current.readings, &figures, coefficients),
            id: trace.id,
            lot_id: lot.id,
            code: lot.code.clone(),
            flour: lot.flour.name.clone(),
            kind: trace.kind.0,
            source: trace.source.0,
            made_by: trace.made_by,
            made_at: trace.made_at,
            input: trace.input,
            farinograph,
            alveograph,
            marks,
            moves: moves
                .into_iter()
                .map(|TraceMark { mark, minute, made_by, made_at, .. }| MarkMove {
                    mark,
                    minute,
                    made_by,
                    made_at,
                })
                .collect(),
        })
    }
}
