//! Samples under codes: what a judge may know of them, and how they are set out.

use std::collections::HashSet;

use axum::extract::State;
use chrono::{DateTime, TimeDelta, Utc};
use ironpeel_core::units::{NumberRange, RawNumber, ValidationErrors};
use ironpeel_store::{NewSample, Sample, SamplePhotograph};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use super::standard::{SheetLine, sheet_lines};
use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Recorded};
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(set_out)).routes(routes!(sample))
}

/// A code is given out again after so many days.
const DAYS: i64 = 60;
/// Codes have three digits, none of them a nought in front.
const CODES: std::ops::Range<u128> = 100..1000;

const LOAVES: NumberRange = NumberRange::new("loaves", "loaves to judge", "", 1.0, 20.0);
const TWICE: NumberRange = NumberRange::new("twice", "loaves met twice", "", 0.0, 20.0);

/// Loaves of a dough to be set out for judging.
#[derive(Debug, Default, Deserialize, ToSchema)]
pub struct SamplesInput {
    /// 1 to 20.
    #[serde(default)]
    #[schema(value_type = f64)]
    loaves: RawNumber,
    /// So many of them under a second code, so that judges meet them twice without knowing; 0 if left
    /// out.
    #[serde(default)]
    #[schema(value_type = f64)]
    twice: RawNumber,
}

impl SamplesInput {
    /// The number of each loaf, those that are met twice once more.
    pub fn check(&self) -> Result<Vec<i16>> {
        let mut faults = ValidationErrors::default();
        let loaves = LOAVES.check(&self.loaves, "", &mut faults);
        let twice = TWICE.check_or(&self.twice, 0.0, "", &mut faults);
        if twice > loaves {
            faults.push("twice", "no more loaves are met twice than there are");
        }
        if loaves.fract() + twice.fract() != 0.0 {
            faults.push("loaves", "loaves are whole");
        }
        faults.or(())?;
        Ok((1..=loaves as i16).chain(1..=twice as i16).collect())
    }
}

/// A sheet to be filled in: what a judge may know of a sample.
#[derive(Debug, Serialize, ToSchema)]
struct BlankSheet {
    code: String,
    /// As it is called; which batch it is of is not said.
    product: String,
    lines: Vec<SheetLine>,
    photographs: Vec<SamplePhotograph>,
}

/// Sets loaves of a batch out under codes; sent twice, they are stored once
#[utoipa::path(put, path = "/api/v1/batches/{batch_id}/samples/{id}", security(("session" = ["record"])), tag = "judging",
    params(("batch_id" = Uuid, Path), ("id" = Uuid, Path)), request_body = SamplesInput,
    responses((status = 200, body = Vec<Sample>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn set_out(
    State(app): State<App>,
    Path((batch_id, id)): Path<(Uuid, Uuid)>,
    Recorded { input, write }: Recorded<SamplesInput>,
) -> Result<Json<Vec<Sample>>> {
    let records = write.of(&app, id);
    if !records.was_written().await? {
        let loaves = input.check()?;
        let planned = app.revisions.batch(batch_id).await?;
        let product = app.store.product(&planned.slug).await?;
        let stand = app.store.samples(batch_id).await?;
        let before = stand.iter().map(|sample| sample.loaf).max().unwrap_or(0);
        let mut codes = Codes::free(&app, id).await?;
        let samples = loaves.into_iter().map(|loaf| NewSample {
            batch_id: Some(batch_id),
            ..codes.sample(product.id, before.saturating_add(loaf), &write.author.name)
        });
        let samples: Vec<NewSample> = samples.collect();
        records.add_samples(&samples).await?;
    }
    Ok(Json(app.store.samples(batch_id).await?))
}

/// Codes that nobody can guess a dough from.
pub struct Codes {
    id: Uuid,
    made_at: DateTime<Utc>,
    taken: HashSet<String>,
    tried: u32,
}

impl Codes {
    /// Those not given out lately, drawn by the id of what is set out.
    pub async fn free(app: &App, id: Uuid) -> Result<Self> {
        let made_at = Utc::now();
        let taken = app.store.codes_since(made_at - TimeDelta::days(DAYS)).await?;
        Ok(Self { id, made_at, taken: taken.into_iter().collect(), tried: 0 })
    }

    /// A loaf under the next code; of which dough is left to be said.
    pub fn sample(&mut self, product_id: Uuid, loaf: i16, made_by: &str) -> NewSample {
        let code = self.next();
        NewSample {
            id: Uuid::new_v5(&self.id, &self.tried.to_be_bytes()),
            product_id,
            batch_id: None,
            bench_dough_id: None,
            loaf,
            code,
            made_by: made_by.into(),
            made_at: self.made_at,
        }
    }

    /// The next code that is free; once all are given out, one that was.
    fn next(&mut self) -> String {
        loop {
            self.tried += 1;
            let drawn = Uuid::new_v5(&self.id, &self.tried.to_le_bytes()).as_u128();
            let code = (CODES.start + drawn % (CODES.end - CODES.start)).to_string();
            let full = self.taken.len() as u128 >= CODES.end - CODES.start;
            if self.taken.insert(code.clone()) || full {
                return code;
            }
        }
    }
}

/// What a judge may know of a sample, and the sheet for it
#[utoipa::path(get, path = "/api/v1/samples/{code}", security(("session" = ["read"])), tag = "judging", params(("code" = String, Path)),
    responses((status = 200, body = BlankSheet), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn sample(State(app): State<App>, Path(code): Path<String>) -> Result<Json<BlankSheet>> {
    let Sample { id, code, slug, product, .. } = app.store.coded_sample(&code).await?;
    let lines = sheet_lines(&app, &slug).await?;
    let photographs = app.store.photographs(&[id]).await?;
    Ok(Json(BlankSheet { code, product, lines, photographs }))
}
