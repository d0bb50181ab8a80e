use serde::{Deserialize, Serialize};

use crate::units::{NumberRange, RawNumber, ValidationErrors};

/// What is around a dough so long after a stage began.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AmbientPoint {
    pub after_min: f64,
    pub temperature_c: f64,
}

/// The same as it was typed.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AmbientPointInput {
    /// More than the one before, up to 14 400 min.
    #[serde(default)]
    pub after_min: RawNumber,
    /// −40 to 60 °C.
    #[serde(default)]
    pub temperature_c: RawNumber,
}

/// Part of a stage in which what is around it changes evenly.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct AmbientSpan {
    pub minutes: f64,
    pub from_c: f64,
    pub to_c: f64,
}

/// Most points of one stage.
const MOST: usize = 12;
const AFTER: NumberRange =
    NumberRange::new("after_min", "since the stage began", "min", 1.0, 14_400.0);
const TEMPERATURE: NumberRange =
    NumberRange::new("temperature_c", "temperature around it", "°C", -40.0, 60.0);

/// The points of a stage, each later than the one before.
pub(super) fn check_ambient(
    points: &[AmbientPointInput],
    at: &str,
    faults: &mut ValidationErrors,
) -> Vec<AmbientPoint> {
    if points.len() > MOST {
        faults.push(format!("{at}ambient_curve"), format!("up to {MOST} points"));
    }
    let mut after = 0.0;
    let points = points.iter().take(MOST).enumerate();
    points
        .map(|(number, point)| {
            let at = format!("{at}ambient_curve[{number}].");
            let after_min = AFTER.check(&point.after_min, &at, faults);
            if after_min <= after {
                let message = format!("later than the point before it, which is at {after} min");
                faults.push(format!("{at}after_min"), message);
            }
            after = after_min;
            let temperature_c = TEMPERATURE.check(&point.temperature_c, &at, faults);
            AmbientPoint { after_min, temperature_c }
        })
        .collect()
}

/// What is around a dough, span by span, between two minutes of its stage: from what is around it as
/// the stage begins evenly to each point, and as at the last from there on.
pub(super) fn spans(
    begins_c: f64,
    points: &[AmbientPoint],
    from_min: f64,
    to_min: f64,
) -> Vec<AmbientSpan> {
    let (mut before_min, mut before_c) = (0.0, begins_c);
    let mut spans = Vec::with_capacity(points.len() + 1);
    for point in points {
        let slope = (point.temperature_c - before_c) / (point.after_min - before_min);
        let at = |min: f64| before_c + slope * (min - before_min);
        let (from, to) = (from_min.max(before_min), to_min.min(point.after_min));
        if from < to {
            spans.push(AmbientSpan { minutes: to - from, from_c: at(from), to_c: at(to) });
        }
        (before_min, before_c) = (point.after_min, point.temperature_c);
    }
    let minutes = (to_min - from_min.max(before_min)).max(0.0);
    if minutes > 0.0 || spans.is_empty() {
        spans.push(AmbientSpan { minutes, from_c: before_c, to_c: before_c });
    }
    spans
}
