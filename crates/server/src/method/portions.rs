//! One dough used over several days.

use axum::extract::State;
use axum::response::IntoResponse;
use chrono::{DateTime, Duration, Utc};
use ironpeel_core::chain::{Portions, PortionsInput, chain, portions};
use serde::Deserialize;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use super::calendar::{Entry, file};
use crate::chain::{ScenarioContext, ScenarioInput};
use crate::problem::{Problem, Result};
use crate::request::Json;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(plan)).routes(routes!(calendar))
}

/// The portions that are wanted of the selected product's dough.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct PortionsQuery {
    scenario: ScenarioInput,
    #[serde(flatten)]
    portions: PortionsInput,
}

impl PortionsQuery {
    /// The portions, and the product's name.
    async fn plan(&self, app: &App) -> Result<(Portions, String)> {
        let context = ScenarioContext::load(app, &self.scenario, "scenario.").await?;
        let flours = context.flours();
        let scenario = context.scenario(&flours);
        let found = portions(&scenario, &chain(&scenario), &self.portions)?;
        Ok((found, context.documents.formula.name.clone()))
    }
}

/// When each portion of a dough comes out of the cold, is warm, and is baked
#[utoipa::path(post, path = "/api/v1/chain/portions", security(("session" = ["read"])), tag = "chain", request_body = PortionsQuery,
    responses((status = 200, body = Portions), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn plan(State(app): State<App>, Json(asked): Json<PortionsQuery>) -> Result<Json<Portions>> {
    Ok(Json(asked.plan(&app).await?.0))
}

/// The same as a calendar file, with a reminder before each step
#[utoipa::path(post, path = "/api/v1/chain/portions/calendar", security(("session" = ["read"])), tag = "chain", request_body = PortionsQuery,
    responses((status = 200, body = String, content_type = "text/calendar"), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn calendar(
    State(app): State<App>,
    Json(asked): Json<PortionsQuery>,
) -> Result<impl IntoResponse> {
    let (found, product) = asked.plan(&app).await?;
    let at = |what: String, starts_at: DateTime<Utc>, ends_at: DateTime<Utc>| Entry {
        message: what.clone(),
        summary: format!("{product}: {what}"),
        starts_at,
        ends_at,
        reminds: true,
    };
    let short = Duration::minutes(10);
    let entries = found.portions.iter().flat_map(|one| {
        let pieces = one.pieces;
        let thaw = one.thaw_at.map(|thaw| {
            at(
                format!("{pieces} pieces from the freezer into the refrigerator"),
                thaw,
                thaw + short,
            )
        });
        let out = at(format!("{pieces} pieces out of the cold"), one.out_at, one.out_at + short);
        let bake = at(format!("bake {pieces} pieces"), one.bake_at, one.out_of_oven_at);
        thaw.into_iter().chain([out, bake])
    });
    Ok(file(&product, entries.collect::<Vec<_>>()))
}
