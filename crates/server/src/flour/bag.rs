//! A flour from a bag: what its label states becomes a flour and a lot in one step.

use axum::extract::State;
use ironpeel_core::flour::{
    BagInput, FlourType, IntendedUse, Reading, Readings, Treatment, flour_types,
};
use ironpeel_core::units::ValidationErrors;
use ironpeel_store::{Flour, NewLotRevision, Stated};
use serde::Deserialize;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use super::lots::{LotView, view_of};
use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Recorded};
use crate::revision::SignedInput;
use crate::state::App;

/// Of whole grain all of the grain is in it, %.
const WHOLE_PCT: f64 = 100.0;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(types)).routes(routes!(save))
}

/// A bag as it was typed.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct BagRecord {
    #[serde(flatten)]
    bag: BagInput,
    #[serde(default)]
    signed: SignedInput,
}

/// The national classes a bag's type number may name, with the ash that is usual of each
#[utoipa::path(get, path = "/api/v1/flour-types", security(("session" = ["read"])), tag = "flour",
    responses((status = 200, body = Vec<FlourType>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn types() -> Json<Vec<FlourType>> {
    Json(flour_types())
}

/// Records a flour and its lot from what a bag states; sent twice, it is stored once
#[utoipa::path(put, path = "/api/v1/flours/{flour_id}/bags/{lot_id}", security(("session" = ["change"])), tag = "flour",
    params(("flour_id" = Uuid, Path), ("lot_id" = Uuid, Path)), request_body = BagRecord,
    responses((status = 200, body = LotView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn save(
    State(app): State<App>,
    Path((flour_id, lot_id)): Path<(Uuid, Uuid)>,
    Recorded { input, write }: Recorded<BagRecord>,
) -> Result<Json<LotView>> {
    let mut faults = ValidationErrors::default();
    let BagRecord { bag: typed, signed } = input;
    let bag = typed.check(&mut faults);
    let signed = signed.check(&write.author, false, &mut faults);
    faults.or(())?;
    let today = app.today().await?;
    let flour = Flour {
        id: flour_id,
        mill: bag.mill,
        name: bag.name,
        species: typed.species,
        note: "from the bag".into(),
        hardness: None,
        extraction_pct: bag.whole_grain.then_some(WHOLE_PCT),
        treatment: Treatment::None,
        intended_use: IntendedUse::General,
        price_per_t: None,
        allergens: None,
    };
    let lot = NewLotRevision {
        lot_id,
        flour_id,
        code: format!("bag {today}"),
        revision_id: lot_id,
        number: 1,
        milled_on: None,
        delivered_on: Some(today),
        tonnes: None,
        stated: stated(&bag.readings),
        readings: bag.readings,
        signed: signed.clone(),
    };
    write.of(&app, flour_id).add_flour(&flour, flour_id, 1, &signed).await?;
    write.of(&app, lot_id).add_lot_revision(&lot).await?;
    let lot = app.store.lot(lot_id).await?;
    view_of(&app, lot).await.map(Json)
}

/// The readings as they would be written.
fn stated(readings: &Readings) -> Vec<Stated> {
    let of = |reading: &Reading| Stated {
        value: reading.value.to_string(),
        unit: reading.property.unit().into(),
    };
    readings.0.iter().map(of).collect()
}
