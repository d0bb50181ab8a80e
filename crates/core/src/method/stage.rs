use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::ambient::spans;
use super::coefficients as c;
use super::{Addition, AmbientPoint, AmbientSpan, BakePhase, EndFigure, EndPoint, OptionalStep};
use crate::dough::{Ingredient, PreparationKind};

/// What happens in a stage.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum StageKind {
    Mix,
    Rest,
    Fold,
    Divide,
    Proof,
    Bake,
    Cool,
    Slice,
}

impl StageKind {
    /// Every kind of stage.
    pub const ALL: [Self; 8] = [
        Self::Mix,
        Self::Rest,
        Self::Fold,
        Self::Divide,
        Self::Proof,
        Self::Bake,
        Self::Cool,
        Self::Slice,
    ];
}

/// A mixer's speed.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Speed {
    Slow,
    Fast,
}

/// The shortest and the longest a stage may last, minutes.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TimeTolerance {
    pub low_min: f64,
    pub high_min: f64,
}

/// One stage of a method.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Stage {
    /// Its own across revisions, whatever is renamed or moved; none before it is recorded.
    #[serde(default)]
    pub id: Option<Uuid>,
    pub kind: StageKind,
    pub label: String,
    pub minutes: f64,
    /// When mixing.
    pub speed: Option<Speed>,
    /// What is around it as it begins; the room's where nothing is said.
    pub temperature_c: Option<f64>,
    /// How that changes from then on; not at all where nothing is said.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub ambient_curve: Vec<AmbientPoint>,
    pub humidity_pct: Option<f64>,
    /// What ends it: a look, a height, a core temperature; minutes are only where to start looking.
    pub ends_when: String,
    /// Which sign that is.
    #[serde(default)]
    pub end_point: EndPoint,
    /// The number it ends at, in the unit of what its sign is read by; none where it is only seen.
    #[serde(default, alias = "ends_at_rise_pct", skip_serializing_if = "Option::is_none")]
    pub ends_at: Option<f64>,
    /// Where it ends at a height: how high the piece stands as it begins, mm, between straight sides.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub begins_at_mm: Option<f64>,
    /// The stage from whose end the clock counts, by its id.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ends_after: Option<Uuid>,
    /// Why it is there.
    #[serde(default)]
    pub reason: String,
    /// How short and how long it may be here; the house's for its kind if none.
    #[serde(default)]
    pub tolerance: Option<TimeTolerance>,
    /// The optional step that put it in; none where somebody did.
    #[serde(default)]
    pub optional_step: Option<OptionalStep>,
    /// What goes in at its start, besides what went in before. What no stage names goes in at the
    /// first mixing.
    pub adds: Vec<Addition>,
    /// Of folds: how many times, each with a rest after it; once if nothing is said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub fold_sets: Option<u8>,
    /// The kind of preparation it mixes or rests; the final dough where none is named.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub makes: Option<PreparationKind>,
    /// Of a bake: what the oven does, phase after phase; as hot as is around it where none is stated.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub programme: Vec<BakePhase>,
}

/// A time in which somebody is needed, minutes from a stage's beginning.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Handled {
    pub from_min: f64,
    pub to_min: f64,
}

pub(crate) const FOLD_MIN: f64 = c::FOLD_MIN.value;
const BRING_MIN: f64 = c::BRING_MIN.value;

/// At or below this a stage is a refrigerator's, whatever the weather, °C (H).
pub const COLD_C: f64 = c::COLD_C.value;

impl Stage {
    /// A stage of a kind that lasts so long, and nothing else about it.
    pub fn new(kind: StageKind, label: impl Into<String>, minutes: f64) -> Self {
        Self {
            id: None,
            optional_step: None,
            kind,
            label: label.into(),
            minutes,
            speed: None,
            temperature_c: None,
            ambient_curve: Vec::new(),
            humidity_pct: None,
            ends_when: String::new(),
            end_point: EndPoint::Look,
            ends_at: None,
            begins_at_mm: None,
            ends_after: None,
            reason: String::new(),
            tolerance: None,
            adds: Vec::new(),
            fold_sets: None,
            makes: None,
            programme: Vec::new(),
        }
    }

    /// Whether it mixes the final dough.
    pub fn mixes_dough(&self) -> bool {
        self.kind == StageKind::Mix && self.makes.is_none()
    }

    /// Whether some of an ingredient goes in at it.
    pub fn takes(&self, ingredient: Ingredient) -> bool {
        self.adds.iter().any(|one| one.ingredient == ingredient)
    }

    /// Whether the dough lies in the cold.
    pub fn is_cold(&self) -> bool {
        self.temperature_c.is_some_and(|celsius| celsius <= COLD_C)
    }

