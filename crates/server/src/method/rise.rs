//! How the selected product rises, when its stages end, and what brings it to another rise.

use axum::extract::State;
use chrono::{DateTime, Utc};
use ironpeel_core::chain::{
    FermentationTracking, ReadOf, Rise, RiseError, SeasonalYeast, StageEnd, TargetRise,
    TargetRiseSolutions, chain, fermentation_tracking, rise, seasonal_yeast, stage_ends,
    target_rise,
};
use ironpeel_core::ferment::JarReading;
use ironpeel_core::units::{MIN_PER_H, NumberRange, RawNumber, ValidationErrors, timestamp};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::chain::{ScenarioContext, ScenarioInput};
use crate::problem::{Problem, Result};
use crate::request::Json;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(rises)).routes(routes!(solve)).routes(routes!(follow))
}

/// How the selected product rises.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct RiseView {
    #[serde(flatten)]
    rise: Rise,
    /// The yeast for the same rise at the oven in other rooms; empty where there is no yeast.
    seasons: Vec<SeasonalYeast>,
    /// Of the stages that end at what the model says something of.
    ends: Vec<StageEnd>,
}

/// How the selected product rises through its method, from the first mixing to the oven
#[utoipa::path(post, path = "/api/v1/chain/fermentation", security(("session" = ["read"])), tag = "chain", request_body = ScenarioInput,
    responses((status = 200, body = RiseView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn rises(State(app): State<App>, Json(asked): Json<ScenarioInput>) -> Result<Json<RiseView>> {
    let context = ScenarioContext::load(&app, &asked, "").await?;
    let flours = context.flours();
    let scenario = context.scenario(&flours);
    let chain = chain(&scenario);
    let rise = rise(&scenario, &chain).map_err(no_rise)?;
    let seasons = if rise.yeast_idy_pct > 0.0 {
        seasonal_yeast(&scenario, &chain).map_err(no_rise)?
    } else {
        Vec::new()
    };
    Ok(Json(RiseView { rise, seasons, ends: stage_ends(&scenario, &chain) }))
}

/// A rise that is wanted of the dough.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct TargetRiseInput {
    scenario: ScenarioInput,
    /// 1 to 1000 %.
    #[serde(default)]
    rise_pct: RawNumber,
    /// So long after the first mixing, 1 to 10 000 min; where it meets the oven if left out.
    #[serde(default)]
    after_min: RawNumber,
    /// The hour at which it is to stand there.
    #[serde(default, deserialize_with = "timestamp::maybe")]
    wanted_at: Option<DateTime<Utc>>,
}

/// What alone brings it there.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct TargetRiseView {
    #[serde(flatten)]
    solutions: TargetRiseSolutions,
    /// Why no yeast does.
    message: Option<String>,
}

const RISE: NumberRange = NumberRange::new("rise_pct", "target rise", "%", 1.0, 1000.0);
const AFTER: NumberRange =
    NumberRange::new("after_min", "time after the first mixing", "min", 1.0, 10_000.0);

/// The yeast, the starter, the water, the room or the time that alone brings the selected product to a
/// rise
#[utoipa::path(post, path = "/api/v1/chain/target-rise", security(("session" = ["read"])), tag = "chain", request_body = TargetRiseInput,
    responses((status = 200, body = TargetRiseView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn solve(
    State(app): State<App>,
    Json(asked): Json<TargetRiseInput>,
) -> Result<Json<TargetRiseView>> {
    let mut faults = ValidationErrors::default();
    let target = TargetRise {
        rise_pct: RISE.check(&asked.rise_pct, "", &mut faults),
        after_h: AFTER.check_opt(&asked.after_min, "", &mut faults).map(|min| min / MIN_PER_H),
        wanted_at: asked.wanted_at,
    };
    faults.or(())?;
    let context = ScenarioContext::load(&app, &asked.scenario, "scenario.").await?;
    let flours = context.flours();
    let scenario = context.scenario(&flours);
    let (solutions, no_yeast) =
        target_rise(&scenario, &chain(&scenario), target).map_err(no_rise)?;
    let message = no_yeast.map(|error| error.to_string());
    Ok(Json(TargetRiseView { solutions, message }))
}

fn no_rise(error: RiseError) -> Problem {
    Problem::field("scenario", error.to_string())
}

/// Most readings of one batch.
const MOST_READINGS: usize = 100;
const SINCE: NumberRange =
    NumberRange::new("minutes", "since the first mixing", "min", 1.0, 10_000.0);
const READ: NumberRange = NumberRange::new("rise_pct", "the rise that was read", "%", 0.0, 1000.0);

/// Readings of tonight's dough.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct FollowAsked {
    scenario: ScenarioInput,
    /// What was read: the jar follows the room sooner than the dough does.
    of: ReadOf,
    /// Up to 100.
    #[serde(default)]
    readings: Vec<RiseReading>,
}

/// One reading of a rise.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct RiseReading {
    /// Since the first mixing, 1 to 10 000 min.
    #[serde(default)]
    minutes: RawNumber,
    /// 0 to 1000 %.
    #[serde(default)]
    rise_pct: RawNumber,
}

/// Follows tonight's dough by readings of its jar or of itself
#[utoipa::path(post, path = "/api/v1/chain/fermentation-tracking", security(("session" = ["read"])), tag = "chain", request_body = FollowAsked,
    responses((status = 200, body = FermentationTracking), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn follow(
    State(app): State<App>,
    Json(asked): Json<FollowAsked>,
) -> Result<Json<FermentationTracking>> {
    let mut faults = ValidationErrors::default();
    if asked.readings.len() > MOST_READINGS {
        faults.push("readings", format!("up to {MOST_READINGS} readings of one batch"));
    }
    let readings: Vec<JarReading> = asked
        .readings
        .iter()
        .take(MOST_READINGS)
        .enumerate()
        .map(|(number, reading)| {
            let at = format!("readings[{number}].");
            JarReading {
                t_h: SINCE.check(&reading.minutes, &at, &mut faults) / MIN_PER_H,
                rise_pct: READ.check(&reading.rise_pct, &at, &mut faults),
            }
        })
        .collect();
    faults.or(())?;
    let context = ScenarioContext::load(&app, &asked.scenario, "scenario.").await?;
    let flours = context.flours();
    let scenario = context.scenario(&flours);
    Ok(Json(
        fermentation_tracking(&scenario, &chain(&scenario), asked.of, &readings)
            .map_err(no_rise)?,
    ))
}
