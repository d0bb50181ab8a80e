//! The whole chain at once: flour → water → dough → method → floor, each link's result the next
//! link's input. This is what a what-if recomputes.

mod batch_delay;
mod batch_fermentation;
mod changes;
mod derivations;
mod dough_maturity;
mod fault_gates;
mod follow;
mod friction_factor;
mod heat_link;
mod incoming;
mod line;
mod line_template;
mod links;
mod mixing_rest;
mod other_way;
mod plan_evidence;
mod portions;
mod preparation_heat;
mod process_comparison;
mod rise;
mod scenario;
mod sponge;
mod stage_ends;
mod starter_feed;
mod stoppage;
mod target_rise;
mod way;
mod weight_adjustment;
mod words;

use serde::Serialize;

pub use batch_delay::{BatchDelay, batch_delay};
pub use batch_fermentation::{
    BatchFermentation, BatchFollowed, IntoTheCold, RiseBand, TakenOut, batch_fermentation,
    batch_rate,
};
pub use changes::{ChangeReason, Contribution, FigureChange, Link, changes};
pub use derivations::{Derivations, derivations};
pub use dough_maturity::DoughMaturity;
pub(crate) use dough_maturity::maturity_at_oven;
pub use fault_gates::fault_gates;
pub use follow::{FermentationTracking, MarkReached, ReadOf, fermentation_tracking};
pub use friction_factor::{FrictionFactor, Measured, MixerEnergies, friction_factor, mixed_dough};
pub(crate) use heat_link::heat_with_sponge;
use heat_link::{balance, heat};
pub use line::{LineDraft, ScenarioLine};
pub use line_template::{LineTemplate, line_templates};
pub use links::{DoughLink, FlourLink, HeatLink, IngredientAt, MethodLink, MixingRest, OtherFlour};
pub use plan_evidence::plan_evidence;
pub use portions::{
    Portion, PortionCaution, PortionInput, PortionStorage, Portions, PortionsInput, portions,
};
pub use preparation_heat::PreparationHeat;
use preparation_heat::preparations;
pub use process_comparison::{
    FlourRequirement, ProcessComparison, ProcessOutcome, each_dough, process_comparison,
};
pub use rise::{Rise, RiseMiss, RiseStage, SeasonalYeast, rise, seasonal_yeast, yeast_wanted};
pub(crate) use rise::{gas_at_oven, stretch_for_gas};
pub use scenario::{
    AssumedReading, RunSettings, Scenario, ScenarioFlour, ScenarioFormula, flour_strength,
};
pub use sponge::{
    SpongeAcceleration, SpongeFound, SpongeUnknown, SpongeUsual, SpongeView, sponge_acceleration,
    sponge_for,
};
pub use stage_ends::{StageEnd, stage_ends};
pub use starter_feed::starter_feed;
pub use stoppage::{
    DelayedAmount, DelayedBatch, DelayedMaterial, DoughState, RecoveredBatch, Recovery,
    RecoveryAdvice, RecoveryCaution, late,
};
pub use target_rise::{DoughWater, StarterDose, TargetRise, TargetRiseSolutions, target_rise};
pub use way::{RiseAssumption, RiseError, SpongeRise};
pub use weight_adjustment::{AdjustmentError, WeightAdjustment, adjust_weight};

use self::way::Way;
use crate::dough::{
    DoughColumns, FLOUR_PCT, PreparationKind, ScaleRequest, TooMuchPrefermentWater, allergen_line,
    cost,
};
use crate::ferment::Ripeness;
use crate::method::{Plan, PreparationMade, Sheet, sheet};
use crate::units::MIN_PER_H;
use crate::water::{
    AbsorptionBuildUp, AbsorptionRequest, AbsorptionUnknown, Addition, Caution, FlourPart, build_up,
};

/// Every link's result for the selected product.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Chain {
    pub flour: FlourLink,
    /// None where the chain cannot go on; `error` says why.
    pub water: Option<AbsorptionBuildUp>,
    pub dough: Option<DoughLink>,
    /// Of each preparation, in the formula's order.
    pub preparations: Vec<PreparationHeat>,
    pub heat: Option<HeatLink>,
    pub method: MethodLink,
    pub sheet: Option<Sheet>,
    /// The first link that cannot stand, and why.
    pub error: Option<CalculationError>,
}

