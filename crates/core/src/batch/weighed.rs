use serde::Serialize;
use uuid::Uuid;

use super::{Added, AdditionReason, BatchRecord, EventKind, Quantity};
use crate::units::RawNumber;

/// A line of the sheet, as it is weighed.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct PlannedLine {
    /// The stage it goes in at; none of a preparation made before.
    pub stage: Option<Uuid>,
    /// What a reading of its mass is `of`.
    pub of: String,
    pub name: String,
    /// What it is, by its word: `flour`, `water`, `salt`.
    pub ingredient: String,
    /// The preparation it is weighed for.
    pub part: Option<String>,
    pub kg: f64,
    pub division_kg: f64,
    pub temperature_c: Option<f64>,
    /// Water, or ice.
    pub is_water: bool,
    pub is_ice: bool,
}

/// A line with what the scale showed.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct WeighedLine {
    #[serde(flatten)]
    pub planned: PlannedLine,
    /// None where nobody ticked it.
    pub weighed_kg: Option<f64>,
    /// The event it was ticked by.
    pub event: Option<Uuid>,
}

/// The water of one dough, as it was.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct WaterReport {
    pub planned_kg: f64,
    /// What was weighed; as planned where nobody ticked a line.
    pub weighed_kg: f64,
    /// What was added that the sheet does not say.
    pub added_kg: f64,
    /// Of that, by feel.
    pub by_feel_kg: f64,
    /// Over the plan, points on flour: `100·(weighed + added − planned)/flour`.
    pub over_plan_pts: f64,
    /// The same of what was added by feel.
    pub by_feel_pts: f64,
    /// Whether every line of water was ticked.
    pub complete: bool,
}

/// Each line of the sheet with what was weighed; the last reading of a line counts.
pub fn weighed(lines: &[PlannedLine], record: &BatchRecord) -> Vec<WeighedLine> {
    let masses: Vec<_> = record
        .placed
        .iter()
        .filter(|one| {
            one.kind == EventKind::Reading && one.details.quantity == Some(Quantity::MassKg)
        })
        .collect();
    let of_line = |line: &PlannedLine| {
        let last = masses.iter().rev().find(|one| {
            one.details.of.as_deref() == Some(&*line.of) && one.details.stage == line.stage
        })?;
        match last.details.value {
            RawNumber::Number(kg) => Some((kg, last.event)),
            _ => None,
        }
    };
    let weighed = |line: &PlannedLine| {
        let found = of_line(line);
        let (weighed_kg, event) = (found.map(|(kg, _)| kg), found.map(|(_, event)| event));
        WeighedLine { planned: line.clone(), weighed_kg, event }
    };
    lines.iter().map(weighed).collect()
}

/// The water that a dough really got: weighed, and added; what was held back was not weighed. None
/// where nothing says what was planned.
pub fn water(lines: &[WeighedLine], record: &BatchRecord, flour_kg: f64) -> Option<WaterReport> {
    let water: Vec<&WeighedLine> = lines.iter().filter(|line| line.planned.is_water).collect();
    if water.is_empty() || flour_kg <= 0.0 {
        return None;
    }
    let planned_kg: f64 = water.iter().map(|line| line.planned.kg).sum();
    let weighed_kg: f64 = water.iter().map(|line| line.weighed_kg.unwrap_or(line.planned.kg)).sum();
    let (mut added_kg, mut by_feel_kg) = (0.0, 0.0);
    for added in record.additions().filter(Added::is_water) {
        added_kg += added.kg;
        by_feel_kg += if added.reason == Some(AdditionReason::Feel) { added.kg } else { 0.0 };
    }
    let points = |kg: f64| 100.0 * kg / flour_kg;
    Some(WaterReport {
        planned_kg,
        weighed_kg,
        added_kg,
        by_feel_kg,
        over_plan_pts: points(weighed_kg + added_kg - planned_kg),
        by_feel_pts: points(by_feel_kg),
        complete: water.iter().all(|line| line.weighed_kg.is_some()),
    })
}
