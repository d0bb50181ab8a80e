//! Who holds the water, and how the grains of the dough in hand behave.

use axum::Json;
use axum::extract::State;
use ironpeel_core::chain::{FlourInHand, figures};
use ironpeel_core::units::{Bound, Faults, Given};
use ironpeel_core::water::{
    AddedByFeel, Holders, MixOfGrains, Rule, WaterShares, added_by_feel, mix_of_grains,
};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::chain::{HandInput, Held};
use crate::problem::{Problem, Result};
use crate::request::Body;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(holders))
}

/// The dough in hand, a lot to hold it beside, and what was added by feel.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct HoldersInput {
    hand: HandInput,
    /// A lot of the main flour to show beside it.
    reference_revision_id: Option<Uuid>,
    /// 0 to 20 points of water added on the floor beyond the plan; 0 if left out.
    #[serde(default)]
    added_points: Given,
}

/// Who holds the water of a dough.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct HeldWater {
    of_flour: Holders,
    shares: WaterShares,
}

/// Who holds the water, what feel does to it, and how the grains behave.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct HoldersView {
    /// None without gluten: nothing is computed of such a blend.
    lot: Option<HeldWater>,
    reference: Option<HeldWater>,
    reference_code: Option<String>,
    by_feel: Option<AddedByFeel>,
    /// What a certificate does not state and was taken as usual.
    assumed: Vec<String>,
    /// None where the plant switched it off.
    critical_damaged_pct: Option<f64>,
    grains: MixOfGrains,
}

const ADDED: Bound =
    Bound::new("added_points", "water added by feel", "points of water", 0.0, 20.0);

/// Who holds the water of the dough in hand, beside a reference lot and with water added by feel
#[utoipa::path(post, path = "/api/v1/chain/holders", tag = "chain", request_body = HoldersInput,
    responses((status = 200, body = HoldersView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn holders(
    State(app): State<App>,
    Body(asked): Body<HoldersInput>,
) -> Result<Json<HoldersView>> {
    let mut faults = Faults::default();
    let added = ADDED.check_or(&asked.added_points, 0.0, "", &mut faults);
    faults.or(())?;
    let held = Held::load(&app, &asked.hand, "hand.").await?;
    let flours = held.flours();
    let hand = held.hand(&flours);
    let parts = hand.parts().map_err(|name| {
        Problem::field("hand", format!("the certificate of {name} has no moisture"))
    })?;
    let rules = &hand.numbers.rules;
    let planned = figures(&hand).water.map_or(0.0, |water| water.floor_pct);
    let of =
        |holders: Holders| HeldWater { shares: holders.shares(planned, 0.0), of_flour: holders };
    let reference = match asked.reference_revision_id {
        Some(id) => Some(app.revisions.lot(id).await?),
        None => None,
    };
    let beside = reference.as_ref().and_then(|reference| {
        let mut others = flours.clone();
        if let Some(main) = others.first_mut() {
            main.readings = &reference.current.readings;
        }
        let parts: Option<Vec<_>> = others.iter().map(FlourInHand::part).collect();
        Holders::of(&parts?)
    });
    let lot = Holders::of(&parts);
    let critical_damaged_pct = rules.active(Rule::CriticalDamagedStarch);
    Ok(Json(HoldersView {
        by_feel: lot.map(|lot| added_by_feel(&lot, planned, added, critical_damaged_pct)),
        lot: lot.map(of),
        reference: beside.map(of),
        reference_code: reference.map(|reference| reference.code.clone()),
        assumed: if lot.is_some() { Holders::assumed(&parts) } else { Vec::new() },
        critical_damaged_pct,
        grains: mix_of_grains(&parts, rules),
    }))
}
