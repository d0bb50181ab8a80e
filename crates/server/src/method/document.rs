//! Methods: their revisions, families to begin with, and steps with two schools.

use std::sync::LazyLock;

use axum::extract::State;
use ironpeel_core::method::{Method, MethodDraft, OptionalStep, Process, Stage};
use ironpeel_core::units::ValidationErrors;
use ironpeel_store::{MethodRevision, NewMethod, Revision};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::dough::templates;
use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Recorded};
use crate::revision::SignedInput;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(save))
        .routes(routes!(revisions))
        .routes(routes!(revision))
        .routes(routes!(families))
        .routes(routes!(choose))
}

/// One state of a method.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct MethodView {
    pub id: Uuid,
    pub name: String,
    pub revision: Revision,
    pub process_label: &'static str,
    #[serde(flatten)]
    pub method: Method,
}

impl From<MethodRevision> for MethodView {
    fn from(MethodRevision { revision, method_id, name, method }: MethodRevision) -> Self {
        let process_label = method.process.label();
        Self { id: method_id, name, revision, process_label, method }
    }
}

/// A method's next state, as it was typed.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct MethodInput {
    /// The number after the revision that was looked at.
    number: i32,
    #[serde(flatten)]
    draft: MethodDraft,
    signed: SignedInput,
}

