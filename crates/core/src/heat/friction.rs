use serde::{Deserialize, Serialize};

use super::balance::{ICE, MELTING, WATER as WATER_HEAT};
use super::coefficients as c;
use crate::coefficient::Coefficients;
use crate::units::{Estimated, NumberRange, RawNumber, ScalarFilter, ValidationErrors};

/// What mixing adds on the floor's own friction factor method, learned of one mixer and product: a scalar
/// Kalman filter. House defaults to begin with.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Friction {
    pub friction_c: f64,
    pub sd_c: f64,
}

impl Friction {
    /// Before anything was observed.
    pub fn prior(coefficients: &Coefficients) -> Self {
        Self {
            friction_c: coefficients.value(&c::FRICTION),
            sd_c: coefficients.value(&c::FRICTION_SD),
        }
    }
}

/// The temperatures of one dough, °C.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Temperatures {
    pub flour_c: f64,
    pub room_c: f64,
    pub water_c: f64,
    /// Of a sponge or starter, where there is one.
    pub preferment_c: Option<f64>,
    pub dough_c: f64,
    /// Share of the water by mass that was ice, %, and how cold it was.
    pub ice_share_pct: f64,
    pub ice_c: f64,
}

impl Temperatures {
    /// The temperature of ice-free water that cools as the water and ice did (P):
    /// `(1 − s)·Tw + s·(2.05·Tice − 334)/4.186`.
    ///
    /// ```
    /// use ironpeel_core::heat::Temperatures;
    /// let iced = |water_c, ice_share_pct, ice_c| Temperatures {
    ///     flour_c: 20.0, room_c: 23.0, water_c, preferment_c: None, dough_c: 26.0, ice_share_pct, ice_c,
    /// };
    /// assert!((iced(11.0, 52.0, 0.0).equivalent_water_c() + 36.21).abs() < 0.005);
    /// assert!((iced(16.0, 30.0, -5.0).equivalent_water_c() + 13.47).abs() < 0.005);
    /// ```
    pub fn equivalent_water_c(&self) -> f64 {
        let ice = self.ice_share_pct / 100.0;
        (1.0 - ice) * self.water_c + ice * (ICE * self.ice_c - MELTING) / WATER_HEAT
    }

    /// What the friction factor method leaves unexplained: `n·dough − Σ measured`, n counting the
    /// temperatures measured; water and ice as ice-free water that cools alike.
    ///
    /// ```
    /// use ironpeel_core::heat::Temperatures;
    /// let dough = Temperatures {
    ///     flour_c: 20.0, room_c: 23.0, water_c: 19.8, preferment_c: None, dough_c: 26.0,
    ///     ice_share_pct: 0.0, ice_c: 0.0,
    /// };
    /// assert!((dough.friction_c() - 15.2).abs() < 1e-9);
    /// ```
    pub fn friction_c(&self) -> f64 {
        let water_c = Some(self.equivalent_water_c());
        let measured = [Some(self.flour_c), Some(self.room_c), water_c, self.preferment_c];
        measured.into_iter().flatten().map(|one| self.dough_c - one).sum()
    }
}

impl Friction {
    /// After one more dough.
    #[must_use]
    pub fn learn(self, observed_c: f64, coefficients: &Coefficients) -> Self {
        let filter =
            ScalarFilter { walk_sd: coefficients.value(&c::FRICTION_WALK_SD), gate_sigma: 0.0 };
        let mut believed = Estimated { mean: self.friction_c, sd: self.sd_c };
        filter.walk(&mut believed);
        filter.learn(&mut believed, observed_c, coefficients.value(&c::FRICTION_MEASURED_SD));
        Self { friction_c: believed.mean, sd_c: believed.sd }
    }
}

/// Doughs to learn friction from.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FrictionInput {
    /// Up to 5000, in the order they were mixed.
    #[serde(default)]
    pub observations: Option<Vec<TemperaturesInput>>,
}

