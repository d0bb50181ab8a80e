//! The blend calculator: lots mixed by share or solved for, and a blend as a flour of its own.

use axum::extract::State;
use ironpeel_core::dough::AllergenStatement;
use ironpeel_core::flour::{
    BlendAnswer, BlendCheck, BlendFlourInput, BlendInput, BlendShares, BlendTargetInput,
    IntendedUse, LotInBlend, Mixture, Property, Readings, Row, Treatment, blend_price,
    blended_certificate,
};
use ironpeel_core::units::{DecimalMark, NumberRange, RawNumber, ValidationErrors};
use ironpeel_store::{Flour, Lot, NewBlend, Revision};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use super::PRICE;
use super::lots::{LotInput, LotView, view_of};
use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Recorded};
use crate::revision::SignedInput;
use crate::state::App;

const MOST_PARTS: usize = 20;
/// Past lots a figure is taken from that a lot lacks.
const HISTORY: i64 = 30;
const NAME_MAX: usize = 80;
/// The mill of a blend.
const OWN: &str = "own blend";

pub fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(calculate)).routes(routes!(blend)).routes(routes!(save))
}

/// A lot of the blend.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct BlendCalculationPartInput {
    pub lot_id: Uuid,
    /// As-is mass, 0 to 100 %.
    #[serde(default)]
    pub share_pct: RawNumber,
    #[serde(default)]
    pub price_per_t: RawNumber,
    #[serde(default)]
    pub min_share_pct: RawNumber,
    #[serde(default)]
    pub max_share_pct: RawNumber,
}

/// Lots with their shares, and what is wanted of their blend.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct BlendCalculationInput {
    /// 1 to 20.
    pub parts: Vec<BlendCalculationPartInput>,
    #[serde(default)]
    pub targets: Vec<BlendTargetInput>,
}

/// What the shares make, and the cheapest shares that would meet the targets.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct BlendCalculation {
    pub parts: Vec<BlendCalculationPart>,
    pub shares: BlendShares,
    /// None where the shares add up to nothing.
    pub mixed: Option<Mixture>,
    /// None while a lot of it has no price.
    pub price_per_t: Option<f64>,
    /// Lots without a price: what is solved meets the targets, and is not said to be cheapest.
    pub unpriced: Vec<String>,
    /// Each property of the blend against its target.
    pub rules: Vec<BlendCheck>,
    pub solved: BlendAnswer,
}

/// A lot of the blend with what it brings.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct BlendCalculationPart {
    pub lot_id: Uuid,
    pub code: String,
    pub flour: String,
    pub has: Mixture,
    /// As given, else its flour's on record.
    pub price_per_t: Option<f64>,
    /// Properties its certificate lacks, taken from other lots of the same flour.
    pub assumed: Vec<&'static str>,
}

/// A blend to be recorded: a flour of its own, and a lot of it from the lots used.
#[derive(Debug, Clone, Deserialize, ToSchema)]
pub struct BlendSaveInput {
    #[serde(default)]
    pub name: String,
    /// The number after the revision that was looked at.
    pub number: i32,
    pub revision_id: Uuid,
    pub parts: Vec<BlendCalculationPartInput>,
    pub lot_id: Uuid,
    pub lot_revision_id: Uuid,
    #[serde(default)]
    pub lot_code: String,
    #[serde(default)]
    pub tonnes: String,
    pub signed: SignedInput,
}

/// What a flour is blended of.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct BlendView {
    pub revision: Revision,
    pub parts: Vec<BlendPartView>,
}

/// A flour's share of a blend.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct BlendPartView {
    pub flour_id: Uuid,
    pub flour: String,
    pub share_pct: f64,
}

const SHARE: NumberRange = NumberRange::new("share_pct", "share", "%", 0.0, 100.0);

