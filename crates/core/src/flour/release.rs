use serde::{Deserialize, Serialize};

use super::Verdict;

/// What a person decided of a lot.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Decision {
    Release,
    ReleaseWithNote,
    Hold,
    Reject,
}

impl Decision {
    /// The word for a lot that was decided on so.
    pub const fn label(self) -> &'static str {
        match self {
            Self::Release => "released",
            Self::ReleaseWithNote => "released with note",
            Self::Hold => "held",
            Self::Reject => "rejected",
        }
    }
}

/// Why no batch may be planned of a lot.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Barred {
    Held,
    Rejected,
    /// Released for an earlier certificate or specification, and out of this one.
    ReleasedForEarlier,
    /// Out of its specification, and nobody has released it with a note.
    OutOfSpecification,
}

/// Why no batch may be planned of a lot; none where one may.
///
/// A held or rejected lot is barred, whatever its verdict. A lot out of its specification is barred
/// until somebody releases it with a note, and the release holds for the certificate
/// and the specification it was given for (`of_these`): a correction of either asks for it again.
///
/// ```
/// use ironpeel_core::flour::{Barred, Decision, Verdict, barred};
///
/// assert_eq!(barred(Some(Verdict::In), None, false), None);
/// assert_eq!(barred(Some(Verdict::Out), None, false), Some(Barred::OutOfSpecification));
/// let noted = Some(Decision::ReleaseWithNote);
/// assert_eq!(barred(Some(Verdict::Out), noted, true), None);
/// assert_eq!(barred(Some(Verdict::Out), noted, false), Some(Barred::ReleasedForEarlier));
/// assert_eq!(barred(Some(Verdict::In), Some(Decision::Hold), true), Some(Barred::Held));
/// ```
pub fn barred(
    verdict: Option<Verdict>,
    decided: Option<Decision>,
    of_these: bool,
) -> Option<Barred> {
    match (decided, verdict) {
        (Some(Decision::Hold), _) => Some(Barred::Held),
        (Some(Decision::Reject), _) => Some(Barred::Rejected),
        (Some(Decision::ReleaseWithNote), Some(Verdict::Out)) if of_these => None,
        (Some(Decision::ReleaseWithNote), Some(Verdict::Out)) => Some(Barred::ReleasedForEarlier),
        (_, Some(Verdict::Out)) => Some(Barred::OutOfSpecification),
        _ => None,
    }
}
