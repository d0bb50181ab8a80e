use serde::{Deserialize, Serialize};

use super::coefficients::{LAG_SPONGE, STARTER_BEST_FROM, STARTER_BEST_UNTIL};
use super::{
    FermentationCurve, FermentationPoint, FermentingDough, Kinetics, NetworkFlour, Phase, ferment,
    retention, rise_limit_pct,
};
use crate::coefficient::Coefficients;
use crate::flour::Species;
use crate::flour::coefficients::{USUAL_DAMAGED_STARCH, USUAL_FALLING_NUMBER};
use crate::units::{G_PER_KG, NumberRange, RawNumber, ValidationErrors, bisect};

/// So much beyond its best it is shown.
const SHOWN: f64 = 1.3;
/// How long a fed starter is followed.
const DAYS_H: f64 = 168.0;
/// Flour for each part of old starter, from little to much.
const FED: (f64, f64) = (0.25, 40.0);

const FLOUR: NumberRange =
    NumberRange::new("flour_parts", "flour for each part of old starter", "", 0.25, 40.0);
const WATER: NumberRange =
    NumberRange::new("water_parts", "water for each part of old starter", "", 0.1, 60.0);
const FEED: NumberRange =
    NumberRange::new("feed_hydration_pct", "water on the new flour", "%", 10.0, 300.0);
const OLD: NumberRange =
    NumberRange::new("starter_hydration_pct", "hydration of the old starter", "%", 40.0, 200.0);
const WHERE: NumberRange = NumberRange::new("ambient_c", "where it stands", "°C", 0.0, 40.0);
const LIVELY: NumberRange = NumberRange::new("activity", "how lively it is", "", 0.1, 4.0);
const GRAMS: NumberRange = NumberRange::new("grams", "fed starter wanted", "g", 5.0, 500_000.0);
const RIPE_IN: NumberRange = NumberRange::new("ripe_in_h", "ripe in", "h", 1.0, 168.0);

/// A starter to be fed.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct RefreshmentInput {
    /// 0.25 to 40 for each part of old starter; 1 if left out.
    #[serde(default)]
    pub flour_parts: RawNumber,
    /// 0.1 to 60 for each part of old starter; as much as flour if left out.
    #[serde(default)]
    pub water_parts: RawNumber,
    /// In place of `water_parts`: water on the new flour, 10 to 300 %.
    #[serde(default)]
    pub feed_hydration_pct: RawNumber,
    /// 40 to 200 %; 100 if left out.
    #[serde(default)]
    pub starter_hydration_pct: RawNumber,
    /// 0 to 40 °C.
    #[serde(default)]
    pub ambient_c: RawNumber,
    /// 0.1 to 4 beside a usual one; 1 if left out.
    #[serde(default)]
    pub activity: RawNumber,
    /// 5 to 500 000 g of fed starter.
    #[serde(default)]
    pub grams: RawNumber,
    /// 1 to 168 h: the feed is solved for it instead of taken as given.
    #[serde(default)]
    pub ripe_in_h: RawNumber,
}

/// A feed and what comes of it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Refreshment {
    /// Whether a feed is ripe at the hour that was asked.
    pub reachable: bool,
    pub flour_parts: f64,
    pub water_parts: f64,
    pub starter_g: f64,
    pub flour_g: f64,
    pub water_g: f64,
    pub hydration_pct: f64,
    /// From when it is at its best, and until when; none where not within a week.
    pub ripe_h: Option<f64>,
    pub tired_h: Option<f64>,
    /// What it looks like: unripe, ripe, late.
    pub looks: [&'static str; 3],
    /// From the feed on.
    pub series: Vec<FermentationPoint>,
}

/// What a ripe starter looks like, and what it looks like before and after.
const LOOKS: [&str; 3] = [
    "unripe: dense, few bubbles, smells of flour; a spoonful sinks in water",
    "ripe: doubled and domed, bubbles all through, smells of yoghurt; a spoonful floats",
    "late: fallen back with a tide mark, thin, smells of alcohol or solvent; feed it twice before use",
];

