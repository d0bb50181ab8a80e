//! Edits of a formula that move several of its numbers, and what preparations are begun with.

use axum::extract::State;
use ironpeel_core::dough::{FormulaDraft, FormulaEdit, PreparationInput, PreparationKind};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::problem::{Problem, Result};
use crate::request::Json;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(edit)).routes(routes!(kinds))
}

/// A formula being written, and one edit of it.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct EditInput {
    formula: FormulaDraft,
    /// The product's own flour: the main one where no other stands in the formula.
    main_flour: String,
    edit: FormulaEdit,
}

/// Makes one edit of a formula that moves several of its numbers; nothing is recorded
#[utoipa::path(post, path = "/api/v1/formula-edit", security(("session" = ["read"])), tag = "formula", request_body = EditInput,
    responses((status = 200, body = FormulaDraft), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn edit(State(app): State<App>, Json(asked): Json<EditInput>) -> Result<Json<FormulaDraft>> {
    let plant = app.parameters().await?;
    let mut formula = asked.formula;
    formula.edit(&asked.edit, &asked.main_flour, &plant.coefficients)?;
    Ok(Json(formula))
}

/// A kind of preparation, and what one of it is begun with.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct PreparationKindView {
    kind: PreparationKind,
    begun: PreparationInput,
    /// How warm it usually is when it meets the final dough.
    usual_c: f64,
}

/// The kinds of preparation, in the order they are made
#[utoipa::path(get, path = "/api/v1/preparation-kinds", security(("session" = ["read"])), tag = "formula",
    responses((status = 200, body = Vec<PreparationKindView>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn kinds(State(app): State<App>) -> Result<Json<Vec<PreparationKindView>>> {
    let plant = app.parameters().await?;
    let of = |kind: PreparationKind| PreparationKindView {
        kind,
        begun: kind.begun(&plant.coefficients),
        usual_c: plant.coefficients.value(kind.usual_c()),
    };
    Ok(Json(PreparationKind::ALL.map(of).into()))
}