/// Mixes lots by their shares and solves for the cheapest within the targets
#[utoipa::path(post, path = "/api/v1/blends/calculation", security(("session" = ["read"])), tag = "flour", request_body = BlendCalculationInput,
    responses((status = 200, body = BlendCalculation), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn calculate(
    State(app): State<App>,
    Json(input): Json<BlendCalculationInput>,
) -> Result<Json<BlendCalculation>> {
    let shares = shares(&input.parts)?;
    let parts = parts(&app, &input.parts).await?;
    let unpriced: Vec<String> = parts
        .iter()
        .filter(|part| part.price_per_t.is_none())
        .map(|part| part.code.clone())
        .collect();
    let flours = parts.iter().zip(&input.parts).map(|(part, given)| {
        // Where one has no price, none is cheaper than another.
        let price = part.price_per_t.filter(|_| unpriced.is_empty());
        part.as_flour(given, price.unwrap_or_default())
    });
    let asked = BlendInput { flours: flours.collect(), targets: input.targets.clone() };
    let solved = asked.compute()?;
    let has: Vec<Mixture> = parts.iter().map(|part| part.has).collect();
    let prices: Vec<Option<f64>> = parts.iter().map(|part| part.price_per_t).collect();
    let mixed = shares
        .iter()
        .any(|share| *share > 0.0)
        .then(|| Mixture::of(has.iter().copied().zip(shares.iter().copied())));
    Ok(Json(BlendCalculation {
        rules: BlendCheck::all(mixed.as_ref(), &has, &asked.targets),
        price_per_t: blend_price(&prices, &shares),
        shares: BlendShares::of(&shares),
        mixed,
        parts,
        unpriced,
        solved,
    }))
}

/// What a flour is blended of now; null where it is no blend
#[utoipa::path(get, path = "/api/v1/flours/{flour_id}/blend", security(("session" = ["read"])), tag = "flour", params(("flour_id" = Uuid, Path)),
    responses((status = 200, body = Option<BlendView>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn blend(State(app): State<App>, Path(id): Path<Uuid>) -> Result<Json<Option<BlendView>>> {
    let found = app.store.current_blend(id).await?;
    Ok(Json(found.map(|blend| {
        BlendView {
            revision: blend.revision,
            parts: blend
                .parts
                .into_iter()
                .map(|part| BlendPartView {
                    flour_id: part.flour_id,
                    flour: part.flour,
                    share_pct: part.share_pct,
                })
                .collect(),
        }
    })))
}

/// Records a blend as a flour of its own and a lot of it; sent twice, each is stored once
#[utoipa::path(put, path = "/api/v1/blends/{flour_id}", security(("session" = ["change"])), tag = "flour", params(("flour_id" = Uuid, Path)), request_body = BlendSaveInput,
    responses((status = 200, body = LotView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn save(
    State(app): State<App>,
    Path(flour_id): Path<Uuid>,
    Recorded { input, write }: Recorded<BlendSaveInput>,
) -> Result<Json<LotView>> {
    let lots = lots(&app, &input.parts).await?;
    let shares = shares(&input.parts)?;
    let whole = BlendShares::of(&shares);
    let mut faults = ValidationErrors::default();
    let name = input.name.trim();
    if name.is_empty() || name.chars().count() > NAME_MAX {
        faults.push("name", format!("the blend needs a name, up to {NAME_MAX} letters"));
    }
    if !whole.is_whole {
        let total = whole.total_pct;
        faults.push("parts", format!("the shares add up to {total:.1} %; they must make 100"));
    }
    if lots.iter().any(|lot| lot.flour.id == flour_id) {
        faults.push("parts", "a blend cannot be made of itself");
    }
    let signed = input.signed.check(&write.author, input.number > 1, &mut faults);
    let parts = parts_of(&app, &lots).await?;
    let lot = LotInput {
        flour_id,
        code: input.lot_code.clone(),
        milled: String::new(),
        delivered: app.today().await?.to_string(),
        tonnes: input.tonnes.clone(),
        number: 1,
        decimal_mark: Some(DecimalMark::Point),
        rows: computed_rows(&parts, &lots, &shares),
        signed: input.signed.clone(),
    };
    let new = match lot.check(input.lot_id, input.lot_revision_id, &write.author) {
        Ok(new) => new,
        Err(ValidationErrors(more)) => {
            let renamed = more.into_iter().map(|mut fault| {
                if fault.field == "code" {
                    fault.field = "lot_code".into();
                }
                fault
            });
            faults.0.extend(renamed);
            return Err(faults.into());
        }
    };
    faults.or(())?;

    let species = lots.first().map(|lot| lot.flour.species);
    let Some(species) = species else { return Err(no_parts()) };
    let prices: Vec<Option<f64>> = lots.iter().map(|lot| lot.flour.price_per_t).collect();
    let flour = Flour {
        id: flour_id,
        mill: OWN.into(),
        name: name.into(),
        species,
        note: "blended here".into(),
        hardness: None,
        extraction_pct: None,
        treatment: Treatment::None,
        intended_use: IntendedUse::General,
        price_per_t: blend_price(&prices, &shares),
        allergens: allergens(&lots),
    };
    let parts: Vec<(Uuid, Uuid, f64)> =
        lots.iter().zip(&shares).map(|(lot, share)| (lot.id, lot.flour.id, *share)).collect();
    let blend = NewBlend {
        flour: &flour,
        revision_id: input.revision_id,
        number: input.number,
        parts: &parts,
        lot: &new,
        signed: &signed,
    };
    write.of(&app, input.revision_id).make_blend(&blend).await?;
    let lot = app.store.lot_at(input.lot_revision_id).await?;
    view_of(&app, lot).await.map(Json)
}

/// What its parts state together; none where one states nothing.
fn allergens(lots: &[Lot]) -> Option<AllergenStatement> {
    let mut all = AllergenStatement::default();
    for lot in lots {
        let stated = lot.flour.allergens.as_ref()?;
        all.contains.extend(&stated.contains);
        all.may_contain.extend(&stated.may_contain);
    }
    Some(all.tidy())
}

fn no_parts() -> Problem {
    Problem::field("parts", format!("a blend is of 1 to {MOST_PARTS} lots"))
}

async fn lots(app: &App, given: &[BlendCalculationPartInput]) -> Result<Vec<Lot>> {
    if !(1..=MOST_PARTS).contains(&given.len()) {
        return Err(no_parts());
    }
    let ids: Vec<Uuid> = given.iter().map(|part| part.lot_id).collect();
    Ok(app.store.lots_by_id(&ids).await?)
}

async fn parts(
    app: &App,
    given: &[BlendCalculationPartInput],
) -> Result<Vec<BlendCalculationPart>> {
    let mut faults = ValidationErrors::default();
    let prices: Vec<Option<f64>> = (0..)
        .zip(given)
        .map(|(at, part)| PRICE.check_opt(&part.price_per_t, &format!("parts[{at}]."), &mut faults))
        .collect();
    faults.or(())?;
    let mut parts = parts_of(app, &lots(app, given).await?).await?;
    for (part, price) in parts.iter_mut().zip(prices) {
        part.price_per_t = price.or(part.price_per_t);
    }
    Ok(parts)
}

async fn parts_of(app: &App, lots: &[Lot]) -> Result<Vec<BlendCalculationPart>> {
    let flours: Vec<Uuid> = lots.iter().map(|lot| lot.flour.id).collect();
    let newest = app.store.newest_readings(&flours, HISTORY).await?;
    let mut faults = ValidationErrors::default();
    let parts = lots.iter().enumerate().map(|(at, lot)| {
        let others = newest.get(&lot.flour.id).map_or(&[][..], Vec::as_slice);
        part_of(lot, others, &format!("parts[{at}]"), &mut faults)
    });
    let parts = parts.collect();
    faults.or(parts).map_err(Into::into)
}

/// What a lot brings; what its certificate lacks is the mean of the flour's other lots.
fn part_of(
    lot: &Lot,
    others: &[Readings],
    at: &str,
    faults: &mut ValidationErrors,
) -> BlendCalculationPart {
    let found = LotInBlend::of(&lot.current.readings, others).unwrap_or_else(|lacks| {
        let (code, flour) = (&lot.code, &lot.flour.name);
        for property in lacks {
            faults.push(
                at,
                format!(
                    "{code} has no {}, and neither has any other lot of {flour}: measure it, or \
                     leave the lot out",
                    property.label()
                ),
            );
        }
        LotInBlend { has: NOTHING, assumed: Vec::new() }
    });
    BlendCalculationPart {
        lot_id: lot.id,
        code: lot.code.clone(),
        flour: lot.flour.name.clone(),
        has: found.has,
        price_per_t: lot.flour.price_per_t,
        assumed: found.assumed.into_iter().map(Property::label).collect(),
    }
}

/// Beside a fault: nothing is computed with it.
const NOTHING: Mixture = Mixture {
    moisture_pct: 0.0,
    protein_14_pct: 0.0,
    ash_dm_pct: 0.0,
    damaged_starch_pct: 0.0,
    w: 0.0,
    falling_number_s: 0.0,
};

impl BlendCalculationPart {
    fn as_flour(&self, given: &BlendCalculationPartInput, price_per_t: f64) -> BlendFlourInput {
        BlendFlourInput {
            name: self.code.clone(),
            price_per_t: price_per_t.into(),
            moisture_pct: self.has.moisture_pct.into(),
            protein_14_pct: self.has.protein_14_pct.into(),
            ash_dm_pct: self.has.ash_dm_pct.into(),
            damaged_starch_pct: self.has.damaged_starch_pct.into(),
            w: self.has.w.into(),
            falling_number_s: self.has.falling_number_s.into(),
            min_share_pct: given.min_share_pct.clone(),
            max_share_pct: given.max_share_pct.clone(),
        }
    }
}

fn shares(given: &[BlendCalculationPartInput]) -> std::result::Result<Vec<f64>, ValidationErrors> {
    let mut faults = ValidationErrors::default();
    let shares = given.iter().enumerate().map(|(at, part)| {
        SHARE.check_or(&part.share_pct, 0.0, &format!("parts[{at}]."), &mut faults)
    });
    let shares = shares.collect();
    faults.or(shares)
}

/// The certificate of a blended lot, computed from its parts.
fn computed_rows(parts: &[BlendCalculationPart], lots: &[Lot], shares: &[f64]) -> Vec<Row> {
    let parts = parts.iter().zip(lots).zip(shares);
    let parts: Vec<_> =
        parts.map(|((part, lot), share)| (part.has, &lot.current.readings, *share)).collect();
    blended_certificate(&parts)
}
