use serde::{Deserialize, Serialize};

use super::coefficients as c;
use crate::coefficient::Coefficients;
use crate::units::{NumberRange, RawNumber, ValidationErrors};

/// What has matured a dough by a moment.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct MaturedBy {
    /// All mixing, kJ per kg of dough.
    pub work_kj_per_kg: f64,
    pub fold_sets: f64,
    /// Strength of the flour; 300 where it is not stated.
    pub flour_w: Option<f64>,
    /// Its flour, by when it was wetted.
    pub parts: Vec<WettedFlour>,
    /// Over those hours, °C.
    pub mean_c: f64,
    /// Of all flour.
    pub gas_ml_per_g: f64,
}

/// Flour that was wetted at one time.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct WettedFlour {
    pub flour_share_pct: f64,
    /// Since then.
    pub hours: f64,
}

/// How ripe a dough is: a house index, 1 where nothing is wanting.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Maturity {
    pub maturity: f64,
    /// What each brings to it: mixing and folds, hours of hydration, gas.
    pub work: f64,
    pub hydration: f64,
    pub gas: f64,
    pub verdict: MaturityVerdict,
    /// What conditioners have to make up for.
    pub conditioning_need: f64,
    /// Share of the gas that such a dough keeps.
    pub retention: f64,
}

/// What a maturity is called.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum MaturityVerdict {
    Green,
    /// Conditioners or time make it good.
    Young,
    Ripe,
    Past,
}

/// The maturity of a dough (H): mixing work, hours of hydration and gas all mature it; more yeast in
/// the same time gives volume, not maturity.
///
/// `work = min(1.25, (kJ + 3.5·folds)/(8 + 0.06·W))`;
/// `hydration = Σ share·(1 − e^(−hours·2^((c − 27)/10)/1.2))`; `gas = min(ml/6, longest hours/3.7)`;
/// `maturity = 0.35·work + 0.35·hydration + 0.30·gas`. Below 0.7 green, below 0.9 young, to 1.35
/// ripe, above past; `need = max(0, 1 − maturity)`; of the `kept` share of gas a dough keeps
/// `max(0.3, 1 − 0.35·max(0, 0.7 − m)/0.7 − 0.8·max(0, m − 1.35))`.
///
/// ```
/// use ironpeel_core::coefficient::Coefficients;
/// use ironpeel_core::ferment::{MaturedBy, MaturityVerdict, WettedFlour, maturity};
/// let sponge_and_dough = MaturedBy {
///     work_kj_per_kg: 28.0, fold_sets: 0.0, flour_w: Some(308.0),
///     parts: vec![
///         WettedFlour { flour_share_pct: 65.0, hours: 5.6 },
///         WettedFlour { flour_share_pct: 35.0, hours: 2.0 },
///     ],
///     mean_c: 27.0, gas_ml_per_g: 9.0,
/// };
/// let found = maturity(&sponge_and_dough, 0.85, &Coefficients::default());
/// assert!((found.maturity - 1.145).abs() < 0.001);
/// assert_eq!(found.verdict, MaturityVerdict::Ripe);
/// ```
pub fn maturity(by: &MaturedBy, kept: f64, coefficients: &Coefficients) -> Maturity {
    let here = |coefficient| coefficients.value(coefficient);
    let w = by.flour_w.unwrap_or_else(|| here(&c::MATURITY_USUAL_W));
    let wanted = here(&c::MATURITY_WORK_AT_W0) + here(&c::MATURITY_WORK_PER_W) * w;
    let worked = by.work_kj_per_kg + here(&c::MATURITY_FOLD_KJ) * by.fold_sets;
    let worked = (worked / wanted).min(here(&c::MATURITY_WORK_MOST));
    let quicker = ((by.mean_c - here(&c::MATURITY_AT_C)) / here(&c::MATURITY_DOUBLES_C)).exp2();
    let hydrated = |one: &WettedFlour| {
        let left = (-one.hours * quicker / here(&c::MATURITY_HYDRATION_H)).exp();
        one.flour_share_pct / 100.0 * (1.0 - left)
    };
    let longest = by.parts.iter().map(|one| one.hours).fold(0.0, f64::max);
    let gassed =
        (by.gas_ml_per_g / here(&c::MATURITY_GAS_ML)).min(longest / here(&c::MATURITY_GAS_H));
    let work = here(&c::MATURITY_OF_WORK) * worked;
    let hydration = here(&c::MATURITY_OF_HYDRATION) * by.parts.iter().map(hydrated).sum::<f64>();
    let gas = here(&c::MATURITY_OF_GAS) * gassed;
    let maturity = work + hydration + gas;
    let (green, ripe, past) =
        (here(&c::MATURITY_YOUNG), here(&c::MATURITY_RIPE), here(&c::MATURITY_PAST));
    let lost = here(&c::MATURITY_GREEN_LOSES) * (green - maturity).max(0.0) / green
        + here(&c::MATURITY_PAST_LOSES) * (maturity - past).max(0.0);
    Maturity {
        maturity,
        work,
        hydration,
        gas,
        verdict: match maturity {
            m if m < green => MaturityVerdict::Green,
            m if m < ripe => MaturityVerdict::Young,
            m if m <= past => MaturityVerdict::Ripe,
            _ => MaturityVerdict::Past,
        },
        conditioning_need: (1.0 - maturity).max(0.0),
        retention: kept * (1.0 - lost).max(here(&c::MATURITY_KEEPS_LEAST)),
    }
}

