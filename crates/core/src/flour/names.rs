use serde::Serialize;

use super::coefficients::{US_ALL_PURPOSE, US_BREAD_FLOUR, US_HIGH_GLUTEN, US_PASTRY};
use super::{MoistureBasis, Property, Readings};
use crate::coefficient::Coefficients;
use crate::flour::Species;

/// What a national system calls a flour.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[serde(into = "super::words::FlourNameWords")]
pub struct FlourName {
    /// Country of the system: FR, DE, IT, US.
    pub system: &'static str,
    pub standing: NameStanding,
}

/// How a flour stands to a system's classes, with the ash it was told by, %.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum NameStanding {
    /// The system has no class for this grain.
    NoClass,
    /// Its ash, or the moisture to move it by, is not known.
    UnknownAsh,
    Class {
        class: &'static str,
        ash_pct: f64,
        asks: NameProtein,
    },
    Between {
        below: &'static str,
        above: &'static str,
        ash_pct: f64,
    },
    Above {
        last: &'static str,
        ash_pct: f64,
    },
    Below {
        ash_pct: f64,
    },
}

/// What a class asks of protein beside ash.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum NameProtein {
    Nothing,
    /// So much on dry matter, %.
    Least {
        least_pct: f64,
        has_pct: Option<f64>,
    },
    /// What the flour is for goes by its protein on 14 %; a patent keeps its grade beside.
    Use {
        patent: bool,
        found: Option<UseByProtein>,
    },
}

/// What a protein suits.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct UseByProtein {
    pub used: &'static str,
    pub protein_14_pct: f64,
}

/// How a flour stands to a system's classes, in one word.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum NameKind {
    Class,
    /// Its value lies between two classes.
    Between,
    /// Beyond the last class, or held out of one by its protein.
    Outside,
    /// The system has no class for this grain, or the value it asks for is not known.
    None,
}

impl FlourName {
    /// Whether it is a class's, or why not.
    pub fn kind(&self) -> NameKind {
        match self.standing {
            NameStanding::NoClass | NameStanding::UnknownAsh => NameKind::None,
            NameStanding::Between { .. } => NameKind::Between,
            NameStanding::Above { .. } | NameStanding::Below { .. } => NameKind::Outside,
            NameStanding::Class { asks, .. } if asks.is_short() => NameKind::Outside,
            NameStanding::Class { .. } => NameKind::Class,
        }
    }
}

impl NameProtein {
    /// Whether the name holds by ash only.
    pub fn is_short(self) -> bool {
        match self {
            Self::Nothing => false,
            Self::Least { least_pct, has_pct } => has_pct.is_some_and(|has| has < least_pct),
            Self::Use { found, .. } => found.is_none(),
        }
    }
}

/// A class by ash, both ends included, to two decimals.
pub(super) type Class = (&'static str, f64, f64);

const ANY: f64 = f64::INFINITY;
pub(super) const FR_WHEAT: [Class; 6] = [
    ("T45", 0.0, 0.49),
    ("T55", 0.50, 0.60),
    ("T65", 0.62, 0.75),
    ("T80", 0.75, 0.90),
    ("T110", 1.00, 1.20),
    ("T150", 1.41, ANY),
];
pub(super) const DE_WHEAT: [Class; 5] = [
    ("405", 0.0, 0.50),
    ("550", 0.51, 0.63),
    ("812", 0.64, 0.90),
    ("1050", 0.91, 1.20),
    ("1600", 1.21, 1.80),
];
pub(super) const DE_RYE: [Class; 5] = [
    ("815", 0.0, 0.90),
    ("997", 0.91, 1.10),
    ("1150", 1.11, 1.30),
    ("1370", 1.31, 1.60),
    ("1740", 1.61, 1.80),
];
pub(super) const DE_SPELT: [Class; 3] =
    [("630", 0.0, 0.70), ("812", 0.71, 0.90), ("1050", 0.91, 1.20)];
pub(super) const IT_WHEAT: [Class; 5] = [
    ("00", 0.0, 0.55),
    ("0", 0.56, 0.65),
    ("1", 0.66, 0.80),
    ("2", 0.81, 0.95),
    ("integrale", 1.30, 1.70),
];
/// Least protein on dry matter of each Italian class.
const IT_PROTEIN: [f64; 5] = [9.0, 11.0, 12.0, 12.0, 12.0];
pub(super) const US_WHEAT: [Class; 4] = [
    ("patent", 0.0, 0.45),
    ("bread", 0.46, 0.55),
    ("first clear", 0.55, 0.80),
    ("whole", 1.30, ANY),
];

/// What each national system calls a flour of this ash and protein.
///
/// France: common wheat by ash on dry matter. Germany: DIN 10355, wheat, rye and spelt, ash on dry
/// matter. Italy: common wheat by ash and least protein on dry matter. United States: descriptive,
/// common wheat by ash, and up to the first clear by what its protein suits (H), both on 14 %. Ash is taken to two decimals, as it is reported.
///
/// ```
/// use ironpeel_core::coefficient::Coefficients;
/// use ironpeel_core::flour::{MoistureBasis, Property, Reading, Readings, flour_names};
/// use ironpeel_core::flour::Species;
/// let ash = Reading {
///     property: Property::Ash, value: 0.61, basis: Some(MoistureBasis::DryMatter), method: None,
///     censored: None,
/// };
/// let names = flour_names(Species::Wheat, &Readings(vec![ash]), &Coefficients::default());
/// assert_eq!((names[0].name(), names[1].name()), ("between T55 and T65".into(), "550".into()));
/// ```
pub fn flour_names(
    species: Species,
    readings: &Readings,
    coefficients: &Coefficients,
) -> Vec<FlourName> {
    let dry = |property| readings.value(property, Some(MoistureBasis::DryMatter));
    let ash_dm = dry(Property::Ash);
    let ash_14 = readings.value(Property::Ash, Some(MoistureBasis::Fourteen));
    let common = species == Species::Wheat;
    let german = match species {
        Species::Wheat => Some(DE_WHEAT.as_slice()),
        Species::Rye => Some(DE_RYE.as_slice()),
        Species::Spelt => Some(DE_SPELT.as_slice()),
        _ => None,
    };
    let named = |system, ash: Option<f64>, classes: Option<&[Class]>, asks: &Asks<'_>| FlourName {
        system,
        standing: standing(ash, classes, asks),
    };
    let nothing: &Asks<'_> = &|_| NameProtein::Nothing;
    let protein_dm = dry(Property::Protein);
    let protein_14 = readings.value(Property::Protein, Some(MoistureBasis::Fourteen));
    vec![
        named("FR", ash_dm, common.then_some(&FR_WHEAT), nothing),
        named("DE", ash_dm, german, nothing),
        named("IT", ash_dm, common.then_some(&IT_WHEAT), &|at| NameProtein::Least {
            least_pct: IT_PROTEIN[at],
            has_pct: protein_dm,
        }),
        named("US", ash_14, common.then_some(&US_WHEAT), &|at| match at {
            US_PATENT | US_BREAD => NameProtein::Use {
                patent: at == US_PATENT,
                found: protein_14.map(|protein| use_of(protein, coefficients)),
            },
            _ => NameProtein::Nothing,
        }),
    ]
}

