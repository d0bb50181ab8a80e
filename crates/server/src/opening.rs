//! A product as it is opened: all that its first view shows, in one answer.

use axum::extract::State;
use futures_util::future::try_join_all;
use ironpeel_core::chain::{Chain, chain};
use ironpeel_core::method::MethodDraft;
use ironpeel_store::BatchFlour;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::chain::{EditedFormula, RunSettingsInput, ScenarioContext, ScenarioInput};
use crate::flour::{FlourView, LotPage, LotView, flour_views, lot_page, lot_view};
use crate::problem::{Problem, Result};
use crate::products::{ProductView, product_view};
use crate::request::{Json, Path};
use crate::revision_refs::RevisionRefs;
use crate::state::App;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(open))
}

/// Most lots chosen beside the product's own.
const MOST_LOTS: usize = 20;

/// What is chosen, set and edited of a product.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct OpeningInput {
    /// The lot it is looked at with, of any flour; its flour's usual one if left out.
    pub lot_id: Option<Uuid>,
    /// Lots chosen of the formula's other flours, up to 20; the usual one of each left out.
    #[serde(default)]
    pub other_lots: Vec<Uuid>,
    pub run_settings: RunSettingsInput,
    /// The formula as edited and not yet recorded.
    pub draft: Option<EditedFormula>,
    /// The method as edited and not yet recorded.
    pub method: Option<MethodDraft>,
}

/// A product with the lots it is made from and its chain.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct Opening {
    pub product: ProductView,
    /// Every flour.
    pub flours: Vec<FlourView>,
    /// Of each flour of the formula the newest lots, the main one's first.
    pub lots: Vec<LotsOfFlour>,
    /// The lot of each, in the same order; none where a flour has none that may be planned.
    pub selected: Vec<Option<LotView>>,
    /// None where it cannot be computed from these: asked for itself, the chain says why.
    pub chain: Option<Chain>,
}

/// The newest lots of a flour.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct LotsOfFlour {
    pub flour_id: Uuid,
    pub page: LotPage,
}

/// Opens a product: its lots, and its chain
#[utoipa::path(post, path = "/api/v1/products/{slug}/opening", security(("session" = ["read"])), tag = "product", params(("slug" = String, Path)), request_body = OpeningInput,
    responses((status = 200, body = Opening), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn open(
    State(app): State<App>,
    Path(slug): Path<String>,
    Json(input): Json<OpeningInput>,
) -> Result<Json<Opening>> {
    if input.other_lots.len() > MOST_LOTS {
        let message = format!("up to {MOST_LOTS} lots are chosen beside the product's own");
        return Err(Problem::field("other_lots", message));
    }
    let (product, flours) = tokio::try_join!(product_view(&app, &slug), flour_views(&app))?;
    let ids = flours_of(&product, input.draft.as_ref(), &flours);
    let pages = try_join_all(ids.iter().map(|id| lot_page(&app, Some(*id), None)));
    let main = try_join_all(input.lot_id.iter().map(|id| lot_view(&app, *id)));
    let others = try_join_all(input.other_lots.iter().map(|id| lot_view(&app, *id)));
    let (pages, main, others) = tokio::try_join!(pages, main, others)?;
    let selected = try_join_all(ids.iter().zip(&pages).enumerate().map(|(at, (flour, page))| {
        // The product may be looked at with a lot of any flour.
        let here = match at {
            0 => main.first(),
            _ => others.iter().find(|lot| lot.flour.id == *flour),
        };
        let (app, here) = (&app, here.cloned());
        async move {
            match (here, page.usual) {
                (Some(lot), _) => Ok(Some(lot)),
                (None, Some(usual)) => lot_view(app, usual).await.map(Some),
                (None, None) => Ok(None),
            }
        }
    }))
    .await?;
    let lots = ids.into_iter().zip(pages).map(|(flour_id, page)| LotsOfFlour { flour_id, page });
    let chain = match refs_of(&product, &selected) {
        Some(revision_refs) => opened(&app, revision_refs, input).await?,
        None => None,
    };
    Ok(Json(Opening { lots: lots.collect(), product, flours, selected, chain }))
}

/// The flours of the formula, edited or as recorded: the product's own, and the others by name.
fn flours_of(
    product: &ProductView,
    draft: Option<&EditedFormula>,
    flours: &[FlourView],
) -> Vec<Uuid> {
    let names: Vec<&str> = match draft {
        Some(draft) => draft.formula.flours.iter().map(|share| &*share.name).collect(),
        None => product.formula.flours.iter().map(|share| &*share.name).collect(),
    };
    let others = names.into_iter().skip(1);
    let others = others.filter_map(|name| flours.iter().find(|flour| flour.name == name));
    std::iter::once(product.flour.id).chain(others.map(|flour| flour.id)).collect()
}

/// The chain, where it can be computed.
async fn opened(
    app: &App,
    revision_refs: RevisionRefs,
    OpeningInput { run_settings, draft, method, .. }: OpeningInput,
) -> Result<Option<Chain>> {
    let scenario = ScenarioInput { revision_refs, run_settings, mix_on: None, draft, method };
    match ScenarioContext::load(app, &scenario, "").await {
        Ok(context) => Ok(Some(chain(&context.scenario(&context.flours())))),
        Err(problem) if problem.is_refusal() => Ok(None),
        Err(problem) => Err(problem),
    }
}

/// A product as it is now, made of these lots, the main flour's first; none where a flour has
/// no lot.
fn refs_of(product: &ProductView, lots: &[Option<LotView>]) -> Option<RevisionRefs> {
    let mut flours = lots.iter().map(|lot| {
        let lot = lot.as_ref()?;
        Some(BatchFlour {
            lot_revision_id: lot.revision.id,
            specification_revision_id: lot.certificate.specification.as_ref().map(|one| one.id),
        })
    });
    let main = flours.next()??;
    Some(RevisionRefs {
        lot_revision_id: main.lot_revision_id,
        specification_revision_id: main.specification_revision_id,
        formula_revision_id: product.formula.revision.id,
        method_revision_id: product.method.revision.id,
        line_revision_id: product.line.revision.id,
        parameters_revision_id: product.parameters.as_ref().map(|own| own.id),
        water_correction_id: product.water_correction.as_ref().map(|learned| learned.id),
        other_lots: flours.collect::<Option<_>>()?,
    })
}
