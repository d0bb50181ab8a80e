use ironpeel_core::units::ValidationErrors;
use ironpeel_store::{Author, Signed};
use serde::Deserialize;
use utoipa::ToSchema;

/// Longest reason kept.
const MOST_LETTERS: usize = 400;

/// Why something is recorded; who records it is who is signed in.
#[derive(Debug, Clone, Default, Deserialize, ToSchema)]
pub struct SignedInput {
    #[serde(default)]
    pub reason: String,
}

impl SignedInput {
    /// A reason is needed where something on record is changed.
    pub fn check(&self, author: &Author, is_change: bool, faults: &mut ValidationErrors) -> Signed {
        let reason = self.reason.trim();
        if is_change && reason.is_empty() {
            faults
                .push("signed.reason", "why is it changed? a few words for whoever reads it later");
        }
        if reason.chars().count() > MOST_LETTERS {
            faults.push("signed.reason", format!("a reason: up to {MOST_LETTERS} letters"));
        }
        Signed { by: author.name.clone(), reason: reason.into() }
    }
}
