//! Products with the newest state of what they are made by.

use axum::extract::State;
use ironpeel_core::learn::LearnedSubject;
use ironpeel_core::units::ValidationErrors;
use ironpeel_store::{Flour, LearnedKey, LearnedRevision, Product, Revision, Signed};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::dough::{FormulaView, template};
use crate::flour::FlourView;
use crate::method::{LineView, MethodView};
use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Recorded};
use crate::revision::SignedInput;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(products)).routes(routes!(product, create))
}

/// A product as lists show it.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct ProductRow {
    pub slug: String,
    pub name: String,
    pub flour_id: Uuid,
    pub flour: String,
    pub line: String,
    /// Several products may be made by one.
    pub formula_id: Uuid,
    pub method_id: Uuid,
}

/// A product with the newest state of everything it is made by.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct ProductView {
    pub id: Uuid,
    pub slug: String,
    pub name: String,
    pub flour: FlourView,
    /// None where nothing is asked of it.
    pub specification: Option<Revision>,
    /// The other flours of its formula.
    pub other_flours: Vec<OtherFlourView>,
    pub formula: FormulaView,
    pub method: MethodView,
    pub line: LineView,
    /// The plant's own parameters; none where the house's hold.
    pub parameters: Option<Revision>,
    /// What batches taught of its water on its line; none where nobody took it over.
    pub water_correction: Option<LearnedRevision>,
}

/// Another flour of a formula.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct OtherFlourView {
    pub flour: FlourView,
    /// None where nothing is asked of it.
    pub specification: Option<Revision>,
}

/// A product to be made from a template.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct ProductInput {
    #[serde(default)]
    pub name: String,
    /// The template's word.
    pub template: String,
    /// A flour on record for each the template wants, the main one first.
    pub flours: Vec<Uuid>,
    pub line_id: Uuid,
    pub signed: SignedInput,
}

/// Every product
#[utoipa::path(get, path = "/api/v1/products", security(("session" = ["read"])), tag = "product",
    responses((status = 200, body = Vec<ProductRow>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn products(State(app): State<App>) -> Result<Json<Vec<ProductRow>>> {
    let row = |one: Product| ProductRow {
        slug: one.slug,
        name: one.name,
        flour_id: one.flour_id,
        flour: one.flour,
        line: one.line,
        formula_id: one.formula_id,
        method_id: one.method_id,
    };
    Ok(Json(app.store.products().await?.into_iter().map(row).collect()))
}

/// A product with the newest state of everything it is made by
#[utoipa::path(get, path = "/api/v1/products/{slug}", security(("session" = ["read"])), tag = "product", params(("slug" = String, Path)),
    responses((status = 200, body = ProductView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn product(State(app): State<App>, Path(slug): Path<String>) -> Result<Json<ProductView>> {
    product_view(&app, &slug).await.map(Json)
}

/// A product with the newest state of everything it is made by.
pub async fn product_view(app: &App, slug: &str) -> Result<ProductView> {
    let product = app.store.product(slug).await?;
    let method = app.store.current_method(product.method_id).await?;
    let line = app.store.current_line(product.line_id).await?;
    let own = app.store.current_parameters().await?;
    let (parameters, library) = match own {
        Some(own) => (Some(own.revision), own.parameters.library),
        None => Default::default(),
    };
    let formula = app.store.current_formula(product.formula_id).await?;
    let others = formula.formula.formula.flours().iter().skip(1);
    let others: Vec<&str> = others.map(|flour| &*flour.name).collect();
    let mut other_flours = Vec::with_capacity(others.len());
    if !others.is_empty() {
        let flours = app.store.flours().await?;
        for flour in flours.into_iter().filter(|flour| others.contains(&&*flour.name)) {
            let specification = app.specification_of(flour.id).await?.map(|one| one.revision);
            other_flours.push(OtherFlourView { flour: flour.into(), specification });
        }
    }
    Ok(ProductView {
        flour: app.store.flour(product.flour_id).await?.into(),
        specification: app.specification_of(product.flour_id).await?.map(|one| one.revision),
        other_flours,
        formula: FormulaView::of(&formula, &library),
        method: method.into(),
        line: line.into(),
        parameters,
        water_correction: app
            .store
            .current_learned(LearnedKey {
                subject: LearnedSubject::WaterCorrection,
                product_id: product.id,
                line_id: product.line_id,
                flour_id: product.flour_id,
            })
            .await?,
        id: product.id,
        slug: product.slug,
        name: product.name,
    })
}

/// Makes a product from a template; sent twice, it is stored once
#[utoipa::path(put, path = "/api/v1/products/{slug}", security(("session" = ["change"])), tag = "product", params(("slug" = String, Path)), request_body = ProductInput,
    responses((status = 200, body = ProductView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn create(
    State(app): State<App>,
    Path(slug): Path<String>,
    Recorded { input, write }: Recorded<ProductInput>,
) -> Result<Json<ProductView>> {
    // Its word in addresses is what a product is made under once.
    let records = write.of(&app, Uuid::new_v5(&Uuid::NAMESPACE_URL, slug.as_bytes()));
    if records.was_written().await? {
        return product_view(&app, &slug).await.map(Json);
    }
    let mut faults = ValidationErrors::default();
    let name = input.name.trim();
    if name.is_empty() || name.chars().count() > 80 {
        faults.push("name", "the product needs a name, up to 80 letters");
    }
    let plain = |c: char| c.is_ascii_lowercase() || c.is_ascii_digit() || c == '-';
    if slug.is_empty() || slug.len() > 80 || !slug.chars().all(plain) {
        faults.push("slug", "its word in addresses: small letters, digits and hyphens");
    }
    let signed = input.signed.check(&write.author, false, &mut faults);
    let Some(template) = template(&input.template) else {
        faults.push("template", format!("“{}” is no template here", input.template));
        return Err(faults.into());
    };
    let known = app.store.flours().await?;
    let flours: Vec<&Flour> =
        input.flours.iter().filter_map(|id| known.iter().find(|flour| flour.id == *id)).collect();
    if flours.len() != template.wants.len() || flours.len() != input.flours.len() {
        let wants: Vec<&str> = template.wants.iter().map(|wanted| &*wanted.name).collect();
        faults.push("flours", format!("choose a flour for each of: {}", wants.join(", ")));
    }
    faults.or(())?;
    let names: Vec<String> = flours.iter().map(|flour| flour.name.clone()).collect();
    let formula = template.formula(&names)?;
    let signed = Signed { reason: format!("from the template {}", template.name), ..signed };
    let line = app.store.line_name(input.line_id).await?;
    let new = Product {
        id: Uuid::now_v7(),
        slug: slug.clone(),
        name: name.into(),
        flour_id: flours[0].id,
        flour: flours[0].name.clone(),
        formula_id: Uuid::now_v7(),
        method_id: Uuid::now_v7(),
        line_id: input.line_id,
        line,
    };
    records.make_product(&new, &formula, &template.method(), &signed).await?;
    product_view(&app, &slug).await.map(Json)
}
