//! What several tests of the core share.

pub mod bench;

use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::dough::{
    Amount, Formula, FormulaDraft, Ingredient, Library, Losses, ScaleRequest, Scaled,
};
use ironpeel_core::flour::Moisture;
use ironpeel_core::method::Process;
use ironpeel_core::water::{
    AbsorptionBuildUp, AbsorptionModel, AbsorptionRequest, AbsorptionUnknown, Addition,
    Composition, Flour, FlourPart, build_up,
};
use serde_json::Value;

/// What is asked of the build-up, without what it borrows.
#[derive(Clone, Copy)]
pub struct Asked<'a> {
    pub process: Process,
    pub lines: &'a [(Ingredient, f64)],
    pub style_points: f64,
    pub override_pct: Option<f64>,
    pub machine_divided: bool,
}

pub const PLAIN: Asked<'static> = Asked {
    process: Process::StraightBulk,
    lines: &[],
    style_points: 0.0,
    override_pct: None,
    machine_divided: false,
};

/// An amount scaled to doughs with the house's losses.
pub fn scaled(amount: Amount, piece_kg: f64, mixer_max_kg: f64, total_pct: f64) -> Scaled {
    ScaleRequest { amount, piece_kg, mixer_max_kg, losses: Losses::house(), total_pct }.scale()
}

/// A flour's protein on 14 %, damaged starch as is and ash on dry matter, all stated.
pub const fn composition(protein: f64, damaged: f64, ash: f64) -> Composition {
    Composition {
        protein_14_pct: Some(protein),
        damaged_starch_pct: Some(damaged),
        ash_dm_pct: Some(ash),
    }
}

/// A measured strong white flour of usual damaged starch.
pub fn flour() -> Flour {
    Flour {
        composition: Composition { damaged_starch_pct: Some(8.2), ..Composition::default() },
        age_days: Some(6.0),
        w: Some(310.0),
        ..Flour::measured(Moisture::FOURTEEN, 62.0)
    }
}

/// The build-up of one flour by the house's rules.
pub fn climb(flour: &Flour, asked: &Asked<'_>) -> Result<AbsorptionBuildUp, AbsorptionUnknown> {
    climb_by(&[(*flour, 100.0)], asked, &Coefficients::default())
}

/// The build-up of a mix of flours by a plant's rules.
pub fn climb_by(
    flours: &[(Flour, f64)],
    asked: &Asked<'_>,
    coefficients: &Coefficients,
) -> Result<AbsorptionBuildUp, AbsorptionUnknown> {
    let library = Library::default();
    let lines: Vec<Addition<'_>> = asked
        .lines
        .iter()
        .map(|(ingredient, pct)| Addition {
            properties: library.properties(*ingredient),
            pct: *pct,
        })
        .collect();
    let model = AbsorptionModel::default();
    let wanted = AbsorptionRequest {
        process: asked.process.water_step(),
        lines: &lines,
        style_points: asked.style_points,
        learned: None,
        override_pct: asked.override_pct,
        machine_divided: asked.machine_divided,
        coefficients,
        model: &model,
    };
    build_up(&parts(flours), &wanted)
}

/// Flours with their shares as the build-up takes them.
pub fn parts(flours: &[(Flour, f64)]) -> Vec<FlourPart<'static>> {
    let part = |(flour, share_pct): &(Flour, f64)| FlourPart {
        name: flour.species.key(),
        flour: *flour,
        share_pct: *share_pct,
    };
    flours.iter().map(part).collect()
}

/// A formula from the shape it has on the wire.
pub fn formula(draft: Value) -> Formula {
    let draft: FormulaDraft = serde_json::from_value(draft).expect("the shape of the contract");
    Formula::check(&draft).expect("makes a dough")
}

#[track_caller]
pub fn near(found: f64, wanted: f64, within: f64) {
    assert!((found - wanted).abs() <= within, "{found} is not within {within} of {wanted}");
}
