//! A batch as it was issued, and as it stands.

use chrono::{DateTime, Utc};
use ironpeel_core::batch::BatchState;
use serde::Serialize;
use serde_json::Value;
use utoipa::ToSchema;
use uuid::Uuid;

use super::issued::Issued;
use crate::problem::Result;
use crate::revision_refs::RevisionRefs;
use crate::state::App;

/// A planned batch: a record, not recomputed.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct BatchView {
    pub id: Uuid,
    pub state: BatchState,
    pub slug: String,
    pub planned_for: DateTime<Utc>,
    pub saved_at: DateTime<Utc>,
    pub saved_by: String,
    pub revision_refs: RevisionRefs,
    /// What was set for it, as sent.
    #[schema(value_type = Object)]
    pub run_settings: Value,
    #[schema(value_type = Issued)]
    pub issued: Value,
}

/// A batch as it was issued.
pub async fn batch_view(app: &App, id: Uuid) -> Result<BatchView> {
    let (batch, slug, others) = app.store.batch(id).await?;
    let state = app.store.batch_state(id).await?.unwrap_or_default();
    Ok(BatchView {
        id: batch.id,
        state,
        slug,
        planned_for: batch.planned_for,
        saved_at: batch.saved_at,
        saved_by: batch.saved_by,
        revision_refs: RevisionRefs {
            lot_revision_id: batch.lot_revision_id,
            specification_revision_id: batch.specification_revision_id,
            formula_revision_id: batch.formula_revision_id,
            method_revision_id: batch.method_revision_id,
            line_revision_id: batch.line_revision_id,
            parameters_revision_id: batch.parameters_revision_id,
            water_correction_id: batch.water_correction_id,
            other_lots: others,
        },
        run_settings: batch.run_settings,
        issued: batch.issued,
    })
}
