use axum::extract::State;
use axum::response::IntoResponse;
use ironpeel_core::flour::{
    IntendedUse, Limit, MoistureBasis, Property, Readings, Revised, SuggestedLimit, revised,
    suggest_limits,
};
use ironpeel_core::units::{RawNumber, ValidationErrors};
use ironpeel_store::{Revision, SpecificationRevision};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::download::{CSV, attachment, csv_of};
use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Query, Recorded};
use crate::revision::SignedInput;
use crate::state::App;

/// Past lots a proposal is made from.
const HISTORY: i64 = 200;
/// Longest method name kept.
const METHOD_MAX: usize = 80;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(revisions))
        .routes(routes!(specification))
        .routes(routes!(export))
        .routes(routes!(compare))
        .routes(routes!(suggestions))
        .routes(routes!(save))
}

/// One state of what the plant wants of a flour.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct SpecificationView {
    pub revision: Revision,
    pub flour_id: Uuid,
    pub limits: Vec<LimitView>,
}

/// A limit with the words for its property.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct LimitView {
    #[serde(flatten)]
    pub limit: Limit,
    pub label: &'static str,
    pub unit: &'static str,
}

impl From<SpecificationRevision> for SpecificationView {
    fn from(found: SpecificationRevision) -> Self {
        let limits = found.limits.into_iter().map(|limit| LimitView {
            label: limit.property.label(),
            unit: limit.property.unit(),
            limit,
        });
        Self { revision: found.revision, flour_id: found.flour_id, limits: limits.collect() }
    }
}

/// A limit as it was typed; numbers in the property's own unit.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct LimitInput {
    pub property: Property,
    pub basis: Option<MoistureBasis>,
    #[serde(default)]
    pub min: RawNumber,
    #[serde(default)]
    pub target: RawNumber,
    #[serde(default)]
    pub max: RawNumber,
    #[serde(default)]
    pub must: bool,
    #[serde(default)]
    pub method: Option<String>,
}

/// A specification's next state, as it was typed.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct SpecificationInput {
    /// The number after the revision that was looked at.
    pub number: i32,
    pub limits: Vec<LimitInput>,
    pub signed: SignedInput,
}

/// Two revisions to compare.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
struct Against {
    /// The earlier revision.
    before: Uuid,
}

/// What limits are to be proposed from.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
struct SuggestFrom {
    /// The flour's own if left out.
    intended_use: Option<IntendedUse>,
    /// Standard deviations to a limit; 2 if left out.
    k: Option<f64>,
}

