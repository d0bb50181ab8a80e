//! Learned numbers: offered with their history, taken over by a person, put back.

use axum::extract::State;
use chrono::{DateTime, Utc};
use ironpeel_core::batch::BatchState;
use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::learn::{
    LearnedSubject, Lesson, NotLearned, Offer, PlannedWater, WaterLesson, offer, water_lesson,
};
use ironpeel_core::units::{ValidationErrors, timestamp};
use ironpeel_store::{ChartBatch, LearnedKey, LearnedRevision, NewLearned, Product, Word};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Query, Recorded};
use crate::revision::SignedInput;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(learned)).routes(routes!(take_over))
}

/// Batches a number is learned from at most, the newest.
const MOST: i64 = 500;
/// A value that moved by more since somebody saw it is another.
const SAME: f64 = 0.005;

#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
struct LearnedQuery {
    /// By its word in addresses.
    product: String,
}

/// A learned number of a product on its line.
#[derive(Debug, Serialize, ToSchema)]
struct LearnedView {
    subject: LearnedSubject,
    label: &'static str,
    unit: &'static str,
    /// What it is learned for, in words.
    of: String,
    offer: Offer,
    /// As somebody took it over or put it back, newest first.
    revisions: Vec<LearnedRevision>,
    /// What counts now, where somebody took it over.
    in_use: Option<f64>,
    /// Whether it can be taken over here.
    can_be_taken: bool,
}

/// A learned number taken over, put back, or begun again.
#[derive(Debug, Deserialize, ToSchema)]
struct LearnedInput {
    subject: LearnedSubject,
    /// The product, by its word in addresses.
    product: String,
    /// The revision it becomes: one after the newest.
    number: i32,
    /// The value that was offered; left out, the number is put back.
    #[serde(default)]
    value: Option<f64>,
    /// Learned from batches after this alone; from all if left out.
    #[serde(default, deserialize_with = "timestamp::maybe")]
    begins_at: Option<DateTime<Utc>>,
    signed: SignedInput,
}

const fn words(subject: LearnedSubject) -> (&'static str, &'static str) {
    match subject {
        LearnedSubject::WaterCorrection => ("Water correction", "points"),
        LearnedSubject::Friction => ("Friction", "°C"),
        LearnedSubject::BakeLoss => ("Loss from dough to bread", "%"),
        LearnedSubject::Arrival => ("Arrival of the slowest core", "% of the bake"),
    }
}

fn key(subject: LearnedSubject, product: &Product) -> LearnedKey {
    LearnedKey {
        subject,
        product_id: product.id,
        line_id: product.line_id,
        flour_id: product.flour_id,
    }
}

/// What a batch told of a number.
fn lesson(
    subject: LearnedSubject,
    batch: &ChartBatch,
    measurement_sd: f64,
    coefficients: &Coefficients,
) -> Lesson {
    let Word(state) = batch.state;
    let finished = match state {
        BatchState::Finished => Ok(()),
        BatchState::Scrapped => Err(NotLearned::Scrapped),
        _ => Err(NotLearned::NotFinished),
    };
    let figures = &batch.figures;
    let measured = |value: Option<f64>| {
        finished.and_then(|()| {
            value.map(|value| (value, measurement_sd)).ok_or(NotLearned::NothingSaid)
        })
    };
    let told = match subject {
        LearnedSubject::WaterCorrection => match figures.water_pts {
            Some(over_plan_pts) => {
                let batch = WaterLesson {
                    state,
                    over_plan_pts,
                    by_feel_pts: figures.by_feel_pts.unwrap_or_default(),
                    complete: figures.water_complete,
                    consistency: figures.consistency,
                    standing_pts: batch.standing_pts,
                    damaged_starch_caution: batch.damaged_starch_caution,
                    planned_water: if batch.water_was_set {
                        PlannedWater::Set
                    } else {
                        PlannedWater::Computed
                    },
                    crumb_is_low: batch.seen.crumb_is_low,
                };
                water_lesson(&batch, coefficients)
            }
            None => Err(NotLearned::NothingSaid),
        },
        LearnedSubject::Friction => measured(figures.friction_c),
        LearnedSubject::BakeLoss => measured(figures.loss_pct),
        LearnedSubject::Arrival => measured(batch.seen.arrival_pct),
    };
    Lesson { batch: batch.id, at: batch.planned_for, told }
}

