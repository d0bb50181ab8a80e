use super::coefficients as c;
use super::{Addition, EndPoint, Method, Process, Speed, Stage, StageKind};
use crate::coefficient::Coefficients;
use crate::dough::coefficients::PREPARATION_MIN;
use crate::dough::{Ingredient, PreparationKind};

impl Method {
    /// The same dough by the other way: a straight one as sponge and dough, a sponge dough as a
    /// no-time straight dough. What comes before the divider is the other way's; dividing, proof
    /// and bake stay.
    #[must_use]
    pub fn other_process(&self, coefficients: &Coefficients) -> Self {
        let here = |coefficient| coefficients.value(coefficient);
        let divide = self.stages.iter().position(|stage| stage.kind == StageKind::Divide);
        let kept = &self.stages[divide.unwrap_or(self.first_mix() + 1).min(self.stages.len())..];
        let (process, target_c, before) = if self.process == Process::SpongeDough {
            (Process::NoTime, here(&c::NO_TIME_DOUGH_C), no_time(coefficients))
        } else {
            (Process::SpongeDough, here(&c::SPONGE_DOUGH_C), sponge_and_dough(coefficients))
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
        let set = self.process == Process::SpongeDough;
        let mixed = self.stages.iter().any(|stage| stage.makes == Some(PreparationKind::Sponge));
        hands + usize::from(set && !mixed)
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
        adds: vec![Addition::rest_of(Ingredient::Salt)],
        ..mix(
            "Salt in, to full development",
            minutes,
            Speed::Fast,
            EndPoint::Windowpane,
            "a windowpane thin enough to read through",
        )
    }
}

fn sponge_and_dough(coefficients: &Coefficients) -> Vec<Stage> {
    let here = |coefficient| coefficients.value(coefficient);
    let sponge = Stage {
        temperature_c: Some(here(&c::SPONGE_ROOM_C)),
        humidity_pct: Some(here(&c::SPONGE_ROOM_PCT)),
        end_point: EndPoint::PullAndTap,
        ends_when: "it pulls apart and drops at a tap".into(),
        makes: Some(PreparationKind::Sponge),
        ..Stage::new(StageKind::Rest, "Sponge in the trough", here(&c::SPONGE_MIN))
    };
    let mixed = Stage {
        makes: Some(PreparationKind::Sponge),
        ..mix(
            "Mix the sponge",
            here(&PREPARATION_MIN),
            Speed::Slow,
            EndPoint::ClearsBowl,
            "no dry flour left; it need not be smooth",
        )
    };
    let floor = Stage {
        temperature_c: Some(here(&c::SPONGE_ROOM_C)),
        ends_when: "it relaxes and does not spring back at once".into(),
        ..Stage::new(StageKind::Rest, "Floor time", here(&c::SPONGE_FLOOR_MIN))
    };
    vec![
        mixed,
        sponge,
        mix(
            "Pick-up with the sponge",
            here(&c::PICK_UP_MIN),
            Speed::Slow,
            EndPoint::ClearsBowl,
            "no dry flour left",
        ),
        mix(
            "Development",
            here(&c::SPONGE_DEVELOP_MIN),
            Speed::Fast,
            EndPoint::ClearsBowl,
            "the dough clears the bowl",
        ),
        salted(here(&c::SPONGE_SALT_MIN)),
        floor,
    ]
}

fn no_time(coefficients: &Coefficients) -> Vec<Stage> {
    let here = |coefficient| coefficients.value(coefficient);
    let floor = Stage {
        ends_when: "it relaxes and does not spring back at once".into(),
        ..Stage::new(StageKind::Rest, "Floor time", here(&c::NO_TIME_FLOOR_MIN))
    };
    vec![
        mix(
            "Pick-up",
            here(&c::PICK_UP_MIN),
            Speed::Slow,
            EndPoint::ClearsBowl,
            "no dry flour left in the bowl",
        ),
        mix(
            "Development",
            here(&c::NO_TIME_DEVELOP_MIN),
            Speed::Fast,
            EndPoint::ClearsBowl,
            "the dough clears the bowl",
        ),
        salted(here(&c::NO_TIME_SALT_MIN)),
        floor,
    ]
}
