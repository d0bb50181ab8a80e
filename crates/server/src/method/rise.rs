//! How the dough in hand rises, and the yeast for another room or another rise.

use axum::Json;
use axum::extract::State;
use ironpeel_core::chain::{
    Followed, NoRise, OtherwiseRisen, ReadOf, Rise, SeasonalYeast, chain, followed,
    otherwise_risen, rise, seasonal_yeast, yeast_wanted,
};
use ironpeel_core::ferment::Reading;
use ironpeel_core::units::{Bound, Faults, Given};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::chain::{HandInput, Held};
use crate::problem::{Problem, Result};
use crate::request::Body;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(rises)).routes(routes!(yeast)).routes(routes!(follow))
}

/// How the dough in hand rises.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct RiseView {
    #[serde(flatten)]
    rise: Rise,
    /// The yeast for the same rise at the oven in other rooms; empty where there is no yeast.
    seasons: Vec<SeasonalYeast>,
}

/// How the dough in hand rises through its method, from the first mixing to the oven
#[utoipa::path(post, path = "/api/v1/chain/rise", tag = "chain", request_body = HandInput,
    responses((status = 200, body = RiseView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn rises(State(app): State<App>, Body(asked): Body<HandInput>) -> Result<Json<RiseView>> {
    let held = Held::load(&app, &asked, "").await?;
    let flours = held.flours();
    let hand = held.hand(&flours);
    let chain = chain(&hand);
    let rise = rise(&hand, &chain).map_err(no_rise)?;
    let seasons = if rise.yeast_idy_pct > 0.0 {
        seasonal_yeast(&hand, &chain).map_err(no_rise)?
    } else {
        Vec::new()
    };
    Ok(Json(RiseView { rise, seasons }))
}

/// A rise that is wanted where the dough meets the oven.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct RiseWanted {
    hand: HandInput,
    /// 1 to 1000 %.
    #[serde(default)]
    rise_pct: Given,
}

/// The yeast that brings it there.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct YeastFound {
    /// Instant yeast, % of all flour; none where no dose does it.
    yeast_idy_pct: Option<f64>,
    /// Why not.
    says: Option<String>,
    /// Another room, or another time, that does it with the yeast it has.
    otherwise: OtherwiseRisen,
}

const RISE: Bound = Bound::new("rise_pct", "rise at the oven", "%", 1.0, 1000.0);

/// The yeast that brings the dough in hand to a rise at the oven
#[utoipa::path(post, path = "/api/v1/chain/yeast", tag = "chain", request_body = RiseWanted,
    responses((status = 200, body = YeastFound), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn yeast(State(app): State<App>, Body(asked): Body<RiseWanted>) -> Result<Json<YeastFound>> {
    let mut faults = Faults::default();
    let wanted = RISE.check(&asked.rise_pct, "", &mut faults);
    faults.or(())?;
    let held = Held::load(&app, &asked.hand, "hand.").await?;
    let flours = held.flours();
    let hand = held.hand(&flours);
    let chain = chain(&hand);
    let found = yeast_wanted(&hand, &chain, wanted).map_err(no_rise)?;
    let otherwise = otherwise_risen(&hand, &chain, wanted).map_err(no_rise)?;
    Ok(Json(YeastFound {
        yeast_idy_pct: found.ok(),
        says: found.err().map(|error| error.to_string()),
        otherwise,
    }))
}

fn no_rise(error: NoRise) -> Problem {
    Problem::field("hand", error.to_string())
}

/// Most readings of one dough.
const MOST_READINGS: usize = 100;
const SINCE: Bound = Bound::new("minutes", "since the first mixing", "min", 1.0, 10_000.0);
const READ: Bound = Bound::new("rise_pct", "the rise that was read", "%", 0.0, 1000.0);

/// Readings of tonight's dough.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct FollowAsked {
    hand: HandInput,
    /// What was read: the jar follows the room sooner than the dough does.
    of: ReadOf,
    /// Up to 100.
    #[serde(default)]
    readings: Vec<ReadingInput>,
}

/// One reading of a rise.
#[derive(Debug, Clone, Deserialize, ToSchema)]
#[schema(as = RiseReading)]
struct ReadingInput {
    /// Since the first mixing, 1 to 10 000 min.
    #[serde(default)]
    minutes: Given,
    /// 0 to 1000 %.
    #[serde(default)]
    rise_pct: Given,
}

/// Follows tonight's dough by readings of its jar or of itself
#[utoipa::path(post, path = "/api/v1/chain/followed", tag = "chain", request_body = FollowAsked,
    responses((status = 200, body = Followed), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn follow(State(app): State<App>, Body(asked): Body<FollowAsked>) -> Result<Json<Followed>> {
    let mut faults = Faults::default();
    if asked.readings.len() > MOST_READINGS {
        faults.push("readings", format!("up to {MOST_READINGS} readings of one dough"));
    }
    let readings: Vec<Reading> = asked
        .readings
        .iter()
        .take(MOST_READINGS)
        .enumerate()
        .map(|(number, reading)| {
            let at = format!("readings[{number}].");
            Reading {
                t_h: SINCE.check(&reading.minutes, &at, &mut faults) / 60.0,
                rise_pct: READ.check(&reading.rise_pct, &at, &mut faults),
            }
        })
        .collect();
    faults.or(())?;
    let held = Held::load(&app, &asked.hand, "hand.").await?;
    let flours = held.flours();
    let hand = held.hand(&flours);
    Ok(Json(followed(&hand, &chain(&hand), asked.of, &readings).map_err(no_rise)?))
}
