use serde::{Deserialize, Serialize};

/// What a formula's lines may be made of.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Ingredient {
    Flour,
    Water,
    InstantYeast,
    FreshYeast,
    Salt,
    Sugar,
    Fat,
    Butter,
    VitalGluten,
    SkimMilkPowder,
    SoyFlour,
    OatFibre,
    Psyllium,
    Inulin,
    Bran,
    Milk,
    Egg,
    EggWhite,
    Honey,
    Molasses,
    MaltSyrup,
    Vinegar,
    AscorbicAcid,
}

/// Points of water on flour for each 1 % of an ingredient: typical, low, high. House defaults.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Effect {
    pub points: f64,
    pub low: f64,
    pub high: f64,
    pub reason: &'static str,
}

const SUGAR: Effect =
    Effect { points: -0.25, low: -0.5, high: -0.1, reason: "dissolved sugar slackens the dough" };
const FAT: Effect =
    Effect { points: -0.3, low: -0.5, high: -0.1, reason: "fat softens in place of water" };

impl Effect {
    /// The effect of an ingredient of which only a part acts so.
    const fn part(self, share: f64) -> Self {
        Self {
            points: self.points * share,
            low: self.low * share,
            high: self.high * share,
            reason: self.reason,
        }
    }
}

impl Ingredient {
    /// Every ingredient a line may name.
    pub const ALL: [Self; 23] = [
        Self::Flour,
        Self::Water,
        Self::InstantYeast,
        Self::FreshYeast,
        Self::Salt,
        Self::Sugar,
        Self::Fat,
        Self::Butter,
        Self::VitalGluten,
        Self::SkimMilkPowder,
        Self::SoyFlour,
        Self::OatFibre,
        Self::Psyllium,
        Self::Inulin,
        Self::Bran,
        Self::Milk,
        Self::Egg,
        Self::EggWhite,
        Self::Honey,
        Self::Molasses,
        Self::MaltSyrup,
        Self::Vinegar,
        Self::AscorbicAcid,
    ];

    /// The word in tables and on the wire.
    pub const fn key(self) -> &'static str {
        match self {
            Self::Flour => "flour",
            Self::Water => "water",
            Self::InstantYeast => "instant_yeast",
            Self::FreshYeast => "fresh_yeast",
            Self::Salt => "salt",
            Self::Sugar => "sugar",
            Self::Fat => "fat",
            Self::Butter => "butter",
            Self::VitalGluten => "vital_gluten",
            Self::SkimMilkPowder => "skim_milk_powder",
            Self::SoyFlour => "soy_flour",
            Self::OatFibre => "oat_fibre",
            Self::Psyllium => "psyllium",
            Self::Inulin => "inulin",
            Self::Bran => "bran",
            Self::Milk => "milk",
            Self::Egg => "egg",
            Self::EggWhite => "egg_white",
            Self::Honey => "honey",
            Self::Molasses => "molasses",
            Self::MaltSyrup => "malt_syrup",
            Self::Vinegar => "vinegar",
            Self::AscorbicAcid => "ascorbic_acid",
        }
    }

    /// The ingredient of this word.
    pub fn from_key(key: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|ingredient| ingredient.key() == key)
    }

    /// The word on screen.
    pub const fn label(self) -> &'static str {
        match self {
            Self::Flour => "flour",
            Self::Water => "water",
            Self::InstantYeast => "instant yeast",
            Self::FreshYeast => "fresh yeast",
            Self::Salt => "salt",
            Self::Sugar => "sugar",
            Self::Fat => "fat",
            Self::Butter => "butter",
            Self::VitalGluten => "vital gluten",
            Self::SkimMilkPowder => "skim milk powder",
            Self::SoyFlour => "soy flour",
            Self::OatFibre => "oat fibre",
            Self::Psyllium => "psyllium",
            Self::Inulin => "inulin",
            Self::Bran => "bran",
            Self::Milk => "milk",
            Self::Egg => "egg",
            Self::EggWhite => "egg white",
            Self::Honey => "honey",
            Self::Molasses => "molasses",
            Self::MaltSyrup => "malt syrup",
            Self::Vinegar => "vinegar",
            Self::AscorbicAcid => "ascorbic acid",
        }
    }

    /// Water it brings, in percent of itself.
    pub const fn water_pct(self) -> f64 {
        match self {
            Self::Water => 100.0,
            Self::Milk => 87.5,
            Self::Egg => 75.0,
            Self::EggWhite => 88.0,
            Self::Butter => 16.0,
            Self::Honey => 17.0,
            Self::Molasses => 22.0,
            Self::MaltSyrup => 20.0,
            Self::FreshYeast => 70.0,
            Self::Vinegar => 94.0,
            _ => 0.0,
        }
    }

    /// Its specific heat in kJ/kg·K: fat 2.0, powders 1.3, and what is wet by its water.
    pub fn specific_heat(self) -> f64 {
        match self {
            Self::Fat | Self::Butter => 2.0,
            _ if self.water_pct() > 0.0 => {
                (1.45 * (100.0 - self.water_pct()) + 4.186 * self.water_pct()) / 100.0
            }
            _ => 1.3,
        }
    }

    /// What 1 % of it does to the water; none where nothing is to be said.
    pub const fn effect(self) -> Option<Effect> {
        let (points, low, high, reason) = match self {
            Self::Salt => (-0.6, -0.9, -0.4, "salt tightens the film and frees water"),
            Self::Sugar => return Some(SUGAR),
            Self::Honey => return Some(SUGAR.part(0.83)),
            Self::Molasses => return Some(SUGAR.part(0.78)),
            Self::MaltSyrup => return Some(SUGAR.part(0.80)),
            Self::Fat => return Some(FAT),
            Self::Butter => return Some(FAT.part(0.80)),
            Self::VitalGluten => (1.3, 1.0, 1.6, "gluten drinks more than its weight"),
            Self::SkimMilkPowder => (0.8, 0.5, 1.0, "milk solids take up water"),
            Self::SoyFlour => (1.0, 0.8, 1.2, "soy takes up its own weight"),
            Self::OatFibre => (2.0, 1.5, 3.0, "fibre holds water"),
            Self::Psyllium => (6.0, 4.0, 8.0, "psyllium gels"),
            Self::Inulin => (-0.5, -1.0, 0.0, "inulin slackens like a sugar"),
            Self::Bran => (0.9, 0.6, 1.2, "bran drinks, slowly"),
            _ => return None,
        };
        Some(Effect { points, low, high, reason })
    }
}
