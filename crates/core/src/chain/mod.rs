//! The whole chain at once: flour → water → dough → method → floor, each link's result the next
//! link's input. This is what a what-if recomputes.

mod hand;
mod moves;
mod whys;

use serde::Serialize;

pub use hand::{FormulaInHand, Hand, Knobs, LineInHand, LotInHand};
pub use moves::{Because, Link, Move, moves};
pub use whys::{Whys, whys};

use crate::dough::{FLOUR_PCT, Ingredient, Scaled, scale};
use crate::flour::{Assessment, Moisture, MoistureBasis, Property, Rule, Verdict, concerns};
use crate::heat::{Answer, Balance, Part, YEAST_WATER_C, flour_specific_heat};
use crate::method::{Plan, Sheet, sheet};
use crate::water::{Flour, Stair, Wanted, stair};

/// Every link's result for the dough in hand.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Chain {
    pub flour: FlourLink,
    /// None where the chain cannot go on; `trouble` says why.
    pub water: Option<Stair>,
    pub dough: Option<DoughLink>,
    pub heat: Option<HeatLink>,
    pub method: MethodLink,
    pub sheet: Option<Sheet>,
    /// The first link that cannot stand, in words.
    pub trouble: Option<Trouble>,
}

/// How the lot stands to its specification, as far as the links after it care.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FlourLink {
    pub verdict: Verdict,
    /// The properties that are not simply in; the certificate has all of them.
    pub concerns: Vec<Rule>,
}

impl FlourLink {
    fn of(Assessment { verdict, rules }: Assessment) -> Self {
        Self { verdict, concerns: rules }
    }
}

/// Why the chain cannot go on.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Trouble {
    pub link: Link,
    pub says: String,
}

/// The dough of the run and of one mix.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct DoughLink {
    #[serde(flatten)]
    pub scaled: Scaled,
    /// Of one dough.
    pub flour_kg: f64,
    /// Of one dough, to weigh, ice included.
    pub water_kg: f64,
    /// Water weighed over flour.
    pub formula_hydration_pct: f64,
    /// With the water other ingredients bring.
    pub effective_hydration_pct: f64,
}

/// The heat balance of one dough and what it rests on.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct HeatLink {
    #[serde(flatten)]
    pub answer: Answer,
    pub target_c: f64,
    pub flour_c: f64,
    pub room_c: f64,
    pub tap_c: f64,
    pub cautions: Vec<String>,
}

/// What the method asks of mixer and clock.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct MethodLink {
    pub mixing_min: f64,
    pub mixing_kj_per_kg: f64,
    pub total_min: f64,
}

/// Computes every link for the dough in hand, and the sheet the floor works from.
pub fn chain(hand: &Hand<'_>) -> Chain {
    let mut chain = figures(hand);
    let moisture = hand.lot.readings.moisture();
    if let (Some(water), Some(dough), Some(moisture)) = (&chain.water, &chain.dough, moisture) {
        let heat = heat(hand, moisture, dough, chain.method.mixing_kj_per_kg);
        chain.sheet = Some(sheet(&Plan {
            formula: &hand.formula.formula,
            method: hand.method,
            mixer: &hand.line.mixer,
            scaled: &dough.scaled,
            weigh_pct: water.weigh_pct,
            heat: &heat.answer,
            target_c: heat.target_c,
            division_kg: hand.division_kg(),
        }));
        chain.heat = Some(heat);
    }
    chain
}

/// Computes what a chain is compared by: every link but the heat's answer and the sheet. [`moves`]
/// closes the heat balances itself.
pub fn figures(hand: &Hand<'_>) -> Chain {
    let readings = hand.lot.readings;
    let mut chain = Chain {
        flour: FlourLink::of(concerns(hand.limits, readings)),
        water: None,
        dough: None,
        heat: None,
        method: method(hand),
        sheet: None,
        trouble: None,
    };
    if let Err(trouble) = run(hand, readings.moisture(), &mut chain) {
        chain.trouble = Some(trouble);
    }
    chain
}

fn run(hand: &Hand<'_>, moisture: Option<Moisture>, chain: &mut Chain) -> Result<(), Trouble> {
    let cannot = |link, says: String| Trouble { link, says };
    let moisture = moisture.ok_or_else(|| {
        cannot(
            Link::Flour,
            "the certificate has no moisture: nothing can be moved to the lot".into(),
        )
    })?;
    let water = stair(&flour(hand, moisture), &wanted(hand))
        .map_err(|error| cannot(Link::Water, error.to_string()))?;
    let weigh_pct = water.weigh_pct;
    if weigh_pct < 0.0 {
        let says = "the other ingredients bring more water than the flour wants".into();
        return Err(cannot(Link::Dough, says));
    }
    let dough = dough(hand, &water);
    chain.water = Some(water);
    chain.dough = Some(dough);
    Ok(())
}

