use serde::{Deserialize, Serialize};

use super::coefficients as c;
use super::crossing::{Samples, Smoothing};
use crate::coefficient::{Coefficient, Coefficients};
use crate::units::{NumberRange, RawNumber, Series, ValidationErrors, check_equal, check_rising};
use crate::water::coefficients::ARRIVAL;

/// A logger's core temperatures of one bake.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BakeTraceInput {
    /// Minutes from oven entry, rising, 5 to 200 000.
    #[serde(default)]
    pub t_min: Series,
    /// 1 to 64.
    #[serde(default)]
    pub probes: Vec<ProbeInput>,
    /// 1 to 600 min.
    #[serde(default)]
    pub bake_min: RawNumber,
    /// Share of the bake by which the slowest probe is to have arrived, 50 to 100 %; 85 if left out.
    #[serde(default)]
    pub target_arrival_pct: RawNumber,
    /// 40 to 70 °C; 56 if left out.
    #[serde(default)]
    pub yeast_kill_c: RawNumber,
    /// 60 to 95 °C; 82 if left out.
    #[serde(default)]
    pub gelatinised_c: RawNumber,
    /// 80 to 99 °C; 93 if left out.
    #[serde(default)]
    pub arrival_c: RawNumber,
    /// 40 to 95 °C; 80 if left out.
    #[serde(default)]
    pub steam_until_c: RawNumber,
}

/// One probe of a logger.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ProbeInput {
    #[serde(default)]
    pub name: String,
    /// −40 to 110 °C, a value for each of `t_min`.
    #[serde(default)]
    pub core_c: Series,
}

/// What a bake's core temperatures say.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BakeTrace {
    pub probes: Vec<ProbeReading>,
    /// The probe that arrives last, or that never does.
    pub slowest: Option<String>,
    /// From the first probe's arrival to the last's; none where one never arrives.
    pub spread_min: Option<f64>,
    pub target_arrival_pct: f64,
    /// The bake in which the slowest probe arrives by the target's share of it; none where one
    /// never arrives.
    pub bake_min_for_target: Option<f64>,
    /// When the slowest probe's core is where steam goes off.
    pub steam_until_min: Option<f64>,
    pub notes: Vec<BakeTraceNote>,
}

/// What one probe says. A crossing is none where the probe begins above it, or never comes there.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ProbeReading {
    pub name: String,
    pub yeast_kill_min: Option<f64>,
    pub gelatinised_min: Option<f64>,
    pub arrival_min: Option<f64>,
    /// `100 · arrival / bake`.
    pub arrival_pct: Option<f64>,
    /// At the end of the bake; of the last sample where the trace ends before.
    pub end_c: f64,
}

/// What is to be known of a trace.
#[derive(Debug, Clone, PartialEq)]
pub enum BakeTraceNote {
    BeginsAbove { probe: String, level_c: f64 },
    NeverArrives { probe: String, arrival_c: f64, highest_c: f64 },
    EndsEarly { last_min: f64, bake_min: f64 },
}

const SAMPLES: std::ops::RangeInclusive<usize> = 5..=200_000;
const MOST_PROBES: usize = 64;
const MOST_NAME: usize = 60;
const T: NumberRange = NumberRange::new("t_min", "time from oven entry", "min", 0.0, 1440.0);
const CORE: NumberRange = NumberRange::new("core_c", "core temperature", "°C", -40.0, 110.0);
const BAKE: NumberRange = NumberRange::new("bake_min", "bake time", "min", 1.0, 600.0);
const TARGET: NumberRange =
    NumberRange::new("target_arrival_pct", "target arrival", "% of the bake", 50.0, 100.0);

/// The core temperatures a trace is read at, °C.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CoreLevels {
    pub yeast_kill_c: f64,
    pub gelatinised_c: f64,
    pub arrival_c: f64,
    pub steam_until_c: f64,
}

impl CoreLevels {
    /// As a plant has them.
    pub fn of(coefficients: &Coefficients) -> Self {
        Self {
            yeast_kill_c: coefficients.value(&c::YEAST_KILL_C),
            gelatinised_c: coefficients.value(&c::GELATINISED_C),
            arrival_c: coefficients.value(&c::ARRIVAL_C),
            steam_until_c: coefficients.value(&c::STEAM_UNTIL_C),
        }
    }
}

