//! Flours, specifications, certificates and lots.

mod bag;
mod blend;
mod certificate;
mod correction;
mod date;
mod disposition;
mod export;
mod file;
mod history;
mod import;
mod lots;
mod pdf;
mod properties;
mod report;
mod specification;
mod spreadsheet;

use std::collections::HashMap;

use axum::extract::State;
use ironpeel_core::dough::AllergenStatement;
use ironpeel_core::flour::{Hardness, IntendedUse, Species, Treatment};
use ironpeel_core::units::{NumberRange, RawNumber, ValidationErrors};
use ironpeel_store::{Flour, FlourRevision, Mill, Revision};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Recorded};
use crate::revision::SignedInput;
use crate::state::App;

pub use certificate::Certificate;
pub use disposition::LotAssessment;
pub use file::CertificateFile;
pub use lots::{LotPage, LotView, lot_page, lot_view};

const NAME_MAX: usize = 80;
const NOTE_MAX: usize = 400;
const EXTRACTION: NumberRange =
    NumberRange::new("extraction_pct", "extraction", "% of the grain", 30.0, 100.0);

const PRICE: NumberRange = NumberRange::new("price_per_t", "price of a tonne", "", 0.0, 100_000.0);

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(flours))
        .routes(routes!(mills))
        .routes(routes!(flour))
        .routes(routes!(earlier_names))
        .routes(routes!(revisions))
        .routes(routes!(save))
        .merge(certificate::routes())
        .merge(lots::routes())
        .merge(disposition::routes())
        .merge(specification::routes())
        .merge(history::routes())
        .merge(import::routes())
        .merge(export::routes())
        .merge(bag::routes())
        .merge(blend::routes())
        .merge(correction::routes())
        .merge(properties::routes())
        .merge(report::routes())
}

/// A flour a mill sells, or a blend of the plant's own.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct FlourView {
    pub id: Uuid,
    pub mill: String,
    pub name: String,
    pub species: Species,
    pub species_label: &'static str,
    pub note: String,
    pub hardness: Option<Hardness>,
    /// Flour got from 100 of grain; 100 is whole grain.
    pub extraction_pct: Option<f64>,
    pub treatment: Treatment,
    pub intended_use: IntendedUse,
    /// What a tonne costs.
    pub price_per_t: Option<f64>,
    /// None until somebody stated them.
    pub allergens: Option<AllergenStatement>,
}

impl From<Flour> for FlourView {
    fn from(flour: Flour) -> Self {
        let Flour {
            id,
            mill,
            name,
            species,
            note,
            hardness,
            extraction_pct,
            treatment,
            intended_use,
            price_per_t,
            allergens,
        } = flour;
        let species_label = species.label();
        Self {
            id,
            mill,
            name,
            species,
            species_label,
            note,
            hardness,
            extraction_pct,
            treatment,
            intended_use,
            price_per_t,
            allergens,
        }
    }
}

/// One state of what a flour is.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct FlourRevisionView {
    pub revision: Revision,
    pub flour: FlourView,
}

impl From<FlourRevision> for FlourRevisionView {
    fn from(FlourRevision { revision, flour }: FlourRevision) -> Self {
        Self { revision, flour: flour.into() }
    }
}

/// A flour's next state, as it was typed.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct FlourInput {
    /// The number after the newest revision; 1 for a flour that is new.
    pub number: i32,
    #[serde(default)]
    pub mill: String,
    #[serde(default)]
    pub name: String,
    pub species: Species,
    #[serde(default)]
    pub note: String,
    pub hardness: Option<Hardness>,
    /// 30 to 100 % of the grain; may be left out.
    #[serde(default)]
    pub extraction_pct: RawNumber,
    pub treatment: Treatment,
    pub intended_use: IntendedUse,
    /// 0 to 100 000 for a tonne; may be left out.
    #[serde(default)]
    pub price_per_t: RawNumber,
    /// What its mill states; unknown if left out.
    #[serde(default)]
    pub allergens: Option<AllergenStatement>,
    /// Who records it, and why where it was on record.
    #[serde(default)]
    pub signed: SignedInput,
}

