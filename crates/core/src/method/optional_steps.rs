use serde::Serialize;

use super::coefficients as c;
use super::{
    Addition, EndPoint, FOLD_MIN, Method, OptionalStep, Speed, Stage, StageKind, StageRole,
};
use crate::coefficient::Coefficients;
use crate::dough::Ingredient;

/// An optional step: whether the method has it, what it does, and what does the same without it.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Optional {
    pub choice: OptionalStep,
    pub label: &'static str,
    pub taken: bool,
    pub does: &'static str,
    pub without: &'static str,
}

/// What rounding may tear apart.
const SLACK: f64 = 1e-9;

impl Method {
    /// The steps on which there are two schools, and what this method does about each.
    pub fn optional(&self) -> Vec<Optional> {
        OptionalStep::ALL
            .into_iter()
            .map(|choice| {
                let (label, does, without) = match choice {
                    OptionalStep::YeastProofed => (
                        "Yeast given a head start",
                        "wakes active dry yeast and shows that it lives; a no-time dough gains a \
                         few minutes. Lukewarm water, never above 43 °C",
                        "instant yeast goes in with the flour and needs none",
                    ),
                    OptionalStep::Autolyse => (
                        "Autolyse",
                        "flour drinks and gluten joins by itself: less mixing, less oxidation, so \
                         colour and flavour. Whole grain gains most; an hour is the most",
                        "one more set of folds does the same: rest anywhere in the process counts",
                    ),
                    OptionalStep::SaltLate => (
                        "Salt at three quarters of mixing",
                        "salt stiffens the dough and loads the mixer: held back, a big dough \
                         develops sooner and cooler",
                        "with the rest from the start nothing is forgotten; a small dough does \
                         not feel it",
                    ),
                };
                Optional { choice, label, taken: self.takes(choice), does, without }
            })
            .collect()
    }

    /// Whether the method has a step.
    pub fn takes(&self, choice: OptionalStep) -> bool {
        match choice {
            OptionalStep::YeastProofed => self.stages.iter().any(is_head_start),
            OptionalStep::Autolyse => self.roles().contains(&StageRole::Autolyse),
            OptionalStep::SaltLate => {
                let first = self.first_mix();
                self.stages.iter().skip(first + 1).any(is_salted)
            }
        }
    }

    /// The method with a step taken or left out; as it is where nothing changes. An autolyse left
    /// out is made good by one more set of folds, and the other way round.
    #[must_use]
    pub fn with(&self, choice: OptionalStep, taken: bool, coefficients: &Coefficients) -> Self {
        if self.takes(choice) == taken {
            return self.clone();
        }
        let mut method = self.clone();
        match choice {
            OptionalStep::YeastProofed => method.proof_yeast(taken, coefficients),
            OptionalStep::Autolyse => method.autolyse(taken, coefficients),
            OptionalStep::SaltLate => method.salt_late(taken, coefficients),
        }
        method
    }

    fn proof_yeast(&mut self, taken: bool, coefficients: &Coefficients) {
        if !taken {
            self.stages.retain(|stage| !is_head_start(stage));
            return;
        }
        let first = self.first_mix();
        let celsius = coefficients.value(&c::PROOFED_C);
        // What other stages take of the water stays theirs.
        let stated = self.stages.iter().flat_map(|stage| &stage.adds);
        let stated = stated.filter(|add| add.ingredient == Ingredient::Water);
        let free = 100.0 - stated.filter_map(|add| add.share_pct).sum::<f64>();
        let water = Addition {
            ingredient: Ingredient::Water,
            share_pct: Some(coefficients.value(&c::PROOFED_WATER).min(free)),
            temperature_c: Some(celsius),
        };
        let yeasts = yeasts().filter(|yeast| !self.stages.iter().any(|stage| stage.takes(*yeast)));
        let head_start = Stage {
            temperature_c: Some(celsius),
            adds: Some(water)
                .filter(|_| free > SLACK)
                .into_iter()
                .chain(yeasts.map(Addition::rest_of))
                .collect(),
            ends_when: "it foams; no foam, no bread".into(),
            reason: "yeast wants lukewarm water and dies well below boiling".into(),
            optional_step: Some(OptionalStep::YeastProofed),
            ..Stage::new(
                StageKind::Rest,
                "Yeast in lukewarm water",
                coefficients.value(&c::PROOFED_MIN),
            )
        };
        self.stages.insert(first, head_start);
    }

