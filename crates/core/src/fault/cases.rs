use std::collections::{BTreeMap, BTreeSet};

use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::coefficients::{CASE_HALF_LIFE_D, JUDGED_COUNTS, LINE_CASES};
use crate::coefficient::Coefficients;

/// What a person found of a proposed cause.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum CaseVerdict {
    Confirmed,
    Rejected,
}

/// A fault of a batch whose cause a person confirmed or rejected.
#[derive(Debug, Clone, PartialEq)]
pub struct FaultCase {
    pub batch: Uuid,
    pub line: Uuid,
    /// None of the listed ones where it is none.
    pub cause: Option<String>,
    pub verdict: CaseVerdict,
    /// By a change that was tried, not by judgement alone.
    pub by_change: bool,
    pub at: DateTime<Utc>,
}

/// Confirmed cases of a fault, as they count by now.
#[derive(Debug, Clone, PartialEq, Default, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ConfirmedCases {
    pub by_cause: BTreeMap<String, f64>,
    pub none: f64,
    /// Whether they are this line's alone.
    pub of_line: bool,
    /// Batches they are of.
    pub batches: usize,
}

/// The cases that stand confirmed: what was said last of a batch's cause.
pub fn confirmed_cases(cases: &[FaultCase]) -> Vec<&FaultCase> {
    let mut last: BTreeMap<(Uuid, Option<&str>), &FaultCase> = BTreeMap::new();
    for case in cases {
        last.insert((case.batch, case.cause.as_deref()), case);
    }
    last.into_values().filter(|case| case.verdict == CaseVerdict::Confirmed).collect()
}

impl ConfirmedCases {
    /// Counts cases of one fault and process, oldest first: `n = v·2^(−age/365 d)`, v 1 by a change and
    /// 0.5 by judgement, shared by the causes of one batch; what was said last of a cause stands. A
    /// line's own count alone once they come to ten.
    ///
    /// ```
    /// use chrono::{TimeDelta, Utc};
    /// use ironpeel_core::{coefficient::Coefficients, fault::{CaseVerdict, ConfirmedCases, FaultCase}};
    /// use uuid::Uuid;
    /// let now = Utc::now();
    /// let case = FaultCase { batch: Uuid::nil(), line: Uuid::nil(), cause: Some("bake_short".into()),
    ///     verdict: CaseVerdict::Confirmed, by_change: true, at: now - TimeDelta::days(365) };
    /// let counted = ConfirmedCases::of(&[case], Uuid::nil(), now, &Coefficients::default());
    /// assert_eq!(counted.by_cause["bake_short"], 0.5);
    /// ```
    pub fn of(
        cases: &[FaultCase],
        line: Uuid,
        now: DateTime<Utc>,
        coefficients: &Coefficients,
    ) -> Self {
        let confirmed = confirmed_cases(cases);
        let own: Vec<&FaultCase> =
            confirmed.iter().copied().filter(|case| case.line == line).collect();
        let own = Self::counted(&own, now, coefficients);
        if own.total() >= coefficients.value(&LINE_CASES) {
            return Self { of_line: true, ..own };
        }
        Self::counted(&confirmed, now, coefficients)
    }

    fn counted(cases: &[&FaultCase], now: DateTime<Utc>, coefficients: &Coefficients) -> Self {
        let mut found = Self::default();
        for case in cases {
            let shared_by = cases.iter().filter(|other| other.batch == case.batch).count();
            let value = if case.by_change { 1.0 } else { coefficients.value(&JUDGED_COUNTS) };
            let age_d = (now - case.at).as_seconds_f64() / SECONDS_PER_DAY;
            let half_lives = age_d.max(0.0) / coefficients.value(&CASE_HALF_LIFE_D);
            let counts = value * (-half_lives).exp2() / shared_by as f64;
            match &case.cause {
                Some(cause) => *found.by_cause.entry(cause.clone()).or_default() += counts,
                None => found.none += counts,
            }
        }
        found.batches = cases.iter().map(|case| case.batch).collect::<BTreeSet<_>>().len();
        found
    }

    fn total(&self) -> f64 {
        self.none + self.by_cause.values().sum::<f64>()
    }
}

const SECONDS_PER_DAY: f64 =
    crate::units::H_PER_DAY * crate::units::MIN_PER_H * crate::units::S_PER_MIN;
