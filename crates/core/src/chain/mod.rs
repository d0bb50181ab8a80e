//! The whole chain at once: flour → water → dough → method → floor, each link's result the next
//! link's input. This is what a what-if recomputes.

mod follow;
mod hand;
mod line;
mod moves;
mod rise;
mod sponge;
mod stop;
mod thumb;
mod two_ways;
mod whys;

use serde::Serialize;

pub use follow::{Followed, MarkReached, OtherwiseRisen, ReadOf, followed, otherwise_risen};
pub use hand::{FlourInHand, FormulaInHand, Hand, Knobs};
pub use line::{LineDraft, LineInHand};
pub use moves::{Because, Link, Move, moves};
pub use rise::{
    NoRise, Rise, RiseStage, SeasonalYeast, SpongeRise, rise, seasonal_yeast, yeast_wanted,
};
pub(crate) use rise::{gas_at_oven, stretch_for_gas};
pub use sponge::{Sooner, SpongeFound, SpongeUnknown, SpongeView, sponge_for, sponge_sooner};
pub use stop::{Late, LateAmount, Remedied, Seen, WayOut, late};
pub use thumb::{Measured, Thumb, mixed_dough, thumb};
pub use two_ways::{FlourAsk, TwoWays, WayMade, each_dough, flour_says, two_ways};
pub use whys::{Whys, whys};

use crate::dough::{
    AllergenLine, Columns, Cost, FLOUR_PCT, Ingredient, PartKind, Scaled, Storage, allergen_line,
    cost, scale,
};
use crate::flour::{Assessment, Moisture, Rule, Verdict, concerns};
use crate::heat::{
    Answer, Balance, DOUGH_SPECIFIC_HEAT, Part, PartIs, WaterFrom, YEAST_WATER_C,
    flour_specific_heat,
};
use crate::method::{Plan, Sheet, sheet};
use crate::water::{Addition, FlourPart, Stair, Wanted, stair};

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

/// How the lots stand to their specifications, as far as the links after them care.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FlourLink {
    /// The worst of them.
    pub verdict: Verdict,
    /// The main flour's properties that are not simply in; the certificate has all of them.
    pub concerns: Vec<Rule>,
    /// The other flours of the formula.
    pub others: Vec<OtherFlour>,
}

/// How the lot of another flour of the formula stands.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct OtherFlour {
    pub name: String,
    pub share_pct: f64,
    pub verdict: Verdict,
}

impl FlourLink {
    fn of(flours: &[FlourInHand<'_>]) -> Self {
        let Some((main, others)) = flours.split_first() else {
            return Self { verdict: Verdict::Missing, concerns: Vec::new(), others: Vec::new() };
        };
        let Assessment { verdict, rules } = concerns(main.limits, main.readings);
        let others: Vec<OtherFlour> = others
            .iter()
            .map(|other| OtherFlour {
                name: other.name.into(),
                share_pct: other.share_pct,
                verdict: concerns(other.limits, other.readings).verdict,
            })
            .collect();
        let verdict = others.iter().map(|other| other.verdict).fold(verdict, Verdict::max);
        Self { verdict, concerns: rules, others }
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
    /// Of that, in the final dough.
    pub final_water_kg: f64,
    /// Water weighed over flour.
    pub formula_hydration_pct: f64,
    /// With the water other ingredients bring.
    pub effective_hydration_pct: f64,
    /// Where the dough has parts or several flours: what goes into which.
    pub columns: Option<Columns>,
    pub cost: Cost,
    pub allergens: AllergenLine,
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
    /// Where the liquid water comes from, by mass.
    pub water_from: Vec<WaterFrom>,
    /// Everything but flour and water, with how warm it comes to the mixer.
    pub ingredients: Vec<IngredientAt>,
    pub cautions: Vec<String>,
}

/// An ingredient with its temperature tonight.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct IngredientAt {
    pub ingredient: Ingredient,
    pub label: String,
    pub kg: f64,
    pub kept: Storage,
    pub temperature_c: f64,
}

/// What the method asks of mixer and clock.
#[derive(Debug, Clone, Default, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct MethodLink {
    /// The process as it is made tonight, edited or not.
    pub process_label: &'static str,
    pub mixing_min: f64,
    pub mixing_kj_per_kg: f64,
    pub total_min: f64,
}

impl Chain {
    /// No link computed.
    pub(crate) fn empty() -> Self {
        Self {
            flour: FlourLink::of(&[]),
            water: None,
            dough: None,
            heat: None,
            method: MethodLink::default(),
            sheet: None,
            trouble: None,
        }
    }
}

