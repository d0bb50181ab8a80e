//! How the dough in hand rises, and the yeast for another room or another rise.

use axum::Json;
use axum::extract::State;
use ironpeel_core::chain::{Rise, SeasonalYeast, chain, rise, seasonal_yeast, yeast_wanted};
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
    OpenApiRouter::new().routes(routes!(rises)).routes(routes!(yeast))
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
    let says = |error: ironpeel_core::chain::NoRise| Problem::field("hand", error.to_string());
    let rise = rise(&hand, &chain).map_err(says)?;
    let seasons = if rise.yeast_idy_pct > 0.0 {
        seasonal_yeast(&hand, &chain).map_err(says)?
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
    let found = yeast_wanted(&hand, &chain(&hand), wanted)
        .map_err(|error| Problem::field("hand", error.to_string()))?;
    Ok(Json(match found {
        Ok(pct) => YeastFound { yeast_idy_pct: Some(pct), says: None },
        Err(error) => YeastFound { yeast_idy_pct: None, says: Some(error.to_string()) },
    }))
}