/// A probe that is checked, with its crossings.
struct Probe<'a> {
    name: &'a str,
    core_c: &'a [f64],
    samples: Samples,
}

impl BakeTraceInput {
    /// Checks every field, then finds where each probe first rises through the levels, linear
    /// between samples; a noisy trace is read through local parabolas first.
    ///
    /// `arrival_pct = 100·arrival/bake`, `bake_min_for_target = slowest arrival/target·100`.
    ///
    /// ```
    /// use ironpeel_core::{coefficient::Coefficients, oven::BakeTraceInput};
    /// let input: BakeTraceInput = serde_json::from_str(r#"{"bake_min": 20,
    ///     "t_min": [0, 4, 8, 12, 14, 16, 18, 20],
    ///     "probes": [{"name": "1", "core_c": [28, 34, 48, 66, 76, 85, 92, 96]}]}"#)?;
    /// let read = input.compute(&Coefficients::default())?;
    /// let near = |found: Option<f64>, is: f64| (found.unwrap() - is).abs() < 0.005;
    /// assert!(near(read.probes[0].yeast_kill_min, 9.78));
    /// assert!(near(read.probes[0].gelatinised_min, 15.33));
    /// assert!(near(read.probes[0].arrival_min, 18.5));
    /// assert!((read.bake_min_for_target.unwrap() - 21.8).abs() < 0.05);
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    pub fn compute(&self, coefficients: &Coefficients) -> Result<BakeTrace, ValidationErrors> {
        let mut faults = ValidationErrors::default();
        let t_min = T.check_all(&self.t_min, SAMPLES, "", &mut faults);
        check_rising(t_min, "t_min", "time from oven entry", "min", &mut faults);
        let bake_min = BAKE.check(&self.bake_min, "", &mut faults);
        let house = |coefficient: &Coefficient| coefficients.value(coefficient);
        let target_arrival_pct =
            TARGET.check_or(&self.target_arrival_pct, house(&ARRIVAL), "", &mut faults);
        let levels = self.levels(coefficients, &mut faults);
        let probes = self.probes(t_min, &mut faults);
        faults.or(())?;
        let smoothing =
            Smoothing { noisy_c: house(&c::NOISY_C), half_min: house(&c::SMOOTHED_MIN) };
        let probes: Vec<Probe<'_>> = probes
            .into_iter()
            .map(|(name, core_c)| Probe {
                name,
                core_c,
                samples: Samples::new(t_min, core_c, smoothing),
            })
            .collect();
        Ok(read(t_min, &probes, bake_min, target_arrival_pct, levels))
    }

    fn levels(&self, coefficients: &Coefficients, faults: &mut ValidationErrors) -> CoreLevels {
        let mut level = |given: &RawNumber, field, words, house: &Coefficient| {
            let (least, most) = house.limits();
            let range = NumberRange::new(field, words, "°C", least, most);
            range.check_or(given, coefficients.value(house), "", faults)
        };
        CoreLevels {
            yeast_kill_c: level(
                &self.yeast_kill_c,
                "yeast_kill_c",
                "where yeast is killed",
                &c::YEAST_KILL_C,
            ),
            gelatinised_c: level(
                &self.gelatinised_c,
                "gelatinised_c",
                "where starch is gelatinised",
                &c::GELATINISED_C,
            ),
            arrival_c: level(&self.arrival_c, "arrival_c", "arrival", &c::ARRIVAL_C),
            steam_until_c: level(
                &self.steam_until_c,
                "steam_until_c",
                "where steam goes off",
                &c::STEAM_UNTIL_C,
            ),
        }
    }

    fn probes(&self, t_min: &[f64], faults: &mut ValidationErrors) -> Vec<(&str, &[f64])> {
        if self.probes.is_empty() {
            faults.push("probes", "a trace has at least one probe");
        }
        if self.probes.len() > MOST_PROBES {
            let message = format!("up to {MOST_PROBES} probes; {} were given", self.probes.len());
            faults.push("probes", message);
        }
        let probes = self.probes.iter().take(MOST_PROBES).enumerate();
        probes
            .map(|(at, probe)| {
                let at = format!("probes[{at}].");
                if probe.name.chars().count() > MOST_NAME {
                    let message = format!("a probe's name has up to {MOST_NAME} letters");
                    faults.push(format!("{at}name"), message);
                }
                let core_c = CORE.check_all(&probe.core_c, SAMPLES, &at, faults);
                check_equal((&format!("{at}core_c"), core_c), ("t_min", t_min), faults);
                (&*probe.name, core_c)
            })
            .collect()
    }
}

