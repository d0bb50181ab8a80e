//! A cause's action opened as a what-if: what it would make of the product's next dough.

use axum::extract::State;
use ironpeel_core::chain::chain;
use ironpeel_core::fault::knowledge;
use ironpeel_core::ferment::coefficients::SPONGE_SET_C;
use ironpeel_core::method::Method;
use ironpeel_core::trial::{ChangedPlan, PlannedBefore, changed};
use ironpeel_store::FormulaRevision;
use serde::Serialize;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::batches::BatchOnFloor;
use crate::dough::FormulaView;
use crate::oven::bake_evidence;
use crate::problem::{Problem, Result};
use crate::request::{Json, Path};
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(what_if))
}

/// A product with a cause's action made, nothing of it recorded.
#[derive(Debug, Serialize, ToSchema)]
struct FaultWhatIf {
    slug: String,
    lot_id: Uuid,
    other_lots: Vec<Uuid>,
    /// Floor water set in hand, % on flour.
    hydration_pct: Option<f64>,
    /// Dough off the mixer set in hand, °C.
    target_c: Option<f64>,
    /// Where the action changes it.
    formula: Option<FormulaView>,
    /// Where the action changes it.
    method: Option<Method>,
}

/// What a cause's action would make of the batch's product and lot; nothing is stored
#[utoipa::path(get, path = "/api/v1/batches/{batch_id}/what-if/{cause}", security(("session" = ["read"])), tag = "results",
    params(("batch_id" = Uuid, Path), ("cause" = String, Path)),
    responses((status = 200, body = FaultWhatIf), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn what_if(
    State(app): State<App>,
    Path((id, cause)): Path<(Uuid, String)>,
) -> Result<Json<FaultWhatIf>> {
    let changes = knowledge().cause(&cause).map(|cause| &*cause.change).unwrap_or_default();
    if changes.is_empty() {
        return Err(Problem::not_found("this cause has no action that changes a plan in figures"));
    }
    let BatchOnFloor { planned, context, .. } = BatchOnFloor::load(&app, id).await?;
    let product = app.store.product(&planned.slug).await?;
    let formula = app.store.current_formula(product.formula_id).await?;
    let method = app.store.current_method(product.method_id).await?.method;
    let flours = context.flours();
    let scenario = context.scenario(&flours);
    let coefficients = scenario.coefficients();
    let water = chain(&scenario).water;
    let water = water.ok_or_else(|| Problem::unusable("the batch was planned without water"))?;
    let bake = bake_evidence(&app, &planned, coefficients).await?;
    let before = PlannedBefore {
        hydration_pct: water.dough_absorption_pct,
        dough_c: planned.plan.figures.target_c,
        sponge_c: coefficients.value(&SPONGE_SET_C),
        arrival_pct: bake.and_then(|bake| Some((bake.arrival_pct?, bake.target_arrival_pct))),
    };
    let now = changed(changes, &formula.formula, &method, &before)?;
    let ChangedPlan { formula: new, method: other, hydration_pct, dough_c: target_c } = now;
    let library = &app.parameters().await?.library;
    let view = |new| FormulaView::of(&FormulaRevision { formula: new, ..formula.clone() }, library);
    Ok(Json(FaultWhatIf {
        slug: planned.slug.clone(),
        lot_id: context.documents.flour.lot.id,
        other_lots: context.documents.others.iter().map(|one| one.lot.id).collect(),
        hydration_pct,
        target_c,
        formula: (new != formula.formula).then(|| view(new)),
        method: (other != method).then_some(other),
    }))
}
