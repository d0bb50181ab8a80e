//! What a product is held to when it is judged.

use axum::extract::State;
use ironpeel_core::judging::{Characteristic, MeasuredTarget, ProductStandard, StandardInput};
use ironpeel_core::units::ValidationErrors;
use ironpeel_store::{NewStandard, Revision, StandardRevision};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Recorded};
use crate::revision::SignedInput;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(standard)).routes(routes!(save))
}

/// A product's standard with its revisions.
#[derive(Debug, Serialize, ToSchema)]
struct StandardView {
    product: String,
    /// What the product states of its own.
    standard: ProductStandard,
    /// The sheet it makes.
    lines: Vec<SheetLine>,
    /// Newest first.
    revisions: Vec<Revision>,
}

/// One characteristic of a sheet.
#[derive(Debug, Serialize, ToSchema)]
pub struct SheetLine {
    of: Characteristic,
    label: &'static str,
    weight: f64,
    two_sided: bool,
    /// What marks of 1, 3 and 5 are.
    anchors: [String; 3],
    measure: Option<MeasureView>,
}

/// What can be measured instead.
#[derive(Debug, Serialize, ToSchema)]
struct MeasureView {
    words: &'static str,
    unit: &'static str,
    /// Whether the figure says on which side it lies.
    says_side: bool,
    /// None where the product states none yet.
    target: Option<MeasuredTarget>,
}

/// A product's next standard.
#[derive(Debug, Deserialize, ToSchema)]
struct StandardRevisionInput {
    /// The revision it becomes: one after the newest.
    number: i32,
    standard: StandardInput,
    signed: SignedInput,
}

/// The newest standard of a product; the house's where it has none.
pub async fn newest_standard(app: &App, product_id: Uuid) -> Result<ProductStandard> {
    let newest = app.store.standards(product_id).await?.into_iter().next();
    Ok(newest.map(|one| one.standard).unwrap_or_default())
}

/// The sheet a product is judged by.
pub async fn sheet_lines(app: &App, slug: &str) -> Result<Vec<SheetLine>> {
    let product = app.store.product(slug).await?;
    lines_of(app, &newest_standard(app, product.id).await?).await
}

async fn lines_of(app: &App, standard: &ProductStandard) -> Result<Vec<SheetLine>> {
    let plant = app.parameters().await?;
    let house = &plant.coefficients;
    let line = |of: Characteristic| {
        let [worst, middle, best] = of.anchors();
        SheetLine {
            of,
            label: of.label(),
            weight: standard.weight(of, house),
            two_sided: of.is_two_sided(),
            anchors: [
                worst.into(),
                middle.into(),
                standard.anchors.get(&of).cloned().unwrap_or_else(|| best.into()),
            ],
            measure: of.measure(house).map(|measure| MeasureView {
                words: measure.words,
                unit: measure.unit,
                says_side: measure.says_side,
                target: standard.target(of, house),
            }),
        }
    };
    Ok(Characteristic::ALL.into_iter().map(line).collect())
}

/// What a product is held to when it is judged
#[utoipa::path(get, path = "/api/v1/products/{slug}/standard", security(("session" = ["read"])), tag = "judging", params(("slug" = String, Path)),
    responses((status = 200, body = StandardView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn standard(State(app): State<App>, Path(slug): Path<String>) -> Result<Json<StandardView>> {
    let product = app.store.product(&slug).await?;
    let all = app.store.standards(product.id).await?;
    let standard = all.first().map(|one| one.standard.clone()).unwrap_or_default();
    let lines = lines_of(&app, &standard).await?;
    let revisions = all.into_iter().map(|StandardRevision { revision, .. }| revision).collect();
    Ok(Json(StandardView { product: product.name, standard, lines, revisions }))
}

/// Records a product's next standard; sent twice, it is stored once
#[utoipa::path(put, path = "/api/v1/products/{slug}/standard/{revision_id}", security(("session" = ["change"])), tag = "judging",
    params(("slug" = String, Path), ("revision_id" = Uuid, Path)), request_body = StandardRevisionInput,
    responses((status = 200, body = StandardView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn save(
    State(app): State<App>,
    Path((slug, id)): Path<(String, Uuid)>,
    Recorded { input, write }: Recorded<StandardRevisionInput>,
) -> Result<Json<StandardView>> {
    let product = app.store.product(&slug).await?;
    let plant = app.parameters().await?;
    let mut faults = ValidationErrors::default();
    let signed = input.signed.check(&write.author, true, &mut faults);
    let checked = input.standard.check(&plant.coefficients);
    let checked = checked.map_err(|ValidationErrors(more)| {
        faults.0.extend(more.into_iter().map(|mut fault| {
            fault.field = format!("standard.{}", fault.field);
            fault
        }));
    });
    let Ok(standard) = faults.or(checked)? else {
        return Err(Problem::fault("a fault that was told is refused"));
    };
    let (product_id, number) = (product.id, input.number);
    let new = NewStandard { id, product_id, number, standard, signed };
    write.of(&app, id).add_standard(&new).await?;
    self::standard(State(app), Path(slug)).await
}
