use serde::{Deserialize, Serialize};

/// What is wanted of the bread or the dough.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum QualityGoal {
    OpenCrumb,
    LighterWholeGrain,
    LessSticky,
    Stronger,
    Faster,
    Slower,
    SofterLonger,
    FewerAdditives,
    DrierHandling,
}

impl QualityGoal {
    /// Every goal.
    pub const ALL: [Self; 9] = [
        Self::OpenCrumb,
        Self::LighterWholeGrain,
        Self::LessSticky,
        Self::Stronger,
        Self::Faster,
        Self::Slower,
        Self::SofterLonger,
        Self::FewerAdditives,
        Self::DrierHandling,
    ];

    /// The words on screen.
    pub const fn label(self) -> &'static str {
        match self {
            Self::OpenCrumb => "a more open crumb",
            Self::LighterWholeGrain => "a lighter whole-grain loaf",
            Self::LessSticky => "less sticky",
            Self::Stronger => "a stronger dough",
            Self::Faster => "faster",
            Self::Slower => "slower",
            Self::SofterLonger => "softer for longer",
            Self::FewerAdditives => "fewer additives",
            Self::DrierHandling => "drier handling",
        }
    }
}

/// One change to a dough, of a usual size (H).
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Intervention {
    MoreWater,
    LessWater,
    Autolyse,
    AnotherFold,
    Sieve,
    PartWhite,
    VitalGluten,
    YeastTrace,
    MoreYeast,
    LessYeast,
    WarmerDough,
    ColderDough,
    ColdNight,
    MoreFat,
    Scald,
    Sponge,
    NoAscorbicAcid,
    MoreSalt,
    WaterInTwo,
    Psyllium,
}

/// What an intervention is, in the trade's words.
pub(super) struct Words {
    pub label: &'static str,
    /// What it does for the bread.
    pub does: &'static str,
    /// What it costs.
    pub trade_off: &'static str,
    pub goals: &'static [QualityGoal],
}

impl Intervention {
    /// Every intervention.
    pub const ALL: [Self; 20] = [
        Self::MoreWater,
        Self::LessWater,
        Self::Autolyse,
        Self::AnotherFold,
        Self::Sieve,
        Self::PartWhite,
        Self::VitalGluten,
        Self::YeastTrace,
        Self::MoreYeast,
        Self::LessYeast,
        Self::WarmerDough,
        Self::ColderDough,
        Self::ColdNight,
        Self::MoreFat,
        Self::Scald,
        Self::Sponge,
        Self::NoAscorbicAcid,
        Self::MoreSalt,
        Self::WaterInTwo,
        Self::Psyllium,
    ];

    /// Whether it makes another flour of the one there is.
    pub(super) const fn is_of_flour(self) -> bool {
        matches!(self, Self::Sieve | Self::PartWhite)
    }

    /// Whether it works through a gluten film, so that it is nothing to a dough without one.
    pub(super) const fn needs_gluten(self) -> bool {
        matches!(
            self,
            Self::Autolyse
                | Self::AnotherFold
                | Self::VitalGluten
                | Self::Sieve
                | Self::PartWhite
                | Self::Sponge
                | Self::NoAscorbicAcid
                | Self::MoreSalt
                | Self::Scald
        )
    }

