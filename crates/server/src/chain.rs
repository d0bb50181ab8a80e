//! The what-if: the whole chain for the selected product, and what moved since before.

use axum::extract::State;
use chrono::NaiveDate;
use ironpeel_core::chain::{
    Chain, Derivations, FigureChange, RunSettings, Scenario, ScenarioFlour, ScenarioFormula, chain,
    changes, derivations, figures,
};
use ironpeel_core::dough::{
    AmountInput, FLOUR_PCT, FlourShare, Formula, FormulaDraft, Ingredient, LossesInput,
};
use ironpeel_core::method::{Method, MethodDraft};
use ironpeel_core::units::{NumberRange, RawNumber, ValidationErrors};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::flour_names::current_names;
use crate::problem::{Problem, Result};
use crate::request::Json;
use crate::revision_refs::RevisionRefs;
use crate::state::{App, Documents};

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(what_if)).routes(routes!(why))
}

/// What is set for tonight, as it was typed; what is left out comes from the line or the method.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct RunSettingsInput {
    /// The formula's usual batch, or one full mixer, if left out.
    pub amount: Option<AmountInput>,
    /// The scale's division, 0.0001 to 5 kg.
    #[serde(default)]
    pub division_kg: RawNumber,
    /// All the water on flour set by hand, 20 to 140 %.
    #[serde(default)]
    pub hydration_pct: RawNumber,
    /// 0 to 60 °C.
    #[serde(default)]
    pub target_c: RawNumber,
    /// −20 to 60 °C.
    #[serde(default)]
    pub flour_c: RawNumber,
    /// −20 to 60 °C.
    #[serde(default)]
    pub room_c: RawNumber,
    /// 0 to 60 °C.
    #[serde(default)]
    pub tap_c: RawNumber,
    /// The mixer's jacket runs.
    #[serde(default)]
    pub jacket: bool,
    /// Ingredients whose temperature was measured, up to 60.
    #[serde(default)]
    pub ingredients: Vec<IngredientAtInput>,
    /// Speed of tonight's fermentation beside the model's, 0.2 to 4; the model's if left out.
    #[serde(default)]
    pub rate: RawNumber,
}

/// An ingredient as warm as it was measured.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct IngredientAtInput {
    pub ingredient: Ingredient,
    /// −30 to 60 °C.
    #[serde(default)]
    pub temperature_c: RawNumber,
}

/// The selected product.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct ScenarioInput {
    // What a browser queued before an upgrade has its names of then.
    #[serde(alias = "pins")]
    pub revision_refs: RevisionRefs,
    #[serde(alias = "knobs")]
    pub run_settings: RunSettingsInput,
    /// When it is to be mixed; today if left out. The lot's age counts to it.
    pub mix_on: Option<NaiveDate>,
    /// The formula as edited and not yet recorded.
    pub draft: Option<EditedFormula>,
    /// The method as edited and not yet recorded.
    pub method: Option<MethodDraft>,
}

/// A formula as edited and not yet recorded; what is left out is as recorded.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct EditedFormula {
    #[serde(flatten)]
    pub formula: FormulaDraft,
    /// −20 to 20 points of water, wetter or drier by style.
    #[serde(default)]
    pub style_points: RawNumber,
    /// 0.005 to 20 kg.
    #[serde(default)]
    pub piece_kg: RawNumber,
    #[serde(default)]
    pub losses: LossesInput,
    #[serde(flatten)]
    pub holds: FormulaHolds,
}

/// What a formula is meant to hold besides its lines.
#[derive(Debug, Clone, Default, Deserialize, ToSchema)]
pub struct FormulaHolds {
    /// Its own water, 20 to 140 % on flour; as the flour takes if left out.
    #[serde(default)]
    pub hydration_pct: RawNumber,
    /// Its usual batch, 0.05 to 100 000 kg of dough; none if left out.
    #[serde(default)]
    pub batch_kg: RawNumber,
}

impl FormulaHolds {
    pub fn check(&self, faults: &mut ValidationErrors) -> (Option<f64>, Option<f64>) {
        (
            OWN_WATER.check_opt(&self.hydration_pct, "", faults),
            BATCH.check_opt(&self.batch_kg, "", faults),
        )
    }
}

/// A what-if: the selected product, and the one before it.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct WhatIf {
    pub now: ScenarioInput,
    pub before: Option<ScenarioInput>,
}

/// The chain, and what moved.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct WhatIfAnswer {
    pub chain: Chain,
    pub changes: Vec<FigureChange>,
}

