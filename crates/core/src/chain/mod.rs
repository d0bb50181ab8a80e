//! The whole chain at once: flour → water → dough → method → floor, each link's result the next
//! link's input. This is what a what-if recomputes.

mod changes;
mod derivations;
mod follow;
mod friction_factor;
mod line;
mod process_comparison;
mod rise;
mod scenario;
mod sponge;
mod stoppage;
mod way;

use serde::Serialize;

pub use changes::{Contribution, FigureChange, Link, changes};
pub use derivations::{Derivations, derivations};
pub use follow::{
    FermentationTracking, MarkReached, OtherwiseRisen, ReadOf, fermentation_tracking,
    otherwise_risen,
};
pub use friction_factor::{FrictionFactor, Measured, friction_factor, mixed_dough};
pub use line::{LineDraft, ScenarioLine};
pub use process_comparison::{
    FlourRequirement, ProcessComparison, ProcessOutcome, each_dough, flour_strength,
    process_comparison,
};
pub use rise::{Rise, RiseStage, SeasonalYeast, rise, seasonal_yeast, yeast_wanted};
pub(crate) use rise::{gas_at_oven, stretch_for_gas};
pub use scenario::{RunSettings, Scenario, ScenarioFlour, ScenarioFormula};
pub use sponge::{
    SpongeAcceleration, SpongeFound, SpongeUnknown, SpongeView, sponge_acceleration, sponge_for,
};
pub use stoppage::{DelayedAmount, DelayedBatch, DoughState, RecoveredBatch, Recovery, late};
pub use way::{RiseError, SpongeRise};

use crate::dough::coefficients::DOUGH_SPECIFIC_HEAT;
use crate::dough::{
    AllergenLine, Cost, DoughColumns, FLOUR_PCT, Ingredient, PreparationKind, Scaled, Storage,
    allergen_line, cost, scale,
};
use crate::flour::{Assessment, Moisture, RequirementCheck, Verdict, nonconformities};
use crate::heat::{
    Balance, HeatPart, HeatSolution, HeatSource, WaterFrom, YEAST_WATER_C, flour_specific_heat,
};
use crate::method::{Plan, Sheet, sheet};
use crate::water::{AbsorptionBuildUp, AbsorptionRequest, Addition, FlourPart, build_up};

/// Every link's result for the selected product.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Chain {
    pub flour: FlourLink,
    /// None where the chain cannot go on; `error` says why.
    pub water: Option<AbsorptionBuildUp>,
    pub dough: Option<DoughLink>,
    pub heat: Option<HeatLink>,
    pub method: MethodLink,
    pub sheet: Option<Sheet>,
    /// The first link that cannot stand, in words.
    pub error: Option<CalculationError>,
}

/// How the lots stand to their specifications, as far as the links after them care.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FlourLink {
    /// The worst of them.
    pub verdict: Verdict,
    /// The main flour's properties that are not simply in; the certificate has all of them.
    pub nonconformities: Vec<RequirementCheck>,
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
    fn of(flours: &[ScenarioFlour<'_>]) -> Self {
        let Some((main, others)) = flours.split_first() else {
            return Self {
                verdict: Verdict::Missing,
                nonconformities: Vec::new(),
                others: Vec::new(),
            };
        };
        let Assessment { verdict, checks } = nonconformities(main.limits, main.readings);
        let others: Vec<OtherFlour> = others
            .iter()
            .map(|other| OtherFlour {
                name: other.name.into(),
                share_pct: other.share_pct,
                verdict: nonconformities(other.limits, other.readings).verdict,
            })
            .collect();
        let verdict = others.iter().map(|other| other.verdict).fold(verdict, Verdict::max);
        Self { verdict, nonconformities: checks, others }
    }
}

/// Why the chain cannot go on.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CalculationError {
    pub link: Link,
    pub message: String,
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
    pub columns: Option<DoughColumns>,
    pub cost: Cost,
    pub allergens: AllergenLine,
}

/// The heat balance of one dough and what it rests on.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct HeatLink {
    #[serde(flatten)]
    pub answer: HeatSolution,
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
            error: None,
        }
    }
}

/// Computes every link for the selected product, and the sheet the floor works from.
pub fn chain(scenario: &Scenario<'_>) -> Chain {
    let mut chain = figures(scenario);
    let moisture = scenario.moisture();
    if let (Some(water), Some(dough), Some(moisture)) = (&chain.water, &chain.dough, moisture) {
        let heat = heat(scenario, moisture, dough, chain.method.mixing_kj_per_kg);
        chain.sheet = sheet(&Plan {
            formula: &scenario.formula.formula,
            library: &scenario.plant.library,
            coefficients: &scenario.plant.coefficients,
            method: scenario.method,
            mixer: &scenario.line.mixer,
            scaled: &dough.scaled,
            added_water_pct: water.added_water_pct,
            hold_back: water.hold_back.as_ref(),
            heat: &heat.answer,
            target_c: heat.target_c,
            division_kg: scenario.division_kg(),
        })
        .ok();
        chain.heat = Some(heat);
    }
    chain
}

