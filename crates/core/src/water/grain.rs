use serde::Serialize;

use super::{CorrectionFactor, CorrectionFactors, FlourPart};
use crate::flour::Species;
use crate::units::Estimate;

/// How a grain behaves beside white common wheat, and how to handle it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Grain {
    pub species: Species,
    pub label: &'static str,
    /// Mixing time beside white wheat's, 1 being the same (H).
    pub mixing: Estimate,
    /// Speed of fermentation beside white wheat's (H).
    pub fermentation: Estimate,
    pub water: &'static str,
    pub handling: &'static str,
    pub tolerance: &'static str,
}

/// How a mix of flours behaves: by its parts.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct MixOfGrains {
    pub mixing: Estimate,
    pub fermentation: Estimate,
    /// Water moved by the grains themselves: offsets where not measured, and what is held back.
    pub water_points: f64,
    pub has_gluten: bool,
    /// Each grain with its share, the largest first.
    pub grains: Vec<GrainShare>,
}

#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct GrainShare {
    pub share_pct: f64,
    /// Of that, whole grain.
    pub whole_grain_pct: f64,
    #[serde(flatten)]
    pub grain: Grain,
}

/// Bran quickens fermentation and shortens tolerance, for 100 % whole grain (H).
const BRAN_FERMENTS: Estimate = Estimate::new(0.25, 0.10, 0.40);
const BRAN_MIXING: Estimate = Estimate::new(-0.15, -0.25, 0.0);

impl Species {
    /// How it behaves and is handled. House defaults in the trade's words.
    pub const fn grain(self) -> Grain {
        let (mixing, fermentation, water, handling, tolerance) = match self {
            Self::Wheat => (
                Estimate::new(1.0, 1.0, 1.0),
                Estimate::new(1.0, 1.0, 1.0),
                "its own figure",
                "by its strength",
                "by its stability",
            ),
            Self::Durum => (
                Estimate::new(1.2, 1.0, 1.4),
                Estimate::new(1.0, 0.9, 1.1),
                "drinks a little more, slowly; rest it before judging",
                "short, tearing gluten: mix gently and long, no fast speed at the end",
                "tight but brittle",
            ),
            Self::Spelt => (
                Estimate::new(0.6, 0.5, 0.75),
                Estimate::new(1.1, 1.0, 1.25),
                "hold water back and add by the dough: it slackens after mixing",
                "short, slow mixing, then folds; a tin or a basket holds what it cannot",
                "small: two minutes too long and it runs",
            ),
            Self::Emmer => (
                Estimate::new(0.5, 0.4, 0.65),
                Estimate::new(1.15, 1.0, 1.3),
                "hold back more than from spelt; it drinks slowly and lets go again",
                "hardly more than bringing together; acid helps it stand; bake in a tin",
                "very small",
            ),
            Self::Einkorn => (
                Estimate::new(0.4, 0.3, 0.55),
                Estimate::new(1.2, 1.0, 1.4),
                "far drier than wheat; sticky at any water",
                "mix as a batter is mixed, wet hands or a scraper, in a tin; one rise",
                "almost none",
            ),
            Self::Khorasan => (
                Estimate::new(0.8, 0.65, 0.95),
                Estimate::new(1.05, 0.95, 1.15),
                "drinks more than wheat, slowly",
                "extensible and slack: shorter mixing, more folds",
                "less than wheat",
            ),
            Self::Rye => (
                Estimate::new(0.5, 0.35, 0.7),
                Estimate::new(1.3, 1.1, 1.5),
                "pentosans drink and go on drinking; the dough is a paste",
                "slow speed only; starch carries it, so sour or another acid from about a fifth of \
                 the flour; cut it the next day",
                "none to speak of: no film to overmix, but it smears",
            ),
            Self::GlutenFree => (
                Estimate::new(0.4, 0.3, 0.5),
                Estimate::new(1.0, 0.8, 1.3),
                "what its own sheet says, added in stages",
                "no film: mix until even, shape with wet hands, one rise, two-stage bake",
                "none: what is knocked out does not come back",
            ),
            Self::LowStarch => (
                Estimate::new(0.5, 0.4, 0.7),
                Estimate::new(0.8, 0.6, 1.0),
                "what its own sheet says, added in stages; proteins and fibres go on drinking",
                "mix until even and let it stand; little sugar for yeast, one rise, long bake",
                "none",
            ),
        };
        Grain {
            species: self,
            label: self.label(),
            mixing,
            fermentation,
            water,
            handling,
            tolerance,
        }
    }
}

/// How a mix behaves: each grain by its share, bran on top.
pub fn mix_of_grains(
    flours: &[FlourPart<'_>],
    correction_factors: &CorrectionFactors,
) -> MixOfGrains {
    let nothing = Estimate::new(0.0, 0.0, 0.0);
    let (mut mixing, mut fermentation, mut water_points) = (nothing, nothing, 0.0);
    let mut grains: Vec<GrainShare> = Vec::new();
    let add = |sum: &mut Estimate, more: Estimate| {
        sum.typical += more.typical;
        sum.low += more.low;
        sum.high += more.high;
    };
    for FlourPart { flour, share_pct, .. } in flours {
        let share = share_pct / 100.0;
        let grain = flour.species.grain();
        let bran = share * flour.whole_grain_pct / 100.0;
        add(&mut mixing, grain.mixing.times(share));
        add(&mut mixing, BRAN_MIXING.times(bran));
        add(&mut fermentation, grain.fermentation.times(share));
        add(&mut fermentation, BRAN_FERMENTS.times(bran));
        let offset = CorrectionFactor::offset_of(flour.species)
            .filter(|_| flour.absorption_14_pct.is_none());
        let rules_of = [offset, CorrectionFactor::held_back_of(flour.species)];
        water_points += share
            * rules_of
                .into_iter()
                .flatten()
                .filter_map(|rule| correction_factors.active(rule))
                .sum::<f64>();
        match grains.iter_mut().find(|known| known.grain.species == flour.species) {
            Some(known) => {
                known.share_pct += share_pct;
                known.whole_grain_pct += 100.0 * bran;
            }
            None => grains.push(GrainShare {
                share_pct: *share_pct,
                whole_grain_pct: 100.0 * bran,
                grain,
            }),
        }
    }
    grains.sort_by(|a, b| b.share_pct.total_cmp(&a.share_pct));
    let has_gluten = flours.iter().any(|part| part.flour.species.has_gluten());
    MixOfGrains { mixing, fermentation, water_points, has_gluten, grains }
}
