//! What bake loggers write, taken apart.

use ironpeel_core::coefficient::Coefficients;
use ironpeel_core::oven::{
    LoggerColumn, LoggerFault, LoggerProbe, LoggerProbes, LoggerUnit, ProbeLeftOut,
};
use ironpeel_core::units::{DecimalMark, MIN_PER_H, NumberError, S_PER_MIN, parse_number};
use serde::Serialize;
use thiserror::Error;
use utoipa::ToSchema;

use crate::text_file::{FileKind, TextFault, decode, table};

/// Samples of one probe, and probes of one file.
const MOST_SAMPLES: usize = 200_000;
const MOST_PROBES: usize = 64;
const MIN_PER_DAY: f64 = 24.0 * MIN_PER_H;
/// Two parts with a colon are a clock's hours and minutes where, as minutes and seconds, nothing
/// would have had time to bake.
const SHORTEST_BAKE_MIN: f64 = 3.0;

/// A logger's file taken apart, not yet read.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BakeFile {
    /// Minutes from the first sample where the file tells the time of day, else as it counts them.
    pub t_min: Vec<f64>,
    pub probes: Vec<LoggerProbe>,
    /// Probes that say nothing of the core, and why.
    #[schema(value_type = Vec<String>)]
    pub left_out: Vec<ProbeLeftOut>,
    /// What the file, or whoever was asked, says its temperatures are in.
    pub unit: Option<LoggerUnit>,
}

/// Why a file is not a bake trace.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum BakeFileFault {
    #[error("{0}")]
    Text(#[from] TextFault),
    #[error(
        "this is not a bake trace; a logger's file has a column of time and one for each probe, with their names above"
    )]
    NotATrace,
    #[error("line {line}: time goes back, from {before} to {after}")]
    TimeGoesBack { line: usize, before: String, after: String },
    #[error("line {line}: “{given}” is no time")]
    NoTime { line: usize, given: String },
    #[error("{0}")]
    Marks(NumberError),
    #[error("a trace has up to {MOST_SAMPLES} samples and {MOST_PROBES} probes")]
    TooLong,
    #[error("{0}")]
    Unit(LoggerFault),
    #[error("no probe is left: {0}")]
    NoProbe(String),
}

impl BakeFile {
    /// Takes a trace apart: comma, semicolon or tab, decimal comma or point, time in minutes,
    /// seconds or by the clock, °C or °F as its headers say or somebody does.
    pub fn read(
        bytes: &[u8],
        mark: Option<DecimalMark>,
        unit: Option<LoggerUnit>,
        coefficients: &Coefficients,
    ) -> Result<Self, BakeFileFault> {
        let text = decode(bytes, FileKind::BakeTrace)?;
        let (headers, rows) = table(&text);
        let time = headers.iter().position(|header| is_time(header));
        let (Some(time), true) = (time, headers.len() > 1) else {
            return Err(BakeFileFault::NotATrace);
        };
        if rows.len() > MOST_SAMPLES || headers.len() > MOST_PROBES + 1 {
            return Err(BakeFileFault::TooLong);
        }
        let t_min = times(&headers[time], &rows, time, mark)?;
        let unit = unit.or_else(|| headers.iter().find_map(|header| unit_of(header)));
        let mut columns = Vec::new();
        for (at, header) in headers.iter().enumerate().filter(|(at, _)| *at != time) {
            let mut samples = Vec::with_capacity(rows.len());
            for row in &rows {
                let cell = row.get(at).map(|cell| cell.trim_end_matches(['°', 'C', 'F', ' ']));
                samples.push(match cell.map(|cell| parse_number(cell, mark)) {
                    Some(Err(error @ NumberError::Ambiguous { .. })) => {
                        return Err(BakeFileFault::Marks(error));
                    }
                    Some(Ok(value)) => Some(value),
                    _ => None,
                });
            }
            // A column without any number is a remark.
            if samples.iter().any(Option::is_some) {
                columns.push(LoggerColumn { name: name_of(header, at), samples });
            }
        }
        let LoggerProbes { probes, left_out } =
            LoggerProbes::of(&t_min, columns, unit, coefficients).map_err(BakeFileFault::Unit)?;
        if probes.is_empty() {
            let why: Vec<String> = left_out.iter().map(ToString::to_string).collect();
            return Err(BakeFileFault::NoProbe(why.join("; ")));
        }
        Ok(Self { t_min, probes, left_out, unit })
    }
}

