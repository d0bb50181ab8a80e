use ironpeel_core::units::ValidationErrors;
use ironpeel_store::Signed;
use serde::Deserialize;
use utoipa::ToSchema;

/// Longest name or reason kept.
const MOST_LETTERS: usize = 400;

/// Who records something and why.
#[derive(Debug, Clone, Default, Deserialize, ToSchema)]
pub struct SignedInput {
    #[serde(default)]
    pub by: String,
    #[serde(default)]
    pub reason: String,
}

impl SignedInput {
    /// A name is needed, and a reason where something on record is changed.
    pub fn check(&self, is_change: bool, faults: &mut ValidationErrors) -> Signed {
        let (by, reason) = (self.by.trim(), self.reason.trim());
        if by.is_empty() {
            faults.push("signed.by", "who records this? a name or initials");
        }
        if is_change && reason.is_empty() {
            faults
                .push("signed.reason", "why is it changed? a few words for whoever reads it later");
        }
        if by.chars().count() > MOST_LETTERS || reason.chars().count() > MOST_LETTERS {
            faults.push("signed", format!("name and reason: up to {MOST_LETTERS} letters each"));
        }
        Signed { by: by.into(), reason: reason.into() }
    }
}
