//! Flours, certificates and lots.

mod certificate;
mod file;
mod lots;

use axum::Json;
use axum::extract::State;
use ironpeel_core::water::Species;
use ironpeel_store::Flour;
use serde::Serialize;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::problem::Result;
use crate::state::App;

pub use certificate::Certificate;
pub use file::CertificateFile;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(flours)).merge(certificate::routes()).merge(lots::routes())
}

/// A flour a mill sells.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct FlourView {
    pub id: Uuid,
    pub mill: String,
    pub name: String,
    pub species: Species,
    pub note: String,
}

impl From<Flour> for FlourView {
    fn from(Flour { id, mill, name, species, note }: Flour) -> Self {
        Self { id, mill, name, species, note }
    }
}

/// Every flour
#[utoipa::path(get, path = "/api/v1/flours", tag = "flour", responses((status = 200, body = Vec<FlourView>)))]
async fn flours(State(app): State<App>) -> Result<Json<Vec<FlourView>>> {
    let flours = app.store.flours().await?;
    Ok(Json(flours.into_iter().map(Into::into).collect()))
}
