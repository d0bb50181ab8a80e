use serde::{Deserialize, Serialize};

use super::coefficients as c;
use super::{Method, Process, Stage, StageKind, TimeTolerance};
use crate::coefficient::{Coefficient, Coefficients};
use crate::dough::PreparationKind;
use crate::dough::coefficients::PREPARATION_MIN;
use crate::units::Estimate;

/// What a stage is for, by its kind and its place.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum StageRole {
    /// The sponge, from its setting to the mixer.
    Sponge,
    /// A sponge or another preparation under the mixer.
    PreparationMixing,
    /// Something else before the first mixing: a scald that cools, flour that soaks.
    Before,
    Mixing,
    /// Between two mixings.
    Autolyse,
    Folds,
    /// From the mixer to the divider.
    Floor,
    /// In a refrigerator.
    Cold,
    Dividing,
    /// Between dividing and the proof or the oven.
    Intermediate,
    Proof,
    Bake,
    Cool,
    Slicing,
}

/// What is usual for a stage of a role. House defaults.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TypicalRange {
    pub role: StageRole,
    pub minutes: Option<Estimate>,
    pub temperature_c: Option<Estimate>,
    pub humidity_pct: Option<Estimate>,
    /// Why it is so.
    pub message: &'static str,
}

impl StageRole {
    /// Whether a dough can lie on in it when what comes next is not ready.
    pub const fn can_wait(self) -> bool {
        !matches!(
            self,
            Self::PreparationMixing
                | Self::Mixing
                | Self::Folds
                | Self::Dividing
                | Self::Bake
                | Self::Slicing
        )
    }

    /// How far a stage of it may be off its planned minutes, as shares of them.
    const fn tolerance(self) -> &'static Coefficient {
        match self {
            Self::Sponge => &c::SPONGE_TOLERANCE,
            Self::Before | Self::Autolyse => &c::BEFORE_TOLERANCE,
            Self::PreparationMixing | Self::Mixing => &c::MIXING_TOLERANCE,
            Self::Folds | Self::Floor | Self::Intermediate => &c::FLOOR_TOLERANCE,
            Self::Cold => &c::COLD_TOLERANCE,
            Self::Dividing | Self::Slicing => &c::DIVIDING_TOLERANCE,
            Self::Proof => &c::PROOF_TOLERANCE,
            Self::Bake => &c::BAKE_TOLERANCE,
            Self::Cool => &c::COOL_TOLERANCE,
        }
    }
}

impl Method {
    /// The stage at which what was made before goes in: the first mixing, or after an autolyse, in
    /// which flour and water rest alone, the next.
    pub fn parts_join_at(&self) -> usize {
        let roles = self.roles();
        let autolyse = roles.iter().position(|role| *role == StageRole::Autolyse);
        let after = autolyse.and_then(|rest| {
            let mixes = roles.iter().enumerate().skip(rest);
            mixes.map(|(at, role)| (at, *role)).find(|(_, role)| *role == StageRole::Mixing)
        });
        after.map_or_else(|| self.first_mix(), |(at, _)| at)
    }

    /// What each stage is for.
    pub fn roles(&self) -> Vec<StageRole> {
        let first_mix = self.first_mix();
        let last_mix = self.last_mix();
        let divide = self
            .stages
            .iter()
            .position(|stage| stage.kind == StageKind::Divide)
            .unwrap_or(self.stages.len());
        let sponge = self.sponge_at().filter(|at| {
            let named = self.stages[*at].makes == Some(PreparationKind::Sponge);
            named || self.process == Process::SpongeDough
        });
        let role = |(at, stage): (usize, &Stage)| match stage.kind {
            StageKind::Mix if stage.makes.is_some() => StageRole::PreparationMixing,
            StageKind::Mix => StageRole::Mixing,
            StageKind::Fold => StageRole::Folds,
            StageKind::Divide => StageRole::Dividing,
            StageKind::Proof => StageRole::Proof,
            StageKind::Bake => StageRole::Bake,
            StageKind::Cool => StageRole::Cool,
            StageKind::Slice => StageRole::Slicing,
            StageKind::Rest if Some(at) == sponge => StageRole::Sponge,
            StageKind::Rest if at < first_mix => StageRole::Before,
            StageKind::Rest if stage.is_cold() => StageRole::Cold,
            StageKind::Rest if at < last_mix => StageRole::Autolyse,
            StageKind::Rest if at < divide => StageRole::Floor,
            StageKind::Rest => StageRole::Intermediate,
        };
        self.stages.iter().enumerate().map(role).collect()
    }

    /// The stage in which a sponge lies: its own, or the longest rest before the first mixing that is
    /// of nothing else, whatever the process.
    pub fn sponge_stage(&self) -> Option<&Stage> {
        self.sponge_at().map(|at| &self.stages[at])
    }

    /// The place of that stage.
    pub fn sponge_at(&self) -> Option<usize> {
        let rests = |at: &usize, makes| {
            self.stages[*at].kind != StageKind::Mix && self.stages[*at].makes == makes
        };
        let before = 0..self.first_mix();
        let own = before.clone().find(|at| rests(at, Some(PreparationKind::Sponge)));
        let minutes = |at: &usize| self.stages[*at].minutes;
        own.or_else(|| {
            let rests = before.filter(|at| rests(at, None));
            rests.max_by(|one, other| minutes(one).total_cmp(&minutes(other)))
        })
    }

