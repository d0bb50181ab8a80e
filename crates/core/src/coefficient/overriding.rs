use serde::{Deserialize, Serialize};

use super::Coefficient;
use crate::units::{Estimate, NumberRange, RawNumber, ValidationErrors, quoted};

/// A plant's own value of a coefficient, or its decision to leave the effect out.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Override {
    /// Of the coefficient.
    #[serde(alias = "rule")]
    pub key: String,
    /// Its effect is left out.
    pub off: bool,
    pub value: Estimate,
    pub reason: String,
}

/// A plant's own value as it was typed.
#[derive(Debug, Clone, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct OverrideInput {
    /// Of the coefficient.
    #[serde(alias = "rule")]
    pub key: String,
    #[serde(default)]
    pub off: bool,
    /// The house's if left out.
    #[serde(default)]
    pub typical: RawNumber,
    #[serde(default)]
    pub low: RawNumber,
    #[serde(default)]
    pub high: RawNumber,
    #[serde(default)]
    pub reason: String,
}

/// Longest reason kept.
const MOST_LETTERS: usize = 400;

impl OverrideInput {
    /// The override, if its band holds its value, the coefficient bears it and it says why.
    pub fn check(
        &self,
        find: impl Fn(&str) -> Option<&'static Coefficient>,
        at: &str,
        faults: &mut ValidationErrors,
    ) -> Option<Override> {
        let Some(house) = find(&self.key) else {
            let short = quoted(&self.key);
            faults.push(format!("{at}key"), format!("there is no coefficient “{short}”"));
            return None;
        };
        if !house.is_replaceable() {
            let message = format!("{} is a constant, not a house default", house.name);
            faults.push(format!("{at}key"), message);
        }
        if self.off && !house.is_optional() {
            let message = format!("{} cannot be left out, only replaced", house.name);
            faults.push(format!("{at}off"), message);
        }
        let (least, most) = house.limits();
        let bound = |field, words| NumberRange::new(field, words, house.unit, least, most);
        let typical = bound("typical", "the plant's own value").check_or(
            &self.typical,
            house.value,
            at,
            faults,
        );
        let low = bound("low", "the least it may be").check_or(
            &self.low,
            typical.min(house.low),
            at,
            faults,
        );
        let high = bound("high", "the most it may be").check_or(
            &self.high,
            typical.max(house.high),
            at,
            faults,
        );
        if !(low..=high).contains(&typical) {
            faults.push(
                format!("{at}typical"),
                format!("{typical} does not lie between its low {low} and its high {high}"),
            );
        }
        let reason = self.reason.trim();
        if reason.is_empty() || reason.chars().count() > MOST_LETTERS {
            faults.push(
                format!("{at}reason"),
                format!(
                    "why does the plant's own differ? a few words, up to {MOST_LETTERS} letters"
                ),
            );
        }
        let value = Estimate { typical, low, high };
        Some(Override { key: house.key.into(), off: self.off, value, reason: reason.into() })
    }
}
