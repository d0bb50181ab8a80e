use std::collections::{HashMap, HashSet};

use chrono::{DateTime, Utc};
use uuid::Uuid;

use super::{Event, EventDetails, EventKind};

/// An event as it stands, all corrections of it and of those done.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Standing {
    pub id: Uuid,
    pub kind: EventKind,
    pub happened_at: DateTime<Utc>,
    pub corrected: bool,
    pub details: EventDetails,
}

/// All that stands, what was withdrawn, and corrections of nothing that is here.
#[derive(Debug, Clone, PartialEq, Default)]
pub(super) struct Corrected {
    pub standing: Vec<Standing>,
    pub withdrawn: Vec<Uuid>,
    pub lost: Vec<Uuid>,
}

/// What a correction says in place of what it corrects.
#[derive(Clone)]
struct Said {
    kind: Option<EventKind>,
    happened_at: Option<DateTime<Utc>>,
    details: EventDetails,
}

impl Said {
    fn of(event: &Event) -> Self {
        let correction = event.kind == EventKind::Correct;
        let (kind, happened_at) = if correction {
            (event.new_kind, event.new_happened_at)
        } else {
            (Some(event.kind), Some(event.happened_at))
        };
        Self { kind, happened_at, details: event.details.clone() }
    }

    fn is_nothing(&self) -> bool {
        self.kind.is_none() && self.happened_at.is_none() && self.details == EventDetails::default()
    }

    fn with(&self, over: &Self) -> Self {
        let kind = over.kind.or(self.kind);
        // Of another kind nothing of what was said holds, but its stage.
        let details = if over.kind.is_some_and(|kind| Some(kind) != self.kind) {
            let stage = EventDetails { stage: self.details.stage, ..EventDetails::default() };
            stage.with(&over.details)
        } else {
            self.details.with(&over.details)
        };
        Self { kind, happened_at: over.happened_at.or(self.happened_at), details }
    }
}

/// Does every correction: the latest of one event wins, by its moment and then its id; one that says
/// nothing withdraws; one may be corrected itself. Corrections that lead to no event, or only to one
/// another, are lost.
pub(super) fn correct(events: &[Event]) -> Corrected {
    // Given twice, it is one.
    let mut known = HashSet::with_capacity(events.len());
    let events: Vec<&Event> = events.iter().filter(|event| known.insert(event.id)).collect();
    let mut corrections: HashMap<Uuid, Vec<&Event>> = HashMap::new();
    for event in events.iter().filter(|event| event.kind == EventKind::Correct) {
        if let Some(target) = event.corrects {
            corrections.entry(target).or_default().push(event);
        }
    }
    // From the events outwards, so that each correction is done before what it corrects.
    let roots = events.iter().filter(|event| event.kind != EventKind::Correct);
    let mut order: Vec<&Event> = roots.copied().collect();
    let mut next = 0;
    while let Some(event) = order.get(next) {
        order.extend(corrections.get(&event.id).into_iter().flatten());
        next += 1;
    }
    let mut said: HashMap<Uuid, Option<Said>> = HashMap::with_capacity(events.len());
    let mut found = Corrected::default();
    for event in order.iter().rev() {
        let own = Said::of(event);
        let of_it = corrections.get(&event.id).into_iter().flatten();
        let latest = of_it
            .filter_map(|one| Some((one, said.get(&one.id)?.as_ref()?)))
            .max_by_key(|(one, _)| (one.happened_at, one.id));
        let (corrected, now) = match latest {
            None => (false, Some(own)),
            Some((_, over)) if over.is_nothing() => (true, None),
            Some((_, over)) => (true, Some(own.with(over))),
        };
        if event.kind != EventKind::Correct {
            match &now {
                None => found.withdrawn.push(event.id),
                Some(Said { kind, happened_at, details }) => found.standing.push(Standing {
                    id: event.id,
                    kind: kind.unwrap_or(event.kind),
                    happened_at: happened_at.unwrap_or(event.happened_at),
                    corrected,
                    details: details.clone(),
                }),
            }
        }
        said.insert(event.id, now);
    }
    let lost = events.iter().filter(|event| !said.contains_key(&event.id));
    found.lost = lost.map(|event| event.id).collect();
    found.standing.sort_by_key(|one| (one.happened_at, one.id));
    found.withdrawn.sort_unstable();
    found.lost.sort_unstable();
    found
}
