use super::{EndPoint, Method, Speed, Stage, StageKind};
use crate::dough::Ingredient;
use crate::water::Process;

/// A sponge's hours and room, and the dough off the mixer each way (H).
const SPONGE_MIN: f64 = 210.0;
const SPONGE_ROOM_C: f64 = 27.0;
const SPONGE_ROOM_PCT: f64 = 65.0;
const DOUGH_C: f64 = 26.5;
const NO_TIME_C: f64 = 27.5;

impl Method {
    /// The same dough by the other way: a straight one as sponge and dough, a sponge dough as a
    /// no-time straight dough. What comes before the divider is the other way's; dividing, proof
    /// and bake stay.
    #[must_use]
    pub fn other_process(&self) -> Self {
        let divide = self.stages.iter().position(|stage| stage.kind == StageKind::Divide);
        let kept = &self.stages[divide.unwrap_or(self.first_mix() + 1).min(self.stages.len())..];
        let (process, target_c, before) = if self.process == Process::SpongeDough {
            (Process::NoTime, NO_TIME_C, no_time())
        } else {
            (Process::SpongeDough, DOUGH_C, sponge_and_dough())
        };
        Self {
            process,
            target_c,
            sponge_c: None,
            machine_divided: self.machine_divided,
            stages: before.into_iter().chain(kept.iter().cloned()).collect(),
        }
    }

    /// Steps that somebody does: every stage but lying and rising, and the setting of a sponge.
    pub fn labour_steps(&self) -> usize {
        let hands = self.stages.iter().filter(|stage| stage.needs_hands()).count();
        hands + usize::from(self.process == Process::SpongeDough)
    }
}

fn mix(label: &str, minutes: f64, speed: Speed, end_point: EndPoint, ends_when: &str) -> Stage {
    Stage {
        speed: Some(speed),
        end_point,
        ends_when: ends_when.into(),
        ..Stage::new(StageKind::Mix, label, minutes)
    }
}

fn salted(minutes: f64) -> Stage {
    Stage {
        adds: vec![Ingredient::Salt],
        ..mix(
            "Salt in, to full development",
            minutes,
            Speed::Fast,
            EndPoint::Windowpane,
            "a windowpane thin enough to read through",
        )
    }
}

fn sponge_and_dough() -> Vec<Stage> {
    let sponge = Stage {
        temperature_c: Some(SPONGE_ROOM_C),
        humidity_pct: Some(SPONGE_ROOM_PCT),
        end_point: EndPoint::PullAndTap,
        ends_when: "it pulls apart and drops at a tap".into(),
        ..Stage::new(StageKind::Rest, "Sponge in the trough", SPONGE_MIN)
    };
    let floor = Stage {
        temperature_c: Some(SPONGE_ROOM_C),
        ends_when: "it relaxes and does not spring back at once".into(),
        ..Stage::new(StageKind::Rest, "Floor time", 15.0)
    };
    vec![
        sponge,
        mix("Pick-up with the sponge", 2.0, Speed::Slow, EndPoint::ClearsBowl, "no dry flour left"),
        mix("Development", 5.0, Speed::Fast, EndPoint::ClearsBowl, "the dough clears the bowl"),
        salted(2.0),
        floor,
    ]
}

fn no_time() -> Vec<Stage> {
    let floor = Stage {
        ends_when: "it relaxes and does not spring back at once".into(),
        ..Stage::new(StageKind::Rest, "Floor time", 5.0)
    };
    vec![
        mix("Pick-up", 2.0, Speed::Slow, EndPoint::ClearsBowl, "no dry flour left in the bowl"),
        mix("Development", 7.0, Speed::Fast, EndPoint::ClearsBowl, "the dough clears the bowl"),
        salted(3.0),
        floor,
    ]
}