/// Why the chain cannot go on.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[serde(into = "words::CalculationErrorWords")]
pub enum CalculationError {
    AbsorptionUnknown(AbsorptionUnknown),
    TooWet(Caution),
    PrefermentWater(TooMuchPrefermentWater),
}

impl CalculationError {
    /// The first link that cannot stand.
    pub const fn link(&self) -> Link {
        match self {
            Self::AbsorptionUnknown(_) => Link::Water,
            Self::TooWet(_) | Self::PrefermentWater(_) => Link::Dough,
        }
    }
}

impl Chain {
    /// No link computed.
    pub(crate) fn empty() -> Self {
        Self {
            flour: FlourLink::none(),
            water: None,
            dough: None,
            preparations: Vec::new(),
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
        let preparations = preparations(scenario, moisture, dough);
        let made: Vec<PreparationMade> = preparations.iter().map(PreparationHeat::made).collect();
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
            preparations: &made,
            target_c: heat.target_c,
            division_kg: scenario.division_kg(),
        })
        .ok();
        if let Some(sheet) = &mut chain.sheet {
            for rest in &heat.rests {
                sheet.steps[rest.stage].dough_c = Some([rest.left_c, rest.rested_c]);
            }
        }
        chain.heat = Some(heat);
        chain.preparations = preparations;
        tell_ripeness(scenario, &mut chain);
    }
    chain
}

/// Says on the sheet between when its sponge is ripe.
fn tell_ripeness(scenario: &Scenario<'_>, chain: &mut Chain) {
    let mut parts = scenario.formula.formula.parts().iter();
    if !parts.any(|part| part.kind == PreparationKind::Sponge) {
        return;
    }
    let ripens = Way::of(scenario, chain).ok().and_then(|way| way.sponge_ripens());
    let (Some(Ripeness { ripe_low_h: Some(low), ripe_high_h: Some(high), .. }), Some(at)) =
        (ripens, scenario.method.sponge_at())
    else {
        return;
    };
    if let Some(step) = chain.sheet.as_mut().and_then(|sheet| sheet.steps.get_mut(at)) {
        step.ripe_at_min = Some([low, high].map(|hours| step.at_min + hours * MIN_PER_H));
    }
}

/// Computes what a chain is compared by: every link but the heat's answer and the sheet. [`changes`]
/// closes the heat balances itself.
pub fn figures(scenario: &Scenario<'_>) -> Chain {
    let mut chain = Chain {
        flour: FlourLink::of(scenario.flours, scenario.coefficients()),
        method: method(scenario),
        ..Chain::empty()
    };
    if let Err(error) = run(scenario, &mut chain) {
        chain.error = Some(error);
    }
    chain
}

fn run(scenario: &Scenario<'_>, chain: &mut Chain) -> Result<(), CalculationError> {
    let water = water(scenario, &scenario.parts()).map_err(CalculationError::AbsorptionUnknown)?;
    let too_wet = water.cautions.iter().find(|caution| matches!(caution, Caution::TooWet { .. }));
    if let Some(too_wet) = too_wet {
        return Err(CalculationError::TooWet(*too_wet));
    }
    let formula = &scenario.formula.formula;
    let columns =
        formula.columns(water.added_water_pct).map_err(CalculationError::PrefermentWater)?;
    chain.dough = Some(dough(scenario, &water, columns));
    chain.water = Some(water);
    Ok(())
}

fn water(
    scenario: &Scenario<'_>,
    flours: &[FlourPart<'_>],
) -> Result<AbsorptionBuildUp, AbsorptionUnknown> {
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
        learned: scenario.water_correction,
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
    let amount = scenario.run_settings.amount.unwrap_or_else(|| scenario.formula.usual_amount());
    let scaled = ScaleRequest {
        amount,
        piece_kg: *piece_kg,
        mixer_max_kg: max_kg,
        losses: *losses,
        total_pct,
    }
    .scale();
    let flour_kg = scaled.dough_kg / total_pct * FLOUR_PCT;
    let prices: Vec<(f64, Option<f64>)> =
        scenario.flours.iter().map(|flour| (flour.share_pct, flour.price_per_kg)).collect();
    let flours: Vec<_> = scenario.flours.iter().map(ScenarioFlour::allergens).collect();
    let library = &scenario.plant.library;
    DoughLink {
        amount,
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
