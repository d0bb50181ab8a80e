//! A dough on the clock, and its calendar file.

use axum::Json;
use axum::extract::State;
use axum::http::header;
use axum::response::IntoResponse;
use chrono::Duration;
use icalendar::{Alarm, Calendar, Component, Event, EventLike};
use ironpeel_core::chain::{Hand, Rise, chain, rise};
use ironpeel_core::day::{DayInput, DayPlan, plan_day};
use ironpeel_core::units::Faults;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::chain::{HandInput, Held};
use crate::problem::{Problem, Result};
use crate::request::Body;
use crate::state::App;

/// A reminder comes so long before, minutes.
const REMINDS_MIN: i64 = 10;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(day)).routes(routes!(calendar))
}

/// The dough in hand, to be put on the clock.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct DayAsked {
    hand: HandInput,
    day: DayInput,
}

/// A dough on the clock, and how it rises then.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct DayView {
    plan: DayPlan,
    /// Hours count from the first mixing; none where the dough makes no gas.
    rise: Option<Rise>,
    /// When the first mixing begins, in hours from the plan's start.
    mixes_h: f64,
}

impl DayAsked {
    async fn plan(&self, app: &App) -> Result<(DayView, String)> {
        let mut faults = Faults::default();
        let wanted = self.day.check("day.", &mut faults);
        faults.or(())?;
        let held = Held::load(app, &self.hand, "hand.").await?;
        let flours = held.flours();
        let hand = held.hand(&flours);
        let plan = plan_day(hand.method, &wanted)
            .map_err(|error| Problem::field("day.refused", error.to_string()))?;
        let method = plan.method(hand.method);
        let planned = Hand { method: &method, ..hand };
        let rise = rise(&planned, &chain(&planned)).ok();
        let mixes = plan.stages.get(method.first_mix()).map_or(plan.starts_at, |mix| mix.starts_at);
        let mixes_h = (mixes - plan.starts_at).num_seconds() as f64 / 3600.0;
        Ok((DayView { plan, rise, mixes_h }, held.documents.formula.name.clone()))
    }
}

/// Puts the dough in hand on the clock, around the hours nobody is there
#[utoipa::path(post, path = "/api/v1/chain/day", tag = "chain", request_body = DayAsked,
    responses((status = 200, body = DayView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn day(State(app): State<App>, Body(asked): Body<DayAsked>) -> Result<Json<DayView>> {
    Ok(Json(asked.plan(&app).await?.0))
}

/// The same plan as a calendar file: an entry for each stage, a reminder before each that needs
/// somebody
#[utoipa::path(post, path = "/api/v1/chain/day/calendar", tag = "chain", request_body = DayAsked,
    responses((status = 200, body = String, content_type = "text/calendar"), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn calendar(
    State(app): State<App>,
    Body(asked): Body<DayAsked>,
) -> Result<impl IntoResponse> {
    let (DayView { plan, .. }, product) = asked.plan(&app).await?;
    let mut calendar = Calendar::new();
    calendar.name(&product);
    for stage in &plan.stages {
        let mut event = Event::new();
        event
            .uid(&Uuid::now_v7().to_string())
            .summary(&format!("{product}: {}", stage.label))
            .description(&format!("until {}", stage.ends_when))
            .starts(stage.starts_at)
            .ends(stage.ends_at);
        if stage.hands || stage.added {
            let says = format!("{product}: {} in {REMINDS_MIN} min", stage.label);
            event.alarm(Alarm::display(&says, -Duration::minutes(REMINDS_MIN)));
        }
        calendar.push(event.done());
    }
    let named = "attachment; filename=\"dough.ics\"";
    Ok((
        [
            (header::CONTENT_TYPE, "text/calendar; charset=utf-8"),
            (header::CONTENT_DISPOSITION, named),
        ],
        calendar.to_string(),
    ))
}