/// Computes every link for the dough in hand, and the sheet the floor works from.
pub fn chain(hand: &Hand<'_>) -> Chain {
    let mut chain = figures(hand);
    let moisture = hand.moisture();
    if let (Some(water), Some(dough), Some(moisture)) = (&chain.water, &chain.dough, moisture) {
        let heat = heat(hand, moisture, dough, chain.method.mixing_kj_per_kg);
        chain.sheet = sheet(&Plan {
            formula: &hand.formula.formula,
            library: &hand.numbers.library,
            method: hand.method,
            mixer: &hand.line.mixer,
            scaled: &dough.scaled,
            weigh_pct: water.weigh_pct,
            hold_back: water.hold_back.as_ref(),
            heat: &heat.answer,
            target_c: heat.target_c,
            division_kg: hand.division_kg(),
        })
        .ok();
        chain.heat = Some(heat);
    }
    chain
}

/// Computes what a chain is compared by: every link but the heat's answer and the sheet. [`moves`]
/// closes the heat balances itself.
pub fn figures(hand: &Hand<'_>) -> Chain {
    let mut chain =
        Chain { flour: FlourLink::of(hand.flours), method: method(hand), ..Chain::empty() };
    if let Err(trouble) = run(hand, &mut chain) {
        chain.trouble = Some(trouble);
    }
    chain
}

fn run(hand: &Hand<'_>, chain: &mut Chain) -> Result<(), Trouble> {
    let cannot = |link, says: String| Trouble { link, says };
    let flours = hand.parts().map_err(|name| {
        let says = format!("the certificate of {name} has no moisture: nothing can be moved to it");
        cannot(Link::Flour, says)
    })?;
    let water = water(hand, &flours).map_err(|error| cannot(Link::Water, error.to_string()))?;
    if let Some(too_wet) = water.cautions.iter().find(|caution| caution.key == "too_wet") {
        return Err(cannot(Link::Dough, too_wet.says.clone()));
    }
    let formula = &hand.formula.formula;
    let columns =
        formula.columns(water.weigh_pct).map_err(|early| cannot(Link::Dough, early.to_string()))?;
    chain.dough = Some(dough(hand, &water, columns));
    chain.water = Some(water);
    Ok(())
}

fn water(hand: &Hand<'_>, flours: &[FlourPart<'_>]) -> Result<Stair, crate::water::NoBase> {
    let library = &hand.numbers.library;
    let lines: Vec<Addition<'_>> = hand
        .formula
        .formula
        .additions()
        .map(|line| Addition { facts: library.facts(line.ingredient), pct: line.pct })
        .collect();
    let wanted = Wanted {
        process: hand.method.process,
        lines: &lines,
        style_points: hand.formula.style_points,
        set_by_hand_pct: hand.knobs.hydration_pct.or(hand.formula.hydration_pct),
        machine_divided: hand.method.machine_divided,
        rules: &hand.numbers.rules,
        model: &hand.numbers.model,
    };
    stair(flours, &wanted)
}

fn dough(hand: &Hand<'_>, water: &Stair, columns: Columns) -> DoughLink {
    let FormulaInHand { formula, piece_kg, losses, .. } = hand.formula;
    let total_pct = formula.total_pct(water.weigh_pct);
    let max_kg = hand.line.mixer.max_kg;
    let scaled = scale(hand.knobs.amount, *piece_kg, max_kg, *losses, total_pct);
    let flour_kg = scaled.dough_kg / total_pct * FLOUR_PCT;
    let prices: Vec<(f64, Option<f64>)> =
        hand.flours.iter().map(|flour| (flour.share_pct, flour.price_per_kg)).collect();
    let flours: Vec<_> = hand.flours.iter().map(FlourInHand::allergens).collect();
    let library = &hand.numbers.library;
    DoughLink {
        scaled,
        flour_kg,
        water_kg: flour_kg * water.weigh_pct / FLOUR_PCT,
        final_water_kg: flour_kg * columns.final_dough.water_pct / FLOUR_PCT,
        formula_hydration_pct: water.weigh_pct,
        effective_hydration_pct: water.floor_pct,
        cost: cost(formula, water.weigh_pct, &scaled, &prices, library),
        allergens: allergen_line(formula, &flours, library),
        columns: (!formula.parts().is_empty() || !formula.flours().is_empty()).then_some(columns),
    }
}

fn method(hand: &Hand<'_>) -> MethodLink {
    MethodLink {
        process_label: hand.method.process.label(),
        mixing_min: hand.method.mixing_min(),
        mixing_kj_per_kg: hand.method.mixing_kj_per_kg(&hand.line.mixer),
        total_min: hand.method.total_min(),
    }
}

