use serde::{Deserialize, Serialize};

use crate::units::{NumberRange, RawNumber, ValidationErrors};

/// How people state a starter's share. The number means nothing until this is said.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum StarterConvention {
    /// The starter's flour, in percent of all flour.
    PrefermentedFlour,
    /// The starter, in percent on the flour added in the final dough.
    OnFinalFlour,
    /// The starter, in percent of the whole dough.
    OfDough,
}

/// A starter's share in every convention.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct StarterShares {
    pub prefermented_flour_pct: f64,
    pub on_final_flour_pct: f64,
    pub of_dough_pct: f64,
    /// The starter itself, in percent on all flour.
    pub on_all_flour_pct: f64,
    pub hydration_pct: f64,
    /// Its water, in percent on all flour.
    pub water_pct: f64,
}

/// A starter stated in one convention, in a dough of which 100 of flour make `dough_pct`.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct StarterShare {
    pub convention: StarterConvention,
    pub pct: f64,
    pub hydration_pct: f64,
    pub dough_pct: f64,
}

impl StarterShare {
    /// The same in every convention; none where no dough can have so much starter.
    ///
    /// With φ the prefermented flour and h the starter's hydration over 100:
    /// on final flour `s = φ(1 + h)/(1 − φ)`, of dough `φ(1 + h)·100/dough`.
    ///
    /// ```
    /// use ironpeel_core::dough::{StarterConvention, StarterShare};
    /// let stated = StarterShare {
    ///     convention: StarterConvention::OnFinalFlour, pct: 20.0, hydration_pct: 100.0,
    ///     dough_pct: 177.0,
    /// };
    /// assert!((stated.shares().unwrap().prefermented_flour_pct - 9.0909).abs() < 1e-4);
    /// ```
    pub fn shares(self) -> Option<StarterShares> {
        let Self { convention, pct, hydration_pct, dough_pct } = self;
        let swollen = 1.0 + hydration_pct / 100.0;
        let prefermented = match convention {
            StarterConvention::PrefermentedFlour => pct,
            StarterConvention::OnFinalFlour => 100.0 * pct / (100.0 * swollen + pct),
            StarterConvention::OfDough => pct * dough_pct / 100.0 / swollen,
        };
        (0.0..100.0).contains(&prefermented).then(|| {
            let starter = prefermented * swollen;
            StarterShares {
                prefermented_flour_pct: prefermented,
                on_final_flour_pct: 100.0 * starter / (100.0 - prefermented),
                of_dough_pct: 100.0 * starter / dough_pct,
                on_all_flour_pct: starter,
                hydration_pct,
                water_pct: prefermented * hydration_pct / 100.0,
            }
        })
    }
}

/// What the `starter` calculator is asked.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct StarterInput {
    /// Flour added in the final dough, 0.001 to 10 000 000 g.
    #[serde(default)]
    pub flour_g: RawNumber,
    /// Water added in the final dough, 0 to 10 000 000 g.
    #[serde(default)]
    pub water_g: RawNumber,
    /// 0 to 10 000 000 g.
    #[serde(default)]
    pub starter_g: RawNumber,
    /// Water over flour in the starter, 0 to 500 %.
    #[serde(default)]
    pub starter_hydration_pct: RawNumber,
}

/// A dough with its starter counted into flour and water.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct StarterAnswer {
    pub total_flour_g: f64,
    pub total_water_g: f64,
    /// All water over all flour.
    pub hydration_pct: f64,
    /// The starter's flour over all flour.
    pub prefermented_flour_pct: f64,
    pub starter_on_final_flour_pct: f64,
    /// The starter over flour, water and starter together.
    pub starter_of_dough_pct: f64,
}

const FLOUR: NumberRange = NumberRange::new("flour_g", "flour added", "g", 0.001, 1e7);
const WATER: NumberRange = NumberRange::new("water_g", "water added", "g", 0.0, 1e7);
const STARTER: NumberRange = NumberRange::new("starter_g", "starter", "g", 0.0, 1e7);
const HYDRATION: NumberRange =
    NumberRange::new("starter_hydration_pct", "hydration of the starter", "%", 0.0, 500.0);

impl StarterInput {
    /// Checks every field, then counts the starter's flour and water in.
    ///
    /// ```
    /// use ironpeel_core::dough::StarterInput;
    /// let input: StarterInput = serde_json::from_str(r#"{
    ///     "flour_g": 900, "water_g": 650, "starter_g": 200, "starter_hydration_pct": 100}"#)?;
    /// let found = input.compute()?;
    /// assert_eq!((found.total_flour_g, found.hydration_pct), (1000.0, 75.0));
    /// assert_eq!(found.prefermented_flour_pct, 10.0);
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    pub fn compute(&self) -> Result<StarterAnswer, ValidationErrors> {
        let mut faults = ValidationErrors::default();
        let flour_g = FLOUR.check(&self.flour_g, "", &mut faults);
        let water_g = WATER.check(&self.water_g, "", &mut faults);
        let starter_g = STARTER.check(&self.starter_g, "", &mut faults);
        let hydration = HYDRATION.check(&self.starter_hydration_pct, "", &mut faults);
        let prefermented_g = starter_g / (1.0 + hydration / 100.0);
        let total_flour_g = flour_g + prefermented_g;
        let total_water_g = water_g + starter_g - prefermented_g;
        faults.or(StarterAnswer {
            total_flour_g,
            total_water_g,
            hydration_pct: 100.0 * total_water_g / total_flour_g,
            prefermented_flour_pct: 100.0 * prefermented_g / total_flour_g,
            starter_on_final_flour_pct: 100.0 * starter_g / flour_g,
            starter_of_dough_pct: 100.0 * starter_g / (flour_g + water_g + starter_g),
        })
    }
}
