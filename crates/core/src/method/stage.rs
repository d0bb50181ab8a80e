use serde::{Deserialize, Serialize};

use super::{Mixer, StageRole};
use crate::dough::Ingredient;
use crate::water::Process;

/// What happens in a stage.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum StageKind {
    Mix,
    Rest,
    Fold,
    Divide,
    Proof,
    Bake,
    Cool,
}

impl StageKind {
    /// Every kind of stage.
    pub const ALL: [Self; 7] =
        [Self::Mix, Self::Rest, Self::Fold, Self::Divide, Self::Proof, Self::Bake, Self::Cool];

    /// The word in tables and on the wire.
    pub const fn key(self) -> &'static str {
        match self {
            Self::Mix => "mix",
            Self::Rest => "rest",
            Self::Fold => "fold",
            Self::Divide => "divide",
            Self::Proof => "proof",
            Self::Bake => "bake",
            Self::Cool => "cool",
        }
    }

    /// The stage of this word.
    pub fn from_key(key: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|kind| kind.key() == key)
    }
}

/// A mixer's speed.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Speed {
    Slow,
    Fast,
}

impl Speed {
    /// The word in tables and on the wire.
    pub const fn key(self) -> &'static str {
        match self {
            Self::Slow => "slow",
            Self::Fast => "fast",
        }
    }

    /// The speed of this word.
    pub fn from_key(key: &str) -> Option<Self> {
        [Self::Slow, Self::Fast].into_iter().find(|speed| speed.key() == key)
    }
}

/// What says that a stage is over. The clock is only one of them, and seldom the best.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum EndsBy {
    /// How it looks and feels.
    #[default]
    Look,
    Time,
    Temperature,
    Rise,
    Jar,
    Windowpane,
    ClearsBowl,
    Poke,
    PullAndTap,
    Height,
    Cracks,
    CoreTemperature,
    Ph,
}

impl EndsBy {
    /// Every sign.
    pub const ALL: [Self; 13] = [
        Self::Look,
        Self::Time,
        Self::Temperature,
        Self::Rise,
        Self::Jar,
        Self::Windowpane,
        Self::ClearsBowl,
        Self::Poke,
        Self::PullAndTap,
        Self::Height,
        Self::Cracks,
        Self::CoreTemperature,
        Self::Ph,
    ];

    /// The word in tables and on the wire.
    pub const fn key(self) -> &'static str {
        match self {
            Self::Look => "look",
            Self::Time => "time",
            Self::Temperature => "temperature",
            Self::Rise => "rise",
            Self::Jar => "jar",
            Self::Windowpane => "windowpane",
            Self::ClearsBowl => "clears_bowl",
            Self::Poke => "poke",
            Self::PullAndTap => "pull_and_tap",
            Self::Height => "height",
            Self::Cracks => "cracks",
            Self::CoreTemperature => "core_temperature",
            Self::Ph => "ph",
        }
    }

    /// The sign of this word.
    pub fn from_key(key: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|sign| sign.key() == key)
    }
}

/// The shortest and the longest a stage may last, minutes.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Window {
    pub low_min: f64,
    pub high_min: f64,
}

/// One stage of a method.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Stage {
    pub kind: StageKind,
    pub label: String,
    pub minutes: f64,
    /// When mixing.
    pub speed: Option<Speed>,
    pub temperature_c: Option<f64>,
    pub humidity_pct: Option<f64>,
    /// What ends it: a look, a height, a core temperature; minutes are only where to start looking.
    pub ends_when: String,
    /// Which sign that is.
    #[serde(default)]
    pub ends_by: EndsBy,
    /// Why it is there.
    #[serde(default)]
    pub reason: String,
    /// How short and how long it may be here; the house's for its kind if none.
    #[serde(default)]
    pub window: Option<Window>,
    /// What goes in at its start, besides what went in before. Ingredients no stage names go in at
    /// the first mixing.
    pub adds: Vec<Ingredient>,
    /// Share of the water of its dough that waits for it, %.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub water_share_pct: Option<f64>,
}

/// How a dough is made: ordered stages and where the dough should come off the mixer.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Method {
    pub process: Process,
    /// Dough off the mixer.
    pub target_c: f64,
    /// A sponge off the mixer; the house's 24 °C if none.
    pub sponge_c: Option<f64>,
    pub machine_divided: bool,
    pub stages: Vec<Stage>,
}

/// At or below this a stage is a refrigerator's, whatever the weather, °C (H).
const COLD_C: f64 = 12.0;

impl Stage {
    /// A stage of a kind that lasts so long, and nothing else about it.
    pub fn new(kind: StageKind, label: impl Into<String>, minutes: f64) -> Self {
        Self {
            kind,
            label: label.into(),
            minutes,
            speed: None,
            temperature_c: None,
            humidity_pct: None,
            ends_when: String::new(),
            ends_by: EndsBy::Look,
            reason: String::new(),
            window: None,
            adds: Vec::new(),
            water_share_pct: None,
        }
    }

    /// Whether the dough lies in the cold.
    pub fn is_cold(&self) -> bool {
        self.temperature_c.is_some_and(|celsius| celsius <= COLD_C)
    }

    /// Whether it takes as long as the dough's life says: a rest or proof that is not in the cold.
    pub fn can_stretch(&self) -> bool {
        matches!(self.kind, StageKind::Rest | StageKind::Proof) && !self.is_cold()
    }

    /// Whether somebody works at it all the while, and not only at its beginning.
    pub const fn needs_hands(&self) -> bool {
        matches!(self.kind, StageKind::Mix | StageKind::Fold | StageKind::Divide | StageKind::Bake)
    }
}

impl Method {
    /// Where the final dough begins: what lies before belongs to the parts made before it.
    pub fn first_mix(&self) -> usize {
        self.stages.iter().position(|stage| stage.kind == StageKind::Mix).unwrap_or(0)
    }

    /// The stage at which an ingredient goes in: the one that names it, else the first mixing.
    pub fn joins_at(&self, ingredient: Ingredient) -> usize {
        let named = self.stages.iter().position(|stage| stage.adds.contains(&ingredient));
        named.unwrap_or_else(|| self.first_mix())
    }

    /// The stage at which what was made before goes in: the first mixing, or after an autolyse, in
    /// which flour and water rest alone, the next.
    pub fn parts_join_at(&self) -> usize {
        let roles = self.roles();
        let autolyse = roles.iter().position(|role| *role == StageRole::Autolyse);
        let after = autolyse.and_then(|rest| {
            let mixes = roles.iter().enumerate().skip(rest);
            mixes.map(|(at, role)| (at, *role)).find(|(_, role)| *role == StageRole::Mixing)
        });
        after.map_or_else(|| self.first_mix(), |(at, _)| at)
    }

    /// Minutes under the mixer, rests left out.
    pub fn mixing_min(&self) -> f64 {
        self.mixing().map(|stage| stage.minutes).sum()
    }

    /// Energy the mixer gives the dough: minutes at each speed times its power at that speed.
    pub fn mixing_kj_per_kg(&self, mixer: &Mixer) -> f64 {
        self.mixing().map(|stage| stage.minutes * mixer.kj_per_kg_min(stage.speed)).sum()
    }

    /// From the first water to the end of the last stage.
    pub fn total_min(&self) -> f64 {
        self.stages.iter().map(|stage| stage.minutes).sum()
    }

    fn mixing(&self) -> impl Iterator<Item = &Stage> {
        self.stages.iter().filter(|stage| stage.kind == StageKind::Mix)
    }
}
