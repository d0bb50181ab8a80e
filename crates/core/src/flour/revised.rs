use serde::Serialize;

use super::{Limit, Property};

/// How a limit differs between two revisions of a specification.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Revised {
    pub property: Property,
    pub label: &'static str,
    pub unit: &'static str,
    pub before: Option<Limit>,
    pub after: Option<Limit>,
    /// Narrower, wider, moved, added, removed, or what else was reworded.
    pub message: &'static str,
}

/// What differs between two revisions of a specification, in the order of a certificate.
pub fn revised(before: &[Limit], after: &[Limit]) -> Vec<Revised> {
    let of = |limits: &[Limit], property| {
        limits.iter().find(|limit| limit.property == property).cloned()
    };
    Property::ALL
        .into_iter()
        .map(|property| (property, of(before, property), of(after, property)))
        .filter(|(_, before, after)| before != after)
        .map(|(property, before, after)| Revised {
            property,
            label: property.label(),
            unit: property.unit(),
            message: message(before.as_ref(), after.as_ref()),
            before,
            after,
        })
        .collect()
}

fn message(before: Option<&Limit>, after: Option<&Limit>) -> &'static str {
    let (Some(before), Some(after)) = (before, after) else {
        return if before.is_some() { "removed" } else { "added" };
    };
    if before.basis != after.basis {
        return "on another basis";
    }
    let ends = |limit: &Limit| (limit.min.unwrap_or(f64::MIN), limit.max.unwrap_or(f64::MAX));
    let ((low, high), (new_low, new_high)) = (ends(before), ends(after));
    if (low, high) == (new_low, new_high) {
        return match (before.must, after.must) {
            (true, false) => "a must became a should",
            (false, true) => "a should became a must",
            _ if before.target != after.target => "another target",
            _ => "another method",
        };
    }
    if new_low >= low && new_high <= high {
        "narrower"
    } else if new_low <= low && new_high >= high {
        "wider"
    } else {
        "moved"
    }
}
