use serde::Serialize;

use super::FlourPart;
use super::arrival_target_pct;

/// Water each gram holds, g/g (capacities after Greer & Stewart, 1959, and Bushuk, 1966).
const INTACT_G_PER_G: f64 = 0.44;
const DAMAGED_G_PER_G: f64 = 2.00;
const PROTEIN_G_PER_G: f64 = 2.15;
const PENTOSAN_G_PER_G: f64 = 15.0;
/// Fat, sugars, cellulose and other things that are none of the four, % of a white flour (H).
const OTHER_PCT: f64 = 5.6;
/// Pentosan of a white flour, %, and how much more of it a point of ash brings (H).
const PENTOSAN_PCT: f64 = 1.3;
const PENTOSAN_PER_ASH: f64 = 4.7;
/// Ash of the white flour those are of, % on dry matter.
const WHITE_ASH: f64 = 0.60;
/// What is taken where a certificate does not state it, % (H).
const USUAL_PROTEIN: f64 = 12.0;
const USUAL_DAMAGED: f64 = 7.5;

/// What of a flour holds water, in percent of the flour as it is.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct WaterDistribution {
    pub protein_pct: f64,
    pub damaged_pct: f64,
    pub intact_pct: f64,
    pub pentosan_pct: f64,
}

/// Shares of the dough's water, in percent: together 100.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct WaterShares {
    pub intact_pct: f64,
    pub damaged_pct: f64,
    pub protein_pct: f64,
    pub pentosan_pct: f64,
    /// What nothing holds: water added on the floor beyond the plan.
    pub free_pct: f64,
}

impl WaterDistribution {
    /// What a mix of flours is made of, from what their certificates state; the intact starch is
    /// what is left. Without gluten, nothing is said.
    pub fn of(flours: &[FlourPart<'_>]) -> Option<Self> {
        if flours.is_empty() || flours.iter().any(|part| !part.flour.species.has_gluten()) {
            return None;
        }
        let mut sum =
            Self { protein_pct: 0.0, damaged_pct: 0.0, intact_pct: 0.0, pentosan_pct: 0.0 };
        for part in flours {
            let moisture = part.flour.moisture.percent();
            let stated = part.flour.composition;
            let protein =
                stated.protein_14_pct.unwrap_or(USUAL_PROTEIN) * (100.0 - moisture) / 86.0;
            let damaged = stated.damaged_starch_pct.unwrap_or(USUAL_DAMAGED);
            let ash = stated.ash_dm_pct.unwrap_or(WHITE_ASH);
            let bran = (ash - WHITE_ASH).max(0.0);
            let pentosan = PENTOSAN_PCT + PENTOSAN_PER_ASH * bran;
            let rest = 100.0 - moisture - protein - damaged - pentosan - ash - OTHER_PCT;
            let share = part.share_pct / 100.0;
            sum.protein_pct += share * protein;
            sum.damaged_pct += share * damaged;
            sum.pentosan_pct += share * pentosan;
            sum.intact_pct += share * rest.max(0.0);
        }
        Some(sum)
    }

    /// What the certificates do not state and is taken as usual in [`Self::of`], in words.
    pub fn assumed(flours: &[FlourPart<'_>]) -> Vec<String> {
        let of = |part: &FlourPart<'_>| {
            let stated = part.flour.composition;
            let grain = part.flour.species.label();
            [
                (stated.protein_14_pct, format!("protein {USUAL_PROTEIN} % on 14 %")),
                (stated.damaged_starch_pct, format!("damaged starch {USUAL_DAMAGED} %")),
                (stated.ash_dm_pct, format!("ash {WHITE_ASH} % on dry matter, a white flour's")),
            ]
            .into_iter()
            .filter(|(stated, _)| stated.is_none())
            .map(move |(_, message)| format!("{message}, of the {grain}"))
        };
        flours.iter().flat_map(of).collect()
    }

    /// Who holds the water: each by its mass times its capacity, intact starch 0.44, damaged 2.00,
    /// protein 2.15, pentosan 15.0 g/g (S).
    ///
    /// ```
    /// use ironpeel_core::water::WaterDistribution;
    /// let flour = WaterDistribution { protein_pct: 12.0, damaged_pct: 8.0, intact_pct: 58.5, pentosan_pct: 1.3 };
    /// let shares = flour.shares(62.0, 0.0);
    /// assert!((shares.protein_pct - 29.6).abs() < 0.05 && (shares.damaged_pct - 18.4).abs() < 0.05);
    /// ```
    ///
    /// Extra water by the operator beyond the plan is held by nothing: every share falls by
    /// `plan/(plan + added)`, and the rest is free.
    pub fn shares(&self, planned_pct: f64, added_points: f64) -> WaterShares {
        let capacity = [
            self.intact_pct * INTACT_G_PER_G,
            self.damaged_pct * DAMAGED_G_PER_G,
            self.protein_pct * PROTEIN_G_PER_G,
            self.pentosan_pct * PENTOSAN_G_PER_G,
        ];
        let all: f64 = capacity.iter().sum();
        let added = added_points.max(0.0);
        let held = planned_pct / (planned_pct + added).max(f64::MIN_POSITIVE);
        let [intact_pct, damaged_pct, protein_pct, pentosan_pct] =
            capacity.map(|one| 100.0 * held * one / all.max(f64::MIN_POSITIVE));
        WaterShares {
            intact_pct,
            damaged_pct,
            protein_pct,
            pentosan_pct,
            free_pct: 100.0 * (1.0 - held),
        }
    }
}

/// What extra water by the operator leads to.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ExcessWater {
    pub points: f64,
    pub shares: WaterShares,
    /// What it will come to, in the job's words; empty where nothing was added.
    pub will: Vec<String>,
    /// More water to drive out of 100 kg of flour's dough in the bake, kg.
    pub to_drive_out_kg: f64,
    /// When the core should arrive, in percent of the bake.
    pub arrival_target_pct: f64,
}

/// What happens where so much water is added by the operator to a dough of so much planned water.
pub fn excess_water(
    water_distribution: &WaterDistribution,
    planned_pct: f64,
    points: f64,
    critical_damaged_pct: Option<f64>,
) -> ExcessWater {
    let (plan, shares) = (
        water_distribution.shares(planned_pct, 0.0),
        water_distribution.shares(planned_pct, points),
    );
    let trap =
        critical_damaged_pct.is_some_and(|critical| water_distribution.damaged_pct > critical);
    let mut will = Vec::new();
    if points > 0.0 {
        will.push(format!(
            "the protein's share of the water falls from {:.1} to {:.1} %: the gluten is diluted",
            plan.protein_pct, shares.protein_pct
        ));
        if shares.free_pct > 2.0 || trap {
            will.push(
                "divider, rounder and moulder stick; dusting flour goes into the crumb".into(),
            );
        }
        if trap {
            will.push(
                "the damaged starch lets go of its water late: gummy crumb, smeared slicer blades, \
                 a reddish crust"
                    .into(),
            );
        }
        will.push(format!(
            "the bake must drive out {points:.1} kg more for 100 kg of flour, or the crumb stays wet"
        ));
    }
    ExcessWater {
        points,
        shares,
        will,
        to_drive_out_kg: points,
        arrival_target_pct: arrival_target_pct(trap),
    }
}
