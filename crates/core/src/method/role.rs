use serde::Serialize;

use super::{Method, Stage, StageKind, TimeTolerance};
use crate::units::Estimate;
use crate::water::Process;

/// What a stage is for, by its kind and its place.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum StageRole {
    /// The sponge, from its setting to the mixer.
    Sponge,
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
        !matches!(self, Self::Mixing | Self::Folds | Self::Dividing | Self::Bake)
    }

    /// How far a stage of it may be off its planned minutes, as shares of them (H).
    const fn slack(self) -> (f64, f64) {
        match self {
            Self::Sponge => (0.8, 1.25),
            Self::Before | Self::Autolyse => (0.5, 2.0),
            Self::Mixing => (0.7, 1.5),
            Self::Folds | Self::Floor | Self::Intermediate => (0.6, 1.5),
            Self::Cold => (0.7, 1.7),
            Self::Dividing => (0.3, 1.4),
            Self::Proof => (0.8, 1.2),
            Self::Bake => (0.9, 1.15),
            Self::Cool => (0.7, 4.0),
        }
    }
}

impl Method {
    /// What each stage is for.
    pub fn roles(&self) -> Vec<StageRole> {
        let first_mix = self.first_mix();
        let last_mix =
            self.stages.iter().rposition(|stage| stage.kind == StageKind::Mix).unwrap_or(0);
        let divide = self
            .stages
            .iter()
            .position(|stage| stage.kind == StageKind::Divide)
            .unwrap_or(self.stages.len());
        // The longest of what lies before: yeast in water may stand beside it.
        let sponge = (0..first_mix)
            .filter(|_| self.process == Process::SpongeDough)
            .max_by(|one, other| self.stages[*one].minutes.total_cmp(&self.stages[*other].minutes));
        let role = |(at, stage): (usize, &Stage)| match stage.kind {
            StageKind::Mix => StageRole::Mixing,
            StageKind::Fold => StageRole::Folds,
            StageKind::Divide => StageRole::Dividing,
            StageKind::Proof => StageRole::Proof,
            StageKind::Bake => StageRole::Bake,
            StageKind::Cool => StageRole::Cool,
            StageKind::Rest if Some(at) == sponge => StageRole::Sponge,
            StageKind::Rest if at < first_mix => StageRole::Before,
            StageKind::Rest if stage.is_cold() => StageRole::Cold,
            StageKind::Rest if at < last_mix => StageRole::Autolyse,
            StageKind::Rest if at < divide => StageRole::Floor,
            StageKind::Rest => StageRole::Intermediate,
        };
        self.stages.iter().enumerate().map(role).collect()
    }

    /// The stage in which a sponge lies: its own, or the longest before the first mixing, whatever
    /// the process.
    pub fn sponge_stage(&self) -> Option<&Stage> {
        let before = self.stages[..self.first_mix()].iter();
        before.max_by(|one, other| one.minutes.total_cmp(&other.minutes))
    }

    /// What is usual for each stage.
    ///
    /// ```
    /// use ironpeel_core::method::{Method, StageRole, Stage, StageKind};
    /// use ironpeel_core::water::Process;
    /// let method = Method {
    ///     process: Process::NoTime,
    ///     target_c: 27.0,
    ///     sponge_c: None,
    ///     machine_divided: true,
    ///     stages: vec![Stage::new(StageKind::Mix, "Mix", 10.0)],
    /// };
    /// let usual = method.usual()[0];
    /// assert_eq!(usual.role, StageRole::Mixing);
    /// assert_eq!(usual.minutes.map(|band| (band.low, band.high)), Some((7.0, 15.0)));
    /// ```
    pub fn usual(&self) -> Vec<TypicalRange> {
        let single = self.stages.iter().filter(|stage| stage.kind == StageKind::Mix).count() == 1;
        self.roles().into_iter().map(|role| usual(role, self.process, single)).collect()
    }