async fn offered(
    app: &App,
    product: &Product,
    subject: LearnedSubject,
    begins_at: Option<DateTime<Utc>>,
) -> Result<Offer> {
    let plant = app.parameters().await?;
    let formula = app.store.current_formula(product.formula_id).await?;
    let losses = formula.formula.losses;
    let settings = subject.settings(&plant.coefficients, 100.0 * (1.0 - losses.to_cooled()));
    let line = Some(product.line_id);
    let found = app.store.chart_batches(Some(product.id), line, begins_at, MOST).await?;
    let of_flour = found.iter().filter(|batch| batch.flour_id == product.flour_id);
    // What is not over yet has told nothing.
    let lessons: Vec<Lesson> = of_flour
        .map(|batch| lesson(subject, batch, settings.measurement_sd, &plant.coefficients))
        .filter(|lesson| lesson.told != Err(NotLearned::NotFinished))
        .collect();
    Ok(offer(settings, &lessons))
}

/// What batches taught of a product on its line
#[utoipa::path(get, path = "/api/v1/learned-numbers", security(("session" = ["read"])), tag = "results", params(LearnedQuery),
    responses((status = 200, body = Vec<LearnedView>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn learned(
    State(app): State<App>,
    Query(asked): Query<LearnedQuery>,
) -> Result<Json<Vec<LearnedView>>> {
    let product = app.store.product(&asked.product).await?;
    let mut views = Vec::new();
    for subject in LearnedSubject::ALL {
        let revisions = app.store.learned(key(subject, &product)).await?;
        let begins_at = revisions.first().and_then(|one| one.begins_at);
        let offer = offered(&app, &product, subject, begins_at).await?;
        let (label, unit) = words(subject);
        views.push(LearnedView {
            subject,
            label,
            unit,
            of: match subject {
                LearnedSubject::WaterCorrection => {
                    format!("{} in {} on {}", product.flour, product.name, product.line)
                }
                _ => format!("{} on {}", product.name, product.line),
            },
            offer,
            in_use: revisions.first().and_then(|one| one.value),
            revisions,
            can_be_taken: subject == LearnedSubject::WaterCorrection,
        });
    }
    Ok(Json(views))
}

/// Takes a learned number over, puts it back, or begins again; sent twice, it is stored once
#[utoipa::path(put, path = "/api/v1/learned-numbers/{id}", security(("session" = ["change"])), tag = "results", params(("id" = Uuid, Path)), request_body = LearnedInput,
    responses((status = 200, body = LearnedRevision), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn take_over(
    State(app): State<App>,
    Path(id): Path<Uuid>,
    Recorded { input, write }: Recorded<LearnedInput>,
) -> Result<Json<LearnedRevision>> {
    let records = write.of(&app, id);
    if !records.was_written().await? {
        let mut faults = ValidationErrors::default();
        let signed = input.signed.check(&write.author, true, &mut faults);
        faults.or(())?;
        let product = app.store.product(&input.product).await?;
        let offer = offered(&app, &product, input.subject, input.begins_at).await?;
        if let Some(value) = input.value
            && (value - offer.mean).abs() > SAME
        {
            let message = format!(
                "it is {:.2} by now, from batches that came meanwhile; look at it again",
                offer.mean
            );
            return Err(Problem::field("value", message));
        }
        let new = NewLearned {
            id,
            key: key(input.subject, &product),
            number: input.number,
            value: input.value.map(|_| offer.mean),
            sd: input.value.map(|_| offer.sd),
            batches: i32::try_from(offer.used).unwrap_or(i32::MAX),
            begins_at: input.begins_at,
            saved_by: signed.by,
            reason: signed.reason,
        };
        records.take_over(&new).await?;
    }
    Ok(Json(app.store.learned_revision(id).await?))
}