/// The mills the plant has flours of, by name
#[utoipa::path(get, path = "/api/v1/mills", security(("session" = ["read"])), tag = "flour",
    responses((status = 200, body = Vec<Mill>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn mills(State(app): State<App>) -> Result<Json<Vec<Mill>>> {
    Ok(Json(app.store.mills().await?))
}

/// Every flour
#[utoipa::path(get, path = "/api/v1/flours", security(("session" = ["read"])), tag = "flour",
    responses((status = 200, body = Vec<FlourView>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn flours(State(app): State<App>) -> Result<Json<Vec<FlourView>>> {
    flour_views(&app).await.map(Json)
}

/// Every flour.
pub async fn flour_views(app: &App) -> Result<Vec<FlourView>> {
    Ok(app.store.flours().await?.into_iter().map(Into::into).collect())
}

/// One flour
#[utoipa::path(get, path = "/api/v1/flours/{flour_id}", security(("session" = ["read"])), tag = "flour", params(("flour_id" = Uuid, Path)),
    responses((status = 200, body = FlourView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn flour(State(app): State<App>, Path(id): Path<Uuid>) -> Result<Json<FlourView>> {
    Ok(Json(app.store.flour(id).await?.into()))
}

/// Names flours had before, each with what its flour is called now
#[utoipa::path(get, path = "/api/v1/flour-names", security(("session" = ["read"])), tag = "flour",
    responses((status = 200, body = HashMap<String, String>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn earlier_names(State(app): State<App>) -> Result<Json<HashMap<String, String>>> {
    Ok(Json(app.store.earlier_flour_names().await?))
}

/// What a flour was and is, newest first
#[utoipa::path(get, path = "/api/v1/flours/{flour_id}/revisions", security(("session" = ["read"])), tag = "flour", params(("flour_id" = Uuid, Path)),
    responses((status = 200, body = Vec<FlourRevisionView>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn revisions(
    State(app): State<App>,
    Path(id): Path<Uuid>,
) -> Result<Json<Vec<FlourRevisionView>>> {
    app.store.flour(id).await?;
    Ok(Json(app.store.flour_revisions(id).await?.into_iter().map(Into::into).collect()))
}

/// Records a flour's next state; sent twice, it is stored once
#[utoipa::path(put, path = "/api/v1/flours/{flour_id}/revisions/{revision_id}", security(("session" = ["change"])), tag = "flour",
    params(("flour_id" = Uuid, Path), ("revision_id" = Uuid, Path)), request_body = FlourInput,
    responses((status = 200, body = FlourRevisionView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn save(
    State(app): State<App>,
    Path((id, revision_id)): Path<(Uuid, Uuid)>,
    Recorded { input, write }: Recorded<FlourInput>,
) -> Result<Json<FlourRevisionView>> {
    let mut faults = ValidationErrors::default();
    if input.number < 1 {
        faults.push("number", "revisions count from 1");
    }
    let mut text = |field: &str, text: &str, most: usize, needed: Option<&str>| {
        let text = text.trim();
        if text.chars().count() > most {
            faults.push(field, format!("up to {most} letters"));
        }
        if let (true, Some(needed)) = (text.is_empty(), needed) {
            faults.push(field, needed);
        }
        text.to_owned()
    };
    let mill = text("mill", &input.mill, NAME_MAX, Some("which mill is it from?"));
    let name = text("name", &input.name, NAME_MAX, Some("the flour needs a name"));
    let note = text("note", &input.note, NOTE_MAX, None);
    let extraction_pct = EXTRACTION.check_opt(&input.extraction_pct, "", &mut faults);
    let price_per_t = PRICE.check_opt(&input.price_per_t, "", &mut faults);
    let signed = input.signed.check(&write.author, input.number > 1, &mut faults);
    faults.or(())?;
    let FlourInput { number, species, hardness, treatment, intended_use, allergens, .. } = input;
    let flour = Flour {
        id,
        mill,
        name,
        species,
        note,
        hardness,
        extraction_pct,
        treatment,
        intended_use,
        price_per_t,
        allergens: allergens.map(AllergenStatement::tidy),
    };
    write.of(&app, revision_id).add_flour(&flour, revision_id, number, &signed).await?;
    app.revisions.forget_flour(id).await;
    Ok(Json(app.store.flour_revision(revision_id).await?.into()))
}
