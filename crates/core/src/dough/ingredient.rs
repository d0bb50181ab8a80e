use crate::units::quoted;
use std::borrow::Cow;
use std::fmt;

use serde::de::{self, Deserialize, Deserializer};
use serde::{Serialize, Serializer};

/// What a formula's lines may be made of: what the house knows, or something of the plant's own,
/// by its number in the plant's library.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Ingredient {
    Flour,
    Water,
    InstantYeast,
    ActiveDryYeast,
    FreshYeast,
    Salt,
    Sugar,
    Fat,
    Oil,
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
    MaltFlour,
    Vinegar,
    AscorbicAcid,
    Seeds,
    PotatoFlakes,
    Xanthan,
    Own(u16),
}

/// The words of what the house knows, in the order of [`Ingredient::ALL`].
const WORDS: [&str; 29] = [
    "flour",
    "water",
    "instant_yeast",
    "active_dry_yeast",
    "fresh_yeast",
    "salt",
    "sugar",
    "fat",
    "oil",
    "butter",
    "vital_gluten",
    "skim_milk_powder",
    "soy_flour",
    "oat_fibre",
    "psyllium",
    "inulin",
    "bran",
    "milk",
    "egg",
    "egg_white",
    "honey",
    "molasses",
    "malt_syrup",
    "malt_flour",
    "vinegar",
    "ascorbic_acid",
    "seeds",
    "potato_flakes",
    "xanthan",
];
const OWN: &str = "own_";

impl Ingredient {
    /// Every ingredient the house knows.
    pub const ALL: [Self; 29] = [
        Self::Flour,
        Self::Water,
        Self::InstantYeast,
        Self::ActiveDryYeast,
        Self::FreshYeast,
        Self::Salt,
        Self::Sugar,
        Self::Fat,
        Self::Oil,
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
        Self::MaltFlour,
        Self::Vinegar,
        Self::AscorbicAcid,
        Self::Seeds,
        Self::PotatoFlakes,
        Self::Xanthan,
    ];

    /// The word in tables and on the wire.
    pub fn key(self) -> Cow<'static, str> {
        match self {
            Self::Own(number) => Cow::Owned(format!("{OWN}{number}")),
            known => Cow::Borrowed(WORDS[known.index()]),
        }
    }

    /// The ingredient of this word.
    ///
    /// ```
    /// use ironpeel_core::dough::Ingredient;
    /// assert_eq!(Ingredient::from_key("oat_fibre"), Some(Ingredient::OatFibre));
    /// assert_eq!(Ingredient::from_key("own_7"), Some(Ingredient::Own(7)));
    /// assert_eq!(Ingredient::from_key("sand"), None);
    /// ```
    pub fn from_key(key: &str) -> Option<Self> {
        if let Some(number) = key.strip_prefix(OWN) {
            let is_plain = number.bytes().all(|byte| byte.is_ascii_digit());
            return is_plain.then(|| number.parse().ok().map(Self::Own)).flatten();
        }
        WORDS.iter().position(|word| *word == key).map(|at| Self::ALL[at])
    }

    /// Whether it lives and raises the dough.
    pub const fn is_yeast(self) -> bool {
        matches!(self, Self::InstantYeast | Self::ActiveDryYeast | Self::FreshYeast)
    }

    /// Its place in [`Ingredient::ALL`]; of the plant's own, after them.
    pub(super) fn index(self) -> usize {
        Self::ALL.iter().position(|known| *known == self).unwrap_or(Self::ALL.len())
    }
}

impl fmt::Display for Ingredient {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(&self.key())
    }
}

impl Serialize for Ingredient {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        serializer.serialize_str(&self.key())
    }
}

impl<'de> Deserialize<'de> for Ingredient {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        let word = String::deserialize(deserializer)?;
        Self::from_key(&word).ok_or_else(|| {
            let short = quoted(&word);
            de::Error::custom(format!("“{short}” is no ingredient; use one of {WORDS:?}"))
        })
    }
}

#[cfg(feature = "openapi")]
mod openapi {
    use utoipa::openapi::{RefOr, Schema, schema};

    impl utoipa::PartialSchema for super::Ingredient {
        fn schema() -> RefOr<Schema> {
            schema::ObjectBuilder::new()
                .schema_type(schema::Type::String)
                .description(Some(format!("One of {:?}, or own_ and a number.", super::WORDS)))
                .into()
        }
    }

    impl utoipa::ToSchema for super::Ingredient {}
}