impl RefreshmentInput {
    /// Follows a fed starter by the model of a sour, or finds the feed that is ripe at an hour.
    ///
    /// Of `1 : f : w` parts, old starter brings `1/(1 + h/100)` of flour; that over all the flour
    /// is the prefermented flour the culture starts from. It is at its best from 0.8 to 1.05 of
    /// the time at which its film gives way. House judgement on the house's model.
    ///
    /// ```
    /// use ironpeel_core::{coefficient::Coefficients, ferment::RefreshmentInput};
    /// let input: RefreshmentInput = serde_json::from_str(r#"{"ambient_c": 26, "grams": 300}"#)?;
    /// let fed = input.compute(&Coefficients::default())?;
    /// assert!((fed.starter_g - 100.0).abs() < 1e-9 && (fed.flour_g - 100.0).abs() < 1e-9);
    /// // One to one to one, about every twelve hours warm.
    /// assert!(fed.ripe_h.unwrap() > 3.0 && fed.tired_h.unwrap() < 12.0);
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    pub fn compute(&self, coefficients: &Coefficients) -> Result<Refreshment, ValidationErrors> {
        let mut faults = ValidationErrors::default();
        let at = "";
        let old_pct = OLD.check_or(&self.starter_hydration_pct, 100.0, at, &mut faults);
        let flour_parts = FLOUR.check_or(&self.flour_parts, 1.0, at, &mut faults);
        let feed_pct = FEED.check_opt(&self.feed_hydration_pct, at, &mut faults);
        if feed_pct.is_some() && !self.water_parts.is_missing() {
            faults.push("water_parts", "water is given once: in parts, or on the new flour");
        }
        let on_flour = feed_pct.map_or(flour_parts, |pct| flour_parts * pct / 100.0);
        let water_parts = WATER.check_or(&self.water_parts, on_flour, at, &mut faults);
        let ambient_c = WHERE.check(&self.ambient_c, at, &mut faults);
        let activity = LIVELY.check_or(&self.activity, 1.0, at, &mut faults);
        let grams = GRAMS.check(&self.grams, at, &mut faults);
        let ripe_in = RIPE_IN.check_opt(&self.ripe_in_h, at, &mut faults);
        faults.or(())?;
        let kg = grams / G_PER_KG;
        let fed = Fed { coefficients, old_pct, ambient_c, activity, kg };
        let stiffness = water_parts / flour_parts;
        let Some(wanted_h) = ripe_in else {
            return Ok(fed.told(flour_parts, stiffness, grams, true));
        };
        // The more flour, the later: halved on a scale of ratios.
        let later = |parts: f64| fed.ripe_h(parts, stiffness).is_none_or(|ripe| ripe > wanted_h);
        if later(FED.0) {
            return Ok(fed.told(FED.0, stiffness, grams, false));
        }
        if !later(FED.1) {
            return Ok(fed.told(FED.1, stiffness, grams, false));
        }
        let parts = bisect(FED.0.ln(), FED.1.ln(), |ratio| !later(ratio.exp())).exp();
        Ok(fed.told(parts, stiffness, grams, true))
    }
}

/// A starter about to be fed.
struct Fed<'a> {
    coefficients: &'a Coefficients,
    old_pct: f64,
    ambient_c: f64,
    activity: f64,
    kg: f64,
}

impl Fed<'_> {
    fn hydration_pct(&self, flour_parts: f64, stiffness: f64) -> f64 {
        let old_flour = 1.0 / (1.0 + self.old_pct / 100.0);
        100.0 * (1.0 - old_flour + flour_parts * stiffness) / (old_flour + flour_parts)
    }

    fn ripe_h(&self, flour_parts: f64, stiffness: f64) -> Option<f64> {
        let from = self.coefficients.value(&STARTER_BEST_FROM);
        self.follow(flour_parts, stiffness).drop_h.map(|drop| drop * from)
    }

    fn follow(&self, flour_parts: f64, stiffness: f64) -> FermentationCurve {
        let wheat = NetworkFlour {
            species: Species::Wheat,
            share_pct: 100.0,
            whole_grain_pct: 0.0,
            w: None,
        };
        let hydration_pct = self.hydration_pct(flour_parts, stiffness);
        let old_flour = 1.0 / (1.0 + self.old_pct / 100.0);
        let here = |coefficient| self.coefficients.value(coefficient);
        let dough = FermentingDough {
            yeast_idy_pct: 0.0,
            sour_pct: 100.0 * old_flour / (old_flour + flour_parts),
            sour_activity: self.activity,
            salt_pct: 0.0,
            sugar_pct: 0.0,
            hydration_pct,
            damaged_starch_pct: here(&USUAL_DAMAGED_STARCH),
            falling_number_s: here(&USUAL_FALLING_NUMBER),
            start_c: self.ambient_c,
            mass_kg: self.kg,
            retention: retention(&[wheat], self.coefficients),
            rate: 1.0,
            lag_h: here(&LAG_SPONGE),
            rise_limit_pct: Some(rise_limit_pct(&[wheat], hydration_pct, self.coefficients)),
            kinetics: Kinetics::of(self.coefficients),
        };
        ferment(&dough, &[Phase::rest(DAYS_H, self.ambient_c)])
    }

    fn told(&self, flour_parts: f64, stiffness: f64, grams: f64, reachable: bool) -> Refreshment {
        let curve = self.follow(flour_parts, stiffness);
        let at = |share| curve.drop_h.map(|drop| drop * self.coefficients.value(share));
        let (ripe_h, tired_h) = (at(&STARTER_BEST_FROM), at(&STARTER_BEST_UNTIL));
        let shown = tired_h.map_or(DAYS_H, |tired| tired * SHOWN);
        let parts = 1.0 + flour_parts * (1.0 + stiffness);
        Refreshment {
            reachable,
            flour_parts,
            water_parts: flour_parts * stiffness,
            starter_g: grams / parts,
            flour_g: grams * flour_parts / parts,
            water_g: grams * flour_parts * stiffness / parts,
            hydration_pct: self.hydration_pct(flour_parts, stiffness),
            ripe_h,
            tired_h,
            looks: LOOKS,
            series: curve.points.into_iter().take_while(|point| point.t_h <= shown).collect(),
        }
    }
}