    fn autolyse(&mut self, taken: bool, coefficients: &Coefficients) {
        if taken {
            let first = self.first_mix();
            // What goes into the first mixing waits for the one after the rest.
            let slow = self.stages[first].minutes.min(coefficients.value(&c::WET_MIX_MIN));
            let wet = Stage {
                speed: Some(Speed::Slow),
                ends_when: "wet through, no more".into(),
                end_point: EndPoint::Look,
                reason: "flour and water alone".into(),
                optional_step: Some(OptionalStep::Autolyse),
                ..Stage::new(StageKind::Mix, "Flour and water", slow)
            };
            let rest = Stage {
                ends_when: "smooth where it was rough".into(),
                reason: "less mixing, so colour and flavour".into(),
                optional_step: Some(OptionalStep::Autolyse),
                ..Stage::new(StageKind::Rest, "Autolyse", coefficients.value(&c::AUTOLYSE_MIN))
            };
            let held = std::iter::once(Ingredient::Salt).chain(yeasts());
            for one in held {
                if !self.stages.iter().any(|stage| stage.takes(one)) {
                    self.stages[first].adds.push(Addition::rest_of(one));
                }
            }
            self.stages.splice(first..first, [wet, rest]);
            let folds = self.stages.iter().position(is_in_place_of_autolyse);
            folds.map(|at| self.stages.remove(at));
            return;
        }
        let roles = self.roles();
        let mut roles = roles.iter();
        self.stages.retain(|_| roles.next() != Some(&StageRole::Autolyse));
        // Halfway through what it then lies before the divider.
        let roles = self.roles();
        let floor = roles.iter().position(|role| *role == StageRole::Floor);
        let at = floor.unwrap_or_else(|| {
            roles.iter().rposition(|role| *role == StageRole::Mixing).map_or(0, |last| last + 1)
        });
        let fold = Stage {
            ends_when: "edges to the middle, once round".into(),
            reason: "in place of the autolyse".into(),
            optional_step: Some(OptionalStep::Autolyse),
            ..Stage::new(StageKind::Fold, "One more set of folds", FOLD_MIN)
        };
        let Some(floor) = floor else {
            self.stages.insert(at, fold);
            return;
        };
        let half = self.stages[floor].minutes / 2.0;
        self.stages[floor].minutes = half;
        self.stages[floor].tolerance = None;
        let second = Stage { id: None, ..self.stages[floor].clone() };
        self.stages.splice(floor + 1..=floor, [fold, second]);
    }

    fn salt_late(&mut self, taken: bool, coefficients: &Coefficients) {
        for stage in &mut self.stages {
            stage.adds.retain(|one| one.ingredient != Ingredient::Salt);
        }
        if !taken {
            return;
        }
        let all = self.mixing_min();
        let before = all * coefficients.value(&c::SALT_LATE_AT) / 100.0;
        let mut mixed = 0.0;
        for at in 0..self.stages.len() {
            if !self.stages[at].mixes_dough() {
                continue;
            }
            let minutes = self.stages[at].minutes;
            if mixed + minutes > before + SLACK {
                let first = before - mixed;
                if first < coefficients.value(&c::SHORTEST_MIX) {
                    self.stages[at].adds.push(Addition::rest_of(Ingredient::Salt));
                    return;
                }
                let mut rest = self.stages[at].clone();
                rest.id = None;
                rest.optional_step = Some(OptionalStep::SaltLate);
                rest.minutes = minutes - first;
                rest.label = "Salt in".into();
                rest.adds = vec![Addition::rest_of(Ingredient::Salt)];
                rest.tolerance = None;
                self.stages[at].minutes = first;
                self.stages[at].tolerance = None;
                self.stages.insert(at + 1, rest);
                return;
            }
            mixed += minutes;
        }
    }
}

fn yeasts() -> impl Iterator<Item = Ingredient> {
    Ingredient::ALL.into_iter().filter(|one| one.is_yeast())
}

fn is_salted(stage: &Stage) -> bool {
    stage.takes(Ingredient::Salt)
}

fn is_head_start(stage: &Stage) -> bool {
    stage.optional_step == Some(OptionalStep::YeastProofed)
}

/// The set of folds that is done where an autolyse is left out.
fn is_in_place_of_autolyse(stage: &Stage) -> bool {
    stage.kind == StageKind::Fold && stage.optional_step == Some(OptionalStep::Autolyse)
}
