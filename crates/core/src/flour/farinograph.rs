use serde::{Deserialize, Serialize};

use super::smooth::{Smooth, smooth};
use super::{Moisture, absorption_at_moisture};
use crate::units::{
    NumberRange, RawNumber, S_PER_MIN, Series, ValidationErrors, check_equal, check_rising,
};

/// Most points of a trace.
pub const MOST_POINTS: usize = 200_000;
const LEAST_POINTS: usize = 60;
/// The consistency a flour's absorption is stated at, FU.
pub(super) const AIM_FU: f64 = 500.0;
/// How far from it the peak may lie before the titration is repeated, FU.
pub(super) const OFF_AIM_FU: f64 = 20.0;
/// A top this flat is one peak, and its end the time of it, FU.
const FLAT_FU: f64 = 0.5;
/// A peak is as broad as the stretch that lies less than this below it, FU.
const BROAD_FU: f64 = 3.0;
const MTI_AFTER_MIN: f64 = 5.0;
const SOFTENING_AFTER_MIN: f64 = 12.0;
/// The quality number is read where the centre has fallen this far, FU.
pub(super) const FALLEN_FU: f64 = 30.0;

const MOISTURE: NumberRange =
    NumberRange::new("flour_moisture_pct", "flour moisture", "%", 5.0, 20.0);
const FLOUR: NumberRange = NumberRange::new("flour_g", "flour in the mixer", "g", 20.0, 400.0);
const WATER: NumberRange = NumberRange::new("water_ml", "water", "ml", 5.0, 400.0);
const TIME: NumberRange = NumberRange::new("t_s", "time from the first water", "s", 0.0, 86_400.0);
const CENTRE: NumberRange = NumberRange::new("fu", "consistency", "FU", -200.0, 2000.0);
const BAND: NumberRange = NumberRange::new("band_fu", "half the band's width", "FU", 0.0, 1000.0);

/// The size of the farinograph's mixer, by the flour it takes.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum FarinographMixer {
    G300,
    G50,
}

impl FarinographMixer {
    /// Correction of the water per FU the peak is off 500, ml.
    const fn per_fu(self) -> f64 {
        match self {
            Self::G300 => 0.096,
            Self::G50 => 0.016,
        }
    }

    const fn grams(self) -> f64 {
        match self {
            Self::G300 => 300.0,
            Self::G50 => 50.0,
        }
    }

    /// Absorption on 14 % from the corrected water and the flour, both counted from the nominal
    /// charge.
    fn absorption_14(self, corrected_ml: f64, flour_g: f64) -> f64 {
        (corrected_ml + flour_g - self.grams()) * 100.0 / self.grams()
    }

    fn check(given: &RawNumber, faults: &mut ValidationErrors) -> Self {
        match given {
            RawNumber::Number(300.0) => Self::G300,
            RawNumber::Number(50.0) => Self::G50,
            other => {
                let message = format!("the mixer takes 300 or 50 g of flour; {other} was given");
                faults.push("mixer_g", message);
                Self::G300
            }
        }
    }
}

/// A titration and its trace, checked.
#[derive(Debug, Clone, PartialEq)]
pub struct Farinogram<'a> {
    mixer: FarinographMixer,
    moisture: Moisture,
    flour_g: f64,
    water_ml: f64,
    t_s: &'a [f64],
    /// The centre line, FU.
    fu: &'a [f64],
    /// Half the band's width, FU; empty where it was not recorded.
    band_fu: &'a [f64],
}

/// What the `farinograph` calculator is asked.
#[derive(Debug, Clone, Default, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FarinographInput {
    /// 300 or 50.
    #[serde(default)]
    pub mixer_g: RawNumber,
    /// 5 to 20 %.
    #[serde(default)]
    pub flour_moisture_pct: RawNumber,
    /// 20 to 400 g; the mixer's charge on 14 % if left out.
    #[serde(default)]
    pub flour_g: RawNumber,
    /// 5 to 400 ml.
    #[serde(default)]
    pub water_ml: RawNumber,
    /// From the first water, rising, 60 to 200 000 values.
    #[serde(default)]
    pub t_s: Series,
    /// The centre line, a value for each time.
    #[serde(default)]
    pub fu: Series,
    /// Half the band's width, a value for each time; may be left out.
    #[serde(default)]
    pub band_fu: Series,
}

