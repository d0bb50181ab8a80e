//! The variant of a trial that is kept: the formula's and the method's next revision.

use axum::extract::State;
use chrono::Utc;
use ironpeel_core::trial::{Intervention, kept_variant};
use ironpeel_core::units::ValidationErrors;
use ironpeel_store::{NewFormula, NewMethod, Trial, TrialKept};
use serde::Deserialize;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use super::trial::TrialInput;
use crate::chain::ScenarioContext;
use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Recorded, from_value};
use crate::revision::SignedInput;
use crate::state::{App, Documents};

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(keep))
}

/// The variant that is kept, with why.
#[derive(Debug, Deserialize, ToSchema)]
struct KeptInput {
    /// Its place in the trial; the dough as it is comes first.
    variant: i16,
    signed: SignedInput,
}

/// What a variant changed.
fn interventions_of(trial: &Trial, variant: i16) -> Result<Vec<Intervention>> {
    let place = usize::try_from(variant).ok();
    let found = place.and_then(|place| trial.issued["variants"].get(place));
    let found = found.ok_or_else(|| Problem::field("variant", "the trial has no such dough"))?;
    from_value(found["interventions"].clone())
}

/// Keeps a variant of a trial: with its changes the formula and the method have their next revisions;
/// sent twice, it is stored once
#[utoipa::path(put, path = "/api/v1/trials/{trial_id}/kept/{id}", security(("session" = ["change"])), tag = "trial",
    params(("trial_id" = Uuid, Path), ("id" = Uuid, Path)), request_body = KeptInput,
    responses((status = 200, body = Vec<TrialKept>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn keep(
    State(app): State<App>,
    Path((trial_id, id)): Path<(Uuid, Uuid)>,
    Recorded { input, write }: Recorded<KeptInput>,
) -> Result<Json<Vec<TrialKept>>> {
    let records = write.of(&app, id);
    if !records.was_written().await? {
        let trial = app.store.trial(trial_id).await?;
        let mut faults = ValidationErrors::default();
        let signed = input.signed.check(&write.author, true, &mut faults);
        faults.or(())?;
        let interventions = interventions_of(&trial, input.variant)?;
        let asked: TrialInput = from_value(trial.asked)?;
        let context = ScenarioContext::load(&app, &asked.scenario, "scenario.").await?;
        let (formula, method) = kept_variant(&context.scenario(&context.flours()), &interventions)?;
        let Documents { formula: was, method: made_by, .. } = &context.documents;
        // Each after the one that was tried: a newer one is looked at first.
        let formula = (formula != was.formula).then(|| NewFormula {
            formula_id: was.formula_id,
            name: was.name.clone(),
            revision_id: Uuid::new_v5(&id, b"formula"),
            number: was.revision.number + 1,
            formula,
            signed: signed.clone(),
        });
        let method = (method != made_by.method).then(|| NewMethod {
            method_id: made_by.method_id,
            name: made_by.name.clone(),
            revision_id: Uuid::new_v5(&id, b"method"),
            number: made_by.revision.number + 1,
            method,
            signed: signed.clone(),
        });
        let kept = TrialKept {
            id,
            trial_id,
            variant: input.variant,
            reason: signed.reason,
            formula_revision_id: formula.as_ref().map(|new| new.revision_id),
            method_revision_id: method.as_ref().map(|new| new.revision_id),
            kept_by: signed.by,
            kept_at: Utc::now(),
        };
        records.keep_variant(&kept, formula.as_ref(), method.as_ref()).await?;
    }
    Ok(Json(app.store.kept_of_trial(trial_id).await?))
}
