//! What each link of the chain comes to.

use serde::Serialize;

use super::{AssumedReading, ScenarioFlour};
use crate::coefficient::Coefficients;
use crate::dough::{AllergenLine, Amount, Cost, DoughColumns, Ingredient, Scaled, Storage};
use crate::flour::{Assessment, RequirementCheck, Verdict, nonconformities};
use crate::heat::{HeatCaution, HeatSolution, WaterFrom};

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
    /// What of the flours nobody stated and is taken as usual.
    pub assumed: Vec<AssumedReading>,
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
    pub(super) const fn none() -> Self {
        Self {
            verdict: Verdict::Missing,
            nonconformities: Vec::new(),
            others: Vec::new(),
            assumed: Vec::new(),
        }
    }

    pub(super) fn of(flours: &[ScenarioFlour<'_>], coefficients: &Coefficients) -> Self {
        let Some((main, others)) = flours.split_first() else { return Self::none() };
        let Assessment { verdict, checks } =
            nonconformities(main.limits, main.readings, coefficients);
        let others: Vec<OtherFlour> = others
            .iter()
            .map(|other| OtherFlour {
                name: other.name.into(),
                share_pct: other.share_pct,
                verdict: nonconformities(other.limits, other.readings, coefficients).verdict,
            })
            .collect();
        let verdict = others.iter().map(|other| other.verdict).fold(verdict, Verdict::max);
        let assumed = flours.iter().flat_map(|flour| flour.assumed(coefficients)).collect();
        Self { verdict, nonconformities: checks, others, assumed }
    }
}

/// The dough of the run and of one mix.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct DoughLink {
    /// How much is wanted.
    pub amount: Amount,
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
    pub cautions: Vec<HeatCaution>,
    /// Each rest between two mixings, in the method's order.
    pub rests: Vec<MixingRest>,
}

/// A rest between two mixings of one dough.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct MixingRest {
    /// Its place in the method.
    pub stage: usize,
    /// What lies in the mixer by then.
    pub kg: f64,
    /// How warm that is as it is left, and when the mixer turns again.
    pub left_c: f64,
    pub rested_c: f64,
    pub minutes: f64,
    pub around_c: f64,
    /// What the room takes of it; less than nothing where the room is the warmer.
    pub lost_kj: f64,
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
