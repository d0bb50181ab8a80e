//! Formulas with their revisions, compared and changed.

use axum::extract::State;
use ironpeel_core::chain::ScenarioFormula;
use ironpeel_core::dough::{
    ComparedLine, FlourShare, Formula, FormulaDraft, Ingredient, Library, Losses, LossesInput,
    Preparation, compare,
};
use ironpeel_core::units::{RawNumber, ValidationErrors};
use ironpeel_store::{FormulaRevision, NewFormula, Revision};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::chain::{FormulaHolds, PIECE, STYLE};
use crate::flour_names::current_names;
use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Query, Recorded};
use crate::revision::SignedInput;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(save))
        .routes(routes!(revisions))
        .routes(routes!(revision))
        .routes(routes!(compared))
}

/// One state of a formula.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct FormulaView {
    pub id: Uuid,
    pub name: String,
    pub revision: Revision,
    pub lines: Vec<FormulaLine>,
    /// Several flours, the main one first; empty where the product's own is all of it.
    pub flours: Vec<FlourShare>,
    /// What is made before the final dough.
    pub parts: Vec<Preparation>,
    pub style_points: f64,
    pub piece_kg: f64,
    pub losses: Losses,
    /// Its own water, % on flour; none where it takes what the flour takes.
    pub hydration_pct: Option<f64>,
    /// Its usual batch, kg of dough.
    pub batch_kg: Option<f64>,
}

/// One line of a formula.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct FormulaLine {
    pub ingredient: Ingredient,
    pub label: String,
    pub pct: f64,
}

/// A formula's next state, as it was typed.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct FormulaInput {
    /// The number after the revision that was looked at.
    pub number: i32,
    #[serde(flatten)]
    pub draft: FormulaDraft,
    /// −20 to 20 points of water, wetter or drier by style.
    #[serde(default)]
    pub style_points: RawNumber,
    /// 0.005 to 20 kg.
    #[serde(default)]
    pub piece_kg: RawNumber,
    /// As they were if left out.
    #[serde(default)]
    pub losses: LossesInput,
    pub signed: SignedInput,
    #[serde(flatten)]
    pub holds: FormulaHolds,
}

impl FormulaView {
    pub fn of(found: &FormulaRevision, library: &Library) -> Self {
        let ScenarioFormula { formula, style_points, piece_kg, losses, hydration_pct, batch_kg } =
            &found.formula;
        let lines = formula.lines().iter().map(|line| FormulaLine {
            ingredient: line.ingredient,
            label: library.properties(line.ingredient).label.to_string(),
            pct: line.pct,
        });
        Self {
            id: found.formula_id,
            name: found.name.clone(),
            revision: found.revision.clone(),
            lines: lines.collect(),
            flours: formula.flours().to_vec(),
            parts: formula.parts().to_vec(),
            style_points: *style_points,
            hydration_pct: *hydration_pct,
            batch_kg: *batch_kg,
            piece_kg: *piece_kg,
            losses: *losses,
        }
    }
}

/// A formula from a draft, if its flours and ingredients are on record; none beside its faults.
pub async fn checked(
    app: &App,
    draft: &FormulaDraft,
    library: &Library,
    faults: &mut ValidationErrors,
) -> Result<Option<Formula>> {
    let formula = match Formula::check(&current_names(app, draft).await?) {
        Ok(formula) => formula,
        Err(more) => {
            faults.0.extend(more.0);
            return Ok(None);
        }
    };
    if !formula.flours().is_empty() {
        let known = app.store.flours().await?;
        for (at, flour) in formula.flours().iter().enumerate() {
            if !known.iter().any(|one| one.name == flour.name) {
                let message = format!("{} is not on record; record the flour first", flour.name);
                faults.push(format!("flours[{at}].name"), message);
            }
        }
    }
    for (at, line) in formula.lines().iter().enumerate() {
        if !library.knows(line.ingredient) {
            let message = format!("{} is not in the library", line.ingredient);
            faults.push(format!("lines[{at}].ingredient"), message);
        }
    }
    Ok(Some(formula))
}

