//! A trial judged: its doughs' loaves under codes, and whether their differences are real.

use std::collections::HashMap;

use axum::extract::State;
use ironpeel_core::judging::{TrialVerdict, VariantSheets, variants};
use ironpeel_store::{BenchDough, NewSample, Sample, SamplePhotograph, Score, Trial, TrialKept};
use serde::Serialize;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use super::panel::JudgedBy;
use super::photograph::photographs_of;
use super::samples::{Codes, SamplesInput};
use super::standard::{SheetLine, sheet_lines};
use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Recorded};
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(set_out)).routes(routes!(scores))
}

/// A trial's samples and sheets, and what they say of its variants.
#[derive(Debug, Serialize, ToSchema)]
struct TrialScores {
    lines: Vec<SheetLine>,
    doughs: Vec<BenchDough>,
    samples: Vec<Sample>,
    /// The newest of each view.
    photographs: Vec<SamplePhotograph>,
    /// In order; the first marks stay.
    scores: Vec<Score>,
    verdict: TrialVerdict,
    /// Newest first.
    kept: Vec<TrialKept>,
}

/// How many doughs a trial was set out with.
fn variants_of(trial: &Trial) -> usize {
    trial.issued["variants"].as_array().map_or(0, Vec::len)
}

/// Sets a bake of a trial out: loaves of each of its doughs under codes; sent twice, it is stored once
#[utoipa::path(put, path = "/api/v1/trials/{trial_id}/bakes/{id}", security(("session" = ["record"])), tag = "judging",
    params(("trial_id" = Uuid, Path), ("id" = Uuid, Path)), request_body = SamplesInput,
    responses((status = 200, body = TrialScores), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn set_out(
    State(app): State<App>,
    Path((trial_id, id)): Path<(Uuid, Uuid)>,
    Recorded { input, write }: Recorded<SamplesInput>,
) -> Result<Json<TrialScores>> {
    let records = write.of(&app, id);
    if !records.was_written().await? {
        let loaves = input.check()?;
        let trial = app.store.trial(trial_id).await?;
        let product = app.store.product(&trial.slug).await?;
        let stand = app.store.bench_doughs(trial_id).await?;
        let bake = stand.last().map_or(0, |dough| dough.bake).saturating_add(1);
        let doughs = (0i16..).take(variants_of(&trial)).map(|variant| BenchDough {
            id: Uuid::new_v5(&id, &variant.to_be_bytes()),
            trial_id,
            bake,
            variant,
        });
        let doughs: Vec<BenchDough> = doughs.collect();
        let mut codes = Codes::free(&app, id).await?;
        let mut samples: Vec<NewSample> = Vec::new();
        for dough in &doughs {
            samples.extend(loaves.iter().map(|loaf| NewSample {
                bench_dough_id: Some(dough.id),
                ..codes.sample(product.id, *loaf, &write.author.name)
            }));
        }
        records.add_bench_bake(&doughs, &samples).await?;
    }
    scores(State(app), Path(trial_id)).await
}

/// What judges said of a trial's doughs
#[utoipa::path(get, path = "/api/v1/trials/{trial_id}/scores", security(("session" = ["read"])), tag = "judging", params(("trial_id" = Uuid, Path)),
    responses((status = 200, body = TrialScores), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn scores(State(app): State<App>, Path(id): Path<Uuid>) -> Result<Json<TrialScores>> {
    let trial = app.store.trial(id).await?;
    let product = app.store.product(&trial.slug).await?;
    let by = JudgedBy::load(&app, product.id, None).await?;
    let doughs = app.store.bench_doughs(id).await?;
    let scores = app.store.trial_scores(id).await?;
    let samples = app.store.trial_samples(id).await?;
    let place: HashMap<Uuid, &BenchDough> = doughs.iter().map(|dough| (dough.id, dough)).collect();
    let mut of = vec![VariantSheets::default(); variants_of(&trial)];
    for score in &scores {
        let Some(dough) = place.get(&score.dough_id) else { continue };
        let Some(variant) = of.get_mut(dough.variant as usize) else { continue };
        variant.bakes.entry(dough.bake).or_default().push(score.sheet());
    }
    Ok(Json(TrialScores {
        lines: sheet_lines(&app, &trial.slug).await?,
        photographs: photographs_of(&app, &samples).await?,
        samples,
        verdict: variants(&of, &by.earlier, &by.standard, &by.coefficients),
        kept: app.store.kept_of_trial(id).await?,
        doughs,
        scores,
    }))
}
