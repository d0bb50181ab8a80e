//! The knowledge as data: features, causes, and the evidence of each fault.

use std::sync::LazyLock;

use serde::{Deserialize, Serialize};

use super::PlanChange;

/// Kinds of evidence; readings of one partly repeat each other.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "UPPERCASE")]
pub enum Family {
    /// Flour.
    Fl,
    /// Water.
    Wa,
    /// Formula.
    Fo,
    /// Mixing.
    Mx,
    /// Temperature.
    Te,
    /// Sponge, sour and bulk.
    Sp,
    /// Make-up.
    Mk,
    /// Proof.
    Pr,
    /// Oven.
    Ov,
    /// Cooling and slicing.
    Co,
    /// Storage.
    St,
    /// Freezing.
    Fz,
    /// Pattern: where and when it is seen.
    Pt,
    /// Judgement.
    Ju,
}

/// What decides whether a cause can be: of the process, the flour or the product.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Gate {
    Sponge,
    Straight,
    Frozen,
    Cold,
    Gf,
    Ferment,
    Sour,
    Rye,
    Whole,
    Wheat,
    Tin,
    Hearth,
}

impl Gate {
    /// Every gate.
    pub const ALL: [Self; 12] = [
        Self::Sponge,
        Self::Straight,
        Self::Frozen,
        Self::Cold,
        Self::Gf,
        Self::Ferment,
        Self::Sour,
        Self::Rye,
        Self::Whole,
        Self::Wheat,
        Self::Tin,
        Self::Hearth,
    ];

    /// As it is said.
    pub const fn word(self) -> &'static str {
        match self {
            Self::Sponge => "sponge",
            Self::Straight => "straight",
            Self::Frozen => "frozen",
            Self::Cold => "cold",
            Self::Gf => "gf",
            Self::Ferment => "ferment",
            Self::Sour => "sour",
            Self::Rye => "rye",
            Self::Whole => "whole",
            Self::Wheat => "wheat",
            Self::Tin => "tin",
            Self::Hearth => "hearth",
        }
    }
}

/// A figure of a batch that is evidence.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Feature {
    pub key: String,
    pub family: Family,
    /// Where it comes from: how it is measured.
    pub how: String,
    pub low: Option<f64>,
    pub usual: Option<f64>,
    pub high: Option<f64>,
    /// Half-width of the ramp about a threshold; 0 is a step.
    pub ramp: f64,
    /// 1 in the record or one tap, 2 a reading at the next batch, 4 laboratory or trial.
    pub effort: f64,
    /// The plan itself sets it, for every batch alike: it tells causes apart, and never drifts.
    #[serde(default)]
    pub set_by_plan: bool,
}

/// A cause with its one corrective action.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Cause {
    pub key: String,
    pub name: String,
    pub action: String,
    pub cost: String,
    /// The lasting cure, where it is another.
    pub lasting: Option<String>,
    pub gate: Option<Gate>,
    /// What its action changes of a plan, where that can be said in figures.
    #[serde(default)]
    pub change: Vec<PlanChange>,
}

/// How a feature is compared with a threshold.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum Comparison {
    Gt,
    Ge,
    Lt,
    Le,
    Eq,
}

/// What a feature says of a cause.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[serde(from = "(String, Comparison, f64, f64, f64)")]
pub struct Evidence {
    pub feature: String,
    pub comparison: Comparison,
    pub threshold: f64,
    /// How often it is true with this cause, over how often in an ordinary batch.
    pub ratio_true: f64,
    /// How often it is not, over the same.
    pub ratio_false: f64,
}

impl From<(String, Comparison, f64, f64, f64)> for Evidence {
    fn from(
        (feature, comparison, threshold, ratio_true, ratio_false): (
            String,
            Comparison,
            f64,
            f64,
            f64,
        ),
    ) -> Self {
        Self { feature, comparison, threshold, ratio_true, ratio_false }
    }
}

/// A cause as it competes for one fault.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct CauseOfFault {
    pub cause: String,
    /// 4 common, 2 possible, 1 rare.
    pub weight: f64,
    /// The feature that decides when it is missing.
    pub ask: String,
    /// The mechanism.
    pub why: String,
    pub evidence: Vec<Evidence>,
}

/// A fault that a user picks.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Fault {
    pub key: String,
    /// Where it is seen.
    #[serde(skip)]
    pub group: &'static str,
    pub name: String,
    pub definition: String,
    /// How it is established, and when it counts.
    pub measure: String,
    pub causes: Vec<CauseOfFault>,
}

impl Fault {
    /// What its causes are told by, each once, in the order of the catalogue.
    pub fn features(&self) -> Vec<&str> {
        let mut found = Vec::new();
        for cause in &self.causes {
            let evidence = cause.evidence.iter().map(|evidence| &*evidence.feature);
            for feature in evidence.chain([&*cause.ask]) {
                if !found.contains(&feature) {
                    found.push(feature);
                }
            }
        }
        found
    }
}

/// All that is known.
#[derive(Debug, Clone, PartialEq)]
pub struct Knowledge {
    pub features: Vec<Feature>,
    pub causes: Vec<Cause>,
    pub faults: Vec<Fault>,
}

impl Knowledge {
    /// A feature by its key.
    pub fn feature(&self, key: &str) -> Option<&Feature> {
        self.features.iter().find(|feature| feature.key == key)
    }

    /// A cause by its key.
    pub fn cause(&self, key: &str) -> Option<&Cause> {
        self.causes.iter().find(|cause| cause.key == key)
    }

    /// A fault by its key.
    pub fn fault(&self, key: &str) -> Option<&Fault> {
        self.faults.iter().find(|fault| fault.key == key)
    }

    fn read() -> Result<Self, toml::de::Error> {
        let Features { features } = toml::from_str(include_str!("data/features.toml"))?;
        let Causes { causes } = toml::from_str(include_str!("data/causes.toml"))?;
        let mut faults = Vec::new();
        for (group, text) in [
            ("dough", include_str!("data/dough.toml")),
            ("proof", include_str!("data/proof.toml")),
            ("oven", include_str!("data/oven.toml")),
            ("loaf", include_str!("data/loaf.toml")),
            ("slicing", include_str!("data/slicing.toml")),
            ("storage", include_str!("data/storage.toml")),
        ] {
            let Faults { faults: own } = toml::from_str(text)?;
            faults.extend(own.into_iter().map(|fault| Fault { group, ..fault }));
        }
        Ok(Self { features, causes, faults })
    }
}

#[derive(Deserialize)]
struct Features {
    #[serde(rename = "feature")]
    features: Vec<Feature>,
}

#[derive(Deserialize)]
struct Causes {
    #[serde(rename = "cause")]
    causes: Vec<Cause>,
}

#[derive(Deserialize)]
struct Faults {
    #[serde(rename = "fault")]
    faults: Vec<Fault>,
}

static KNOWLEDGE: LazyLock<Knowledge> =
    LazyLock::new(|| Knowledge::read().expect("a test reads every file of it"));

/// What the house knows of faults.
///
/// ```
/// use ironpeel_core::fault::knowledge;
/// let smearing = knowledge().fault("smearing").unwrap();
/// assert_eq!(smearing.causes[0].cause, "ds_trap_water");
/// ```
pub fn knowledge() -> &'static Knowledge {
    &KNOWLEDGE
}