/// What a farinogram says.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FarinographAnswer {
    /// Water to 500 FU, on flour at 14 % moisture.
    pub absorption_14_pct: f64,
    /// The same on the flour as it is.
    pub absorption_as_is_pct: f64,
    /// The water corrected to 500 FU, ml.
    pub corrected_water_ml: f64,
    pub flour_g: f64,
    pub max_consistency_fu: f64,
    /// The line that arrival and departure are read at.
    pub line_fu: f64,
    pub development_min: f64,
    /// Minutes by which noise can move a broad peak: the farther end of the stretch around it
    /// that lies less than 3 FU below.
    pub development_within_min: f64,
    pub arrival_min: Option<f64>,
    pub departure_min: Option<f64>,
    pub stability_min: Option<f64>,
    pub mti_fu: Option<f64>,
    pub softening_fu: Option<f64>,
    pub quality_number_mm: Option<f64>,
    /// Noise found on the centre line, 1 σ; it was taken out before reading.
    pub noise_fu: f64,
    pub notes: Vec<FarinogramNote>,
}

/// What a reader of the trace has to know.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum FarinogramNote {
    /// The trace ends before a mark that lies so long after the peak.
    EndsBefore {
        mark: LateMark,
        ends_min: f64,
        after_peak_min: f64,
    },
    NoQualityNumber,
    EndsAtTop,
    /// Too far from 500 FU: the titration is to be repeated.
    PeakOffAim {
        peak_fu: f64,
    },
    NoBand,
    NoArrival {
        line_fu: f64,
    },
    NoDeparture {
        line_fu: f64,
    },
}

/// A mark read some minutes after the peak.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum LateMark {
    Mti,
    Softening,
}

impl FarinographInput {
    /// Checks every field, then reads the trace.
    pub fn compute(&self) -> Result<FarinographAnswer, ValidationErrors> {
        Ok(self.check()?.read())
    }

    /// The titration, if every field can be used.
    pub fn check(&self) -> Result<Farinogram<'_>, ValidationErrors> {
        let mut faults = ValidationErrors::default();
        let mixer = FarinographMixer::check(&self.mixer_g, &mut faults);
        let percent = MOISTURE.check(&self.flour_moisture_pct, "", &mut faults);
        let usual_g = mixer.grams() * 86.0 / (100.0 - percent);
        let flour_g = FLOUR.check_or(&self.flour_g, usual_g, "", &mut faults);
        let water_ml = WATER.check(&self.water_ml, "", &mut faults);
        let count = LEAST_POINTS..=MOST_POINTS;
        let t_s = TIME.check_all(&self.t_s, count.clone(), "", &mut faults);
        let fu = CENTRE.check_all(&self.fu, count.clone(), "", &mut faults);
        let band_fu = if self.band_fu == Series::Missing {
            &[]
        } else {
            BAND.check_all(&self.band_fu, count, "", &mut faults)
        };
        check_rising(t_s, "t_s", "time from the first water", "s", &mut faults);
        check_equal(("fu", fu), ("t_s", t_s), &mut faults);
        check_equal(("band_fu", band_fu), ("t_s", t_s), &mut faults);
        let moisture = Moisture::new(percent).unwrap_or(Moisture::FOURTEEN);
        faults.or(Farinogram { mixer, moisture, flour_g, water_ml, t_s, fu, band_fu })
    }
}

/// Where a person put marks that the reading had put elsewhere, in minutes.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct MovedMarks {
    pub arrival_min: Option<f64>,
    pub development_min: Option<f64>,
    pub departure_min: Option<f64>,
}

