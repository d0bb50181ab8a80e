//! The way to the oven with one thing otherwise.

use super::way::{OnTheWay, Way};
use crate::method::StageKind;

impl Way<'_> {
    /// The same way with everything living so much quicker.
    pub fn at_speed(mut self, speed: f64) -> Self {
        self.dough.rate *= speed;
        if let Some(sponge) = &mut self.sponge {
            sponge.dough.rate *= speed;
        }
        self
    }

    /// The same way with so much of all flour in its starter.
    pub fn with_sour(&self, sour_pct: f64) -> Self {
        let mut there = self.clone();
        there.dough.sour_pct = sour_pct;
        there
    }

    /// The same way with the dough so warm off the mixer.
    pub fn off_mixer_at(&self, dough_c: f64) -> Self {
        let mut there = self.clone();
        there.dough.start_c = dough_c;
        for OnTheWay { stage, phase, .. } in &mut there.stages {
            if stage.kind == StageKind::Mix {
                (phase.ambient_c, phase.ambient_end_c) = (dough_c, dough_c);
            }
        }
        there
    }

    /// The same way to a moment so long after the first mixing: cut off there, or its last stage at
    /// room temperature lasting on as it ends.
    pub fn until(&self, hours: f64) -> Self {
        let mut there = self.clone();
        let mut left = hours;
        for OnTheWay { phase, .. } in &mut there.stages {
            *phase = phase.cut(left);
            left -= phase.hours;
        }
        let stretched = there.stages.iter().rposition(|one| one.stage.can_stretch());
        let last = stretched.or(there.stages.len().checked_sub(1));
        if let Some(last) = last.filter(|_| left > 0.0) {
            let OnTheWay { at, stage, phase } = there.stages[last];
            there.stages.insert(last + 1, OnTheWay { at, stage, phase: phase.going_on(left) });
        }
        there
    }

    /// The same way in another room; a refrigerator and a proofer stay as they are.
    pub fn in_room(&self, room_c: f64) -> Self {
        let mut there = self.clone();
        for OnTheWay { stage, phase, .. } in &mut there.stages {
            let open = matches!(stage.kind, StageKind::Rest | StageKind::Fold | StageKind::Divide);
            if open && !stage.is_cold() {
                (phase.ambient_c, phase.ambient_end_c) = (room_c, room_c);
            }
        }
        there
    }
}