const DIVISION: NumberRange =
    NumberRange::new("division_kg", "the scale's division", "kg", 0.0001, 5.0);
const HYDRATION: NumberRange =
    NumberRange::new("hydration_pct", "water on flour", "%", 20.0, 140.0);
const TARGET: NumberRange =
    NumberRange::new("target_c", "target dough temperature", "°C", 0.0, 60.0);
const FLOUR: NumberRange = NumberRange::new("flour_c", "flour temperature", "°C", -20.0, 60.0);
const ROOM: NumberRange = NumberRange::new("room_c", "room temperature", "°C", -20.0, 60.0);
pub const PIECE: NumberRange = NumberRange::new("piece_kg", "piece", "kg", 0.005, 20.0);
pub const STYLE: NumberRange =
    NumberRange::new("style_points", "style", "points of water", -20.0, 20.0);
/// Most ingredients with a temperature of their own.
const MOST_INGREDIENTS: usize = 60;
const INGREDIENT: NumberRange =
    NumberRange::new("temperature_c", "temperature of the ingredient", "°C", -30.0, 60.0);
const RATE: NumberRange = NumberRange::new("rate", "speed of the fermentation", "", 0.2, 4.0);
const OWN_WATER: NumberRange =
    NumberRange::new("hydration_pct", "the formula's own water", "% on flour", 20.0, 140.0);
const BATCH: NumberRange =
    NumberRange::new("batch_kg", "usual batch", "kg of dough", 0.05, 100_000.0);
const TAP: NumberRange = NumberRange::new("tap_c", "tap water", "°C", 0.0, 60.0);

impl RunSettingsInput {
    /// The temperatures typed for ingredients.
    fn ingredients_c(&self, at: &str, faults: &mut ValidationErrors) -> Vec<(Ingredient, f64)> {
        if self.ingredients.len() > MOST_INGREDIENTS {
            let message = format!("up to {MOST_INGREDIENTS} ingredients have a temperature typed");
            faults.push(format!("{at}ingredients"), message);
        }
        let typed = self.ingredients.iter().enumerate();
        typed
            .map(|(number, one)| {
                let at = format!("{at}ingredients[{number}].");
                (one.ingredient, INGREDIENT.check(&one.temperature_c, &at, faults))
            })
            .collect()
    }

    fn check(&self, at: &str, faults: &mut ValidationErrors) -> RunSettings<'static> {
        RunSettings {
            amount: self.amount.as_ref().map(|amount| amount.check(at, faults)),
            division_kg: DIVISION.check_opt(&self.division_kg, at, faults),
            hydration_pct: HYDRATION.check_opt(&self.hydration_pct, at, faults),
            target_c: TARGET.check_opt(&self.target_c, at, faults),
            flour_c: FLOUR.check_opt(&self.flour_c, at, faults),
            room_c: ROOM.check_opt(&self.room_c, at, faults),
            tap_c: TAP.check_opt(&self.tap_c, at, faults),
            jacket: self.jacket,
            ingredients_c: &[],
            rate: RATE.check_opt(&self.rate, at, faults),
        }
    }
}

/// A hand with everything it points at, so that the core can borrow from it.
#[derive(Debug)]
pub struct ScenarioContext {
    pub documents: Documents,
    edited: Option<ScenarioFormula>,
    edited_method: Option<Method>,
    mix_on: NaiveDate,
    run_settings: RunSettings<'static>,
    ingredients_c: Vec<(Ingredient, f64)>,
}

impl ScenarioContext {
    pub async fn load(app: &App, input: &ScenarioInput, at: &str) -> Result<Self> {
        let documents = app.revisions.documents(&input.revision_refs).await?;
        let mut faults = ValidationErrors::default();
        let run_settings = input.run_settings.check(&format!("{at}run_settings."), &mut faults);
        let ingredients_c =
            input.run_settings.ingredients_c(&format!("{at}run_settings."), &mut faults);
        let recorded = &documents.formula.formula;
        let mut renamed = None;
        if let Some(draft) = &input.draft
            && !documents.have_flours_of(&draft.formula)
        {
            let formula = current_names(app, &draft.formula).await?;
            renamed = Some(EditedFormula { formula, ..draft.clone() });
        }
        let draft = renamed.as_ref().or(input.draft.as_ref());
        let edited = draft.and_then(|draft| draft.over(recorded, &mut faults));
        let method_at = format!("{at}method.");
        let edited_method = input.method.as_ref().map(|draft| draft.check(&method_at, &mut faults));
        let mix_on = match input.mix_on {
            Some(day) => day,
            None => app.today().await?,
        };
        let context =
            Self { documents, edited, edited_method, mix_on, run_settings, ingredients_c };
        let missing = context.formula().formula.flours().iter().skip(1).find(|flour| {
            !context.documents.others.iter().any(|other| other.lot.flour.name == flour.name)
        });
        if let Some(flour) = missing {
            let message = format!("no lot of {} was chosen, and the formula has it", flour.name);
            faults.push(format!("{at}revision_refs.other_lots"), message);
        }
        faults.or(context).map_err(Into::into)
    }