impl Farinogram<'_> {
    /// Reads a farinogram (ISO 5530-1, AACC 54-21, ICC 115).
    ///
    /// `Vc = V + k(Cmax − 500)`, k 0.096 ml/FU (300 g) or 0.016 (50 g); absorption on 14 % is
    /// `(Vc + m − 300)/3` or `(Vc + m − 50)·2`. The peak is the highest point of the centre line,
    /// the end of a flat top, the second of two equal ones. Arrival and departure are where the
    /// upper edge crosses 500 FU, or the peak's own height where that is more than 20 FU off.
    /// What the trace is too short for is none, with a note. Noise is taken out first.
    ///
    /// ```
    /// use ironpeel_core::flour::FarinographInput;
    /// let t_s: Vec<f64> = (0..1200).map(f64::from).collect();
    /// let fu: Vec<f64> = t_s.iter().map(|t| 512.0 - (t - 372.0).abs() / 4.0).collect();
    /// let titration = FarinographInput {
    ///     mixer_g: 300.0.into(), flour_moisture_pct: 13.2.into(), flour_g: 297.24.into(),
    ///     water_ml: 186.0.into(), t_s: t_s.into(), fu: fu.into(), ..FarinographInput::default()
    /// };
    /// let read = titration.check()?.read();
    /// assert!((read.absorption_14_pct - 61.46).abs() < 0.01);
    /// assert!((read.development_min - 6.2).abs() < 0.1);
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    pub fn read(&self) -> FarinographAnswer {
        self.read_at(MovedMarks::default())
    }

    /// As [`Self::read`], with marks where a person put them; what rests on a mark follows it.
    pub fn read_at(&self, moved: MovedMarks) -> FarinographAnswer {
        let t_min: Vec<f64> = self.t_s.iter().map(|t| t / S_PER_MIN).collect();
        let centre = smooth(&t_min, self.fu);
        let edge = self.upper_edge(&t_min, &centre);
        let mut notes = Vec::new();
        let (peak, highest) = centre.peak_at(moved.development_min);
        let development_min = centre.t[peak];
        let line_fu = self.line_fu(&centre, peak, highest, &mut notes);
        let (arrival_min, departure_min) =
            crossings(moved, (&centre.t, &edge), peak, line_fu, &mut notes);
        let mut later = |after_peak_min: f64, values: &[f64], mark: LateMark| {
            let then = at(&centre.t, values, development_min + after_peak_min);
            if then.is_none() {
                let ends_min = centre.t.last().copied().unwrap_or_default();
                notes.push(FarinogramNote::EndsBefore { mark, ends_min, after_peak_min });
            }
            then.map(|then| values[peak] - then)
        };
        let mti_fu = later(MTI_AFTER_MIN, &edge, LateMark::Mti);
        let softening_fu = later(SOFTENING_AFTER_MIN, &centre.y, LateMark::Softening);
        let fallen =
            crossing(&centre.t[peak..], &centre.y[peak..], centre.y[peak] - FALLEN_FU, false);
        if fallen.is_none() {
            notes.push(FarinogramNote::NoQualityNumber);
        }

        let corrected_water_ml = self.water_ml + self.mixer.per_fu() * (highest - AIM_FU);
        let absorption_14_pct = self.mixer.absorption_14(corrected_water_ml, self.flour_g);
        FarinographAnswer {
            absorption_14_pct,
            absorption_as_is_pct: absorption_at_moisture(
                absorption_14_pct,
                Moisture::FOURTEEN,
                self.moisture,
            ),
            corrected_water_ml,
            flour_g: self.flour_g,
            max_consistency_fu: highest,
            line_fu,
            development_min,
            development_within_min: centre.breadth(peak),
            arrival_min,
            departure_min,
            stability_min: departure_min.zip(arrival_min).map(|(end, start)| end - start),
            mti_fu,
            softening_fu,
            quality_number_mm: fallen.map(|minutes| 10.0 * minutes),
            noise_fu: centre.noise,
            notes,
        }
    }

    /// The line that arrival and departure are read on: 500 FU, or the peak's own height.
    fn line_fu(
        &self,
        centre: &Smooth,
        peak: usize,
        highest: f64,
        notes: &mut Vec<FarinogramNote>,
    ) -> f64 {
        if peak + 1 == centre.t.len() {
            notes.push(FarinogramNote::EndsAtTop);
        }
        let is_aimed = (highest - AIM_FU).abs() <= OFF_AIM_FU;
        if !is_aimed {
            notes.push(FarinogramNote::PeakOffAim { peak_fu: highest });
        }
        if self.band_fu.is_empty() {
            notes.push(FarinogramNote::NoBand);
        }
        if is_aimed { AIM_FU } else { highest }
    }

    /// The centre line and half the band, where the centre line was kept.
    fn upper_edge(&self, t_min: &[f64], centre: &Smooth) -> Vec<f64> {
        if self.band_fu.is_empty() {
            return centre.y.clone();
        }
        let band = smooth(t_min, self.band_fu);
        if band.t.len() == centre.t.len() {
            return centre.y.iter().zip(&band.y).map(|(fu, half)| fu + half).collect();
        }
        // Only one of them was thinned.
        let half = |(t, fu): (&f64, &f64)| fu + at(&band.t, &band.y, *t).unwrap_or_default();
        centre.t.iter().zip(&centre.y).map(half).collect()
    }
}

