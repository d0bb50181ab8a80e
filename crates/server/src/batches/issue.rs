//! Planning a batch: the sheet as it is handed to the floor, tied to the revisions it came from.

use std::collections::BTreeMap;
use std::iter;

use axum::extract::State;
use chrono::{DateTime, Utc};
use ironpeel_core::chain::{Chain, chain};
use ironpeel_core::units::{ValidationErrors, timestamp};
use ironpeel_core::water::Caution;
use ironpeel_store::{Author, BatchFlour, NewBatch, NewBatchState, Product};
use serde::Deserialize;
use serde_json::{Value, json};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use super::issued::{Issued, IssuedLot, Release};
use super::view::{BatchView, batch_view};
use crate::chain::{ScenarioContext, ScenarioInput};
use crate::flour::LotAssessment;
use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Recorded, from_value};
use crate::revision_refs::RevisionRefs;
use crate::state::{App, Documents, Specified};

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(save))
}

/// A batch to be planned.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct BatchInput {
    pub slug: String,
    #[serde(alias = "hand")]
    pub scenario: ScenarioInput,
    #[serde(deserialize_with = "timestamp::within")]
    pub planned_for: DateTime<Utc>,
}

/// Plans a batch; sent twice, it is stored once
#[utoipa::path(put, path = "/api/v1/batches/{batch_id}", security(("session" = ["change"])), tag = "batch", params(("batch_id" = Uuid, Path)), request_body = BatchInput,
    responses((status = 200, body = BatchView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn save(
    State(app): State<App>,
    Path(id): Path<Uuid>,
    Recorded { input: sent, write }: Recorded<Value>,
) -> Result<Json<BatchView>> {
    let records = write.of(&app, id);
    // What was planned stands, whatever could be planned now.
    if !records.was_written().await? {
        // The settings are kept as they were sent, beside what they were understood as.
        let paths = ["/scenario/run_settings", "/hand/knobs"];
        let run_settings = paths.iter().find_map(|path| sent.pointer(path)).cloned();
        let input: BatchInput = from_value(sent)?;
        let (new, others, state) = Box::pin(plan(
            &app,
            (id, Utc::now()),
            input,
            run_settings.unwrap_or_default(),
            &write.author,
        ))
        .await?;
        records.add_batch(&new, &others, &state).await?;
    }
    Ok(Json(batch_view(&app, id).await?))
}

const LOT: &str = "scenario.revision_refs.lot_revision_id";
const SPECIFICATION: &str = "scenario.revision_refs.specification_revision_id";
const OTHERS: &str = "scenario.revision_refs.other_lots";

/// Each document must be of the product that is planned.
fn belongs(documents: &Documents, product: &Product, faults: &mut ValidationErrors) {
    let name = &product.name;
    if documents.formula.formula_id != product.formula_id {
        faults.push(
            "scenario.revision_refs.formula_revision_id",
            format!("this formula is not {name}'s"),
        );
    }
    if documents.method.method_id != product.method_id {
        faults.push(
            "scenario.revision_refs.method_revision_id",
            format!("this method is not {name}'s"),
        );
    }
    if documents.line.line_id != product.line_id {
        faults.push(
            "scenario.revision_refs.line_revision_id",
            format!("{name} is not made on this line"),
        );
    }
    let lot = &documents.flour.lot;
    if lot.flour.id != product.flour_id {
        let message =
            format!("{} is {}, and {name} is made of another flour", lot.code, lot.flour.name);
        faults.push(LOT, message);
    }
}

/// What each lot was released by; a fault at a lot that may not be planned.
async fn releases(
    app: &App,
    documents: &Documents,
    planned_at: DateTime<Utc>,
    faults: &mut ValidationErrors,
) -> Result<Vec<Release>> {
    let others = documents.others.iter().map(|other| (other, OTHERS, OTHERS));
    let flours = iter::once((&documents.flour, LOT, SPECIFICATION)).chain(others);
    let ids: Vec<Uuid> = flours.clone().map(|(flour, ..)| flour.lot.id).collect();
    let dispositions = app.store.dispositions_at(&ids, planned_at).await?;
    let plant = app.parameters().await?;
    let mut releases = Vec::new();
    for (Specified { lot, specification }, at, asked_at) in flours {
        let specification = specification.as_deref();
        if specification.is_some_and(|one| one.flour_id != lot.flour.id) {
            let message = format!("this specification is of another flour than {}", lot.code);
            faults.push(asked_at, message);
            continue;
        }
        let by = specification.map(|one| (one.revision.id, &*one.limits));
        let judged = LotAssessment::of(&lot.current, by, &plant.coefficients);
        let decision =
            dispositions.get(&lot.id).and_then(|disposition| disposition.decision.as_ref());
        if let Some(why) = judged.barred(decision) {
            faults.push(at, format!("{} cannot be planned: {why}", lot.code));
        }
        if let Some(decision) = judged.release(decision).cloned() {
            releases.push(Release { lot: lot.code.clone(), decision });
        }
    }
    Ok(releases)
}

/// A batch with all it is tied to, as it would be put on record at a time: by what was decided of its
/// lots until then.
pub async fn plan(
    app: &App,
    (id, planned_at): (Uuid, DateTime<Utc>),
    mut input: BatchInput,
    run_settings: Value,
    author: &Author,
) -> Result<(NewBatch, Vec<BatchFlour>, NewBatchState)> {
    let product = app.store.product(&input.slug).await?;
    // The lot's age counts to the day of mixing, and the sheet is of what is on record.
    let mixed_at = input.planned_for.with_timezone(&app.clock().await?);
    input.scenario.mix_on = Some(mixed_at.date_naive());
    input.scenario.draft = None;
    input.scenario.method = None;
    let context = ScenarioContext::load(app, &input.scenario, "scenario.").await?;
    let documents = &context.documents;

    let mut faults = ValidationErrors::default();
    belongs(documents, &product, &mut faults);
    let releases = releases(app, documents, planned_at, &mut faults).await?;
    faults.or(())?;
    let chain = chain(&context.scenario(&context.flours()));
    if let Some(error) = &chain.error {
        return Err(Problem::field("scenario", error.to_string()));
    }
    let lot = &documents.flour.lot;
    let state = new_state(&context, &chain);
    let issued = Issued {
        product: product.name,
        line: documents.line.name.clone(),
        process: documents.method.method.process.label(),
        lot: lot.code.clone(),
        flour: lot.flour.name.clone(),
        mill: lot.flour.mill.clone(),
        other_lots: documents.others.iter().map(IssuedLot::of).collect(),
        specification_number: documents.flour.specification_number(),
        lot_number: lot.current.revision.number,
        formula_number: documents.formula.revision.number,
        method_number: documents.method.revision.number,
        line_number: documents.line.revision.number,
        releases,
        chain,
    };
    let RevisionRefs {
        lot_revision_id,
        specification_revision_id,
        formula_revision_id,
        method_revision_id,
        line_revision_id,
        parameters_revision_id,
        water_correction_id,
        other_lots,
    } = input.scenario.revision_refs;
    let others = other_lots;
    let batch = NewBatch {
        id,
        product_id: product.id,
        lot_revision_id,
        specification_revision_id,
        formula_revision_id,
        method_revision_id,
        line_revision_id,
        parameters_revision_id,
        water_correction_id,
        planned_for: input.planned_for,
        saved_by: author.name.clone(),
        run_settings,
        issued: json!(issued),
    };
    Ok((batch, others, state))
}

/// What is known of a batch before it begins.
fn new_state(context: &ScenarioContext, chain: &Chain) -> NewBatchState {
    let documents = &context.documents;
    let lot = &documents.flour.lot;
    let doughs = chain.sheet.as_ref().map_or(1, |sheet| sheet.doughs);
    let flour_kg = chain.dough.as_ref().map(|dough| dough.flour_kg * f64::from(doughs));
    let shares = context.formula().formula.flours();
    let share_of = |name: &str| match shares.iter().find(|share| share.name == name) {
        Some(share) => share.share_pct,
        None if shares.is_empty() => ironpeel_core::dough::FLOUR_PCT,
        None => 0.0,
    };
    // One lot of two flours is one lot.
    let mut lots: BTreeMap<Uuid, Option<f64>> = BTreeMap::new();
    for Specified { lot, .. } in iter::once(&documents.flour).chain(&documents.others) {
        let kg = flour_kg.map(|kg| kg * share_of(&lot.flour.name) / 100.0);
        let known = lots.entry(lot.id).or_default();
        *known = kg.map(|kg| kg + known.unwrap_or_default());
    }
    let water = chain.water.as_ref();
    let cautions = water.map_or(&[][..], |water| &water.cautions);
    NewBatchState {
        line_id: documents.line.line_id,
        flour_id: lot.flour.id,
        lot_id: lot.id,
        lots: lots.into_iter().collect(),
        standing_pts: documents.water_correction().map_or(0.0, |band| band.typical),
        damaged_starch_caution: cautions
            .iter()
            .any(|caution| matches!(caution, Caution::DamagedStarch { .. })),
        water_was_set: water.is_some_and(|water| {
            water.by_hand_pts().is_some() || water.adjustments.iter().any(|one| one.key == "style")
        }),
    }
}
