//! Lines: their mixer and what comes after it.

use axum::extract::State;
use ironpeel_core::chain::{LineDraft, LineTemplate, ScenarioLine, line_templates};
use ironpeel_core::method::{MIXER_KINDS, MixerKind};
use ironpeel_core::units::ValidationErrors;
use ironpeel_store::{LineRevision, NewLine, Revision, StoreError};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Recorded};
use crate::revision::SignedInput;
use crate::state::App;

/// Longest name of a line.
const MOST_LETTERS: usize = 80;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(save))
        .routes(routes!(lines))
        .routes(routes!(revisions))
        .routes(routes!(mixer_kinds))
        .routes(routes!(templates))
}

/// One state of a line.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct LineView {
    pub id: Uuid,
    pub revision: Revision,
    pub name: String,
    #[serde(flatten)]
    pub line: ScenarioLine,
}

impl From<LineRevision> for LineView {
    fn from(LineRevision { revision, line_id, name, line }: LineRevision) -> Self {
        Self { id: line_id, revision, name, line }
    }
}

/// The lines of the plant as they are now, by name
#[utoipa::path(get, path = "/api/v1/lines", security(("session" = ["read"])), tag = "line",
    responses((status = 200, body = Vec<LineView>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn lines(State(app): State<App>) -> Result<Json<Vec<LineView>>> {
    Ok(Json(app.store.lines().await?.into_iter().map(Into::into).collect()))
}

/// Every revision of a line, newest first
#[utoipa::path(get, path = "/api/v1/lines/{line_id}/revisions", security(("session" = ["read"])), tag = "line", params(("line_id" = Uuid, Path)),
    responses((status = 200, body = Vec<Revision>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn revisions(
    State(app): State<App>,
    Path(line_id): Path<Uuid>,
) -> Result<Json<Vec<Revision>>> {
    Ok(Json(app.store.line_revisions(line_id).await?))
}

/// The kinds of mixers the house knows, with what is usual of each
#[utoipa::path(get, path = "/api/v1/mixer-kinds", security(("session" = ["read"])), tag = "line",
    responses((status = 200, body = Vec<MixerKind>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn mixer_kinds() -> Json<Vec<MixerKind>> {
    Json(MIXER_KINDS.into())
}

/// Lines to begin from, with what is usual of such a place
#[utoipa::path(get, path = "/api/v1/line-templates", security(("session" = ["read"])), tag = "line",
    responses((status = 200, body = Vec<LineTemplate>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn templates() -> Json<Vec<LineTemplate>> {
    Json(line_templates())
}

/// A line's next state, as it was typed.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct LineSaved {
    /// The number after the revision that was looked at.
    number: i32,
    /// Of a line that is made: what it is called, up to 80 letters.
    #[serde(default)]
    name: Option<String>,
    #[serde(flatten)]
    draft: LineDraft,
    signed: SignedInput,
}

/// Records a line, or its next state; sent twice, it is stored once
#[utoipa::path(put, path = "/api/v1/lines/{line_id}/revisions/{revision_id}", security(("session" = ["change"])), tag = "line",
    params(("line_id" = Uuid, Path), ("revision_id" = Uuid, Path)), request_body = LineSaved,
    responses((status = 200, body = LineView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn save(
    State(app): State<App>,
    Path((line_id, revision_id)): Path<(Uuid, Uuid)>,
    Recorded { input, write }: Recorded<LineSaved>,
) -> Result<Json<LineView>> {
    let records = write.of(&app, revision_id);
    if records.was_written().await? {
        return Ok(Json(app.store.line(revision_id).await?.into()));
    }
    let lines = app.store.lines().await?;
    let was = lines.iter().find(|line| line.line_id == line_id);
    let mut faults = ValidationErrors::default();
    let name = match (was, &input.name) {
        (Some(was), _) => was.name.clone(),
        (None, Some(name)) => new_name(name, &lines, &mut faults),
        (None, None) => return Err(StoreError::NotFound("this line").into()),
    };
    let line = input.draft.over(was.map(|was| &was.line), "", &mut faults);
    let signed = input.signed.check(&write.author, was.is_some(), &mut faults);
    faults.or(())?;
    let number = input.number;
    records.add_line(&NewLine { line_id, name, revision_id, number, line, signed }).await?;
    Ok(Json(app.store.line(revision_id).await?.into()))
}

/// What a new line is called, if no other is.
fn new_name(name: &str, lines: &[LineRevision], faults: &mut ValidationErrors) -> String {
    let name = name.trim();
    if name.is_empty() || name.chars().count() > MOST_LETTERS {
        faults.push("name", format!("the line needs a name, up to {MOST_LETTERS} letters"));
    }
    if lines.iter().any(|line| line.name == name) {
        faults.push("name", format!("there is a line {name} already"));
    }
    name.into()
}