/// When the upper edge reaches the line and leaves it, each where a person put it or as it is found.
fn crossings(
    moved: MovedMarks,
    (t, edge): (&[f64], &[f64]),
    peak: usize,
    line_fu: f64,
    notes: &mut Vec<FarinogramNote>,
) -> (Option<f64>, Option<f64>) {
    let arrival_min =
        moved.arrival_min.or_else(|| crossing(&t[..=peak], &edge[..=peak], line_fu, true));
    if arrival_min.is_none() {
        notes.push(FarinogramNote::NoArrival { line_fu });
    }
    let departure_min = moved.departure_min.or_else(|| {
        arrival_min?;
        crossing(&t[peak..], &edge[peak..], line_fu, false)
    });
    if arrival_min.is_some() && departure_min.is_none() {
        notes.push(FarinogramNote::NoDeparture { line_fu });
    }
    (arrival_min, departure_min)
}

impl Smooth {
    /// Where the peak is, found or put there, and how high the curve goes.
    fn peak_at(&self, moved_min: Option<f64>) -> (usize, f64) {
        match moved_min {
            Some(minute) => {
                let at = self.t.partition_point(|t| *t < minute).min(self.t.len() - 1);
                (at, self.y[at])
            }
            None => (self.peak(), self.y.iter().copied().fold(f64::MIN, f64::max)),
        }
    }

    /// Where the peak is: the highest point, the end of a flat top.
    fn peak(&self) -> usize {
        let highest = self.y.iter().copied().fold(f64::MIN, f64::max);
        // Where noise was taken out, no half FU can be told from the top.
        let flat = if self.noise > 0.0 { 0.0 } else { FLAT_FU };
        self.y.iter().rposition(|fu| *fu >= highest - flat).unwrap_or(0)
    }

    /// Minutes from the peak to the farther end of the stretch that is nearly as high.
    fn breadth(&self, peak: usize) -> f64 {
        let lower = |fu: &f64| *fu <= self.y[peak] - BROAD_FU;
        let first = self.y[..peak].iter().rposition(lower).map_or(0, |below| below + 1);
        let last =
            self.y[peak..].iter().position(lower).map_or(self.y.len() - 1, |far| peak + far - 1);
        (self.t[peak] - self.t[first]).max(self.t[last] - self.t[peak])
    }
}

/// The value at a time, on the line between its neighbours; none outside the trace.
fn at(t: &[f64], values: &[f64], time: f64) -> Option<f64> {
    let after = t.partition_point(|one| *one < time);
    match (after.checked_sub(1), t.get(after)) {
        (_, Some(exact)) if *exact == time => Some(values[after]),
        (Some(before), Some(_)) => {
            let share = (time - t[before]) / (t[after] - t[before]);
            Some(values[before] + share * (values[after] - values[before]))
        }
        _ => None,
    }
}

/// When the values first cross a level, upward or downward; at once where they start beyond it.
fn crossing(t: &[f64], values: &[f64], level: f64, upward: bool) -> Option<f64> {
    let beyond = |value: f64| if upward { value >= level } else { value <= level };
    let after = values.iter().position(|value| beyond(*value))?;
    let Some(before) = after.checked_sub(1) else { return t.first().copied() };
    let share = (level - values[before]) / (values[after] - values[before]);
    Some(t[before] + share * (t[after] - t[before]))
}