/// The heat balance of the final dough, which its parts meet at temperatures of their own.
fn balance(hand: &Hand<'_>, moisture: Moisture, dough: &DoughLink, energy: f64) -> Balance {
    let Knobs { target_c, flour_c, room_c, tap_c, .. } = hand.knobs;
    let formula = &hand.formula.formula;
    let early_flour_pct: f64 = formula.parts().iter().map(|part| part.flour_pct).sum();
    let final_flour_kg = dough.flour_kg * (FLOUR_PCT - early_flour_pct) / FLOUR_PCT;
    let library = &hand.numbers.library;
    let mut parts = vec![Part {
        name: "flour".into(),
        kg: final_flour_kg,
        temperature_c: flour_c.unwrap_or(hand.line.flour_c),
        specific_heat: flour_specific_heat(moisture),
        is: PartIs::Flour,
    }];
    parts.extend(formula.additions().map(|line| {
        let facts = library.facts(line.ingredient);
        let kept = facts.kept.celsius().map(|usual| match facts.kept {
            Storage::Refrigerator => hand.line.water.refrigerator_c.unwrap_or(usual),
            Storage::Room | Storage::Freezer => usual,
        });
        let cold = hand.knobs.ingredient_c(line.ingredient).or(kept);
        Part {
            name: facts.label.clone(),
            kg: dough.flour_kg * formula.in_final(line) / FLOUR_PCT,
            temperature_c: cold.unwrap_or(room_c.unwrap_or(hand.line.room_c)),
            specific_heat: facts.specific_heat,
            is: if cold.is_some() { PartIs::Kept } else { PartIs::Other },
        }
    }));
    parts.extend(formula.parts().iter().map(|part| Part {
        name: part.name.clone().into(),
        kg: dough.flour_kg * part.total_pct() / FLOUR_PCT,
        temperature_c: part.temperature_c.unwrap_or(part.kind.usual_c().typical),
        specific_heat: DOUGH_SPECIFIC_HEAT,
        is: PartIs::Preferment,
    }));
    let jacket = hand.line.mixer.jacket_kj_per_kg_min.map(|each| each * hand.method.mixing_min());
    let taken = jacket.filter(|_| hand.knobs.jacket).map_or(0.0, |jacket| jacket.min(energy));
    Balance {
        parts,
        water_kg: dough.final_water_kg,
        tap_c: tap_c.unwrap_or(hand.line.tap_c),
        target_c: target_c.unwrap_or(hand.method.target_c),
        mixing_kj_per_kg: energy - taken,
        jacket_kj_per_kg: jacket.filter(|_| !hand.knobs.jacket),
        mixing_min: Some(hand.method.mixing_min()),
        flour_wetted_kg: final_flour_kg,
        chilled_min_c: hand.line.water.coldest_c(tap_c.unwrap_or(hand.line.tap_c)),
        hottest_c: hand.line.water.hottest_c(tap_c.unwrap_or(hand.line.tap_c)),
        ice_c: 0.0,
        max_ice_pct: hand.line.water.max_ice_pct,
    }
}

fn heat(hand: &Hand<'_>, moisture: Moisture, dough: &DoughLink, energy: f64) -> HeatLink {
    heat_of(hand, &balance(hand, moisture, dough, energy))
}

/// The dough stage's heat with its sponge so warm; none where the chain stops before the mixer.
pub(crate) fn heat_with_sponge(hand: &Hand<'_>, chain: &Chain, sponge_c: f64) -> Option<HeatLink> {
    let dough = chain.dough.as_ref()?;
    let mut balance = balance(hand, hand.moisture()?, dough, chain.method.mixing_kj_per_kg);
    let sponges = hand.formula.formula.parts().iter().rev();
    // Parts made before come last in the balance, in the formula's order.
    for (part, heated) in sponges.zip(balance.parts.iter_mut().rev()) {
        if part.kind == PartKind::Sponge {
            heated.temperature_c = sponge_c;
        }
    }
    Some(heat_of(hand, &balance))
}

/// The lines of the balance: they come after the flour, in the formula's order.
fn ingredients_at(hand: &Hand<'_>, balance: &Balance) -> Vec<IngredientAt> {
    let lines = hand.formula.formula.additions().zip(balance.parts.iter().skip(1));
    lines
        .filter(|(_, part)| part.kg > 0.0)
        .map(|(line, part)| IngredientAt {
            ingredient: line.ingredient,
            label: part.name.to_string(),
            kg: part.kg,
            kept: hand.numbers.library.facts(line.ingredient).kept,
            temperature_c: part.temperature_c,
        })
        .collect()
}

fn heat_of(hand: &Hand<'_>, balance: &Balance) -> HeatLink {
    let mut answer = balance.solve();
    answer.levers.extend(balance.at_hand());
    let has_yeast = hand
        .formula
        .formula
        .lines()
        .iter()
        .any(|line| line.ingredient.is_yeast() && line.pct > 0.0);
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
        water_from: hand.line.water.mixed(answer.water_kg, answer.water_c, balance.tap_c),
        ingredients: ingredients_at(hand, balance),
        cautions,
        answer,
    }
}
