//! Rules of the build-up, the ingredient library and the absorption model, as the plant has them.

use axum::extract::State;
use ironpeel_core::dough::{Ingredient, IngredientProperties, IngredientPropertiesInput};
use ironpeel_core::plant::OwnNumbers;
use ironpeel_core::units::{Estimate, ValidationErrors};
use ironpeel_core::water::{AbsorptionModel, CorrectionFactor, Override, OverrideInput};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use super::model::learn;
use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Recorded};
use crate::revision::{RevisionView, SignedInput};
use crate::state::App;

/// Most own ingredients.
const MOST: usize = 500;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(numbers)).routes(routes!(save)).routes(routes!(revisions))
}

/// A rule of the absorption build-up as it holds here.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct RuleView {
    rule: CorrectionFactor,
    label: &'static str,
    unit: &'static str,
    /// Why the house believes it.
    reason: &'static str,
    house: Estimate,
    /// The plant's own; none where the house's holds.
    own: Option<Override>,
}

/// The plant's numbers as they are now.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct NumbersView {
    /// None where only the house's hold.
    revision: Option<RevisionView>,
    correction_factors: Vec<RuleView>,
    ingredients: Vec<IngredientProperties>,
    /// Measured lots that the absorption model in use has learned from.
    model_lots: u32,
}

/// The plant's numbers: rules of the build-up, ingredients, what was learned of absorption
#[utoipa::path(get, path = "/api/v1/plant/parameters", tag = "plant",
    responses((status = 200, body = NumbersView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn numbers(State(app): State<App>) -> Result<Json<NumbersView>> {
    let current = app.store.current_numbers().await?;
    let (revision, own, numbers) = match current {
        Some(current) => (Some(current.revision.into()), current.own, current.numbers),
        None => (None, OwnNumbers::default(), OwnNumbers::default().into()),
    };
    let correction_factors = CorrectionFactor::ALL.map(|rule| RuleView {
        rule,
        label: rule.label(),
        unit: rule.unit(),
        reason: rule.reason(),
        house: rule.house(),
        own: own.correction_factors.iter().find(|one| one.rule == rule).cloned(),
    });
    Ok(Json(NumbersView {
        revision,
        correction_factors: correction_factors.into(),
        ingredients: numbers.library.all().cloned().collect(),
        model_lots: numbers.model.lots(),
    }))
}

/// What becomes of the absorption model.
#[derive(Debug, Clone, Copy, Default, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
enum ModelChange {
    #[default]
    KeptConstant,
    /// Learn from every measured lot on record.
    Learn,
    /// Go back to the house's.
    Forget,
}

/// Changes to the plant's numbers: what is not named stays as it is.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct NumbersInput {
    /// The number after the revision that was looked at.
    number: i32,
    /// Rules to have an own value for, or to switch off.
    #[serde(default)]
    correction_factors: Vec<OverrideInput>,
    /// Rules to go back to the house's.
    #[serde(default)]
    rules_back: Vec<CorrectionFactor>,
    /// Ingredients to change or to add.
    #[serde(default)]
    ingredients: Vec<IngredientPropertiesInput>,
    /// Ingredients to go back to the house's, or of the plant's own to drop.
    #[serde(default)]
    ingredients_back: Vec<Ingredient>,
    #[serde(default)]
    model: ModelChange,
    signed: SignedInput,
}

impl NumbersInput {
    fn over(
        &self,
        own: OwnNumbers,
        model: Option<AbsorptionModel>,
        faults: &mut ValidationErrors,
    ) -> OwnNumbers {
        let OwnNumbers { mut correction_factors, mut ingredients, .. } = own;
        for (at, input) in self.correction_factors.iter().enumerate() {
            let checked = input.check(&format!("correction_factors[{at}]."), faults);
            correction_factors.retain(|one| one.rule != checked.rule);
            correction_factors.push(checked);
        }
        correction_factors.retain(|one| !self.rules_back.contains(&one.rule));
        for (at, input) in self.ingredients.iter().enumerate() {
            let checked = input.check(&format!("ingredients[{at}]."), faults);
            let twice = ingredients
                .iter()
                .any(|one| one.label == checked.label && one.ingredient != checked.ingredient);
            if twice {
                let message = format!("{} is in the library already", checked.label);
                faults.push(format!("ingredients[{at}].label"), message);
            }
            ingredients.retain(|one| one.ingredient != checked.ingredient);
            ingredients.push(checked);
        }
        ingredients.retain(|one| !self.ingredients_back.contains(&one.ingredient));
        if ingredients.len() > MOST {
            faults.push("ingredients", format!("up to {MOST} ingredients of the plant's own"));
        }
        OwnNumbers { correction_factors, ingredients, model }
    }
}

/// Records the plant's numbers with a change; sent twice, it is stored once
#[utoipa::path(put, path = "/api/v1/plant/parameters/revisions/{revision_id}", tag = "plant",
    params(("revision_id" = Uuid, Path)), request_body = NumbersInput,
    responses((status = 200, body = NumbersView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn save(
    State(app): State<App>,
    Path(revision_id): Path<Uuid>,
    Recorded { input, write }: Recorded<NumbersInput>,
) -> Result<Json<NumbersView>> {
    let mut faults = ValidationErrors::default();
    let signed = input.signed.check(true, &mut faults);
    let own = app.store.current_numbers().await?.map(|current| current.own).unwrap_or_default();
    let model = match input.model {
        ModelChange::KeptConstant => own.model,
        ModelChange::Learn => Some(learn(&app).await?),
        ModelChange::Forget => None,
    };
    let own = input.over(own, model, &mut faults);
    faults.or(())?;
    write.of(&app, revision_id).add_numbers(revision_id, input.number, &own, &signed).await?;
    numbers(State(app)).await
}

/// Every revision of the plant's numbers, newest first
#[utoipa::path(get, path = "/api/v1/plant/parameters/revisions", tag = "plant",
    responses((status = 200, body = Vec<RevisionView>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn revisions(State(app): State<App>) -> Result<Json<Vec<RevisionView>>> {
    Ok(Json(app.store.numbers_revisions().await?.into_iter().map(Into::into).collect()))
}