/// Computes what a chain is compared by: every link but the heat's answer and the sheet. [`changes`]
/// closes the heat balances itself.
pub fn figures(scenario: &Scenario<'_>) -> Chain {
    let mut chain =
        Chain { flour: FlourLink::of(scenario.flours), method: method(scenario), ..Chain::empty() };
    if let Err(error) = run(scenario, &mut chain) {
        chain.error = Some(error);
    }
    chain
}

fn run(scenario: &Scenario<'_>, chain: &mut Chain) -> Result<(), CalculationError> {
    let cannot = |link, message: String| CalculationError { link, message };
    let flours = scenario.parts().map_err(|name| {
        let message =
            format!("the certificate of {name} has no moisture: nothing can be moved to it");
        cannot(Link::Flour, message)
    })?;
    let water = water(scenario, &flours).map_err(|error| cannot(Link::Water, error.to_string()))?;
    if let Some(too_wet) = water.cautions.iter().find(|caution| caution.key == "too_wet") {
        return Err(cannot(Link::Dough, too_wet.message.clone()));
    }
    let formula = &scenario.formula.formula;
    let columns = formula
        .columns(water.added_water_pct)
        .map_err(|early| cannot(Link::Dough, early.to_string()))?;
    chain.dough = Some(dough(scenario, &water, columns));
    chain.water = Some(water);
    Ok(())
}

