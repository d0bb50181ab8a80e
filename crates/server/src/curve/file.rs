use ironpeel_core::units::{DecimalMark, NumberError, decimal_mark_of, parse_number};
use serde::Serialize;
use std::cell::Cell;
use thiserror::Error;
use utoipa::ToSchema;

use crate::text_file::{FileKind, TextFault, decode, records};

/// Points taken of one curve.
const MOST_POINTS: usize = 200_000;
const MOST_CURVES: usize = 10;

/// A curve file taken apart: the head it came with and the points, not yet read.
#[derive(Debug, Clone, PartialEq, Default, Serialize, ToSchema)]
pub struct CurveFile {
    /// farinograph or alveograph.
    pub kind: &'static str,
    /// mixer_g, flour_moisture_pct, flour_g and water_ml, where the file states them.
    pub mixer_g: Option<f64>,
    pub flour_moisture_pct: Option<f64>,
    pub flour_g: Option<f64>,
    pub water_ml: Option<f64>,
    pub lot: Option<String>,
    pub t_s: Vec<f64>,
    pub fu: Vec<f64>,
    pub band_fu: Vec<f64>,
    pub curves: Vec<AlveogramFile>,
    /// What was noticed and left out.
    pub notes: Vec<String>,
}

/// The points of one bubble.
#[derive(Debug, Clone, PartialEq, Default, Serialize, ToSchema)]
pub struct AlveogramFile {
    pub l_mm: Vec<f64>,
    pub p_mmh2o: Vec<f64>,
}

/// Why a file is not a curve.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub enum CurveFault {
    #[error("{0}")]
    Text(#[from] TextFault),
    #[error(
        "this is not a curve; a farinogram has columns time_s, torque_fu and perhaps band_fu, an alveogram curve, l_mm, p_mmh2o"
    )]
    NotACurve,
    #[error("{0}")]
    Marks(NumberError),
    #[error("the curve has more than {MOST_POINTS} points")]
    TooLong,
}

#[derive(Clone, Copy, PartialEq, Eq)]
enum Column {
    Seconds,
    Minutes,
    Centre,
    Band,
    Curve,
    Length,
    Pressure,
    Other,
}

impl Column {
    fn of(header: &str) -> Self {
        let letter = |c: &char| c.is_alphanumeric();
        let word: String = header.to_lowercase().chars().filter(letter).collect();
        match word.as_str() {
            "times" | "t" | "ts" | "time" | "seconds" | "s" | "zeits" | "tempss" => Self::Seconds,
            "timemin" | "tmin" | "min" | "minutes" | "zeitmin" | "tempsmin" => Self::Minutes,
            "torquefu" | "fu" | "bu" | "torque" | "consistency" | "consistencyfu" | "torquebu"
            | "konsistenz" | "consistance" => Self::Centre,
            "bandfu" | "band" | "halfband" | "halfbandfu" | "bandbu" => Self::Band,
            "curve" | "bubble" | "kurve" | "courbe" => Self::Curve,
            "lmm" | "l" | "length" | "lengthmm" => Self::Length,
            "pmmh2o" | "p" | "pressure" | "pressuremmh2o" => Self::Pressure,
            _ => Self::Other,
        }
    }
}

impl CurveFile {
    /// Takes a curve apart: comma, semicolon or tab, decimal comma or point, a head of key and
    /// value before the columns. Lines that are not numbers are left out and counted.
    pub fn read(bytes: &[u8], mark: Option<DecimalMark>) -> Result<Self, CurveFault> {
        let text = decode(bytes, FileKind::Curve)?;
        [b';', b'\t', b',']
            .into_iter()
            .find_map(|delimiter| Self::with_delimiter(&text, delimiter, mark))
            .unwrap_or(Err(CurveFault::NotACurve))
    }

    fn with_delimiter(
        text: &str,
        delimiter: u8,
        mark: Option<DecimalMark>,
    ) -> Option<Result<Self, CurveFault>> {
        let found = records(text, delimiter);
        let mark = decimal_mark_of(found.flatten().collect::<Vec<_>>().iter().map(String::as_str))
            .or(mark);
        let mut lines = records(text, delimiter);
        let mut file = Self::default();
        let columns = loop {
            let cells = lines.next()?;
            let columns: Vec<Column> = cells.iter().map(|cell| Column::of(cell)).collect();
            let has = |column| columns.contains(&column);
            if (has(Column::Seconds) || has(Column::Minutes)) && has(Column::Centre) {
                file.kind = "farinograph";
                break columns;
            }
            if has(Column::Length) && has(Column::Pressure) {
                file.kind = "alveograph";
                break columns;
            }
            file.head(&cells, mark);
        };
        let mut left_out = 0;
        for cells in lines {
            let open = Cell::new(None);
            let number = |wanted| {
                let at = columns.iter().position(|column| *column == wanted)?;
                let read = parse_number(cells.get(at)?, mark);
                read.inspect_err(|error| open.set(Some(error.clone()))).ok()
            };
            let taken = if file.kind == "farinograph" {
                let time =
                    number(Column::Seconds).or_else(|| Some(number(Column::Minutes)? * 60.0));
                file.point(time, number(Column::Centre), number(Column::Band))
            } else {
                let curve = if columns.contains(&Column::Curve) {
                    number(Column::Curve)
                } else {
                    Some(1.0)
                };
                file.bubble_point(curve, number(Column::Length), number(Column::Pressure))
            };
            if let Some(error @ NumberError::Ambiguous { .. }) = open.take() {
                return Some(Err(CurveFault::Marks(error)));
            }
            left_out += usize::from(taken.is_none() && cells.iter().any(|cell| !cell.is_empty()));
            let bubbles: usize = file.curves.iter().map(|curve| curve.l_mm.len()).sum();
            if file.t_s.len() > MOST_POINTS || bubbles > MOST_POINTS {
                return Some(Err(CurveFault::TooLong));
            }
        }
        if left_out > 0 {
            file.notes.push(format!("{left_out} lines without numbers were left out"));
        }
        if file.band_fu.len() != file.t_s.len() {
            file.band_fu.clear();
        }
        Some(Ok(file))
    }

