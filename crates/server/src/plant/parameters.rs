//! Coefficients, the ingredient library and the absorption model, as the plant has them.

use axum::extract::State;
use ironpeel_core::coefficient::{Coefficient, Coefficients, Override, OverrideInput};
use ironpeel_core::dough::{Ingredient, IngredientProperties, IngredientPropertiesInput};
use ironpeel_core::fault::{fault_coefficient, fault_coefficients};
use ironpeel_core::plant::{COEFFICIENTS, OwnParameters, PlantParameters, coefficient};
use ironpeel_core::units::ValidationErrors;
use ironpeel_core::water::AbsorptionModel;
use ironpeel_store::Revision;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use super::model::learn;
use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Recorded};
use crate::revision::SignedInput;
use crate::state::App;

/// Most own ingredients.
const MOST: usize = 500;

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(parameters))
        .routes(routes!(of_fault))
        .routes(routes!(save))
        .routes(routes!(revisions))
}

/// A coefficient as it holds here.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct CoefficientView {
    /// What it belongs to: flour, dough, water, heat, ferment, method, schedule, learn, oven, judging
    /// or fault.
    subject: &'static str,
    /// As the house has it.
    house: Coefficient,
    /// The plant's own; none where the house's holds.
    own: Option<Override>,
    /// Whether a plant may put its own in its place, between which limits, and whether it may leave
    /// the effect out.
    replaceable: bool,
    least: f64,
    most: f64,
    optional: bool,
}

impl CoefficientView {
    fn of(subject: &'static str, house: &Coefficient, plant: &Coefficients) -> Self {
        let (least, most) = house.limits();
        Self {
            subject,
            house: house.clone(),
            own: plant.own(house).cloned(),
            replaceable: house.is_replaceable(),
            least,
            most,
            optional: house.is_optional(),
        }
    }
}

/// The plant's parameters as they are now.
#[derive(Debug, Clone, Serialize, ToSchema)]
struct ParametersView {
    /// None where only the house's hold.
    revision: Option<Revision>,
    /// All but those of single faults, of which only the plant's own are among them.
    coefficients: Vec<CoefficientView>,
    ingredients: Vec<IngredientProperties>,
    /// Measured lots that the absorption model in use has learned from.
    model_lots: u32,
}

/// The plant's parameters: every coefficient, ingredients, what was learned of absorption
#[utoipa::path(get, path = "/api/v1/plant/parameters", security(("session" = ["read"])), tag = "plant",
    responses((status = 200, body = ParametersView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn parameters(State(app): State<App>) -> Result<Json<ParametersView>> {
    let current = app.store.current_parameters().await?;
    let (revision, plant) = match current {
        Some(current) => (Some(current.revision), current.parameters),
        None => (None, PlantParameters::default()),
    };
    let own = plant.coefficients.0.iter().filter_map(|own| fault_coefficient(&own.key));
    let coefficients = COEFFICIENTS
        .iter()
        .flat_map(|(subject, declared)| declared.iter().map(move |house| (*subject, *house)))
        .chain(own.map(|house| ("fault", house)))
        .map(|(subject, house)| CoefficientView::of(subject, house, &plant.coefficients));
    Ok(Json(ParametersView {
        revision,
        coefficients: coefficients.collect(),
        ingredients: plant.library.all().cloned().collect(),
        model_lots: plant.model.lots(),
    }))
}

/// What the causes of a fault are weighed by: weights, thresholds, ratios, limits; each replaceable
#[utoipa::path(get, path = "/api/v1/faults/{fault}/coefficients", security(("session" = ["read"])), tag = "plant", params(("fault" = String, Path)),
    responses((status = 200, body = Vec<CoefficientView>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn of_fault(
    State(app): State<App>,
    Path(fault): Path<String>,
) -> Result<Json<Vec<CoefficientView>>> {
    let plant = app.parameters().await?;
    let found = fault_coefficients(&fault);
    let found: Vec<_> =
        found.map(|house| CoefficientView::of("fault", house, &plant.coefficients)).collect();
    if found.is_empty() {
        return Err(Problem::not_found("there is no such fault"));
    }
    Ok(Json(found))
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

/// Changes to the plant's parameters: what is not named stays as it is.
#[derive(Debug, Clone, Deserialize, ToSchema)]
struct ParametersInput {
    /// The number after the revision that was looked at.
    number: i32,
    /// Coefficients to have an own value for, or to leave out.
    #[serde(default, alias = "correction_factors")]
    coefficients: Vec<OverrideInput>,
    /// Keys of coefficients to go back to the house's.
    #[serde(default, alias = "rules_back")]
    coefficients_back: Vec<String>,
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

impl ParametersInput {
    fn over(
        &self,
        own: OwnParameters,
        model: Option<AbsorptionModel>,
        faults: &mut ValidationErrors,
    ) -> OwnParameters {
        let OwnParameters { mut coefficients, mut ingredients, .. } = own;
        for (at, input) in self.coefficients.iter().enumerate() {
            let at = format!("coefficients[{at}].");
            let Some(checked) = input.check(coefficient, &at, faults) else { continue };
            coefficients.retain(|one| one.key != checked.key);
            coefficients.push(checked);
        }
        coefficients.retain(|one| !self.coefficients_back.contains(&one.key));
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
        OwnParameters { coefficients, ingredients, model }
    }
}

/// Records the plant's parameters with a change; sent twice, it is stored once
#[utoipa::path(put, path = "/api/v1/plant/parameters/revisions/{revision_id}", security(("session" = ["change"])), tag = "plant",
    params(("revision_id" = Uuid, Path)), request_body = ParametersInput,
    responses((status = 200, body = ParametersView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn save(
    State(app): State<App>,
    Path(revision_id): Path<Uuid>,
    Recorded { input, write }: Recorded<ParametersInput>,
) -> Result<Json<ParametersView>> {
    let mut faults = ValidationErrors::default();
    let signed = input.signed.check(&write.author, true, &mut faults);
    let own = app.store.current_parameters().await?.map(|current| current.own).unwrap_or_default();
    let model = match input.model {
        ModelChange::KeptConstant => own.model,
        ModelChange::Learn => Some(learn(&app).await?),
        ModelChange::Forget => None,
    };
    let own = input.over(own, model, &mut faults);
    faults.or(())?;
    write.of(&app, revision_id).add_parameters(revision_id, input.number, &own, &signed).await?;
    parameters(State(app)).await
}

/// Every revision of the plant's parameters, newest first
#[utoipa::path(get, path = "/api/v1/plant/parameters/revisions", security(("session" = ["read"])), tag = "plant",
    responses((status = 200, body = Vec<Revision>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn revisions(State(app): State<App>) -> Result<Json<Vec<Revision>>> {
    Ok(Json(app.store.parameters_revisions().await?))
}
