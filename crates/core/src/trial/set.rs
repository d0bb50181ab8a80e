use serde::Serialize;

use super::dough::TrialDough;
use super::{Intervention, QualityGoal};
use crate::chain::{Chain, Scenario};
use crate::coefficient::Coefficients;
use crate::ferment::Maturity;
use crate::method::Sheet;
use crate::water::coefficients::{EDGE, FELT_HANDLING};

/// Dough of a trial's each variant where nothing else is said, kg.
const BENCH_KG: f64 = 1.0;

/// An intervention with what it would do to this dough.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct OfferedIntervention {
    pub intervention: Intervention,
    pub label: &'static str,
    pub does: &'static str,
    pub trade_off: &'static str,
    pub variant: Variant,
}

/// One dough of a trial, beside the dough as it is.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Variant {
    pub name: String,
    pub interventions: Vec<Intervention>,
    /// All the water the dough wants, % on flour.
    pub dough_absorption_pct: Option<f64>,
    /// Water to weigh, % on flour.
    pub added_water_pct: Option<f64>,
    /// What strength can carry, where it is known.
    pub ceiling_pct: Option<f64>,
    /// How it will handle, beside the dough as it is.
    pub handling: String,
    pub mixing_min: f64,
    pub total_min: f64,
    pub cost_per_kg: Option<f64>,
    pub dough_yield: Option<f64>,
    pub target_c: Option<f64>,
    /// How ripe it meets the oven; none where nothing makes gas.
    pub maturity: Option<Maturity>,
    /// Set out for the bench; none where no dough comes of it, and `error` says why.
    pub sheet: Option<Sheet>,
    pub error: Option<String>,
}

/// Variants side by side: the dough as it is, one change each, and all together.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TrialSet {
    pub kg: f64,
    pub variants: Vec<Variant>,
}

/// The interventions for a goal that change something in this dough, each applied alone.
pub fn interventions_for(scenario: &Scenario<'_>, goal: QualityGoal) -> Vec<OfferedIntervention> {
    let as_it_is = variant(scenario, BENCH_KG, &[], None);
    let dough = TrialDough::of(scenario, BENCH_KG);
    let offered = Intervention::ALL.into_iter().filter(|intervention| {
        intervention.words().goals.contains(&goal) && dough.takes(*intervention)
    });
    offered
        .map(|intervention| {
            let words = intervention.words();
            OfferedIntervention {
                intervention,
                label: words.label,
                does: words.does,
                trade_off: words.trade_off,
                variant: variant(scenario, BENCH_KG, &[intervention], Some(&as_it_is)),
            }
        })
        .collect()
}

/// The doughs of a trial, so many kilos each: as it is, each intervention alone, and all of them where
/// there are several. An intervention that is nothing to this dough is left out.
pub fn trial_set(scenario: &Scenario<'_>, interventions: &[Intervention], kg: f64) -> TrialSet {
    let as_it_is = variant(scenario, kg, &[], None);
    let dough = TrialDough::of(scenario, kg);
    let mut taken: Vec<Intervention> = Vec::new();
    for intervention in interventions.iter().filter(|intervention| dough.takes(**intervention)) {
        if !taken.contains(intervention) {
            taken.push(*intervention);
        }
    }
    let mut variants = vec![as_it_is.clone()];
    variants.extend(
        taken.iter().map(|intervention| variant(scenario, kg, &[*intervention], Some(&as_it_is))),
    );
    if taken.len() > 1 {
        variants.push(variant(scenario, kg, &taken, Some(&as_it_is)));
    }
    TrialSet { kg, variants }
}

fn variant(
    scenario: &Scenario<'_>,
    kg: f64,
    interventions: &[Intervention],
    beside: Option<&Variant>,
) -> Variant {
    let mut dough = TrialDough::of(scenario, kg);
    for intervention in interventions {
        dough.apply(*intervention);
    }
    let name = match interventions {
        [] => "as it is".to_owned(),
        [one] => one.words().label.to_owned(),
        _ => "all changes".to_owned(),
    };
    let interventions = interventions.to_vec();
    match dough.chain() {
        Ok((chain, maturity)) => Variant {
            maturity,
            ..of_chain(name, interventions, chain, beside, scenario.coefficients())
        },
        Err(faults) => {
            let message = faults.0.into_iter().map(|fault| fault.message).collect::<Vec<_>>();
            let nothing = Chain::empty();
            Variant {
                error: Some(message.join("; ")),
                ..of_chain(name, interventions, nothing, None, scenario.coefficients())
            }
        }
    }
}

fn of_chain(
    name: String,
    interventions: Vec<Intervention>,
    chain: Chain,
    beside: Option<&Variant>,
    coefficients: &Coefficients,
) -> Variant {
    let water = chain.water.as_ref();
    let dough_absorption_pct = water.map(|water| water.dough_absorption_pct);
    let ceiling_pct = water.and_then(|water| water.ceiling_pct);
    Variant {
        handling: handling(dough_absorption_pct, ceiling_pct, beside, coefficients),
        name,
        interventions,
        dough_absorption_pct,
        added_water_pct: water.map(|water| water.added_water_pct),
        ceiling_pct,
        mixing_min: chain.method.mixing_min,
        total_min: chain.method.total_min,
        cost_per_kg: chain.dough.as_ref().map(|dough| dough.cost.per_kg),
        dough_yield: chain.dough.as_ref().map(|dough| dough.cost.dough_yield),
        target_c: chain.heat.as_ref().map(|heat| heat.target_c),
        maturity: None,
        sheet: chain.sheet,
        error: chain.error.map(|error| error.to_string()),
    }
}

/// How a dough handles, by how far its water lies from what its strength carries.
fn handling(
    floor: Option<f64>,
    ceiling: Option<f64>,
    beside: Option<&Variant>,
    coefficients: &Coefficients,
) -> String {
    let (edge, felt) = (coefficients.value(&EDGE), coefficients.value(&FELT_HANDLING));
    let room = |floor: Option<f64>, ceiling: Option<f64>| Some(ceiling? - floor?);
    let Some(now) = room(floor, ceiling) else {
        return "strength is not known: judge it by hand".into();
    };
    let stands = match now {
        ..0.0 => format!("{:.1} points beyond what its strength carries", -now),
        _ if now < edge => format!("at the edge: {now:.1} points below what its strength carries"),
        _ => format!("{now:.1} points below what its strength carries"),
    };
    let before = beside.and_then(|was| room(was.dough_absorption_pct, was.ceiling_pct));
    match before.map(|was| now - was) {
        Some(moved) if moved > felt => format!("{stands}; firmer in the hand"),
        Some(moved) if moved < -felt => format!("{stands}; softer and stickier"),
        _ => stands,
    }
}