/// Records a method's next state; sent twice, it is stored once
#[utoipa::path(put, path = "/api/v1/methods/{method_id}/revisions/{revision_id}", security(("session" = ["change"])), tag = "method",
    params(("method_id" = Uuid, Path), ("revision_id" = Uuid, Path)), request_body = MethodInput,
    responses((status = 200, body = MethodView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn save(
    State(app): State<App>,
    Path((method_id, revision_id)): Path<(Uuid, Uuid)>,
    Recorded { input, write }: Recorded<MethodInput>,
) -> Result<Json<MethodView>> {
    let name = app.store.current_method(method_id).await?.name;
    let mut faults = ValidationErrors::default();
    let method = input.draft.check("", &mut faults);
    let signed = input.signed.check(&write.author, true, &mut faults);
    faults.or(())?;
    let number = input.number;
    write
        .of(&app, revision_id)
        .add_method(&NewMethod { method_id, name, revision_id, number, method, signed })
        .await?;
    Ok(Json(app.store.method(revision_id).await?.into()))
}

/// Every revision of a method, newest first
#[utoipa::path(get, path = "/api/v1/methods/{method_id}/revisions", security(("session" = ["read"])), tag = "method", params(("method_id" = Uuid, Path)),
    responses((status = 200, body = Vec<Revision>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn revisions(
    State(app): State<App>,
    Path(method_id): Path<Uuid>,
) -> Result<Json<Vec<Revision>>> {
    let revisions = app.store.method_revisions(method_id).await?;
    Ok(Json(revisions))
}

/// One revision of a method
#[utoipa::path(get, path = "/api/v1/method-revisions/{revision_id}", security(("session" = ["read"])), tag = "method", params(("revision_id" = Uuid, Path)),
    responses((status = 200, body = MethodView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn revision(State(app): State<App>, Path(id): Path<Uuid>) -> Result<Json<MethodView>> {
    Ok(Json(app.store.method(id).await?.into()))
}

/// A method to begin with.
#[derive(Debug, Clone, Serialize, Deserialize, ToSchema)]
struct MethodFamily {
    key: String,
    name: String,
    message: String,
    process: Process,
    target_c: f64,
    machine_divided: bool,
    stages: Vec<Stage>,
    /// From the first stage to the last, minutes.
    #[serde(default)]
    total_min: f64,
}

static METHOD_FAMILIES: LazyLock<Vec<MethodFamily>> = LazyLock::new(|| {
    let mut all: Vec<MethodFamily> = templates()
        .iter()
        .map(|template| MethodFamily {
            key: template.key.clone(),
            name: template.name.clone(),
            message: template.message.clone(),
            process: template.process,
            target_c: template.target_c,
            machine_divided: template.machine_divided,
            stages: template.stages.clone(),
            total_min: 0.0,
        })
        .collect();
    let more: Vec<MethodFamily> =
        serde_json::from_str(include_str!("../../methods.json")).expect("checked by a test");
    all.extend(more);
    for family in &mut all {
        family.total_min = family.stages.iter().map(|stage| stage.minutes).sum();
    }
    all
});

/// Methods to begin with, a family each
#[utoipa::path(get, path = "/api/v1/method-families", security(("session" = ["read"])), tag = "method", responses((status = 200, body = Vec<MethodFamily>)))]
async fn families() -> Json<&'static [MethodFamily]> {
    Json(&METHOD_FAMILIES)
}

/// A step to be taken or left out.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct OptionalStepInput {
    method: MethodDraft,
    choice: OptionalStep,
    taken: bool,
}

/// The method with a step taken or left out, made good where two schools say it can be
#[utoipa::path(post, path = "/api/v1/optional-step", security(("session" = ["read"])), tag = "method", request_body = OptionalStepInput,
    responses((status = 200, body = Method), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn choose(
    State(app): State<App>,
    Json(chosen): Json<OptionalStepInput>,
) -> Result<Json<Method>> {
    let mut faults = ValidationErrors::default();
    let method = chosen.method.check("method.", &mut faults);
    let method = faults.or(method)?;
    Ok(Json(method.with(chosen.choice, chosen.taken, &app.parameters().await?.coefficients)))
}

#[cfg(test)]
mod tests {
    use ironpeel_core::coefficient::Coefficients;
    use ironpeel_core::method::{EndPoint, StageKind};

    use super::*;

    #[test]
    fn no_family_lies_outside_what_is_called_usual_beside_it() {
        let mut odd = Vec::new();
        for family in METHOD_FAMILIES.iter() {
            let MethodFamily { process, target_c, machine_divided, stages, .. } = family.clone();
            let method = Method { process, target_c, sponge_c: None, machine_divided, stages };
            for (stage, usual) in method.stages.iter().zip(method.usual(&Coefficients::default())) {
                let figures = [
                    ("min", Some(stage.minutes), usual.minutes),
                    ("°C", stage.temperature_c, usual.temperature_c),
                    ("%", stage.humidity_pct, usual.humidity_pct),
                ];
                for (unit, value, usual) in figures {
                    let Some((value, usual)) = value.zip(usual) else { continue };
                    if !(usual.low..=usual.high).contains(&value) {
                        odd.push(format!(
                            "{}, {}: {value} {unit}, usual {} to {}",
                            family.key, stage.label, usual.low, usual.high
                        ));
                    }
                }
            }
        }
        assert!(odd.is_empty(), "{odd:#?}");
    }

    #[test]
    fn every_family_can_be_made_and_says_why_and_until_when() {
        let mut keys: Vec<&str> = METHOD_FAMILIES.iter().map(|family| &*family.key).collect();
        keys.sort_unstable();
        keys.dedup();
        assert_eq!(keys.len(), METHOD_FAMILIES.len(), "no family stands twice");
        for process in [
            Process::NoTime,
            Process::StraightBulk,
            Process::SpongeDough,
            Process::LongCold,
            Process::Frozen,
        ] {
            assert!(METHOD_FAMILIES.iter().any(|family| family.process == process), "{process:?}");
        }
        for family in METHOD_FAMILIES.iter() {
            assert!(family.stages.iter().any(|stage| stage.kind == StageKind::Mix));
            for stage in &family.stages {
                let of = format!("{}: {}", family.key, stage.label);
                assert!(!stage.reason.is_empty() && !stage.ends_when.is_empty(), "{of}");
                if let Some(tolerance) = stage.tolerance {
                    let inside = tolerance.low_min..=tolerance.high_min;
                    assert!(inside.contains(&stage.minutes), "{of}");
                }
            }
        }
        let signs =
            METHOD_FAMILIES.iter().flat_map(|family| &family.stages).map(|stage| stage.end_point);
        assert!(signs.filter(|sign| *sign == EndPoint::CoreTemperature).count() > 8);
    }
}
