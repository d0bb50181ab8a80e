use serde::Serialize;

use super::FlourPart;
use super::coefficients as c;
use crate::coefficient::Coefficients;
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

impl Species {
    /// How it behaves and is handled, in the trade's words.
    pub fn grain(self, coefficients: &Coefficients) -> Grain {
        let (water, handling, tolerance) = match self {
            Self::Wheat => ("its own figure", "by its strength", "by its stability"),
            Self::Durum => (
                "drinks a little more, slowly; rest it before judging",
                "short, tearing gluten: mix gently and long, no fast speed at the end",
                "tight but brittle",
            ),
            Self::Spelt => (
                "hold water back and add by the dough: it slackens after mixing",
                "short, slow mixing, then folds; a tin or a basket holds what it cannot",
                "small: two minutes too long and it runs",
            ),
            Self::Emmer => (
                "hold back more than from spelt; it drinks slowly and lets go again",
                "hardly more than bringing together; acid helps it stand; bake in a tin",
                "very small",
            ),
            Self::Einkorn => (
                "far drier than wheat; sticky at any water",
                "mix as a batter is mixed, wet hands or a scraper, in a tin; one rise",
                "almost none",
            ),
            Self::Khorasan => (
                "drinks more than wheat, slowly",
                "extensible and slack: shorter mixing, more folds",
                "less than wheat",
            ),
            Self::Rye => (
                "pentosans drink and go on drinking; the dough is a paste",
                "slow speed only; starch carries it, so sour or another acid from about a fifth of \
                 the flour; cut it the next day",
                "none to speak of: no film to overmix, but it smears",
            ),
            Self::GlutenFree => (
                "what its own sheet says, added in stages",
                "no film: mix until even, shape with wet hands, one rise, two-stage bake",
                "none: what is knocked out does not come back",
            ),
            Self::LowStarch => (
                "what its own sheet says, added in stages; proteins and fibres go on drinking",
                "mix until even and let it stand; little sugar for yeast, one rise, long bake",
                "none",
            ),
        };
        Grain {
            species: self,
            label: self.label(),
            mixing: coefficients.band(c::mixing_of(self)),
            fermentation: coefficients.band(c::fermentation_of(self)),
            water,
            handling,
            tolerance,
        }
    }
}

/// How a mix behaves: each grain by its share, bran on top.
pub fn mix_of_grains(flours: &[FlourPart<'_>], coefficients: &Coefficients) -> MixOfGrains {
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
        let grain = flour.species.grain(coefficients);
        let bran = share * flour.whole_grain_pct / 100.0;
        add(&mut mixing, grain.mixing.times(share));
        add(&mut mixing, coefficients.band(&c::BRAN_MIXING).times(bran));
        add(&mut fermentation, grain.fermentation.times(share));
        add(&mut fermentation, coefficients.band(&c::BRAN_FERMENTS).times(bran));
        let offset = c::offset_of(flour.species).filter(|_| flour.absorption_14_pct.is_none());
        let rules_of = [offset, c::held_back_of(flour.species)];
        water_points += share
            * rules_of
                .into_iter()
                .flatten()
                .filter_map(|rule| coefficients.active(rule))
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
