use serde::Serialize;

use super::{BatchRecord, BatchReport, Quantity};

/// A batch as it is compared.
#[derive(Debug, Clone, Copy)]
pub struct ComparedBatch<'a> {
    pub report: &'a BatchReport,
    pub record: &'a BatchRecord,
}

/// One figure of several batches, beside what was planned.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ComparisonRow {
    pub label: &'static str,
    pub unit: &'static str,
    /// Of each batch as it was planned.
    pub planned: Vec<Option<f64>>,
    pub values: Vec<Option<f64>>,
    /// Whether they differ by more than is noticed, from one another or from a plan.
    pub differs: bool,
    /// What such a difference likely does; a house judgement.
    pub likely: &'static str,
}

/// A figure: its name and unit, how much of it is noticed, and what more of it likely does.
struct Figure {
    label: &'static str,
    unit: &'static str,
    noticed: f64,
    likely: &'static str,
    of: fn(&ComparedBatch<'_>) -> (Option<f64>, Option<f64>),
}

fn read(batch: &ComparedBatch<'_>, quantity: Quantity) -> (Option<f64>, Option<f64>) {
    (None, batch.record.readings(quantity).last().map(|(_, value, _)| value))
}

fn held(difference: Option<super::PlanDifference>) -> (Option<f64>, Option<f64>) {
    (difference.map(|one| one.planned), difference.map(|one| one.actual))
}

/// In the order of the chain. What is noticed is a house default.
const FIGURES: [Figure; 14] = [
    Figure {
        label: "Flour temperature",
        unit: "°C",
        noticed: 2.0,
        likely: "warmer flour warms the dough by about a third of it",
        of: |batch| read(batch, Quantity::FlourC),
    },
    Figure {
        label: "Room temperature",
        unit: "°C",
        noticed: 2.0,
        likely: "a warmer room hurries what stands in it",
        of: |batch| read(batch, Quantity::RoomC),
    },
    Figure {
        label: "Water temperature",
        unit: "°C",
        noticed: 1.0,
        likely: "warmer water warms the dough by about half of it",
        of: |batch| read(batch, Quantity::WaterC),
    },
    Figure {
        label: "Water over plan",
        unit: "points",
        noticed: 0.5,
        likely: "wetter: softer, more open, stickier at the divider",
        of: |batch| {
            let water = batch.report.water;
            (water.map(|_| 0.0), water.map(|water| water.over_plan_pts))
        },
    },
    Figure {
        label: "Of it by feel",
        unit: "points",
        noticed: 0.5,
        likely: "on damaged starch it comes out again as gummy crumb",
        of: |batch| (None, batch.report.water.map(|water| water.by_feel_pts)),
    },
    Figure {
        label: "Consistency",
        unit: "",
        noticed: 1.0,
        likely: "stiffer: tears at the moulder, less volume; slacker: spreads",
        of: |batch| (None, batch.report.consistency),
    },
    Figure {
        label: "Dough temperature",
        unit: "°C",
        noticed: 1.0,
        likely: "warmer: proves quicker and is sooner past its best",
        of: |batch| held(batch.report.dough_c),
    },
    Figure {
        label: "Mixing energy",
        unit: "kJ/kg",
        noticed: 3.0,
        likely: "less: tight crumb, ragged break; far more: slack and sticky",
        of: |batch| held(batch.report.mixing_kj_per_kg),
    },
    Figure {
        label: "Held",
        unit: "min",
        noticed: 5.0,
        likely: "a dough that waits ripens on: less sugar, paler, weaker",
        of: |batch| (Some(0.0), Some(batch.record.held_min)),
    },
    Figure {
        label: "Proof",
        unit: "min",
        noticed: 4.0,
        likely: "longer at the same height: slow yeast, cold dough or a strong film",
        of: |batch| held(batch.report.proof_min),
    },
    Figure {
        label: "Bake",
        unit: "min",
        noticed: 1.0,
        likely: "longer: darker, drier, more loss",
        of: |batch| held(batch.report.bake_min),
    },
    Figure {
        label: "Core at the end",
        unit: "°C",
        noticed: 1.0,
        likely: "lower: wet crumb that smears and stales",
        of: |batch| read(batch, Quantity::CoreC),
    },
    Figure {
        label: "Loss from dough piece to bread",
        unit: "%",
        noticed: 0.5,
        likely: "more: drier bread, lighter than its label may allow",
        of: |batch| held(batch.report.loss_pct),
    },
    Figure {
        label: "Pieces rejected",
        unit: "%",
        noticed: 1.0,
        likely: "look at the reasons that were given",
        of: |batch| (None, batch.report.rejected_pct),
    },
];

/// Figures of batches side by side, in the order of the chain; those nobody has are left out.
pub fn compare(batches: &[ComparedBatch<'_>]) -> Vec<ComparisonRow> {
    let row = |figure: &Figure| {
        let (planned, values): (Vec<_>, Vec<_>) = batches.iter().map(figure.of).unzip();
        values.iter().any(Option::is_some).then(|| {
            let apart = |values: &[f64]| {
                let most = values.iter().copied().fold(f64::NEG_INFINITY, f64::max);
                let least = values.iter().copied().fold(f64::INFINITY, f64::min);
                values.len() > 1 && most - least >= figure.noticed
            };
            let known: Vec<f64> = values.iter().flatten().copied().collect();
            let off_plan = planned.iter().zip(&values).any(|pair| match pair {
                (Some(planned), Some(value)) => (planned - value).abs() >= figure.noticed,
                _ => false,
            });
            ComparisonRow {
                label: figure.label,
                unit: figure.unit,
                differs: apart(&known) || off_plan,
                planned,
                values,
                likely: figure.likely,
            }
        })
    };
    FIGURES.iter().filter_map(row).collect()
}
