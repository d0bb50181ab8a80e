//! The cheapest blend within targets, and what stands in the way where there is none.

mod lots;
mod mixture;
mod search;

use serde::{Deserialize, Serialize};

use crate::coefficient::Origin;
use crate::units::{NumberRange, RawNumber, ValidationErrors, quoted};

pub use lots::{BlendCheck, BlendShares, LotInBlend, blend_price, blended_certificate};
pub use mixture::{BlendFlour, BlendProperty, Mixture};
use search::BlendSearch;

const MOST_FLOURS: usize = 20;
const MOST_TARGETS: usize = 20;
const NAME_MAX: usize = 80;

const PRICE: NumberRange = NumberRange::new("price_per_t", "price", "per t", 0.0, 1e6);
const MIN_SHARE: NumberRange = NumberRange::new("min_share_pct", "smallest share", "%", 0.0, 100.0);
const MAX_SHARE: NumberRange = NumberRange::new("max_share_pct", "largest share", "%", 0.0, 100.0);

/// A flour a blend may be made of, as a caller gave it.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BlendFlourInput {
    #[serde(default)]
    pub name: String,
    #[serde(default)]
    pub price_per_t: RawNumber,
    #[serde(default)]
    pub moisture_pct: RawNumber,
    #[serde(default)]
    pub protein_14_pct: RawNumber,
    #[serde(default)]
    pub ash_dm_pct: RawNumber,
    #[serde(default)]
    pub damaged_starch_pct: RawNumber,
    #[serde(default)]
    pub w: RawNumber,
    #[serde(default)]
    pub falling_number_s: RawNumber,
    #[serde(default)]
    pub min_share_pct: RawNumber,
    #[serde(default)]
    pub max_share_pct: RawNumber,
}

/// What is wanted of a blend, as a caller gave it.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BlendTargetInput {
    /// moisture_pct, protein_14_pct, ash_dm_pct, damaged_starch_pct, w or falling_number_s.
    #[serde(default)]
    pub property: String,
    #[serde(default)]
    pub min: RawNumber,
    #[serde(default)]
    pub max: RawNumber,
}

/// What the `blend` calculator is asked.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BlendInput {
    /// 1 to 20.
    #[serde(default)]
    pub flours: Vec<BlendFlourInput>,
    #[serde(default)]
    pub targets: Vec<BlendTargetInput>,
}

/// A side of a target: at least, or at most.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Side {
    Min,
    Max,
}

/// One side of one target.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Target {
    pub property: BlendProperty,
    pub side: Side,
    pub wanted: f64,
}

/// A target that cannot be had together with the others.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[serde(into = "super::words::ConflictWords")]
pub struct Conflict {
    pub of: ConflictOf,
    pub side: Side,
    pub wanted: f64,
    /// The nearest that can be had while the targets it conflicts with are kept.
    pub best_reachable: f64,
    /// The targets it conflicts with.
    pub kept: Vec<BlendProperty>,
}

/// What cannot be had.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum ConflictOf {
    Property(BlendProperty),
    /// The shares themselves cannot add up to 100 %.
    Shares,
}

impl ConflictOf {
    /// Its word in answers.
    pub const fn key(self) -> &'static str {
        match self {
            Self::Property(property) => property.key(),
            Self::Shares => "share",
        }
    }
}

/// A flour's share of the blend, of as-is mass.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BlendShare {
    pub name: String,
    pub share_pct: f64,
}

/// The cheapest blend, or the nearest there is with the reasons why not.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BlendAnswer {
    pub feasible: bool,
    pub shares: Vec<BlendShare>,
    pub price_per_t: f64,
    pub blend: Mixture,
    pub conflicts: Vec<Conflict>,
    /// Strength does not truly mix by mass: a house rule.
    pub w_origin: Origin,
    pub notes: Vec<&'static str>,
}

/// Flours and targets, checked.
#[derive(Debug, Clone, PartialEq)]
pub struct Blend {
    flours: Vec<BlendFlour>,
    targets: Vec<Target>,
}

impl BlendInput {
    /// Checks every field, then finds the cheapest blend.
    ///
    /// ```
    /// use ironpeel_core::flour::BlendInput;
    /// let input: BlendInput = serde_json::from_str(r#"{
    ///     "flours": [
    ///         {"name": "A", "price_per_t": 520, "moisture_pct": 14.2, "protein_14_pct": 13.6,
    ///          "ash_dm_pct": 0.62, "damaged_starch_pct": 8.9, "w": 340, "falling_number_s": 390},
    ///         {"name": "B", "price_per_t": 430, "moisture_pct": 13.8, "protein_14_pct": 11.2,
    ///          "ash_dm_pct": 0.55, "damaged_starch_pct": 7.0, "w": 215, "falling_number_s": 310}],
    ///     "targets": [{"property": "protein_14_pct", "min": 12.4}]}"#)?;
    /// let answer = input.compute()?;
    /// assert!(answer.feasible && (answer.blend.protein_14_pct - 12.4).abs() < 1e-6);
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    pub fn compute(&self) -> Result<BlendAnswer, ValidationErrors> {
        Ok(self.check()?.cheapest())
    }