    pub fn formula(&self) -> &ScenarioFormula {
        self.edited.as_ref().unwrap_or(&self.documents.formula.formula)
    }

    /// A lot of each flour of the formula, for [`Self::scenario`] to borrow.
    pub fn flours(&self) -> Vec<ScenarioFlour<'_>> {
        let Documents { flour, others, .. } = &self.documents;
        let shares = self.formula().formula.flours();
        let main = shares.first().map_or(FLOUR_PCT, |main| main.share_pct);
        let mut flours = vec![flour.lot.for_scenario(self.mix_on, main, flour.limits())];
        flours.extend(shares.iter().skip(1).filter_map(|FlourShare { name, share_pct }| {
            let other = others.iter().find(|other| other.lot.flour.name == *name)?;
            Some(other.lot.for_scenario(self.mix_on, *share_pct, other.limits()))
        }));
        flours
    }

    pub fn scenario<'a>(&'a self, flours: &'a [ScenarioFlour<'a>]) -> Scenario<'a> {
        Scenario {
            flours,
            formula: self.formula(),
            method: self.edited_method.as_ref().unwrap_or(&self.documents.method.method),
            line: &self.documents.line.line,
            plant: self.documents.parameters(),
            run_settings: RunSettings { ingredients_c: &self.ingredients_c, ..self.run_settings },
            water_correction: self.documents.water_correction(),
        }
    }
}

impl EditedFormula {
    fn over(
        &self,
        recorded: &ScenarioFormula,
        faults: &mut ValidationErrors,
    ) -> Option<ScenarioFormula> {
        let style_points = STYLE.check_or(&self.style_points, recorded.style_points, "", faults);
        let piece_kg = PIECE.check_or(&self.piece_kg, recorded.piece_kg, "", faults);
        let losses = self.losses.check(recorded.losses, "losses.", faults);
        let (hydration_pct, batch_kg) = self.holds.check(faults);
        let formula = Formula::check(&self.formula).map_err(|more| faults.0.extend(more.0)).ok()?;
        Some(ScenarioFormula { formula, style_points, piece_kg, losses, hydration_pct, batch_kg })
    }
}

/// The whole chain for the selected product
#[utoipa::path(post, path = "/api/v1/chain", security(("session" = ["read"])), tag = "chain", request_body = WhatIf,
    responses((status = 200, body = WhatIfAnswer), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn what_if(State(app): State<App>, Json(asked): Json<WhatIf>) -> Result<Json<WhatIfAnswer>> {
    let now = ScenarioContext::load(&app, &asked.now, "now.").await?;
    let flours = now.flours();
    let scenario = now.scenario(&flours);
    let now_chain = chain(&scenario);
    // What could not be used before has nothing to be compared with.
    let before = match &asked.before {
        Some(before) => match ScenarioContext::load(&app, before, "before.").await {
            Err(problem) if !problem.is_refusal() => return Err(problem),
            before => before.ok(),
        },
        None => None,
    };
    let changes = before.map_or_else(Vec::new, |before| {
        let flours = before.flours();
        let was = before.scenario(&flours);
        changes((&was, &figures(&was)), (&scenario, &now_chain))
    });
    Ok(Json(WhatIfAnswer { chain: now_chain, changes }))
}

/// What the figures of the chain rest on
#[utoipa::path(post, path = "/api/v1/chain/derivations", security(("session" = ["read"])), tag = "chain", request_body = ScenarioInput,
    responses((status = 200, body = Derivations), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn why(
    State(app): State<App>,
    Json(asked): Json<ScenarioInput>,
) -> Result<Json<Derivations>> {
    let context = ScenarioContext::load(&app, &asked, "").await?;
    let flours = context.flours();
    let scenario = context.scenario(&flours);
    Ok(Json(derivations(&scenario, &chain(&scenario))))
}
