//! The properties a laboratory measures, for whoever asks for one.

use ironpeel_core::flour::{MoistureBasis, Property, usual_basis};
use serde::Serialize;
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::request::Json;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(properties))
}

/// A property a laboratory measures on flour.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct PropertyView {
    property: Property,
    label: &'static str,
    /// Empty for a bare ratio.
    unit: &'static str,
    /// The bases it can be stated on; none where it has no basis.
    bases: &'static [MoistureBasis],
    /// The one it is judged and compared on.
    basis: Option<MoistureBasis>,
    /// A laboratory reads it; a lot's age is counted from its dates.
    is_read: bool,
}

/// Every property, in the order a certificate lists them
#[utoipa::path(get, path = "/api/v1/properties", security(("session" = ["read"])), tag = "flour",
    responses((status = 200, body = Vec<PropertyView>)))]
async fn properties() -> Json<Vec<PropertyView>> {
    let view = |property: Property| PropertyView {
        property,
        label: property.label(),
        unit: property.unit(),
        bases: property.bases(),
        basis: usual_basis(property),
        is_read: property != Property::Age,
    };
    Json(Property::ALL.map(view).to_vec())
}