/// The temperatures of one dough as they were measured.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TemperaturesInput {
    /// −30 to 60 °C.
    #[serde(default)]
    pub flour_c: RawNumber,
    /// −30 to 60 °C.
    #[serde(default)]
    pub room_c: RawNumber,
    /// 0 to 100 °C.
    #[serde(default)]
    pub water_c: RawNumber,
    /// −30 to 60 °C; left out where there is no sponge or starter.
    #[serde(default)]
    pub preferment_c: RawNumber,
    /// −5 to 60 °C.
    #[serde(default)]
    pub dough_c: RawNumber,
    /// Share of the water by mass, 0 to 100 %; 0 if left out.
    #[serde(default)]
    pub ice_share_pct: RawNumber,
    /// −40 to 0 °C; 0 if left out.
    #[serde(default)]
    pub ice_c: RawNumber,
}

const MOST: usize = 5000;
const FLOUR: NumberRange = NumberRange::new("flour_c", "flour temperature", "°C", -30.0, 60.0);
const ROOM: NumberRange = NumberRange::new("room_c", "room temperature", "°C", -30.0, 60.0);
const WATER: NumberRange = NumberRange::new("water_c", "water temperature", "°C", 0.0, 100.0);
const PREFERMENT: NumberRange =
    NumberRange::new("preferment_c", "temperature of the sponge or starter", "°C", -30.0, 60.0);
const ICE_SHARE: NumberRange =
    NumberRange::new("ice_share_pct", "ice in the water", "%", 0.0, 100.0);
const ICE_TEMPERATURE: NumberRange =
    NumberRange::new("ice_c", "temperature of the ice", "°C", -40.0, 0.0);
const DOUGH: NumberRange = NumberRange::new("dough_c", "dough temperature", "°C", -5.0, 60.0);

impl FrictionInput {
    /// Checks every field, then learns the doughs one after another.
    ///
    /// ```
    /// use ironpeel_core::heat::FrictionInput;
    /// let input: FrictionInput = serde_json::from_str(r#"{"observations": [
    ///     {"flour_c": 20, "room_c": 23, "water_c": 19.8, "dough_c": 26},
    ///     {"flour_c": 20, "room_c": 23, "water_c": 21.1, "dough_c": 26},
    ///     {"flour_c": 20, "room_c": 23, "water_c": 19.0, "dough_c": 26},
    ///     {"flour_c": 20, "room_c": 23, "water_c": 19.5, "dough_c": 26}]}"#)?;
    /// let learned = input.compute()?;
    /// assert!((learned.friction_c - 15.19).abs() < 0.005 && (learned.sd_c - 0.83).abs() < 0.005);
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    pub fn compute(&self) -> Result<Friction, ValidationErrors> {
        let mut faults = ValidationErrors::default();
        let given = self.observations.as_deref().unwrap_or_default();
        if self.observations.is_none() {
            faults.push("observations", "the list of measured doughs is missing; it may be empty");
        }
        if given.len() > MOST {
            let message = format!("up to {MOST} doughs; {} were given", given.len());
            faults.push("observations", message);
        }
        let coefficients = Coefficients::default();
        let mut learned = Friction::prior(&coefficients);
        for (at, one) in given.iter().take(MOST).enumerate() {
            let at = format!("observations[{at}].");
            learned = learned.learn(one.check(&at, &mut faults).friction_c(), &coefficients);
        }
        faults.or(learned)
    }
}

impl TemperaturesInput {
    /// The temperatures inside their ranges, or faults under `at`.
    pub fn check(&self, at: &str, faults: &mut ValidationErrors) -> Temperatures {
        Temperatures {
            flour_c: FLOUR.check(&self.flour_c, at, faults),
            room_c: ROOM.check(&self.room_c, at, faults),
            water_c: WATER.check(&self.water_c, at, faults),
            preferment_c: PREFERMENT.check_opt(&self.preferment_c, at, faults),
            dough_c: DOUGH.check(&self.dough_c, at, faults),
            ice_share_pct: ICE_SHARE.check_or(&self.ice_share_pct, 0.0, at, faults),
            ice_c: ICE_TEMPERATURE.check_or(&self.ice_c, 0.0, at, faults),
        }
    }
}
