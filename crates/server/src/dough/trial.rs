//! Interventions for a quality goal, and variants side by side.

use axum::extract::State;
use chrono::{DateTime, Utc};
use ironpeel_core::trial::{
    Intervention, OfferedIntervention, QualityGoal, TrialSet, interventions_for, trial_set,
};
use ironpeel_core::units::{NumberRange, RawNumber, ValidationErrors};
use ironpeel_store::{NewTrial, TrialSummary};
use serde::{Deserialize, Serialize};
use serde_json::{Value, json};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::chain::{ScenarioContext, ScenarioInput};
use crate::page::{Cursor, PAGE, PageQuery, paginate};
use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Query, Recorded, from_value};
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(goals))
        .routes(routes!(interventions))
        .routes(routes!(set_out))
        .routes(routes!(trials))
        .routes(routes!(trial, save))
}

/// Something that may be wanted.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct QualityGoalView {
    goal: QualityGoal,
    label: &'static str,
}

/// What may be wanted of a dough
#[utoipa::path(get, path = "/api/v1/quality-goals", security(("session" = ["read"])), tag = "trial", responses((status = 200, body = Vec<QualityGoalView>)))]
async fn goals() -> Json<Vec<QualityGoalView>> {
    Json(QualityGoal::ALL.map(|goal| QualityGoalView { goal, label: goal.label() }).into())
}

/// A quality goal for the selected product.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct QualityGoalInput {
    scenario: ScenarioInput,
    goal: QualityGoal,
}

/// The interventions for a quality goal, each with what it would do to the selected product
#[utoipa::path(post, path = "/api/v1/interventions", security(("session" = ["read"])), tag = "trial", request_body = QualityGoalInput,
    responses((status = 200, body = Vec<OfferedIntervention>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn interventions(
    State(app): State<App>,
    Json(asked): Json<QualityGoalInput>,
) -> Result<Json<Vec<OfferedIntervention>>> {
    let context = ScenarioContext::load(&app, &asked.scenario, "scenario.").await?;
    Ok(Json(interventions_for(&context.scenario(&context.flours()), asked.goal)))
}

/// Variants to be set out side by side.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct TrialInput {
    #[serde(alias = "hand")]
    pub scenario: ScenarioInput,
    /// Up to 6.
    #[serde(alias = "levers")]
    interventions: Vec<Intervention>,
    /// Dough of each, 0.1 to 100 kg; 1 if left out.
    #[serde(default)]
    kg: RawNumber,
    /// The product they are variants of; needed to keep them.
    #[serde(default)]
    slug: String,
}

const EACH: NumberRange = NumberRange::new("kg", "dough of each", "kg", 0.1, 100.0);
const MOST_INTERVENTIONS: usize = 6;

impl TrialInput {
    async fn set(&self, app: &App, mut faults: ValidationErrors) -> Result<TrialSet> {
        let kg = EACH.check_or(&self.kg, 1.0, "", &mut faults);
        if self.interventions.is_empty() || self.interventions.len() > MOST_INTERVENTIONS {
            let message = format!("choose 1 to {MOST_INTERVENTIONS} changes to try side by side");
            faults.push("interventions", message);
        }
        faults.or(())?;
        let context = ScenarioContext::load(app, &self.scenario, "scenario.").await?;
        Ok(trial_set(&context.scenario(&context.flours()), &self.interventions, kg))
    }
}

/// The doughs of a trial: as it is, each change alone, and all together
#[utoipa::path(post, path = "/api/v1/trial-sets", security(("session" = ["read"])), tag = "trial", request_body = TrialInput,
    responses((status = 200, body = TrialSet), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn set_out(State(app): State<App>, Json(asked): Json<TrialInput>) -> Result<Json<TrialSet>> {
    Ok(Json(asked.set(&app, ValidationErrors::default()).await?))
}

/// A trial set as lists show it.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct TrialRow {
    id: Uuid,
    product: String,
    saved_at: DateTime<Utc>,
    saved_by: String,
}

/// A page of trial sets.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct TrialPage {
    trials: Vec<TrialRow>,
    next: Option<Cursor>,
}

/// A trial set: a record, not recomputed.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct TrialView {
    id: Uuid,
    slug: String,
    product: String,
    saved_at: DateTime<Utc>,
    saved_by: String,
    #[schema(value_type = TrialSet)]
    issued: Value,
}

/// Trial sets, newest first
#[utoipa::path(get, path = "/api/v1/trials", security(("session" = ["read"])), tag = "trial", params(PageQuery),
    responses((status = 200, body = TrialPage), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn trials(State(app): State<App>, Query(page): Query<PageQuery>) -> Result<Json<TrialPage>> {
    let mut found = app.store.trials(page.key(), PAGE + 1).await?;
    let next = paginate(&mut found, |trial| (trial.saved_at, trial.id));
    let row = |TrialSummary { id, product, saved_at, saved_by }| TrialRow {
        id,
        product,
        saved_at,
        saved_by,
    };
    Ok(Json(TrialPage { trials: found.into_iter().map(row).collect(), next }))
}

/// A trial set as it was set out
#[utoipa::path(get, path = "/api/v1/trials/{trial_id}", security(("session" = ["read"])), tag = "trial", params(("trial_id" = Uuid, Path)),
    responses((status = 200, body = TrialView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn trial(State(app): State<App>, Path(id): Path<Uuid>) -> Result<Json<TrialView>> {
    let found = app.store.trial(id).await?;
    Ok(Json(TrialView {
        id: found.id,
        slug: found.slug,
        product: found.product,
        saved_at: found.saved_at,
        saved_by: found.saved_by,
        issued: found.issued,
    }))
}

/// Keeps a trial set to print and to score; sent twice, it is stored once
#[utoipa::path(put, path = "/api/v1/trials/{trial_id}", security(("session" = ["change"])), tag = "trial", params(("trial_id" = Uuid, Path)), request_body = TrialInput,
    responses((status = 200, body = TrialView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn save(
    State(app): State<App>,
    Path(id): Path<Uuid>,
    Recorded { input: asked, write }: Recorded<Value>,
) -> Result<Json<TrialView>> {
    let input: TrialInput = from_value(asked.clone())?;
    let product = app.store.product(&input.slug).await?;
    let set = input.set(&app, ValidationErrors::default()).await?;
    let saved_by = write.author.name.clone();
    let new = NewTrial { id, product_id: product.id, saved_by, asked, issued: json!(set) };
    write.of(&app, id).add_trial(&new).await?;
    trial(State(app), Path(id)).await
}