fn flour(hand: &Hand<'_>, moisture: Moisture) -> Flour {
    let readings = hand.lot.readings;
    Flour {
        moisture,
        absorption_14_pct: readings.value(Property::Absorption, Some(MoistureBasis::Fourteen)),
        species: hand.lot.species,
        age_days: hand.age_days,
        damaged_starch_pct: readings.value(Property::DamagedStarch, Some(MoistureBasis::AsIs)),
        w: readings.value(Property::W, None),
    }
}

fn wanted<'a>(hand: &'a Hand<'_>) -> Wanted<'a> {
    Wanted {
        process: hand.method.process,
        lines: hand.formula.additions(),
        style_points: hand.formula.style_points,
        set_by_hand_pct: hand.knobs.hydration_pct,
        machine_divided: hand.method.machine_divided,
    }
}

fn dough(hand: &Hand<'_>, water: &Stair) -> DoughLink {
    let FormulaInHand { formula, piece_kg, losses, .. } = hand.formula;
    let scaled = scale(hand.knobs.amount, *piece_kg, hand.line.mixer.max_kg, *losses);
    let flour_kg = scaled.dough_kg / formula.total_pct(water.weigh_pct) * FLOUR_PCT;
    DoughLink {
        scaled,
        flour_kg,
        water_kg: flour_kg * water.weigh_pct / FLOUR_PCT,
        formula_hydration_pct: water.weigh_pct,
        effective_hydration_pct: water.floor_pct,
    }
}

fn method(hand: &Hand<'_>) -> MethodLink {
    MethodLink {
        mixing_min: hand.method.mixing_min(),
        mixing_kj_per_kg: hand.method.mixing_kj_per_kg(&hand.line.mixer),
        total_min: hand.method.total_min(),
    }
}

fn balance(hand: &Hand<'_>, moisture: Moisture, dough: &DoughLink, energy: f64) -> Balance {
    let Knobs { target_c, flour_c, room_c, tap_c, .. } = hand.knobs;
    let parts = hand.formula.formula.lines().iter().map(|line| {
        let is_flour = line.ingredient == Ingredient::Flour;
        Part {
            name: line.ingredient.label().into(),
            kg: dough.flour_kg * line.pct / FLOUR_PCT,
            temperature_c: if is_flour {
                flour_c.unwrap_or(hand.line.flour_c)
            } else {
                room_c.unwrap_or(hand.line.room_c)
            },
            specific_heat: if is_flour {
                flour_specific_heat(moisture)
            } else {
                line.ingredient.specific_heat()
            },
            is_flour,
        }
    });
    Balance {
        parts: parts.collect(),
        water_kg: dough.water_kg,
        tap_c: tap_c.unwrap_or(hand.line.tap_c),
        target_c: target_c.unwrap_or(hand.method.target_c),
        mixing_kj_per_kg: energy,
        mixing_min: Some(hand.method.mixing_min()),
        flour_wetted_kg: dough.flour_kg,
        chilled_min_c: hand.line.chilled_min_c,
        ice_c: 0.0,
        max_ice_pct: hand.line.max_ice_pct,
    }
}

fn heat(hand: &Hand<'_>, moisture: Moisture, dough: &DoughLink, energy: f64) -> HeatLink {
    let balance = balance(hand, moisture, dough, energy);
    let answer = balance.solve();
    let has_yeast = hand.formula.formula.lines().iter().any(|line| {
        matches!(line.ingredient, Ingredient::InstantYeast | Ingredient::FreshYeast)
            && line.pct > 0.0
    });
    let mut cautions = Vec::new();
    if has_yeast && answer.water_c > YEAST_WATER_C {
        cautions.push(format!(
            "Water above {YEAST_WATER_C:.0} °C must not touch the yeast: flour and water first."
        ));
    }
    if answer.ice_kg > 0.0 {
        cautions.push("Flake the ice; no lump may be left when development starts.".into());
    }
    HeatLink {
        target_c: balance.target_c,
        flour_c: hand.knobs.flour_c.unwrap_or(hand.line.flour_c),
        room_c: hand.knobs.room_c.unwrap_or(hand.line.room_c),
        tap_c: balance.tap_c,
        cautions,
        answer,
    }
}
