//! What a logger wrote, made a trace of: its unit told, its probes that fell out named.

use serde::{Deserialize, Serialize};
use thiserror::Error;

use super::coefficients::HOTTEST_CORE_C;
use crate::coefficient::Coefficients;
use crate::units::celsius_of_fahrenheit;

/// What a logger's temperatures are in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum LoggerUnit {
    Celsius,
    Fahrenheit,
}

/// A probe's column of a logger's file; a sample it did not write is none.
#[derive(Debug, Clone, PartialEq)]
pub struct LoggerColumn {
    pub name: String,
    pub samples: Vec<Option<f64>>,
}

/// A probe with all its samples.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct LoggerProbe {
    pub name: String,
    pub core_c: Vec<f64>,
}

/// A logger's probes, in °C.
#[derive(Debug, Clone, PartialEq)]
pub struct LoggerProbes {
    pub probes: Vec<LoggerProbe>,
    pub left_out: Vec<ProbeLeftOut>,
}

/// A probe that says nothing of the core.
#[derive(Debug, Clone, PartialEq)]
pub enum ProbeLeftOut {
    Silent { probe: String, from_min: f64 },
    NoCore { probe: String, from_min: f64, read_c: f64 },
}

/// Why a logger's samples are no trace.
#[derive(Debug, Clone, Copy, PartialEq, Error)]
pub enum LoggerFault {
    #[error(
        "temperatures up to {0:.0} are no core's in °C; are they °F? Say which they are, and nothing is lost"
    )]
    UnitAsked(f64),
}

impl LoggerProbes {
    /// Makes °C of what the probes wrote and leaves out those that fell silent, or out of the loaf.
    /// A file that names no unit, most of whose probes are hotter than any core, is asked for it.
    ///
    /// ```
    /// use ironpeel_core::coefficient::Coefficients;
    /// use ironpeel_core::oven::{LoggerColumn, LoggerProbes, LoggerUnit};
    /// let probe = LoggerColumn { name: "1".into(), samples: vec![Some(82.4), Some(203.0)] };
    /// let house = Coefficients::default();
    /// assert!(LoggerProbes::of(&[0.0, 20.0], vec![probe.clone()], None, &house).is_err());
    /// let read = LoggerProbes::of(&[0.0, 20.0], vec![probe], Some(LoggerUnit::Fahrenheit), &house)?;
    /// assert!((read.probes[0].core_c[0] - 28.0).abs() < 1e-9);
    /// # Ok::<(), ironpeel_core::oven::LoggerFault>(())
    /// ```
    pub fn of(
        t_min: &[f64],
        columns: Vec<LoggerColumn>,
        unit: Option<LoggerUnit>,
        coefficients: &Coefficients,
    ) -> Result<Self, LoggerFault> {
        let hottest_c = coefficients.value(&HOTTEST_CORE_C);
        let highest = |column: &LoggerColumn| {
            column.samples.iter().flatten().copied().fold(f64::MIN, f64::max)
        };
        let hot: Vec<f64> = columns.iter().map(highest).filter(|one| *one > hottest_c).collect();
        if unit.is_none() && 2 * hot.len() > columns.len() {
            return Err(LoggerFault::UnitAsked(hot.into_iter().fold(f64::MIN, f64::max)));
        }
        let celsius = |read: f64| match unit {
            Some(LoggerUnit::Fahrenheit) => celsius_of_fahrenheit(read),
            _ => read,
        };
        let mut found = Self { probes: Vec::new(), left_out: Vec::new() };
        for LoggerColumn { name: probe, samples } in columns {
            let silent = samples.iter().position(Option::is_none);
            let core_c: Vec<f64> = samples.into_iter().flatten().map(celsius).collect();
            let out = core_c.iter().position(|read_c| *read_c > hottest_c);
            let at = |place: usize| t_min.get(place).copied().unwrap_or_default();
            match (silent, out) {
                (None, None) => found.probes.push(LoggerProbe { name: probe, core_c }),
                (_, Some(place)) => found.left_out.push(ProbeLeftOut::NoCore {
                    probe,
                    from_min: at(place),
                    read_c: core_c[place],
                }),
                (Some(place), None) => {
                    found.left_out.push(ProbeLeftOut::Silent { probe, from_min: at(place) });
                }
            }
        }
        Ok(found)
    }
}
