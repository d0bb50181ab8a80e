//! Batches as a list, and one as it was issued.

use axum::extract::State;
use chrono::{DateTime, Utc};
use ironpeel_core::batch::BatchState;
use ironpeel_core::units::timestamp;
use ironpeel_store::{BatchFilter, BatchSummary, Word};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use super::view::{BatchView, batch_view};
use crate::page::{Cursor, PAGE, PageQuery, paginate};
use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Query};
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(batches)).routes(routes!(batch))
}

/// A page of batches, newest planned first.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct BatchPage {
    pub batches: Vec<BatchSummary>,
    /// Where the next page begins; none on the last.
    pub next: Option<Cursor>,
}

/// Which batches are wanted; all where nothing is said.
#[derive(Debug, Clone, Default, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct BatchQuery {
    /// By its word in addresses.
    pub product: Option<String>,
    pub line: Option<Uuid>,
    /// By its code, whichever flour's it is.
    pub lot: Option<String>,
    /// One or several, with commas between: planned, running, held, finished, scrapped.
    pub state: Option<String>,
    /// Who recorded something on it.
    pub person: Option<Uuid>,
    /// Planned from then on.
    #[serde(default, deserialize_with = "timestamp::maybe")]
    pub from: Option<DateTime<Utc>>,
    /// Planned before then.
    #[serde(default, deserialize_with = "timestamp::maybe")]
    pub to: Option<DateTime<Utc>>,
    /// Part of the name of product, lot, flour or line.
    pub search: Option<String>,
    /// Judged below this total, 0 to 100.
    pub score_below: Option<f64>,
    /// A fault by its key, whose cause somebody confirmed or rejected.
    pub fault: Option<String>,
}

impl BatchQuery {
    pub fn filter(self) -> Result<BatchFilter> {
        let words = self.state.iter().flat_map(|states| states.split(','));
        let words = words.map(str::trim).filter(|word| !word.is_empty());
        let states = words
            .map(|word| {
                Word::<BatchState>::named(word).ok_or_else(|| {
                    let message = "a state is planned, running, held, finished or scrapped";
                    Problem::field("state", message)
                })
            })
            .collect::<Result<_>>()?;
        let said = |text: Option<String>| text.filter(|text| !text.trim().is_empty());
        Ok(BatchFilter {
            product: said(self.product),
            line_id: self.line,
            lot: said(self.lot),
            states,
            person_id: self.person,
            from: self.from,
            to: self.to,
            text: said(self.search),
            score_below: self.score_below,
            fault: said(self.fault),
        })
    }
}

/// Batches, newest planned first
#[utoipa::path(get, path = "/api/v1/batches", security(("session" = ["read"])), tag = "batch", params(BatchQuery, PageQuery),
    responses((status = 200, body = BatchPage), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn batches(
    State(app): State<App>,
    Query(asked): Query<BatchQuery>,
    Query(page): Query<PageQuery>,
) -> Result<Json<BatchPage>> {
    let mut found = app.store.batches(&asked.filter()?, page.key(), PAGE + 1).await?;
    let next = paginate(&mut found, |batch| (batch.planned_for, batch.id));
    Ok(Json(BatchPage { batches: found, next }))
}

/// A batch as it was issued
#[utoipa::path(get, path = "/api/v1/batches/{batch_id}", security(("session" = ["read"])), tag = "batch", params(("batch_id" = Uuid, Path)),
    responses((status = 200, body = BatchView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn batch(State(app): State<App>, Path(id): Path<Uuid>) -> Result<Json<BatchView>> {
    Ok(Json(batch_view(&app, id).await?))
}
