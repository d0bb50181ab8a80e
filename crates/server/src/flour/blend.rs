//! The blend calculator: lots mixed by share or solved for, and a blend as a flour of its own.

use axum::extract::State;
use ironpeel_core::dough::AllergenStatement;
use ironpeel_core::flour::{
    BlendAnswer, BlendFlourInput, BlendInput, BlendProperty, BlendTargetInput, IntendedUse,
    Mixture, MoistureBasis, Property, Readings, Row, Treatment,
};
use ironpeel_core::units::{DecimalMark, NumberRange, RawNumber, ValidationErrors};
use ironpeel_store::{Flour, Lot, NewBlend};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;
use uuid::Uuid;

use super::PRICE;
use super::lots::{LotInput, LotView, view};
use crate::problem::{Problem, Result};
use crate::request::{Json, Path, Recorded};
use crate::revision::{RevisionView, SignedInput};
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
    /// None where the shares add up to nothing.
    pub mixed: Option<Mixture>,
    /// None while a lot of it has no price.
    pub price_per_t: Option<f64>,
    /// Lots without a price: what is solved meets the targets, and is not said to be cheapest.
    pub unpriced: Vec<String>,
    /// Each property of the blend against its target.
    pub rules: Vec<BlendCalculationCheck>,
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

/// A property of the blend against its target.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct BlendCalculationCheck {
    pub property: BlendProperty,
    pub label: &'static str,
    pub unit: &'static str,
    pub value: Option<f64>,
    pub min: Option<f64>,
    pub max: Option<f64>,
    pub kept: bool,
    /// What each part has of it.
    pub parts: Vec<f64>,
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
    pub revision: RevisionView,
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
#[utoipa::path(post, path = "/api/v1/blends/calculation", tag = "flour", request_body = BlendCalculationInput,
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
    let total: f64 = shares.iter().sum();
    let mixed = (total > 0.0).then(|| mixed(&parts, &shares));
    let prices: Option<Vec<f64>> = parts.iter().map(|part| part.price_per_t).collect();
    let price_per_t = prices.filter(|_| total > 0.0).map(|prices| {
        prices.iter().zip(&shares).map(|(price, share)| price * share).sum::<f64>() / total
    });
    let rules = BlendProperty::ALL.into_iter().map(|property| {
        let target = asked
            .targets
            .iter()
            .find(|target| BlendProperty::named(&target.property) == Some(property));
        let side = |given: fn(&BlendTargetInput) -> &RawNumber| match target.map(given) {
            Some(RawNumber::Number(value)) => Some(*value),
            _ => None,
        };
        let (min, max) = (side(|target| &target.min), side(|target| &target.max));
        let value = mixed.map(|mixed| mixed.get(property));
        BlendCalculationCheck {
            property,
            label: property.label(),
            unit: property.unit(),
            kept: value.is_some_and(|value| {
                min.is_none_or(|min| value >= min - 1e-6)
                    && max.is_none_or(|max| value <= max + 1e-6)
            }),
            value,
            min,
            max,
            parts: parts.iter().map(|part| part.has.get(property)).collect(),
        }
    });
    let rules = rules.collect();
    Ok(Json(BlendCalculation { parts, mixed, price_per_t, unpriced, rules, solved }))
}