    fn check(&self) -> Result<Blend, ValidationErrors> {
        let mut faults = ValidationErrors::default();
        let count = self.flours.len();
        if !(1..=MOST_FLOURS).contains(&count) {
            faults.push(
                "flours",
                format!("a blend is of 1 to {MOST_FLOURS} flours; {count} were given"),
            );
        }
        if self.targets.len() > MOST_TARGETS {
            faults.push("targets", format!("up to {MOST_TARGETS} targets are taken"));
        }
        let flours = self.flours.iter().take(MOST_FLOURS).enumerate();
        let flours = flours.map(|(at, flour)| flour.check(&format!("flours[{at}]."), &mut faults));
        let flours = flours.collect();
        let targets = self.targets.iter().take(MOST_TARGETS).enumerate();
        let targets = targets
            .flat_map(|(at, target)| target.check(&format!("targets[{at}]."), &mut faults))
            .collect();
        faults.or(Blend { flours, targets })
    }
}

impl BlendFlourInput {
    fn check(&self, at: &str, faults: &mut ValidationErrors) -> BlendFlour {
        let name = self.name.trim();
        if name.is_empty() || name.chars().count() > NAME_MAX {
            let message = format!("each flour needs a name, up to {NAME_MAX} letters");
            faults.push(format!("{at}name"), message);
        }
        let min_share_pct = MIN_SHARE.check_or(&self.min_share_pct, 0.0, at, faults);
        let max_share_pct = MAX_SHARE.check_or(&self.max_share_pct, 100.0, at, faults);
        if min_share_pct > max_share_pct {
            faults.push(
                format!("{at}min_share_pct"),
                format!(
                    "smallest share must not be above the largest; {min_share_pct} % and \
                     {max_share_pct} % were given"
                ),
            );
        }
        let mut of = |property: BlendProperty, given| property.bound().check(given, at, faults);
        let properties = Mixture {
            moisture_pct: of(BlendProperty::Moisture, &self.moisture_pct),
            protein_14_pct: of(BlendProperty::Protein, &self.protein_14_pct),
            ash_dm_pct: of(BlendProperty::Ash, &self.ash_dm_pct),
            damaged_starch_pct: of(BlendProperty::DamagedStarch, &self.damaged_starch_pct),
            w: of(BlendProperty::W, &self.w),
            falling_number_s: of(BlendProperty::FallingNumber, &self.falling_number_s),
        };
        let price_per_t = PRICE.check(&self.price_per_t, at, faults);
        BlendFlour { name: name.into(), price_per_t, properties, min_share_pct, max_share_pct }
    }
}

impl BlendTargetInput {
    fn check(&self, at: &str, faults: &mut ValidationErrors) -> Vec<Target> {
        let Some(property) = BlendProperty::named(&self.property) else {
            let known: Vec<_> = BlendProperty::ALL.iter().map(|one| one.key()).collect();
            let given = quoted(&self.property);
            faults.push(
                format!("{at}property"),
                format!("“{given}” is not a property of a blend; one of {}", known.join(", ")),
            );
            return Vec::new();
        };
        if self.min.is_missing() && self.max.is_missing() {
            faults.push(format!("{at}min"), "a target needs a minimum, a maximum or both");
        }
        let min = property.side_bound("min").check_opt(&self.min, at, faults);
        let max = property.side_bound("max").check_opt(&self.max, at, faults);
        if let (Some(min), Some(max)) = (min, max)
            && min > max
        {
            faults.push(
                format!("{at}min"),
                format!("the minimum must not be above the maximum; {min} and {max} were given"),
            );
        }
        let side =
            |side, wanted: Option<f64>| wanted.map(|wanted| Target { property, side, wanted });
        [side(Side::Min, min), side(Side::Max, max)].into_iter().flatten().collect()
    }
}

impl Blend {
    /// The cheapest shares within every target, by linear programming.
    ///
    /// Shares are of as-is mass. Moisture mixes by mass, everything else by dry matter, falling
    /// number as liquefaction number; W only approximately (H). Where no shares meet every target,
    /// each target that stands in the way says what could be had, and the shares are those that
    /// come nearest.
    pub fn cheapest(&self) -> BlendAnswer {
        let search = BlendSearch::new(&self.flours);
        let cheapest = search.cheapest(&self.targets);
        let feasible = cheapest.is_some();
        let conflicts = if feasible { Vec::new() } else { search.conflicts(&self.targets) };
        let shares = cheapest.unwrap_or_else(|| search.nearest(&self.targets));
        self.answer(feasible, &shares, conflicts)
    }

    /// What these shares make, in percent of as-is mass; scaled to 100 where they are not.
    pub fn mixed(&self, shares_pct: &[f64]) -> Mixture {
        Mixture::of(
            self.flours.iter().map(|flour| flour.properties).zip(shares_pct.iter().copied()),
        )
    }

    fn answer(&self, feasible: bool, shares: &[f64], conflicts: Vec<Conflict>) -> BlendAnswer {
        let priced = self.flours.iter().zip(shares);
        BlendAnswer {
            feasible,
            price_per_t: priced.map(|(flour, share)| flour.price_per_t * share / 100.0).sum(),
            shares: self
                .flours
                .iter()
                .zip(shares)
                .map(|(flour, share_pct)| BlendShare {
                    name: flour.name.clone(),
                    share_pct: *share_pct,
                })
                .collect(),
            blend: self.mixed(shares),
            conflicts,
            w_origin: Origin::House,
            notes: vec![
                "W is taken as mixing by dry matter, which holds only roughly: bake before relying on it",
            ],
        }
    }
}