/// What the class at a place asks of protein.
type Asks<'a> = dyn Fn(usize) -> NameProtein + 'a;

/// Where a flour of this ash stands among classes, from white to whole.
fn standing(ash: Option<f64>, classes: Option<&[Class]>, asks: &Asks<'_>) -> NameStanding {
    let Some(classes) = classes else { return NameStanding::NoClass };
    let Some(ash) = ash else { return NameStanding::UnknownAsh };
    let ash_pct = (ash * 100.0).round() / 100.0;
    let within = classes.iter().position(|(_, low, high)| (*low..=*high).contains(&ash_pct));
    if let Some(at) = within {
        return NameStanding::Class { class: classes[at].0, ash_pct, asks: asks(at) };
    }
    let below = classes.iter().rev().find(|(_, _, high)| *high < ash_pct);
    let above = classes.iter().find(|(_, low, _)| *low > ash_pct);
    match (below, above) {
        (Some(&(below, ..)), Some(&(above, ..))) => NameStanding::Between { below, above, ash_pct },
        (Some(&(last, ..)), None) => NameStanding::Above { last, ash_pct },
        (None, _) => NameStanding::Below { ash_pct },
    }
}

/// Where the American grades stand whose use goes by protein.
const US_PATENT: usize = 0;
const US_BREAD: usize = 1;

/// Ash grades an American flour; what it is for goes by protein (H).
fn use_of(protein_14_pct: f64, coefficients: &Coefficients) -> UseByProtein {
    let uses = [
        ("high-gluten", &US_HIGH_GLUTEN),
        ("bread", &US_BREAD_FLOUR),
        ("all-purpose", &US_ALL_PURPOSE),
        ("pastry", &US_PASTRY),
    ];
    let found = uses.into_iter().find(|(_, from)| protein_14_pct >= coefficients.value(from));
    UseByProtein { used: found.map_or("cake", |(used, _)| used), protein_14_pct }
}

/// How hard a common wheat's kernel is: a matter apart from the grain.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, serde::Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Hardness {
    Hard,
    Medium,
    Soft,
}

impl Hardness {
    /// Every hardness.
    pub const ALL: [Self; 3] = [Self::Hard, Self::Medium, Self::Soft];

    /// The word in tables, on the wire and on screen.
    pub const fn key(self) -> &'static str {
        match self {
            Self::Hard => "hard",
            Self::Medium => "medium",
            Self::Soft => "soft",
        }
    }
}

/// What “hard” and “soft” mean for a flour where the words mean kernels (US) and where they mean
/// grains (FR, IT: hard is durum, soft is common wheat).
pub fn hard_and_soft(species: Species, hardness: Option<Hardness>) -> String {
    let kernel = hardness.map_or("not stated", Hardness::key);
    match species {
        Species::Wheat => {
            format!("US: {kernel} wheat, by its kernel · FR, IT: soft, for it is common wheat")
        }
        Species::Durum => "US: durum, apart from hard and soft · FR, IT: hard".into(),
        other => format!("neither word is used of {}", other.label()),
    }
}
