use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::coefficients as c;
use super::{Line, LineInput, Vessel};
use crate::coefficient::{Coefficient, Coefficients};
use crate::units::{NumberRange, RawNumber, ValidationErrors};

/// Kinds of dough made before the final dough.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum PreparationKind {
    Sponge,
    Starter,
    Autolyse,
    Scald,
    Soaker,
}

impl PreparationKind {
    /// Every kind, in the order they are made.
    pub const ALL: [Self; 5] =
        [Self::Starter, Self::Sponge, Self::Scald, Self::Soaker, Self::Autolyse];

    /// The word in tables, on the wire and on screen.
    pub const fn key(self) -> &'static str {
        match self {
            Self::Sponge => "sponge",
            Self::Starter => "starter",
            Self::Autolyse => "autolyse",
            Self::Scald => "scald",
            Self::Soaker => "soaker",
        }
    }

    /// The kind of this word.
    pub fn from_key(key: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|kind| kind.key() == key)
    }

    /// How warm it usually is when it meets the final dough, °C.
    pub const fn usual_c(self) -> &'static Coefficient {
        match self {
            Self::Sponge => &c::SPONGE_C,
            Self::Starter => &c::STARTER_C,
            Self::Autolyse => &c::AUTOLYSE_C,
            Self::Scald => &c::SCALD_C,
            Self::Soaker => &c::SOAKER_C,
        }
    }

    /// What one of it is begun with.
    pub fn begun(self, coefficients: &Coefficients) -> PreparationInput {
        let (flour, water) = match self {
            Self::Sponge => (Some(&c::SPONGE_FLOUR), &c::SPONGE_WATER),
            Self::Starter => (Some(&c::STARTER_FLOUR), &c::STARTER_WATER),
            Self::Autolyse => (Some(&c::AUTOLYSE_FLOUR), &c::AUTOLYSE_WATER),
            Self::Scald => (Some(&c::SCALD_FLOUR), &c::SCALD_WATER),
            Self::Soaker => (None, &c::SOAKER_WATER),
        };
        PreparationInput {
            name: self.key().into(),
            flour_pct: flour.map_or(0.0, |flour| coefficients.value(flour)).into(),
            water_pct: coefficients.value(water).into(),
            ..PreparationInput::of(self)
        }
    }

    /// What it is usually made in.
    pub const fn usual_vessel(self) -> Vessel {
        match self {
            Self::Sponge | Self::Autolyse => Vessel::MixerBowl,
            Self::Starter | Self::Soaker => Vessel::Tub,
            Self::Scald => Vessel::Pot,
        }
    }

    /// What to mind with it; none where there is nothing.
    pub const fn caution(self) -> Option<&'static str> {
        match self {
            Self::Scald => Some(
                "Boiling water burns: pour away from you. Let the scald cool below 35 °C before \
                 yeast meets it.",
            ),
            Self::Sponge => Some(
                "A live sponge goes on growing: never into the drain or bin as it is; bake it first.",
            ),
            _ => None,
        }
    }
}

/// A part of the dough made before the rest: a sponge, a starter, a scald. Everything in percent
/// on all flour of the whole dough.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Preparation {
    /// Its own across revisions, whatever it is called; none before it is recorded.
    pub id: Option<Uuid>,
    pub kind: PreparationKind,
    pub name: String,
    /// Which of the formula's flours it is made from; of all by their shares if none.
    pub flour: Option<String>,
    pub flour_pct: f64,
    pub water_pct: f64,
    /// How warm it meets the final dough; as its rest leaves it, or usual for its kind, if none.
    pub temperature_c: Option<f64>,
    /// How fast its culture goes beside the model, kept from readings; as the model if none.
    pub rate: Option<f64>,
    /// What it is made in; what is usual for its kind if none.
    pub vessel: Option<Vessel>,
    /// How warm its water is; left to what it is to be made at, or usual for its kind, if none. Of a
    /// sponge none.
    pub water_c: Option<f64>,
    /// How warm it is made; usual for its kind if none. A sponge's is its method's.
    pub set_c: Option<f64>,
    pub lines: Vec<Line>,
}

impl Preparation {
    /// How warm it meets the final dough, °C: as it is stated, else as is usual.
    pub fn meets_c(&self, coefficients: &Coefficients) -> f64 {
        self.temperature_c.unwrap_or_else(|| coefficients.value(self.kind.usual_c()))
    }

