use serde::{Deserialize, Deserializer, Serialize};

/// What must be declared: all that EU regulation 1169/2011, annex II, and the list of the United
/// States name.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Allergen {
    /// Wheat, spelt, rye, barley, oats: cereals that contain gluten.
    Gluten,
    /// Of those, wheat and its kin, named by itself in the United States.
    Wheat,
    Crustaceans,
    Egg,
    Fish,
    Peanut,
    Soy,
    Milk,
    Nuts,
    Celery,
    Mustard,
    Sesame,
    Sulphite,
    Lupin,
    Molluscs,
}

impl Allergen {
    /// Every one.
    pub const ALL: [Self; 15] = [
        Self::Gluten,
        Self::Wheat,
        Self::Crustaceans,
        Self::Egg,
        Self::Fish,
        Self::Peanut,
        Self::Soy,
        Self::Milk,
        Self::Nuts,
        Self::Celery,
        Self::Mustard,
        Self::Sesame,
        Self::Sulphite,
        Self::Lupin,
        Self::Molluscs,
    ];

    /// The word on a label.
    pub const fn label(self) -> &'static str {
        match self {
            Self::Gluten => "cereals containing gluten",
            Self::Wheat => "wheat",
            Self::Crustaceans => "crustaceans",
            Self::Egg => "egg",
            Self::Fish => "fish",
            Self::Peanut => "peanut",
            Self::Soy => "soy",
            Self::Milk => "milk",
            Self::Nuts => "tree nuts",
            Self::Celery => "celery",
            Self::Mustard => "mustard",
            Self::Sesame => "sesame",
            Self::Sulphite => "sulphite",
            Self::Lupin => "lupin",
            Self::Molluscs => "molluscs",
        }
    }
}

/// What a supplier states of one flour or ingredient. Nothing is known until it is stated.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AllergenStatement {
    pub contains: Vec<Allergen>,
    pub may_contain: Vec<Allergen>,
}

impl AllergenStatement {
    /// By what the thing itself is.
    pub fn by_nature(contains: &[Allergen]) -> Self {
        Self { contains: contains.to_vec(), may_contain: Vec::new() }
    }

    /// Each allergen once, in order, and none that it contains among what it may contain.
    #[must_use]
    pub fn tidy(mut self) -> Self {
        self.contains.sort_unstable();
        self.contains.dedup();
        self.may_contain.sort_unstable();
        self.may_contain.dedup();
        self.may_contain.retain(|one| !self.contains.contains(one));
        self
    }
}

impl<'de> Deserialize<'de> for AllergenStatement {
    /// As stated, or a list of what it contains, as earlier records have it.
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        #[derive(Deserialize)]
        #[serde(untagged)]
        enum Written {
            Contains(Vec<Allergen>),
            Stated {
                #[serde(default)]
                contains: Vec<Allergen>,
                #[serde(default)]
                may_contain: Vec<Allergen>,
            },
        }
        Ok(match Written::deserialize(deserializer)? {
            Written::Contains(contains) => Self { contains, may_contain: Vec::new() },
            Written::Stated { contains, may_contain } => Self { contains, may_contain },
        })
    }
}
