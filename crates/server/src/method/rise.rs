//! How the selected product rises, and the yeast for another room or another rise.

use axum::extract::State;
use chrono::{DateTime, Utc};
use ironpeel_core::chain::{
    FermentationTracking, OtherwiseRisen, ReadOf, Rise, RiseError, SeasonalYeast, chain,
    fermentation_tracking, otherwise_risen, rise, seasonal_yeast, yeast_wanted,
};
use ironpeel_core::ferment::JarReading;
use ironpeel_core::units::{NumberRange, RawNumber, ValidationErrors, timestamp};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::chain::{ScenarioContext, ScenarioInput};
use crate::problem::{Problem, Result};
use crate::request::Json;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(rises)).routes(routes!(yeast)).routes(routes!(follow))
}

/// How the selected product rises.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct RiseView {
    #[serde(flatten)]
    rise: Rise,
    /// The yeast for the same rise at the oven in other rooms; empty where there is no yeast.
    seasons: Vec<SeasonalYeast>,
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
    Ok(Json(RiseView { rise, seasons }))
}

/// A rise that is wanted where the dough meets the oven.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct RiseWanted {
    scenario: ScenarioInput,
    /// 1 to 1000 %.
    #[serde(default)]
    rise_pct: RawNumber,
    /// The hour at which it is to stand there.
    #[serde(default, deserialize_with = "timestamp::maybe")]
    wanted_at: Option<DateTime<Utc>>,
}

/// The yeast that brings it there.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct YeastFound {
    /// Instant yeast, % of all flour; none where no dose does it.
    yeast_idy_pct: Option<f64>,
    /// Why not.
    message: Option<String>,
    /// Another room, or another time, that does it with the yeast it has.
    otherwise: OtherwiseRisen,
}

const RISE: NumberRange = NumberRange::new("rise_pct", "rise at the oven", "%", 1.0, 1000.0);

/// The yeast that brings the selected product to a rise at the oven
#[utoipa::path(post, path = "/api/v1/chain/yeast", security(("session" = ["read"])), tag = "chain", request_body = RiseWanted,
    responses((status = 200, body = YeastFound), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn yeast(State(app): State<App>, Json(asked): Json<RiseWanted>) -> Result<Json<YeastFound>> {
    let mut faults = ValidationErrors::default();
    let wanted = RISE.check(&asked.rise_pct, "", &mut faults);
    faults.or(())?;
    let context = ScenarioContext::load(&app, &asked.scenario, "scenario.").await?;
    let flours = context.flours();
    let scenario = context.scenario(&flours);
    let chain = chain(&scenario);
    let found = yeast_wanted(&scenario, &chain, wanted).map_err(no_rise)?;
    let otherwise = otherwise_risen(&scenario, &chain, wanted, asked.wanted_at).map_err(no_rise)?;
    Ok(Json(YeastFound {
        yeast_idy_pct: found.ok(),
        message: found.err().map(|error| error.to_string()),
        otherwise,
    }))
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
                t_h: SINCE.check(&reading.minutes, &at, &mut faults) / 60.0,
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