fn read(
    t_min: &[f64],
    probes: &[Probe<'_>],
    bake_min: f64,
    target_arrival_pct: f64,
    levels: CoreLevels,
) -> BakeTrace {
    let mut notes = Vec::new();
    let last_min = t_min.last().copied().unwrap_or(bake_min);
    if last_min < bake_min {
        notes.push(BakeTraceNote::EndsEarly { last_min, bake_min });
    }
    let readings: Vec<ProbeReading> = probes
        .iter()
        .map(|probe| {
            let arrival_min = probe.samples.rises_through(levels.arrival_c);
            notes.extend(probe.notes(levels, arrival_min));
            ProbeReading {
                name: probe.name.into(),
                yeast_kill_min: probe.samples.rises_through(levels.yeast_kill_c),
                gelatinised_min: probe.samples.rises_through(levels.gelatinised_c),
                arrival_min,
                arrival_pct: arrival_min.map(|arrival| 100.0 * arrival / bake_min),
                end_c: at(t_min, probe.core_c, bake_min),
            }
        })
        .collect();
    let (slowest, spread_min, bake_min_for_target) = summed(&readings, target_arrival_pct);
    BakeTrace {
        slowest: slowest.map(|at| readings[at].name.clone()),
        spread_min,
        target_arrival_pct,
        bake_min_for_target,
        steam_until_min: slowest
            .and_then(|at| probes[at].samples.rises_through(levels.steam_until_c)),
        probes: readings,
        notes,
    }
}

/// Which probe is slowest, how far arrivals lie apart, and the bake for a target: none where one never
/// arrives.
pub(super) fn summed(
    readings: &[ProbeReading],
    target_pct: f64,
) -> (Option<usize>, Option<f64>, Option<f64>) {
    let arrivals: Option<Vec<f64>> = readings.iter().map(|one| one.arrival_min).collect();
    let last = arrivals.as_ref().and_then(|all| all.iter().copied().reduce(f64::max));
    let first = arrivals.as_ref().and_then(|all| all.iter().copied().reduce(f64::min));
    let spread_min = last.zip(first).map(|(last, first)| last - first);
    (slowest(readings), spread_min, last.map(|last| last / target_pct * 100.0))
}

/// Which probe arrives last, or never does.
fn slowest(readings: &[ProbeReading]) -> Option<usize> {
    let late = |at: usize| readings[at].arrival_min.unwrap_or(f64::INFINITY);
    (0..readings.len()).max_by(|one, other| late(*one).total_cmp(&late(*other)))
}

impl BakeTrace {
    /// The probe that arrives last, or that never does.
    pub fn slowest_probe(&self) -> Option<&ProbeReading> {
        slowest(&self.probes).map(|at| &self.probes[at])
    }
}

/// A temperature at a time, linear between samples; the nearest beyond them.
fn at(t_min: &[f64], core_c: &[f64], time: f64) -> f64 {
    let after = t_min.partition_point(|at| *at < time);
    if after == 0 {
        return core_c[0];
    }
    if after == t_min.len() {
        return core_c[after - 1];
    }
    let share = (time - t_min[after - 1]) / (t_min[after] - t_min[after - 1]);
    core_c[after - 1] + share * (core_c[after] - core_c[after - 1])
}

impl Probe<'_> {
    fn notes(&self, levels: CoreLevels, arrival_min: Option<f64>) -> Vec<BakeTraceNote> {
        let CoreLevels { yeast_kill_c, gelatinised_c, arrival_c, .. } = levels;
        let probe = || self.name.to_owned();
        let begins = self.samples.first_c();
        let above = [yeast_kill_c, gelatinised_c, arrival_c].into_iter();
        let above = above.filter(|level_c| begins >= *level_c);
        let mut notes: Vec<_> =
            above.map(|level_c| BakeTraceNote::BeginsAbove { probe: probe(), level_c }).collect();
        if arrival_min.is_none() && begins < arrival_c {
            let highest_c = self.core_c.iter().copied().fold(f64::MIN, f64::max);
            notes.push(BakeTraceNote::NeverArrives { probe: probe(), arrival_c, highest_c });
        }
        notes
    }
}
