//! Lines: their mixer and what comes after it.

use axum::extract::State;
use ironpeel_core::chain::{LineDraft, ScenarioLine};
use ironpeel_core::units::ValidationErrors;
use ironpeel_store::{LineRevision, NewLine};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Recorded};
use crate::revision::{RevisionView, SignedInput};
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(save)).routes(routes!(lines))
}

/// One state of a line.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct LineView {
    pub id: Uuid,
    pub revision: RevisionView,
    pub name: String,
    #[serde(flatten)]
    pub line: ScenarioLine,
}

impl From<LineRevision> for LineView {
    fn from(LineRevision { revision, line_id, name, line }: LineRevision) -> Self {
        Self { id: line_id, revision: revision.into(), name, line }
    }
}

/// A line a product may be made on.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct LineRow {
    id: Uuid,
    name: String,
}

/// The lines a product may be made on
#[utoipa::path(get, path = "/api/v1/lines", tag = "line",
    responses((status = 200, body = Vec<LineRow>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn lines(State(app): State<App>) -> Result<Json<Vec<LineRow>>> {
    let lines = app.store.lines().await?;
    Ok(Json(lines.into_iter().map(|(id, name)| LineRow { id, name }).collect()))
}

/// A line's next state, as it was typed.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct LineSaved {
    /// The number after the revision that was looked at.
    number: i32,
    #[serde(flatten)]
    draft: LineDraft,
    signed: SignedInput,
}

/// Records a line's next state; sent twice, it is stored once
#[utoipa::path(put, path = "/api/v1/lines/{line_id}/revisions/{revision_id}", tag = "line",
    params(("line_id" = Uuid, Path), ("revision_id" = Uuid, Path)), request_body = LineSaved,
    responses((status = 200, body = LineView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn save(
    State(app): State<App>,
    Path((line_id, revision_id)): Path<(Uuid, Uuid)>,
    Recorded { input, write }: Recorded<LineSaved>,
) -> Result<Json<LineView>> {
    let was = app.store.current_line(line_id).await?;
    let mut faults = ValidationErrors::default();
    let line = input.draft.over(&was.line, "", &mut faults);
    let signed = input.signed.check(true, &mut faults);
    faults.or(())?;
    let (name, number) = (was.name, input.number);
    write
        .of(&app, revision_id)
        .add_line(&NewLine { line_id, name, revision_id, number, line, signed })
        .await?;
    Ok(Json(app.store.line(revision_id).await?.into()))
}