/// What a flour is blended of now; null where it is no blend
#[utoipa::path(get, path = "/api/v1/flours/{flour_id}/blend", tag = "flour", params(("flour_id" = Uuid, Path)),
    responses((status = 200, body = Option<BlendView>), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn blend(State(app): State<App>, Path(id): Path<Uuid>) -> Result<Json<Option<BlendView>>> {
    let found = app.store.current_blend(id).await?;
    Ok(Json(found.map(|blend| {
        BlendView {
            revision: blend.revision.into(),
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
#[utoipa::path(put, path = "/api/v1/blends/{flour_id}", tag = "flour", params(("flour_id" = Uuid, Path)), request_body = BlendSaveInput,
    responses((status = 200, body = LotView), (status = "4XX", body = Problem, content_type = "application/problem+json")))]
async fn save(
    State(app): State<App>,
    Path(flour_id): Path<Uuid>,
    Recorded { input, write }: Recorded<BlendSaveInput>,
) -> Result<Json<LotView>> {
    let lots = lots(&app, &input.parts).await?;
    let shares = shares(&input.parts)?;
    let total: f64 = shares.iter().sum();
    let mut faults = ValidationErrors::default();
    let name = input.name.trim();
    if name.is_empty() || name.chars().count() > NAME_MAX {
        faults.push("name", format!("the blend needs a name, up to {NAME_MAX} letters"));
    }
    if (total - 100.0).abs() > 0.5 {
        faults.push("parts", format!("the shares add up to {total:.1} %; they must make 100"));
    }
    if lots.iter().any(|lot| lot.flour.id == flour_id) {
        faults.push("parts", "a blend cannot be made of itself");
    }
    let signed = input.signed.check(input.number > 1, &mut faults);
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
    let new = match lot.check(input.lot_id, input.lot_revision_id) {
        Ok(new) => new,
        Err(ValidationErrors(more)) => {
            let renamed = more.into_iter().map(|mut fault| {
                if fault.field == "code" {
                    fault.field = "lot_code".into();
                }
                fault
            });
            faults.0.extend(renamed.filter(|fault| fault.field != "signed.by"));
            return Err(faults.into());
        }
    };
    faults.or(())?;

    let species = lots.first().map(|lot| lot.flour.species);
    let Some(species) = species else { return Err(no_parts()) };
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
        price_per_t: price(&lots, &shares),
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
    view(&app, lot).await.map(Json)
}

/// What a tonne of the blend costs, where each part's price is on record.
fn price(lots: &[Lot], shares: &[f64]) -> Option<f64> {
    let priced = lots.iter().zip(shares);
    priced.map(|(lot, share)| Some(lot.flour.price_per_t? * share / 100.0)).sum()
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
    let mut assumed = Vec::new();
    let mut of = |property: Property, basis: Option<MoistureBasis>| {
        if let Some(value) = lot.current.readings.value(property, basis) {
            return value;
        }
        let known: Vec<f64> =
            others.iter().filter_map(|other| other.value(property, basis)).collect();
        if known.is_empty() {
            let (code, label, flour) = (&lot.code, property.label(), &lot.flour.name);
            faults.push(
                at,
                format!(
                    "{code} has no {label}, and neither has any other lot of {flour}: measure it, or \
                     leave the lot out"
                ),
            );
            return property.range().0;
        }
        assumed.push(property.label());
        known.iter().sum::<f64>() / known.len() as f64
    };
    let has = Mixture {
        moisture_pct: of(Property::Moisture, None),
        protein_14_pct: of(Property::Protein, Some(MoistureBasis::Fourteen)),
        ash_dm_pct: of(Property::Ash, Some(MoistureBasis::DryMatter)),
        damaged_starch_pct: of(Property::DamagedStarch, Some(MoistureBasis::AsIs)),
        w: of(Property::W, None),
        falling_number_s: of(Property::FallingNumber, None),
    };
    BlendCalculationPart {
        lot_id: lot.id,
        code: lot.code.clone(),
        flour: lot.flour.name.clone(),
        has,
        price_per_t: lot.flour.price_per_t,
        assumed,
    }
}

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

fn mixed(parts: &[BlendCalculationPart], shares: &[f64]) -> Mixture {
    Mixture::of(parts.iter().map(|part| part.has).zip(shares.iter().copied()))
}

/// The certificate of a blended lot, computed from its parts.
fn computed_rows(parts: &[BlendCalculationPart], lots: &[Lot], shares: &[f64]) -> Vec<Row> {
    let blend = mixed(parts, shares);
    let row = |property: Property, value: String, basis: &str| Row {
        property: property.label().into(),
        value,
        unit: property.unit().into(),
        basis: basis.into(),
        method: "computed from the blend".into(),
    };
    let mut rows = vec![
        row(Property::Moisture, format!("{:.2}", blend.moisture_pct), "as is"),
        row(Property::Protein, format!("{:.2}", blend.protein_14_pct), "14 %"),
        row(Property::Ash, format!("{:.3}", blend.ash_dm_pct), "dry matter"),
        row(Property::DamagedStarch, format!("{:.2}", blend.damaged_starch_pct), "as is"),
        row(Property::FallingNumber, format!("{:.0}", blend.falling_number_s), ""),
        row(Property::W, format!("{:.0}", blend.w), ""),
    ];
    // Absorption mixes by dry matter where every part has it.
    let fourteen = Some(MoistureBasis::Fourteen);
    let known: Option<Vec<f64>> =
        lots.iter().map(|lot| lot.current.readings.value(Property::Absorption, fourteen)).collect();
    if let Some(known) = known {
        let weights: Vec<f64> = parts
            .iter()
            .zip(shares)
            .map(|(part, share)| share * (100.0 - part.has.moisture_pct))
            .collect();
        let sum: f64 = known.iter().zip(&weights).map(|(value, weight)| value * weight).sum();
        let value = sum / weights.iter().sum::<f64>();
        rows.push(row(Property::Absorption, format!("{value:.1}"), "14 %"));
    }
    rows
}