/// A header's words, without its unit.
fn words(header: &str) -> String {
    let lower = header.to_lowercase();
    lower.chars().map(|letter| if letter.is_alphanumeric() { letter } else { ' ' }).collect()
}

fn is_time(header: &str) -> bool {
    words(header).split_whitespace().any(|word| {
        matches!(
            word,
            "time" | "t" | "min" | "minutes" | "clock" | "seconds" | "zeit" | "temps" | "tmin"
        )
    })
}

fn unit_of(header: &str) -> Option<LoggerUnit> {
    let says = |word: &str| words(header).split_whitespace().any(|one| one == word);
    if header.contains("°F") || says("f") || says("fahrenheit") {
        return Some(LoggerUnit::Fahrenheit);
    }
    let celsius = header.contains("°C") || says("c") || says("celsius");
    celsius.then_some(LoggerUnit::Celsius)
}

fn name_of(header: &str, at: usize) -> String {
    let bare = header.split(['(', '[', '°', ',']).next().unwrap_or_default().trim();
    if bare.is_empty() { format!("Probe {at}") } else { bare.chars().take(60).collect() }
}

/// A moment as a file writes it: one number, or parts with colons.
enum Moment {
    Number(f64),
    Parts(Vec<f64>),
}

fn times(
    header: &str,
    rows: &[Vec<String>],
    column: usize,
    mark: Option<DecimalMark>,
) -> Result<Vec<f64>, BakeFileFault> {
    let given = |row: &Vec<String>| row.get(column).cloned().unwrap_or_default();
    let mut moments = Vec::with_capacity(rows.len());
    for (at, row) in rows.iter().enumerate() {
        let cell = given(row);
        // A date before the time of day is of no use here.
        let clock = cell.rsplit([' ', 'T']).next().unwrap_or_default();
        let parts: Result<Vec<f64>, _> =
            clock.split(':').map(|part| parse_number(part, mark)).collect();
        moments.push(match parts {
            Ok(parts) if parts.len() == 1 => Moment::Number(parts[0]),
            Ok(parts) if parts.len() <= 3 => Moment::Parts(parts),
            _ => return Err(BakeFileFault::NoTime { line: at + 2, given: cell }),
        });
    }
    let per_min = if words(header).split_whitespace().any(|word| matches!(word, "s" | "seconds")) {
        S_PER_MIN
    } else {
        1.0
    };
    let minutes = |first_is_hours: bool| {
        moments.iter().map(move |moment| match moment {
            Moment::Number(number) => number / per_min,
            Moment::Parts(parts) => {
                let sixtieths = parts.iter().fold(0.0, |sum, part| sum * S_PER_MIN + part);
                if parts.len() == 2 && first_is_hours { sixtieths } else { sixtieths / S_PER_MIN }
            }
        })
    };
    let is_clock = moments.iter().any(|one| matches!(one, Moment::Parts(_)));
    let mut found: Vec<f64> = minutes(false).collect();
    let span = found.last().zip(found.first()).map_or(0.0, |(last, first)| last - first);
    if is_clock && span.abs() < SHORTEST_BAKE_MIN {
        found = minutes(true).collect();
    }
    let first = if is_clock { found.first().copied().unwrap_or_default() } else { 0.0 };
    let mut midnight = 0.0;
    for at in 0..found.len() {
        found[at] += midnight - first;
        if at == 0 || found[at] > found[at - 1] {
            continue;
        }
        // The day changed while it baked.
        if is_clock && found[at - 1] - found[at] > MIN_PER_DAY / 2.0 {
            midnight += MIN_PER_DAY;
            found[at] += MIN_PER_DAY;
            continue;
        }
        return Err(BakeFileFault::TimeGoesBack {
            line: at + 2,
            before: given(&rows[at - 1]),
            after: given(&rows[at]),
        });
    }
    Ok(found)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn read(text: &str, unit: Option<LoggerUnit>) -> Result<BakeFile, BakeFileFault> {
        BakeFile::read(text.as_bytes(), None, unit, &Coefficients::default())
    }

    #[test]
    fn takes_a_trace_apart_however_time_is_written() {
        let plain = read("time_min,Left,Right\n0,28.0,28.4\n10,60,62\n20.5,95,96\n", None);
        let plain = plain.expect("a trace");
        assert_eq!(plain.t_min, [0.0, 10.0, 20.5]);
        assert_eq!(plain.probes[1].name, "Right");
        for text in [
            "Zeit (min);Left [°C];Right [°C]\n0;28,0;28,4\n10;60;62\n20,5;95;96\n",
            "time (s)\tLeft\tRight\n0\t28.0\t28.4\n600\t60\t62\n1230\t95\t96\n",
            "clock,Left (C),Right (C)\n23:50:00,28.0,28.4\n00:00:00,60,62\n00:10:30,95,96\n",
            "Time,Left,Right\n2026-11-30 04:00:00,28.0,28.4\n2026-11-30 04:10:00,60,62\n2026-11-30 04:20:30,95,96\n",
            "time,Left,Right\n00:00,28.0,28.4\n10:00,60,62\n20:30,95,96\n",
        ] {
            let found = read(text, None).expect(text);
            assert_eq!((&found.t_min, &found.probes), (&plain.t_min, &plain.probes), "{text}");
        }
        let by_the_clock = read("clock,1\n04:00,28\n04:10,60\n04:20,95\n", None);
        assert_eq!(by_the_clock.expect("a trace").t_min, [0.0, 10.0, 20.0]);
    }

    #[test]
    fn fahrenheit_is_said_or_asked() {
        let bare = "time_min,1,2\n0,82,83\n10,140,142\n20,203,204\n";
        let asked = read(bare, None).expect_err("which is it?");
        assert!(matches!(asked, BakeFileFault::Unit(_)) && asked.to_string().contains("°F"));
        let told = read(bare, Some(LoggerUnit::Fahrenheit)).expect("a trace");
        assert!((told.probes[0].core_c[2] - 95.0).abs() < 0.01);
        let said = read(&bare.replace(",1,2", ",1 (°F),2 (°F)"), None).expect("a trace");
        assert_eq!(said.probes[0].core_c, told.probes[0].core_c);
        assert_eq!(said.probes[0].name, "1");
    }

    #[test]
    fn what_is_no_trace_is_told_by_its_line() {
        for (text, words) in [
            ("dear baker\n", "not a bake trace"),
            ("time,1\n0,28\n10,60\n9,61\n", "line 4: time goes back, from 10 to 9"),
            ("time,1\n0,28\nsoon,60\n", "line 3: “soon” is no time"),
            ("time,1\n0,28\n10,\n", "no probe is left: 1 wrote nothing at 10.0 min"),
            ("", "empty"),
        ] {
            let fault = read(text, None).expect_err(text).to_string();
            assert!(fault.contains(words), "{fault}");
        }
        // A shorter column is a probe that fell silent.
        let uneven = read("time,1,2\n0,28,28\n10,60\n20,95\n", None).expect("one is left");
        assert_eq!((uneven.probes.len(), uneven.left_out.len()), (1, 1));
    }

    proptest::proptest! {
        #[test]
        fn no_file_makes_it_panic(bytes in proptest::collection::vec(proptest::prelude::any::<u8>(), 0..400)) {
            let house = Coefficients::default();
            let _ = BakeFile::read(&bytes, None, None, &house);
            let _ = BakeFile::read(&[b"time,1,2\n".as_slice(), &bytes].concat(), None, None, &house);
        }
    }
}