fn water(
    scenario: &Scenario<'_>,
    flours: &[FlourPart<'_>],
) -> Result<AbsorptionBuildUp, crate::water::AbsorptionUnknown> {
    let library = &scenario.plant.library;
    let lines: Vec<Addition<'_>> = scenario
        .formula
        .formula
        .additions()
        .map(|line| Addition { properties: library.properties(line.ingredient), pct: line.pct })
        .collect();
    let wanted = AbsorptionRequest {
        process: scenario.method.process.water_step(),
        lines: &lines,
        style_points: scenario.formula.style_points,
        override_pct: scenario.run_settings.hydration_pct.or(scenario.formula.hydration_pct),
        machine_divided: scenario.method.machine_divided,
        coefficients: &scenario.plant.coefficients,
        model: &scenario.plant.model,
    };
    build_up(flours, &wanted)
}

fn dough(scenario: &Scenario<'_>, water: &AbsorptionBuildUp, columns: DoughColumns) -> DoughLink {
    let ScenarioFormula { formula, piece_kg, losses, .. } = scenario.formula;
    let total_pct = formula.total_pct(water.added_water_pct);
    let max_kg = scenario.line.mixer.max_kg;
    let scaled = scale(scenario.run_settings.amount, *piece_kg, max_kg, *losses, total_pct);
    let flour_kg = scaled.dough_kg / total_pct * FLOUR_PCT;
    let prices: Vec<(f64, Option<f64>)> =
        scenario.flours.iter().map(|flour| (flour.share_pct, flour.price_per_kg)).collect();
    let flours: Vec<_> = scenario.flours.iter().map(ScenarioFlour::allergens).collect();
    let library = &scenario.plant.library;
    DoughLink {
        scaled,
        flour_kg,
        water_kg: flour_kg * water.added_water_pct / FLOUR_PCT,
        final_water_kg: flour_kg * columns.final_dough.water_pct / FLOUR_PCT,
        formula_hydration_pct: water.added_water_pct,
        effective_hydration_pct: water.dough_absorption_pct,
        cost: cost(formula, water.added_water_pct, &scaled, &prices, library),
        allergens: allergen_line(formula, &flours, library),
        columns: (!formula.parts().is_empty() || !formula.flours().is_empty()).then_some(columns),
    }
}

fn method(scenario: &Scenario<'_>) -> MethodLink {
    MethodLink {
        process_label: scenario.method.process.label(),
        mixing_min: scenario.method.mixing_min(),
        mixing_kj_per_kg: scenario.method.mixing_kj_per_kg(&scenario.line.mixer),
        total_min: scenario.method.total_min(),
    }
}

/// The heat balance of the final dough, which its parts meet at temperatures of their own.
fn balance(scenario: &Scenario<'_>, moisture: Moisture, dough: &DoughLink, energy: f64) -> Balance {
    let RunSettings { target_c, flour_c, room_c, tap_c, .. } = scenario.run_settings;
    let formula = &scenario.formula.formula;
    let early_flour_pct: f64 = formula.parts().iter().map(|part| part.flour_pct).sum();
    let final_flour_kg = dough.flour_kg * (FLOUR_PCT - early_flour_pct) / FLOUR_PCT;
    let library = &scenario.plant.library;
    let mut parts = vec![HeatPart {
        name: "flour".into(),
        kg: final_flour_kg,
        temperature_c: flour_c.unwrap_or(scenario.line.flour_c),
        specific_heat: flour_specific_heat(moisture),
        is: HeatSource::Flour,
    }];
    parts.extend(formula.additions().map(|line| {
        let properties = library.properties(line.ingredient);
        let kept =
            properties.kept.celsius(scenario.coefficients()).map(|usual| match properties.kept {
                Storage::Refrigerator => scenario.line.water.refrigerator_c.unwrap_or(usual),
                Storage::Room | Storage::Freezer => usual,
            });
        let cold = scenario.run_settings.ingredient_c(line.ingredient).or(kept);
        HeatPart {
            name: properties.label.clone(),
            kg: dough.flour_kg * formula.in_final(line) / FLOUR_PCT,
            temperature_c: cold.unwrap_or(room_c.unwrap_or(scenario.line.room_c)),
            specific_heat: properties.specific_heat,
            is: if cold.is_some() { HeatSource::Kept } else { HeatSource::Other },
        }
    }));
    parts.extend(formula.parts().iter().map(|part| HeatPart {
        name: part.name.clone().into(),
        kg: dough.flour_kg * part.total_pct() / FLOUR_PCT,
        temperature_c: part.meets_c(scenario.coefficients()),
        specific_heat: DOUGH_SPECIFIC_HEAT.value,
        is: HeatSource::Preferment,
    }));
    let jacket =
        scenario.line.mixer.jacket_kj_per_kg_min.map(|each| each * scenario.method.mixing_min());
    let taken =
        jacket.filter(|_| scenario.run_settings.jacket).map_or(0.0, |jacket| jacket.min(energy));
    Balance {
        parts,
        water_kg: dough.final_water_kg,
        tap_c: tap_c.unwrap_or(scenario.line.tap_c),
        target_c: target_c.unwrap_or(scenario.method.target_c),
        mixing_kj_per_kg: energy - taken,
        jacket_kj_per_kg: jacket.filter(|_| !scenario.run_settings.jacket),
        mixing_min: Some(scenario.method.mixing_min()),
        flour_wetted_kg: final_flour_kg,
        chilled_min_c: scenario.line.water.coldest_c(tap_c.unwrap_or(scenario.line.tap_c)),
        hottest_c: scenario.line.water.hottest_c(tap_c.unwrap_or(scenario.line.tap_c)),
        ice_c: 0.0,
        max_ice_pct: scenario.line.water.max_ice_pct,
    }
}

fn heat(scenario: &Scenario<'_>, moisture: Moisture, dough: &DoughLink, energy: f64) -> HeatLink {
    heat_of(scenario, &balance(scenario, moisture, dough, energy))
}

/// The dough stage's heat with its sponge so warm; none where the chain stops before the mixer.
pub(crate) fn heat_with_sponge(
    scenario: &Scenario<'_>,
    chain: &Chain,
    sponge_c: f64,
) -> Option<HeatLink> {
    let dough = chain.dough.as_ref()?;
    let mut balance = balance(scenario, scenario.moisture()?, dough, chain.method.mixing_kj_per_kg);
    let sponges = scenario.formula.formula.parts().iter().rev();
    // Parts made before come last in the balance, in the formula's order.
    for (part, heated) in sponges.zip(balance.parts.iter_mut().rev()) {
        if part.kind == PreparationKind::Sponge {
            heated.temperature_c = sponge_c;
        }
    }
    Some(heat_of(scenario, &balance))
}

/// The lines of the balance: they come after the flour, in the formula's order.
fn ingredients_at(scenario: &Scenario<'_>, balance: &Balance) -> Vec<IngredientAt> {
    let lines = scenario.formula.formula.additions().zip(balance.parts.iter().skip(1));
    lines
        .filter(|(_, part)| part.kg > 0.0)
        .map(|(line, part)| IngredientAt {
            ingredient: line.ingredient,
            label: part.name.to_string(),
            kg: part.kg,
            kept: scenario.plant.library.properties(line.ingredient).kept,
            temperature_c: part.temperature_c,
        })
        .collect()
}

fn heat_of(scenario: &Scenario<'_>, balance: &Balance) -> HeatLink {
    let mut answer = balance.solve();
    answer.sensitivities.extend(balance.available_measures());
    let has_yeast = scenario
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
        flour_c: scenario.run_settings.flour_c.unwrap_or(scenario.line.flour_c),
        room_c: scenario.run_settings.room_c.unwrap_or(scenario.line.room_c),
        tap_c: balance.tap_c,
        water_from: scenario.line.water.mixed(answer.water_kg, answer.water_c, balance.tap_c),
        ingredients: ingredients_at(scenario, balance),
        cautions,
        answer,
    }
}
