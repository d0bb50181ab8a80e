//! What judges say: a sheet each, and all of a batch together.

use axum::extract::State;
use chrono::Utc;
use ironpeel_core::judging::{Panel, ScoreInput, ScoreMarkInput};
use ironpeel_core::units::ValidationErrors;
use ironpeel_store::{NewScore, Sample, SamplePhotograph, Score};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use super::panel::{JudgedBy, seen_by_judges};
use super::photograph::photographs_of;
use super::standard::{SheetLine, sheet_lines};
use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Recorded};
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(record)).routes(routes!(scores))
}

const MOST_NOTE: usize = 400;

/// What a judge says of a sample.
#[derive(Debug, Deserialize, ToSchema)]
struct SheetInput {
    /// The sample's.
    code: String,
    /// 1, or 2 where the judges disagreed and look once more; 1 if left out.
    #[serde(default)]
    round: Option<i16>,
    #[serde(default)]
    marks: Vec<ScoreMarkInput>,
    #[serde(default)]
    note: String,
}

/// A batch's samples and sheets, and what the judges say together.
#[derive(Debug, Serialize, ToSchema)]
struct ScoresView {
    product: String,
    slug: String,
    lines: Vec<SheetLine>,
    samples: Vec<Sample>,
    /// The newest of each view.
    photographs: Vec<SamplePhotograph>,
    /// In order; the first marks stay.
    scores: Vec<Score>,
    /// None where nobody judged.
    panel: Option<Panel>,
}

/// Records a judge's sheet; sent twice, it is stored once
#[utoipa::path(put, path = "/api/v1/scores/{score_id}", security(("session" = ["record"])), tag = "judging", params(("score_id" = Uuid, Path)), request_body = SheetInput,
    responses((status = 200, body = Score), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn record(
    State(app): State<App>,
    Path(id): Path<Uuid>,
    Recorded { input, write }: Recorded<SheetInput>,
) -> Result<Json<Score>> {
    let sample = app.store.coded_sample(&input.code).await?;
    let batch_id = sample.batch_id;
    let records = write.of(&app, id);
    if !records.was_written().await? {
        let mut faults = ValidationErrors::default();
        let round = input.round.unwrap_or(1);
        if !(1..=2).contains(&round) {
            faults.push("round", "a sample is looked at once, or once more");
        }
        if input.note.chars().count() > MOST_NOTE {
            faults.push("note", format!("a note: up to {MOST_NOTE} letters"));
        }
        let product = app.store.product(&sample.slug).await?;
        let by = JudgedBy::load(&app, product.id, batch_id).await?;
        let asked = ScoreInput { marks: input.marks };
        let marks = asked.check(&by.standard, &by.coefficients).unwrap_or_else(|more| {
            faults.0.extend(more.0);
            Vec::new()
        });
        faults.or(())?;
        let stand = app.store.scores_of_sample(sample.id).await?;
        let judge = write.author.name.clone();
        let first = stand.iter().any(|one| one.judge == judge && one.round == 1);
        if round == 2 && !first {
            return Err(Problem::field("round", "there is nothing to look at once more yet"));
        }
        let new = NewScore {
            id,
            sample_id: sample.id,
            round,
            judge,
            person_id: write.author.person_id,
            note: input.note.trim().into(),
            scored_at: Utc::now(),
            marks,
        };
        records
            .add_score(batch_id, &new, |all, before| seen_by_judges(by.panel(all).as_ref(), before))
            .await?;
    }
    let stored = app.store.scores_of_sample(sample.id).await?.into_iter().find(|one| one.id == id);
    stored.map(Json).ok_or_else(|| Problem::fault("a sheet that was stored is there"))
}

/// What judges said of a batch
#[utoipa::path(get, path = "/api/v1/batches/{batch_id}/scores", security(("session" = ["read"])), tag = "judging", params(("batch_id" = Uuid, Path)),
    responses((status = 200, body = ScoresView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn scores(State(app): State<App>, Path(id): Path<Uuid>) -> Result<Json<ScoresView>> {
    let planned = app.revisions.batch(id).await?;
    let product = app.store.product(&planned.slug).await?;
    let scores = app.store.scores(id).await?;
    let samples = app.store.samples(id).await?;
    Ok(Json(ScoresView {
        lines: sheet_lines(&app, &planned.slug).await?,
        photographs: photographs_of(&app, &samples).await?,
        samples,
        panel: JudgedBy::load(&app, product.id, Some(id)).await?.panel(&scores),
        scores,
        product: product.name,
        slug: product.slug,
    }))
}
