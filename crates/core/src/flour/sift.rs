use serde::{Deserialize, Serialize};

use super::coefficients::BRAN_ASH;
use crate::coefficient::{Coefficients, Derivation, DerivationInput};
use crate::units::{Estimate, NumberRange, RawNumber, ValidationErrors};

const ASH: NumberRange = NumberRange::new("ash_dm_pct", "ash on dry matter", "%", 0.1, 8.0);
const BRAN: NumberRange =
    NumberRange::new("bran_ash_dm_pct", "ash of the bran on dry matter", "%", 0.5, 12.0);
const REMOVED: NumberRange = NumberRange::new("removed_pct", "bran removed", "%", 0.0, 90.0);
const TARGET: NumberRange =
    NumberRange::new("target_ash_dm_pct", "ash wanted on dry matter", "%", 0.1, 8.0);

/// A pass over a sieve and how much of freshly milled whole wheat it holds back.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SievePass {
    pub mesh: u16,
    pub opening_mm: f64,
    pub pass: &'static str,
    pub removed_low_pct: f64,
    pub removed_high_pct: f64,
}

/// What passes take off freshly milled whole wheat. House defaults.
pub const SIEVE_PASSES: [SievePass; 3] = [
    SievePass {
        mesh: 30,
        opening_mm: 0.60,
        pass: "first pass of 30 mesh",
        removed_low_pct: 12.0,
        removed_high_pct: 17.0,
    },
    SievePass {
        mesh: 30,
        opening_mm: 0.60,
        pass: "second pass of 30 mesh, after the first",
        removed_low_pct: 13.0,
        removed_high_pct: 20.0,
    },
    SievePass {
        mesh: 50,
        opening_mm: 0.30,
        pass: "50 mesh after it",
        removed_low_pct: 15.0,
        removed_high_pct: 22.0,
    },
];

/// What the `sift` calculator is asked: what is removed, or the ash that is wanted.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SiftInput {
    /// 0.1 to 8 %.
    #[serde(default)]
    pub ash_dm_pct: RawNumber,
    /// 0.5 to 12 %; 5.8 if left out.
    #[serde(default)]
    pub bran_ash_dm_pct: RawNumber,
    /// 0 to 90 % of the flour.
    #[serde(default)]
    pub removed_pct: RawNumber,
    /// 0.1 to 8 %.
    #[serde(default)]
    pub target_ash_dm_pct: RawNumber,
}

/// What sieving leaves.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SiftAnswer {
    pub feasible: bool,
    pub removed_pct: f64,
    pub ash_dm_pct: f64,
    pub extraction_pct: f64,
    /// Of the figure that was not given, over the range of the bran's ash.
    pub low_pct: f64,
    pub high_pct: f64,
    /// Passes that take off about as much.
    pub passes: Vec<SievePass>,
    #[serde(skip_serializing_if = "Option::is_none")]
    pub reason: Option<SiftMiss>,
    pub why: Derivation,
}

/// Why sieving does not do what was asked.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum SiftMiss {
    /// So much bran would take more ash than the flour has.
    MoreAshThanThere { removed_pct: f64, bran_ash_pct: f64, most_pct: f64 },
    /// The ash that is wanted is above the flour's.
    NotLower { wanted_pct: f64, has_pct: f64 },
}

/// A flour to be sieved; any figures have a balance.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Sift {
    pub ash_dm_pct: f64,
    /// None for the house default with its band.
    pub bran_ash_dm_pct: Option<f64>,
    pub wanted: SiftTarget,
}

/// What sieving is to reach.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum SiftTarget {
    RemovedPct(f64),
    AshDmPct(f64),
}