/// A dough whose maturity is asked for.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct MaturityInput {
    /// All mixing, 0 to 120 kJ per kg of dough.
    #[serde(default)]
    pub work_kj_per_kg: RawNumber,
    /// 0 to 12.
    #[serde(default)]
    pub fold_sets: RawNumber,
    /// 50 to 500; 300 where it is null.
    #[serde(default)]
    pub flour_w: RawNumber,
    /// 1 to 10, whose shares make 100 %.
    #[serde(default)]
    pub parts: Vec<WettedFlourInput>,
    /// Mean temperature, −5 to 45 °C.
    #[serde(default)]
    pub mean_c: RawNumber,
    /// 0 to 40 ml per g of all flour.
    #[serde(default)]
    pub gas_ml_per_g: RawNumber,
}

/// Flour that was wetted at one time.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct WettedFlourInput {
    /// 0 to 100 %.
    #[serde(default)]
    pub flour_share_pct: RawNumber,
    /// Since it was wetted, 0 to 120 h.
    #[serde(default)]
    pub hours: RawNumber,
}

const MOST_PARTS: usize = 10;
/// How near to 100 % the shares have to come.
const WHOLE_WITHIN: f64 = 0.1;
const WORK: NumberRange =
    NumberRange::new("work_kj_per_kg", "mixing energy", "kJ/kg of dough", 0.0, 120.0);
const FOLDS: NumberRange = NumberRange::new("fold_sets", "sets of folds", "", 0.0, 12.0);
const W: NumberRange = NumberRange::new("flour_w", "strength W of the flour", "", 50.0, 500.0);
const SHARE: NumberRange =
    NumberRange::new("flour_share_pct", "share of the flour", "%", 0.0, 100.0);
const HOURS: NumberRange = NumberRange::new("hours", "time since it was wetted", "h", 0.0, 120.0);
const MEAN: NumberRange = NumberRange::new("mean_c", "mean temperature", "°C", -5.0, 45.0);
const GAS: NumberRange = NumberRange::new("gas_ml_per_g", "gas", "ml/g of all flour", 0.0, 40.0);

