//! Samples under codes: what a judge may know of them, and how they are set out.

use std::collections::HashSet;

use axum::extract::State;
use chrono::{TimeDelta, Utc};
use ironpeel_core::units::{NumberRange, RawNumber, ValidationErrors};
use ironpeel_store::{NewSample, Sample};
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

/// Loaves of a batch to be set out for judging.
#[derive(Debug, Default, Deserialize, ToSchema)]
struct SamplesInput {
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

/// A sheet to be filled in: what a judge may know of a sample.
#[derive(Debug, Serialize, ToSchema)]
struct BlankSheet {
    code: String,
    /// As it is called; which batch it is of is not said.
    product: String,
    lines: Vec<SheetLine>,
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
        let mut faults = ValidationErrors::default();
        let loaves = LOAVES.check(&input.loaves, "", &mut faults);
        let twice = TWICE.check_or(&input.twice, 0.0, "", &mut faults);
        if twice > loaves {
            faults.push("twice", "no more loaves are met twice than there are");
        }
        if loaves.fract() + twice.fract() != 0.0 {
            faults.push("loaves", "loaves are whole");
        }
        faults.or(())?;
        let stand = app.store.samples(batch_id).await?;
        let before = stand.iter().map(|sample| sample.loaf).max().unwrap_or(0);
        let made_at = Utc::now();
        let taken = app.store.codes_since(made_at - TimeDelta::days(DAYS)).await?;
        let mut codes = Codes { id, taken: taken.into_iter().collect(), tried: 0 };
        let all = (1..=loaves as i16).chain(1..=twice as i16);
        let samples: Vec<NewSample> = all
            .map(|loaf| before.saturating_add(loaf))
            .enumerate()
            .map(|(at, loaf)| NewSample {
                id: Uuid::new_v5(&id, &at.to_be_bytes()),
                batch_id,
                loaf,
                code: codes.next(),
                made_by: write.author.name.clone(),
                made_at,
            })
            .collect();
        records.add_samples(&samples).await?;
    }
    Ok(Json(app.store.samples(batch_id).await?))
}

/// Codes that nobody can guess a batch from.
struct Codes {
    id: Uuid,
    taken: HashSet<String>,
    tried: u32,
}

impl Codes {
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
    let Sample { code, slug, product, .. } = app.store.coded_sample(&code).await?;
    let lines = sheet_lines(&app, &slug).await?;
    Ok(Json(BlankSheet { code, product, lines }))
}
