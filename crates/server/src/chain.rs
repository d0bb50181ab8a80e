//! The what-if: the whole chain for the dough in hand, and what moved since before.

use axum::Json;
use axum::extract::State;
use chrono::{NaiveDate, Utc};
use ironpeel_core::chain::{
    Chain, FormulaInHand, Hand, Knobs, Move, Whys, chain, figures, moves, whys,
};
use ironpeel_core::dough::{AmountInput, LineInput};
use ironpeel_core::units::{Bound, Faults, Given};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use crate::problem::{Problem, Result};
use crate::products::formula;
use crate::request::Body;
use crate::state::{App, Documents};

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(what_if)).routes(routes!(why))
}

/// The revisions a dough is made from.
#[expect(clippy::struct_field_names, reason = "the contract's own words")]
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Pins {
    pub lot_revision_id: Uuid,
    pub specification_revision_id: Uuid,
    pub formula_revision_id: Uuid,
    pub method_revision_id: Uuid,
    pub line_revision_id: Uuid,
}

/// What is set for tonight, as it was typed; what is left out comes from the line or the method.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct KnobsInput {
    pub amount: AmountInput,
    /// The scale's division, 0.0001 to 5 kg.
    #[serde(default)]
    pub division_kg: Given,
    /// All the water on flour set by hand, 20 to 140 %.
    #[serde(default)]
    pub hydration_pct: Given,
    /// 0 to 60 °C.
    #[serde(default)]
    pub target_c: Given,
    /// −20 to 60 °C.
    #[serde(default)]
    pub flour_c: Given,
    /// −20 to 60 °C.
    #[serde(default)]
    pub room_c: Given,
    /// 0 to 60 °C.
    #[serde(default)]
    pub tap_c: Given,
}

/// The dough in hand.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct HandInput {
    pub pins: Pins,
    pub knobs: KnobsInput,
    /// When it is to be mixed; today if left out. The lot's age counts to it.
    pub mix_on: Option<NaiveDate>,
    /// The formula's lines as edited and not yet recorded.
    pub lines: Option<Vec<LineInput>>,
}

/// A what-if: the dough in hand, and the one before it.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct WhatIf {
    pub now: HandInput,
    pub before: Option<HandInput>,
}

/// The chain, and what moved.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct WhatIfAnswer {
    pub chain: Chain,
    pub moves: Vec<Move>,
}

const DIVISION: Bound = Bound::new("division_kg", "the scale's division", "kg", 0.0001, 5.0);
const HYDRATION: Bound = Bound::new("hydration_pct", "water on flour", "%", 20.0, 140.0);
const TARGET: Bound = Bound::new("target_c", "target dough temperature", "°C", 0.0, 60.0);
const FLOUR: Bound = Bound::new("flour_c", "flour temperature", "°C", -20.0, 60.0);
const ROOM: Bound = Bound::new("room_c", "room temperature", "°C", -20.0, 60.0);
const TAP: Bound = Bound::new("tap_c", "tap water", "°C", 0.0, 60.0);

impl KnobsInput {
    pub fn check(&self, at: &str, faults: &mut Faults) -> Knobs {
        Knobs {
            amount: self.amount.check(at, faults),
            division_kg: DIVISION.check_opt(&self.division_kg, at, faults),
            hydration_pct: HYDRATION.check_opt(&self.hydration_pct, at, faults),
            target_c: TARGET.check_opt(&self.target_c, at, faults),
            flour_c: FLOUR.check_opt(&self.flour_c, at, faults),
            room_c: ROOM.check_opt(&self.room_c, at, faults),
            tap_c: TAP.check_opt(&self.tap_c, at, faults),
        }
    }
}

/// A hand with everything it points at, so that the core can borrow from it.
#[derive(Debug)]
pub struct Held {
    pub documents: Documents,
    edited: Option<FormulaInHand>,
    age_days: Option<f64>,
    knobs: Knobs,
}

impl Held {
    pub async fn load(app: &App, input: &HandInput, at: &str) -> Result<Self> {
        let documents = documents(app, input.pins).await?;
        let mut faults = Faults::default();
        let knobs = input.knobs.check(&format!("{at}knobs."), &mut faults);
        let recorded = &documents.formula.formula;
        let edited = input.lines.as_ref().and_then(|lines| formula(lines, &mut faults));
        faults.or(())?;
        let edited = edited.map(|formula| {
            FormulaInHand::new(formula, recorded.style_points, recorded.piece_kg, recorded.losses)
        });
        let mix_on = input.mix_on.unwrap_or_else(|| Utc::now().date_naive());
        let milled_on = documents.lot.current.milled_on;
        let age_days = milled_on.map(|milled| (mix_on - milled).num_days().max(0) as f64);
        Ok(Self { documents, edited, age_days, knobs })
    }

    pub fn hand(&self) -> Hand<'_> {
        Hand {
            lot: self.documents.lot.in_hand(),
            limits: self.documents.limits(),
            formula: self.edited.as_ref().unwrap_or(&self.documents.formula.formula),
            method: &self.documents.method.method,
            line: &self.documents.line.line,
            age_days: self.age_days,
            knobs: self.knobs,
        }
    }
}

async fn documents(app: &App, pins: Pins) -> Result<Documents> {
    let revisions = &app.revisions;
    Ok(Documents {
        lot: revisions.lot(pins.lot_revision_id).await?,
        specification: revisions.specification(pins.specification_revision_id).await?,
        formula: revisions.formula(pins.formula_revision_id).await?,
        method: revisions.method(pins.method_revision_id).await?,
        line: revisions.line(pins.line_revision_id).await?,
    })
}

/// The whole chain for the dough in hand
#[utoipa::path(post, path = "/api/v1/chain", tag = "chain", request_body = WhatIf,
    responses((status = 200, body = WhatIfAnswer), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn what_if(State(app): State<App>, Body(asked): Body<WhatIf>) -> Result<Json<WhatIfAnswer>> {
    let now = Held::load(&app, &asked.now, "now.").await?;
    let now_chain = chain(&now.hand());
    // What could not be used before has nothing to be compared with.
    let before = match &asked.before {
        Some(before) => Held::load(&app, before, "before.").await.ok(),
        None => None,
    };
    let moves = before.map_or_else(Vec::new, |before| {
        moves((&before.hand(), &figures(&before.hand())), (&now.hand(), &now_chain))
    });
    Ok(Json(WhatIfAnswer { chain: now_chain, moves }))
}

/// What the figures of the chain rest on
#[utoipa::path(post, path = "/api/v1/chain/why", tag = "chain", request_body = HandInput,
    responses((status = 200, body = Whys), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn why(State(app): State<App>, Body(asked): Body<HandInput>) -> Result<Json<Whys>> {
    let held = Held::load(&app, &asked, "").await?;
    let hand = held.hand();
    Ok(Json(whys(&hand, &figures(&hand))))
}