    /// Whether it takes as long as the dough's life says: a rest or proof that is not in the cold.
    pub fn can_stretch(&self) -> bool {
        matches!(self.kind, StageKind::Rest | StageKind::Proof) && !self.is_cold()
    }

    /// Whether the dough is left to rise in it, so that it can end at a rise.
    pub fn rises(&self) -> bool {
        matches!(self.kind, StageKind::Rest | StageKind::Fold | StageKind::Proof)
    }

    /// What is around it, span by span, between two minutes of it: from its temperature, or the
    /// room's, evenly to each point of its curve, and as at the last from there on.
    ///
    /// ```
    /// use ironpeel_core::method::{AmbientPoint, Stage, StageKind};
    /// let night = Stage {
    ///     temperature_c: Some(24.0),
    ///     ambient_curve: vec![AmbientPoint { after_min: 480.0, temperature_c: 20.0 }],
    ///     ..Stage::new(StageKind::Rest, "Bulk", 600.0)
    /// };
    /// let spans = night.ambient(240.0, 600.0, 22.0);
    /// let spans: Vec<_> = spans.iter().map(|one| (one.minutes, one.from_c, one.to_c)).collect();
    /// assert_eq!(spans, [(240.0, 22.0, 20.0), (120.0, 20.0, 20.0)]);
    /// ```
    pub fn ambient(&self, from_min: f64, to_min: f64, room_c: f64) -> Vec<AmbientSpan> {
        spans(self.temperature_c.unwrap_or(room_c), &self.ambient_curve, from_min, to_min)
    }

    /// What the number it ends at is of; none where it has none.
    pub fn end_figure(&self) -> Option<EndFigure> {
        self.end_point.figure(self.rises())
    }

    /// The rise it ends at, %; none where its end is another.
    pub fn ends_at_rise(&self) -> Option<f64> {
        self.ends_at.filter(|_| self.end_figure() == Some(EndFigure::Rise))
    }

    /// Whether somebody works at it all the while, and not only at its beginning or set by set.
    pub fn needs_hands(&self) -> bool {
        match self.kind {
            StageKind::Mix | StageKind::Divide | StageKind::Bake | StageKind::Slice => true,
            StageKind::Fold => self.minutes <= FOLD_MIN * self.sets() as f64,
            StageKind::Rest | StageKind::Proof | StageKind::Cool => false,
        }
    }

    /// How many sets of folds it is; none where it is something else.
    pub fn sets(&self) -> usize {
        match self.kind {
            StageKind::Fold => usize::from(self.fold_sets.unwrap_or(1)).max(1),
            _ => 0,
        }
    }

    /// From one set of folds to the next where it lasts as planned, min; none where there is none.
    ///
    /// ```
    /// use ironpeel_core::method::{Stage, StageKind};
    /// let folds =
    ///     Stage { fold_sets: Some(3), ..Stage::new(StageKind::Fold, "Three sets of folds", 90.0) };
    /// assert_eq!(folds.folds_every_min(), Some(30.0));
    /// assert_eq!(Stage::new(StageKind::Fold, "One set", 30.0).folds_every_min(), None);
    /// ```
    pub fn folds_every_min(&self) -> Option<f64> {
        let sets = self.sets();
        (sets > 1).then(|| self.minutes / sets as f64)
    }

    /// Its sets of folds where it lasts so long: each a moment, with the same rest after each.
    ///
    /// ```
    /// use ironpeel_core::method::{Stage, StageKind};
    /// let folds =
    ///     Stage { fold_sets: Some(3), ..Stage::new(StageKind::Fold, "Three sets of folds", 90.0) };
    /// let begun: Vec<f64> = folds.folds(90.0).iter().map(|set| set.from_min).collect();
    /// assert_eq!(begun, [0.0, 30.0, 60.0]);
    /// assert_eq!(folds.folds(90.0)[2].to_min, 62.0);
    /// ```
    pub fn folds(&self, minutes: f64) -> Vec<Handled> {
        let each = minutes / self.sets().max(1) as f64;
        (0..self.sets())
            .map(|set| {
                let from_min = set as f64 * each;
                Handled { from_min, to_min: from_min + each.min(FOLD_MIN) }
            })
            .collect()
    }

    /// When somebody is needed for it where it lasts so long: all the while, at each set of folds,
    /// or to bring the dough there.
    pub fn handled(&self, minutes: f64) -> Vec<Handled> {
        match self.kind {
            StageKind::Fold => self.folds(minutes),
            _ if self.needs_hands() => vec![Handled { from_min: 0.0, to_min: minutes }],
            _ => vec![Handled { from_min: 0.0, to_min: BRING_MIN }],
        }
    }
}
