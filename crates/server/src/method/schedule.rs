//! A dough on the clock, and its calendar file.

use axum::extract::State;
use axum::response::IntoResponse;
use chrono::{DateTime, Duration, Utc};
use ironpeel_core::chain::{Rise, Scenario, chain, rise, starter_feed};
use ironpeel_core::schedule::{
    FeedAt, FrozenReserve, FrozenReserveInput, ScheduleInput, SchedulePlan, plan_schedule,
};
use ironpeel_core::units::ValidationErrors;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use super::calendar::{Entry, file, folds};
use crate::chain::{ScenarioContext, ScenarioInput};
use crate::problem::{Problem, Result};
use crate::request::Json;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(day)).routes(routes!(calendar))
}

/// The selected product, to be put on the clock.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct ScheduleQuery {
    scenario: ScenarioInput,
    day: ScheduleInput,
    /// Pieces to be kept frozen for another day.
    spare: Option<FrozenReserveInput>,
}

/// A dough on the clock, and how it rises then.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct ScheduleView {
    plan: SchedulePlan,
    /// Hours count from the first mixing; none where the dough makes no gas.
    rise: Option<Rise>,
    /// When the first mixing begins, in hours from the plan's start.
    mixes_h: f64,
    /// How long a dough can wait in each stage.
    waits_min: Vec<f64>,
    /// The feed before it, where it has a starter.
    feed: Option<FeedAt>,
    spare: Option<FrozenReserve>,
}

impl ScheduleQuery {
    async fn plan(&self, app: &App) -> Result<(ScheduleView, String)> {
        let mut faults = ValidationErrors::default();
        let wanted = self.day.check(app.clock().await?, "day.", &mut faults);
        faults.or(())?;
        let context = ScenarioContext::load(app, &self.scenario, "scenario.").await?;
        let flours = context.flours();
        let scenario = context.scenario(&flours);
        let plan = plan_schedule(scenario.method, &wanted, scenario.coefficients())
            .map_err(|error| Problem::field("day.closed_hours", error.to_string()))?;
        let method = plan.method(scenario.method);
        let planned = Scenario { method: &method, ..scenario };
        let chain = chain(&planned);
        let rise = rise(&planned, &chain).ok();
        let mut faults = ValidationErrors::default();
        let spare = self.spare.as_ref().and_then(|spare| {
            spare.plan(&method, &plan, &wanted, scenario.coefficients(), "spare.", &mut faults)
        });
        faults.or(())?;
        let view = ScheduleView {
            rise,
            mixes_h: plan.mixes_h(&method),
            waits_min: method.waits(scenario.coefficients()),
            feed: starter_feed(&planned, &chain, plan.mixes_at(&method), &wanted),
            spare,
            plan,
        };
        Ok((view, context.documents.formula.name.clone()))
    }
}

/// Puts the selected product on the clock, around the closed hours
#[utoipa::path(post, path = "/api/v1/chain/schedule", security(("session" = ["read"])), tag = "chain", request_body = ScheduleQuery,
    responses((status = 200, body = ScheduleView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn day(
    State(app): State<App>,
    Json(asked): Json<ScheduleQuery>,
) -> Result<Json<ScheduleView>> {
    Ok(Json(asked.plan(&app).await?.0))
}

/// The same plan as a calendar file: an entry for each stage, a reminder before each that needs
/// somebody
#[utoipa::path(post, path = "/api/v1/chain/schedule/calendar", security(("session" = ["read"])), tag = "chain", request_body = ScheduleQuery,
    responses((status = 200, body = String, content_type = "text/calendar"), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn calendar(
    State(app): State<App>,
    Json(asked): Json<ScheduleQuery>,
) -> Result<impl IntoResponse> {
    let (ScheduleView { plan, feed, spare, .. }, product) = asked.plan(&app).await?;
    let at = |message: String, what: &str, moment: DateTime<Utc>| Entry {
        summary: format!("{product}: {what}"),
        message,
        starts_at: moment,
        ends_at: moment + Duration::minutes(10),
        reminds: true,
    };
    let mut entries: Vec<Entry> = plan
        .stages
        .iter()
        .flat_map(|stage| {
            let summary = format!("{product}: {}", stage.label);
            let message = format!("until {}", stage.ends_when);
            if !stage.folds.is_empty() {
                return folds(&summary, &message, &stage.folds);
            }
            vec![Entry {
                summary,
                message,
                starts_at: stage.starts_at,
                ends_at: stage.ends_at,
                reminds: stage.hands || stage.added,
            }]
        })
        .collect();
    if let Some(FeedAt { at: when, feed, .. }) = feed {
        let message = format!(
            "{:.0} g starter, {:.0} g flour, {:.0} g water",
            feed.starter_g, feed.flour_g, feed.water_g
        );
        entries.push(at(message, "feed the starter", when));
    }
    if let Some(FrozenReserve { pieces, freeze_at, thaw_at, out_at, .. }) = spare {
        let message = || format!("{pieces} surplus pieces");
        entries.push(at(message(), "surplus pieces into the freezer", freeze_at));
        entries.push(at(message(), "surplus pieces into the refrigerator", thaw_at));
        entries.push(at(message(), "surplus pieces out", out_at));
    }
    Ok(file(&product, entries))
}