impl MaturityInput {
    /// Checks every field, then judges the dough; 0.85 of the gas is what wheat keeps.
    ///
    /// ```
    /// use ironpeel_core::ferment::{MaturityInput, MaturityVerdict};
    /// let no_time: MaturityInput = serde_json::from_str(r#"{
    ///     "work_kj_per_kg": 38.8, "fold_sets": 0, "flour_w": 308, "mean_c": 28, "gas_ml_per_g": 2.6,
    ///     "parts": [{"flour_share_pct": 100, "hours": 2.03}]}"#)?;
    /// let found = no_time.compute()?;
    /// assert!((found.maturity - 0.860).abs() < 0.001);
    /// assert!((found.conditioning_need - 0.140).abs() < 0.001);
    /// assert_eq!(found.verdict, MaturityVerdict::Young);
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    pub fn compute(&self) -> Result<Maturity, ValidationErrors> {
        let mut faults = ValidationErrors::default();
        let count = self.parts.len();
        if !(1..=MOST_PARTS).contains(&count) {
            let message = format!("1 to {MOST_PARTS} parts of the flour; {count} were given");
            faults.push("parts", message);
        }
        let parts: Vec<WettedFlour> = self
            .parts
            .iter()
            .take(MOST_PARTS)
            .enumerate()
            .map(|(at, part)| {
                let at = format!("parts[{at}].");
                WettedFlour {
                    flour_share_pct: SHARE.check(&part.flour_share_pct, &at, &mut faults),
                    hours: HOURS.check(&part.hours, &at, &mut faults),
                }
            })
            .collect();
        let by = MaturedBy {
            work_kj_per_kg: WORK.check(&self.work_kj_per_kg, "", &mut faults),
            fold_sets: FOLDS.check(&self.fold_sets, "", &mut faults),
            flour_w: W.check_opt(&self.flour_w, "", &mut faults),
            mean_c: MEAN.check(&self.mean_c, "", &mut faults),
            gas_ml_per_g: GAS.check(&self.gas_ml_per_g, "", &mut faults),
            parts,
        };
        let whole: f64 = by.parts.iter().map(|part| part.flour_share_pct).sum();
        if (1..=MOST_PARTS).contains(&count) && (whole - 100.0).abs() > WHOLE_WITHIN {
            faults.push("parts", format!("shares of the flour make 100 %, not {whole:.1} %"));
        }
        faults.or(())?;
        let house = Coefficients::default();
        Ok(maturity(&by, house.value(&c::RETENTION_WHEAT), &house))
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    fn straight() -> MaturedBy {
        MaturedBy {
            work_kj_per_kg: 9.0,
            fold_sets: 3.0,
            flour_w: Some(170.0),
            parts: vec![WettedFlour { flour_share_pct: 100.0, hours: 4.5 }],
            mean_c: 25.0,
            gas_ml_per_g: 5.5,
        }
    }

    #[test]
    fn a_straight_dough_with_three_folds_is_ripe() {
        let found = maturity(&straight(), 0.85, &Coefficients::default());
        assert!((found.maturity - 0.987).abs() < 0.001, "{found:?}");
        assert_eq!(found.verdict, MaturityVerdict::Ripe);
        assert!((found.retention - 0.85).abs() < 1e-12, "what is ripe keeps what its grain keeps");
    }

    #[test]
    fn shares_that_make_no_whole_and_missing_figures_are_told() {
        let parts = vec![WettedFlourInput { flour_share_pct: 60.0.into(), hours: 2.0.into() }];
        let input = MaturityInput { parts, ..MaturityInput::default() };
        let ValidationErrors(faults) = input.compute().expect_err("it is not whole");
        let fields: Vec<&str> = faults.iter().map(|fault| &*fault.field).collect();
        assert_eq!(fields, ["work_kj_per_kg", "fold_sets", "mean_c", "gas_ml_per_g", "parts"]);
    }

    proptest! {
        #[test]
        fn more_yeast_in_the_same_time_gives_no_maturity(
            hours in 0.1..3.0, more in 0.0..30.0,
        ) {
            let house = Coefficients::default();
            let full = 6.0 * hours / 3.7;
            let of = |gas_ml_per_g| {
                let parts = vec![WettedFlour { flour_share_pct: 100.0, hours }];
                maturity(&MaturedBy { parts, gas_ml_per_g, ..straight() }, 0.85, &house).maturity
            };
            prop_assert!((of(full + more) - of(full)).abs() < 1e-9);
        }

        #[test]
        fn work_hours_and_warmth_mature(
            kj in 0.0..60.0, hours in 0.0..20.0, c in 5.0..35.0, more in 0.0..5.0,
        ) {
            let house = Coefficients::default();
            let of = |work_kj_per_kg, hours, mean_c| {
                let parts = vec![WettedFlour { flour_share_pct: 100.0, hours }];
                let by = MaturedBy { work_kj_per_kg, parts, mean_c, ..straight() };
                maturity(&by, 0.85, &house).maturity
            };
            let now = of(kj, hours, c);
            for then in [of(kj + more, hours, c), of(kj, hours + more, c), of(kj, hours, c + more)] {
                prop_assert!(then >= now - 1e-12);
            }
        }
    }
}