impl SiftInput {
    /// Checks every field, then balances.
    ///
    /// ```
    /// use ironpeel_core::flour::SiftInput;
    /// let sift = SiftInput {
    ///     ash_dm_pct: 1.62.into(), target_ash_dm_pct: 0.85.into(), ..SiftInput::default()
    /// };
    /// assert!((sift.compute()?.removed_pct - 15.56).abs() < 0.005);
    /// # Ok::<(), ironpeel_core::units::ValidationErrors>(())
    /// ```
    pub fn compute(&self) -> Result<SiftAnswer, ValidationErrors> {
        let mut faults = ValidationErrors::default();
        let ash_dm_pct = ASH.check(&self.ash_dm_pct, "", &mut faults);
        let bran_ash_dm_pct = BRAN.check_opt(&self.bran_ash_dm_pct, "", &mut faults);
        let bran = bran_ash_dm_pct.unwrap_or(BRAN_ASH.value);
        if faults.0.is_empty() && bran <= ash_dm_pct {
            faults.push(
                "bran_ash_dm_pct",
                format!("the bran's ash must be above the flour's; {bran} % and {ash_dm_pct} %"),
            );
        }
        let wanted = match (self.removed_pct.is_missing(), self.target_ash_dm_pct.is_missing()) {
            (false, true) => {
                SiftTarget::RemovedPct(REMOVED.check(&self.removed_pct, "", &mut faults))
            }
            (true, false) => {
                SiftTarget::AshDmPct(TARGET.check(&self.target_ash_dm_pct, "", &mut faults))
            }
            _ => {
                let message = "give either the bran removed or the ash wanted, and not both";
                faults.push("removed_pct", message);
                SiftTarget::RemovedPct(0.0)
            }
        };
        Ok(faults
            .or(Sift { ash_dm_pct, bran_ash_dm_pct, wanted })?
            .balance(&Coefficients::default()))
    }
}

impl Sift {
    /// The mass balance of ash: `ash' = (ash − r·bran)/(1 − r)`, so `r = (ash − ash')/(bran − ash')`.
    ///
    /// Ash in % on dry matter, r the share removed. More ash than there is cannot be taken off:
    /// then the nearest is said.
    pub fn balance(&self, coefficients: &Coefficients) -> SiftAnswer {
        let house = coefficients.effective(&BRAN_ASH);
        let bran = self.bran_ash_dm_pct.unwrap_or(house.value);
        let (removed_pct, reason) = self.possible(bran);
        let ends = match self.bran_ash_dm_pct {
            Some(_) => [bran, bran],
            None => [house.low, house.high],
        };
        let [one, other] = ends.map(|bran| match self.wanted {
            SiftTarget::RemovedPct(_) => self.ash_after(removed_pct, bran).max(0.0),
            SiftTarget::AshDmPct(_) => self.possible(bran).0,
        });
        let near = |pass: &SievePass| {
            (pass.removed_low_pct..=pass.removed_high_pct).contains(&removed_pct)
        };
        SiftAnswer {
            feasible: reason.is_none(),
            removed_pct,
            ash_dm_pct: self.ash_after(removed_pct, bran).max(0.0),
            extraction_pct: 100.0 - removed_pct,
            low_pct: one.min(other),
            high_pct: one.max(other),
            passes: SIEVE_PASSES.into_iter().filter(near).collect(),
            reason,
            why: Derivation {
                formula: "ash after = (ash − removed · bran's ash) / (1 − removed)",
                inputs: vec![DerivationInput::new("ash on dry matter", self.ash_dm_pct, "%")],
                coefficients: vec![BRAN_ASH.as_found(
                    Estimate::new(bran, ends[0], ends[1]),
                    house.origin,
                    house.source,
                )],
            },
        }
    }

    fn ash_after(&self, removed_pct: f64, bran: f64) -> f64 {
        let removed = removed_pct / 100.0;
        (self.ash_dm_pct - removed * bran) / (1.0 - removed)
    }

    /// What is removed, the nearest where it cannot be as wanted, and then why.
    fn possible(&self, bran_ash_pct: f64) -> (f64, Option<SiftMiss>) {
        let has_pct = self.ash_dm_pct;
        match self.wanted {
            SiftTarget::RemovedPct(removed_pct) if removed_pct / 100.0 * bran_ash_pct > has_pct => {
                let most_pct = 100.0 * has_pct / bran_ash_pct;
                (most_pct, Some(SiftMiss::MoreAshThanThere { removed_pct, bran_ash_pct, most_pct }))
            }
            SiftTarget::RemovedPct(removed) => (removed, None),
            SiftTarget::AshDmPct(wanted_pct) if wanted_pct > has_pct => {
                (0.0, Some(SiftMiss::NotLower { wanted_pct, has_pct }))
            }
            SiftTarget::AshDmPct(wanted) => {
                (100.0 * (has_pct - wanted) / (bran_ash_pct - wanted), None)
            }
        }
    }
}
