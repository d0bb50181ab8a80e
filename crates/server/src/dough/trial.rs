//! Levers for a wish, and variants side by side.

use axum::Json;
use axum::extract::State;
use chrono::{DateTime, Utc};
use ironpeel_core::trial::{Lever, LeverOffered, TrialSet, Wish, levers_for, trial_set};
use ironpeel_core::units::{Bound, Faults, Given};
use ironpeel_store::{NewTrial, TrialSummary};
use serde::{Deserialize, Serialize};
use serde_json::{Value, json};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::chain::{HandInput, Held};
use crate::page::{After, PAGE, Wanted, cut};
use crate::problem::{Problem, Result};
use crate::request::{Asked, At, Body, Recorded, from_value};
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(wishes))
        .routes(routes!(levers))
        .routes(routes!(set_out))
        .routes(routes!(trials))
        .routes(routes!(trial, save))
}

/// Something that may be wanted.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct WishView {
    wish: Wish,
    label: &'static str,
}

/// What may be wanted of a dough
#[utoipa::path(get, path = "/api/v1/wishes", tag = "trial", responses((status = 200, body = Vec<WishView>)))]
async fn wishes() -> Json<Vec<WishView>> {
    Json(Wish::ALL.map(|wish| WishView { wish, label: wish.label() }).into())
}

/// A wish for the dough in hand.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct WishInput {
    hand: HandInput,
    wish: Wish,
}

/// The levers for a wish, each with what it would do to the dough in hand
#[utoipa::path(post, path = "/api/v1/levers", tag = "trial", request_body = WishInput,
    responses((status = 200, body = Vec<LeverOffered>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn levers(
    State(app): State<App>,
    Body(asked): Body<WishInput>,
) -> Result<Json<Vec<LeverOffered>>> {
    let held = Held::load(&app, &asked.hand, "hand.").await?;
    Ok(Json(levers_for(&held.hand(&held.flours()), asked.wish)))
}

/// Variants to be set out side by side.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct TrialInput {
    hand: HandInput,
    /// Up to 6.
    levers: Vec<Lever>,
    /// Dough of each, 0.1 to 100 kg; 1 if left out.
    #[serde(default)]
    kg: Given,
    /// The product they are variants of; needed to keep them.
    #[serde(default)]
    slug: String,
    /// Who sets them out; needed to keep them.
    #[serde(default)]
    by: String,
}

const EACH: Bound = Bound::new("kg", "dough of each", "kg", 0.1, 100.0);
const MOST_LEVERS: usize = 6;

impl TrialInput {
    async fn set(&self, app: &App, mut faults: Faults) -> Result<TrialSet> {
        let kg = EACH.check_or(&self.kg, 1.0, "", &mut faults);
        if self.levers.is_empty() || self.levers.len() > MOST_LEVERS {
            let message = format!("choose 1 to {MOST_LEVERS} changes to try side by side");
            faults.push("levers", message);
        }
        faults.or(())?;
        let held = Held::load(app, &self.hand, "hand.").await?;
        Ok(trial_set(&held.hand(&held.flours()), &self.levers, kg))
    }
}

/// The doughs of a trial: as it is, each change alone, and all together
#[utoipa::path(post, path = "/api/v1/trial-sets", tag = "trial", request_body = TrialInput,
    responses((status = 200, body = TrialSet), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn set_out(State(app): State<App>, Body(asked): Body<TrialInput>) -> Result<Json<TrialSet>> {
    Ok(Json(asked.set(&app, Faults::default()).await?))
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
    next: Option<After>,
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
#[utoipa::path(get, path = "/api/v1/trials", tag = "trial", params(Wanted),
    responses((status = 200, body = TrialPage), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn trials(State(app): State<App>, Asked(page): Asked<Wanted>) -> Result<Json<TrialPage>> {
    let mut found = app.store.trials(page.key(), PAGE + 1).await?;
    let next = cut(&mut found, |trial| (trial.saved_at, trial.id));
    let row = |TrialSummary { id, product, saved_at, saved_by }| TrialRow {
        id,
        product,
        saved_at,
        saved_by,
    };
    Ok(Json(TrialPage { trials: found.into_iter().map(row).collect(), next }))
}

/// A trial set as it was set out
#[utoipa::path(get, path = "/api/v1/trials/{trial_id}", tag = "trial", params(("trial_id" = Uuid, Path)),
    responses((status = 200, body = TrialView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn trial(State(app): State<App>, At(id): At<Uuid>) -> Result<Json<TrialView>> {
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
#[utoipa::path(put, path = "/api/v1/trials/{trial_id}", tag = "trial", params(("trial_id" = Uuid, Path)), request_body = TrialInput,
    responses((status = 200, body = TrialView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn save(
    State(app): State<App>,
    At(id): At<Uuid>,
    Recorded { input: asked, write }: Recorded<Value>,
) -> Result<Json<TrialView>> {
    let input: TrialInput = from_value(asked.clone())?;
    let product = app.store.product(&input.slug).await?;
    let mut faults = Faults::default();
    let by = input.by.trim();
    if by.is_empty() || by.chars().count() > 200 {
        faults.push("by", "who sets them out? a name or initials");
    }
    let set = input.set(&app, faults).await?;
    let new =
        NewTrial { id, product_id: product.id, saved_by: by.into(), asked, issued: json!(set) };
    write.of(&app, id).add_trial(&new).await?;
    trial(State(app), At(id)).await
}