    /// How short and how long each stage may be: what the plant allows, or the house's share of
    /// its planned minutes.
    pub fn windows(&self) -> Vec<TimeTolerance> {
        let roles = self.roles().into_iter();
        roles
            .zip(&self.stages)
            .map(|(role, stage)| {
                let (low, high) = role.slack();
                let whole = |share: f64| (share * stage.minutes).round();
                let house = TimeTolerance { low_min: whole(low), high_min: whole(high) };
                stage.tolerance.unwrap_or(house)
            })
            .collect()
    }

    /// How long a dough can wait at each stage when the next is not ready, minutes.
    pub fn waits(&self) -> Vec<f64> {
        let windows = self.windows().into_iter();
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

fn usual(role: StageRole, process: Process, single_mix: bool) -> TypicalRange {
    let band = |typical, low, high| Some(Estimate::new(typical, low, high));
    let room = band(25.0, 20.0, 28.0);
    let (minutes, temperature_c, humidity_pct, message) = match (role, process) {
        (StageRole::Sponge, _) => (
            band(210.0, 150.0, 270.0),
            band(27.0, 24.0, 30.0),
            band(65.0, 60.0, 75.0),
            "hydration, not a hotter room, sets how fast it matures; humid enough that no skin forms",
        ),
        (StageRole::Before, _) => (
            None,
            None,
            None,
            "a scald cools before yeast meets it; bran drinks before it is judged",
        ),
        (StageRole::Mixing, Process::NoTime) if single_mix => {
            (band(10.0, 7.0, 15.0), None, None, "all the development is the mixer's")
        }
        (StageRole::Mixing, _) => {
            (band(4.0, 2.0, 10.0), None, None, "ends by the dough, never by the minutes")
        }
        (StageRole::Autolyse, _) => (
            band(20.0, 10.0, 60.0),
            room,
            None,
            "15 to 30 minutes is the classic range; past an hour protein starts to break down",
        ),
        (StageRole::Folds, _) => {
            (None, room, None, "three or four sets 20 to 45 minutes apart do a spiral mixer's work")
        }
        (StageRole::Floor, Process::NoTime | Process::Frozen) => (
            band(5.0, 0.0, 15.0),
            room,
            None,
            "a no-time dough has no time to lose before the divider",
        ),
        (StageRole::Floor, Process::SpongeDough) => {
            (band(15.0, 10.0, 25.0), room, None, "it relaxes from the mixer")
        }
        (StageRole::Floor, _) => (
            band(120.0, 20.0, 720.0),
            band(25.0, 16.0, 30.0),
            None,
            "ends at a volume, not at a time: between folds half an hour, in a cool room a night",
        ),
        (StageRole::Cold, Process::Frozen) => {
            (None, None, None, "frozen through, kept, thawed: the core says when, not the clock")
        }
        (StageRole::Cold, _) => (
            band(900.0, 480.0, 4320.0),
            band(4.0, 2.0, 8.0),
            None,
            "overnight to 36 hours in a tin, one to five days for balls",
        ),
        (StageRole::Dividing, _) => {
            (band(12.0, 2.0, 20.0), None, None, "the last piece before the dough is too old")
        }
        (StageRole::Intermediate, _) => {
            (band(8.0, 4.0, 120.0), room, None, "the piece relaxes until it can be shaped")
        }
        (StageRole::Proof, _) => (
            band(58.0, 40.0, 120.0),
            band(33.0, 24.0, 38.0),
            band(85.0, 70.0, 92.0),
            "to a height, not to a time",
        ),
        (StageRole::Bake, _) => {
            (band(25.0, 3.0, 75.0), band(230.0, 180.0, 400.0), None, "ends at a core temperature")
        }
        (StageRole::Cool, _) => {
            (band(90.0, 20.0, 720.0), None, None, "sliced warm it smears; rye waits a day")
        }
    };
    TypicalRange { role, minutes, temperature_c, humidity_pct, message }
}