/// Every revision of a flour's specification, newest first
#[utoipa::path(get, path = "/api/v1/flours/{flour_id}/specifications", security(("session" = ["read"])), tag = "flour", params(("flour_id" = Uuid, Path)),
    responses((status = 200, body = Vec<Revision>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn revisions(State(app): State<App>, Path(id): Path<Uuid>) -> Result<Json<Vec<Revision>>> {
    let found = app.store.specification_revisions(id).await?;
    Ok(Json(found))
}

/// One revision of a specification
#[utoipa::path(get, path = "/api/v1/specifications/{revision_id}", security(("session" = ["read"])), tag = "flour", params(("revision_id" = Uuid, Path)),
    responses((status = 200, body = SpecificationView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn specification(
    State(app): State<App>,
    Path(id): Path<Uuid>,
) -> Result<Json<SpecificationView>> {
    Ok(Json(app.store.specification(id).await?.into()))
}

/// One revision of a specification as CSV, to send to a mill
#[utoipa::path(get, path = "/api/v1/specifications/{revision_id}/csv", security(("session" = ["read"])), tag = "flour", params(("revision_id" = Uuid, Path)),
    responses((status = 200, body = String, content_type = "text/csv"), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn export(State(app): State<App>, Path(id): Path<Uuid>) -> Result<impl IntoResponse> {
    let found = app.store.specification(id).await?;
    let flour = app.store.flour(found.flour_id).await?;
    let number = |value: Option<f64>| value.map(|value| value.to_string()).unwrap_or_default();
    let head =
        ["property", "min", "target", "max", "unit", "basis", "must", "method"].map(str::to_owned);
    let rows = found.limits.iter().map(|limit| {
        [
            limit.property.label().to_owned(),
            number(limit.min),
            number(limit.target),
            number(limit.max),
            limit.property.unit().to_owned(),
            limit.basis.map(|basis| basis.label().to_owned()).unwrap_or_default(),
            if limit.must { "must" } else { "should" }.to_owned(),
            limit.method.clone().unwrap_or_default(),
        ]
    });
    let title = format!("{} specification {}", flour.name, found.revision.number);
    Ok(attachment(&title, "csv", CSV, csv_of(std::iter::once(head).chain(rows))))
}

/// What differs between two revisions of a specification
#[utoipa::path(get, path = "/api/v1/specifications/{revision_id}/compare", security(("session" = ["read"])), tag = "flour", params(("revision_id" = Uuid, Path), Against),
    responses((status = 200, body = Vec<Revised>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn compare(
    State(app): State<App>,
    Path(id): Path<Uuid>,
    Query(against): Query<Against>,
) -> Result<Json<Vec<Revised>>> {
    let before = app.revisions.specification(against.before).await?;
    let after = app.revisions.specification(id).await?;
    Ok(Json(revised(&before.limits, &after.limits)))
}

/// Limits to consider, from the use and from past lots
#[utoipa::path(get, path = "/api/v1/flours/{flour_id}/specifications/suggestions", security(("session" = ["read"])), tag = "flour", params(("flour_id" = Uuid, Path), SuggestFrom),
    responses((status = 200, body = Vec<SuggestedLimit>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn suggestions(
    State(app): State<App>,
    Path(id): Path<Uuid>,
    Query(from): Query<SuggestFrom>,
) -> Result<Json<Vec<SuggestedLimit>>> {
    let k = from.k.unwrap_or(2.0);
    if !(0.5..=6.0).contains(&k) {
        return Err(Problem::field("k", "standard deviations to a limit are from 0.5 to 6"));
    }
    let flour = app.store.flour(id).await?;
    let lots = app.store.lots(Some(id), None, HISTORY).await?;
    let history: Vec<Readings> = lots.into_iter().map(|lot| lot.current.judged()).collect();
    let plant = app.parameters().await?;
    let intended = from.intended_use.unwrap_or(flour.intended_use);
    Ok(Json(suggest_limits(intended, &history, k, &plant.coefficients)))
}

/// Records a specification's next state; sent twice, it is stored once
#[utoipa::path(put, path = "/api/v1/flours/{flour_id}/specifications/{revision_id}", security(("session" = ["change"])), tag = "flour",
    params(("flour_id" = Uuid, Path), ("revision_id" = Uuid, Path)), request_body = SpecificationInput,
    responses((status = 200, body = SpecificationView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn save(
    State(app): State<App>,
    Path((flour_id, id)): Path<(Uuid, Uuid)>,
    Recorded { input, write }: Recorded<SpecificationInput>,
) -> Result<Json<SpecificationView>> {
    app.store.flour(flour_id).await?;
    let mut faults = ValidationErrors::default();
    if input.number < 1 {
        faults.push("number", "revisions count from 1");
    }
    if input.limits.is_empty() {
        faults.push("limits", "a specification asks for something: at least one property");
    }
    let mut limits: Vec<Limit> = Vec::with_capacity(input.limits.len());
    for (at, limit) in input.limits.into_iter().enumerate() {
        let limit = limit.check(&format!("limits[{at}]"), &mut faults);
        if limits.iter().any(|earlier| earlier.property == limit.property) {
            let message = format!("{} stands twice; keep one", limit.property.label());
            faults.push(format!("limits[{at}]"), message);
        }
        limits.push(limit);
    }
    let signed = input.signed.check(&write.author, input.number > 1, &mut faults);
    faults.or(())?;
    write.of(&app, id).add_specification(flour_id, id, input.number, &limits, &signed).await?;
    Ok(Json(app.store.specification(id).await?.into()))
}

impl LimitInput {
    fn check(self, at: &str, faults: &mut ValidationErrors) -> Limit {
        let (low, high) = self.property.range();
        let label = self.property.label();
        let mut number = |field: &str, given: &RawNumber| match given {
            RawNumber::Missing => None,
            RawNumber::Number(value) if (low..=high).contains(value) => Some(*value),
            other => {
                let unit = self.property.unit();
                let message =
                    format!("{label}: {field} is from {low} to {high} {unit}; {other} was given");
                faults.push(format!("{at}.{field}"), message);
                None
            }
        };
        let (min, target, max) =
            (number("min", &self.min), number("target", &self.target), number("max", &self.max));
        let method = self.method.as_deref().unwrap_or_default().trim();
        let limit = Limit {
            property: self.property,
            basis: self.basis,
            min,
            target,
            max,
            must: self.must,
            method: (!method.is_empty()).then(|| method.chars().take(METHOD_MAX).collect()),
        };
        if let Err(fault) = limit.check() {
            faults.push(at, fault.to_string());
        }
        limit
    }
}
