use std::ops::Range;

use serde::{Deserialize, Serialize};

use super::coefficients::{DIVIDE_MIN, NO_TIME_DIVIDE_MIN};
use crate::coefficient::Coefficients;
use crate::method::{Equipment, Method, Process, StageKind, StageRole};

/// What a dough passes through on a line, one dough or so many pieces at a time.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Place {
    Troughs,
    Mixer,
    Divider,
    Proofer,
    Oven,
}

impl Place {
    /// Where a stage of this role is done; none where it takes no place that others wait for.
    pub const fn of(role: StageRole) -> Option<Self> {
        match role {
            StageRole::Sponge | StageRole::Floor | StageRole::Folds => Some(Self::Troughs),
            StageRole::PreparationMixing | StageRole::Mixing | StageRole::Autolyse => {
                Some(Self::Mixer)
            }
            StageRole::Dividing => Some(Self::Divider),
            StageRole::Proof => Some(Self::Proofer),
            StageRole::Bake => Some(Self::Oven),
            _ => None,
        }
    }

    /// Whether somebody works there.
    pub const fn is_worked(self) -> bool {
        matches!(self, Self::Mixer | Self::Divider | Self::Oven)
    }

    /// Whether pieces pass through it, so many at once.
    pub(super) const fn holds_pieces(self) -> bool {
        matches!(self, Self::Proofer | Self::Oven)
    }
}

/// How often a place lets a dough through.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Pace {
    pub place: Place,
    /// Minutes from one dough to the next.
    pub minutes: f64,
    /// How that comes about.
    pub message: PaceCause,
}

/// What a place's minutes from dough to dough come from.
#[derive(Debug, Clone, PartialEq)]
pub enum PaceCause {
    /// Each stay of a dough: troughs, and for how many minutes.
    Troughs {
        stays: Vec<(u32, f64)>,
        there_are: u32,
    },
    /// With a sponge mixed before each dough, how much longer it lies so that both find the mixer free.
    Mixer {
        mixing_min: f64,
        turn_min: f64,
        sponge_waits_min: Option<f64>,
    },
    Divider {
        pieces: f64,
        per_min: f64,
    },
    /// Pieces that pass through a place for so long, so many at once.
    Through {
        pieces: f64,
        minutes: f64,
        at_once: f64,
    },
}

/// From one dough to the next on a line, and what sets it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Cadence {
    /// Whole minutes from one dough to the next: the slowest place's.
    pub minutes: f64,
    pub bottleneck: Place,
    pub paces: Vec<Pace>,
    /// How long a dough is divided: no faster than proofer and oven take its pieces.
    pub divide_min: f64,
    pub divider_per_min: f64,
    /// Of the last piece when it is divided, from the end of mixing.
    pub oldest_min: f64,
    /// A dough divided longer than this is too old at its end, minutes (H); none where hands divide.
    pub divide_limit_min: Option<f64>,
    /// What a dough may weigh to keep to it.
    pub most_kg: Option<f64>,
    /// Troughs in use at once, and the floor they take.
    pub troughs: u32,
    pub floor_m2: f64,
    /// How much longer a sponge lies so that doughs find the mixer free.
    pub sponge_waits_min: f64,
}

/// What rounding may tear apart.
const SLACK: f64 = 1e-9;

/// One of the doughs of a run.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct EachDough {
    pub kg: f64,
    /// Of that, made before as a sponge.
    pub sponge_kg: f64,
    pub pieces: f64,
    pub piece_kg: f64,
}

impl EachDough {
    /// Its pieces, the last one perhaps lighter.
    pub(super) fn whole_pieces(&self) -> f64 {
        self.pieces.ceil().max(1.0)
    }
}

