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

/// Why no batch may be planned of a lot; none where one may.
///
/// A held or rejected lot is barred, whatever its verdict. A lot out of its specification is barred
/// until somebody releases it with a note, and the release holds for the certificate
/// and the specification it was given for (`of_these`): a correction of either asks for it again.
///
/// ```
/// use ironpeel_core::flour::{Decision, Verdict, barred};
///
/// assert_eq!(barred(Some(Verdict::In), None, false), None);
/// assert!(barred(Some(Verdict::Out), None, false).is_some());
/// assert_eq!(barred(Some(Verdict::Out), Some(Decision::ReleaseWithNote), true), None);
/// assert!(barred(Some(Verdict::Out), Some(Decision::ReleaseWithNote), false).is_some());
/// assert!(barred(Some(Verdict::In), Some(Decision::Hold), true).is_some());
/// ```
pub fn barred(
    verdict: Option<Verdict>,
    decided: Option<Decision>,
    of_these: bool,
) -> Option<&'static str> {
    match (decided, verdict) {
        (Some(Decision::Hold), _) => Some("it is held"),
        (Some(Decision::Reject), _) => Some("it was rejected"),
        (Some(Decision::ReleaseWithNote), Some(Verdict::Out)) if of_these => None,
        (Some(Decision::ReleaseWithNote), Some(Verdict::Out)) => Some(
            "it was released for an earlier certificate or specification, and is out of this one",
        ),
        (_, Some(Verdict::Out)) => {
            Some("it is out of its specification and nobody has released it with a note")
        }
        _ => None,
    }
}