    fn head(&mut self, cells: &[String], mark: Option<DecimalMark>) {
        let [key, value, ..] = cells else { return };
        let number = || parse_number(value, mark).ok();
        match key.to_lowercase().as_str() {
            "mixer_g" => self.mixer_g = number(),
            "flour_moisture_pct" => self.flour_moisture_pct = number(),
            "flour_g" => self.flour_g = number(),
            "water_ml" => self.water_ml = number(),
            "lot" => self.lot = Some(value.chars().take(60).collect()),
            _ => {}
        }
    }

    /// A point that comes after the last one; samples out of order are left out.
    fn point(&mut self, time: Option<f64>, centre: Option<f64>, band: Option<f64>) -> Option<()> {
        let (time, centre) = (time?, centre?);
        if self.t_s.last().is_some_and(|last| *last >= time) {
            return None;
        }
        self.t_s.push(time);
        self.fu.push(centre);
        self.band_fu.extend(band);
        Some(())
    }

    fn bubble_point(&mut self, curve: Option<f64>, l: Option<f64>, p: Option<f64>) -> Option<()> {
        let (number, l, p) = (curve?, l?, p?);
        if !(1.0..=MOST_CURVES as f64).contains(&number) {
            return None;
        }
        let at = number as usize - 1;
        if self.curves.len() <= at {
            self.curves.resize_with(at + 1, AlveogramFile::default);
        }
        let bubble = &mut self.curves[at];
        if bubble.l_mm.last().is_some_and(|last| *last >= l) {
            return None;
        }
        bubble.l_mm.push(l);
        bubble.p_mmh2o.push(p);
        Some(())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    const MIXING: &[u8] = include_bytes!("../../demo/curve-mixing.csv");
    const BUBBLE: &[u8] = include_bytes!("../../demo/curve-bubble.csv");

    #[test]
    fn takes_a_mixing_curve_apart_however_it_is_written() {
        let plain = CurveFile::read(MIXING, None).expect("a curve");
        assert_eq!((plain.kind, plain.t_s.len(), plain.band_fu.len()), ("farinograph", 1201, 1201));
        let text = String::from_utf8(MIXING.to_vec()).expect("UTF-8");
        let german = text.replace(',', ";").replace('.', ",");
        assert_eq!(CurveFile::read(german.as_bytes(), None).expect("a curve"), plain);
        let with_head = format!("mixer_g,300\nwater_ml,184.9\nlot,VR-1\n{text}");
        let read = CurveFile::read(with_head.as_bytes(), None).expect("a curve");
        assert_eq!(
            (read.mixer_g, read.water_ml, read.lot.as_deref()),
            (Some(300.0), Some(184.9), Some("VR-1"))
        );
    }

    #[test]
    fn takes_bubbles_apart() {
        let file = CurveFile::read(BUBBLE, None).expect("curves");
        let lengths: Vec<usize> = file.curves.iter().map(|curve| curve.l_mm.len()).collect();
        assert_eq!((file.kind, lengths.len()), ("alveograph", 5));
        assert_eq!(lengths[3], 130);
    }

    #[test]
    fn lines_that_are_no_points_are_counted() {
        let file = CurveFile::read(b"time_s,fu\n0,1\nx,2\n1,3\n1,4\n", None).expect("a curve");
        assert_eq!((file.t_s.as_slice(), file.notes.len()), (&[0.0, 1.0][..], 1));
        assert!(file.notes[0].starts_with("2 lines"));
        assert_eq!(CurveFile::read(b"dear miller\n", None), Err(CurveFault::NotACurve));
    }

    proptest::proptest! {
        #[test]
        fn no_file_makes_it_panic(bytes in proptest::collection::vec(proptest::prelude::any::<u8>(), 0..400)) {
            let _ = CurveFile::read(&bytes, None);
            let _ = CurveFile::read(&[b"curve,l_mm,p_mmh2o\n".as_slice(), &bytes].concat(), None);
            let _ = CurveFile::read(&[b"time_s;fu\n".as_slice(), &bytes].concat(), None);
        }
    }
}