    /// Its water over its flour, in percent; none without flour.
    pub fn hydration_pct(&self) -> Option<f64> {
        (self.flour_pct > 0.0).then(|| 100.0 * self.water_pct / self.flour_pct)
    }

    /// All of it, in percent on all flour.
    pub fn total_pct(&self) -> f64 {
        self.flour_pct + self.water_pct + self.lines.iter().map(|line| line.pct).sum::<f64>()
    }
}

/// A part as it was typed.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct PreparationInput {
    /// As it was recorded; left out of a new one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub id: Option<Uuid>,
    pub kind: PreparationKind,
    /// Its kind's word if left out.
    #[serde(default)]
    pub name: String,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub flour: Option<String>,
    /// 0 to 100 % of all flour.
    #[serde(default, skip_serializing_if = "RawNumber::is_missing")]
    pub flour_pct: RawNumber,
    /// 0 to 150 % on all flour.
    #[serde(default, skip_serializing_if = "RawNumber::is_missing")]
    pub water_pct: RawNumber,
    /// −10 to 60 °C.
    #[serde(default, skip_serializing_if = "RawNumber::is_missing")]
    pub temperature_c: RawNumber,
    /// 0.2 to 4 times as fast as the model.
    #[serde(default, skip_serializing_if = "RawNumber::is_missing")]
    pub rate: RawNumber,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub vessel: Option<Vessel>,
    /// 0 to 100 °C; or what it is to be made at, not both.
    #[serde(default, skip_serializing_if = "RawNumber::is_missing")]
    pub water_c: RawNumber,
    /// 0 to 95 °C. A sponge's is its method's.
    #[serde(default, skip_serializing_if = "RawNumber::is_missing")]
    pub set_c: RawNumber,
    #[serde(default)]
    pub lines: Vec<LineInput>,
}

const FLOUR: NumberRange =
    NumberRange::new("flour_pct", "flour in it", "% of all flour", 0.0, 100.0);
const WATER: NumberRange =
    NumberRange::new("water_pct", "water in it", "% on all flour", 0.0, 150.0);
const TEMPERATURE: NumberRange =
    NumberRange::new("temperature_c", "its temperature", "°C", -10.0, 60.0);

const WATER_C: NumberRange = NumberRange::new("water_c", "its water", "°C", 0.0, 100.0);
const SET: NumberRange = NumberRange::new("set_c", "it is made at", "°C", 0.0, 95.0);
const RATE: NumberRange = NumberRange::new("rate", "its speed", "times the model's", 0.2, 4.0);

impl PreparationInput {
    /// One of a kind with nothing said about it.
    pub const fn of(kind: PreparationKind) -> Self {
        Self {
            id: None,
            kind,
            name: String::new(),
            flour: None,
            flour_pct: RawNumber::Missing,
            water_pct: RawNumber::Missing,
            temperature_c: RawNumber::Missing,
            rate: RawNumber::Missing,
            vessel: None,
            water_c: RawNumber::Missing,
            set_c: RawNumber::Missing,
            lines: Vec::new(),
        }
    }

    pub(super) fn check(&self, at: &str, faults: &mut ValidationErrors) -> Preparation {
        let name = self.name.trim();
        let water_c = WATER_C.check_opt(&self.water_c, at, faults);
        let set_c = SET.check_opt(&self.set_c, at, faults);
        if self.kind == PreparationKind::Sponge && (water_c.is_some() || set_c.is_some()) {
            let field = if set_c.is_some() { "set_c" } else { "water_c" };
            let message = "a sponge is set at its method's temperature, and its water follows";
            faults.push(format!("{at}{field}"), message);
        } else if water_c.is_some() && set_c.is_some() {
            let message =
                "either how warm its water is, or how warm it is made: one follows from the other";
            faults.push(format!("{at}set_c"), message);
        }
        Preparation {
            id: self.id,
            kind: self.kind,
            name: if name.is_empty() { self.kind.key().into() } else { name.into() },
            flour: self.flour.clone().filter(|name| !name.is_empty()),
            flour_pct: FLOUR.check(&self.flour_pct, at, faults),
            water_pct: WATER.check_or(&self.water_pct, 0.0, at, faults),
            temperature_c: TEMPERATURE.check_opt(&self.temperature_c, at, faults),
            rate: RATE.check_opt(&self.rate, at, faults),
            vessel: self.vessel,
            water_c,
            set_c,
            lines: super::line::check_lines(&self.lines, at, faults),
        }
    }
}