    #[expect(clippy::too_many_lines, reason = "a table")]
    pub(super) const fn words(self) -> Words {
        use QualityGoal::{
            DrierHandling, Faster, FewerAdditives, LessSticky, LighterWholeGrain, OpenCrumb,
            Slower, SofterLonger, Stronger,
        };
        let (label, does, trade_off, goals): (_, _, _, &'static [QualityGoal]) = match self {
            Self::MoreWater => (
                "3 points more water",
                "a wetter dough opens the crumb and stays soft",
                "harder to handle; beyond what the strength carries it runs flat",
                &[OpenCrumb, LighterWholeGrain, SofterLonger],
            ),
            Self::LessWater => (
                "2 points less water",
                "a drier dough leaves hands and machines clean",
                "a tighter crumb, less dough from the same flour, stales sooner",
                &[LessSticky, DrierHandling],
            ),
            Self::Autolyse => (
                "30 min autolyse",
                "flour and water rest before the salt: they hydrate and develop by themselves, so \
                 less mixing, more colour and flavour kept",
                "half an hour; an hour is the most for a medium flour. One more set of folds does \
                 the same",
                &[OpenCrumb, Stronger, FewerAdditives],
            ),
            Self::AnotherFold => (
                "one more set of folds",
                "folds build the film that a mixer would; so does any rest",
                "half an hour and a pair of hands",
                &[OpenCrumb, Stronger, LessSticky],
            ),
            Self::Sieve => (
                "one pass of a 30-mesh sieve, 14 % off",
                "takes out the coarse bran that cuts the film",
                "14 % of the flour, some of the flavour; a second pass takes little more. Flour \
                 dust: extract it, no flames",
                &[LighterWholeGrain],
            ),
            Self::PartWhite => (
                "30 % of the flour white",
                "less bran to cut the film, more gluten to hold",
                "no longer whole grain; say so on the label",
                &[LighterWholeGrain, Stronger],
            ),
            Self::VitalGluten => (
                "2 % vital gluten",
                "more film to carry the bran",
                "higher absorption, tougher; on the label; wheat",
                &[LighterWholeGrain, Stronger],
            ),
            Self::YeastTrace => (
                "a trace of baker's yeast, 0.1 %",
                "lifts a sourdough without changing its flavour much",
                "no longer sour alone; shorter, so watch it",
                &[LighterWholeGrain, Faster],
            ),
            Self::MoreYeast => (
                "half as much yeast again",
                "buys volume and time",
                "not maturity: an immature dough does not flow, and its edges stay white",
                &[Faster],
            ),
            Self::LessYeast => (
                "half the yeast",
                "time for flavour and for a plan that can wait",
                "nearly twice as long",
                &[Slower],
            ),
            Self::WarmerDough => (
                "dough 2 K warmer",
                "ferments faster without more yeast",
                "slacker and stickier; less tolerant",
                &[Faster],
            ),
            Self::ColderDough => (
                "dough 3 K colder",
                "firmer, slower, more tolerant",
                "longer proof; more ice in summer",
                &[Slower, LessSticky, DrierHandling],
            ),
            Self::ColdNight => (
                "a night in the cold, 12 h at 4 °C",
                "buys time and flavour, takes up water",
                "half a day and cold room for it",
                &[Slower, OpenCrumb, FewerAdditives],
            ),
            Self::MoreFat => (
                "2 % more fat",
                "a shorter, softer crumb that stays so",
                "richer, dearer; takes the place of water",
                &[SofterLonger],
            ),
            Self::Scald => (
                "scald 8 % of the flour",
                "boiling water gelatinises starch: it holds water and keeps the bread fresh",
                "an hour to cool before yeast meets it; boiling water burns",
                &[SofterLonger],
            ),
            Self::Sponge => (
                "half the flour as a sponge",
                "hours hydrate and ripen the flour: flavour, shelf life, water, tolerance, and \
                 conditioners can go",
                "three to four hours, a trough and its floor, cleaning",
                &[FewerAdditives, SofterLonger, Stronger],
            ),
            Self::NoAscorbicAcid => (
                "no ascorbic acid",
                "one line less on the label",
                "slacker: give time, folds or a stronger flour in its place",
                &[FewerAdditives],
            ),
            Self::MoreSalt => (
                "0.2 % more salt",
                "tightens the film, slows fermentation",
                "saltier, and salt limits differ by country",
                &[LessSticky, Stronger, Slower],
            ),
            Self::WaterInTwo => (
                "water in two goes",
                "develop it dry, then add the last of the water: the same water, less stick",
                "ten minutes at the mixer",
                &[OpenCrumb, LessSticky, DrierHandling],
            ),
            Self::Psyllium => (
                "1 % psyllium",
                "gels: something to hold gas and hands off the dough where there is no film",
                "drinks six times its weight; rubbery if too much",
                &[Stronger, LessSticky, SofterLonger],
            ),
        };
        Words { label, does, trade_off, goals }
    }
}