/// The cadence of a line for doughs of one kind: each place's minutes from batch to batch.
///
/// The mixer gives a dough for its mixing and its turn; the divider for its pieces; proofer and
/// oven for `pieces · minutes / pieces held`, for pieces pass through them one after another; the
/// troughs let a dough through as often as what lies at once finds room in those there are:
/// `Σ ⌈minutes/cadence⌉ · troughs ≤ all`. The slowest place sets the cadence.
pub fn cadence(
    method: &Method,
    equipment: &Equipment,
    dough: EachDough,
    coefficients: &Coefficients,
) -> Cadence {
    let lying = lying(method, dough, equipment);
    let mut paces = paces(method, equipment, dough, &lying);
    let sponge_waits_min = keep_apart(&mut paces, method, equipment.turn_min, coefficients);
    let slowest = paces.iter().max_by(|one, other| one.minutes.total_cmp(&other.minutes));
    let (bottleneck, minutes) =
        slowest.map_or((Place::Mixer, 1.0), |pace| (pace.place, pace.minutes.ceil().max(1.0)));
    let divides = method.stages.iter().any(|stage| stage.kind == StageKind::Divide);
    let pieces = dough.whole_pieces();
    let floor_min = minutes_of(method, |role| matches!(role, StageRole::Floor | StageRole::Folds));
    let flow = paces
        .iter()
        .filter(|pace| matches!(pace.place, Place::Divider | Place::Proofer | Place::Oven));
    let divide_min =
        if divides { flow.fold(0.0, |most, pace| pace.minutes.max(most)) } else { 0.0 };
    let divide_limit_min = method.machine_divided.then_some(match method.process {
        Process::NoTime | Process::Frozen => coefficients.value(&NO_TIME_DIVIDE_MIN),
        _ => coefficients.value(&DIVIDE_MIN),
    });
    let taken = lying.iter().map(|one| one.doughs_at(minutes) * one.troughs).sum::<u32>();
    let in_use = taken.min(equipment.troughs);
    Cadence {
        minutes,
        bottleneck,
        divide_min,
        divider_per_min: if divide_min > 0.0 { pieces / divide_min } else { 0.0 },
        oldest_min: floor_min + divide_min,
        most_kg: divide_limit_min
            .filter(|_| divide_min > 0.0)
            .map(|limit| pieces / divide_min * dough.piece_kg * limit),
        divide_limit_min,
        troughs: in_use,
        floor_m2: f64::from(in_use) * equipment.trough_m2,
        sponge_waits_min,
        paces,
    }
}

/// Minutes of the stages whose role is wanted.
fn minutes_of(method: &Method, wanted: impl Fn(StageRole) -> bool) -> f64 {
    let stages = method.stages.iter().zip(method.roles());
    stages.filter(|(_, role)| wanted(*role)).map(|(stage, _)| stage.minutes).sum()
}

/// When a dough takes the mixer, from its beginning on, each time with the turn after it.
fn mixing(method: &Method, turn_min: f64) -> Vec<Range<f64>> {
    let mut found: Vec<Range<f64>> = Vec::new();
    let (mut at, mut last) = (0.0, None);
    for (number, (stage, role)) in method.stages.iter().zip(method.roles()).enumerate() {
        let to = at + stage.minutes;
        if Place::of(role) == Some(Place::Mixer) {
            match found.last_mut().filter(|_| last.is_some_and(|last| last + 1 == number)) {
                Some(one) => one.end = to + turn_min,
                None => found.push(at..to + turn_min),
            }
            last = Some(number);
        }
        at = to;
    }
    found
}

/// Makes the mixer serve doughs that follow one another: what each mixes before falls between the
/// doughs mixed meanwhile. A sponge that was mixed lies longer for it as far as it may, minutes, which
/// are given back; where that does not do, the mixer is slower.
fn keep_apart(
    paces: &mut [Pace],
    method: &Method,
    turn_min: f64,
    coefficients: &Coefficients,
) -> f64 {
    let mixing = mixing(method, turn_min);
    let [first, others @ ..] = mixing.as_slice() else { return 0.0 };
    if others.is_empty() {
        return 0.0;
    }
    let sponge = method.sponge_at().filter(|at| {
        let before = &method.roles()[..*at];
        before.iter().any(|role| Place::of(*role) == Some(Place::Mixer))
    });
    let may_lie_min = sponge.map_or(0.0, |at| {
        (method.windows(coefficients)[at].high_min - method.stages[at].minutes).max(0.0)
    });
    let slowest = paces.iter().map(|pace| pace.minutes.ceil().max(1.0)).fold(1.0, f64::max);
    let apart = |cadence: f64, waits: f64| {
        let clear = |one: &Range<f64>, other: &Range<f64>, waits: f64| {
            let after = (other.start + waits - one.start).rem_euclid(cadence);
            after + SLACK >= one.end - one.start
                && after + other.end - other.start <= cadence + SLACK
        };
        let mut later = others
            .iter()
            .enumerate()
            .flat_map(|(at, one)| others[at + 1..].iter().map(move |other| (one, other)));
        others.iter().all(|other| clear(first, other, waits))
            && later.all(|(one, other)| clear(one, other, 0.0))
    };
    let whole = |least: f64, most: f64| (least as u64..=most as u64).map(|minutes| minutes as f64);
    let all = others.last().map_or(first.end, |last| last.end).ceil().max(slowest);
    let found = whole(slowest, all)
        .flat_map(|minutes| whole(0.0, may_lie_min).map(move |waits| (minutes, waits)))
        .find(|(minutes, waits)| apart(*minutes, *waits));
    let (minutes, waits_min) = found.unwrap_or((all, 0.0));
    for pace in paces {
        if let PaceCause::Mixer { sponge_waits_min, .. } = &mut pace.message {
            *sponge_waits_min = sponge.map(|_| waits_min);
            if minutes > slowest {
                pace.minutes = minutes;
            }
        }
    }
    waits_min
}

