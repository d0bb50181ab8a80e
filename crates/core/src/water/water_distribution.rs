use serde::Serialize;

use super::coefficients as c;
use super::{FlourPart, arrival_target_pct};
use crate::coefficient::Coefficients;
use crate::flour::coefficients::{USUAL_ASH, USUAL_DAMAGED_STARCH, USUAL_PROTEIN};
use crate::flour::{Moisture, Property, Species, at_moisture};

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
    pub fn of(flours: &[FlourPart<'_>], coefficients: &Coefficients) -> Option<Self> {
        if flours.is_empty() || flours.iter().any(|part| !part.flour.species.has_gluten()) {
            return None;
        }
        let here = |coefficient| coefficients.value(coefficient);
        let mut sum =
            Self { protein_pct: 0.0, damaged_pct: 0.0, intact_pct: 0.0, pentosan_pct: 0.0 };
        for part in flours {
            let moisture = part.flour.moisture.percent();
            let stated = part.flour.composition;
            let protein = stated.protein_14_pct.unwrap_or_else(|| here(&USUAL_PROTEIN));
            let protein = at_moisture(protein, Moisture::FOURTEEN, part.flour.moisture);
            let damaged = stated.damaged_starch_pct.unwrap_or_else(|| here(&USUAL_DAMAGED_STARCH));
            let white = here(&USUAL_ASH);
            let ash = stated.ash_dm_pct.unwrap_or(white);
            let bran = (ash - white).max(0.0);
            let pentosan = here(&c::PENTOSAN) + here(&c::PENTOSAN_PER_ASH) * bran;
            let rest = 100.0 - moisture - protein - damaged - pentosan - ash - here(&c::OTHER);
            let share = part.share_pct / 100.0;
            sum.protein_pct += share * protein;
            sum.damaged_pct += share * damaged;
            sum.pentosan_pct += share * pentosan;
            sum.intact_pct += share * rest.max(0.0);
        }
        Some(sum)
    }

    /// What the certificates do not state and is taken as usual in [`Self::of`].
    pub fn assumed(flours: &[FlourPart<'_>], coefficients: &Coefficients) -> Vec<UsualComposition> {
        let of = move |part: &FlourPart<'_>| {
            let (stated, species) = (part.flour.composition, part.flour.species);
            [
                (stated.protein_14_pct, Property::Protein, &USUAL_PROTEIN),
                (stated.damaged_starch_pct, Property::DamagedStarch, &USUAL_DAMAGED_STARCH),
                (stated.ash_dm_pct, Property::Ash, &USUAL_ASH),
            ]
            .into_iter()
            .filter(|(stated, ..)| stated.is_none())
            .map(move |(_, property, usual)| UsualComposition {
                property,
                pct: coefficients.value(usual),
                species,
            })
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
            self.intact_pct * c::INTACT_HOLDS.value,
            self.damaged_pct * c::DAMAGED_HOLDS.value,
            self.protein_pct * c::PROTEIN_HOLDS.value,
            self.pentosan_pct * c::PENTOSAN_HOLDS.value,
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

/// What a certificate does not state and is taken as usual for a flour of its grain.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct UsualComposition {
    pub property: Property,
    pub pct: f64,
    pub species: Species,
}

/// What more water than planned comes to.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum ExcessWaterEffect {
    /// The protein's share of the water falls, %.
    GlutenDiluted { from_pct: f64, to_pct: f64 },
    /// At divider, rounder and moulder.
    Sticks,
    /// Damaged starch lets go of its water in the bake.
    LateRelease,
    /// kg for 100 kg of flour.
    WetCrumb { to_drive_out_kg: f64 },
}

/// What extra water by the operator leads to.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ExcessWater {
    pub points: f64,
    pub shares: WaterShares,
    /// What it will come to; empty where nothing was added.
    pub will: Vec<ExcessWaterEffect>,
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
    coefficients: &Coefficients,
) -> ExcessWater {
    let (plan, shares) = (
        water_distribution.shares(planned_pct, 0.0),
        water_distribution.shares(planned_pct, points),
    );
    let critical = coefficients.active(&c::CRITICAL_DAMAGED_STARCH);
    let trap = critical.is_some_and(|critical| water_distribution.damaged_pct > critical);
    let mut will = Vec::new();
    if points > 0.0 {
        will.push(ExcessWaterEffect::GlutenDiluted {
            from_pct: plan.protein_pct,
            to_pct: shares.protein_pct,
        });
        if shares.free_pct > coefficients.value(&c::FREE_WATER_STICKS) || trap {
            will.push(ExcessWaterEffect::Sticks);
        }
        if trap {
            will.push(ExcessWaterEffect::LateRelease);
        }
        will.push(ExcessWaterEffect::WetCrumb { to_drive_out_kg: points });
    }
    ExcessWater {
        points,
        shares,
        will,
        to_drive_out_kg: points,
        arrival_target_pct: arrival_target_pct(trap, coefficients),
    }
}
