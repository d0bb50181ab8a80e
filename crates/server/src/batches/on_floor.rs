//! A batch on the floor, with the chain it was planned by.

use std::sync::Arc;

use chrono::{DateTime, Utc};
use ironpeel_core::batch::{BatchRecord, BatchReport};
use serde_json::{Value, json};
use uuid::Uuid;

use super::view::batch_view;
use crate::chain::{ScenarioContext, ScenarioInput};
use crate::planned_batch::PlannedBatch;
use crate::problem::Result;
use crate::request::from_value;
use crate::state::App;

/// A batch as it stands by now, or as it ended, and what its chain is computed from: as it was planned, at the
/// dough temperature that was read.
pub struct BatchOnFloor {
    pub planned: Arc<PlannedBatch>,
    pub record: BatchRecord,
    pub report: BatchReport,
    pub now: DateTime<Utc>,
    pub context: ScenarioContext,
}

impl BatchOnFloor {
    pub async fn load(app: &App, id: Uuid) -> Result<Self> {
        let planned = app.revisions.batch(id).await?;
        let events = app.store.events_of(&[id]).await?.remove(&id).unwrap_or_default();
        let now = Utc::now();
        let (record, report) = planned.followed(&events, now);
        let now = record.ended_at.unwrap_or(now);
        let view = batch_view(app, id).await?;
        let mut run_settings = match view.run_settings {
            Value::Object(settings) => Value::Object(settings),
            _ => json!({}),
        };
        if let Some(dough_c) = report.dough_c {
            run_settings["target_c"] = json!(dough_c.actual);
        }
        let input: ScenarioInput = from_value(json!({
            "revision_refs": view.revision_refs,
            "run_settings": run_settings,
            "mix_on": view.planned_for.date_naive(),
        }))?;
        let context = ScenarioContext::load(app, &input, "").await?;
        Ok(Self { planned, record, report, now, context })
    }
}