    /// What is usual for each stage.
    ///
    /// ```
    /// use ironpeel_core::coefficient::Coefficients;
    /// use ironpeel_core::method::{Method, Process, StageRole, Stage, StageKind};
    /// let method = Method {
    ///     process: Process::NoTime,
    ///     target_c: 27.0,
    ///     sponge_c: None,
    ///     machine_divided: true,
    ///     stages: vec![Stage::new(StageKind::Mix, "Mix", 10.0)],
    /// };
    /// let usual = method.usual(&Coefficients::default())[0];
    /// assert_eq!(usual.role, StageRole::Mixing);
    /// assert_eq!(usual.minutes.map(|band| (band.low, band.high)), Some((7.0, 15.0)));
    /// ```
    pub fn usual(&self, coefficients: &Coefficients) -> Vec<TypicalRange> {
        let single = self.stages.iter().filter(|stage| stage.mixes_dough()).count() == 1;
        self.roles()
            .into_iter()
            .map(|role| usual(role, self.process, single, coefficients))
            .collect()
    }

    /// How short and how long each stage may be: what the plant allows, or the house's share of
    /// its planned minutes.
    pub fn windows(&self, coefficients: &Coefficients) -> Vec<TimeTolerance> {
        let roles = self.roles().into_iter();
        roles
            .zip(&self.stages)
            .map(|(role, stage)| {
                let Estimate { low, high, .. } = coefficients.band(role.tolerance());
                let whole = |share: f64| (share * stage.minutes).round();
                let house = TimeTolerance { low_min: whole(low), high_min: whole(high) };
                stage.tolerance.unwrap_or(house)
            })
            .collect()
    }

    /// How long a dough can wait at each stage when the next is not ready, minutes.
    pub fn waits(&self, coefficients: &Coefficients) -> Vec<f64> {
        let windows = self.windows(coefficients).into_iter();
        windows
            .zip(self.roles())
            .zip(&self.stages)
            .map(
                |((tolerance, role), stage)| {
                    if role.can_wait() {
                        (tolerance.high_min - stage.minutes).max(0.0)
                    } else {
                        0.0
                    }
                },
            )
            .collect()
    }
}

#[expect(clippy::too_many_lines, reason = "a table")]
fn usual(
    role: StageRole,
    process: Process,
    single_mix: bool,
    coefficients: &Coefficients,
) -> TypicalRange {
    let room = Some(&c::USUAL_ROOM_C);
    let (minutes, temperature, humidity, message) = match (role, process) {
        (StageRole::Sponge, _) => (
            Some(&c::USUAL_SPONGE_MIN),
            Some(&c::USUAL_SPONGE_C),
            Some(&c::USUAL_SPONGE_HUMIDITY),
            "hydration, not a hotter room, sets how fast it matures; humid enough that no skin forms",
        ),
        (StageRole::Before, _) => (
            None,
            None,
            None,
            "a scald cools before yeast meets it; bran drinks before it is judged",
        ),
        (StageRole::Mixing, Process::NoTime) if single_mix => {
            (Some(&c::USUAL_NO_TIME_MIX_MIN), None, None, "all the development is the mixer's")
        }
        (StageRole::Mixing, _) => {
            (Some(&c::USUAL_MIX_MIN), None, None, "ends by the dough, never by the minutes")
        }
        (StageRole::PreparationMixing, _) => {
            (Some(&PREPARATION_MIN), None, None, "wet through, no more: the rest does the work")
        }
        (StageRole::Autolyse, _) => (
            Some(&c::USUAL_AUTOLYSE_MIN),
            room,
            None,
            "15 to 30 minutes is the classic range; past an hour protein starts to break down",
        ),
        (StageRole::Folds, _) => {
            (None, room, None, "three or four sets 20 to 45 minutes apart do a spiral mixer's work")
        }
        (StageRole::Floor, Process::NoTime | Process::Frozen) => (
            Some(&c::USUAL_NO_TIME_FLOOR_MIN),
            room,
            None,
            "a no-time dough has no time to lose before the divider",
        ),
        (StageRole::Floor, Process::SpongeDough) => {
            (Some(&c::USUAL_SPONGE_FLOOR_MIN), room, None, "it relaxes from the mixer")
        }
        (StageRole::Floor, _) => (
            Some(&c::USUAL_BULK_MIN),
            Some(&c::USUAL_BULK_C),
            None,
            "ends at a volume, not at a time: between folds half an hour, in a cool room a night",
        ),
        (StageRole::Cold, Process::Frozen) => {
            (None, None, None, "frozen through, kept, thawed: the core says when, not the clock")
        }
        (StageRole::Cold, _) => (
            Some(&c::USUAL_COLD_MIN),
            Some(&c::USUAL_COLD_C),
            None,
            "overnight to 36 hours in a tin, one to five days for balls",
        ),
        (StageRole::Dividing, _) => {
            (Some(&c::USUAL_DIVIDING_MIN), None, None, "the last piece before the dough is too old")
        }
        (StageRole::Intermediate, _) => (
            Some(&c::USUAL_INTERMEDIATE_MIN),
            room,
            None,
            "the piece relaxes until it can be shaped",
        ),
        (StageRole::Proof, _) => (
            Some(&c::USUAL_PROOF_MIN),
            Some(&c::USUAL_PROOF_C),
            Some(&c::USUAL_PROOF_HUMIDITY),
            "to a height, not to a time",
        ),
        (StageRole::Bake, _) => {
            (Some(&c::USUAL_BAKE_MIN), Some(&c::USUAL_BAKE_C), None, "ends at a core temperature")
        }
        (StageRole::Cool, _) => {
            (Some(&c::USUAL_COOL_MIN), None, None, "sliced warm it smears; rye waits a day")
        }
        (StageRole::Slicing, _) => (None, room, None, "the core says when, not the clock"),
    };
    let band = |of: Option<&Coefficient>| of.map(|of| coefficients.band(of));
    TypicalRange {
        role,
        minutes: band(minutes),
        temperature_c: band(temperature),
        humidity_pct: band(humidity),
        message,
    }
}