/// Records a formula's next state; sent twice, it is stored once
#[utoipa::path(put, path = "/api/v1/formulas/{formula_id}/revisions/{revision_id}", security(("session" = ["change"])), tag = "formula",
    params(("formula_id" = Uuid, Path), ("revision_id" = Uuid, Path)), request_body = FormulaInput,
    responses((status = 200, body = FormulaView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn save(
    State(app): State<App>,
    Path((formula_id, revision_id)): Path<(Uuid, Uuid)>,
    Recorded { input, write }: Recorded<FormulaInput>,
) -> Result<Json<FormulaView>> {
    let current = app.store.current_formula(formula_id).await?;
    let library = app.parameters().await?.library;
    let mut faults = ValidationErrors::default();
    let style_points = STYLE.check_or(&input.style_points, 0.0, "", &mut faults);
    let piece_kg = PIECE.check(&input.piece_kg, "", &mut faults);
    let losses = input.losses.check(current.formula.losses, "losses.", &mut faults);
    let signed = input.signed.check(&write.author, true, &mut faults);
    let (hydration_pct, batch_kg) = input.holds.check(&mut faults);
    let formula = checked(&app, &input.draft, &library, &mut faults).await?;
    if let Some(formula) = faults.or(formula)? {
        let formula =
            ScenarioFormula { formula, style_points, piece_kg, losses, hydration_pct, batch_kg };
        let (name, number) = (current.name, input.number);
        write
            .of(&app, revision_id)
            .add_formula(&NewFormula { formula_id, name, revision_id, number, formula, signed })
            .await?;
    }
    Ok(Json(FormulaView::of(&app.store.formula(revision_id).await?, &library)))
}

/// Every revision of a formula, newest first
#[utoipa::path(get, path = "/api/v1/formulas/{formula_id}/revisions", security(("session" = ["read"])), tag = "formula", params(("formula_id" = Uuid, Path)),
    responses((status = 200, body = Vec<Revision>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn revisions(
    State(app): State<App>,
    Path(formula_id): Path<Uuid>,
) -> Result<Json<Vec<Revision>>> {
    let revisions = app.store.formula_revisions(formula_id).await?;
    Ok(Json(revisions))
}

/// One revision of a formula
#[utoipa::path(get, path = "/api/v1/formula-revisions/{revision_id}", security(("session" = ["read"])), tag = "formula", params(("revision_id" = Uuid, Path)),
    responses((status = 200, body = FormulaView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn revision(State(app): State<App>, Path(id): Path<Uuid>) -> Result<Json<FormulaView>> {
    let library = app.parameters().await?.library;
    Ok(Json(FormulaView::of(&app.store.formula(id).await?, &library)))
}

#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
struct Two {
    was: Uuid,
    is: Uuid,
}

/// Two revisions side by side.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct ComparedFormulas {
    was: FormulaView,
    is: FormulaView,
    /// What differs first.
    rows: Vec<ComparedLine>,
}

/// Two revisions, of one formula or of two, side by side with their differences first
#[utoipa::path(get, path = "/api/v1/formula-comparison", security(("session" = ["read"])), tag = "formula", params(Two),
    responses((status = 200, body = ComparedFormulas), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn compared(
    State(app): State<App>,
    Query(two): Query<Two>,
) -> Result<Json<ComparedFormulas>> {
    let library = app.parameters().await?.library;
    let was = app.revisions.formula(two.was).await?;
    let is = app.revisions.formula(two.is).await?;
    let mut rows = compare(&was.formula.formula, &is.formula.formula, &library);
    rows.splice(0..0, scaling(&was.formula, &is.formula));
    Ok(Json(ComparedFormulas {
        was: FormulaView::of(&was, &library),
        is: FormulaView::of(&is, &library),
        rows,
    }))
}

/// Piece, style, losses, own water and usual batch, where they differ.
fn scaling(was: &ScenarioFormula, is: &ScenarioFormula) -> Vec<ComparedLine> {
    [
        ("own water", "% on flour", was.hydration_pct, is.hydration_pct),
        ("usual batch", "kg", was.batch_kg, is.batch_kg),
        ("piece", "kg", Some(was.piece_kg), Some(is.piece_kg)),
        ("style", "points of water", Some(was.style_points), Some(is.style_points)),
        ("scaling loss", "%", Some(was.losses.scaling_pct), Some(is.losses.scaling_pct)),
        (
            "fermentation loss",
            "%",
            Some(was.losses.fermentation_pct),
            Some(is.losses.fermentation_pct),
        ),
        ("bake loss", "%", Some(was.losses.bake_pct), Some(is.losses.bake_pct)),
        ("cooling loss", "%", Some(was.losses.cooling_pct), Some(is.losses.cooling_pct)),
    ]
    .into_iter()
    .filter(|(_, _, was, is)| match (was, is) {
        (Some(was), Some(is)) => (is - was).abs() > 1e-9,
        (was, is) => was != is,
    })
    .map(|(label, unit, was, is)| ComparedLine {
        label: label.into(),
        unit,
        was,
        is,
        delta: was.zip(is).map(|(was, is)| is - was),
    })
    .collect()
}