/// How often each place lets a dough through.
fn paces(method: &Method, equipment: &Equipment, dough: EachDough, lying: &[Lying]) -> Vec<Pace> {
    let mixes = minutes_of(method, |role| Place::of(role) == Some(Place::Mixer));
    let turn_min = equipment.turn_min * mixing(method, 0.0).len().max(1) as f64;
    let proofs = minutes_of(method, |role| role == StageRole::Proof);
    let bakes = minutes_of(method, |role| role == StageRole::Bake);
    let divides = method.stages.iter().any(|stage| stage.kind == StageKind::Divide);
    let pieces = dough.whole_pieces();
    let proofer = held(equipment.proofer_pieces);
    let oven = held(equipment.oven_pieces);
    let through = |minutes: f64, held: f64| pieces * minutes / held;
    let at_divider = if divides { pieces / equipment.divider_per_min } else { 0.0 };
    let pace = |place, minutes, message| Pace { place, minutes, message };
    vec![
        pace(
            Place::Troughs,
            troughs_min(method, lying, equipment.troughs),
            PaceCause::Troughs {
                stays: lying.iter().map(|one| (one.troughs, one.minutes)).collect(),
                there_are: equipment.troughs,
            },
        ),
        pace(
            Place::Mixer,
            mixes + turn_min,
            PaceCause::Mixer { mixing_min: mixes, turn_min, sponge_waits_min: None },
        ),
        pace(
            Place::Divider,
            at_divider,
            PaceCause::Divider { pieces, per_min: equipment.divider_per_min },
        ),
        pace(
            Place::Proofer,
            through(proofs, proofer),
            PaceCause::Through { pieces, minutes: proofs, at_once: proofer },
        ),
        pace(
            Place::Oven,
            through(bakes, oven),
            PaceCause::Through { pieces, minutes: bakes, at_once: oven },
        ),
    ]
}

/// Pieces a place holds, whole ones.
fn held(pieces: f64) -> f64 {
    pieces.floor().max(1.0)
}

/// Pieces that proofer and oven hold at once.
pub(super) fn holds(place: Place, equipment: &Equipment) -> f64 {
    held(if place == Place::Oven { equipment.oven_pieces } else { equipment.proofer_pieces })
}

/// A stay of a dough in troughs: its sponge, or the dough from the mixer on.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Lying {
    /// By their place in the method.
    pub stages: Range<usize>,
    pub minutes: f64,
    pub troughs: u32,
}

impl Lying {
    /// How many doughs lie there at once at a cadence.
    pub fn doughs_at(&self, cadence_min: f64) -> u32 {
        (self.minutes / cadence_min - SLACK).ceil().max(0.0) as u32
    }
}

/// Where a dough lies in troughs on its way.
pub(super) fn lying(method: &Method, dough: EachDough, equipment: &Equipment) -> Vec<Lying> {
    let mut found: Vec<Lying> = Vec::new();
    for (at, (stage, role)) in method.stages.iter().zip(method.roles()).enumerate() {
        if Place::of(role) != Some(Place::Troughs) {
            continue;
        }
        match found.last_mut().filter(|last| last.stages.end == at) {
            Some(last) => {
                last.stages.end += 1;
                last.minutes += stage.minutes;
            }
            None => found.push(Lying {
                stages: at..at + 1,
                minutes: stage.minutes,
                troughs: troughs_for(role, dough, equipment),
            }),
        }
    }
    found
}

/// The least minutes from batch to batch at which all that lies at once finds a trough. Where there
/// are too few for one dough to be set while another lies, all the time that one takes.
fn troughs_min(method: &Method, lying: &[Lying], troughs: u32) -> f64 {
    let (Some(first), Some(last)) = (lying.first(), lying.last()) else { return 0.0 };
    if lying.iter().map(|one| one.troughs).sum::<u32>() > troughs {
        let taken = &method.stages[first.stages.start..last.stages.end];
        return taken.iter().map(|stage| stage.minutes).sum();
    }
    let room = |minutes: &f64| {
        let taken = lying.iter().map(|one| one.doughs_at(*minutes) * one.troughs);
        taken.sum::<u32>() <= troughs
    };
    // The number that lies changes only where a stay is a whole number of cadences.
    lying
        .iter()
        .flat_map(|one| (1..=troughs / one.troughs).map(|doughs| one.minutes / f64::from(doughs)))
        .filter(|minutes| *minutes > 0.0)
        .filter(room)
        .fold(f64::INFINITY, f64::min)
        .min(lying.iter().map(|one| one.minutes).sum())
}

/// Troughs one dough takes while it lies: its sponge, or all of it.
pub(super) fn troughs_for(role: StageRole, dough: EachDough, equipment: &Equipment) -> u32 {
    let kg = if role == StageRole::Sponge { dough.sponge_kg } else { dough.kg };
    (kg / equipment.trough_kg).ceil().max(1.0) as u32
}
