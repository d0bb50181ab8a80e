//! Products with the newest state of what they are made by, and changes to their formulas.

use axum::Json;
use axum::extract::State;
use ironpeel_core::chain::{FormulaInHand, LineInHand};
use ironpeel_core::dough::{Formula, Ingredient, LineInput, Losses};
use ironpeel_core::method::Method;
use ironpeel_core::units::{Bound, Faults, Given};
use ironpeel_store::{FormulaRevision, NewFormula, Product};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::flour::FlourView;
use crate::problem::{Problem, Result};
use crate::request::{At, Body};
use crate::revision::{RevisionView, SignedInput};
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(products))
        .routes(routes!(product))
        .routes(routes!(save_formula))
}

/// A product as lists show it.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct ProductRow {
    pub slug: String,
    pub name: String,
    pub flour_id: Uuid,
    pub flour: String,
    pub line: String,
}

/// A product with the newest state of everything it is made by.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct ProductView {
    pub id: Uuid,
    pub slug: String,
    pub name: String,
    pub flour: FlourView,
    pub specification: RevisionView,
    pub formula: FormulaView,
    pub method: MethodView,
    pub line: LineView,
}

#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct FormulaView {
    pub id: Uuid,
    pub revision: RevisionView,
    pub lines: Vec<LineRow>,
    pub style_points: f64,
    pub piece_kg: f64,
    pub losses: Losses,
}

/// One line of a formula.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct LineRow {
    pub ingredient: Ingredient,
    pub label: &'static str,
    pub pct: f64,
}

#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct MethodView {
    pub revision: RevisionView,
    pub process_label: &'static str,
    #[serde(flatten)]
    pub method: Method,
}

#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct LineView {
    pub revision: RevisionView,
    pub name: String,
    #[serde(flatten)]
    pub line: LineInHand,
}

/// A formula's next state, as it was typed.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct FormulaInput {
    /// The number after the revision that was looked at.
    pub number: i32,
    pub lines: Vec<LineInput>,
    /// −20 to 20 points of water, wetter or drier by style.
    #[serde(default)]
    pub style_points: Given,
    /// 0.005 to 20 kg.
    #[serde(default)]
    pub piece_kg: Given,
    pub signed: SignedInput,
}

const STYLE: Bound = Bound::new("style_points", "style", "points of water", -20.0, 20.0);
const PIECE: Bound = Bound::new("piece_kg", "piece", "kg", 0.005, 20.0);

impl From<FormulaRevision> for FormulaView {
    fn from(found: FormulaRevision) -> Self {
        let lines = found.formula.formula.lines().iter().map(|line| LineRow {
            ingredient: line.ingredient,
            label: line.ingredient.label(),
            pct: line.pct,
        });
        Self {
            id: found.formula_id,
            revision: found.revision.into(),
            lines: lines.collect(),
            style_points: found.formula.style_points,
            piece_kg: found.formula.piece_kg,
            losses: found.formula.losses,
        }
    }
}

/// Every product
#[utoipa::path(get, path = "/api/v1/products", tag = "product",
    responses((status = 200, body = Vec<ProductRow>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn products(State(app): State<App>) -> Result<Json<Vec<ProductRow>>> {
    let row = |Product { slug, name, flour_id, flour, line, .. }| ProductRow {
        slug,
        name,
        flour_id,
        flour,
        line,
    };
    Ok(Json(app.store.products().await?.into_iter().map(row).collect()))
}

/// A product with the newest state of everything it is made by
#[utoipa::path(get, path = "/api/v1/products/{slug}", tag = "product", params(("slug" = String, Path)),
    responses((status = 200, body = ProductView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn product(State(app): State<App>, At(slug): At<String>) -> Result<Json<ProductView>> {
    let product = app.store.product(&slug).await?;
    let method = app.store.current_method(product.method_id).await?;
    let line = app.store.current_line(product.line_id).await?;
    Ok(Json(ProductView {
        flour: app.store.flour(product.flour_id).await?.into(),
        specification: app.store.current_specification(product.flour_id).await?.revision.into(),
        formula: app.store.current_formula(product.formula_id).await?.into(),
        method: MethodView {
            revision: method.revision.into(),
            process_label: method.method.process.label(),
            method: method.method,
        },
        line: LineView { revision: line.revision.into(), name: line.name, line: line.line },
        id: product.id,
        slug: product.slug,
        name: product.name,
    }))
}

/// Records a formula's next state; sent twice, it is stored once
#[utoipa::path(put, path = "/api/v1/formulas/{formula_id}/revisions/{revision_id}", tag = "product",
    params(("formula_id" = Uuid, Path), ("revision_id" = Uuid, Path)), request_body = FormulaInput,
    responses((status = 200, body = FormulaView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn save_formula(
    State(app): State<App>,
    At((formula_id, revision_id)): At<(Uuid, Uuid)>,
    Body(input): Body<FormulaInput>,
) -> Result<Json<FormulaView>> {
    let current = app.store.current_formula(formula_id).await?;
    let mut faults = Faults::default();
    let style_points = STYLE.check_or(&input.style_points, 0.0, "", &mut faults);
    let piece_kg = PIECE.check(&input.piece_kg, "", &mut faults);
    let signed = input.signed.check(true, &mut faults);
    let formula = formula(&input.lines, &mut faults);
    let formula = faults
        .or(formula)?
        .map(|formula| FormulaInHand::new(formula, style_points, piece_kg, current.formula.losses));
    if let Some(formula) = formula {
        let name = current.name;
        let number = input.number;
        app.store
            .add_formula(&NewFormula { formula_id, name, revision_id, number, formula, signed })
            .await?;
    }
    Ok(Json(app.store.formula(revision_id).await?.into()))
}

/// A formula from typed lines; none beside its faults.
pub fn formula(lines: &[LineInput], faults: &mut Faults) -> Option<Formula> {
    Formula::new(lines).map_err(|Faults(more)| faults.0.extend(more)).ok()
}
