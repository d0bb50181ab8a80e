//! Mending a flour: gluten, malt, sieve, part white.

use axum::extract::State;
use ironpeel_core::lot::{Correction, CorrectionInput, CorrectionTargets};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::problem::{Problem, Result};
use crate::request::{Json, Path};
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(mend)).routes(routes!(targets))
}

/// How much of a remedy a lot needs, and what comes with it
#[utoipa::path(post, path = "/api/v1/lots/{lot_id}/correction", security(("session" = ["read"])), tag = "flour", params(("lot_id" = Uuid, Path)), request_body = CorrectionInput,
    responses((status = 200, body = Correction), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn mend(
    State(app): State<App>,
    Path(lot_id): Path<Uuid>,
    Json(remedy): Json<CorrectionInput>,
) -> Result<Json<Correction>> {
    let lot = app.store.lot(lot_id).await?;
    let (property, basis) = remedy.property();
    let has = lot.current.readings.value(property, basis).ok_or_else(|| {
        Problem::field(
            "lot_id",
            format!("{} has no {} on its certificate", lot.code, property.label()),
        )
    })?;
    let plant = app.parameters().await?;
    remedy.of(has, &plant).map(Json).map_err(|none| Problem::field("remedy", none.to_string()))
}

/// What corrections of a lot are begun with
#[utoipa::path(get, path = "/api/v1/lots/{lot_id}/correction-targets", security(("session" = ["read"])), tag = "flour", params(("lot_id" = Uuid, Path)),
    responses((status = 200, body = CorrectionTargets), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn targets(
    State(app): State<App>,
    Path(lot_id): Path<Uuid>,
) -> Result<Json<CorrectionTargets>> {
    let lot = app.store.lot(lot_id).await?;
    let plant = app.parameters().await?;
    Ok(Json(CorrectionTargets::of(&lot.current.readings, &plant.coefficients)))
}
